// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/intake/intake.h"

#include "base/clock.h"
#include "desk/intake/film_owner.h"
#include "desk/intake/guardian_check.h"
#include "desk/keeping/places.h"
#include "film/deliveries.h"
#include "letter/still.h"
#include "review/record/allowed.h"

#include <QImage>

#include <chrono>
#include <thread>

namespace jg {

std::vector<PromiseChoice> promiseChoices() {
    return {{0, msg("intake.promised-tonight")},
            {1, msg("intake.promised-tomorrow")},
            {3, msg("intake.promised-three-days")},
            {7, msg("intake.promised-week")}};
}

namespace fs = std::filesystem;

CheckQuestion questionFor(View view, Hand hand, double statedFps) {
    CheckQuestion q;
    q.statedFps = statedFps;
    q.fromSide = isSideView(view);
    q.travel = targetDirectionX(hand, view);
    q.seenAs = msg("intake.seen-as",
                   {{"hand", msg(hand == Hand::Right ? "intake.right-hander" : "intake.left-hander")},
                    {"view", nameOf(view)}});
    return q;
}

namespace {

/// A phone or a cable may still be writing it: two looks a fifth of a second apart must find the same size.
Status waitUntilWhole(const fs::path& path, std::stop_token stop) {
    constexpr int kMostLooks = 600;
    std::error_code ec;
    // What has rested for a while needs no second look.
    const auto age = fs::file_time_type::clock::now() - fs::last_write_time(path, ec);
    if (ec || age > std::chrono::milliseconds(1500)) return Done{};
    auto size = fs::file_size(path, ec);
    for (int look = 0; look < kMostLooks && !ec; ++look) {
        for (int i = 0; i < 4; ++i) {
            if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("intake.stopped"));
            std::this_thread::sleep_for(std::chrono::milliseconds(50));
        }
        const auto now = fs::file_size(path, ec);
        if (now == size) return Done{};
        size = now;
    }
    if (ec) return Done{}; // opening says what is wrong
    return fail(ErrorCode::Unreadable, msg("intake.still-written", {{"path", path.filename().string()}}));
}

/// Somewhere in the delivery rather than at its still beginning, and a whole picture.
FrameNumber stillFrame(std::int64_t frames, const std::vector<FrameRange>& damaged) {
    std::int64_t n = frames * 6 / 10;
    for (auto range = damaged.rbegin(); range != damaged.rend(); ++range)
        if (range->first <= n && n <= range->second) n = std::max<std::int64_t>(0, range->first - 1);
    return FrameNumber{n};
}

} // namespace

Result<LookedAt> lookAtFilm(const fs::path& path, const CheckQuestion& question, std::stop_token stop,
                            const std::function<void(double)>& progress) {
    if (auto whole = waitUntilWhole(path, stop); !whole) return whole.error();
    auto limits = readCheckLimits(dataFolder() / "film" / "check-limits.json");
    if (!limits) return limits.error();
    auto reader = Reader::open(path, {.watchErrors = true}, stop);
    if (!reader) return reader.error();
    auto check = checkFilm(**reader, *limits, question, stop, progress);
    if (!check) return check.error();
    auto still = (*reader)->picture(stillFrame((*reader)->info().frames(), check->damaged), stop);
    if (!still) still = (*reader)->picture(FrameNumber{0}, stop);
    if (!still) return still.error();
    return LookedAt{(*reader)->info(), std::move(*check), std::move(*still)};
}

namespace {

std::vector<FoundDelivery> foundIn(const LookedAt& looked, View view) {
    std::vector<FoundDelivery> all;
    for (const SuggestedDelivery& s :
         findDeliveries(looked.check.survey, looked.info.playRate.toDouble(), isSideView(view))) {
        FoundDelivery d{s.cut.first, s.cut.second, {}};
        for (const auto& [moment, found] :
             {std::pair{Moment::Set, s.set}, std::pair{Moment::LiftTop, s.liftTop},
              std::pair{Moment::FootTouch, s.firstTouch}, std::pair{Moment::Release, s.release}})
            if (found) d.places[moment] = {found->frame, found->sure};
        all.push_back(std::move(d));
    }
    return all;
}

Clip clipFrom(const IntakeFilm& film, const LookedAt& looked, const AthleteId& athlete, IdSource& ids) {
    Clip c;
    c.id = ids.next<ClipTag>("clip");
    c.athlete = athlete;
    c.extension = film.path.extension().string();
    c.fileName = film.path.filename().string();
    c.view = film.view;
    if (film.statedFps > 0) c.captureFps = film.statedFps, c.captureSource = idOf(RateSource::Stated);
    putFacts(c, looked);
    return c;
}

Status saveStill(Library& library, const Clip& clip, const Picture& still) {
    const QImage small = toImage(still).scaledToWidth(480, Qt::SmoothTransformation);
    const fs::path path = library.stillPath(clip);
    return library.files().publish(path, [&](const fs::path& temporary) -> Status {
        if (small.save(QString::fromStdString(temporary.string()), "PNG")) return Done{};
        return writeError(path, ENOSPC);
    });
}

} // namespace

std::int64_t stillFrameOf(const Clip& clip) {
    return stillFrame(clip.frames, clip.damaged).value;
}

