#include "ui/review/reason_dialog.h"

#include "ui/review/choice_dialog.h"

namespace jg::ui {

void askReason(QWidget* parent, const QString& title, const std::function<void(const QString&)>& then) {
    askChoice(parent,
              {"reason",
               title,
               "Why? One key is enough.",
               {"wrong view", "hidden by the body", "cut off", "blurred", "frame missing", "too slow a film"},
               "another reason, then Enter"},
              then);
}

} // namespace jg::ui
