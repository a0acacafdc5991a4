// SPDX-License-Identifier: GPL-3.0-or-later
// Result<T>: a value or an Error, for everything that crosses a room's edge.
#pragma once

#include "base/message.h"

#include <utility>
#include <variant>

namespace jg {

/// Kinds of failure a caller may want to tell apart.
enum class ErrorCode {
    BadInput,    ///< the caller's or the user's data is wrong
    NotFound,    ///< a named thing does not exist
    Unreadable,  ///< a file or folder can't be read
    Damaged,     ///< data exists and is broken
    DiskFull,    ///< writing failed for want of room
    WriteFailed, ///< writing failed for another reason
    Refused,     ///< allowed input, but a rule forbids it now
    Stale,       ///< it was changed elsewhere since it was read
    NeedsYes,    ///< it may be done, once a person has said so
    Network,     ///< a server could not be used
    Login,       ///< a server did not take the name or the password
    Unsure,      ///< a server may or may not have taken it
    Cancelled,   ///< stopped on request
    Internal,    ///< a library failed in a way that is nobody's input
};

/// What went wrong, as a message: what is wrong and what to do. Source: none.
struct Error {
    ErrorCode code = ErrorCode::Internal;
    Message text;
};

/// A value of T, or an Error. Value type; not thread-safe by itself.
template <typename T>
class [[nodiscard]] Result {
public:
    Result(T value)
        : state_(std::move(value)) {}
    Result(Error error)
        : state_(std::move(error)) {}

    explicit operator bool() const { return std::holds_alternative<T>(state_); }
    bool ok() const { return std::holds_alternative<T>(state_); }
    const T& value() const& { return std::get<T>(state_); }
    T& value() & { return std::get<T>(state_); }
    T&& value() && { return std::get<T>(std::move(state_)); }
    const Error& error() const { return std::get<Error>(state_); }
    const T& operator*() const& { return value(); }
    T& operator*() & { return value(); }
    T operator*() && { return std::move(*this).value(); } ///< by value: it may be looped over
    const T* operator->() const { return &value(); }
    T* operator->() { return &value(); }

private:
    std::variant<T, Error> state_;
};

/// Success without a value.
struct Done {};
using Status = Result<Done>;

/// An error; one that is nobody's doing (a disk, a damaged file, a library that gives up) is noted in the log
/// of faults by its ids. Any thread.
Error fail(ErrorCode code, Message text);

} // namespace jg
