// Single places of the real window.
#include "tests/ui/driver.h"

#include "apps/post_office/smtp_server.h"
#include "desk/places.h"
#include "ui/actions.h"
#include "ui/desk/intake_dialog.h"
#include "ui/review/ribbon.h"
#include "ui/review/say_bench.h"
#include "ui/row_list.h"
#include "ui/shortcut_sheet.h"

#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTimer>

#include <csignal>
#include <fstream>
#include <random>
#include <set>
#include <sys/wait.h>
#include <unistd.h>

namespace jg {
namespace {

using test::Driver;
using test::TempFolder;
using test::waitFor;
using test::Walk;

TEST(Actions, NoTwoKeysClashAnywhere) {
    EXPECT_EQ(ui::clashes(ui::actionTable()).join("; ").toStdString(), "");
}

TEST(Actions, AClashWouldBeFound) {
    const std::vector<ui::ActionRow> table = {{"a", "A", {QKeySequence("X")}, ui::AtJudge},
                                              {"b", "B", {QKeySequence("X")}, ui::InReview}};
    EXPECT_EQ(ui::clashes(table).size(), 1);
}

TEST(Actions, EveryRowHasATextAPlaceAndAKey) {
    std::set<QString> ids;
    for (const ui::ActionRow& row : ui::actionTable()) {
        EXPECT_TRUE(ids.insert(row.id).second) << row.id.toStdString();
        EXPECT_FALSE(row.text.isEmpty());
        EXPECT_FALSE(row.keys.isEmpty());
        EXPECT_NE(row.where, 0U);
    }
}

TEST(Window, TheShortcutSheetListsTheWholeTable) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.key(Qt::Key_F1);
    auto* sheet = d.window().findChild<QDialog*>("shortcuts");
    ASSERT_TRUE(sheet);
    QStringList words;
    for (const QLabel* l : sheet->findChildren<QLabel*>()) words << l->text();
    for (const ui::ActionRow& row : ui::actionTable())
        EXPECT_TRUE(words.contains(row.text)) << row.text.toStdString();
    d.key(Qt::Key_Escape);
    EXPECT_TRUE(waitFor([&] { return !d.window().findChild<QDialog*>("shortcuts") || !sheet->isVisible(); }));
}

/// A numbered film of its own in the walk's library.
Submission numberedFilm(Walk& walk, int fps = 60) {
    FilmOrder order = walk.order;
    order.fps = fps;
    order.frameNumbers = true;
    order.seed = 99;
    EXPECT_TRUE(makeFilm(order, walk.folder / "numbered.mp4"));
    auto looked = lookAtFilm(walk.folder / "numbered.mp4");
    const IntakeForm form{walk.athlete.id,
                          {{walk.folder / "numbered.mp4", View::Open, static_cast<double>(fps)}},
                          "stretch",
                          "mound",
                          "",
                          "",
                          test::today()};
    return *takeIn(*walk.library, form, {*looked}, walk.clock, walk.ids);
}

TEST(Window, SteppingIsExactBothWays) {
    Walk walk(Stage::Look);
    const Submission submission = numberedFilm(walk);
    Driver d(walk.library->folder());
    d.window().openReview(submission.id);
    d.waitForPicture();
    const auto shown = [&] {
        const Picture& p = d.review().stage().picture();
        return burnedNumber(p.pixels->data(), p.stride(), p.width);
    };
    for (int i = 0; i < 40; ++i) {
        d.key(i % 3 == 2 ? Qt::Key_Left : Qt::Key_Right);
        d.waitForPicture();
        ASSERT_EQ(shown(), d.review().playhead().frame());
    }
    d.key(Qt::Key_End);
    d.waitForPicture();
    EXPECT_EQ(shown(), submission.clips[0].frames - 1);
    for (int i = 0; i < 20; ++i) {
        d.key(Qt::Key_Left);
        d.waitForPicture();
        ASSERT_EQ(shown(), d.review().playhead().frame());
    }
    // A scrub with the mouse, and play at true speed by the clock.
    d.key(Qt::Key_Home);
    d.key(Qt::Key_Space);
    EXPECT_TRUE(waitFor([&] { return d.review().playhead().frame() >= 30; }, 4000));
    d.key(Qt::Key_Space);
    EXPECT_FALSE(d.review().playhead().playing());
    d.waitForPicture();
    EXPECT_EQ(shown(), d.review().playhead().frame());
}

TEST(Window, AHeldKeyAndAFastScrubNeverShowAWrongPicture) {
    Walk walk(Stage::Look);
    const Submission submission = numberedFilm(walk);
    Driver d(walk.library->folder());
    d.window().openReview(submission.id);
    d.waitForPicture();
    int seen = 0;
    QObject::connect(d.review().findChild<ui::FilmDeck*>(), &ui::FilmDeck::pictureShown, [&] {
        const ui::StageView& stage = d.review().stage();
        if (!stage.exact()) return;
        const Picture& p = stage.picture();
        EXPECT_EQ(burnedNumber(p.pixels->data(), p.stride(), p.width), stage.shownFrame());
        ++seen;
    });
    d.key(Qt::Key_End);
    const qint64 last = d.review().playhead().frame();
    for (qint64 i = 0; i < last; ++i) d.key(Qt::Key_Left); // as fast as the window takes them
    EXPECT_EQ(d.review().playhead().frame(), 0);
    d.waitForPicture();
    std::mt19937 engine(4);
    for (int i = 0; i < 150; ++i) {
        d.review().playhead().jump(engine() % static_cast<unsigned>(last));
        QCoreApplication::processEvents();
    }
    d.waitForPicture();
    EXPECT_TRUE(d.review().stage().exact());
    EXPECT_GT(seen, 2);
}

/// How long the window took no events, in milliseconds, while it lives.
class Latency : public QObject {
public:
    Latency() {
        clock_.start();
        timer_.setTimerType(Qt::PreciseTimer);
        connect(&timer_, &QTimer::timeout, this, [this] {
            const qint64 now = clock_.nsecsElapsed();
            waits.push_back(static_cast<double>(now - last_) * 1e-6 - 2);
            last_ = now;
        });
        last_ = clock_.nsecsElapsed();
        timer_.start(2);
    }
    double partBelow(double ms) const {
        const auto n = std::count_if(waits.begin(), waits.end(), [&](double w) { return w < ms; });
        return static_cast<double>(n) / static_cast<double>(waits.size());
    }
    std::vector<double> waits;

private:
    QTimer timer_;
    QElapsedTimer clock_;
    qint64 last_ = 0;
};

int threadsNow() {
    return static_cast<int>(std::distance(std::filesystem::directory_iterator("/proc/self/task"), {}));
}

/// The back key held over 500 frames as a keyboard repeats it, then a scrub with the mouse.
TEST(Window, AnswersWhileTheBackKeyIsHeldAndWhileScrubbing) {
    Walk walk(Stage::Look);
    const Submission submission = numberedFilm(walk, 240);
    ASSERT_GT(submission.clips[0].frames, 500);
    Driver d(walk.library->folder());
    d.window().openReview(submission.id);
    d.waitForPicture();
    d.key(Qt::Key_Backspace);
    ASSERT_TRUE(waitFor([&] { return !d.window().reviewPlace(); }));
    QTest::qWait(300);
    const int threads = threadsNow();
    d.window().openReview(submission.id);
    d.waitForPicture();
    int shown = 0;
    QObject::connect(d.review().findChild<ui::FilmDeck*>(), &ui::FilmDeck::pictureShown, [&] {
        const ui::StageView& stage = d.review().stage();
        if (!stage.exact()) return;
        const Picture& p = stage.picture();
        EXPECT_EQ(burnedNumber(p.pixels->data(), p.stride(), p.width), stage.shownFrame());
        ++shown;
    });
    d.key(Qt::Key_End);
    d.waitForPicture();
    const qint64 last = d.review().playhead().frame();
    Latency held;
    for (int i = 0; i < 500; ++i) {
        d.key(Qt::Key_Left);
        QTest::qWait(14);
    }
    EXPECT_EQ(d.review().playhead().frame(), last - 500);
    EXPECT_GT(shown, 400);
    auto* ribbon = d.review().findChild<ui::Ribbon*>();
    Latency scrubbed;
    QTest::mousePress(ribbon, Qt::LeftButton, {}, {40, 90});
    for (int i = 0; i < 200; ++i) {
        QTest::mouseMove(ribbon, {40 + (i * 37) % (ribbon->width() - 80), 90});
        QTest::qWait(5);
    }
    QTest::mouseRelease(ribbon, Qt::LeftButton, {}, {40, 90});
    d.waitForPicture();
    EXPECT_TRUE(d.review().stage().exact());
    // Another program may take the processor once; the window itself keeps within it.
    EXPECT_GT(held.partBelow(50), 0.99);
    EXPECT_GT(scrubbed.partBelow(50), 0.99);
    RecordProperty("worstHeldMs", static_cast<int>(*std::max_element(held.waits.begin(), held.waits.end())));
    RecordProperty("worstScrubMs",
                   static_cast<int>(*std::max_element(scrubbed.waits.begin(), scrubbed.waits.end())));
    // Left in the middle of a group: nothing goes on decoding.
    d.review().playhead().jump(last / 2);
    d.key(Qt::Key_Backspace);
    EXPECT_TRUE(waitFor([&] { return !d.window().reviewPlace() && threadsNow() <= threads; }))
        << threadsNow();
}

TEST(Window, PlaysBackwardAndRoundAndToldByTheFiguresLine) {
    Walk walk(Stage::Positions);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    auto& head = d.review().playhead();
    d.key(Qt::Key_End);
    const qint64 last = head.frame();
    d.key(Qt::Key_V, Qt::ShiftModifier);
    EXPECT_EQ(head.direction(), -1);
    ASSERT_TRUE(waitFor([&] { return head.frame() < last - 10; }));
    d.key(Qt::Key_V);
    EXPECT_FALSE(head.playing());
    const qint64 touch = *d.document().frameOf(Moment::FootTouch),
                 plant = *d.document().frameOf(Moment::Plant);
    head.jump(touch);
    d.key(Qt::Key_L);
    ASSERT_TRUE(head.loop());
    EXPECT_EQ(head.loop()->first, touch);
    EXPECT_EQ(head.loop()->second, plant);
    bool inside = true;
    QObject::connect(&head, &ui::Playhead::moved, [&](qint64 f) { inside &= f >= touch && f <= plant; });
    EXPECT_TRUE(waitFor([&] { return head.passed() > 3 * (plant - touch); }));
    EXPECT_TRUE(inside);
    d.key(Qt::Key_L);
    EXPECT_FALSE(head.loop());
    d.key(Qt::Key_I);
    EXPECT_TRUE(d.review().stage().details().contains("MB held"));
    d.key(Qt::Key_I);
    EXPECT_TRUE(d.review().stage().details().isEmpty());
}

TEST(Window, TheSuggestedFrameIsGoneToAndOnlyTakenByEnter) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    ASSERT_FALSE(d.review().session().clip().deliveries.empty());
    d.key(Qt::Key_PageDown);
    d.key(Qt::Key_G);
    EXPECT_TRUE(d.document().moments.empty());
    const qint64 frame = d.review().session().clip().deliveries[0].places.at(Moment::Set).frame;
    EXPECT_EQ(d.review().playhead().frame(), frame);
    d.key(Qt::Key_Return);
    EXPECT_EQ(d.document().frameOf(Moment::Set), frame);
}

