// Exactly frame n of a film, forward, backward and at random.
#pragma once

#include "base/result.h"
#include "film/film_info.h"
#include "film/picture.h"

#include <filesystem>
#include <functional>
#include <memory>
#include <stop_token>

namespace jg {

/// How much decoded film is kept.
struct ReaderOptions {
    std::size_t cacheBytes = std::size_t{512} << 20;
};

/// Opens a film, indexes it and gives any frame. One thread owns a Reader; it is not thread-safe.
/// Frame n is the n-th picture that a full decode shows.
class Reader {
public:
    /// Errors: NotFound, Unreadable, BadInput (no film, no picture stream), Damaged (nothing decodes),
    /// Cancelled. A film cut short opens as far as it goes, with info().complete false.
    static Result<std::unique_ptr<Reader>> open(const std::filesystem::path& path, ReaderOptions options = {},
                                                std::stop_token stop = {});
    ~Reader();
    Reader(const Reader&) = delete;
    Reader& operator=(const Reader&) = delete;

    const FilmInfo& info() const;
    /// Errors: BadInput (no such frame), Damaged, Cancelled.
    Result<Picture> picture(FrameNumber n, std::stop_token stop = {});
    /// Mean brightness 0..1 and the small grey picture of frame n, for checks. Errors as picture().
    struct Grey {
        int width = 0;
        int height = 0;
        std::vector<std::uint8_t> pixels;
        double mean() const;
    };
    Result<Grey> grey(FrameNumber n, int width, std::stop_token stop = {});
    /// Bytes of decoded frames held now.
    std::size_t cacheBytes() const;
    /// Packets sent to the decoder so far, for benchmarks.
    std::int64_t packetsDecoded() const;

private:
    class Impl;
    explicit Reader(std::unique_ptr<Impl> impl);
    std::unique_ptr<Impl> impl_;
};

/// Picture size in pixels above which a film is refused (common limit, own choice).
inline constexpr std::int64_t kMostPixels = 8192LL * 8192LL;

} // namespace jg
