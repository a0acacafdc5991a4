// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/reader.h"

#include "film/convert.h"
#include "film/decoder.h"

extern "C" {
#include <libavutil/md5.h>
}

#include <algorithm>
#include <array>
#include <cmath>
#include <future>
#include <numeric>
#include <set>

namespace jg {

namespace {

Error cancelled() {
    return fail(ErrorCode::Cancelled, msg("demuxer.stopped"));
}

std::int64_t timeOf(const AVFrame* frame) {
    return frame->best_effort_timestamp != AV_NOPTS_VALUE ? frame->best_effort_timestamp : frame->pts;
}

bool strictlyRising(const std::vector<std::int64_t>& times) {
    return std::adjacent_find(times.begin(), times.end(), std::greater_equal<>()) == times.end();
}

} // namespace

/// Shown frames are found again by their time; where a container gives none, by the decoder's best guess of
/// it.
class Reader::Impl {
public:
    Impl(Demuxer demuxer, std::shared_ptr<FrameBudget> budget)
        : cache(std::move(budget))
        , demuxer_(std::move(demuxer)) {}

    Status prepare(const std::string& name, const ReaderOptions& options, std::stop_token stop);
    Result<FrameHandle> frame(std::int64_t n, const Interrupt& interrupt);
    void decodeAhead(const Interrupt& interrupt);

    FilmInfo info;
    FrameCache cache;
    bool isOnTheWay(std::int64_t n, std::int64_t target) const {
        return n <= target && groupStart(n) == groupStart(target);
    }
    std::int64_t packets() const { return packetsDecoded_; }
    const std::vector<std::int64_t>& groups() const { return groups_; }

private:
    Result<FrameHandle> scanBesideFirst(const std::string& name, const ReaderOptions& options,
                                        std::stop_token stop);
    Result<FrameHandle> decodeFirst(const std::string& name, const ReaderOptions& options,
                                    std::stop_token stop);
    Status showFirst(const AVFrame& frame, const std::string& name, const ReaderOptions& options);
    Status index(const FrameHandle& first, std::stop_token stop);
    void indexFromPackets();
    Status indexByDecoding(std::stop_token stop);
    Status confirmEnds(const Interrupt& interrupt);
    void judgeCompleteness();
    void judgeRate();
    void findGroups();

    void rewind();
    void startAt(std::int64_t n);
    /// Next decoded frame, or nothing at the end. Damaged packets are passed over.
    Result<const AVFrame*> next(const Interrupt& interrupt);
    std::int64_t numberOf(const AVFrame* frame) const;
    std::int64_t groupStart(std::int64_t n) const;
    bool reachableFromHere(std::int64_t n) const;
    Result<FrameHandle> decodeTo(std::int64_t n, const Interrupt& interrupt);
    void aheadForward(const FrameCache::Travel& travel, const Interrupt& interrupt);
    void aheadBackward(const FrameCache::Travel& travel, const Interrupt& interrupt);

