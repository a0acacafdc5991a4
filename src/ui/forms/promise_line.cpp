// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/forms/promise_line.h"

#include "desk/sending/promises.h"
#include "ui/kit/theme.h"

#include <QHBoxLayout>

namespace jg::ui {

QWidget* promiseLine(const Promise& promise, Date today, const std::function<void(Kept)>& close) {
    auto* holder = new QWidget;
    auto* line = new QHBoxLayout(holder);
    line->setContentsMargins(0, 0, 0, 0);
    line->addWidget(plain(say(promise.text), 13), 1);
    const bool late = promise.open() && promise.due && *promise.due < today;
    auto* when =
        quiet(say(joined(ListStyle::Dots, {whoOwes(promise), promise.open() ? dueInWords(promise, today)
                                                                            : endInWords(promise)})),
              12.5);
    when->setWordWrap(!promise.open());
    if (late) inClay(when);
    line->addWidget(when);
    if (!promise.open()) return holder;
    const auto end = [&](const char* words, Kept how) {
        auto* b = plainButton(say(words));
        b->setObjectName("link");
        b->setAccessibleName(say("desk-place.promise-ends", {{"how", msg(words)}, {"what", promise.text}}));
        QObject::connect(b, &QPushButton::clicked, b, [close, how] { close(how); });
        line->addWidget(b);
    };
    end("desk-place.kept", Kept::Kept);
    end("desk-place.not-kept", Kept::Broken);
    return holder;
}

} // namespace jg::ui
