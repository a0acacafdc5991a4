// SPDX-License-Identifier: GPL-3.0-or-later
// Exactly frame n of a film, forward, backward and at random.
#pragma once

#include "base/result.h"
#include "film/film_info.h"
#include "film/frame_cache.h"
#include "film/picture.h"

#include <filesystem>
#include <functional>
#include <memory>
#include <stop_token>
#include <string>

namespace jg {

/// Asked between two decoded frames: true breaks the work off.
using Interrupt = std::function<bool()>;
inline Interrupt whenStopped(std::stop_token stop) {
    return [stop] { return stop.stop_requested(); };
}

struct ReaderOptions {
    /// Where decoded frames are counted; the machine's own when empty.
    std::shared_ptr<FrameBudget> budget = {};
    /// Called once with the first picture, before the film is indexed.
    std::function<void(const Picture&)> onFirst = {};
    /// isDamaged() can be trusted for every frame; decoding is slower.
    bool watchErrors = false;
};

/// Opens a film, indexes it and gives any frame. One thread owns a Reader; only cached(), setTravel() and
/// info() may be called from others. Frame n is the n-th picture that a full decode shows.
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
    /// The frame as decoded. Errors: BadInput (no such frame), Damaged, Cancelled (also when interrupted).
    Result<FrameHandle> frame(FrameNumber n, const Interrupt& interrupt = {});
    /// The same when it is held already, else nothing. Any thread; never waits for decoding.
    FrameHandle cached(FrameNumber n) const;
    /// True when decoding to `target` passes n. Any thread.
    bool isOnTheWay(FrameNumber n, FrameNumber target) const;
    /// Tells where the coach is and where they go (-1 back, 1 on, 0 a jump). Any thread.
    void setTravel(FrameNumber playhead, int direction);
    /// Decodes what the travel will need next; returns when that is held, at an interrupt, or at a damaged
    /// place.
    void decodeAhead(const Interrupt& interrupt);

    /// The frame as shown. Errors as frame().
    Result<Picture> picture(FrameNumber n, std::stop_token stop = {});
    /// A part of the frame as shown, brought to the size of the room in one step. Errors as frame(), and
    /// BadInput: the part has no size or reaches beyond the picture.
    Status part(FrameNumber n, const PicturePart& part, const PictureRoom& to, std::stop_token stop = {});
    /// The same as the planes that an Encoder writes, without a way through R'G'B'. Width and height are
    /// even. Empty where there is no such way (the film is turned, its range of brightness or the kind of its
    /// planes is another): part() has one.
    Result<FrameHandle> planes(FrameNumber n, const PicturePart& part, int width, int height,
                               std::stop_token stop = {});
    /// The small grey picture of frame n, `width` across when shown but not turned. Errors as picture().
    Result<GreyPicture> grey(FrameNumber n, int width, std::stop_token stop = {});
    /// Numbers of the frames decoding can begin at, rising; the first is 0.
    const std::vector<std::int64_t>& groupStarts() const;
    /// Bytes of decoded frames held now.
    std::size_t cacheBytes() const;
    /// Packets sent to the decoder so far, for benchmarks.
    std::int64_t packetsDecoded() const;

private:
    class Impl;
    explicit Reader(std::unique_ptr<Impl> impl);
    std::unique_ptr<Impl> impl_;
};

} // namespace jg
