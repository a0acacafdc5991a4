// SPDX-License-Identifier: GPL-3.0-or-later
// A library as every command opens it.
#pragma once

#include "apps/cli/command.h"
#include "library/library.h"

#include <memory>

namespace jg::cli {

/// Never makes one. Refusal when it is not there or can't be opened.
std::unique_ptr<Library> openLibrary(const std::string& folder);

/// The shipped playbook with the measures and lengths of the library's coach.
Playbook playbookOf(Library& library);

/// An athlete by id, or by a name that only one has. Refusal otherwise.
AthleteId athleteCalled(Library& library, const std::string& word);

} // namespace jg::cli
