// Films that are opened when first asked for.
#pragma once

#include "film/reader.h"

#include <filesystem>
#include <map>
#include <memory>

namespace jg {

/// Each film once, open until this ends. Belongs to one thread.
class OpenFilms {
public:
    /// Errors: those of Reader::open.
    Result<Reader*> of(const std::filesystem::path& film) {
        std::unique_ptr<Reader>& reader = films_[film];
        if (!reader) {
            // What is gone through once needs less than the window, and pages that are used again cost least.
            constexpr std::size_t kEnough = std::size_t{384} << 20;
            auto opened = Reader::open(film, {.budget = std::make_shared<FrameBudget>(kEnough)});
            if (!opened) return opened.error();
            reader = std::move(*opened);
        }
        return reader.get();
    }

private:
    std::map<std::filesystem::path, std::unique_ptr<Reader>> films_;
};

} // namespace jg
