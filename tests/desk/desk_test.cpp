// SPDX-License-Identifier: GPL-3.0-or-later
// The use cases: sessions, recording, intake, the desk's list, the demo library's parts.
#include "desk/intake/scrub_maker.h"
#include "desk/jobs/film_thread.h"
#include "desk/jobs/job.h"
#include "desk/keeping/places.h"
#include "desk/pages/desk_list.h"
#include "desk/sending/dispatch.h"
#include "desk/session/recorder.h"
#include "desk/session/suggest.h"
#include "film/scrub_copy.h"
#include "review/tell/stops.h"
#include "tests/support/harm.h"
#include "tests/support/walk.h"

#include <QCoreApplication>
#include <fstream>

namespace jg {
namespace {

using test::turnUntil;
using test::Walk;

TEST(Session, EveryEditIsInTheLibraryBeforeItIsTold) {
    Walk walk(Stage::Look);
    const auto session = walk.session();
    int told = 0;
    QObject::connect(session.get(), &ReviewSession::changed, [&] {
        ++told;
        EXPECT_EQ(walk.library->review(session->review().id)->first().moments.size(),
                  session->delivery().moments.size());
    });
    ASSERT_TRUE(session->setMoment(Moment::Plant, 80));
    ASSERT_TRUE(session->setMoment(Moment::Release, 90));
    EXPECT_FALSE(session->setMoment(Moment::Set, 85));
    EXPECT_EQ(told, 2);
    EXPECT_TRUE(session->undo());
    EXPECT_EQ(walk.library->review(session->review().id)->first().moments.size(), 1U);
    EXPECT_TRUE(session->redo());
    EXPECT_FALSE(session->redo());
}

TEST(Session, ASentReviewStaysAsItWasSent) {
    Walk walk(Stage::Sent);
    const auto session = walk.session();
    const Status edited = session->grade("load-shared", std::nullopt, std::nullopt);
    ASSERT_FALSE(edited);
    EXPECT_NE(said(edited.error().text).find("was sent"), std::string::npos);
    EXPECT_FALSE(session->undo());
}

TEST(Session, SendingLeavesAPromiseForTheNextLook) {
    Walk walk;
    const auto session = walk.session();
    const OutboxItem item{"mail-1",
                          session->review().id,
                          "odalys.home@example.org",
                          "Hello",
                          "mail-1.eml",
                          MailState::Ready,
                          {},
                          0};
    ASSERT_TRUE(walk.library->add(item));
    const FilmRecipe film = previewRecipe(*session).film;
    ASSERT_TRUE(
        settleMail(*walk.library, item, film, fail(ErrorCode::Network, asIs("Nobody answers.")), walk.clock));
    ASSERT_TRUE(session->reload());
    EXPECT_FALSE(session->review().sent);
    EXPECT_TRUE(walk.library->promises()->empty());
    for (int again = 0; again < 2; ++again)
        ASSERT_TRUE(settleMail(*walk.library, item, film, Done{}, walk.clock));
    ASSERT_TRUE(session->reload());
    EXPECT_EQ(session->review().sent->to, "odalys.home@example.org");
    const auto promises = walk.library->promises();
    ASSERT_EQ(promises->size(), 3U); // not six: it was recorded once
    EXPECT_EQ(promises->at(0).due, session->review().plan.nextLook);
}

TEST(Session, ALetterFollowsALanguageThatWasChangedAfterThePlan) {
    Walk walk;
    const auto session = walk.session();
    Plan plan = session->review().plan;
    plan.opening.clear();
    plan.ask.clear();
    ASSERT_TRUE(session->perform(asIs("empty"), {SetPlan{plan}}));
    plan = proposePlan({session->playbook(), session->review(), session->told(), session->athlete(),
                        session->submission(), session->clip(), walk.clock.today(), false},
                       plan.corrections);
    ASSERT_TRUE(session->perform(asIs("propose"), {SetPlan{plan}}));
    ASSERT_NE(plan.ask.find("Film three"), std::string::npos) << plan.ask;
    ASSERT_TRUE(walk.library->change(walk.athlete.id, [](Athlete& a) -> Status {
        a.language = Language::Spanish;
        return Done{};
    }));
    ASSERT_TRUE(session->peopleChanged());
    const Words& spanish = wordsOf("es");
    EXPECT_NE(spanish(session->letter().nextLook).find("Graba tres"), std::string::npos)
        << spanish(session->letter().nextLook);
    EXPECT_NE(session->letter().opening, plan.opening);
    plan.ask = "Film two from the fence."; // the coach's own words stay as they are
    ASSERT_TRUE(session->perform(asIs("own"), {SetPlan{plan}}));
    EXPECT_NE(spanish(session->letter().nextLook).find("Film two from the fence."), std::string::npos);
}

TEST(Session, TheHeightOnTheAthletesPageIsAScaleFromTheStart) {
    Walk walk(Stage::Look);
    ASSERT_TRUE(walk.library->change(walk.athlete.id, [](Athlete& a) -> Status {
        a.heightM = 1.71;
        a.heights = {{test::today(), 1.71}};
        return Done{};
    }));
    const Submission again = test::onceMore(walk.submission, "again");
    ASSERT_TRUE(test::put(*walk.library, again));
    auto session = ReviewSession::open(*walk.library, walk.book, walk.clock, walk.ids, again.id);
    ASSERT_TRUE(session);
    const auto& scales = (*session)->delivery().scales;
    ASSERT_TRUE(scales.contains(ScaleKind::Height));
    EXPECT_EQ(scales.at(ScaleKind::Height).metres, 1.71);
    ASSERT_TRUE((*session)->lookAt((*session)->clip().id, FrameSpan{2, 9}));
    EXPECT_TRUE((*session)->delivery().scales.contains(ScaleKind::Height));
}

TEST(Session, AnotherDeliveryIsTakenInHandAndWhatWasMarkedStays) {
    Walk walk;
    const auto session = walk.session();
    const std::size_t points = session->delivery().points.size();
    ASSERT_GT(points, 0U);
    EXPECT_EQ(session->lookAt({"none"}, std::nullopt).error().code, ErrorCode::NotFound);
    EXPECT_TRUE(session->lookAt(session->clip().id, std::nullopt)); // it is in hand
    EXPECT_EQ(session->delivery().number, 1);
    const FrameSpan later{2, 9}; // the positions lie outside it
    ASSERT_TRUE(session->lookAt(session->clip().id, later));
    EXPECT_EQ(session->delivery().number, 2);
    EXPECT_EQ(session->delivery().cut, later);
    EXPECT_TRUE(session->delivery().blank());
    EXPECT_EQ(session->deliveries(), (std::vector{1, 2}));
    ASSERT_TRUE(session->setMoment(Moment::Set, 4));
    session->takeInHand(1);
    EXPECT_EQ(session->delivery().points.size(), points);
    EXPECT_EQ(walk.library->review(session->review().id)->delivery(2)->frameOf(Moment::Set), 4); // kept
    EXPECT_TRUE(session->lookAt(session->clip().id, later)); // the one there is, no third
    EXPECT_EQ(session->delivery().number, 2);
    EXPECT_EQ(session->review().deliveries.size(), 2U);
}

TEST(Session, SaysWhichPartIsAnotherNow) {
    Walk walk;
    const auto session = walk.session();
    std::vector<Parts> told;
    QObject::connect(session.get(), &ReviewSession::changed, [&](Parts parts) { told.push_back(parts); });
    const auto after = [&](Change change) {
        told.clear();
        EXPECT_TRUE(session->perform(asIs(std::string("a step")), {std::move(change)}));
        return told;
    };
    const auto& review = session->review();
    Conditions conditions = session->delivery().conditions;
    conditions.surface = Surface::FlatGround;
    EXPECT_EQ(after(SetConditions{conditions}), std::vector<Parts>{Part::Marks});
    EXPECT_EQ(after(SetExtras{review.extras}), std::vector<Parts>{Part::Judged});
    EXPECT_EQ(after(SetStops{review.stops}), std::vector<Parts>{Part::Talk});
    EXPECT_EQ(after(SetPlan{review.plan}), std::vector<Parts>{Part::Plan});
    told.clear();
    EXPECT_TRUE(session->undo());
    EXPECT_TRUE(session->undo());
    EXPECT_TRUE(session->redo());
    EXPECT_EQ(told, (std::vector<Parts>{Part::Plan, Part::Talk, Part::Talk}));
    told.clear();
    ASSERT_TRUE(walk.library->change(walk.submission.id, [](Submission& s) -> Status {
        s.asked = "Something else?";
        return Done{};
    }));
    EXPECT_TRUE(session->peopleChanged());
    session->playbookChanged();
    EXPECT_EQ(told, (std::vector<Parts>{Part::People, Part::Playbook}));
}

TEST(Session, APartIsToldApartFromEachOther) {
    const Parts both = Part::Marks | Part::Talk;
    EXPECT_TRUE(both.has(Part::Talk));
    EXPECT_TRUE(both.has(Part::Talk | Part::Plan));
    EXPECT_FALSE(both.has(Part::Plan | Part::People));
    EXPECT_FALSE(both == Part::Talk);
    for (const Part one :
         {Part::Film, Part::Marks, Part::Judged, Part::Talk, Part::Plan, Part::People, Part::Playbook})
        EXPECT_TRUE(Parts::all().has(one));
}

TEST(Dispatch, AStopOnAnotherDeliveryBringsItAlong) {
    Walk walk;
    const auto session = walk.session();
    EXPECT_TRUE(previewRecipe(*session).film.others.empty());
    ASSERT_TRUE(session->lookAt(session->clip().id, FrameSpan{2, 9}));
    ASSERT_TRUE(session->setMoment(Moment::Set, 4));
    auto stops = session->review().stops;
    stops.front().delivery = 2;
    stops.front().frame = 4;
    ASSERT_TRUE(session->perform(asIs("stop"), {SetStops{stops}}));
    session->takeInHand(1);
    const FilmRecipe film = previewRecipe(*session).film;
    ASSERT_EQ(film.others.size(), 1U);
    EXPECT_EQ(toldIn(film, 2).marks.frameOf(Moment::Set), 4);
    EXPECT_EQ(toldIn(film, 2).marks.number, 2);
    EXPECT_EQ(toldIn(film, 1).marks.number, 1);
    EXPECT_EQ(toldIn(film, 2).clip, film.clip);
}

TEST(Dispatch, RefusesWhileSomethingIsOpenAndNamesIt) {
    Walk walk(Stage::Judge);
    const auto recipe = dispatchRecipe(*walk.session());
    ASSERT_FALSE(recipe);
    EXPECT_EQ(recipe.error().code, ErrorCode::Refused);
}

TEST(Dispatch, AnotherAthletesFilmNeverLeavesTheHouse) {
    Walk walk;
    Athlete other = walk.athlete;
    other.id = {"ath-other"};
    other.firstName = "Pia";
    ASSERT_TRUE(test::put(*walk.library, other));
    // No door lets it in any more; another program may have written it.
    test::harm(walk.library->folder(),
               "UPDATE submissions SET document = json_set(document, '$.clips[0].athlete', 'ath-other')");
    const auto recipe = dispatchRecipe(*walk.session());
    ASSERT_FALSE(recipe);
    EXPECT_NE(said(recipe.error().text).find("belongs to another athlete"), std::string::npos);
}

TEST(Dispatch, AFailedSendingWaitsInTheOutboxWithItsReason) {
    Walk walk;
    const auto session = walk.session();
    auto recipe = dispatchRecipe(*session);
    ASSERT_TRUE(recipe) << said(recipe.error().text);
    EXPECT_EQ(recipe->toAddress, "odalys.home@example.org");
    recipe->film.review.takes.clear();
    const auto parcel = packParcel(*recipe, walk.folder / "work", walk.library->files());
    ASSERT_TRUE(parcel);
    const auto item =
        putInOutbox(*walk.library, session->review().id, *recipe, *parcel, walk.clock, walk.ids);
    ASSERT_TRUE(item);
    EXPECT_TRUE(std::filesystem::exists(walk.library->sentPath(item->file)));
    const Status sent = sendMail({"smtp://127.0.0.1:1", "", "", false, 2}, "ilse@example.org",
                                 item->recipient, parcel->bytes);
    ASSERT_TRUE(settleMail(*walk.library, *item, recipe->film, sent, walk.clock));
    const auto box = walk.library->outbox();
    EXPECT_EQ(box->at(0).state, MailState::Refused);
    EXPECT_NE(said(box->at(0).reason).find("Nobody answers"), std::string::npos);
}

constexpr std::int64_t kSaidAt = 1'780'000'000;

TEST(Recorder, KeepsSoundAndEventsOnOneClock) {
    Walk walk(Stage::Judge);
    const auto mic = makeStandInMicrophone(demoVoices(), 10);
    Recorder recorder(*walk.library, *mic);
    const Stop stop{{"stop-1"}, StopKind::Correction, "leg-spread", "Leg spread", 80};
    ASSERT_TRUE(recorder.start(walk.review.id, stop, kSaidAt + 1));
    ASSERT_TRUE(turnUntil([&] { return recorder.seconds() > 1; }));
    recorder.note({.kind = TakeEventKind::Frame, .frame = 81});
    const double at = recorder.seconds();
    ASSERT_TRUE(turnUntil([&] { return recorder.seconds() > 2; }));
    recorder.note({.kind = TakeEventKind::Pointer, .at = {5, 6}});
    const auto take = recorder.finish();
    ASSERT_TRUE(take);
    ASSERT_TRUE(*take);
    EXPECT_EQ((*take)->events.size(), 3U);
    EXPECT_NEAR(static_cast<double>((*take)->events[1].sample) / 48000, at, 1e-6);
    EXPECT_GE((*take)->events[2].sample, (*take)->events[1].sample);
    const auto sound = readSound(walk.library->takePath((*take)->file));
    ASSERT_TRUE(sound);
    EXPECT_EQ(static_cast<std::int64_t>(sound->size()), (*take)->samples);
    EXPECT_GE(recorder.levels().size(), 15U);
    EXPECT_FALSE(std::filesystem::exists(walk.library->unfinishedTakePath((*take)->file)));
}

TEST(Recorder, WithoutAMicrophoneItSaysSoAndLeavesNothing) {
    Walk walk(Stage::Judge);
    const auto mic = makeStandInMicrophone({});
    Recorder recorder(*walk.library, *mic);
    const Status started =
        recorder.start(walk.review.id, Stop{{"s"}, StopKind::Recap, "", "t", 0}, kSaidAt + 1);
    ASSERT_FALSE(started);
    EXPECT_FALSE(recorder.recording());
    EXPECT_TRUE(std::filesystem::is_empty(walk.library->takesFolder()));
}

/// A microphone that goes away after a while.
class Unplugged final : public Microphone {
public:
    Message name() const override { return asIs("wobbly"); }
    Status start(Samples samples, Failed failed) override {
        samples_ = std::move(samples), failed_ = std::move(failed);
        return Done{};
    }
    void stop() override {}
    void talk(std::size_t n) { samples_(std::vector<std::int16_t>(n, 900)); }
    void unplug() { failed_(fail(ErrorCode::Refused, asIs("The microphone went away."))); }

private:
    Samples samples_;
    Failed failed_;
};

TEST(Recorder, WhatWasSaidBeforeTheMicrophoneWentAwayIsKept) {
    Walk walk(Stage::Judge);
    Unplugged mic;
    Recorder recorder(*walk.library, mic);
    Message why;
    QObject::connect(&recorder, &Recorder::brokenOff, [&](const Message& message) { why = message; });
    ASSERT_TRUE(recorder.start(walk.review.id, Stop{{"s"}, StopKind::Recap, "", "t", 0}, kSaidAt + 1));
    mic.talk(30000);
    mic.unplug();
    EXPECT_TRUE(why.empty()); // not within the device's own signal: whoever hears of it ends the device
    QCoreApplication::processEvents();
    EXPECT_FALSE(why.empty());
    const auto take = recorder.finish();
    ASSERT_TRUE(take && *take);
    EXPECT_EQ((*take)->samples, 30000);
}

TEST(Recorder, SaysAgainFromAPointOnAndKeepsWhatWasBeforeIt) {
    Walk walk(Stage::Judge);
    Unplugged mic;
    Recorder recorder(*walk.library, mic);
    const Stop stop{{"s"}, StopKind::Recap, "", "t", 7};
    ASSERT_TRUE(recorder.start(walk.review.id, stop, kSaidAt + 1));
    mic.talk(20000);
    recorder.note({.kind = TakeEventKind::Frame, .frame = 9});
    mic.talk(20000);
    recorder.note({.kind = TakeEventKind::Frame, .frame = 11});
    const auto first = recorder.finish();
    ASSERT_TRUE(first && *first);
    ASSERT_TRUE(recorder.start(walk.review.id, stop, kSaidAt + 2, TakeHead{**first, 30000}));
    EXPECT_NEAR(recorder.seconds(), 30000.0 / kSampleRate, 1e-9);
    mic.talk(5000);
    recorder.note({.kind = TakeEventKind::Frame, .frame = 12});
    const auto second = recorder.finish();
    ASSERT_TRUE(second && *second);
    EXPECT_EQ((*second)->samples, 35000);
    ASSERT_EQ((*second)->events.size(), 3U); // of the first take those before the point
    EXPECT_EQ((*second)->events[0].frame, 7);
    EXPECT_EQ((*second)->events[1].frame, 9);
    EXPECT_EQ((*second)->events[1].sample, 20000);
    EXPECT_EQ((*second)->events[2].sample, 35000);
    const auto before = readSound(walk.library->takePath((*first)->file)),
               after = readSound(walk.library->takePath((*second)->file));
    ASSERT_TRUE(before && after);
    EXPECT_EQ(before->size(), 40000U); // untouched
    EXPECT_EQ((*after)[100], (*before)[100]);
    EXPECT_LT(std::abs((*after)[29999]), std::abs((*before)[29999]) / 100); // faded out
    ASSERT_TRUE(recorder.start(walk.review.id, stop, kSaidAt + 3, TakeHead{**first, 30000}));
    const auto none = recorder.finish(); // nothing came: the earlier take stands
    ASSERT_TRUE(none);
    EXPECT_FALSE(*none);
}

TEST(Recorder, ATakeWithoutASampleIsNoTake) {
    Walk walk(Stage::Judge);
    Unplugged mic;
    Recorder recorder(*walk.library, mic);
    ASSERT_TRUE(recorder.start(walk.review.id, Stop{{"s"}, StopKind::Recap, "", "t", 0}, kSaidAt + 1));
    const auto take = recorder.finish();
    ASSERT_TRUE(take);
    EXPECT_FALSE(*take);
    EXPECT_TRUE(std::filesystem::is_empty(walk.library->takesFolder()));
}

TEST(Desk, PainFirstThenByPromisedDateThenUndated) {
    Walk walk(Stage::Look);
    const auto add = [&](const char* id, std::optional<Date> promised, const char* pain) {
        Submission s = walk.submission;
        s.id = {id};
        s.promised = promised;
        s.pain = pain;
        s.clips[0].id = {std::string("clip-") + id};
        ASSERT_TRUE(test::put(*walk.library, s));
    };
    add("later", addDays(test::today(), 4), "");
    add("undated", std::nullopt, "");
    add("hurts", addDays(test::today(), 9), "elbow");
    add("late", addDays(test::today(), -2), "");
    const auto list = readDesk(*walk.library, test::playbook(), test::today());
    ASSERT_TRUE(list);
    std::vector<std::string> order;
    for (const DeskRow& r : list->waiting) order.push_back(r.submission.id.value);
    EXPECT_EQ(order,
              (std::vector<std::string>{"hurts", "late", walk.submission.id.value, "later", "undated"}));
}

TEST(Places, ALibraryWhoseDiskIsAwayIsNotReplacedByAnEmptyOne) {
    const test::TempFolder folder;
    const auto otherwise = folder / "new";
    EXPECT_EQ(*libraryToOpen("", "", otherwise), otherwise);
    EXPECT_EQ(*libraryToOpen((folder / "named").string(), "", otherwise), folder / "named");
    std::filesystem::create_directories(folder / "last");
    const std::string last = (folder / "last").string();
    const auto gone = libraryToOpen("", last, otherwise);
    ASSERT_FALSE(gone);
    EXPECT_NE(said(gone.error().text).find(last), std::string::npos);
    std::ofstream(folder / "last/library.sqlite") << "";
    EXPECT_EQ(*libraryToOpen("", last, otherwise), folder / "last");
}

TEST(Desk, PromisesInWords) {
    const Date t = test::today();
    EXPECT_EQ(promisedInWords(addDays(t, -1), t), "promised for yesterday");
    EXPECT_EQ(promisedInWords(t, t), "promised for tonight");
    EXPECT_EQ(promisedInWords(addDays(t, 1), t), "promised for tomorrow");
    EXPECT_EQ(promisedInWords(addDays(t, 2), t), "promised for Friday");
    EXPECT_EQ(promisedInWords(addDays(t, 20), t), "promised for 15 December");
    EXPECT_EQ(promisedInWords(addDays(t, -5), t), "promised 5 days ago");
    EXPECT_EQ(promisedInWords(std::nullopt, t), "no date");
}

TEST(Desk, AlikeFilmsAreToldOnce) {
    const auto film = [](View view, double fps) {
        Clip c;
        c.view = view;
        c.captureFps = fps;
        return c;
    };
    EXPECT_EQ(filmsInWords({film(View::Open, 60), film(View::Front, 239.8), film(View::Open, 60)}),
              "open side 60 (2 films), front 240");
    EXPECT_EQ(filmsInWords({film(View::Rear, 0)}), "rear");
}

TEST(DemoReview, PositionsLieWhereAFilmThatBeginsLateHasThem) {
    Walk walk(Stage::Look);
    FilmOrder order = walk.order;
    order.startAtS = -0.6, order.cutAfterS = 0.6;
    const Delivery delivery(order.knobs);
    Submission submission = walk.submission;
    submission.clips[0].frames = static_cast<std::int64_t>(1.2 * order.fps);
    const auto made = makeDemoReview(*walk.library, test::playbook(), walk.athlete, submission, {order},
                                     {Stage::Judge, 0, 0, 3}, test::today(), walk.ids);
    ASSERT_TRUE(made) << said(made.error().text);
    for (const Moment m : {Moment::FootTouch, Moment::Plant, Moment::Layback, Moment::Release}) {
        const auto frame = made->first().frameOf(m);
        ASSERT_TRUE(frame) << said(info(m).name());
        EXPECT_NEAR(timeOfPicture(order, delivery, static_cast<double>(*frame)), delivery.events().at(m),
                    1.0 / order.fps)
            << said(info(m).name());
    }
}

TEST(Suggest, AProposedPlanHasADrillForEachCorrectionAndADate) {
    Walk walk;
    const auto session = walk.session();
    const auto order = causesOf(test::playbook(), session->assessment(), {}).order;
    ASSERT_FALSE(order.empty());
    const Review fresh;
    const Plan plan = proposePlan({test::playbook(), fresh, session->told(), walk.athlete, walk.submission,
                                   session->clip(), test::today()},
                                  {order[0]});
    EXPECT_FALSE(plan.drills.empty());
    EXPECT_TRUE(plan.nextLook);
    EXPECT_NE(plan.opening.find("Why short?"), std::string::npos);
    EXPECT_NE(plan.ask.find("third-base side"), std::string::npos);
}

TEST(FilmThread, GivesTheFrameAskedForLast) {
    Walk walk(Stage::Look);
    FilmThread film(walk.library->mediaPath(walk.submission.clips[0]));
    std::vector<qint64> got;
    QObject::connect(&film, &FilmThread::frameReady, [&](qint64 n, const Picture&) { got.push_back(n); });
    for (int n = 0; n < 60; ++n) film.request(FrameNumber{n});
    ASSERT_TRUE(turnUntil([&] { return !got.empty() && got.back() == 59; }));
    EXPECT_LT(got.size(), 60U);
}

TEST(FilmThread, TheFirstPictureComesBeforeTheFilmIsIndexed) {
    Walk walk(Stage::Look);
    FilmThread film(walk.library->mediaPath(walk.submission.clips[0]));
    std::vector<std::string> order;
    QObject::connect(&film, &FilmThread::firstPicture, [&](const Picture&) { order.push_back("picture"); });
    QObject::connect(&film, &FilmThread::opened, [&](const FilmInfo&) { order.push_back("index"); });
    ASSERT_TRUE(turnUntil([&] { return order.size() == 2; }));
    EXPECT_EQ(order.front(), "picture");
}

/// A library whose clip has its scrub copy, made by the maker.
std::filesystem::path scrubOf(Walk& walk) {
    ScrubMaker maker(std::make_shared<FileStore>());
    EXPECT_TRUE(maker.makeMissing(*walk.library));
    EXPECT_EQ(maker.waiting(), 1);
    EXPECT_TRUE(maker.makeMissing(*walk.library)); // asked twice, made once
    EXPECT_EQ(maker.waiting(), 1);
    EXPECT_TRUE(turnUntil([&] { return maker.waiting() == 0; }, 60000));
    return walk.library->scrubPath(walk.submission.clips[0]);
}

TEST(ScrubMaker, MakesEveryFrameOnItsOwnUnderTheSameNumber) {
    Walk walk(Stage::Look);
    const auto path = scrubOf(walk);
    auto scrub = Reader::open(path);
    auto film = Reader::open(walk.library->mediaPath(walk.submission.clips[0]));
    ASSERT_TRUE(scrub && film);
    ASSERT_EQ((*scrub)->info().frames(), (*film)->info().frames());
    for (const std::int64_t n : {97L, 3L, 60L}) {
        const std::int64_t before = (*scrub)->packetsDecoded();
        const auto near = (*scrub)->grey(FrameNumber{n}, 96), exact = (*film)->grey(FrameNumber{n}, 96);
        ASSERT_TRUE(near && exact);
        double difference = 0;
        for (std::size_t i = 0; i < near->pixels.size(); ++i)
            difference += std::abs(near->pixels[i] - exact->pixels[i]);
        EXPECT_LT(difference / static_cast<double>(near->pixels.size()), 2.5) << n;
        EXPECT_EQ((*scrub)->packetsDecoded() - before, 1) << n;
    }
    EXPECT_TRUE(walk.library->verify().empty());
}

TEST(ScrubMaker, AFullDiskLeavesNothingAndEndsTheWork) {
    Walk walk(Stage::Look);
    ScrubMaker maker(std::make_shared<test::FullDisk>());
    ASSERT_TRUE(maker.makeMissing(*walk.library));
    ASSERT_TRUE(turnUntil([&] { return maker.waiting() == 0; }, 60000));
    EXPECT_FALSE(std::filesystem::exists(walk.library->scrubPath(walk.submission.clips[0])));
}

TEST(FilmThread, AJumpShowsTheScrubCopyFirstAndThenTheExactFrame) {
    Walk walk(Stage::Look);
    const auto scrub = scrubOf(walk);
    FilmThread film(walk.library->mediaPath(walk.submission.clips[0]), scrub);
    bool open = false;
    std::vector<std::string> got;
    QObject::connect(&film, &FilmThread::opened, [&] { open = true; });
    QObject::connect(&film, &FilmThread::frameNear, [&](qint64 n, const Picture& p) {
        got.push_back("near " + std::to_string(n) + (p.width <= kScrubWidth ? "" : " too wide"));
    });
    QObject::connect(&film, &FilmThread::frameReady,
                     [&](qint64 n, const Picture&) { got.push_back("exact " + std::to_string(n)); });
    ASSERT_TRUE(turnUntil([&] { return open; }));
    film.request(FrameNumber{90});
    ASSERT_TRUE(turnUntil([&] { return !got.empty() && got.back() == "exact 90"; }));
    EXPECT_EQ(got, (std::vector<std::string>{"near 90", "exact 90"}));
    got.clear();
    film.request(FrameNumber{89}); // decoded already: no detour
    ASSERT_TRUE(turnUntil([&] { return !got.empty() && got.back() == "exact 89"; }));
    EXPECT_EQ(got.size(), 1U);
}

TEST(FilmThread, AMissingFilmIsSaidAndDestroyingItWaitsForNothing) {
    Message why;
    {
        FilmThread film("/nowhere/film.mp4");
        QObject::connect(&film, &FilmThread::failed, [&](const Message& message) { why = message; });
        ASSERT_TRUE(turnUntil([&] { return !why.empty(); }));
    }
    EXPECT_NE(said(why).find("no file"), std::string::npos);
}

TEST(Job, RunsBesideAndComesBack) {
    QObject owner;
    const auto here = std::this_thread::get_id();
    bool back = false;
    double seen = 0;
    auto* job = new Job(&owner, [&](std::stop_token, const Job::Progress& progress) -> Job::Continuation {
        EXPECT_NE(std::this_thread::get_id(), here);
        progress(0.5);
        return [&] {
            EXPECT_EQ(std::this_thread::get_id(), here);
            back = true;
        };
    });
    QObject::connect(job, &Job::progressed, [&](double part) { seen = part; });
    ASSERT_TRUE(turnUntil([&] { return back; }));
    EXPECT_EQ(seen, 0.5);
}

TEST(Job, CancelReachesTheWork) {
    QObject owner;
    bool stopped = false;
    auto* job = new Job(&owner, [&](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
        while (!stop.stop_requested()) std::this_thread::yield();
        return [&] { stopped = true; };
    });
    job->cancel();
    EXPECT_TRUE(turnUntil([&] { return stopped; }));
}

} // namespace
} // namespace jg
