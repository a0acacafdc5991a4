// The sheet of deliveries under each other, in the window.
#pragma once

#include "coaching/playbook.h"
#include "library/library.h"

#include <vector>

class QWidget;

namespace jg::ui {

/// Makes the sheet of these reviews beside the window and shows it, to be looked through and saved as a page
/// or a picture. What can't be shown is said. The library and the playbook outlive the dialog.
void showJuxta(QWidget* parent, Library& library, const Playbook& playbook,
               const std::vector<ReviewId>& reviews);

} // namespace jg::ui