TEST(Window, OneOfTwoDeliveriesIsTakenForTheReviewAndPositionsKeepToIt) {
    Walk walk(Stage::Look);
    FilmOrder order = walk.order;
    order.deliveries = 2;
    ASSERT_TRUE(makeFilm(order, walk.folder / "two.mp4"));
    auto looked = lookAtFilm(walk.folder / "two.mp4");
    ASSERT_TRUE(looked);
    const IntakeForm form{
        walk.athlete.id, {{walk.folder / "two.mp4", View::Open, 60}}, "stretch", "mound", "", "",
        test::today()};
    const Submission submission = *takeIn(*walk.library, form, {*looked}, walk.clock, walk.ids);
    Driver d(walk.library->folder());
    d.window().openReview(submission.id);
    d.waitForPicture();
    const auto& found = d.review().session().clip().deliveries;
    ASSERT_EQ(found.size(), 2U);
    EXPECT_FALSE(d.document().cut); // offered, not taken
    d.click(d.button(&d.review(), "Review this one"));
    EXPECT_EQ(d.document().cut, (FrameSpan{found[0].first, found[0].last}));
    d.key(Qt::Key_Z);
    EXPECT_FALSE(d.document().cut);
    d.key(Qt::Key_End); // the second lies under the playhead there
    d.key(Qt::Key_D);
    ASSERT_EQ(d.document().cut, (FrameSpan{found[1].first, found[1].last}));
    d.key(Qt::Key_Home);
    EXPECT_EQ(d.review().playhead().frame(), found[1].first);
    d.key(Qt::Key_Return);
    d.key(Qt::Key_G); // the suggestion is the chosen delivery's
    EXPECT_TRUE(d.document().cut->holds(d.review().playhead().frame()));
    d.review().playhead().jump(10);
    d.waitForPicture();
    d.key(Qt::Key_Return);
    EXPECT_TRUE(d.document().moments.empty()); // outside the delivery: refused in words
}

