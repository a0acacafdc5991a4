// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/library/demo_library.h"

#include "base/clock.h"
#include "base/mutex.h"
#include "coaching/playbook_reader.h"
#include "demo/films/random_orders.h"
#include "demo/library/demo_arrivals.h"
#include "demo/library/demo_mark.h"
#include "desk/intake/intake.h"
#include "desk/keeping/house_settings.h"
#include "desk/keeping/places.h"
#include "desk/own/own_error_exercise.h"
#include "desk/own/own_measures.h"
#include "desk/session/beside.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <atomic>
#include <thread>

namespace jg {

namespace fs = std::filesystem;

namespace {

using Progress = std::function<void(double, const Message&)>;

/// One film of an arrival: made, and looked at as any film that comes in.
struct FilmTask {
    const DemoArrival* arrival;
    std::size_t index;
    fs::path file;
    std::optional<LookedAt> looked;
    double frames() const { return order().fps; }
    const FilmOrder& order() const { return arrival->films[index]; }
};

fs::path fileOf(const DemoArrival& a, std::size_t i, const fs::path& work) {
    return work / (a.athlete.firstName + "-" + std::string(idOf(a.films[i].camera.view)) + "-" +
                   isoDate(a.received) + (i ? "-" + std::to_string(i + 1) : "") + ".mp4");
}

Status makeOne(FilmTask& task, std::stop_token stop, const std::function<void(double)>& progress) {
    const FilmOrder& o = task.order();
    constexpr double kMaking = 0.8; // of the time; the rest is the film check
    auto truth = makeFilm(o, task.file, stop, [&](double part) { progress(kMaking * part); });
    if (!truth) return truth.error();
    auto seen = lookAtFilm(task.file, questionFor(o.camera.view, o.hand, o.fps), stop,
                           [&](double part) { progress(kMaking + (1 - kMaking) * part); });
    if (!seen) return seen.error();
    task.looked = std::move(*seen);
    return Done{};
}

/// Makes all films on every core, the longest first. The first that fails stops the others.
class FilmWorks {
public:
    FilmWorks(std::vector<FilmTask>& tasks, const Progress& progress)
        : progress_(progress) {
        for (FilmTask& t : tasks) tasks_.push_back(&t), all_ += t.frames();
        std::stable_sort(tasks_.begin(), tasks_.end(),
                         [](const auto* a, const auto* b) { return a->frames() > b->frames(); });
        parts_.resize(tasks_.size());
    }
    Status run(std::stop_token outer) {
        const std::stop_callback passOn(outer, [this] { stop_.request_stop(); });
        {
            std::vector<std::jthread> threads;
            const unsigned cores = std::max(1U, std::thread::hardware_concurrency());
            for (unsigned i = 0; i < cores; ++i) threads.emplace_back([this] { work(); });
        }
        const Holding lock(mutex_);
        return result_;
    }

private:
    void work() {
        for (std::size_t i = next_++; i < tasks_.size() && !stop_.stop_requested(); i = next_++) {
            const Status made = makeOne(*tasks_[i], stop_.get_token(), [&](double p) { tell(i, p); });
            if (made) continue;
            const Holding lock(mutex_);
            if (result_) result_ = made.error();
            stop_.request_stop();
        }
    }
    void tell(std::size_t i, double part) {
        const Holding lock(mutex_);
        parts_[i] = part;
        double done = 0;
        for (std::size_t k = 0; k < parts_.size(); ++k) done += parts_[k] * tasks_[k]->frames();
        if (progress_) progress_(done / all_, msg("demo.films"));
    }

