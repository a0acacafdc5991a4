// SPDX-License-Identifier: GPL-3.0-or-later
// Deliveries under each other: one height, one ground line, and what has changed.
#include "desk/pages/desk_list.h"
#include "desk/sending/dispatch.h"
#include "desk/session/juxta.h"
#include "letter/juxta_tables.h"
#include "review/record/camera_place.h"
#include "review/record/deliveries.h"
#include "tests/support/walk.h"

#include <QImage>

namespace jg {
namespace {

using test::Walk;

/// A review of the walk as an entry, `days` later.
JuxtaEntry entryOf(const Walk& walk, int days) {
    auto entries = juxtaEntries(*walk.library, test::playbook(), {{walk.review.id}});
    EXPECT_TRUE(entries);
    JuxtaEntry e = entries->front();
    e.when = addDays(e.when, days);
    return e;
}

const JuxtaChange* changeOf(const JuxtaSheet& sheet, const std::string& measure) {
    for (const JuxtaColumn& column : sheet.columns)
        for (const JuxtaChange& change : column.changes)
            if (change.measure == measure) return &change;
    return nullptr;
}

TEST(Juxta, TheSameDeliveryHasChangedInNothing) {
    const Walk walk(Stage::Judge);
    const auto sheet = layOutJuxta({entryOf(walk, 7), entryOf(walk, 0)}, test::playbook());
    ASSERT_TRUE(sheet) << said(sheet.error().text);
    EXPECT_LT(sheet->rows[0].entry.when, sheet->rows[1].entry.when);
    int numbers = 0;
    for (const JuxtaColumn& column : sheet->columns)
        for (const JuxtaChange& change : column.changes) {
            EXPECT_EQ(change.trend, Trend::InsideError) << change.measure;
            ++numbers;
        }
    EXPECT_GT(numbers, 8);
}

TEST(KnownVeils, WhoIsHiddenOnAFilmIsHiddenInItsOtherDeliveriesAndReviews) {
    Walk walk(Stage::Judge);
    const Review earlier = test::keepEarlier(walk, "earlier", 30, [](Review& r) {
        r.sent = SentRecord{r.date, "ludo.home@example.org"};
    });
    auto session = walk.session();
    const Clip film = session->clip();
    const auto another = nextDelivery(session->review(), 1, film, FrameSpan{0, 20}, {film});
    ASSERT_TRUE(session->perform(asIs("two"), {SetDelivery{another.number, another}}));
    const Veil veil{{{3, PictureBox{{10, 10}, {60, 90}}}}, {3}, {}};
    ASSERT_TRUE(session->perform(asIs("hide"), {SetVeil{"veil-1", veil}}));
    const auto veilsOf = [&](int delivery) { return session->review().deliveryOr(delivery).veils; };
    EXPECT_EQ(veilsOf(another.number).at("veil-1"), veil);
    EXPECT_EQ(nextDelivery(session->review(), 1, film, FrameSpan{20, 40}, {film}).veils, veilsOf(1));
    session->undo();
    EXPECT_TRUE(veilsOf(1).empty());
    EXPECT_TRUE(veilsOf(another.number).empty());
    ASSERT_TRUE(session->perform(asIs("hide"), {SetVeil{"veil-1", veil}}));
    session.reset(); // keeps it
    // The sent review was told before they were hidden; a sheet made today shows its film with them hidden.
    const auto then = juxtaEntries(*walk.library, test::playbook(), {{earlier.id}});
    ASSERT_TRUE(then) << said(then.error().text);
    ASSERT_EQ(then->front().marks.veils.size(), 1U);
    EXPECT_EQ(then->front().marks.veils.begin()->second, veil);
    // A review begun on the film in another submission begins with them hidden.
    const Submission again = test::onceMore(walk.submission, "again");
    ASSERT_TRUE(test::put(*walk.library, again));
    IdSource ids(9);
    const auto anew = ReviewSession::open(*walk.library, test::playbook(), walk.clock, ids, again.id);
    ASSERT_TRUE(anew) << said(anew.error().text);
    EXPECT_FALSE((*anew)->delivery().veils.empty());
}

TEST(Juxta, ALengthIsNotComparedOverABodyThatGrew) {
    const Walk walk(Stage::Judge);
    JuxtaEntry then = entryOf(walk, -300), now = entryOf(walk, 0);
    MeasureRow *a = nullptr, *b = nullptr;
    for (MeasureRow& r : then.results.measures)
        if (r.value.value && r.value.unit == "%") a = &r;
    ASSERT_TRUE(a);
    for (MeasureRow& r : now.results.measures)
        if (r.id == a->id) b = &r;
    then.heightM = 1.60, now.heightM = 1.68;
    ASSERT_TRUE(compareMeasure(then, now, a->id)->trend); // a share of the height grows with it
    a->value.unit = b->value.unit = "in";
    EXPECT_EQ(compareMeasure(then, now, a->id)->notComparable.id, "juxta.grown");
    EXPECT_TRUE(compareMeasure(then, now, a->id, true)->trend); // by the coach's word
    then.heightM = 1.67;
    EXPECT_TRUE(compareMeasure(then, now, a->id)->trend); // two measurings of one height
    then.heightM = 0;
    EXPECT_TRUE(compareMeasure(then, now, a->id)->trend);
}

TEST(Juxta, NothingIsTakenFromANumberWhoseCameraNobodySpokeOf) {
    const Walk walk(Stage::Judge);
    JuxtaEntry then = entryOf(walk, -30), now = entryOf(walk, 0);
    Review silent = *walk.library->review(walk.review.id);
    for (DeliveryMarks& d : silent.deliveries) d.turn.reset();
    then.results = assess(silent, test::playbook(), walk.submission.clips, walk.athlete.hand);
    int angles = 0, times = 0;
    for (const MeasureRow& r : now.results.measures) {
        const auto change = compareMeasure(then, now, r.id);
        if (!change) continue;
        if (r.value.unit == "deg") {
            EXPECT_EQ(change->notComparable.id, "juxta.turn-unsaid") << r.id;
            EXPECT_TRUE(compareMeasure(then, now, r.id, true)->trend) << r.id; // by the coach's word
            ++angles;
        } else if (r.value.unit == "ms") {
            EXPECT_TRUE(change->trend) << r.id; // a turned camera changes no time
            ++times;
        }
    }
    EXPECT_GT(angles, 3);
    EXPECT_GT(times, 0);
}

TEST(Juxta, ASheetOfTwoAthletesLeavesOnlyWhenBothMayBeShown) {
    Walk walk(Stage::Judge);
    Athlete other = walk.athlete;
    other.id = walk.ids.next<AthleteTag>("ath");
    other.firstName = "Wren";
    JuxtaEntry theirs = entryOf(walk, 7);
    theirs.athlete = other.id;
    const auto both = layOutJuxta({entryOf(walk, 0), theirs}, test::playbook());
    ASSERT_TRUE(both);
    const auto may = [&] {
        EXPECT_TRUE(test::put(*walk.library, other));
        return mayLeave(*walk.library, *both, test::today());
    };
    EXPECT_TRUE(may());
    other.consent->showing = false;
    ASSERT_FALSE(may());
    EXPECT_NE(said(may().error().text).find("Wren"), std::string::npos) << said(may().error().text);
    other.consent->model = true;
    EXPECT_TRUE(may());
    other.consent.reset();
    EXPECT_FALSE(may()); // silence is no consent to be shown
    const auto own = layOutJuxta({entryOf(walk, 0), entryOf(walk, 7)}, test::playbook());
    EXPECT_TRUE(mayLeave(*walk.library, *own, test::today()));
}

TEST(Juxta, GrowthIsSaidAboveTheSheet) {
    const Walk walk(Stage::Judge);
    JuxtaEntry then = entryOf(walk, -300), now = entryOf(walk, 0);
    then.heightM = 1.60, now.heightM = 1.68;
    const auto sheet = layOutJuxta({then, now}, test::playbook());
    ASSERT_TRUE(sheet);
    EXPECT_NE(said(mannerOf(*sheet)).find("grew 8 cm"), std::string::npos) << said(mannerOf(*sheet));
}

TEST(Juxta, AHeightIsThatOfTheDay) {
    Athlete a;
    a.heightM = 1.68;
    EXPECT_EQ(a.heightOn(test::today()), 1.68);
    a.heights = {{*parseIsoDate("2026-01-10"), 1.60}, {*parseIsoDate("2026-09-10"), 1.68}};
    EXPECT_EQ(a.heightOn(*parseIsoDate("2025-06-01")), 1.60);
    EXPECT_EQ(a.heightOn(*parseIsoDate("2026-08-01")), 1.60);
    EXPECT_EQ(a.heightOn(*parseIsoDate("2026-09-10")), 1.68);
}

TEST(Juxta, AllNumbersOfAnAthleteStandInOneTableThatOtherProgramsRead) {
    Walk walk(Stage::Judge);
    Athlete odd = walk.athlete;
    odd.firstName = "Anne \"Ace\", Jr.";
    ASSERT_TRUE(test::put(*walk.library, odd));
    const auto all = allDeliveries(*walk.library, test::playbook(), walk.athlete.id);
    ASSERT_TRUE(all) << said(all.error().text);
    FileStore files;
    ASSERT_TRUE(files.write(walk.folder / "all.csv", numbersAsCsv(*all, test::playbook())));
    ASSERT_TRUE(
        files.write(walk.folder / "read.py",
                    "import csv, sys\n"
                    "rows = list(csv.DictReader(open(sys.argv[1], newline='', encoding='utf-8')))\n"
                    "print(len(rows), {len(r) for r in rows}, None in rows[0])\n"
                    "print({r['athlete'] for r in rows}, {r['date'] for r in rows})\n"
                    "for r in rows:\n"
                    "    if r['value']: assert float(r['low95']) <= float(r['value']) <= float(r['high95'])\n"
                    "print(sum(1 for r in rows if r['value'] and r['unit'] and r['definition']))\n"));
    const std::string read = test::shell("/usr/bin/python3 '" + (walk.folder / "read.py").string() + "' '" +
                                         (walk.folder / "all.csv").string() + "' 2>&1");
    std::size_t rows = 0, numbers = 0;
    for (const JuxtaEntry& e : *all)
        for (const MeasureRow& row : e.results.measures) ++rows, numbers += row.value.value ? 1 : 0;
    EXPECT_GT(numbers, 8U);
    EXPECT_TRUE(read.starts_with(std::to_string(rows) + " {25} False\n")) << read;
    EXPECT_NE(read.find("Anne \"Ace\", Jr."), std::string::npos) << read;
    EXPECT_NE(read.find("\n" + std::to_string(numbers) + "\n"), std::string::npos) << read;
    EXPECT_EQ(allDeliveries(*walk.library, test::playbook(), {"nobody"}).error().code, ErrorCode::NotFound);
}

TEST(Juxta, WhatIsBetterBeyondBothErrorsIsSaidSo) {
    const Walk walk(Stage::Judge);
    JuxtaEntry before = entryOf(walk, 0), now = entryOf(walk, 7);
    for (MeasureRow& row : before.results.measures)
        if (row.id == "leg-spread")
            for (double* v : {&*row.value.value, &row.value.low95, &row.value.high95}) *v -= 25;
    const auto sheet = layOutJuxta({before, now}, test::playbook());
    ASSERT_TRUE(sheet);
    ASSERT_TRUE(changeOf(*sheet, "leg-spread"));
    EXPECT_NE(changeOf(*sheet, "leg-spread")->trend, Trend::InsideError);
    const std::string csv = juxtaAsCsv(*sheet, test::playbook());
    EXPECT_NE(csv.find("plant,leg-spread,"), std::string::npos) << csv;
}

TEST(Juxta, AnotherSideIsNotComparedAndTheOtherHandIsMirrored) {
    const Walk walk(Stage::Judge);
    JuxtaEntry before = entryOf(walk, 0), now = entryOf(walk, 7);
    before.clip.view = View::Closed;
    before.hand = now.hand == Hand::Right ? Hand::Left : Hand::Right;
    const auto sheet = layOutJuxta({before, now}, test::playbook());
    ASSERT_TRUE(sheet);
    const JuxtaChange* change = changeOf(*sheet, "leg-spread");
    ASSERT_TRUE(change);
    EXPECT_FALSE(change->trend);
    EXPECT_EQ(change->notComparable.id, "juxta.other-side");
    EXPECT_TRUE(sheet->rows[0].fit->mirrored);
    EXPECT_FALSE(sheet->rows[1].fit->mirrored);
}

TEST(Juxta, RefusesOneAndThirteenAndSaysWhyAPositionIsMissing) {
    const Walk walk(Stage::Judge);
    EXPECT_FALSE(layOutJuxta({entryOf(walk, 0)}, test::playbook()));
    EXPECT_FALSE(layOutJuxta(std::vector<JuxtaEntry>(13, entryOf(walk, 0)), test::playbook()));
    JuxtaEntry without = entryOf(walk, 0);
    without.marks.moments.erase(Moment::Plant);
    const auto sheet =
        layOutJuxta({without, entryOf(walk, 7)}, test::playbook(), {.columns = {Moment::Plant}});
    ASSERT_TRUE(sheet);
    EXPECT_EQ(sheet->columns[0].cells[0].why.id, "juxta.not-set");
    EXPECT_TRUE(sheet->columns[0].cells[1].frame);
}

TEST(Juxta, IsAPictureAPageOrATableAndNothingElse) {
    const Walk walk(Stage::Judge);
    const auto sheet = layOutJuxta({entryOf(walk, 0), entryOf(walk, 7)}, test::playbook(),
                                   {.columns = {Moment::Load, Moment::Plant}});
    ASSERT_TRUE(sheet);
    const auto picture = juxtaPicture(*walk.library, *sheet, test::playbook(), english());
    ASSERT_TRUE(picture) << said(picture.error().text);
    EXPECT_GT(picture->width(), 1200);
    FileStore files;
    for (const char* name : {"a.png", "a.pdf"}) {
        ASSERT_TRUE(writeJuxta(*picture, walk.folder / name, files)) << name;
        EXPECT_GT(std::filesystem::file_size(walk.folder / name), 20000U) << name;
    }
    const Status other = writeJuxta(*picture, walk.folder / "a.docx", files);
    ASSERT_FALSE(other);
    EXPECT_NE(said(other.error().text).find(".pdf"), std::string::npos);
    EXPECT_FALSE(std::filesystem::exists(walk.folder / "a.docx"));
    // Both rows show the same frame at one size on one line: pixel for pixel the same.
    const QRect first(2 * 176 + 8, 2 * 104 + 8, 2 * 300 - 16, 2 * 226 - 16);
    EXPECT_EQ(picture->copy(first), picture->copy(first.translated(0, 2 * 234)));
    std::stop_source stop;
    stop.request_stop();
    EXPECT_FALSE(juxtaPicture(*walk.library, *sheet, test::playbook(), english(), stop.get_token()));
}

// Somebody hidden after a review was begun is hidden in its letter, on its stage and on the desk's still,
// too.
TEST(HiddenEverywhere, WhoIsHiddenLaterIsHiddenInReviewsBegunBefore) {
    Walk walk(Stage::Send);
    EXPECT_TRUE(walk.session()->hiddenOn(walk.review.first()).empty());
    Review later = walk.review;
    later.id = {"rev-later"};
    later.revision = 0;
    const Veil veil{{{3, PictureBox{{10, 10}, {60, 90}}}}, {3}, {}};
    later.first().veils["veil-1"] = veil;
    ASSERT_TRUE(walk.library->save(later));
    IdSource ids{3};
    const auto before = ReviewSession::open(*walk.library, walk.book, walk.clock, ids, walk.review.id);
    ASSERT_TRUE(before);
    EXPECT_TRUE((*before)->review().first().veils.empty());
    EXPECT_EQ((*before)->hiddenOn((*before)->delivery()).size(), 1U);
    EXPECT_EQ(previewRecipe(**before).film.marks.veils.size(),
              1U); // still, film and letter are made of these
    const auto desk = readDesk(*walk.library, walk.book, test::today());
    ASSERT_TRUE(desk);
    ASSERT_EQ(desk->waiting.size(), 1U);
    EXPECT_EQ(desk->waiting.front().hidden.size(), 1U);
    // Another delivery of the same film in one review.
    Review both = *walk.library->review({"rev-later"});
    DeliveryMarks second = both.first();
    second.number = 2;
    second.veils.clear();
    both.deliveries.push_back(second);
    ASSERT_TRUE(walk.library->save(both));
    const auto opened = ReviewSession::open(*walk.library, walk.book, walk.clock, ids, both.id);
    EXPECT_EQ((*opened)->hiddenOn(*(*opened)->review().delivery(2)).size(), 1U);
}

} // namespace
} // namespace jg