TEST(Window, AnotherFilmIsAskedForInWordsAndWithADrawing) {
    Walk walk(Stage::Look, Hand::Left);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_R);
    auto* dialog = d.review().findChild<QDialog*>("refilm");
    ASSERT_TRUE(dialog);
    auto* words = dialog->findChild<QPlainTextEdit*>("refilm-text");
    EXPECT_TRUE(words->toPlainText().contains("first-base side")); // the open side of a left-hander
    EXPECT_TRUE(words->toPlainText().contains("film at 120 or more"));
    const auto drawing = [&] { return dialog->findChild<QLabel*>("refilm-drawing")->pixmap().toImage(); };
    const QImage side = drawing();
    dialog->findChild<QComboBox*>("refilm-view")->setCurrentIndex(2);
    EXPECT_TRUE(words->toPlainText().contains("behind a net or a screen"));
    EXPECT_NE(drawing(), side);
    d.click(d.button(dialog, "Copy the text"));
    EXPECT_EQ(QGuiApplication::clipboard()->text(), words->toPlainText());
    dialog->close();
}

TEST(Window, ASaidStopCanBeListenedTo) {
    Walk walk;
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    d.waitForPicture();
    d.key(Qt::Key_P);
    EXPECT_TRUE(d.review().foot().sentence().contains("Listening"));
    d.key(Qt::Key_Escape);
    EXPECT_FALSE(d.review().foot().sentence().contains("Listening"));
}

