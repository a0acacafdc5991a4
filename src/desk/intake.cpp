#include "desk/intake.h"

#include "letter/still.h"

#include <QImage>

namespace jg {

namespace fs = std::filesystem;

Result<LookedAt> lookAtFilm(const fs::path& path, std::stop_token stop,
                            const std::function<void(double)>& progress) {
    auto reader = Reader::open(path, {}, stop);
    if (!reader) return reader.error();
    auto check = checkFilm(**reader, stop, progress);
    if (!check) return check.error();
    // Somewhere in the delivery rather than at its still beginning.
    auto still = (*reader)->picture(FrameNumber{(*reader)->info().frames() * 6 / 10}, stop);
    if (!still) still = (*reader)->picture(FrameNumber{0}, stop);
    if (!still) return still.error();
    return LookedAt{(*reader)->info(), std::move(*check), std::move(*still)};
}

fs::path stillPath(const Library& library, const Clip& clip) {
    return library.folder() / "media" / (clip.mediaHash + ".still.png");
}

namespace {

Clip clipFrom(const IntakeFilm& film, const LookedAt& looked, const AthleteId& athlete, IdSource& ids) {
    Clip c;
    c.id = ids.next<ClipTag>("clip");
    c.athlete = athlete;
    c.extension = film.path.extension().string();
    c.fileName = film.path.filename().string();
    c.view = film.view;
    c.captureFps = film.statedFps > 0 ? film.statedFps : looked.info.captureRate.fps;
    c.captureSource = film.statedFps > 0 ? idOf(RateSource::Stated) : idOf(looked.info.captureRate.source);
    c.frames = looked.info.frames();
    c.width = looked.info.width;
    c.height = looked.info.height;
    for (const CheckLine& line : looked.check.lines)
        if (!(film.statedFps > 0 && line.id == "rate-assumed")) c.check.push_back(line.text);
    return c;
}

Status saveStill(Library& library, const Clip& clip, const Picture& still) {
    const QImage small = toImage(still).scaledToWidth(480, Qt::SmoothTransformation);
    const fs::path path = stillPath(library, clip);
    return library.files().publish(path, [&](const fs::path& temporary) -> Status {
        if (small.save(QString::fromStdString(temporary.string()), "PNG")) return Done{};
        return writeError(path, ENOSPC);
    });
}

} // namespace

Result<Submission> takeIn(Library& library, const IntakeForm& form, const std::vector<LookedAt>& looked,
                          const Clock& clock, IdSource& ids) {
    if (form.films.empty())
        return fail(ErrorCode::BadInput, "There is no film in this submission. Add at least one.");
    if (looked.size() != form.films.size()) return fail(ErrorCode::Internal, "Not every film was looked at.");
    auto athlete = library.athlete(form.athlete);
    if (!athlete) return athlete.error();
    Submission s;
    s.id = ids.next<SubmissionTag>("sub");
    s.athlete = form.athlete;
    s.received = clock.today();
    s.promised = form.promised;
    s.asked = form.asked;
    s.pain = form.pain;
    s.delivery = form.delivery;
    s.surface = form.surface;
    for (std::size_t i = 0; i < form.films.size(); ++i) {
        Clip clip = clipFrom(form.films[i], looked[i], form.athlete, ids);
        auto hash = library.addMedia(form.films[i].path);
        if (!hash) return hash.error();
        clip.mediaHash = *hash;
        if (auto saved = saveStill(library, clip, looked[i].still); !saved) return saved.error();
        s.clips.push_back(std::move(clip));
    }
    if (auto stored = library.save(s); !stored) return stored.error();
    return s;
}

} // namespace jg
