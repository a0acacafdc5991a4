// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/narrated_film.h"

#include "letter/captions.h"
#include "letter/film_painter.h"
#include "review/tell/take_cuts.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"
#include "voice/voice_chain.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace jg {

namespace {

std::vector<Chapter> chaptersOf(const std::vector<FilmSegment>& plan) {
    std::vector<Chapter> chapters;
    std::int64_t at = 0;
    const auto ms = [](std::int64_t samples) { return samples * 1000 / kSampleRate; };
    for (const FilmSegment& s : plan) {
        if (s.chapter.empty() && !chapters.empty())
            chapters.back().endMs = ms(at + s.samples);
        else
            chapters.push_back({ms(at), ms(at + s.samples), s.chapter});
        at += s.samples;
    }
    return chapters;
}

/// The languages there are, as MP4 names them (ISO 639-2).
std::string languageOf(const Words& words) {
    return words.tag().starts_with("es") ? "spa" : "eng";
}

class FilmJob {
public:
    FilmJob(const FilmRecipe& r, std::stop_token stop, const std::function<void(double)>& progress)
        : r_(r)
        , painter_(r)
        , stop_(std::move(stop))
        , progress_(progress) {}

    Status run(const std::filesystem::path& path) {
        auto plan = planFilm(r_, [&](int delivery) { return painter_.timesOf(delivery); });
        if (!plan) return plan.error();
        for (const FilmSegment& s : *plan) total_ += s.samples;
        captions_ = captionsOf(r_, *plan);
        chapters_ = chaptersOf(*plan);
        auto encoder = Encoder::open(path, settings());
        if (!encoder) return encoder.error();
        for (const FilmSegment& s : *plan) {
            if (stop_.stop_requested()) return fail(ErrorCode::Cancelled, msg("film.stopped"));
            if (auto done = addSound(**encoder, s); !done) return done;
            if (auto done = addPictures(**encoder, s); !done) return done;
            start_ += s.samples;
        }
        return (*encoder)->finish();
    }

    /// Of the film that run() made.
    const std::vector<Chapter>& chapters() const { return chapters_; }
    const std::vector<Caption>& captions() const { return captions_; }

private:
    EncodeSettings settings() const {
        EncodeSettings settings;
        settings.width = r_.width;
        settings.height = r_.height;
        settings.fps = {r_.fps, 1};
        settings.quality = r_.quality;
        settings.sampleRate = kSampleRate;
        settings.chapters = chapters_;
        settings.captions = captions_;
        settings.language = languageOf(r_.words);
        settings.title = r_.words(r_.letter.greeting);
        return settings;
    }

    Status addSound(Encoder& encoder, const FilmSegment& s) {
        std::vector<float> sound(static_cast<std::size_t>(s.samples));
        if (s.take) {
            auto raw = readSound(r_.takesFolder / s.take->file);
            if (!raw) return raw.error();
            auto voice = polishVoice(heardOf(*s.take, *raw));
            if (!voice) return voice.error();
            sound = std::move(*voice);
            sound.resize(static_cast<std::size_t>(s.samples));
        }
        return encoder.addSound(sound);
    }

    /// The picture `samples` into a segment.
    Status paint(const FilmSegment& s, std::int64_t samples) {
        switch (s.kind) {
        case FilmSegment::Kind::Title:
            if (samples == 0) painter_.title();
            return Done{};
        case FilmSegment::Kind::Closing:
            if (!closed_) painter_.closing();
            closed_ = true;
            return Done{};
        case FilmSegment::Kind::Said:
            return painter_.said(s, inFile(*s.take, samples * s.take->sampleRate / kSampleRate),
                                 r_.burntCaptions ? captionAt(start_ + samples) : std::string());
        case FilmSegment::Kind::Whole:
        case FilmSegment::Kind::Motion:
            break;
        }
        auto times = painter_.timesOf(s.delivery);
        if (!times) return times.error();
        return painter_.moving(s, frameAt(s, *times, static_cast<double>(samples) / kSampleRate));
    }

    std::string captionAt(std::int64_t sample) const {
        const std::int64_t ms = sample * 1000 / kSampleRate;
        for (const Caption& c : captions_)
            if (c.startMs <= ms && ms < c.endMs) return c.text;
        return {};
    }

