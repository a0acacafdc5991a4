#include "ui/review/bench.h"

namespace jg::ui {

Bench::Bench(ReviewContext& context)
    : c_(context) {
    column_ = new QVBoxLayout(this);
    column_->setContentsMargins(20, 18, 20, 12);
    column_->setSpacing(8);
}

bool Bench::perform(const std::string& label, std::vector<Change> changes) {
    const Status done = c_.session.perform(label, std::move(changes));
    if (!done) c_.say(QString::fromStdString(done.error().text));
    return done.ok();
}

} // namespace jg::ui
