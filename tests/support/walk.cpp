#include "tests/support/walk.h"

#include "desk/places.h"
#include "letter/fonts.h"

#include <QCoreApplication>
#include <QElapsedTimer>

namespace jg::test {

Walk::Walk(Stage until, Hand hand, int age, const std::string& pain, const Playbook& with)
    : book(with) {
    EXPECT_TRUE(loadFonts(dataFolder() / "fonts"));
    library = std::move(*Library::open(folder / "lib", true, std::make_shared<FileStore>()));
    EXPECT_TRUE(library->setSetting("house.place", "The Tram Shed, Larkmoor"));
    EXPECT_TRUE(library->setSetting("house.coach", "Ilse Varnholt"));
    EXPECT_TRUE(library->setSetting("mail.from", "ilse@example.org"));
    athlete.id = ids.next<AthleteTag>("ath");
    athlete.firstName = "Odalys";
    athlete.lastName = "Brandt";
    athlete.born = Date{std::chrono::year{2026 - age}, std::chrono::month{3}, std::chrono::day{9}};
    athlete.hand = hand;
    athlete.email = "odalys@example.org";
    athlete.guardianName = "Parent of Odalys";
    athlete.guardianEmail = "odalys.home@example.org";
    athlete.consent =
        Consent{true, true, false, athlete.guardianName, age < 18, addDays(today(), -200), {}, {}};
    EXPECT_TRUE(test::put(*library, athlete));
    order = smallOrder(60, hand);
    order.knobs.legSpread = 88;
    order.knobs.backKneeLoad = 124;
    order.knobs.trunkForward = 32;
    const auto film = folder / "film.mp4";
    EXPECT_TRUE(makeFilm(order, film));
    auto looked = lookAtFilm(film);
    EXPECT_TRUE(looked);
    IntakeForm form{
        athlete.id, {},     {{film, View::Open, 60}}, Start::Stretch, Surface::Mound, "Why short?",
        pain,       today()};
    submission = *takeIn(*library, form, {*looked}, clock, ids);
    if (until == Stage::Look) return;
    review = *makeDemoReview(*library, book, athlete, submission, {order}, {until, 0.4, 0, 3}, today(), ids);
    EXPECT_TRUE(library->save(review));
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