    const Progress& progress_;
    std::vector<FilmTask*> tasks_;
    double all_ = 0;
    std::stop_source stop_;
    std::atomic<std::size_t> next_ = 0;
    Mutex mutex_;
    std::vector<double> parts_ JG_GUARDED_BY(mutex_); ///< how far each film has come
    Status result_ JG_GUARDED_BY(mutex_) = Done{};
};

/// The first correction stands beside the athlete's last review, where there is one.
Status putEarlierBeside(Library& library, const Playbook& playbook, Review& review) {
    auto offers = besideOffers(library, review);
    if (!offers) return offers.error();
    if (offers->empty()) return Done{};
    const JuxtaKey& last = offers->front().key;
    auto then = besideEntry(library, playbook, review.athlete, {last.review, last.delivery});
    if (!then) return then.error();
    for (Stop& s : review.stops) {
        if (s.kind != StopKind::Correction) continue;
        s.beside = besideAt(review.deliveryOr(s.delivery), s.frame, *then);
        if (s.beside) break;
    }
    return Done{};
}

Status keepArrival(Library& library, const Playbook& playbook, const DemoArrival& arrival,
                   std::vector<FilmTask>& tasks, IdSource& ids, std::stop_token stop) {
    IntakeForm form{arrival.athlete.id, std::nullopt,  {},           arrival.start,
                    arrival.surface,    arrival.asked, arrival.pain, arrival.promised};
    std::vector<LookedAt> looked;
    for (FilmTask& t : tasks) {
        if (t.arrival != &arrival) continue;
        form.films.push_back({t.file, t.order().camera.view, static_cast<double>(t.order().fps)});
        looked.push_back(std::move(*t.looked));
    }
    const FixedClock clock(arrival.received);
    auto submission = takeIn(library, form, looked, clock, ids);
    if (!submission) return submission.error();
    if (!arrival.review) return Done{};
    auto review = makeDemoReview(library, playbook, arrival.athlete, *submission, arrival.films,
                                 *arrival.review, arrival.received, ids, stop);
    if (!review) return review.error();
    if (auto put = putEarlierBeside(library, playbook, *review); !put) return put;
    const Assessment told = assess(*review, playbook, submission->clips, arrival.athlete.hand);
    if (auto saved = library.save(*review, &told); !saved) return saved.error();
    return Done{};
}

Status keepHouse(Library& library, const std::vector<Athlete>& people, Date today) {
    if (auto saved = library.add(people); !saved) return saved;
    for (const auto& [key, value] :
         {std::pair{"house.place", "The Tram Shed, Larkmoor"}, std::pair{"house.coach", "Ilse Varnholt"},
          std::pair{"mail.from", "ilse@example.org"}, std::pair{"mail.url", "smtp://127.0.0.1:2525"}})
        if (auto saved = library.setSetting(key, value); !saved) return saved;
    if (auto saved = keepHouseMark(library, demoMark()); !saved) return saved;
    return keepRun(library, demoErrorRun("Ilse Varnholt", addDays(today, -80)));
}

Status fill(const fs::path& building, Playbook& playbook, std::uint64_t seed, Date today,
            std::stop_token stop, const Progress& progress) {
    auto library = Library::open(building, true, std::make_shared<FileStore>());
    if (!library) return library.error();
    IdSource ids(seed);
    std::vector<Athlete> people;
    auto own = keepOwnMeasure(**library, playbook,
                              {"Front arm, release",
                               "jointAngle",
                               {Landmark::LeadShoulder, Landmark::LeadElbow, Landmark::LeadWrist},
                               {Moment::Release}});
    if (!own) return own.error();
    auto all = demoArrivals(seed, today, *own, ids, people);
    // As they came, so that a later review knows of the ones before.
    std::stable_sort(all.begin(), all.end(),
                     [](const DemoArrival& a, const DemoArrival& b) { return a.received < b.received; });
    if (auto kept = keepHouse(**library, people, today); !kept) return kept;
    std::vector<FilmTask> tasks;
    for (const DemoArrival& a : all)
        for (std::size_t i = 0; i < a.films.size(); ++i)
            tasks.push_back({&a, i, fileOf(a, i, building / "work"), std::nullopt});
    constexpr double kFilms = 0.93; // of the time; the reviews take the rest
    const Progress films = [&](double part, const Message& what) {
        if (progress) progress(kFilms * part, what);
    };
    if (auto made = FilmWorks(tasks, films).run(stop); !made) return made;
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("demo.stopped"));
        if (progress)
            progress(kFilms + (1 - kFilms) * static_cast<double>(i) / static_cast<double>(all.size()),
                     msg("demo.reviews"));
        if (auto kept = keepArrival(**library, playbook, all[i], tasks, ids, stop); !kept) return kept;
    }
    for (const Promise& p : {Promise{people[4].id, asIs("Drills for Emeka, first week"), today, Owes::House,
                                     Kept::Open, addDays(today, -6)},
                             Promise{people[2].id, asIs("Front view of Ludo"), addDays(today, -9),
                                     Owes::Athlete, Kept::Open, addDays(today, -23)}})
        if (auto saved = (*library)->add(p); !saved) return saved;
    return Done{};
}

} // namespace

Status makeDemoLibrary(const fs::path& folder, std::uint64_t seed, Date today, std::stop_token stop,
                       const Progress& progress) {
    auto playbook = loadPlaybook(dataFolder() / "playbook");
    if (!playbook) return playbook.error();
    std::error_code ec;
    if (fs::exists(folder, ec) && !fs::is_empty(folder, ec))
        return fail(ErrorCode::Refused, msg("demo.not-empty", {{"folder", folder.string()}}));
    // Built beside its place and moved there when whole, so that a stop leaves nothing half-made.
    const fs::path absolute = fs::absolute(folder, ec).lexically_normal();
    const fs::path parent = (absolute.has_filename() ? absolute : absolute.parent_path()).parent_path();
    const fs::path building = parent / (".part-demo-" + std::to_string(seed));
    fs::remove_all(building, ec);
    fs::create_directories(parent, ec);
    Status made = fill(building, *playbook, seed, today, stop, progress);
    fs::remove_all(building / "work", ec);
    if (made) {
        if (fs::exists(folder, ec)) fs::remove(folder, ec);
        fs::rename(building, absolute.has_filename() ? absolute : absolute.parent_path(), ec);
        if (ec) made = writeError(folder, ec.value());
    }
    if (!made) fs::remove_all(building, ec);
    return made;
}

Status makeDemoFilms(const fs::path& folder, int count, std::uint64_t seed, const fs::path& truth,
                     std::stop_token stop, const std::function<void(double)>& progress) {
    nlohmann::json all = {{"format", "juxtagraph-truth-list-1"}, {"films", nlohmann::json::array()}};
    for (int n = 0; n < count; ++n) {
        const std::string name = "delivery-" + std::to_string(n) + ".mp4";
        auto made = makeFilm(randomOrder(seed, n), folder / name, stop, [&](double part) {
            if (progress) progress((n + part) / count);
        });
        if (!made) return made.error();
        nlohmann::json row = nlohmann::json::parse(*made);
        row["file"] = name;
        all["films"].push_back(std::move(row));
    }
    FileStore files;
    return files.write(truth, all.dump());
}

} // namespace jg
