// SPDX-License-Identifier: GPL-3.0-or-later
// Films that are opened when first asked for.
#pragma once

#include "film/reader.h"

#include <algorithm>
#include <filesystem>
#include <map>
#include <memory>

namespace jg {

/// Each film once, open until this ends. What is gone through once needs less than the window, and pages that
/// are used again cost least: all of them together hold at most half a gigabyte of frames. Belongs to one
/// thread.
class OpenFilms {
public:
    /// Errors: those of Reader::open.
    Result<Reader*> of(const std::filesystem::path& film) {
        std::unique_ptr<Reader>& reader = films_[film];
        if (!reader) {
            auto opened = Reader::open(film, {.budget = budget_});
            if (!opened) return opened.error();
            reader = std::move(*opened);
        }
        return reader.get();
    }

private:
    std::shared_ptr<FrameBudget> budget_ = std::make_shared<FrameBudget>(
        std::min(std::size_t{512} << 20, FrameBudget::ofThisMachine()->total()));
    std::map<std::filesystem::path, std::unique_ptr<Reader>> films_;
};

} // namespace jg
