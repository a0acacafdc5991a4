// SPDX-License-Identifier: GPL-3.0-or-later
// An earlier delivery beside a stop: in the letter, in the film, and never another athlete's.
#include "desk/sending/dispatch.h"
#include "desk/session/beside.h"
#include "film/reader.h"
#include "film/true_time.h"
#include "letter/film_plan.h"
#include "letter/letter_html.h"
#include "letter/letter_pages.h"
#include "letter/narrated_film.h"
#include "letter/still.h"
#include "review/assess/number_words.h"
#include "review/record/read_by.h"
#include "review/record/review_json.h"
#include "review/tell/told_number.h"
#include "tests/support/harm.h"
#include "tests/support/walk.h"

#include <fstream>

namespace jg {
namespace {

using test::Walk;

/// A walk whose athlete was reviewed a month before, with the lead knee bent otherwise.
struct WithPast {
    Walk walk;
    Review past = test::keepEarlier(walk, "past", 30, [](Review& r) {
        for (auto& [key, mark] : r.first().points)
            if (key.landmark == Landmark::LeadKnee) mark.point.at.x += 14;
    });
    std::unique_ptr<ReviewSession> session = walk.session();

    /// A measure that really changed since, of those with a number in both.
    std::string changedMeasure() {
        Stop all;
        all.beside = Beside{past.id, 1, 0, *session->delivery().frameOf(Moment::Plant)};
        const auto both = *session->beside(all);
        const auto changes = besideChanges(all, *both, session->playbook());
        EXPECT_FALSE(changes.empty());
        EXPECT_TRUE(changes.front().trend && isReal(*changes.front().trend));
        return changes.front().measure;
    }

