// SPDX-License-Identifier: GPL-3.0-or-later
// Where an exception ends: at the edge of a thread.
#pragma once

#include "base/fault_log.h"
#include "base/result.h"

#include <exception>
#include <new>
#include <typeinfo>
#include <utility>

namespace jg {

/// Why something broke off that should not have thrown, for a person; noted by its type.
inline Message whyBroken(const std::exception& e) {
    noteFault("broken", typeid(e).name());
    return dynamic_cast<const std::bad_alloc*>(&e) ? msg("broken.no-memory") : msg("broken.unexpected");
}

/// What `work` gives, a Result; what is thrown in it (no memory, a library that gives up) becomes its error,
/// for nothing may leave a thread that way. Any thread.
template <typename Work>
auto caught(Work&& work) -> decltype(std::forward<Work>(work)()) {
    try {
        return std::forward<Work>(work)();
    } catch (const std::exception& e) {
        return fail(ErrorCode::Internal, whyBroken(e));
    }
}

} // namespace jg
