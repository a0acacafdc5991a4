// SPDX-License-Identifier: GPL-3.0-or-later
// The window's own widgets, each alone.
#include "tests/ui/driver.h"

#include "ui/film/playhead.h"
#include "ui/film/ribbon.h"
#include "ui/film/stage_view.h"
#include "ui/forms/verdict_look.h"
#include "ui/kit/key_cap.h"
#include "ui/kit/pips.h"
#include "ui/kit/row_list.h"
#include "ui/kit/theme.h"
#include "ui/places/athletes/measure_trend.h"
#include "ui/places/review/line_bar.h"
#include "ui/stages/measure/guide_figure.h"

#include <QSignalSpy>
#include <QWheelEvent>

#include <cmath>

namespace jg::ui {
namespace {

TEST(ClearLayout, TakesWhatStandsInLayoutsWithinItToo) {
    QWidget page;
    auto* column = new QVBoxLayout(&page);
    column->addWidget(new QLabel("above"));
    auto* row = new QHBoxLayout;
    row->addWidget(new QLabel("within"));
    column->addLayout(row);
    page.show();
    ui::clearLayout(*column);
    EXPECT_EQ(column->count(), 0);
    for (const QLabel* left : page.findChildren<QLabel*>()) EXPECT_FALSE(left->isVisible());
}

TEST(Pips, EveryStateHasItsOwnShapeAndWord) {
    Judgement j;
    j.state = JudgeState::Graded;
    j.verdict = Verdict::Keep;
    EXPECT_EQ(lookOf(j).filled, 5);
    j.verdict = Verdict::Change;
    EXPECT_EQ(lookOf(j).filled, 1);
    j.verdict = Verdict::Protect;
    EXPECT_EQ(lookOf(j).shape, VerdictShape::Shield);
    j.verdict.reset();
    j.state = JudgeState::CannotTell;
    EXPECT_EQ(lookOf(j).shape, VerdictShape::Hollow);
    j.state = JudgeState::NotVisible;
    EXPECT_EQ(lookOf(j).shape, VerdictShape::Dash);
    j.state = JudgeState::NotLookedAt;
    EXPECT_EQ(lookOf(j).word, "open");
    EXPECT_EQ(lookOf(std::optional<Grade>(), false).word, "open");
    EXPECT_EQ(lookOf(Grade{GradeState::FaultAbsent, 5, "", {}}, false).word, "fault absent");
    EXPECT_EQ(lookOf(Grade{GradeState::Graded, 2, "", {}}, true).shape, VerdictShape::Shield);
    EXPECT_EQ(lookOf(Grade{GradeState::Graded, 2, "", {}}, false).filled, 2);
    EXPECT_EQ(lookOf(Grade{GradeState::SetAside, 0, "", {}}, false).word, "set aside");
}

TEST(RowList, ChoosesByClickAndByMoving) {
    RowList list;
    std::vector<ListRow> rows(30);
    for (std::size_t i = 0; i < rows.size(); ++i)
        rows[i].title = QString("Row %1").arg(i), rows[i].sub = "small";
    list.setRows(rows);
    list.resize(300, 200);
    list.show();
    QSignalSpy chosen(&list, &RowList::selected);
    QTest::mouseClick(list.viewport(), Qt::LeftButton, Qt::NoModifier, list.rowRect(2).center());
    EXPECT_EQ(list.current(), 2);
    list.move(20);
    EXPECT_EQ(list.current(), 22);
    EXPECT_TRUE(list.viewport()->rect().intersects(list.rowRect(22))); // it scrolled along
    list.move(-100);
    EXPECT_EQ(list.current(), 0);
    EXPECT_EQ(chosen.size(), 3);
    list.setRows({});
    EXPECT_EQ(list.current(), -1);
    list.move(1); // nothing to choose, nothing happens
    EXPECT_EQ(list.current(), -1);
}

TEST(RowList, TheChosenRowStaysInSightWhenTheListShrinks) {
    RowList list;
    std::vector<ListRow> rows(10);
    for (ListRow& row : rows) row.title = "Row", row.sub = "small";
    list.setRows(rows);
    list.resize(300, 600);
    list.show();
    list.setCurrent(7);
    list.resize(300, 200); // a note appears below
    EXPECT_TRUE(list.viewport()->rect().contains(list.rowRect(7)));
}

TEST(RowList, TenThousandRowsAreNoTrouble) {
    RowList list;
    std::vector<ListRow> rows(10000);
    for (auto& r : rows)
        r.title = "A very long name that does not end where one would expect it to end, by far";
    list.setRows(std::move(rows));
    list.resize(220, 400);
    list.show();
    list.setCurrent(9999);
    EXPECT_FALSE(list.grab().isNull());
    EXPECT_TRUE(list.viewport()->rect().intersects(list.rowRect(9999)));
}

TEST(Ribbon, TellsTimeFromFirstTouch) {
    Ribbon r;
    r.setFilm(300, 120);
    EXPECT_EQ(r.timeText(60), "0.50 s");
    r.setMarks({}, {}, 170);
    EXPECT_EQ(r.timeText(170), "0 ms");
    EXPECT_EQ(r.timeText(174), "+33 ms");
    EXPECT_EQ(r.timeText(160), QString("\u2212") + "83 ms");
    r.setFilm(300, 0);
    EXPECT_EQ(r.timeText(12), "frame 12");
}

TEST(Ribbon, EveryPositionKeepsItsNameHoweverCloseTheyLie) {
    Ribbon r;
    r.resize(640, 118);
    r.setFilm(300, 120);
    // The right end of the film's names differs when the one between is there: none is left out.
    const auto painted = [&](std::vector<RibbonPin> pins) {
        r.setMarks(std::move(pins), {}, 170);
        return r.grab(QRect(0, 0, 640, 36)).toImage();
    };
    const RibbonPin touch{170, "Touch"}, plant{174, "Plant"}, lay{186, "Lay"}, release{190, "Release"};
    const QImage all = painted({touch, plant, lay, release});
    EXPECT_NE(all, painted({touch, plant, lay}));
    EXPECT_NE(all, painted({touch, lay, release}));
    EXPECT_NE(all, painted({plant, lay, release}));
}

TEST(Ribbon, ScrubbingGivesTheFrameUnderThePointer) {
    Ribbon r;
    r.resize(836, 118); // 800 px of film
    r.setFilm(401, 60);
    QSignalSpy scrubbed(&r, &Ribbon::scrubbed);
    QTest::mousePress(&r, Qt::LeftButton, Qt::NoModifier, QPoint(18 + 400, 60));
    ASSERT_EQ(scrubbed.size(), 1);
    EXPECT_EQ(scrubbed[0][0].toLongLong(), 200);
    QTest::mousePress(&r, Qt::LeftButton, Qt::NoModifier, QPoint(0, 60));
    EXPECT_EQ(scrubbed[1][0].toLongLong(), 0);
    QTest::mousePress(&r, Qt::LeftButton, Qt::NoModifier, QPoint(835, 60));
    EXPECT_EQ(scrubbed[2][0].toLongLong(), 400);
}

TEST(Playhead, StaysInsideTheFilm) {
    Playhead p;
    p.setFilm(10, 60);
    p.step(-5);
    EXPECT_EQ(p.frame(), 0);
    p.step(100);
    EXPECT_EQ(p.frame(), 9);
    p.setFilm(4, 60);
    EXPECT_EQ(p.frame(), 3);
    p.setFilm(0, 60);
    p.play();
    EXPECT_FALSE(p.playing());
}

TEST(Playhead, SpeedsGoRoundAndPlayingFollowsTheClock) {
    Playhead p;
    p.setFilm(100000, 1000);
    std::vector<double> speeds;
    for (int i = 0; i < 4; ++i) p.slower(), speeds.push_back(p.speed());
    EXPECT_EQ(speeds, (std::vector<double>{0.5, 0.25, 0.1, 1}));
    double now = 0;
    p.setClock([&] { return now; });
    p.play();
    now = 0.3001;
    EXPECT_TRUE(test::waitFor([&] { return p.frame() == 300; })); // a frame a millisecond
    p.slower();
    now = 0.5001;
    EXPECT_TRUE(test::waitFor([&] { return p.frame() == 400; })); // half of that
    p.step(1);
    EXPECT_FALSE(p.playing());
}

TEST(StageView, ZoomKeepsWhatIsUnderThePointer) {
    StageView stage;
    stage.resize(900, 600);
    stage.setPicture(0, {1280, 720, std::make_shared<std::vector<std::uint8_t>>(1280 * 720 * 4, 80)});
    const QPointF at(300, 260);
    const ImagePoint before = stage.transform().toImage(at);
    for (const int turn : {120, 240, -120, 360}) {
        QWheelEvent wheel(at, stage.mapToGlobal(at), {}, {0, turn}, Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(&stage, &wheel);
        const ImagePoint after = stage.transform().toImage(at);
        EXPECT_NEAR(after.x, before.x, 1e-6);
        EXPECT_NEAR(after.y, before.y, 1e-6);
    }
    stage.fit();
    EXPECT_NEAR(stage.transform().scale, std::min(900.0 / 1280, 560.0 / 720), 1e-9);
}

TEST(StageView, AnEmptyStageTakesNoClicks) {
    StageView stage;
    stage.resize(400, 300);
    stage.setMessage("Opening the film");
    QTest::mouseClick(&stage, Qt::LeftButton, Qt::NoModifier, QPoint(200, 150));
    EXPECT_FALSE(stage.grab().isNull());
    EXPECT_EQ(stage.shownFrame(), -1);
}

TEST(LineBar, EveryStationCanBeClicked) {
    LineBar bar;
    bar.resize(1280, 56);
    Counts c;
    c.positions = 8, c.positionsAll = 9;
    bar.setState(Stage::Measure, c, true);
    bar.show();
    QSignalSpy chosen(&bar, &LineBar::chosen);
    QSignalSpy desk(&bar, &LineBar::toDesk);
    for (int i = 0; i < 7; ++i)
        QTest::mouseClick(bar.childAt(bar.stationRect(static_cast<Stage>(i)).center()), Qt::LeftButton);
    EXPECT_EQ(chosen.size(), 7);
    QTest::mouseClick(bar.childAt(bar.deskRect().center()), Qt::LeftButton);
    EXPECT_EQ(desk.size(), 1);
    for (const int width : {1024, 1280, 1920}) { // stations never meet
        bar.resize(width, 56);
        for (int i = 1; i < 7; ++i)
            EXPECT_FALSE(bar.stationRect(static_cast<Stage>(i - 1))
                             .adjusted(6, 0, -6, 0)
                             .intersects(bar.stationRect(static_cast<Stage>(i)).adjusted(6, 0, -6, 0)));
    }
}

TEST(Foot, ASentenceStandsInPlaceOfTheHintsAndGoes) {
    Foot foot;
    foot.setHints({{"Enter", "open", "open"}});
    foot.show();
    foot.tell("Set can't come after Plant.", 1);
    EXPECT_EQ(foot.sentence(), "Set can't come after Plant.");
    EXPECT_TRUE(test::waitFor([&] { return foot.sentence().isEmpty(); }, 3000));
}

MeasureLine line(const char* unit, std::vector<TrendPoint> points, Target target = {}) {
    return {"knee", unit, target, std::move(points), std::nullopt, {}};
}

TEST(Pictures, SmallWidgetsPaintThemselves) {
    GuideFigure figure;
    figure.resize(340, 132);
    figure.show(Landmark::LeadKnee, {Landmark::LeadHip, Landmark::LeadKnee, Landmark::LeadAnkle}, true,
                "180 = straight");
    EXPECT_FALSE(figure.grab().isNull());
    Target t;
    t.type = TargetType::Band;
    t.x = 135;
    t.y = 140;
    const Date october = *parseIsoDate("2026-10-14"), november = *parseIsoDate("2026-11-25");
    MeasureTrend trend("Front knee", line("deg", {{october, 131, 5}, {november, 139, 4}}, t), october,
                       november);
    trend.resize(700, 46);
    const QImage with = trend.grab().toImage();
    MeasureTrend blank("Front knee", line("deg", {}, t), october, november);
    blank.resize(700, 46);
    EXPECT_NE(with, blank.grab().toImage());
}

TEST(Pictures, ATrendStandsAtItsDatesAlsoWhenOneIsMissing) {
    const Date first = *parseIsoDate("2026-09-01"), last = *parseIsoDate("2026-10-01");
    EXPECT_DOUBLE_EQ(placeOnAxis(first, last, first), 0);
    EXPECT_DOUBLE_EQ(placeOnAxis(first, last, *parseIsoDate("2026-09-07")), 0.2);
    EXPECT_DOUBLE_EQ(placeOnAxis(first, last, last), 1);
    EXPECT_DOUBLE_EQ(placeOnAxis(first, first, first), 0.5);
}

TEST(Pictures, ATrendTellsItsLastChange) {
    const Date first = *parseIsoDate("2026-09-01"), last = *parseIsoDate("2026-10-01");
    const MeasureTrend trend("Knee", line("deg", {{first, -12.4, 2}, {last, -0.3, 2}}), first, last);
    EXPECT_EQ(trend.changeWords(), QString("\u221212 \u2192 0\u00b0"));
    EXPECT_EQ(MeasureTrend("Knee", line("deg", {{first, -3, 1}}), first, first).changeWords(),
              QString("\u22123\u00b0"));
}

TEST(Theme, IconsAreSharpAndInTheirColour) {
    for (const char* name : {"shield", "desk", "athletes", "playbook", "post", "app", "down"}) {
        const QImage image = icon(name, palette::clay).pixmap(40, 40).toImage();
        ASSERT_FALSE(image.isNull()) << name;
        bool painted = false;
        for (int y = 0; y < image.height(); ++y)
            for (int x = 0; x < image.width(); ++x) painted |= image.pixelColor(x, y).alpha() > 200;
        EXPECT_TRUE(painted) << name;
    }
    EXPECT_TRUE(icon("no such icon").isNull());
}

// Text contrast at least 4.5 to 1 (WCAG 2.1, success criterion 1.4.3, relative luminance as defined there).
TEST(Theme, TextHasEnoughContrast) {
    const auto luminance = [](const QColor& c) {
        const auto part = [](double v) {
            return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
        };
        return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
    };
    const auto contrast = [&](const QColor& a, const QColor& b) {
        const double x = luminance(a), y = luminance(b);
        return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
    };
    for (const QColor& ground : {palette::paper, palette::sheet, palette::shade}) {
        EXPECT_GE(contrast(palette::ink, ground), 4.5);
        EXPECT_GE(contrast(palette::quiet, ground), 4.5);
    }
    // Words in clay stand on paper and cards only; on the shade they would fall just short (4.4).
    for (const QColor& ground : {palette::paper, palette::sheet})
        EXPECT_GE(contrast(palette::clay, ground), 4.5);
    EXPECT_GE(contrast(Qt::white, palette::clay), 4.5);
    EXPECT_GE(contrast(palette::chalk, palette::moss), 4.5);
    EXPECT_GE(contrast(palette::chalk, palette::stage), 4.5);
    EXPECT_GE(contrast(palette::chalk, palette::casing), 4.5);
}

// Rows are as high as their text is wide: a list that becomes narrower lays them out anew, chosen row or not.
TEST(RowList, RowsDoNotOverlapAfterItBecameNarrower) {
    ui::RowList list;
    std::vector<ui::ListRow> rows(8);
    for (ui::ListRow& row : rows) {
        row.title = "Head stays over the back foot in the load";
        row.sub = "Deepest load";
    }
    list.resize(700, 500);
    list.setRows(rows);
    list.show();
    ASSERT_TRUE(QTest::qWaitForWindowExposed(&list));
    list.resize(240, 500);
    QTest::qWait(50);
    for (int i = 0; i + 1 < 8; ++i) {
        const QRect now = list.rowRect(i), next = list.rowRect(i + 1);
        EXPECT_LT(now.bottom(), next.top()) << i;
        EXPECT_GT(now.height(), 55) << i; // two lines of the name, one below
    }
}

} // namespace
} // namespace jg::ui
