// SPDX-License-Identifier: GPL-3.0-or-later
// Every door for strangers' bytes but films (tests/film/mutants_main.cpp): fuzz DOOR FIRST COUNT FOLDER.
// Seeds are the documents of the golden library and of the playbook; each is changed by a fixed random number
// and goes through its door and what stands behind it. A crash, an exception or a hang ends the program with
// a signal.
#include "base/number.h"
#include "coaching/playbook_reader.h"
#include "coaching/typed_target.h"
#include "desk/intake/intake.h"
#include "desk/intake/mail_intake.h"
#include "desk/keeping/places.h"
#include "desk/own/own_approaches.h"
#include "desk/own/own_playbook.h"
#include "desk/own/own_rows.h"
#include "library/rows.h"
#include "post/smtp.h"
#include "review/assess/contradictions.h"
#include "review/assess/summary.h"
#include "review/record/derived_json.h"
#include "review/record/message_json.h"
#include "review/record/own_error.h"
#include "review/record/people_check.h"
#include "review/record/points_document.h"
#include "review/record/review_json.h"
#include "tests/support/mails.h"
#include "tests/support/mutate.h"
#include "voice/audio_file.h"
#include "words/words.h"

#include <QGuiApplication>
#include <cmath>
#include <nlohmann/json.hpp>

#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <functional>
#include <map>
#include <unistd.h>

namespace {

using namespace jg;
namespace fs = std::filesystem;

using Engine = std::mt19937_64;

/// What the doors need: a library that may be spoilt, and seeds from it.
struct Ground {
    fs::path folder;
    std::unique_ptr<Library> library;
    Playbook book;
    IdSource ids{7};

