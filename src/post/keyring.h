// SPDX-License-Identifier: GPL-3.0-or-later
// Where the desktop keeps passwords for its programs.
#pragma once

#include "base/result.h"

#include <memory>
#include <optional>
#include <string>

namespace jg {

/// Passwords by server and name, in somebody else's care. Calls may wait for a person who unlocks it: make
/// them beside the window. One thread at a time.
class Keyring {
public:
    virtual ~Keyring() = default;
    /// Nothing when none is kept. Errors: Network, when there is no keyring here or it does not answer.
    virtual Result<std::optional<std::string>> find(const std::string& server, const std::string& user) = 0;
    /// In place of one that is kept. Errors: Network.
    virtual Status keep(const std::string& server, const std::string& user, const std::string& password) = 0;
    /// Also when none is kept. Errors: Network.
    virtual Status forget(const std::string& server, const std::string& user) = 0;
};

/// The desktop's own, by its Secret Service (freedesktop.org).
std::unique_ptr<Keyring> desktopKeyring();

/// One that ends with the program, in the desktop's place.
std::unique_ptr<Keyring> passingKeyring();

} // namespace jg
