// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/reason_dialog.h"

#include "review/assess/reasons.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/theme.h"

namespace jg::ui {

void askReason(QWidget* parent, const QString& title, const std::function<void(const QString&)>& then) {
    QStringList offered;
    for (const std::string_view usual : usualReasons()) offered << say(reasonInWords(std::string(usual)));
    askChoice(parent,
              {"reason", title, say("reason-dialog.why-one-key-is-enough"), offered,
               say("reason-dialog.another-reason-then-enter")},
              [then](const ChoiceAnswer& answer) {
                  then(answer.option ? text(usualReasons()[*answer.option]) : answer.words);
              });
}

} // namespace jg::ui
