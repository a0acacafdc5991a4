// SPDX-License-Identifier: GPL-3.0-or-later
// Whether a database has the shape that this program gives it. Inside the library room only.
#pragma once

#include "base/message.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <optional>
#include <string>

namespace jg {

/// The first table, index, trigger or view that schema `version` does not have, has otherwise, or that is
/// missing; nothing when all is as it was made. What SQLite keeps for itself is not looked at. Throws
/// SQLite::Exception.
std::optional<std::string> strangerIn(SQLite::Database& db, int version);

} // namespace jg
