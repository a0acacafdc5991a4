#include "letter/narrated_film.h"

#include "film/encoder.h"
#include "film/open_films.h"
#include "letter/fonts.h"
#include "letter/mark_painter.h"
#include "letter/palette.h"
#include "letter/qt_text.h"
#include "letter/still.h"
#include "review/letter_model.h"
#include "review/replay.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"
#include "voice/voice_chain.h"

#include <cmath>

namespace jg {

namespace {

/// Paints the film's pictures. A picture that has not changed is painted once.
class FilmPainter {
public:
    explicit FilmPainter(const FilmRecipe& recipe)
        : r_(recipe)
        , canvas_(recipe.width, recipe.height, QImage::Format_RGB32) {}

    const QImage& canvas() const { return canvas_; }
    double unit() const { return r_.width / 1280.0; }

    void title() {
        QPainter p(&canvas_);
        card(p);
        line(p, 0.40, headFont(58 * unit()), palette::chalk, said(r_.letter.greeting));
        line(p, 0.56, textFont(24 * unit()), palette::chalk,
             said(msg("film.place-and-date", {{"place", r_.letter.from}, {"date", r_.review.date}})));
        line(p, 0.63, textFont(19 * unit()), faded(palette::chalk), said(r_.letter.about));
    }

    void closing() {
        QPainter p(&canvas_);
        card(p);
        line(p, 0.22, headFont(44 * unit()), palette::chalk, said(msg("film.to-work-on")));
        double y = 0.36;
        for (const LetterCorrection& c : r_.letter.corrections) {
            line(p, y, textFont(26 * unit(), true), palette::chalk, said(c.title));
            y += 0.075;
        }
        if (!r_.letter.nextLook.empty())
            line(p, 0.74, textFont(21 * unit()), faded(palette::chalk),
                 said(msg("film.next-look", {{"date", r_.letter.nextLook}})));
        line(p, 0.86, headFont(24 * unit(), true), palette::chalk, text(r_.letter.signature));
    }

    Status stop(const Stop& s, const Take& take, std::int64_t sample) {
        const StageState state = stateAt(s, take, sample);
        const std::string signature = signatureOf(s, state);
        if (signature == last_) return Done{};
        last_ = signature;
        const ToldDelivery& told = toldIn(r_, s.delivery);
        auto reader = films_.of(told.clip);
        if (!reader) return reader.error();
        auto picture = (*reader)->picture(FrameNumber{state.frame});
        if (!picture) return picture.error();
        QPainter p(&canvas_);
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        canvas_.fill(palette::stage);
        const QRectF area(0, 0, r_.width, r_.height);
        const ViewTransform view = ViewTransform::fit(QSizeF(picture->width, picture->height), area);
        p.drawImage(QRectF(view.offset, QSizeF(picture->width, picture->height) * view.scale),
                    toImage(*picture));
        if (state.marks)
            paintScene(p,
                       sceneFor(told.marks, r_.playbook, told.assessment, state.frame, s.finding,
                                ghostIn(told, s.finding)),
                       view, area, r_.words, unit());
        for (const auto& stroke : state.strokes) paintStroke(p, stroke, view, unit());
        if (state.pointer) paintPointer(p, *state.pointer, view, unit());
        caption(p, s, told.assessment);
        return Done{};
    }

    void forget() { last_.clear(); }

private:
    static QColor faded(QColor c) {
        c.setAlphaF(0.75f);
        return c;
    }

    void card(QPainter& p) {
        last_.clear();
        canvas_.fill(palette::moss);
        p.setRenderHint(QPainter::Antialiasing);
        p.fillRect(QRectF(0, r_.height - 10 * unit(), r_.width, 10 * unit()), palette::clay);
    }

    void line(QPainter& p, double at, const QFont& font, const QColor& color, const QString& words) {
        p.setFont(font);
        p.setPen(color);
        const double height = QFontMetricsF(font).height() * 1.3;
        const QRectF box(0.08 * r_.width, at * r_.height - height / 2, 0.84 * r_.width, height * 2);
        p.drawText(box, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, words);
    }

    QString said(const Message& message) const { return text(r_.words(message)); }

    static Message captionOf(const Stop& s, const Assessment& a) {
        const MeasureRow* row = a.measure(s.finding);
        if (!row || !row->value.value) return asIs(s.title);
        const Message target = wordsOf(row->target), number = labelOf(row->value);
        if (target.empty()) return msg("film.caption", {{"stop", s.title}, {"number", number}});
        return msg("film.caption-target", {{"stop", s.title}, {"number", number}, {"target", target}});
    }

    void caption(QPainter& p, const Stop& s, const Assessment& a) {
        const QString words = said(captionOf(s, a));
        const QFont font = textFont(21 * unit(), true);
        const QSizeF size(QFontMetricsF(font).horizontalAdvance(words) + 32 * unit(), 42 * unit());
        const QRectF box(28 * unit(), r_.height - size.height() - 26 * unit(), size.width(), size.height());
        QColor back = palette::casing;
        back.setAlphaF(0.86f);
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(Qt::NoPen);
        p.setBrush(back);
        p.drawRoundedRect(box, 5 * unit(), 5 * unit());
        p.setFont(font);
        p.setPen(palette::chalk);
        p.drawText(box, Qt::AlignCenter, words);
    }