TEST(Window, PositionsOutOfOrderAreRefusedWithAWord) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageDown);
    d.stepTo(40);
    d.key(Qt::Key_Return); // Set at 40
    d.stepTo(20);
    d.key(Qt::Key_Return); // the top of the lift can't come before
    EXPECT_TRUE(d.review().foot().sentence().contains("can't come before"));
    EXPECT_EQ(d.document().moments.size(), 1U);
    d.key(Qt::Key_H);
    auto* reason = d.review().findChild<QDialog*>("reason");
    ASSERT_TRUE(reason);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(reason));
    QTest::keyClick(reason, Qt::Key_4);
    EXPECT_TRUE(
        waitFor([&] { return d.document().moments.size() == 2 && !QApplication::activeModalWidget(); }));
    EXPECT_EQ(d.document().moments.at(Moment::LiftTop).notVisible, "blurred");
    d.key(Qt::Key_Z);
    EXPECT_EQ(d.document().moments.size(), 1U);
    d.key(Qt::Key_Z, Qt::ShiftModifier);
    EXPECT_EQ(d.document().moments.size(), 2U);
}

TEST(Window, ADraggedPointMovesEveryNumberAndUndoBringsThemBack) {
    Walk walk(Stage::Judge, Hand::Left);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    const auto plant = *d.document().frameOf(Moment::Plant);
    d.stepTo(plant);
    const auto values = [&] {
        std::map<std::string, double> v;
        for (const MeasureRow& m : d.review().session().assessment().measures)
            if (m.value.value) v[m.id] = *m.value.value;
        return v;
    };
    const auto before = values();
    const ImagePoint ankle = d.document().point(plant, Landmark::LeadAnkle)->point.at;
    d.dragPicture(ankle, {ankle.x - 14, ankle.y - 3});
    const auto after = values();
    for (const char* id : {"leg-spread", "front-knee-plant", "stride", "front-knee-change"})
        EXPECT_GT(std::abs(after.at(id) - before.at(id)), 0.2) << id;
    EXPECT_EQ(after.at("elbow-bend"), before.at("elbow-bend"));
    d.key(Qt::Key_Z); // one drag, one step
    EXPECT_EQ(values(), before);
    d.key(Qt::Key_Left, Qt::ShiftModifier); // a nudge of half a pixel
    const ImagePoint nudged = d.document().point(plant, Landmark::LeadAnkle)->point.at;
    EXPECT_NEAR(nudged.x, ankle.x - 0.5, 1e-9);
}

