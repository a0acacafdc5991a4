#include "desk/length_choice.h"

namespace jg {

namespace {
constexpr const char* kKey = "lengths";
} // namespace

void loadLengthUnit(Library& library, Playbook& playbook) {
    playbook.lengths = lengthUnitFromId(library.setting(kKey)).value_or(LengthUnit::Inches);
}

Status keepLengthUnit(Library& library, Playbook& playbook, LengthUnit unit) {
    if (auto kept = library.setSetting(kKey, std::string(idOf(unit))); !kept) return kept.error();
    playbook.lengths = unit;
    return Done{};
}

} // namespace jg
