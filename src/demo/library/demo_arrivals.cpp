// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/library/demo_arrivals.h"

#include <algorithm>
#include <cctype>

namespace jg {

namespace {

Date bornFor(int age, Date today) {
    return Date{today.year() - std::chrono::years{age}, std::chrono::month{3}, std::chrono::day{9}};
}

Athlete person(IdSource& ids, const char* first, const char* last, int age, Hand hand, const char* level,
               double heightM, Date today) {
    Athlete a{ids.next<AthleteTag>("ath"), first, last, bornFor(age, today), hand, level, "", "", ""};
    if (a.ageOn(today) < age) a.born = bornFor(age + 1, today);
    std::string mail = a.firstName;
    for (char& c : mail) c = static_cast<char>(std::tolower(c));
    a.email = mail + "@example.org";
    if (age < 18) {
        a.guardianName = std::string("Parent of ") + first;
        a.guardianEmail = mail + ".home@example.org";
    }
    a.heightM = heightM;
    a.heights = {{addDays(today, -200), heightM}};
    a.consent = Consent{
        true, true, false, age < 18 ? a.guardianName : a.fullName(), age < 18, addDays(today, -200), {}, {}};
    return a;
}

Outfit outfitOf(int n) {
    Outfit o;
    if (n == 1)
        o.jersey = {0.36f, 0.50f, 0.62f, 0}, o.cap = {0.16f, 0.25f, 0.36f, 0.05f},
        o.skin = {0.62f, 0.42f, 0.31f, 0.08f};
    if (n == 2) o.jersey = {0.80f, 0.74f, 0.60f, 0}, o.cap = {0.20f, 0.34f, 0.26f, 0.05f};
    if (n == 3)
        o.jersey = {0.62f, 0.36f, 0.34f, 0}, o.cap = {0.30f, 0.12f, 0.12f, 0.05f},
        o.skin = {0.80f, 0.60f, 0.48f, 0.08f};
    if (n == 4)
        o.jersey = {0.52f, 0.60f, 0.50f, 0}, o.cap = {0.20f, 0.22f, 0.20f, 0.05f},
        o.skin = {0.40f, 0.26f, 0.18f, 0.10f};
    return o;
}

FilmOrder order(double heightM, int fps, View view, Hand hand, int outfit, std::uint64_t seed) {
    FilmOrder o;
    o.knobs.heightM = heightM;
    o.fps = fps;
    o.camera.view = view;
    o.camera.fieldM = 1.2 + 1.65 * heightM;
    o.hand = hand;
    o.outfit = outfitOf(outfit);
    o.seed = seed;
    return o;
}

/// Leaves a third of a second of stillness before the delivery and a fifth behind it: every picture is
/// painted, and somebody waits for it.
void trim(FilmOrder& order) {
    const Delivery delivery(order.knobs);
    order.startAtS = delivery.events().at(Moment::Set) - 0.33;
    order.cutAfterS = std::min(order.cutAfterS, delivery.events().at(Moment::Finish) + 0.2);
}

} // namespace

std::vector<DemoArrival> demoArrivals(std::uint64_t seed, Date today, const std::string& ownMeasure,
                                      IdSource& ids, std::vector<Athlete>& people) {
    const Athlete wren = person(ids, "Wren", "Castellane", 13, Hand::Right, "club", 1.58, today);
    const Athlete odalys = person(ids, "Odalys", "Brandt", 11, Hand::Left, "first season", 1.44, today);
    const Athlete ludo = person(ids, "Ludo", "Merrick", 15, Hand::Right, "school team", 1.74, today);
    const Athlete pia = person(ids, "Pia", "Thorsgaard", 17, Hand::Right, "school team", 1.72, today);
    Athlete emeka = person(ids, "Emeka", "Vail", 20, Hand::Left, "college", 1.86, today);
    emeka.comingBack = ComingBack{"shoulder, in the spring", addDays(today, -12)};
    people = {wren, odalys, ludo, pia, emeka};

    FilmOrder wrenFilm = order(1.58, 240, View::Open, Hand::Right, 1, seed + 1);
    wrenFilm.knobs.elbowHeight = 9, wrenFilm.knobs.backKneeLoad = 116, wrenFilm.knobs.legSpread = 94,
    wrenFilm.knobs.handEarlyS = 0.055;
    FilmOrder odalysOpen = order(1.44, 60, View::Open, Hand::Left, 2, seed + 2);
    odalysOpen.knobs.legSpread = 90, odalysOpen.knobs.frontKneeRelease = 128, odalysOpen.knobs.mound = false,
    odalysOpen.knobs.stretch = false;
    odalysOpen.knobs.trunkForward = 30, odalysOpen.shakePx = 2.5;
    FilmOrder odalysFront = odalysOpen;
    odalysOpen.deliveries = 2;
    odalysFront.camera.view = View::Front;
    FilmOrder ludoNow = order(1.74, 120, View::Open, Hand::Right, 0, seed + 3);
    ludoNow.knobs.legSpread = 101, ludoNow.knobs.backKneeLoad = 104, ludoNow.knobs.frontKneePlant = 138,
    ludoNow.knobs.frontKneeRelease = 139;
    ludoNow.knobs.trunkForward = 41, ludoNow.knobs.elbowHeight = 7;
    FilmOrder ludoOctober = order(1.74, 60, View::Open, Hand::Right, 0, seed + 4);
    ludoOctober.knobs.legSpread = 88, ludoOctober.knobs.backKneeLoad = 118,
    ludoOctober.knobs.frontKneePlant = 136, ludoOctober.knobs.frontKneeRelease = 131;
    ludoOctober.knobs.trunkForward = 36, ludoOctober.knobs.elbowHeight = 10;
    FilmOrder ludoSeptember = ludoOctober;
    ludoSeptember.seed = seed + 5, ludoSeptember.knobs.legSpread = 85, ludoSeptember.knobs.backKneeLoad = 122,
    ludoSeptember.knobs.trunkForward = 33;
    FilmOrder piaFilm = order(1.72, 120, View::Closed, Hand::Right, 3, seed + 6);
    piaFilm.brightness = 0.16, piaFilm.noise = 0.02, piaFilm.cutAfterS = 0.10, piaFilm.damagedBytes = 40;
    FilmOrder emekaFilm = order(1.86, 60, View::Open, Hand::Left, 4, seed + 7);
    emekaFilm.knobs.frontKneeRelease = 128, emekaFilm.knobs.frontKneePlant = 138,
    emekaFilm.knobs.trunkForward = 37, emekaFilm.knobs.legSpread = 96;
    FilmOrder emekaSecond = emekaFilm, emekaThird = emekaFilm; // he tires: the front leg gives way
    emekaSecond.seed = seed + 8, emekaSecond.knobs.frontKneeRelease = 131, emekaSecond.knobs.legSpread = 94;
    emekaThird.seed = seed + 9, emekaThird.knobs.frontKneeRelease = 117, emekaThird.knobs.legSpread = 91,
    emekaThird.knobs.trunkForward = 33;

    const auto wish = [&](Stage until, std::size_t open, std::uint64_t n) {
        return DemoReviewWish{.until = until, .measuresOpen = open, .seed = seed + n, .followed = true};
    };
    DemoReviewWish emekas = wish(Stage::Send, 0, 12);
    emekas.extras = {"arm-match", ownMeasure}; // his front arm points half at the camera at release
    std::vector<DemoArrival> all = {
        {wren,
         {wrenFilm},
         "Is it the arm path?",
         "Elbow sore since Sunday.",
         Start::WindUp,
         Surface::Mound,
         addDays(today, -1),
         addDays(today, -3),
         std::nullopt},
        {odalys,
         {odalysOpen, odalysFront},
         "Why does she miss high?",
         "",
         Start::WindUp,
         Surface::FlatGround,
         today,
         addDays(today, -2),
         std::nullopt},
        {ludo,
         {ludoNow},
         "Follow-up: leg spread and elbow",
         "",
         Start::Stretch,
         Surface::Mound,
         addDays(today, 2),
         addDays(today, -1),
         wish(Stage::Judge, 6, 11)},
        {pia,
         {piaFilm},
         "Season's look",
         "",
         Start::Stretch,
         Surface::Mound,
         std::nullopt,
         addDays(today, -4),
         std::nullopt},
        {emeka,
         {emekaFilm, emekaSecond, emekaThird},
         "First bullpen after the break: what changed?",
         "",
         Start::Stretch,
         Surface::Mound,
         addDays(today, 1),
         addDays(today, -1),
         emekas},
        {ludo,
         {ludoOctober},
         "Does the leg spread grow?",
         "",
         Start::Stretch,
         Surface::Mound,
         std::nullopt,
         addDays(today, -31),
         wish(Stage::Sent, 0, 13)},
        {ludo,
         {ludoSeptember},
         "First look",
         "",
         Start::Stretch,
         Surface::Mound,
         std::nullopt,
         addDays(today, -61),
         wish(Stage::Sent, 0, 14)},
    };
    for (DemoArrival& arrival : all)
        for (FilmOrder& film : arrival.films) trim(film);
    return all;
}

} // namespace jg