void putFacts(Clip& c, const LookedAt& looked) {
    if (c.captureSource != idOf(RateSource::Stated)) {
        c.captureFps = looked.info.captureRate.fps;
        c.captureSource = idOf(looked.info.captureRate.source);
    }
    c.frames = looked.info.frames();
    c.width = looked.info.width;
    c.height = looked.info.height;
    c.check.clear();
    for (const CheckLine& line : looked.check.lines) c.check.push_back(line.text);
    c.tiltDeg = looked.check.survey.lines.tiltDeg;
    c.damaged = looked.check.damaged;
    c.deliveries = foundIn(looked, c.view);
}

namespace {

/// A film that this athlete sent before is asked about: it is easily taken twice. The same one twice at once
/// is none.
Status isFresh(Library& library, const IntakeForm& form, const Submission& so, const Clip& clip) {
    for (const Clip& c : so.clips)
        if (c.mediaHash == clip.mediaHash)
            return fail(ErrorCode::BadInput,
                        msg("intake.twice-at-once", {{"file", clip.fileName}, {"other", c.fileName}}));
    if (form.onceMore) return Done{};
    auto submissions = library.submissions();
    if (!submissions) return submissions.error();
    for (const Submission& s : *submissions)
        for (const Clip& c : s.clips)
            if (s.athlete == form.athlete && c.mediaHash == clip.mediaHash)
                return fail(ErrorCode::NeedsYes,
                            msg("intake.same-film", {{"file", clip.fileName}, {"date", s.received}}));
    return Done{};
}

Submission submissionFrom(const IntakeForm& form, const Clock& clock, IdSource& ids) {
    Submission s;
    s.id = ids.next<SubmissionTag>("sub");
    s.athlete = form.athlete;
    s.received = clock.today();
    s.promised = form.promised;
    s.asked = form.asked;
    s.pain = form.pain;
    s.mail = form.mail;
    s.start = form.start;
    s.surface = form.surface;
    return s;
}

} // namespace

Result<Submission> takeIn(Library& library, const IntakeForm& form, const std::vector<LookedAt>& looked,
                          const Clock& clock, IdSource& ids, std::stop_token stop,
                          const std::function<void(double)>& progress) {
    if (form.films.empty()) return fail(ErrorCode::BadInput, msg("intake.no-film"));
    if (looked.size() != form.films.size())
        return fail(ErrorCode::Internal, msg("intake.not-every-film-was-looked-at"));
    if (form.newAthlete)
        if (auto guardian = checkGuardian(library, *form.newAthlete, clock.today()); !guardian)
            return guardian.error();
    if (!form.newAthlete) {
        auto athlete = library.athlete(form.athlete);
        if (!athlete) return athlete.error();
        const Allowed filming = allowedOn(*athlete, Use::Filming, clock.today());
        if (filming != Allowed::Yes && filming != Allowed::Silent)
            return fail(ErrorCode::Refused, whyNotAllowed(*athlete, Use::Filming, clock.today()));
    }
    Submission s = submissionFrom(form, clock, ids);
    const auto undone = [&](Error why) {
        for (const Clip& c : s.clips) library.dropUnusedMedia(c);
        return why;
    };
    const auto all = static_cast<double>(form.films.size());
    for (std::size_t i = 0; i < form.films.size(); ++i) {
        Clip clip = clipFrom(form.films[i], looked[i], form.athlete, ids);
        auto hash = library.addMedia(form.films[i].path, stop, [&](double part) {
            if (progress) progress((static_cast<double>(i) + part) / all);
        });
        if (!hash) return undone(hash.error());
        clip.mediaHash = *hash;
        // One film belongs to one athlete: nobody's picture goes to another family by a film chosen twice.
        auto other = otherOwner(library, clip.mediaHash, form.athlete);
        if (!other) return undone(other.error());
        if (*other)
            return undone(
                fail(ErrorCode::Refused, msg("intake.somebody-elses-film",
                                             {{"file", clip.fileName}, {"name", (*other)->fullName()}})));
        if (auto fresh = isFresh(library, form, s, clip); !fresh) return undone(fresh.error());
        if (form.films.size() == 1)
            clip.check.push_back(msg("intake.only-one-view-what-the-view", {{"view", nameOf(clip.view)}}));
        const Status still = saveStill(library, clip, looked[i].still);
        s.clips.push_back(std::move(clip));
        if (!still) return undone(still.error());
    }
    if (stop.stop_requested())
        return undone(fail(ErrorCode::Cancelled, msg("intake.stopped-nothing-was-taken-in")));
    const Athlete* fresh = form.newAthlete ? &*form.newAthlete : nullptr;
    if (auto stored = library.add(s, fresh); !stored) return undone(stored.error());
    return s;
}

Result<Submission> lookAndTakeIn(Library& library, const IntakeForm& form, Hand hand, const Clock& clock,
                                 IdSource& ids, std::stop_token stop,
                                 const std::function<void(double)>& progress) {
    constexpr double kLookShare = 0.8; // of the way: looking at a film takes longer than copying it
    const auto tell = [&](double part) {
        if (progress) progress(part);
    };
    std::vector<LookedAt> looked;
    const auto all = static_cast<double>(form.films.size());
    for (const IntakeFilm& film : form.films) {
        const auto done = static_cast<double>(looked.size());
        auto seen = lookAtFilm(film.path, questionFor(film.view, hand, film.statedFps), stop,
                               [&](double part) { tell(kLookShare * (done + part) / all); });
        if (!seen) return seen.error();
        looked.push_back(std::move(*seen));
    }
    return takeIn(library, form, looked, clock, ids, stop,
                  [&](double part) { tell(kLookShare + (1 - kLookShare) * part); });
}

} // namespace jg