    static std::string signatureOf(const Stop& s, const StageState& state) {
        std::size_t points = 0;
        for (const auto& stroke : state.strokes) points += stroke.size();
        std::string sig = s.id.value + "/" + std::to_string(state.frame) + "/" +
                          std::to_string(state.strokes.size()) + "/" + std::to_string(points) +
                          (state.marks ? "m" : "-");
        if (state.pointer)
            sig += "/" + std::to_string(std::lround(state.pointer->x * 4)) + "," +
                   std::to_string(std::lround(state.pointer->y * 4));
        return sig;
    }

    const FilmRecipe& r_;
    OpenFilms films_;
    QImage canvas_;
    std::string last_;
};

/// A card or a said stop, with its length in samples.
struct Segment {
    std::string title;
    std::int64_t samples = 0;
    const Stop* stop = nullptr;
    const Take* take = nullptr;
    bool closing = false;
};

std::vector<Segment> segmentsOf(const FilmRecipe& r) {
    std::vector<Segment> all = {
        {r.words(msg("film.hello")), std::llround(kTitleSeconds * kSampleRate), nullptr, nullptr, false}};
    for (const Stop& s : r.review.stops)
        if (const auto take = r.review.takes.find(s.id); take != r.review.takes.end())
            all.push_back({s.title, take->second.samples * kSampleRate / take->second.sampleRate, &s,
                           &take->second, false});
    all.push_back({r.words(msg("film.to-work-on")), std::llround(kClosingSeconds * kSampleRate), nullptr,
                   nullptr, true});
    return all;
}

std::vector<Chapter> chaptersOf(const std::vector<Segment>& segments) {
    std::vector<Chapter> chapters;
    std::int64_t at = 0;
    for (const Segment& s : segments) {
        chapters.push_back({at * 1000 / kSampleRate, (at + s.samples) * 1000 / kSampleRate, s.title});
        at += s.samples;
    }
    return chapters;
}

class FilmJob {
public:
    FilmJob(const FilmRecipe& r, std::stop_token stop, const std::function<void(double)>& progress)
        : r_(r)
        , painter_(r)
        , stop_(std::move(stop))
        , progress_(progress)
        , segments_(segmentsOf(r)) {
        for (const Segment& s : segments_) total_ += s.samples;
    }

    Status run(const std::filesystem::path& path) {
        EncodeSettings settings;
        settings.width = r_.width;
        settings.height = r_.height;
        settings.fps = {r_.fps, 1};
        settings.sampleRate = kSampleRate;
        settings.chapters = chaptersOf(segments_);
        settings.title = r_.words(r_.letter.greeting);
        auto encoder = Encoder::open(path, settings);
        if (!encoder) return encoder.error();
        for (const Segment& s : segments_) {
            if (auto done = addSound(**encoder, s); !done) return done;
            if (auto done = addPictures(**encoder, s); !done) return done;
            start_ += s.samples;
        }
        return (*encoder)->finish();
    }

private:
    Status addSound(Encoder& encoder, const Segment& s) {
        std::vector<float> sound(static_cast<std::size_t>(s.samples));
        if (s.take) {
            auto raw = readSound(r_.takesFolder / s.take->file);
            if (!raw) return raw.error();
            auto voice = polishVoice(*raw);
            if (!voice) return voice.error();
            sound = std::move(*voice);
            sound.resize(static_cast<std::size_t>(s.samples));
        }
        return encoder.addSound(sound);
    }

    Status addPictures(Encoder& encoder, const Segment& s) {
        painter_.forget();
        if (!s.stop) s.closing ? painter_.closing() : painter_.title();
        // Pictures follow the sum of samples, so that rounding never adds up.
        const std::int64_t until = (start_ + s.samples) * r_.fps / kSampleRate;
        for (; frame_ < until; ++frame_) {
            if (stop_.stop_requested()) return fail(ErrorCode::Cancelled, msg("film.stopped"));
            if (s.stop)
                if (auto done = painter_.stop(*s.stop, *s.take,
                                              (frame_ * kSampleRate / r_.fps - start_) * s.take->sampleRate /
                                                  kSampleRate);
                    !done)
                    return done;
            if (auto done = encoder.addPicture(painter_.canvas().constBits(),
                                               static_cast<int>(painter_.canvas().bytesPerLine()));
                !done)
                return done;
            if (progress_)
                progress_(static_cast<double>(frame_ * kSampleRate / r_.fps) / static_cast<double>(total_));
        }
        return Done{};
    }

    const FilmRecipe& r_;
    FilmPainter painter_;
    std::stop_token stop_;
    const std::function<void(double)>& progress_;
    std::vector<Segment> segments_;
    std::int64_t total_ = 0;
    std::int64_t start_ = 0; ///< samples before the segment at hand
    std::int64_t frame_ = 0;
};

} // namespace

const MeasureGhost* ghostIn(const ToldDelivery& told, const std::string& measure) {
    const auto it = told.ghosts.find(measure);
    return it == told.ghosts.end() ? nullptr : &it->second;
}

const ToldDelivery& toldIn(const FilmRecipe& recipe, int delivery) {
    for (const ToldDelivery& told : recipe.others)
        if (told.marks.number == delivery) return told;
    return recipe;
}

Status renderNarratedFilm(const FilmRecipe& recipe, const std::filesystem::path& path, FileStore& files,
                          std::stop_token stop, const std::function<void(double)>& progress) {
    if (recipe.review.takes.empty()) return fail(ErrorCode::Refused, msg("film.nothing-said"));
    return files.publish(path, [&](const std::filesystem::path& temporary) {
        return FilmJob(recipe, stop, progress).run(temporary);
    });
}

} // namespace jg
