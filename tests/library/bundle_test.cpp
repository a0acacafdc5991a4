// SPDX-License-Identifier: GPL-3.0-or-later
// A bundle out of one library and into another: the same to the last digit, nothing doubled, nothing hostile
// taken in.
#include "library/bundle.h"
#include "review/record/review_json.h"
#include "tests/support/walk.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <nlohmann/json.hpp>
#include <zip.h>

#include <filesystem>
#include <fstream>
#include <map>
#include <random>
#include <set>

namespace jg {
namespace {

namespace fs = std::filesystem;
using nlohmann::json;
using test::Walk;

std::unique_ptr<Library> emptyLibrary(const fs::path& folder) {
    auto made = Library::open(folder, true, std::make_shared<FileStore>());
    EXPECT_TRUE(made);
    return std::move(*made);
}

/// A walk's bundle, written once for all tests.
struct Bundled {
    Walk walk{Stage::Send};
    fs::path file = walk.folder / "athlete.zip";
    Bundled() {
        const Status done = exportBundle(*walk.library, {walk.athlete.id}, file);
        EXPECT_TRUE(done) << said(done.error().text);
    }
    static Bundled& once() {
        static Bundled bundled;
        return bundled;
    }
};

/// Moves some points and says some things, so that no two libraries are alike.
void shuffle(Walk& walk, std::mt19937& dice) {
    Review r = *walk.library->review(walk.review.id);
    std::uniform_real_distribution<double> by(-40, 40);
    for (auto& [key, mark] : r.first().points)
        if (dice() % 3 == 0) mark.point.at = {mark.point.at.x + by(dice), mark.point.at.y + by(dice)};
    for (auto& [key, grade] : r.judging().grades) grade.step = 1 + static_cast<int>(dice() % 5);
    r.plan.opening = std::string(dice() % 50, 'x') + " \u00e9\u201c";
    if (dice() % 2 == 0) r.first().conditions.numberInOuting = static_cast<int>(dice() % 90);
    const Assessment told = assess(r, test::playbook(), walk.submission.clips, walk.athlete.hand);
    ASSERT_TRUE(walk.library->save(r, &told));
}

TEST(Bundle, ComesBackTheSameToTheLastDigitAndOnlyOnce) {
    const int rounds = std::getenv("JUXTAGRAPH_LONG") ? 100 : 2;
    std::mt19937 dice(8);
    Walk walk(Stage::Send);
    for (int i = 0; i < rounds; ++i) {
        shuffle(walk, dice);
        const fs::path file = walk.folder / "one.zip", home = walk.folder / ("other" + std::to_string(i));
        const Status out = exportBundle(*walk.library, {walk.athlete.id}, file);
        ASSERT_TRUE(out) << said(out.error().text);
        const auto other = emptyLibrary(home);
        const auto first = importBundle(*other, file, test::today());
        ASSERT_TRUE(first) << said(first.error().text);
        EXPECT_EQ(first->added, 3); // athlete, submission, review
        const Review was = *walk.library->review(walk.review.id), is = *other->review(walk.review.id);
        EXPECT_EQ(toJson(is), toJson(was));
        EXPECT_EQ(is.deliveries, was.deliveries); // paths and shake with them
        EXPECT_EQ(*other->athlete(walk.athlete.id), *walk.library->athlete(walk.athlete.id));
        EXPECT_EQ(*other->submission(walk.submission.id), *walk.library->submission(walk.submission.id));
        const auto before = walk.library->results(walk.review.id), after = other->results(walk.review.id);
        ASSERT_TRUE(before && *before && after && *after);
        EXPECT_EQ(toJson(**after), toJson(**before));
        EXPECT_TRUE(other->examine()->empty());
        const auto again = importBundle(*other, file, test::today());
        ASSERT_TRUE(again);
        EXPECT_EQ(again->added, 0);
        EXPECT_EQ(again->same, 3);
        EXPECT_EQ(other->reviews()->size(), 1U);
        fs::remove_all(home);
    }
}

TEST(Bundle, TheSameLibraryGivesTheSameBytes) {
    Bundled& b = Bundled::once();
    const fs::path twice = b.walk.folder / "twice.zip";
    ASSERT_TRUE(exportBundle(*b.walk.library, {b.walk.athlete.id}, twice));
    EXPECT_EQ(*contentHash(b.file), *contentHash(twice));
}

TEST(Bundle, WhatIsHereOtherwiseStaysAndTheOtherIsKeptBesideIt) {
    Bundled& b = Bundled::once();
    const auto other = emptyLibrary(b.walk.folder / "edited");
    ASSERT_TRUE(importBundle(*other, b.file, test::today()));
    Review mine = *other->review(b.walk.review.id);
    mine.plan.opening = "Mine.";
    ASSERT_TRUE(other->save(mine));
    Athlete athlete = *other->athlete(b.walk.athlete.id);
    athlete.level = "mine";
    ASSERT_TRUE(test::put(*other, athlete));
    const auto report = importBundle(*other, b.file, test::today());
    ASSERT_TRUE(report) << said(report.error().text);
    EXPECT_EQ(report->differs.size(), 2U);
    EXPECT_EQ(other->review(b.walk.review.id)->plan.opening, "Mine.");
    EXPECT_EQ(other->athlete(b.walk.athlete.id)->level, "mine");
    EXPECT_EQ(other->versions(b.walk.review.id)->size(), 1U);
}

TEST(Bundle, AFilmOfAnotherAthleteIsRefused) {
    Bundled& b = Bundled::once();
    const auto other = emptyLibrary(b.walk.folder / "taken");
    ASSERT_TRUE(importBundle(*other, b.file, test::today()));
    Submission theirs = *other->submission(b.walk.submission.id);
    Athlete somebody = b.walk.athlete;
    somebody.id = {"ath-else"};
    ASSERT_TRUE(test::put(*other, somebody));
    // The film is somebody else's in a third library.
    const auto third = emptyLibrary(b.walk.folder / "third");
    ASSERT_TRUE(third->addMedia(other->mediaPath(theirs.clips.front())));
    theirs.id = {"sub-else"};
    theirs.athlete = somebody.id;
    for (Clip& c : theirs.clips) c.id.value += "-else", c.athlete = somebody.id;
    ASSERT_TRUE(test::put(*third, theirs, &somebody));
    const auto report = importBundle(*third, b.file, test::today());
    ASSERT_FALSE(report);
    EXPECT_EQ(report.error().code, ErrorCode::Refused);
    EXPECT_FALSE(third->athlete(b.walk.athlete.id));
}

/// The entries of a zip, in order.
using Entries = std::vector<std::pair<std::string, std::string>>;

Entries entriesOf(const fs::path& file) {
    Entries all;
    zip* z = zip_open(file.c_str(), ZIP_RDONLY, nullptr);
    for (zip_int64_t i = 0; i < zip_get_num_entries(z, 0); ++i) {
        zip_stat_t stat;
        zip_stat_index(z, static_cast<zip_uint64_t>(i), 0, &stat);
        std::string bytes(stat.size, '\0');
        zip_file_t* in = zip_fopen_index(z, static_cast<zip_uint64_t>(i), 0);
        zip_fread(in, bytes.data(), bytes.size());
        zip_fclose(in);
        all.emplace_back(stat.name, std::move(bytes));
    }
    zip_discard(z);
    return all;
}

void writeZip(const fs::path& file, const Entries& entries, bool linkFirst = false) {
    fs::remove(file);
    zip* z = zip_open(file.c_str(), ZIP_CREATE | ZIP_TRUNCATE, nullptr);
    for (std::size_t i = 0; i < entries.size(); ++i) {
        zip_source_t* source = zip_source_buffer(z, entries[i].second.data(), entries[i].second.size(), 0);
        const auto at = zip_file_add(z, entries[i].first.c_str(), source, ZIP_FL_ENC_UTF_8);
        if (linkFirst && i == 1)
            zip_file_set_external_attributes(z, static_cast<zip_uint64_t>(at), 0, ZIP_OPSYS_UNIX,
                                             0120777U << 16);
    }
    ASSERT_EQ(zip_close(z), 0);
}

/// All paths below a folder.
std::set<std::string> treeOf(const fs::path& folder) {
    std::set<std::string> all;
    for (const auto& e : fs::recursive_directory_iterator(folder)) all.insert(e.path().string());
    return all;
}

TEST(Bundle, HostileOnesAreRefusedAndNothingIsWritten) {
    Bundled& b = Bundled::once();
    const Entries good = entriesOf(b.file);
    ASSERT_EQ(good.front().first, "bundle.json");
    const json document = json::parse(good.front().second);
    const fs::path home = b.walk.folder / "hostile", file = b.walk.folder / "hostile.zip";
    const auto library = emptyLibrary(home);
    const auto refused = [&](const std::string& what, const Entries& entries, bool link = false) {
        writeZip(file, entries, link);
        const auto before = treeOf(b.walk.folder / "");
        const auto report = importBundle(*library, file, test::today());
        ASSERT_FALSE(report) << what;
        EXPECT_EQ(report.error().code, ErrorCode::BadInput) << what << said(report.error().text);
        EXPECT_EQ(treeOf(b.walk.folder / ""), before) << what;
        EXPECT_EQ(library->athletes()->size(), 0U) << what;
    };
    const auto with = [&](const std::function<void(json&, Entries&)>& change) {
        json d = document;
        Entries entries = good;
        change(d, entries);
        entries.front().second = d.dump();
        return entries;
    };
    for (const char* name : {"../x.wav", "/tmp/x.wav", "takes/../../x.wav", "takes/.hidden", "takes/a/b",
                             "takes/", "x.wav", "takes/a\\\\b", "takes/\xc3\xa9"})
        refused(name, with([&](json& d, Entries& e) {
                    d["files"][0]["path"] = name;
                    e[1].first = name;
                }));
    refused("a file that is not listed",
            with([](json&, Entries& e) { e.emplace_back("takes/more.wav", "x"); }));
    refused("a file listed twice", with([](json& d, Entries&) { d["files"].push_back(d["files"][0]); }));
    refused("a wrong hash", with([](json& d, Entries&) {
                for (json& f : d["files"])
                    if (!f["path"].get<std::string>().starts_with("media/"))
                        f["sha256"] = std::string(64, 'a');
                d["files"][0]["sha256"] = std::string(64, 'a');
            }));
    refused("more bytes than it says", with([](json& d, Entries&) { d["files"][0]["bytes"] = 10; }));
    refused("fewer bytes than it says", with([](json& d, Entries&) { d["files"][0]["bytes"] = 1 << 30; }));
    refused("a size that no film has",
            with([](json& d, Entries&) { d["files"][0]["bytes"] = std::uint64_t{1} << 60; }));
    refused("a link", good, true);
    refused("a review of somebody else",
            with([](json& d, Entries&) { d["reviews"][0]["document"]["athlete"] = "ath-x"; }));
    refused("a submission of somebody else",
            with([](json& d, Entries&) { d["submissions"][0]["document"]["athlete"] = "ath-x"; }));
    refused("a film that is not in it", with([](json& d, Entries& e) {
                d["files"].erase(0);
                e.erase(e.begin() + 1);
            }));
    refused("another format", with([](json& d, Entries&) { d["format"] = "juxtagraph-bundle-9"; }));
    refused("no document", Entries(good.begin() + 1, good.end()));
    refused("an athlete of 900 years", with([](json& d, Entries&) { d["athlete"]["born"] = "1126-01-01"; }));
    // What it was made from is well, so that the refusals are for what was changed.
    writeZip(file, good);
    EXPECT_TRUE(importBundle(*library, file, test::today()));
}

TEST(Bundle, MutatedBytesNeverCrashAndNeverLeaveTheLibrary) {
    const int count = std::getenv("JUXTAGRAPH_LONG") ? 5000 : 80;
    Bundled& b = Bundled::once();
    const std::string whole = *readFile(b.file);
    const Entries good = entriesOf(b.file);
    std::mt19937 dice(3);
    const fs::path file = b.walk.folder / "mutant.zip", home = b.walk.folder / "mutants";
    auto library = emptyLibrary(home);
    int refused = 0;
    for (int i = 0; i < count; ++i) {
        if (i % 2 == 0) { // the zip's own bytes
            std::string bytes = whole;
            for (int k = 0; k < 1 + static_cast<int>(dice() % 8); ++k)
                bytes[dice() % bytes.size()] = static_cast<char>(dice());
            if (dice() % 4 == 0) bytes.resize(dice() % bytes.size());
            std::ofstream(file, std::ios::binary) << bytes;
        } else { // the document within a sound zip
            Entries entries = good;
            std::string& text = entries.front().second;
            for (int k = 0; k < 1 + static_cast<int>(dice() % 4); ++k)
                text[dice() % text.size()] = static_cast<char>(32 + dice() % 95);
            writeZip(file, entries);
        }
        const auto report = importBundle(*library, file, test::today());
        if (report) {
            library.reset(); // taken in: what was changed was harmless text. Begin anew.
            fs::remove_all(home);
            library = emptyLibrary(home);
        } else {
            ++refused;
            EXPECT_EQ(library->athletes()->size(), 0U);
        }
        for (const auto& e : fs::directory_iterator(home)) {
            const std::string name = e.path().filename().string();
            EXPECT_TRUE(name == "media" || name == "takes" || name == "sent" || name == "work" ||
                        name.starts_with("library.sqlite"))
                << name;
            if (name == "work") {
                EXPECT_TRUE(fs::is_empty(e.path()));
            }
        }
    }
    EXPECT_GT(refused, count / 3);
}

/// Every file of a library with its content, and every row as it is.
std::map<std::string, std::string> contentsOf(Library& library) {
    std::map<std::string, std::string> all;
    for (const auto& e : fs::recursive_directory_iterator(library.folder()))
        if (e.is_regular_file() && !e.path().filename().string().starts_with("library.sqlite"))
            all[fs::relative(e.path(), library.folder()).string()] = *contentHash(e.path());
    SQLite::Database db((library.folder() / "library.sqlite").string(), SQLite::OPEN_READONLY);
    SQLite::Statement sums(db, "SELECT name || ' ' || id, sum FROM sums WHERE name <> 'playbooks'");
    while (sums.executeStep()) all[sums.getColumn(0).getString()] = sums.getColumn(1).getString();
    return all;
}

/// What was there and is gone or another now; empty when nothing is.
std::string lostIn(const std::map<std::string, std::string>& now,
                   const std::map<std::string, std::string>& was) {
    std::string lost;
    for (const auto& [what, content] : was) {
        const auto it = now.find(what);
        if (it == now.end() || it->second != content)
            lost += what + (it == now.end() ? " is gone\n" : " is another\n");
    }
    return lost;
}

/// Every string of a document that is an id, where it stands.
void idsIn(json& d, std::vector<json*>& all) {
    if (d.is_structured()) {
        for (json& part : d) idsIn(part, all);
    } else if (d.is_string()) {
        const std::string text = d.get<std::string>();
        for (const char* prefix : {"ath-", "sub-", "rev-", "clip-", "stop-"})
            if (text.starts_with(prefix) && text.size() < 90) all.push_back(&d);
    }
}

// Ids of this library's own children put into a stranger's bundle, paths in the place of ids, things that
// name each other in a circle: 0 bytes of anybody else's changed or deleted. (A review called
// "x/../../../precious" once made the next sending delete that folder; a clip with the id of another child's
// made the next start delete that child's film.)
TEST(Bundle, NoIdOfAStrangersTouchesWhatIsHere) {
    Bundled& b = Bundled::once();
    const int rounds = std::getenv("JUXTAGRAPH_LONG") ? 5000 : 40;
    Walk mine{Stage::Send, Hand::Left, 16}; // another child, with film, takes and review
    mine.athlete = *mine.library->athlete(mine.athlete.id);
    const std::vector<std::string> own = {mine.athlete.id.value, mine.submission.id.value,
                                          mine.submission.clips[0].id.value, mine.review.id.value,
                                          mine.review.stops.front().id.value};
    const std::vector<std::string> paths = {"x/../../../precious", "..",  "/etc/passwd", "", ".", "a\\b",
                                            std::string(300, 'x'), "a b", "rev-\n"};
    const fs::path precious = mine.folder / "precious";
    fs::create_directories(precious);
    std::ofstream(precious / "letter.txt") << "precious";
    const Entries good = entriesOf(b.file);
    const json document = json::parse(good.front().second);
    const auto before = contentsOf(*mine.library);
    std::mt19937 dice(33);
    int taken = 0;
    for (int i = 0; i < rounds; ++i) {
        json d = document;
        std::vector<json*> ids;
        idsIn(d, ids);
        ASSERT_GT(ids.size(), 10U);
        const std::string text = [&] {
            const int kind = static_cast<int>(dice() % 5);
            if (kind == 0) return paths[dice() % paths.size()];
            if (kind == 1)
                return ids[dice() % ids.size()]->get<std::string>(); // another of its own: circles, doubles
            return own[dice() % own.size()];
        }();
        const std::string from = ids[dice() % ids.size()]->get<std::string>();
        const bool everywhere = dice() % 2 == 0; // so that the bundle holds together by itself
        json* const one = ids[dice() % ids.size()];
        for (json* id : ids)
            if (everywhere ? *id == from : id == one) *id = text;
        Entries entries = good;
        entries.front().second = d.dump();
        const fs::path file = mine.folder / "stranger.zip";
        writeZip(file, entries);
        const auto report = importBundle(*mine.library, file, test::today());
        const auto now = contentsOf(*mine.library);
        ASSERT_EQ(lostIn(now, before), "") << i << " " << from << " -> " << text;
        EXPECT_FALSE(mine.library->submission(mine.submission.id)->clips.empty());
        // One that says to be this child is put beside what is here; who deletes it then, deletes the child.
        if (report && report->athlete != mine.athlete.id) {
            ++taken;
            const Status gone = [&]() -> Status {
                const auto left = mine.library->forgetAthlete(report->athlete, test::today());
                return left ? Status(Done{}) : Status(left.error());
            }();
            ASSERT_TRUE(gone) << said(gone.error().text);
            ASSERT_EQ(lostIn(contentsOf(*mine.library), before), "")
                << i << " deleted with a stranger: " << text;
        }
    }
    mine.library->sweep();
    EXPECT_EQ(lostIn(contentsOf(*mine.library), before), "");
    EXPECT_EQ(*readFile(precious / "letter.txt"), "precious");
    EXPECT_TRUE(mine.library->examine()->empty());
    RecordProperty("takenIn", taken);
}

TEST(Bundle, AStrangersReviewNeverAnswersAFilmThatWaits) {
    Bundled& b = Bundled::once();
    const auto library = emptyLibrary(b.walk.folder / "waits");
    ASSERT_TRUE(importBundle(*library, b.file, test::today()));
    ASSERT_EQ(library->waiting()->size(), 1U);
    // The same film with a review that was sent elsewhere.
    Entries entries = entriesOf(b.file);
    json d = json::parse(entries.front().second);
    json& review = d["reviews"][0]["document"];
    review["id"] = "rev-elsewhere";
    review["stage"] = "sent";
    review["sent"] = {{"on", "2026-11-20"}, {"to", "somebody@example.org"}};
    entries.front().second = d.dump();
    const fs::path file = b.walk.folder / "sent-elsewhere.zip";
    writeZip(file, entries);
    const auto report = importBundle(*library, file, test::today());
    ASSERT_TRUE(report) << said(report.error().text);
    EXPECT_TRUE(library->review({"rev-elsewhere"}));
    EXPECT_EQ(library->waiting()->size(), 1U);
    Review mine = *library->review(b.walk.review.id); // nor does it after an edit here
    mine.plan.opening = "Mine.";
    ASSERT_TRUE(library->save(mine));
    EXPECT_EQ(library->waiting()->size(), 1U);
}

TEST(Bundle, WhatIsAllowedHereIsAskedHere) {
    Bundled& b = Bundled::once();
    const auto library = emptyLibrary(b.walk.folder / "refused");
    ASSERT_TRUE(importBundle(*library, b.file, test::today()));
    ASSERT_TRUE(library->change(b.walk.athlete.id, [](Athlete& a) -> Status {
        a.consent = Consent{true, true, false, "Ruth", true, test::today(), {}, test::today()}; // taken back
        return Done{};
    }));
    const auto report = importBundle(*library, b.file, test::today());
    ASSERT_FALSE(report);
    EXPECT_EQ(report.error().code, ErrorCode::Refused);
    EXPECT_TRUE(library->athlete(b.walk.athlete.id)->consent->takenBack);
}

TEST(Bundle, BracketsRatesAndAbsurdNumbersAreRefusedWithASentence) {
    Bundled& b = Bundled::once();
    const auto library = emptyLibrary(b.walk.folder / "absurd");
    const Entries good = entriesOf(b.file);
    const fs::path file = b.walk.folder / "absurd.zip";
    const auto refused = [&](const std::string& what, const std::string& text) {
        Entries entries = good;
        entries.front().second = text;
        writeZip(file, entries);
        const auto report = importBundle(*library, file, test::today());
        ASSERT_FALSE(report) << what;
        EXPECT_EQ(report.error().code, ErrorCode::BadInput) << what;
        EXPECT_GT(said(report.error().text).size(), 20U);
    };
    refused("brackets", std::string(100000, '['));
    json d = json::parse(good.front().second);
    d["athlete"]["consent"] = json::parse(std::string(60, '[') + std::string(60, ']'));
    refused("brackets within", d.dump());
    for (const auto& [pointer, value] :
         std::vector<std::pair<std::string, json>>{{"/reviews/0/document/takes", json()},
                                                   {"/submissions/0/document/clips/0/frames", -5},
                                                   {"/submissions/0/document/clips/0/frames", 1e15},
                                                   {"/submissions/0/document/clips/0/captureFps", 1e12},
                                                   {"/submissions/0/document/clips/0/width", 1e9},
                                                   {"/reviews/0/document/lead", 1e300}}) {
        json absurd = json::parse(good.front().second);
        json& at = absurd[json::json_pointer(pointer)];
        if (pointer.ends_with("takes"))
            for (json& take : at) take["sampleRate"] = 0; // a division by it once ended the program
        else
            at = value;
        refused(pointer, absurd.dump());
    }
}

TEST(Bundle, ACancelInTheMiddleLeavesNothing) {
    Bundled& b = Bundled::once();
    const fs::path home = b.walk.folder / "cancelled";
    const auto library = emptyLibrary(home);
    std::stop_source stop;
    const auto report =
        importBundle(*library, b.file, test::today(), stop.get_token(), [&](double) { stop.request_stop(); });
    ASSERT_FALSE(report);
    EXPECT_EQ(report.error().code, ErrorCode::Cancelled);
    EXPECT_EQ(library->athletes()->size(), 0U);
    EXPECT_TRUE(fs::is_empty(home / "media"));
    EXPECT_TRUE(fs::is_empty(home / "work"));
    const fs::path out = b.walk.folder / "never.zip";
    EXPECT_FALSE(exportBundle(*b.walk.library, {b.walk.athlete.id}, out, stop.get_token()));
    EXPECT_FALSE(fs::exists(out));
}

} // namespace
} // namespace jg