    Demuxer demuxer_;
    std::shared_ptr<FrameMemory> memory_ = std::make_shared<FrameMemory>();
    ff::Codec decoder_;
    Threads threads_ = Threads::Frames;
    ff::Packet packet_{av_packet_alloc()};
    ff::Frame decoded_{av_frame_alloc()};
    std::vector<std::int64_t> times_;  ///< of the frames, rising; what the decoder's frames are found by
    std::vector<std::int64_t> groups_; ///< numbers of the frames that begin a group, rising; the first is 0
    std::set<std::int64_t> damaged_;   ///< frames that did not come when decoded from their key
    std::int64_t position_ = -1;       ///< number of the last decoded frame; -1 = nowhere
    bool draining_ = false;
    bool ended_ = true;
    bool guessedTimes_ = false; ///< times are the decoder's guesses: the last frame may have none
    std::int64_t counted_ = 0;  ///< frames since rewind()
    std::int64_t packetsDecoded_ = 0;
};

Status Reader::Impl::prepare(const std::string& name, const ReaderOptions& options, std::stop_token stop) {
    info = factsOf(demuxer_);
    if (auto may = withinLimits(info, name); !may) return may;
    // With frame threads a picture may leave before its errors are known; with slice threads they are not
    // sought.
    threads_ = options.watchErrors ? Threads::None : Threads::Frames;
    decoder_ = openDecoder(demuxer_.video(), Threads::None, *memory_);
    if (!decoder_)
        return fail(ErrorCode::BadInput,
                    msg("reader.codec-unknown", {{"name", name}, {"codec", info.codec}}));
    const auto first = scanBesideFirst(name, options, stop);
    if (!first) return first.error();
    if (auto indexed = index(*first, stop); !indexed) return indexed;
    if (info.pts.empty()) return fail(ErrorCode::Damaged, msg("reader.nothing-decodes", {{"name", name}}));
    judgeCompleteness();
    judgeRate();
    return Done{};
}

/// The first packet's picture is decoded while the others are counted: neither waits for the other.
Result<FrameHandle> Reader::Impl::scanBesideFirst(const std::string& name, const ReaderOptions& options,
                                                  std::stop_token stop) {
    const bool any = readPacket(demuxer_, *packet_);
    auto scanned = std::async(std::launch::async, [&] { return scanPackets(demuxer_, name, stop); });
    const FrameHandle first = any ? decodeOne(*decoder_, *packet_) : nullptr;
    packetsDecoded_ += any;
    const Status shown = first ? showFirst(*first, name, options) : Status(Done{});
    if (auto done = scanned.get(); !done) return done.error();
    if (!shown) return shown.error();
    return first ? first : decodeFirst(name, options, stop);
}

Status Reader::Impl::showFirst(const AVFrame& frame, const std::string& name, const ReaderOptions& options) {
    constexpr std::size_t kInDecoder = 6; // frames it keeps for itself, about (measured)
    if (auto may = refine(info, demuxer_, frame, name); !may) return may;
    cache.leaveRoom(kInDecoder * bytesOf(frame));
    if (!options.onFirst) return Done{};
    if (auto picture = toPicture(frame, info)) options.onFirst(*picture);
    return Done{};
}

/// The first picture that comes when one packet does not give it.
Result<FrameHandle> Reader::Impl::decodeFirst(const std::string& name, const ReaderOptions& options,
                                              std::stop_token stop) {
    rewind();
    auto first = next(whenStopped(stop));
    if (!first) return first.error();
    if (!*first) return fail(ErrorCode::Damaged, msg("reader.nothing-decodes", {{"name", name}}));
    if (auto shown = showFirst(**first, name, options); !shown) return shown.error();
    return handleOf(*first);
}

Status Reader::Impl::index(const FrameHandle& first, std::stop_token stop) {
    std::vector<std::int64_t> sorted = demuxer_.times;
    std::sort(sorted.begin(), sorted.end());
    const bool timed = sorted.front() != AV_NOPTS_VALUE && strictlyRising(sorted);
    // Frame threads hold pictures back: of no use when each jump is one packet.
    const bool allKeys = timed && demuxer_.keys.size() == sorted.size();
    decoder_ = openDecoder(demuxer_.video(),
                           allKeys && threads_ == Threads::Frames ? Threads::Slices : threads_, *memory_);
    rewind();
    if (!timed) return indexByDecoding(stop);
    times_ = std::move(sorted);
    indexFromPackets();
    if (timeOf(first.get()) == times_.front()) cache.put(0, first); // it need not be decoded again
    return confirmEnds(whenStopped(stop));
}

void Reader::Impl::indexFromPackets() {
    info.pts.clear();
    for (const std::int64_t t : times_) info.pts.push_back(Pts{t});
    findGroups();
}

Status Reader::Impl::indexByDecoding(std::stop_token stop) {
    std::vector<std::int64_t> guesses;
    for (;;) {
        auto frame = next(whenStopped(stop));
        if (!frame) return frame.error();
        if (!*frame) break;
        guesses.push_back(timeOf(*frame));
    }
    if (guesses.size() > 1 && guesses.back() == AV_NOPTS_VALUE)
        guesses.back() = guesses[guesses.size() - 2] + 1;
    guessedTimes_ = true;
    times_ = std::move(guesses);
    const bool known = times_.empty() || times_.front() != AV_NOPTS_VALUE;
    if (!known || !strictlyRising(times_)) { // no time to find a frame by: they are counted from the start
        std::iota(times_.begin(), times_.end(), 0);
        demuxer_.keys.clear();
    }
    info.pts.clear();
    for (std::size_t i = 0; i < times_.size(); ++i) info.pts.push_back(Pts{static_cast<std::int64_t>(i)});
    // Times are counted in frames of the play rate.
    if (info.playRate.num > 0) info.timeBase = {info.playRate.den, info.playRate.num};
    findGroups();
    position_ = -1;
    return Done{};
}

/// Pictures whose packets do not decode, at the end of a cut-off film or before the first whole one, are not
/// counted.
Status Reader::Impl::confirmEnds(const Interrupt& interrupt) {
    const bool cut = !demuxer_.readToEnd || info.statedFrames > info.frames() || !demuxer_.hasSampleTable();
    const auto drop = [&](bool front) {
        times_.erase(front ? times_.begin() : std::prev(times_.end()));
        if (!front) info.complete = false;
        damaged_.clear();
        cache.clear(); // its numbers are those from before
        position_ = -1;
        indexFromPackets();
    };
    for (const bool front : {true, false}) {
        while (!times_.empty()) {
            if (!front && !cut) break;
            const std::int64_t n = front ? 0 : info.frames() - 1;
            auto frame = this->frame(n, interrupt);
            if (frame) break;
            if (frame.error().code == ErrorCode::Cancelled) return frame.error();
            drop(front);
        }
    }
    return Done{};
}

void Reader::Impl::judgeCompleteness() {
    const std::int64_t stated = info.statedFrames;
    info.complete = info.complete && demuxer_.readToEnd &&
                    (stated == 0 || info.frames() >= stated - 1 || demuxer_.hasSampleTable());
    // An edit list hides frames on purpose: with a sample table only packets that could not be read count.
    if (demuxer_.hasSampleTable() && demuxer_.readPackets < stated) info.complete = false;
}

void Reader::Impl::judgeRate() {
    info.durationS = secondsOf(Pts{info.pts.back().value - info.pts.front().value}, info.timeBase);
    if (info.playRate.toDouble() > 0) info.durationS += 1.0 / info.playRate.toDouble();
    if (info.frames() <= 2) return;
    std::int64_t least = INT64_MAX, most = 0;
    for (std::size_t i = 1; i < info.pts.size(); ++i) {
        const std::int64_t step = info.pts[i].value - info.pts[i - 1].value;
        least = std::min(least, step);
        most = std::max(most, step);
    }
    // Rounding to the time base makes steps differ by one unit in a film of constant rate.
    info.variableRate = most - least > 1 + least / 10;
}

void Reader::Impl::findGroups() {
    groups_ = {0};
    for (const std::int64_t key : demuxer_.keys) {
        const auto it = std::lower_bound(times_.begin(), times_.end(), key);
        const std::int64_t n = it - times_.begin();
        if (it != times_.end() && n > groups_.back()) groups_.push_back(n);
    }
}

void Reader::Impl::rewind() {
    // Streams are found again by their first byte; other containers refuse a time before their start.
    AVFormatContext* input = demuxer_.input.get();
    const bool isStream = (input->iformat->flags & AVFMT_TS_DISCONT) != 0;
    const std::int64_t start =
        demuxer_.video()->start_time == AV_NOPTS_VALUE ? 0 : demuxer_.video()->start_time;
    if (isStream || avformat_seek_file(input, demuxer_.stream, INT64_MIN, start, start, 0) < 0)
        av_seek_frame(input, demuxer_.stream, 0, AVSEEK_FLAG_BYTE);
    avcodec_flush_buffers(decoder_.get());
    draining_ = false;
    ended_ = false;
    counted_ = 0;
    position_ = -1;
}

void Reader::Impl::startAt(std::int64_t n) {
    // A guessed time lies a frame or two after its packet's.
    const std::int64_t target = times_[static_cast<std::size_t>(n)] - (guessedTimes_ ? 2 : 0);
    auto key = std::upper_bound(demuxer_.keys.begin(), demuxer_.keys.end(), target);
    if (key == demuxer_.keys.begin() || std::prev(key) == demuxer_.keys.begin()) return rewind();
    --key;
    if (avformat_seek_file(demuxer_.input.get(), demuxer_.stream, INT64_MIN, *key, *key, 0) < 0)
        return rewind();
    avcodec_flush_buffers(decoder_.get());
    draining_ = false;
    ended_ = false;
    position_ = -1;
    counted_ = INT64_MIN / 2;
}

Result<const AVFrame*> Reader::Impl::next(const Interrupt& interrupt) {
    for (;;) {
        if (interrupt && interrupt()) return cancelled();
        const int got = avcodec_receive_frame(decoder_.get(), decoded_.get());
        if (got >= 0) {
            if (decoded_->flags & AV_FRAME_FLAG_DISCARD) continue;
            ++counted_;
            position_ = numberOf(decoded_.get());
            return decoded_.get();
        }
        if (got == AVERROR_EOF || draining_) {
            ended_ = true;
            return static_cast<const AVFrame*>(nullptr);
        }
        int read = 0;
        while ((read = av_read_frame(demuxer_.input.get(), packet_.get())) >= 0 &&
               packet_->stream_index != demuxer_.stream)
            av_packet_unref(packet_.get());
        if (read < 0) {
            avcodec_send_packet(decoder_.get(), nullptr);
            draining_ = true;
            continue;
        }
        ++packetsDecoded_;
        avcodec_send_packet(decoder_.get(), packet_.get());
        av_packet_unref(packet_.get());
    }
}

std::int64_t Reader::Impl::numberOf(const AVFrame* frame) const {
    if (demuxer_.keys.empty()) return counted_ - 1;
    const std::int64_t time = timeOf(frame);
    if (guessedTimes_ && time == AV_NOPTS_VALUE) return draining_ ? info.frames() - 1 : -1;
    const auto it = std::lower_bound(times_.begin(), times_.end(), time);
    return it == times_.end() || *it != time ? -1 : it - times_.begin();
}

std::int64_t Reader::Impl::groupStart(std::int64_t n) const {
    return *std::prev(std::upper_bound(groups_.begin(), groups_.end(), n));
}

/// Decoding on gets there no later than starting again from the key picture.
bool Reader::Impl::reachableFromHere(std::int64_t n) const {
    constexpr std::int64_t kShortWay = 12;
    return !ended_ && position_ >= 0 && n > position_ && groupStart(n) <= position_ + kShortWay;
}

Result<FrameHandle> Reader::Impl::decodeTo(std::int64_t n, const Interrupt& interrupt) {
    for (;;) {
        auto got = next(interrupt);
        if (!got) return got.error();
        if (!*got) return FrameHandle();
        const FrameHandle held = handleOf(*got);
        if (position_ >= 0) cache.put(position_, held);
        if (position_ == n) return held;
        if (position_ > n) return FrameHandle(); // pictures come in order: it will not come any more
    }
}

Result<FrameHandle> Reader::Impl::frame(std::int64_t n, const Interrupt& interrupt) {
    if (n < 0 || n >= info.frames())
        return fail(ErrorCode::BadInput,
                    msg("reader.the-film-has-no-frame-n", {{"n", n}, {"frames", info.frames() - 1}}));
    if (auto hit = cache.find(n)) return hit;
    if (!damaged_.contains(n)) {
        const bool goOn = reachableFromHere(n);
        // Streams without a table of samples may land beside the key asked for: then from the first byte.
        const int most = demuxer_.hasSampleTable() ? 2 : 3;
        for (int tries = goOn ? 0 : 1; tries < most; ++tries) {
            if (tries == 1) startAt(n);
            if (tries == 2) rewind();
            auto got = decodeTo(n, interrupt);
            if (!got || *got) return got;
        }
        damaged_.insert(n);
    }
    return fail(ErrorCode::Damaged, msg("reader.frame-damaged", {{"n", n}}));
}

void Reader::Impl::decodeAhead(const Interrupt& interrupt) {
    const auto travel = cache.travel();
    if (travel.direction > 0) aheadForward(travel, interrupt);
    if (travel.direction < 0) aheadBackward(travel, interrupt);
}

void Reader::Impl::aheadForward(const FrameCache::Travel& travel, const Interrupt& interrupt) {
    constexpr std::int64_t kAhead = 48;
    const std::int64_t room = std::min(kAhead, cache.capacity() / 2);
    const std::int64_t to = std::min(travel.playhead + room, info.frames() - 1);
    for (std::int64_t n = travel.playhead; (n = cache.firstMissing(n, to, 1)) <= to; ++n)
        if (auto got = frame(n, interrupt); !got && got.error().code == ErrorCode::Cancelled) return;
}

void Reader::Impl::aheadBackward(const FrameCache::Travel& travel, const Interrupt& interrupt) {
    const std::int64_t capacity = cache.capacity();
    const std::int64_t last = cache.firstMissing(travel.playhead, 0, -1);
    if (last < 0 || damaged_.contains(last)) return;
    const std::int64_t held = travel.playhead - last, group = last - groupStart(last) + 1;
    // Decoding earlier would push out what is still to be shown.
    const bool fits = held + group + 16 <= capacity;
    if (!fits && held > std::max<std::int64_t>(16, std::min(group, capacity) / 3)) return;
    frame(last, interrupt).ok(); // whoever asks for it is told
}

Reader::Reader(std::unique_ptr<Impl> impl)
    : impl_(std::move(impl)) {}
Reader::~Reader() = default;

Result<std::unique_ptr<Reader>> Reader::open(const std::filesystem::path& path, ReaderOptions options,
                                             std::stop_token stop) {
    av_log_set_level(AV_LOG_QUIET);
    auto demuxer = openDemuxer(path, stop);
    if (!demuxer) return demuxer.error();
    auto impl = std::make_unique<Impl>(std::move(*demuxer),
                                       options.budget ? options.budget : FrameBudget::ofThisMachine());
    if (auto ready = impl->prepare(path.filename().string(), options, stop); !ready) return ready.error();
    return std::unique_ptr<Reader>(new Reader(std::move(impl)));
}

const FilmInfo& Reader::info() const {
    return impl_->info;
}

Result<FrameHandle> Reader::frame(FrameNumber n, const Interrupt& interrupt) {
    return impl_->frame(n.value, interrupt);
}

FrameHandle Reader::cached(FrameNumber n) const {
    return impl_->cache.find(n.value);
}

bool Reader::isOnTheWay(FrameNumber n, FrameNumber target) const {
    return impl_->isOnTheWay(n.value, target.value);
}

void Reader::setTravel(FrameNumber playhead, int direction) {
    impl_->cache.setTravel(playhead.value, direction);
}

void Reader::decodeAhead(const Interrupt& interrupt) {
    impl_->decodeAhead(interrupt);
}

const std::vector<std::int64_t>& Reader::groupStarts() const {
    return impl_->groups();
}

std::size_t Reader::cacheBytes() const {
    return impl_->cache.bytes();
}

std::int64_t Reader::packetsDecoded() const {
    return impl_->packets();
}

Result<Picture> Reader::picture(FrameNumber n, std::stop_token stop) {
    auto frame = impl_->frame(n.value, whenStopped(stop));
    if (!frame) return frame.error();
    return toPicture(**frame, impl_->info);
}

Status Reader::part(FrameNumber n, const PicturePart& part, const PictureRoom& to, std::stop_token stop) {
    auto frame = impl_->frame(n.value, whenStopped(stop));
    if (!frame) return frame.error();
    return writePart(**frame, impl_->info, part, to);
}

Result<FrameHandle> Reader::planes(FrameNumber n, const PicturePart& part, int width, int height,
                                   std::stop_token stop) {
    auto frame = impl_->frame(n.value, whenStopped(stop));
    if (!frame) return frame.error();
    return toPlanes(**frame, impl_->info, part, width, height);
}

Result<GreyPicture> Reader::grey(FrameNumber n, int width, std::stop_token stop) {
    auto frame = impl_->frame(n.value, whenStopped(stop));
    if (!frame) return frame.error();
    return toGrey(**frame, impl_->info, width);
}

} // namespace jg
