// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/walk.h"

#include "desk/keeping/places.h"
#include "letter/fonts.h"

#include <QCoreApplication>
#include <QElapsedTimer>

#include <algorithm>
#include <stdlib.h>

namespace jg::test {

namespace {

namespace fs = std::filesystem;

/// What a walk is made of.
struct WalkOrder {
    Stage until;
    Hand hand;
    int age;
    std::string pain;
};

FilmOrder filmOf(Hand hand) {
    FilmOrder order = smallOrder(60, hand);
    order.knobs.legSpread = 88;
    order.knobs.backKneeLoad = 124;
    order.knobs.trunkForward = 32;
    return order;
}

Athlete odalys(const WalkOrder& o, IdSource& ids) {
    Athlete a;
    a.id = ids.next<AthleteTag>("ath");
    a.firstName = "Odalys";
    a.lastName = "Brandt";
    a.born = Date{std::chrono::year{2026 - o.age}, std::chrono::month{3}, std::chrono::day{9}};
    a.hand = o.hand;
    a.email = "odalys@example.org";
    a.guardianName = "Parent of Odalys";
    a.guardianEmail = "odalys.home@example.org";
    a.consent = Consent{true, true, false, a.guardianName, o.age < 18, addDays(today(), -200), {}, {}};
    return a;
}

std::unique_ptr<Library> openIn(const fs::path& folder) {
    return std::move(*Library::open(folder / "lib", true, std::make_shared<FileStore>()));
}

/// Films, takes in and reviews: library and film into the folder, all closed at the end.
void makeWalk(const WalkOrder& o, const Playbook& book, const fs::path& folder) {
    // Another age or hand is another child.
    IdSource ids{42 + static_cast<std::uint64_t>(o.age) * 2 + (o.hand == Hand::Left ? 1 : 0)};
    const FixedClock clock{today()};
    const auto library = openIn(folder);
    EXPECT_TRUE(library->setSetting("house.place", "The Tram Shed, Larkmoor"));
    EXPECT_TRUE(library->setSetting("house.coach", "Ilse Varnholt"));
    EXPECT_TRUE(library->setSetting("mail.from", "ilse@example.org"));
    const Athlete athlete = odalys(o, ids);
    EXPECT_TRUE(test::put(*library, athlete));
    const FilmOrder order = filmOf(o.hand);
    const fs::path film = folder / "film.mp4";
    EXPECT_TRUE(makeFilm(order, film));
    auto looked = lookAtFilm(film);
    EXPECT_TRUE(looked);
    const IntakeForm form{
        athlete.id, {},     {{film, View::Open, 60}}, Start::Stretch, Surface::Mound, "Why short?",
        o.pain,     today()};
    const Submission submission = *takeIn(*library, form, {*looked}, clock, ids);
    if (o.until == Stage::Look) return;
    const Review review =
        *makeDemoReview(*library, book, athlete, submission, {order}, {o.until, 0.4, 0, 3}, today(), ids);
    EXPECT_TRUE(library->save(review));
}

/// Changes with the program and with what it is shipped with: a walk made by an older one is made again.
std::string stampOfProgram() {
    fs::file_time_type newest = fs::last_write_time(fs::canonical("/proc/self/exe"));
    for (const auto& entry :
         fs::recursive_directory_iterator(dataFolder(), fs::directory_options::follow_directory_symlink))
        newest = std::max(newest, entry.last_write_time());
    return std::to_string(newest.time_since_epoch().count());
}

/// The folder of walks that this program made, beside it; those of an older build go.
fs::path walksOfThisBuild() {
    static const fs::path folder = [] {
        const fs::path all = binFolder().parent_path() / "walks" / fs::canonical("/proc/self/exe").filename();
        const fs::path mine = all / stampOfProgram();
        std::error_code ec;
        for (const auto& entry : fs::directory_iterator(all, ec))
            if (entry.path() != mine) fs::remove_all(entry.path(), ec);
        fs::create_directories(mine);
        return mine;
    }();
    return folder;
}

/// The same walk is made once for all tests of a program, which run in processes of their own, and copied.
fs::path madeOnce(const WalkOrder& o, const Playbook& book) {
    const std::string key = std::to_string(static_cast<int>(o.until)) + std::string(idOf(o.hand)) +
                            std::to_string(o.age) + "-" + std::to_string(std::hash<std::string>()(o.pain));
    const fs::path made = walksOfThisBuild() / key;
    if (fs::exists(made)) return made;
    std::string making = (walksOfThisBuild() / "making-XXXXXX").string();
    if (!::mkdtemp(making.data())) throw std::runtime_error("no folder could be made for a walk: " + making);
    makeWalk(o, book, making);
    std::error_code another; // process was quicker: its walk is the same
    fs::rename(making, made, another);
    if (another) fs::remove_all(making, another);
    return made;
}

} // namespace

Walk::Walk(Stage until, Hand hand, int age, const std::string& pain, const Playbook& with)
    : book(with)
    , order(filmOf(hand)) {
    EXPECT_TRUE(loadFonts(dataFolder() / "fonts"));
    const WalkOrder wish{until, hand, age, pain};
    if (&with == &playbook())
        fs::copy(madeOnce(wish, with), folder.path(), fs::copy_options::recursive);
    else
        makeWalk(wish, with, folder.path());
    library = openIn(folder.path());
    athlete = library->athletes()->front();
    submission = library->submissions()->front();
    if (until == Stage::Look) return;
    review = *library->review(library->reviews()->front().id);
    review.revision = 0; // as one that was just made
}

std::unique_ptr<ReviewSession> Walk::session() {
    auto opened = ReviewSession::open(*library, book, clock, ids, submission.id);
    EXPECT_TRUE(opened) << said(opened.error().text);
    return std::move(*opened);
}

Submission onceMore(const Submission& submission, const std::string& name, Review* review) {
    Submission s = submission;
    s.id = {"sub-" + name};
    for (Clip& c : s.clips) c.id.value += "-" + name;
    if (!review) return s;
    review->submission = s.id;
    for (DeliveryMarks& d : review->deliveries)
        if (!d.clip.empty()) d.clip.value += "-" + name;
    return s;
}

Review keepEarlier(Walk& walk, const std::string& name, int days,
                   const std::function<void(Review&)>& change) {
    Review earlier = walk.review;
    earlier.id = {"rev-" + name};
    earlier.revision = 0;
    earlier.date = addDays(earlier.date, -days);
    Submission old = onceMore(walk.submission, name, &earlier);
    old.received = earlier.date;
    if (change) change(earlier);
    EXPECT_TRUE(test::put(*walk.library, old));
    const Assessment told = assess(earlier, walk.book, old.clips, walk.athlete.hand);
    EXPECT_TRUE(walk.library->save(earlier, &told));
    return earlier;
}

void leaveUnsaid(Walk& walk) {
    walk.review = *walk.library->review(walk.review.id);
    walk.review.stops.clear();
    walk.review.takes.clear();
    const auto saved = walk.library->save(walk.review);
    ASSERT_TRUE(saved);
    walk.review.revision = *saved;
}

bool turnUntil(const std::function<bool()>& done, int ms) {
    QElapsedTimer clock;
    clock.start();
    while (!done() && clock.elapsed() < ms) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
    return done();
}

} // namespace jg::test