/// Places every point asked for where it truly is; returns the clicks.
int clickAllPoints(Driver& d, const FilmOrder& order) {
    const Delivery delivery(order.knobs);
    int clicks = 0;
    for (; clicks < 300; ++clicks) {
        auto* bench = qobject_cast<ui::MeasureBench*>(d.review().bench());
        if (!bench || !bench->step()) break;
        const GuideStep step = *bench->step();
        if (step.frame != d.review().playhead().frame()) d.key(Qt::Key_Return);
        d.waitForPicture();
        const Pose pose = delivery.poseAt(delivery.startS() + static_cast<double>(step.frame) / order.fps);
        d.clickPicture(projectJoints(order, pose).at(step.landmark));
    }
    return clicks;
}

std::map<std::string, double> numbersOf(Driver& d) {
    std::map<std::string, double> numbers;
    for (const MeasureRow& m : d.review().session().assessment().measures)
        if (m.value.value) numbers[m.id] = *m.value.value;
    return numbers;
}

TEST(Window, FortyNumbersComeFromTheCatalogueByKeysAndClicks) {
    Walk walk(Stage::Positions);
    {
        auto session = walk.session(); // the positions stay, the points are all to be clicked
        Edit clear{"clear", {}};
        for (const auto& [key, mark] : walk.review.points)
            clear.changes.push_back(SetPoint{key, std::nullopt});
        ASSERT_TRUE(session->perform(clear));
    }
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageDown);
    d.key(Qt::Key_A);
    auto* picker = d.window().findChild<QDialog*>("measure-picker");
    ASSERT_TRUE(picker);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(picker));
    // What the approach sets can't be taken away; what this side can't show can't be taken.
    EXPECT_FALSE(picker->findChild<QCheckBox*>("back-knee")->isEnabled());
    EXPECT_FALSE(picker->findChild<QCheckBox*>("trunk-side")->isEnabled());
    d.click(d.button(picker, "Tick all this view shows"));
    d.click(d.button(picker, "Take these"));
    ASSERT_TRUE(waitFor([&] { return !d.document().extras.empty(); }));
    d.window().activateWindow();
    ASSERT_TRUE(d.document().points.empty());
    const int clicks = clickAllPoints(d, walk.order);
    const auto before = numbersOf(d);
    EXPECT_GE(before.size(), 40U);
    RecordProperty("numbers", static_cast<int>(before.size()));
    RecordProperty("clicks", clicks);
    // One shared point: the back ankle at plant.
    const std::int64_t plant = *d.document().frameOf(Moment::Plant);
    d.stepTo(plant);
    const ImagePoint at = d.document().point(plant, Landmark::BackAnkle)->point.at;
    d.dragPicture(at, {at.x - 14, at.y});
    const auto after = numbersOf(d);
    for (const char* id : {"leg-spread", "stride", "back-leg-lean", "stretch-angle"})
        EXPECT_NE(after.at(id), before.at(id)) << id;
    EXPECT_EQ(after.at("trunk-forward"), before.at("trunk-forward"));
    d.key(Qt::Key_Z);
    EXPECT_EQ(numbersOf(d), before);
}

