#include "desk/length_choice.h"

namespace jg {

namespace {
constexpr const char* kKey = "lengths";
} // namespace

void loadLengthUnit(Library& library, Playbook& playbook) {
    const bool metric = library.setting(kKey) == idOf(LengthUnit::Centimetres);
    playbook.lengths = metric ? LengthUnit::Centimetres : LengthUnit::Inches;
}

Status keepLengthUnit(Library& library, Playbook& playbook, LengthUnit unit) {
    if (auto kept = library.setSetting(kKey, std::string(idOf(unit))); !kept) return kept.error();
    playbook.lengths = unit;
    return Done{};
}

} // namespace jg
