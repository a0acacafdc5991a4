// SPDX-License-Identifier: GPL-3.0-or-later
// A library of years: 2,000 athletes, 10,000 clips, 10,000 reviews of real size.
// library_bench PATTERN FOLDER: fills FOLDER with copies of the submissions and reviews of the library
// PATTERN, then measures what the window asks of it, in a process that has done nothing else. Prints one JSON
// object.
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "desk/pages/athlete_page.h"
#include "desk/pages/desk_list.h"
#include "desk/pages/group.h"
#include "desk/pages/log.h"
#include "library/library.h"
#include "review/assess/assess.h"
#include "words/words.h"

#include <nlohmann/json.hpp>

#include <QCoreApplication>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <fstream>
#include <iostream>

namespace {

using namespace jg;
namespace fs = std::filesystem;

constexpr int kAthletes = 2000, kReviews = 10000, kWaiting = 60, kRounds = 20;
constexpr const char* kSyllables[] = {"ba", "ce", "di", "lo", "mu", "na",
                                      "pe", "ri", "so", "tu", "va", "wen"};

std::string nameOf(int n) {
    std::string name;
    for (int i = 0; i < 3; ++i, n /= 12) name += kSyllables[n % 12];
    name[0] = static_cast<char>(name[0] - 'a' + 'A');
    return name;
}

template <typename T>
T must(Result<T> result) {
    if (result) return std::move(*result);
    std::cerr << english()(result.error().text) << "\n";
    std::exit(1);
}

void must(const Status& status) {
    if (status) return;
    std::cerr << english()(status.error().text) << "\n";
    std::exit(1);
}

struct Pattern {
    Submission submission;
    Review review;
    Assessment told;
};

std::vector<Pattern> patternsOf(Library& library, const Playbook& book) {
    std::vector<Pattern> all;
    const auto reviews = must(library.reviews());
    for (const ReviewSummary& s : reviews) {
        Pattern p{must(library.submission(s.submission)), must(library.review(s.id)), {}};
        p.review.sent.reset();
        p.told = assess(p.review, book, p.submission.clips, must(library.athlete(s.athlete)).hand);
        all.push_back(std::move(p));
    }
    return all;
}

void fillOne(Library& library, Pattern p, int n, Date today) {
    const std::string id = std::to_string(n);
    const bool waits = n >= kReviews - kWaiting;
    p.submission.id = {"sub-" + id};
    p.submission.athlete = {"ath-" + std::to_string(n % kAthletes)};
    p.submission.received = addDays(today, -(kReviews - n) / 4);
    p.submission.clips.resize(1);
    Clip& clip = p.submission.clips.front();
    clip.id = {"clip-" + id};
    clip.athlete = p.submission.athlete;
    p.review.id = {"rev-" + id};
    p.review.submission = p.submission.id;
    p.review.athlete = p.submission.athlete;
    p.review.date = p.submission.received;
    p.review.revision = 0;
    p.review.stops.clear(), p.review.takes.clear();
    for (DeliveryMarks& d : p.review.deliveries) d.clip = clip.id;
    must(library.add(p.submission));
    must(library.save(p.review, &p.told));
    if (!waits) must(library.markSent(p.review, nullptr, {p.review.date, "a@example.org"}));
}

void fill(const fs::path& pattern, const fs::path& folder, const Playbook& book, Date today) {
    auto from = must(Library::open(pattern, false, std::make_shared<FileStore>()));
    auto to = must(Library::open(folder, true, std::make_shared<FileStore>()));
    const auto patterns = patternsOf(*from, book);
    for (int n = 0; n < kAthletes; ++n) {
        Athlete a = must(from->athlete(patterns.front().submission.athlete));
        a.id = {"ath-" + std::to_string(n)};
        a.firstName = nameOf(n), a.lastName = nameOf(n * 7 + 5);
        must(to->add(a));
    }
    for (const Pattern& p : patterns)
        for (const Clip& c : p.submission.clips) must(to->addMedia(from->mediaPath(c)));
    for (int n = 0; n < kReviews; ++n)
        fillOne(*to, patterns[static_cast<std::size_t>(n) % patterns.size()], n, today);
}

/// The slowest of some rounds, in milliseconds.
double worstMs(const std::function<void(int)>& what) {
    double worst = 0;
    for (int i = 0; i < kRounds; ++i) {
        const auto start = std::chrono::steady_clock::now();
        what(i);
        worst = std::max(
            worst,
            std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
    }
    return worst;
}

double peakMB() {
    std::ifstream in("/proc/self/status");
    double kB = 0;
    for (std::string word; in >> word;)
        if (word == "VmHWM:") in >> kB;
    return kB / 1024;
}

} // namespace

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv); // the data folder lies beside the executable
    if (argc < 3) return std::cerr << "library_bench PATTERN FOLDER [--measure]\n", 2;
    const Playbook book = must(loadPlaybook(dataFolder() / "playbook"));
    const Date today = *parseIsoDate("2026-11-25");
    if (argc < 4) {
        fill(argv[1], argv[2], book, today);
        return 0;
    }
    const auto folder = fs::path(argv[2]);
    nlohmann::json out;
    out["openMs"] = worstMs([&](int) { must(Library::open(folder, false, std::make_shared<FileStore>())); });
    auto library = must(Library::open(folder, false, std::make_shared<FileStore>()));
    out["deskMs"] = worstMs([&](int) { must(readDesk(*library, book, today)); });
    out["athleteMs"] = worstMs(
        [&](int i) { must(readAthletePage(*library, book, {"ath-" + std::to_string(97 * i % kAthletes)})); });
    out["logMs"] =
        worstMs([&](int i) { must(readLog(*library, book, {"ath-" + std::to_string(97 * i % kAthletes)})); });
    out["groupMs"] = worstMs([&](int) { must(readGroup(*library, book, today)); });
    const char* typed[] = {"b", "ba", "ce lo", "mu", "zz"};
    out["searchMs"] = worstMs([&](int i) { must(library->athleteRows(typed[i % 5])); });
    out["allAthletesMs"] = worstMs([&](int) { must(library->athleteRows("")); });
    out["saveMs"] = worstMs([&](int i) {
        Review r = must(library->review({"rev-" + std::to_string(kReviews - 1 - i)}));
        must(library->save(r));
    });
    out["peakMB"] = peakMB();
    std::cout << out.dump() << "\n";
}
