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
            auto opened = Reader::open(film);
            if (!opened) return opened.error();
            reader = std::move(*opened);
        }
        return reader.get();
    }

private:
    std::map<std::filesystem::path, std::unique_ptr<Reader>> films_;
};

} // namespace jg