    /// Puts the past beside a stop about `finding`; the stop stands first and is said.
    Stop put(const std::string& finding) {
        auto stops = session->review().stops;
        Stop& stop = stops.front();
        stop.finding = finding;
        stop.kind = StopKind::Own;
        stop.frame = *session->delivery().frameOf(Moment::Plant);
        stop.beside = Beside{past.id, 1};
        stop.beside = besideAt(session->delivery(), stop.frame, (*session->beside(stop))->then);
        EXPECT_TRUE(stop.beside);
        EXPECT_TRUE(session->perform(msg("say-bench.change-beside"), {SetStops{stops}}));
        return session->review().stops.front();
    }
};

TEST(Beside, AReviewComesBackWithWhatStandsBesideItsStops) {
    WithPast w;
    const Stop stop = w.put(w.changedMeasure());
    EXPECT_EQ(stop.beside->frame, *w.past.first().frameOf(Moment::Plant));
    const auto read = reviewFromJson(toJson(w.session->review()));
    ASSERT_TRUE(read) << said(read.error().text);
    EXPECT_EQ(read->stops, w.session->review().stops);
}

TEST(Beside, TheLetterShowsBothPicturesAndSaysWhetherItReallyChanged) {
    WithPast w;
    const std::string measure = w.changedMeasure();
    const Stop stop = w.put(measure);
    const LetterModel letter = w.session->letter();
    ASSERT_EQ(letter.thens.size(), 1U);
    const LetterThen& then = letter.thens.front();
    EXPECT_NE(said(then.title).find(w.session->playbook().nameOfFinding(measure)), std::string::npos);
    ASSERT_EQ(then.changes.size(), 1U);
    const std::string words = said(then.changes.front());
    EXPECT_NE(words.find("real change"), std::string::npos) << words;
    // The two numbers are those of the two reviews.
    const auto both = *w.session->beside(stop);
    for (const JuxtaEntry* e : {&both->then, &both->now}) {
        const MeasureValue& v = e->results.measure(measure)->value;
        EXPECT_NE(words.find(said(numberInWords(*asTold(v).value, asTold(v).unit))), std::string::npos)
            << words;
    }
    EXPECT_EQ(said(then.then), said(day(w.past.date, DateStyle::Day)));

    const DispatchRecipe recipe = previewRecipe(*w.session);
    const auto stills = correctionStills(recipe.film);
    ASSERT_TRUE(stills) << said(stills.error().text);
    ASSERT_TRUE(stills->contains(then.thenKey()) && stills->contains(then.nowKey()));
    EXPECT_NE(stills->at(then.thenKey()), stills->at(then.nowKey())); // the knee is drawn elsewhere
    const LetterPages pages(recipe.film.letter, *stills, recipe.film.words);
    bool mayBeChanged = false;
    for (const auto& place : pages.places()) mayBeChanged |= place.key == "then:" + stop.id.value + ":0";
    EXPECT_TRUE(mayBeChanged);
    // Poppler reads it back.
    ASSERT_TRUE(exportLetter(recipe, w.walk.folder / "letter.pdf", w.walk.library->files()));
    const std::string read =
        test::squeezed(test::shell("pdftotext '" + (w.walk.folder / "letter.pdf").string() + "' -"));
    EXPECT_NE(read.find(test::squeezed(words)), std::string::npos) << words;
    const std::string html = letterAsHtml(recipe.film.letter, *stills, recipe.film.words);
    EXPECT_NE(html.find("Then and now"), std::string::npos);
    EXPECT_NE(html.find(said(then.then) + "</figcaption>"), std::string::npos);
}

TEST(Beside, AnItemsGradeIsToldBesideItsPictures) {
    WithPast w;
    const auto both = *w.session->beside(w.put(w.changedMeasure()));
    ThenAndNow graded = *both;
    const std::string item = w.session->review().approach().graded.front();
    for (auto* e : {&graded.then, &graded.now})
        e->results.items = {{item, Grade{GradeState::Graded, e == &graded.then ? 2 : 4, "", {}}, true, 1}};
    Stop stop;
    stop.finding = item;
    const auto told = toldChanges(stop, graded, {}, w.session->playbook(), 1);
    ASSERT_EQ(told.size(), 1U);
    EXPECT_NE(said(told[0]).find("2 of 5, now 4 of 5"), std::string::npos) << said(told[0]);
    graded.then.results.items.clear();
    EXPECT_EQ(toldChanges(stop, graded, {}, w.session->playbook(), 1).front().id, "beside.no-numbers");
}

TEST(Beside, TheNumberOfACorrectionIsThatOfItsPicture) {
    Walk walk;
    const auto session = walk.session();
    int told = 0;
    for (const Judged& j : session->told().findings) {
        Review one = session->review();
        one.plan.corrections = {j.finding.id};
        FilmRecipe recipe = previewRecipe(*session).film;
        const LetterCorrection c = correctionOf(one, recipe.playbook, recipe.assessment, j.finding.id,
                                                readBy(one, session->athlete()));
        if (!c.line) continue;
        const std::string pictured = picturedMeasure(recipe, recipe, j.finding.id);
        const MeasureRow& row = *recipe.assessment.measure(pictured);
        EXPECT_GE(row.value.value.value_or(-1), 0) << j.finding.id; // below zero there is no line
        EXPECT_EQ(c.line, numberLineOf(row.target.x < 0 ? asFamilySees(row) : asTold(row))) << j.finding.id;
        ++told;
    }
    EXPECT_GT(told, 5);
}

TEST(Beside, WhatHasChangedIsToldOfTheMeasureThatThePicturesShow) {
    WithPast w;
    int told = 0;
    for (const Judged& j : w.session->told().findings) {
        const Stop stop = w.put(j.finding.id);
        const auto both = *w.session->beside(stop);
        const auto changes = besideChanges(stop, *both, w.session->playbook());
        const FilmRecipe recipe = previewRecipe(*w.session).film;
        const std::string pictured = picturedMeasure(recipe, recipe, j.finding.id);
        if (!w.session->playbook().measure(pictured) || changes.empty()) continue;
        EXPECT_EQ(changes.front().measure, pictured) << j.finding.id;
        ++told;
    }
    EXPECT_GT(told, 8);
}

TEST(Beside, WithoutANumberInBothTheLetterSaysSo) {
    WithPast w;
    w.past.first().points.clear();
    w.past.revision = w.walk.library->review(w.past.id)->revision;
    ASSERT_TRUE(w.walk.library->save(w.past));
    w.put("");
    const LetterModel letter = w.session->letter();
    ASSERT_EQ(letter.thens.size(), 1U);
    EXPECT_EQ(said(letter.thens[0].changes.at(0)), said(msg("beside.no-numbers")));
}

TEST(Beside, TheFilmShowsTheTwoNextToEachOtherStepForStep) {
    WithPast w;
    const Stop stop = w.put(w.changedMeasure());
    FilmOrder dark = w.walk.order;
    dark.brightness = 0.05;
    ASSERT_TRUE(makeFilm(dark, w.walk.folder / "dark.mp4"));
    FilmRecipe recipe = previewRecipe(*w.session).film;
    ASSERT_TRUE(recipe.beside.contains(stop.id));
    recipe.beside[stop.id].clip = w.walk.folder / "dark.mp4"; // told apart by its light
    recipe.review.stops = {stop};
    for (const QSize size : {QSize(320, 180), QSize(180, 320)}) {
        recipe.width = size.width(), recipe.height = size.height();
        const auto film = w.walk.folder / "beside.mp4";
        const auto made = renderNarratedFilm(recipe, film, w.walk.library->files());
        ASSERT_TRUE(made);
        auto reader = Reader::open(film);
        ASSERT_TRUE(reader);
        const FilmLayout layout = layOutFilm(size);
        EXPECT_FALSE(layout.halves[0].intersects(layout.halves[1]));
        const auto chapter = std::find_if(made->chapters.begin(), made->chapters.end(),
                                          [&](const Chapter& c) { return c.title == stop.title; });
        ASSERT_NE(chapter, made->chapters.end());
        // While it moves, and before the closing card, while it is said.
        for (const std::int64_t frame :
             {(chapter->startMs + 200) * 30 / 1000,
              (*reader)->info().frames() - static_cast<std::int64_t>((kClosingSeconds + 0.5) * 30)}) {
            const auto picture = (*reader)->picture(FrameNumber{frame});
            ASSERT_TRUE(picture);
            const QImage image = toImage(*picture);
            const auto light = [&](QRectF area) {
                double sum = 0, n = 0;
                for (int y = static_cast<int>(area.top()) + 30; y < area.bottom() - 4; y += 3)
                    for (int x = static_cast<int>(area.left()) + 4; x < area.right() - 4; x += 3, ++n)
                        sum += qGray(image.pixel(x, y));
                return sum / n;
            };
            EXPECT_LT(light(layout.halves[0]), 40) << size.width() << " at " << frame;
            EXPECT_GT(light(layout.halves[1]), 70) << size.width() << " at " << frame;
            // Which day each is of stands in its corner.
            for (const QRectF& half : layout.halves) {
                int bright = 0;
                for (int y = 0; y < 16; ++y)
                    for (int x = 0; x < 40; ++x)
                        bright += qGray(image.pixel(static_cast<int>(half.left()) + x,
                                                    static_cast<int>(half.top()) + y)) > 150;
                EXPECT_GT(bright, 10) << size.width() << " at " << frame;
            }
        }
    }
    // Where the day has no room it is cut, and the film is made all the same.
    recipe.width = 96, recipe.height = 54;
    EXPECT_TRUE(renderNarratedFilm(recipe, w.walk.folder / "tiny.mp4", w.walk.library->files()));
}

TEST(Beside, AnotherAthletesDeliveryGoesIntoNoLetter) {
    WithPast w;
    w.put("");
    ASSERT_TRUE(dispatchRecipe(*w.session));
    Athlete other = w.walk.athlete;
    other.id = {"ath-other"};
    ASSERT_TRUE(test::put(*w.walk.library, other));
    // No door lets it in any more; another program may have written it.
    test::harm(w.walk.library->folder(),
               "UPDATE reviews SET athlete = 'ath-other', document = json_set(document, "
               "'$.athlete', 'ath-other') WHERE id = '" +
                   w.past.id.value + "'");
    const auto session = w.walk.session();
    const auto refused = dispatchRecipe(*session);
    ASSERT_FALSE(refused);
    EXPECT_NE(said(refused.error().text).find("another athlete's"), std::string::npos);
    EXPECT_TRUE(session->letter().thens.empty());
    EXPECT_TRUE(previewRecipe(*session).film.beside.empty());
}

TEST(Beside, ADeliveryThatIsGoneIsNamedAndCanBeTakenOut) {
    WithPast w;
    auto stops = w.session->review().stops;
    stops.front().beside = Beside{{"rev-gone"}, 1, 3, 3};
    ASSERT_TRUE(w.session->perform(msg("say-bench.change-beside"), {SetStops{stops}}));
    const auto refused = dispatchRecipe(*w.session);
    ASSERT_FALSE(refused);
    EXPECT_NE(said(refused.error().text).find(stops.front().title), std::string::npos);
    stops.front().beside.reset();
    ASSERT_TRUE(w.session->perform(msg("say-bench.change-beside"), {SetStops{stops}}));
    EXPECT_TRUE(dispatchRecipe(*w.session));
}

TEST(Beside, AFilmThatWasAlteredDoesNotLeaveBesideAnother) {
    WithPast w;
    w.put("");
    auto recipe = dispatchRecipe(*w.session);
    ASSERT_TRUE(recipe) << said(recipe.error().text);
    const auto own = recipe->film.beside.begin()->second.clip;
    EXPECT_EQ(own, w.walk.library->mediaPath(w.walk.submission.clips[0]));
    // The past has a film of its own, whose bytes are not those of its name.
    const auto altered = w.walk.folder / (std::string(64, 'a') + own.extension().string());
    std::filesystem::copy_file(own, altered);
    recipe->film.beside.begin()->second.clip = altered;
    const auto packed = packParcel(*recipe, w.walk.folder.path(), w.walk.library->files());
    ASSERT_FALSE(packed);
    EXPECT_EQ(packed.error().code, ErrorCode::Refused);
}

TEST(Beside, TheOffersAreTheAthletesOwnOfNoLaterDayNamedOnesFirst) {
    WithPast w;
    Review later = w.past;
    later.id = {"rev-later"};
    later.revision = 0;
    later.date = addDays(w.walk.review.date, 3);
    Review older = w.past;
    older.id = {"rev-older"};
    older.revision = 0;
    older.date = addDays(w.past.date, -60);
    ASSERT_TRUE(w.walk.library->save(later) && w.walk.library->save(older));
    Athlete named = w.walk.athlete;
    named.baselines = {{"before the injury", older.id, 0}};
    ASSERT_TRUE(test::put(*w.walk.library, named));
    const auto offers = besideOffers(*w.walk.library, w.walk.review);
    ASSERT_TRUE(offers);
    std::vector<std::string> ids;
    for (const JuxtaOffer& o : *offers) ids.push_back(o.key.review.value);
    EXPECT_EQ(ids, (std::vector<std::string>{older.id.value, w.past.id.value, w.walk.review.id.value}));
}

} // namespace
} // namespace jg