TEST(Window, AMeasureWithoutPointsIsAnsweredByItsKey) {
    Walk walk(Stage::Positions);
    Driver d(walk.library->folder());
    {
        auto session = walk.session();
        ASSERT_TRUE(session->perform({"take", {SetExtras{{"landing-part", "spin"}}}}));
    }
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageDown);
    const auto row = [&](const std::string& id) { return *d.review().session().assessment().measure(id); };
    auto* list = d.review().findChild<ui::RowList*>("measures");
    const auto count = static_cast<int>(d.review().session().assessment().measures.size());
    list->setCurrent(count - 2);
    d.key(Qt::Key_U);
    auto* choice = d.window().findChild<QDialog*>("seen");
    ASSERT_TRUE(choice);
    QTest::keyClick(choice, Qt::Key_2);
    ASSERT_TRUE(waitFor([&] { return row("landing-part").value.words == "heel"; }));
    d.window().activateWindow();
    list->setCurrent(count - 1);
    const std::int64_t release = *d.document().frameOf(Moment::Release);
    d.stepTo(release + 4);
    d.key(Qt::Key_U);
    EXPECT_EQ(d.document().frameOf(Moment::BallAway), release + 4);
    d.key(Qt::Key_U);
    auto* number = d.window().findChild<QDialog*>("number");
    ASSERT_TRUE(number);
    QTest::keyClicks(number->findChild<QLineEdit*>(), "1.5");
    QTest::keyClick(number->findChild<QLineEdit*>(), Qt::Key_Return);
    ASSERT_TRUE(waitFor([&] { return row("spin").value.value.has_value(); }));
    EXPECT_NEAR(*row("spin").value.value, 60 * 60 * 1.5 / 4, 1e-9);
    d.window().activateWindow();
    d.key(Qt::Key_Z);
    EXPECT_FALSE(row("spin").value.value);
}

TEST(Window, FreeMarksArePlacedByKeysAndClicks) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.stepTo(10);
    const std::size_t had = d.document().marks.size();
    const struct {
        int key;
        MarkKind kind;
        std::vector<ImagePoint> points;
    } marks[] = {{Qt::Key_2, MarkKind::Level, {{20, 150}, {300, 152}}},
                 {Qt::Key_3, MarkKind::Line, {{30, 30}, {90, 60}}},
                 {Qt::Key_4, MarkKind::HeadBox, {{120, 20}, {150, 50}}},
                 {Qt::Key_5, MarkKind::Angle, {{200, 40}, {230, 80}, {270, 60}}}};
    for (const auto& m : marks) {
        d.key(m.key);
        for (const ImagePoint p : m.points) d.clickPicture(p);
    }
    EXPECT_EQ(d.document().marks.size(), had + 4);
    d.key(Qt::Key_Delete); // the last one is selected
    EXPECT_EQ(d.document().marks.size(), had + 3);
    d.key(Qt::Key_Z);
    EXPECT_EQ(d.document().marks.size(), had + 4);
}

