// Numbers for readers carry a minus, not a hyphen, which is too short to be seen as one.
#pragma once

#include <string>

namespace jg {

/// A written number with its sign as U+2212.
inline std::string withMinus(std::string number) {
    if (number.starts_with('-')) number.replace(0, 1, "\u2212");
    return number;
}

} // namespace jg