    /// The canvas with what lies over it; most pictures of a stop are the one before.
    Status addCanvas(Encoder& encoder) {
        const QImage& canvas = painter_.canvas();
        const bool anew = std::exchange(added_, canvas.cacheKey()) != canvas.cacheKey();
        if (anew)
            encoder.setPicture(canvas.constBits(), static_cast<int>(canvas.bytesPerLine()),
                               painter_.changedRows());
        if (anew || laid_ != painter_.over()) {
            laid_ = painter_.over();
            for (const Laid& l : laid_)
                if (auto set = encoder.setPart(*l.planes, l.at.x(), l.at.y()); !set) return set;
        }
        return encoder.repeatPicture();
    }

    Status addPictures(Encoder& encoder, const FilmSegment& s) {
        // Pictures follow the sum of samples, so that rounding never adds up.
        const std::int64_t until = (start_ + s.samples) * r_.fps / kSampleRate;
        for (; frame_ < until; ++frame_) {
            if (stop_.stop_requested()) return fail(ErrorCode::Cancelled, msg("film.stopped"));
            const std::int64_t at = frame_ * kSampleRate / r_.fps;
            if (auto done = paint(s, std::max<std::int64_t>(0, at - start_)); !done) return done;
            if (auto done = addCanvas(encoder); !done) return done;
            if (progress_) progress_(static_cast<double>(at) / static_cast<double>(total_));
        }
        return Done{};
    }

    const FilmRecipe& r_;
    FilmPainter painter_;
    std::stop_token stop_;
    const std::function<void(double)>& progress_;
    std::vector<Chapter> chapters_;
    std::vector<Caption> captions_;
    std::int64_t total_ = 0;
    std::int64_t start_ = 0; ///< samples before the segment at hand
    std::int64_t frame_ = 0;
    bool closed_ = false;
    qint64 added_ = 0;       ///< the canvas' key when it was last added
    std::vector<Laid> laid_; ///< what lay over it
};

constexpr int kCoarsest = 32; ///< beyond it limbs smear: own choice, by eye
constexpr int kMostTries = 5;
constexpr double kSmaller = 0.75; ///< sides of the next smaller picture

/// The settings that come nearer to the size wanted, from how far off the last ones were. A step of six
/// halves the pictures' bytes (x264's own rule of thumb, from memory).
void makeSmaller(FilmRecipe& r, std::int64_t bytes) {
    const double factor = static_cast<double>(bytes) / static_cast<double>(r.mostBytes);
    r.quality += std::max(1, static_cast<int>(std::ceil(6 * std::log2(factor))) + 1);
    if (r.quality <= kCoarsest) return;
    const auto even = [](double length) { return 2 * static_cast<int>(length / 2); };
    r.width = even(r.width * kSmaller);
    r.height = even(r.height * kSmaller);
    r.quality = kCoarsest - 4;
}

} // namespace

Result<FilmMade> renderNarratedFilm(const FilmRecipe& recipe, const std::filesystem::path& path,
                                    FileStore& files, std::stop_token stop,
                                    const std::function<void(double)>& progress) {
    if (recipe.review.takes.empty()) return fail(ErrorCode::Refused, msg("film.nothing-said"));
    FilmRecipe r = recipe;
    FilmMade made;
    const Status published = files.publish(path, [&](const std::filesystem::path& temporary) -> Status {
        for (made.tries = 1;; ++made.tries) {
            FilmJob job(r, stop, progress);
            if (auto done = job.run(temporary); !done) return done;
            made.chapters = job.chapters();
            made.captions = job.captions();
            made.bytes = static_cast<std::int64_t>(std::filesystem::file_size(temporary));
            if (r.mostBytes <= 0 || made.bytes <= r.mostBytes) return Done{};
            if (made.tries == kMostTries)
                return fail(ErrorCode::Refused,
                            msg("film.too-large",
                                {{"size", Decimal{static_cast<double>(made.bytes) / kMegabyte, 1}},
                                 {"most", Decimal{static_cast<double>(r.mostBytes) / kMegabyte, 1}}}));
            makeSmaller(r, made.bytes);
        }
    });
    if (!published) return published.error();
    made.width = r.width;
    made.height = r.height;
    made.quality = r.quality;
    return made;
}

Result<std::string> filmCaptions(const FilmRecipe& recipe) {
    if (recipe.review.takes.empty()) return fail(ErrorCode::Refused, msg("film.nothing-said"));
    FilmPainter films(recipe);
    auto plan = planFilm(recipe, [&](int delivery) { return films.timesOf(delivery); });
    if (!plan) return plan.error();
    return webVtt(captionsOf(recipe, *plan));
}

} // namespace jg