    std::vector<std::string> column(const std::string& sql) const {
        SQLite::Database db((folder / "library" / "library.sqlite").string(), SQLite::OPEN_READONLY);
        return rowsOf(db, sql.c_str(), [](auto& q) { return textAt(q, 0); });
    }
    std::string changed(const std::vector<std::string>& seeds, Engine& engine) const {
        return test::mutatedJson(seeds[engine() % seeds.size()], engine);
    }
};

using Door = std::function<void(Ground&, Engine&)>;

/// Reads a changed review; what reads is assessed, looked over and written again.
void reviewDoor(Ground& g, Engine& engine) {
    static const auto seeds = g.column("SELECT document FROM reviews");
    const auto review = reviewFromJson(g.changed(seeds, engine));
    if (!review) return;
    const auto submissions = g.library->submissions();
    if (!submissions || submissions->empty()) std::abort();
    const auto& clips = (*submissions)[engine() % submissions->size()].clips;
    const Playbook book = withOwnFindings(g.book, *review);
    const Assessment a = assess(*review, book, clips, Hand::Left);
    (void)toJson(summaryOf(*review, &a));
    if (!assessmentFromJson(toJson(a))) std::abort(); // what we write we read
    if (!reviewFromJson(toJson(*review))) std::abort();
}

/// Points of other programs, as `assess` takes them.
void pointsDoor(Ground& g, Engine& engine) {
    static const std::vector<std::string> seeds = {
        R"({"format":"juxtagraph-points-1","hand":"R","view":"open","captureFps":120,"width":1280,"height":720,)"
        R"("turn":{"deg":4,"sd":2},"heightM":1.7,"positions":{"set":3,"load":40,"plant":80,"release":[95,96]},)"
        R"("points":[{"frame":3,"landmark":"crown","x":500,"y":150},{"frame":3,"landmark":"ground","x":500,"y":620},)"
        R"({"frame":40,"landmark":"back-hip","x":400,"y":400,"sigma":2.5},{"frame":40,"landmark":"back-knee","x":400,"y":500},)"
        R"({"frame":40,"landmark":"back-ankle","x":490,"y":540}],"hidden":[{"frame":80,"landmark":"ball","reason":"dark"}],)"
        R"("lines":[{"kind":"plumb","frame":3,"x1":100,"y1":10,"x2":101,"y2":700}],)"
        R"("scales":[{"kind":"rubber","frame":3,"x1":380,"y1":640,"x2":470,"y2":641}],)"
        R"("more":[{"view":"front","captureFps":60,"width":720,"height":1280,"positions":{"plant":30}}]})"};
    auto document = readPointsDocument(g.changed(seeds, engine));
    if (!document) return;
    for (const MeasureDefinition& m : g.book.measures) document->review.extras.push_back(m.id);
    const Assessment a = assess(document->review, g.book, document->clips, document->hand);
    for (const MeasureRow& row : a.measures)
        if (row.value.value && !std::isfinite(*row.value.value)) std::abort();
}

void rowsOfPeopleDoor(Ground& g, Engine& engine) {
    static const auto athletes = g.column("SELECT document FROM athletes"),
                      submissions = g.column("SELECT document FROM submissions");
    if (const auto athlete = athleteFromJson(g.changed(athletes, engine)))
        if (!athleteFromJson(toJson(*athlete))) std::abort();
    if (const auto submission = submissionFromJson(g.changed(submissions, engine)))
        if (!submissionFromJson(toJson(*submission))) std::abort();
}

void derivedDoor(Ground& g, Engine& engine) {
    static const auto derived = g.column("SELECT document FROM derived"),
                      surveys = g.column("SELECT survey FROM clips WHERE survey <> ''"),
                      results = g.column("SELECT document FROM results");
    DeliveryMarks marks;
    Clip clip;
    if (!derived.empty()) (void)readDerived(g.changed(derived, engine), marks);
    if (!surveys.empty()) (void)readSurvey(g.changed(surveys, engine), clip);
    if (!results.empty()) (void)assessmentFromJson(g.changed(results, engine));
}

/// A playbook as a review keeps it, one of its files changed.
void playbookDoor(Ground& g, Engine& engine) {
    auto files = nlohmann::json::parse(*g.book.text);
    auto at = std::next(files.begin(), static_cast<std::ptrdiff_t>(engine() % files.size()));
    *at = test::mutatedJson(at->get<std::string>(), engine);
    const std::string text = files.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
    const auto thawed = thawPlaybook(g.book, text);
    if (!thawed) (void)english()(thawed.error().text);
}

void approachDoor(Ground& g, Engine& engine) {
    static const std::vector<std::string> seeds = {
        *approachFile(*g.library, g.book, g.book.approaches.front()),
        *approachFile(*g.library, g.book, g.book.approaches.back())};
    Playbook book = g.book;
    const auto read = importApproach(*g.library, book, g.changed(seeds, engine), Date{}, g.ids);
    if (!read && english()(read.error().text).empty()) std::abort();
    if (read && !removeApproach(*g.library, book, *read)) std::abort();
}

/// Entries of the coach's own as they lie in the library.
void settingsDoor(Ground& g, Engine& engine) {
    static const std::string row = rowAsJson(g.book.items.front()).dump();
    static const std::vector<std::string> rows = {R"({"key":"x","edition":1,"on":"2026-11-28",)" +
                                                  row.substr(1)};
    for (const ListOf list : {ListOf::OwnRows, ListOf::OwnApproaches, ListOf::OwnMeasures})
        (void)g.library->put(list, "x 1", g.changed(rows, engine));
    Playbook book = g.book;
    const Status loaded = loadOwnPlaybook(*g.library, book);
    if (!loaded && english()(loaded.error().text).empty()) std::abort();
    (void)errorRunsFromJson("[" + g.changed(rows, engine) + "]");
    (void)english()(messageFromText(g.changed(rows, engine)));
}

/// What a person types.
void typedDoor(Ground& g, Engine& engine) {
    const std::string text = test::oddText(engine, 60);
    const MeasureDefinition& m = g.book.measures[engine() % g.book.measures.size()];
    if (const auto target = typedTarget(text, m)) (void)english()(wordsOf(*target));
    (void)typedNumber(text);
    (void)parseNumber(text);
    (void)dateFromWords(text);
    (void)parseIsoDate(text);
    (void)readServerAddress(text);
}

void soundDoor(Ground& g, Engine& engine) {
    static const std::string seed = [&] {
        auto writer = WavWriter::open(g.folder / "seed.wav");
        const std::vector<std::int16_t> samples(4800, 500);
        if (!writer || !writer->write(samples) || !writer->finish()) std::abort();
        return *readFile(g.folder / "seed.wav");
    }();
    const fs::path file = g.folder / "changed.wav";
    std::ofstream(file, std::ios::binary) << test::mutatedBytes(seed, engine);
    (void)readSound(file);
}

/// A mail with films, as it is dropped or lies in the watched folder: nothing of it lands outside its folder.
void mailDoor(Ground& g, Engine& engine) {
    static const std::string seed = [] {
        Mail m = test::mailFrom(
            "home@example.org",
            "Hello Ilse,\n\nis his arm late? The elbow is sore.\n\nOn Monday you wrote:\n> no pain?\n");
        m.html = "<html><body><p>is his arm late?</p></body></html>";
        m.attachments = {{"../a.mp4", "video/mp4", std::string(900, 'f')},
                         {"b.mov", "video/quicktime", std::string(300, 'g')},
                         {"c.txt", "text/plain", "words"}};
        const auto bytes = toBytes(m);
        if (!bytes) std::abort();
        return *bytes;
    }();
    const fs::path file = g.folder / "changed.eml";
    std::ofstream(file, std::ios::binary) << test::mutatedBytes(seed, engine);
    const auto mail = openMail(*g.library, file);
    if (!mail) return (void)english()(mail.error().text);
    for (const fs::path& film : mail->films)
        if (film.parent_path() != mail->folder->path() || !fs::is_regular_file(film)) std::abort();
    if (mail->athlete) std::abort(); // nobody in this library has that address
}

const std::map<std::string, Door> kDoors = {{"review", reviewDoor},       {"points", pointsDoor},
                                            {"people", rowsOfPeopleDoor}, {"derived", derivedDoor},
                                            {"playbook", playbookDoor},   {"approach", approachDoor},
                                            {"settings", settingsDoor},   {"typed", typedDoor},
                                            {"sound", soundDoor},         {"mail", mailDoor}};

constexpr unsigned kMostSeconds = 60; ///< for one; beyond it SIGALRM ends the program

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication app(argc, argv);
    const auto door = argc == 5 ? kDoors.find(argv[1]) : kDoors.end();
    if (door == kDoors.end()) {
        std::fputs("fuzz DOOR FIRST COUNT FOLDER; doors:", stderr);
        for (const auto& [name, any] : kDoors) std::fprintf(stderr, " %s", name.c_str());
        std::fputs("\n", stderr);
        return 2;
    }
    Ground ground;
    ground.folder = argv[4];
    auto library = Library::open(ground.folder / "library", false, std::make_shared<FileStore>());
    auto book = loadPlaybook(dataFolder() / "playbook");
    if (!library || !book) return 2;
    ground.library = std::move(*library);
    ground.book = std::move(*book);
    const int first = std::atoi(argv[2]), count = std::atoi(argv[3]);
    for (int i = first; i < first + count; ++i) {
        Engine engine(static_cast<std::uint64_t>(i));
        std::fprintf(stderr, "\r%s %d ", argv[1], i); // the last one stands there when it crashes
        ::alarm(kMostSeconds);
        door->second(ground, engine);
    }
    std::printf("%d through %s\n", count, argv[1]);
}
