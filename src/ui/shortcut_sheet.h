// All keys on one sheet, from the action table.
#pragma once

class QWidget;

namespace jg::ui {

void showShortcutSheet(QWidget* parent);

} // namespace jg::ui
