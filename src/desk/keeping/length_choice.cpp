// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/length_choice.h"

namespace jg {

namespace {
constexpr const char* kLengthsKey = "lengths";
} // namespace

void loadLengthUnit(Library& library, Playbook& playbook) {
    playbook.lengths = lengthUnitFromId(library.setting(kLengthsKey)).value_or(LengthUnit::Inches);
}

Status keepLengthUnit(Library& library, Playbook& playbook, LengthUnit unit) {
    if (auto kept = library.setSetting(kLengthsKey, std::string(idOf(unit))); !kept) return kept.error();
    playbook.lengths = unit;
    return Done{};
}

} // namespace jg