TEST(Window, WithoutAMicrophoneItSaysSoAndEverythingElseGoesOn) {
    Walk walk;
    Driver d(walk.library->folder(), 1, {});
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_PageUp);
    ASSERT_EQ(d.review().stageOfWalk(), Stage::Say);
    const auto takes = d.document().takes.size();
    d.key(Qt::Key_R);
    EXPECT_TRUE(d.review().foot().sentence().contains("microphone"));
    EXPECT_EQ(d.document().takes.size(), takes);
    d.key(Qt::Key_PageDown);
    EXPECT_EQ(d.review().stageOfWalk(), Stage::Prescribe);
}

TEST(Window, SendingIsRefusedUntilPainIsConfirmed) {
    Walk walk(Stage::Send, Hand::Right, 13, "Elbow sore since Sunday.");
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    ASSERT_EQ(d.review().stageOfWalk(), Stage::Send);
    d.key(Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(d.window().library().outbox()->empty());
    auto* confirm = d.review().findChild<QCheckBox*>("confirm-pain");
    ASSERT_TRUE(confirm->isVisible());
    d.click(confirm, QPoint(8, confirm->height() / 2));
    EXPECT_TRUE(d.document().plan.painConfirmed);
}

TEST(Window, ARefusedServerLeavesTheLetterInTheOutbox) {
    Walk walk;
    ASSERT_TRUE(walk.library->setSetting("mail.url", "smtp://127.0.0.1:1"));
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    auto* state = d.review().findChild<QLabel*>("send-state");
    d.key(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return state->text().contains("outbox"); }, 120000))
        << state->text().toStdString();
    EXPECT_TRUE(state->text().contains("Nobody answers"));
    EXPECT_EQ(d.window().library().outbox()->at(0).state, "failed");
    EXPECT_FALSE(d.document().sent);

    // Later, from the post: the same as sending at once.
    TempFolder post;
    SmtpServer office{QString::fromStdString(post.path().string())};
    ASSERT_TRUE(office.listen(0));
    d.window().library().setSetting("mail.url", "smtp://127.0.0.1:" + std::to_string(office.port()));
    const ReviewId review = d.document().id;
    d.key(Qt::Key_Backspace);
    d.key(Qt::Key_P, Qt::AltModifier);
    d.click(d.button(&d.window(), "Send now"));
    ASSERT_TRUE(waitFor([&] { return d.window().library().outbox()->at(0).state == "sent"; }));
    const auto stored = d.window().library().review(review);
    EXPECT_TRUE(stored->sent);
    ASSERT_EQ(d.window().library().promises()->size(), 1U);
    EXPECT_EQ(d.window().library().promises()->at(0).due, stored->plan.nextLook);
}

TEST(Window, ABrokenFilmIsRefusedInTheIntakeAndNothingIsStored) {
    Walk walk(Stage::Look);
    std::ofstream(walk.folder / "letter.mp4") << "no film";
    Driver d(walk.library->folder());
    d.drop(QString::fromStdString((walk.folder / "letter.mp4").string()));
    auto* dialog = d.window().findChild<QDialog*>("intake");
    ASSERT_TRUE(dialog);
    dialog->findChild<QComboBox*>("who")->setCurrentIndex(1);
    ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
    d.click(d.button(dialog, "Take in"));
    auto* problem = dialog->findChild<QLabel*>("intake-problem");
    EXPECT_TRUE(waitFor([&] { return problem->text().contains("not a film"); }))
        << problem->text().toStdString();
    EXPECT_EQ(d.window().library().submissions()->size(), 1U);
    dialog->close();
}

TEST(Window, AMissingFilmIsSaidOnTheStage) {
    Walk walk(Stage::Judge);
    std::filesystem::remove(walk.library->mediaPath(walk.submission.clips[0]));
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    EXPECT_TRUE(waitFor([&] { return d.review().foot().sentence().contains("no file"); }));
}

