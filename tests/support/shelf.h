// SPDX-License-Identifier: GPL-3.0-or-later
// An empty library with a playbook of its own.
#pragma once

#include "library/library.h"
#include "tests/support/fixtures.h"

#include <memory>

namespace jg::test {

struct Shelf {
    TempFolder folder;
    std::unique_ptr<Library> library =
        std::move(*Library::open(folder / "lib", true, std::make_shared<FileStore>()));
    Playbook book = playbook();
    IdSource ids{5};
};

} // namespace jg::test
