// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/jobs/film_thread.h"

#include "base/caught.h"
#include "desk/jobs/clip_files.h"
#include "film/convert.h"

#include <QString>

#include <cstdlib>

namespace jg {

namespace {
/// Steps up to this far are a walk in one direction; farther ones are jumps.
constexpr std::int64_t kStride = 16;
} // namespace

FilmThread::FilmThread(std::filesystem::path film, std::filesystem::path scrub, QObject* parent)
    : QObject(parent)
    , film_(std::move(film))
    , scrub_(std::move(scrub)) {
    decoder_ = std::jthread([this](std::stop_token stop) { guarded([&] { decode(stop); }); });
    shower_ = std::jthread([this](std::stop_token stop) { guarded([&] { show(stop); }); });
}

FilmThread::~FilmThread() {
    decoder_.request_stop();
    shower_.request_stop();
}

void FilmThread::request(FrameNumber n) {
    const Holding lock(mutex_);
    const std::int64_t by = n.value - last_.value;
    if (reader_ && by != 0) reader_->setTravel(n, std::llabs(by) > kStride ? 0 : by > 0 ? 1 : -1);
    last_ = n;
    wanted_ = n;
    toDecode_ = n;
    changed_.notify_all();
}

bool FilmThread::holds(FrameNumber n) const {
    const Holding lock(mutex_);
    return heldNow(n) != nullptr;
}

std::size_t FilmThread::cacheBytes() const {
    const Holding lock(mutex_);
    return reader_ ? reader_->cacheBytes() : 0;
}

/// What a thread throws (no memory for a frame) is a film that can't be shown, not the program's end.
void FilmThread::guarded(const std::function<void()>& work) {
    try {
        work();
    } catch (const std::exception& e) {
        inbox_.put([this, why = whyBroken(e)] { Q_EMIT failed(why); });
    }
}

void FilmThread::decode(std::stop_token stop) {
    ReaderOptions options;
    options.onFirst = [this](const Picture& picture) {
        inbox_.put([this, picture] { Q_EMIT firstPicture(picture); });
    };
    auto opened = Reader::open(film_, options, stop);
    if (!opened) {
        if (opened.error().code != ErrorCode::Cancelled)
            inbox_.put([this, why = opened.error().text] { Q_EMIT failed(why); });
        return;
    }
    Reader& reader = **opened;
    inbox_.put([this, info = reader.info()] { Q_EMIT this->opened(info); });
    {
        const Holding lock(mutex_);
        reader_ = std::move(*opened);
        reader_->setTravel(last_, 0);
    }
    changed_.notify_all();
    serveWishes(reader, stop);
}

/// Between two frames: true when the newest wish is served better by starting anew than by decoding on to
/// `target`.
bool FilmThread::servedElsewhere(Reader& reader, FrameNumber target) {
    const Holding lock(mutex_);
    if (wanted_ && reader.cached(*wanted_)) {
        changed_.notify_all(); // the other thread shows it while this one decodes on
        return false;
    }
    return toDecode_ && !reader.isOnTheWay(*toDecode_, target);
}

void FilmThread::serveWishes(Reader& reader, std::stop_token stop) {
    while (!stop.stop_requested()) {
        std::optional<FrameNumber> n;
        {
            const Holding lock(mutex_);
            n = toDecode_;
        }
        if (n) {
            auto frame =
                reader.frame(*n, [&] { return stop.stop_requested() || servedElsewhere(reader, *n); });
            const Holding lock(mutex_);
            if (!frame && frame.error().code == ErrorCode::Damaged) {
                inbox_.put([this, n = *n, why = frame.error().text] { Q_EMIT frameDamaged(n.value, why); });
                if (wanted_ == n) wanted_.reset();
            }
            if (frame) ready_ = {*n, *frame};
            if (toDecode_ == n && (frame || frame.error().code != ErrorCode::Cancelled)) toDecode_.reset();
            changed_.notify_all();
            continue;
        }
        reader.decodeAhead([&] {
            const Holding lock(mutex_);
            return stop.stop_requested() || (toDecode_ && !reader.cached(*toDecode_));
        });
        const Holding lock(mutex_);
        changed_.wait(mutex_, stop, [this]() JG_NEEDS(mutex_) { return toDecode_.has_value(); });
    }
}

/// The exact frame when it is decoded.
FrameHandle FilmThread::heldNow(FrameNumber n) const {
    if (!reader_) return nullptr;
    return ready_.second && ready_.first == n ? ready_.second : reader_->cached(n);
}

void FilmThread::showNear(Reader& scrub, FrameNumber n) {
    if (n.value >= scrub.info().frames()) return;
    if (auto picture = scrub.picture(n))
        inbox_.put([this, n, p = std::move(*picture)] { Q_EMIT frameNear(n.value, p); });
}

void FilmThread::show(std::stop_token stop) {
    const auto scrub = openScrub(scrub_, std::make_shared<FrameBudget>(std::size_t{8} << 20), stop);
    std::optional<FrameNumber> near;
    for (;;) {
        FrameNumber n;
        FrameHandle exact;
        const FilmInfo* info = nullptr; // stays while this does
        {
            const Holding lock(mutex_);
            const auto something = [&]() JG_NEEDS(mutex_) {
                return wanted_ && (heldNow(*wanted_) || (scrub && near != wanted_));
            };
            if (!changed_.wait(mutex_, stop, something)) return;
            n = *wanted_;
            exact = heldNow(n);
            if (exact) {
                wanted_.reset();
                info = &reader_->info();
            }
        }
        if (!exact) {
            near = n;
            showNear(*scrub, n);
            continue;
        }
        near.reset();
        if (auto picture = toPicture(*exact, *info))
            inbox_.put([this, n, p = std::move(*picture)] { Q_EMIT frameReady(n.value, p); });
        else
            inbox_.put([this, why = picture.error().text] { Q_EMIT failed(why); });
    }
}

} // namespace jg