TEST(Window, EveryPlaceAndStageFitsTheSmallestWindow) {
    Walk walk;
    Driver d(walk.library->folder());
    d.window().resize(1024, 640);
    const auto clipped = [&](QWidget* root) {
        QStringList found;
        for (QPushButton* b : root->findChildren<QPushButton*>()) {
            if (!b->isVisible()) continue;
            bool scrolled = false;
            for (QWidget* w = b->parentWidget(); w; w = w->parentWidget())
                scrolled |= qobject_cast<QScrollArea*>(w) != nullptr;
            const QRect inWindow(b->mapTo(&d.window(), QPoint(0, 0)), b->size());
            if (!scrolled && !d.window().rect().contains(inWindow)) found << b->text();
        }
        return found.join(", ").toStdString();
    };
    for (const char* place : {"desk", "athletes", "playbook", "post"}) {
        d.window().showPlace(place);
        QTest::qWait(10);
        EXPECT_EQ(clipped(&d.window()), "") << place;
    }
    d.window().openReview(walk.submission.id);
    for (int i = 0; i < 7; ++i) {
        QTest::qWait(10);
        EXPECT_EQ(clipped(&d.window()), "") << i;
        EXPECT_GE(d.review().stage().width() * 100 / d.window().width(), 60) << i;
        d.key(Qt::Key_PageUp);
    }
}

TEST(Window, AnEmptyLibrarySaysWhatToDoFirst) {
    const test::TempFolder folder;
    Driver d(folder / "new");
    QStringList words;
    for (const QLabel* l : d.window().findChildren<QLabel*>())
        if (l->isVisible()) words << l->text();
    EXPECT_TRUE(words.join(" ").contains("Drop film files on this window"));
}

/// True when the write-ahead log was written after `before`.
bool grownSince(const std::filesystem::path& wal, std::filesystem::file_time_type before) {
    std::error_code ec;
    const auto now = std::filesystem::last_write_time(wal, ec);
    return !ec && now > before && std::filesystem::file_size(wal, ec) > 0;
}

// A killed process loses at most the edit in flight: the window edits in a storm and is killed at 50 random
// moments.
TEST(Window, KilledAtFiftyMomentsTheLibraryOpensAndVerifies) {
    Walk walk(Stage::Judge);
    const std::string lib = walk.library->folder().string();
    const ReviewId id = walk.review.id;
    walk.library.reset();
    std::mt19937 engine(20261125);
    const std::string storm = (test::binFolder() / "edit_storm").string();
    const std::filesystem::path wal = lib + "/library.sqlite-wal";
    int edited = 0;
    std::string last;
    for (int i = 0; i < 50; ++i) {
        const auto before = std::filesystem::exists(wal) ? std::filesystem::last_write_time(wal)
                                                         : std::filesystem::file_time_type::min();
        const pid_t child = ::fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            ::execl(storm.c_str(), storm.c_str(), lib.c_str(), static_cast<char*>(nullptr));
            ::_exit(127);
        }
        // Every fifth is killed while it starts, the others among their edits, however slow the machine.
        if (i % 5 != 0) {
            ASSERT_TRUE(waitFor([&] { return grownSince(wal, before); })) << "the storm did not begin";
        }
        ::usleep(static_cast<useconds_t>(engine() % 200000));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        ASSERT_TRUE(WIFSIGNALED(status)) << "the storm ended by itself with " << WEXITSTATUS(status);
        auto library = Library::open(lib, false, std::make_shared<FileStore>());
        ASSERT_TRUE(library) << i << ": " << library.error().text;
        const auto problems = (*library)->verify();
        ASSERT_TRUE(problems.empty()) << i << ": " << problems.front();
        const auto review = (*library)->review(id);
        ASSERT_TRUE(review) << review.error().text;
        const std::string now = review->plan.opening;
        edited += now != last;
        last = now;
    }
    EXPECT_GE(edited, 25); // the kills fell among real edits
}

} // namespace
} // namespace jg
