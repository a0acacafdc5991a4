// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/bench.h"

#include "ui/kit/words.h"

namespace jg::ui {

Bench::Bench(ReviewContext& context)
    : c_(context) {
    column_ = new QVBoxLayout(this);
    column_->setContentsMargins(20, 18, 20, 12);
    column_->setSpacing(8);
}

bool Bench::act(const QString& id) {
    return knows(id) && runIn(handlers_, id);
}

bool Bench::knows(const QString& id) {
    if (handlers_.empty()) handlers_ = handlers();
    return handlers_.contains(id);
}

bool Bench::perform(const Message& label, std::vector<Change> changes) {
    const Status done = c_.session.perform(label, std::move(changes));
    if (!done) c_.say(say(done.error().text));
    return done.ok();
}

} // namespace jg::ui
