// The library looked over: what is not as it should be, and its repair.
#pragma once

#include "library/library.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// Looks the whole library over in a job and lists what is wrong, each with what a repair would do. Nothing
/// is changed before that is agreed to. `changed` is called after a repair. The library outlives the dialog.
void lookOverLibrary(QWidget* parent, Library& library, const std::function<void()>& changed);

} // namespace jg::ui
