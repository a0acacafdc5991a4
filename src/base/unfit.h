// What a reader of documents throws at a part that does not fit, and what is said of it at the room's edge.
#pragma once

#include "base/message.h"

#include <exception>

namespace jg {

/// Thrown within a room only; its reason is half a sentence ("its id is used twice").
class Unfit : public std::exception {
public:
    explicit Unfit(Message why_)
        : why(std::move(why_)) {}
    const char* what() const noexcept override { return why.id.c_str(); }

    Message why;
};

/// The reason of an Unfit; a library's own words never reach a person.
inline Message whyUnfit(const std::exception& e) {
    const auto* unfit = dynamic_cast<const Unfit*>(&e);
    return unfit ? unfit->why : msg("unfit.not-understood");
}

} // namespace jg
