// SPDX-License-Identifier: GPL-3.0-or-later
// The whole walk by mouse and keys: a film is dropped on the window, a letter lies in the post office.
#include "tests/ui/driver.h"

#include "apps/post_office/smtp_server.h"
#include "base/number.h"
#include "desk/keeping/places.h"
#include "kinematics/answers.h"
#include "letter/film_plan.h"
#include "post/mail.h"
#include "review/tell/weighing.h"
#include "ui/kit/row_list.h"
#include "ui/places/desk/intake_dialog.h"
#include "ui/stages/say/say_bench.h"

#include <QComboBox>
#include <QDialog>
#include <QDir>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include <nlohmann/json.hpp>

#include <cmath>

namespace jg {
namespace {

using test::Driver;
using test::TempFolder;
using test::waitFor;

class WholeWalk : public testing::Test {
protected:
    explicit WholeWalk(View view = View::Open) { order.camera.view = view; }

    void SetUp() override {
        order.camera.width = 640;
        order.camera.height = 360;
        order.knobs.legSpread = 88;
        order.knobs.backKneeLoad = 122;
        order.knobs.trunkForward = 32;
        order.knobs.frontKneeRelease = 128;
        ASSERT_TRUE(makeFilm(order, folder / "phone.mp4"));
        {
            auto library = Library::open(folder / "lib", true, std::make_shared<FileStore>());
            ASSERT_TRUE(library);
            ASSERT_TRUE(office.listen(0));
            ASSERT_TRUE(
                (*library)->setSetting("mail.url", "smtp://127.0.0.1:" + std::to_string(office.port())));
            ASSERT_TRUE((*library)->setSetting("mail.from", "ilse@example.org"));
            ASSERT_TRUE((*library)->setSetting("house.coach", "Ilse Varnholt"));
            ASSERT_TRUE((*library)->setSetting("house.place", "The Tram Shed, Larkmoor"));
            // Somebody else is in the library too: their name must not turn up in the letter.
            Athlete other{{"ath-pia"},           "Pia", "Thorsgaard",      *parseIsoDate("2009-03-09"),
                          Hand::Right,           "",    "pia@example.org", "Parent of Pia",
                          "pia.home@example.org"};
            ASSERT_TRUE(test::put(*(*library), other));
        }
        driver = std::make_unique<Driver>(folder / "lib");
    }

    std::int64_t frameOf(Moment m) const {
        const double at = (delivery.events().at(m) - delivery.startS()) * order.fps;
        const bool last = m == Moment::Set || m == Moment::Release;
        const bool turning =
            m == Moment::LiftTop || m == Moment::Load || m == Moment::Layback || m == Moment::Finish;
        return static_cast<std::int64_t>(last      ? std::floor(at)
                                         : turning ? std::round(at)
                                                   : std::ceil(at - 1e-6));
    }

    void takeIn() {
        driver->drop(QString::fromStdString((folder / "phone.mp4").string()));
        auto* dialog = driver->window().findChild<QDialog*>("intake");
        ASSERT_TRUE(dialog);
        ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
        auto* who = dialog->findChild<QComboBox*>("who");
        who->setCurrentIndex(who->count() - 1);
        driver->type(dialog->findChild<QLineEdit*>("first-name"), "Ludo");
        driver->type(dialog->findChild<QLineEdit*>("last-name"), "Merrick");
        driver->type(dialog->findChild<QLineEdit*>("born"), "9 March 2011");
        driver->type(dialog->findChild<QLineEdit*>("guardian-name"), "Parent of Ludo");
        driver->type(dialog->findChild<QLineEdit*>("guardian-email"), "ludo.home@example.org");
        driver->type(dialog->findChild<QLineEdit*>("asked"), "Why short?");
        dialog->findChild<QComboBox*>("view")->setCurrentIndex(static_cast<int>(order.camera.view));
        driver->click(driver->button(dialog, "Take in"));
        ASSERT_TRUE(waitFor([&] {
            return driver->window().library().submissions()->size() == 1 &&
                   !QApplication::activeModalWidget();
        })) << dialog->findChild<QLabel*>("intake-problem")->text().toStdString();
    }

    void setPositions() {
        for (const MomentInfo& m : keyPositions()) {
            driver->stepTo(frameOf(m.moment));
            driver->key(Qt::Key_Return);
            ASSERT_EQ(driver->delivery().frameOf(m.moment), frameOf(m.moment)) << m.id;
        }
    }

    /// What is seen, and frames beside the key positions: each by U on its row.
    void answerWhatHasNoPoints() {
        const std::map<Moment, std::int64_t> further = {
            {Moment::KneeDown, frameOf(Moment::LiftTop) + 1},
            {Moment::BackToeOff, frameOf(Moment::Release) + 2},
            {Moment::BeforeRelease, frameOf(Moment::Release) - 2}};
        auto* list = driver->review().findChild<ui::RowList*>("measures");
        const auto& session = driver->review().session();
        for (std::size_t i = 0; i < session.assessment().measures.size(); ++i) {
            const MeasureDefinition* m = session.playbook().measure(session.assessment().measures[i].id);
            if (!m->seenFrom(session.clip().view)) continue;
            const auto choose = [&] {
                list->setCurrent(static_cast<int>(i));
                Q_EMIT list->selected(static_cast<int>(i));
            };
            if (m->kind == MeasureKind::Seen) {
                choose();
                driver->key(Qt::Key_U);
                QDialog* dialog = driver->window().findChild<QDialog*>("seen");
                ASSERT_TRUE(dialog) << m->id;
                ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
                QTest::keyClick(dialog, Qt::Key_1);
                ASSERT_TRUE(waitFor([&] { return session.delivery().answers.contains(m->id); })) << m->id;
            }
            for (const Moment moment : m->moments)
                if (further.contains(moment) && !session.delivery().frameOf(moment)) {
                    choose();
                    driver->stepTo(further.at(moment));
                    driver->key(Qt::Key_U); // says what it will set
                    driver->key(Qt::Key_U);
                    ASSERT_TRUE(session.delivery().frameOf(moment)) << m->id;
                }
        }
    }

    void measure() {
        answerWhatHasNoPoints();
        driver->key(Qt::Key_Return);
        clicks = 0;
        for (int guard = 0; guard < 80; ++guard) {
            auto* bench = qobject_cast<ui::MeasureBench*>(driver->review().bench());
            ASSERT_TRUE(bench);
            if (!bench->step()) break;
            const GuideStep step = *bench->step();
            if (step.frame != driver->review().playhead().frame()) driver->key(Qt::Key_Return);
            driver->waitForPicture();
            const Pose pose =
                delivery.poseAt(delivery.startS() + static_cast<double>(step.frame) / order.fps);
            driver->clickPicture(projectJoints(order, pose).at(step.landmark));
            ++clicks;
        }
        const Counts& c = driver->review().session().assessment().counts;
        ASSERT_EQ(c.measures, c.measuresAll);
    }

    void judge() {
        const auto& counts = driver->review().session().assessment().counts;
        const auto items = static_cast<std::size_t>(counts.judgedAll - counts.judged);
        for (std::size_t i = 0; i < items; ++i) {
            driver->key(nextItem() == faulty || i % 4 == 1 ? Qt::Key_1 : i % 4 == 2 ? Qt::Key_4 : Qt::Key_5);
            answerWhichWay();
        }
        const Counts& c = driver->review().session().assessment().counts;
        ASSERT_EQ(c.judged, c.judgedAll);
        decideWhatContradicts();
    }

    /// The item that a key grades now.
    std::string nextItem() {
        const auto& rows = driver->review().session().assessment().items;
        const auto open = std::find_if(rows.begin(), rows.end(),
                                       [](const ItemRow& row) { return !row.grade && row.seenFromHere; });
        return open == rows.end() ? "" : open->id;
    }

    /// A row that can be off on two sides asks which one in one more key.
    void answerWhichWay() {
        QDialog* dialog = driver->window().findChild<QDialog*>("which-way");
        if (!dialog) return;
        ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
        QTest::keyClick(dialog, Qt::Key_1);
        ASSERT_TRUE(waitFor([&] { return !driver->window().findChild<QDialog*>("which-way"); }));
    }

    /// A grade against its number is led to by Enter and becomes a decision by a remark.
    void decideWhatContradicts() {
        const auto open = [&] {
            const auto all = driver->review().session().contradictions();
            return std::count_if(all.begin(), all.end(), [](const Contradiction& x) { return x.stop; });
        };
        for (auto left = open(); left > 0; --left) {
            driver->key(Qt::Key_Return);
            driver->key(Qt::Key_R);
            QDialog* dialog = driver->window().findChild<QDialog*>("remark");
            ASSERT_TRUE(dialog);
            ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
            QTest::keyClicks(dialog->findChild<QLineEdit*>(), "looked at it twice");
            QTest::keyClick(dialog->findChild<QLineEdit*>(), Qt::Key_Return);
            ASSERT_TRUE(waitFor([&] { return open() == left - 1; }));
        }
    }

    void say() {
        for (int i = 0; i < 3; ++i) driver->key(Qt::Key_A);
        driver->key(Qt::Key_E);
        ASSERT_EQ(driver->document().stops.size(), 4U);
        auto* bench = qobject_cast<ui::SayBench*>(driver->review().bench());
        ASSERT_TRUE(bench);
        for (int i = 0; i < 4; ++i) {
            driver->key(Qt::Key_Space);
            ASSERT_TRUE(bench->recording()) << driver->review().foot().sentence().toStdString();
            QTest::qWait(120);
            driver->key(Qt::Key_Right);
            driver->dragPicture({200, 100}, {260, 140});
            QTest::qWait(120);
        }
        driver->key(Qt::Key_Escape);
        ASSERT_FALSE(bench->recording());
        ASSERT_EQ(driver->document().takes.size(), 4U);
        for (const auto& [id, take] : driver->document().takes) {
            int frames = 0, strokes = 0;
            for (const TakeEvent& e : take.events)
                frames += e.kind == TakeEventKind::Frame, strokes += e.kind == TakeEventKind::StrokeTo;
            EXPECT_GE(frames, 2);
            EXPECT_GE(strokes, 1);
            EXPECT_LE(take.events.back().sample, take.samples);
        }
        // One stop is said again alone: only its take changes.
        const auto before = driver->document().takes;
        driver->key(Qt::Key_Up);
        driver->key(Qt::Key_R);
        ASSERT_TRUE(bench->recording());
        QTest::qWait(150);
        driver->key(Qt::Key_Escape);
        int changed = 0;
        for (const auto& [id, take] : driver->document().takes) changed += take.file != before.at(id).file;
        EXPECT_EQ(changed, 1);
    }

    void send() {
        auto* state = driver->review().findChild<QLabel*>("send-state");
        driver->key(Qt::Key_Return, Qt::ControlModifier); // it asks once
        EXPECT_TRUE(driver->review().foot().sentence().contains("once more sends it"))
            << driver->review().foot().sentence().toStdString();
        driver->key(Qt::Key_Return, Qt::ControlModifier);
        ASSERT_TRUE(waitFor([&] { return state->text().startsWith("Sent to"); }, 120000))
            << state->text().toStdString() << " | " << driver->review().foot().sentence().toStdString();
    }

    void readTheMail() {
        const QStringList mails =
            QDir(QString::fromStdString((folder / "post").string())).entryList({"*.eml"});
        ASSERT_EQ(mails.size(), 1);
        const auto mail = readMail(*readFile(folder / "post" / mails[0].toStdString()));
        ASSERT_TRUE(mail);
        EXPECT_NE(mail->to.find("ludo.home@example.org"), std::string::npos);
        // letter, the same for the phone, week to hang up, calendar, film
        ASSERT_EQ(mail->attachments.size(), 5U);
        FileStore files;
        ASSERT_TRUE(files.write(folder / "letter.pdf", mail->attachments[0].bytes));
        ASSERT_TRUE(files.write(folder / "film.mp4", mail->attachments[4].bytes));
        const std::string text =
            test::shell("pdftotext -enc UTF-8 -layout '" + (folder / "letter.pdf").string() + "' -");
        const std::string cells = // of the week, one after the other
            test::shell("pdftotext -enc UTF-8 -raw '" + (folder / "letter.pdf").string() + "' -");
        EXPECT_NE(text.find("Ludo,"), std::string::npos);
        const Plan& plan = driver->document().plan;
        ASSERT_FALSE(plan.corrections.empty());
        for (const std::string& id : plan.corrections)
            EXPECT_NE(test::squeezed(text).find(
                          test::squeezed(goalOf(test::playbook(), driver->review().session().told(), id))),
                      std::string::npos)
                << id;
        for (const PlannedDrill& d : plan.drills) {
            EXPECT_NE(text.find(test::playbook().drill(d.drill)->name), std::string::npos);
            EXPECT_NE(test::squeezed(cells).find(test::squeezed(said(wordsOf(d.dose)))), std::string::npos);
        }
        for (const char* name : {"Pia", "Thorsgaard", "Wren", "Odalys", "Emeka"})
            EXPECT_EQ(text.find(name), std::string::npos) << name;
        readTheFilm();
    }

    void readTheFilm() {
        const std::string film = (folder / "film.mp4").string();
        const auto probe = nlohmann::json::parse(test::shell(
            "ffprobe -v error -show_streams -show_chapters -show_format -of json '" + film + "'"));
        double said = kTitleSeconds + kClosingSeconds;
        for (const auto& [id, take] : driver->document().takes) said += take.seconds();
        EXPECT_GT(*parseNumber(probe["format"]["duration"].get<std::string>()), said); // and what moves
        EXPECT_EQ(probe["chapters"].size(), driver->document().stops.size() + 3);
        std::string codecs;
        for (const auto& s : probe["streams"]) codecs += s.value("codec_name", "") + " ";
        EXPECT_NE(codecs.find("h264"), std::string::npos);
        EXPECT_NE(codecs.find("aac"), std::string::npos);
        const auto bytes = readFile(folder / "film.mp4");
        EXPECT_LT(bytes->find("moov"), bytes->find("mdat"));
        EXPECT_EQ(test::shell("ffprobe -v error -show_entries format_tags -of json '" + film + "'")
                      .find("location"),
                  std::string::npos);
    }

    TempFolder folder;
    FilmOrder order = test::smallOrder(60);
    Delivery delivery{[] {
        DeliveryKnobs k;
        k.legSpread = 88;
        k.backKneeLoad = 122;
        k.trunkForward = 32;
        k.frontKneeRelease = 128;
        return k;
    }()};
    SmtpServer office{QString::fromStdString((folder / "post").string())};
    std::unique_ptr<Driver> driver;
    std::string faulty; ///< an item that is graded as off
    int clicks = 0;
};

class FrontWalk : public WholeWalk {
protected:
    FrontWalk()
        : WholeWalk(View::Front) {
        faulty = "arm-swings-across";
    }
};

// A film from the front alone is a review like another: fewer rows, what it can't show is said and settled.
TEST_F(FrontWalk, FromADroppedFilmToTheMailInThePostOffice) {
    takeIn();
    driver->key(Qt::Key_Return);
    ASSERT_TRUE(driver->window().reviewPlace());
    driver->waitForPicture();
    driver->key(Qt::Key_Return);
    ASSERT_NO_FATAL_FAILURE(setPositions());
    driver->key(Qt::Key_PageDown);
    ASSERT_NO_FATAL_FAILURE(measure());
    const auto& session = driver->review().session();
    ASSERT_EQ(session.clip().view, View::Front);
    int measured = 0, elsewhere = 0;
    for (const MeasureRow& row : session.assessment().measures) {
        measured += row.value.value.has_value() || !row.value.seen.empty();
        elsewhere += row.value.state == MeasureState::NotVisible;
    }
    EXPECT_GE(measured, 5);
    EXPECT_GE(elsewhere, 10);
    driver->key(Qt::Key_PageDown);
    ASSERT_NO_FATAL_FAILURE(judge());
    driver->key(Qt::Key_PageDown);
    ASSERT_NO_FATAL_FAILURE(say());
    driver->key(Qt::Key_PageDown);
    driver->key(Qt::Key_P);
    ASSERT_FALSE(driver->document().plan.corrections.empty());
    // A row with two causes to weigh is worked on: from the front both stand open, with what would tell.
    auto* faults = driver->review().findChild<ui::RowList*>("faults");
    const QString finish =
        QString::fromStdString(goalOf(session.playbook(), session.told(), "arm-swings-across"));
    if (!isAmong(driver->document().plan.corrections, "arm-swings-across")) {
        if (driver->document().plan.corrections.size() == mostCorrections(session.age())) {
            faults->setCurrent(0);
            driver->key(Qt::Key_Return); // makes room
        }
        for (int row = 0; row < static_cast<int>(faults->rows().size()); ++row)
            if (faults->rows().at(static_cast<std::size_t>(row)).title == finish) faults->setCurrent(row);
        driver->key(Qt::Key_Return);
    }
    ASSERT_TRUE(isAmong(driver->document().plan.corrections, "arm-swings-across"));
    std::size_t weighed = 0;
    for (const Weighed& w : weighedIn(driver->document(), session.playbook(), session.told()))
        weighed = std::max(weighed, w.likely.size() + w.ruledOut.size() + w.open.size());
    EXPECT_GE(weighed, 2U);
    driver->key(Qt::Key_PageDown);
    ASSERT_NO_FATAL_FAILURE(send());
    readTheMail();
}

TEST_F(WholeWalk, FromADroppedFilmToTheMailInThePostOffice) {
    takeIn();
    driver->key(Qt::Key_Return);
    ASSERT_TRUE(driver->window().reviewPlace());
    driver->waitForPicture();
    driver->key(Qt::Key_Return);
    ASSERT_EQ(driver->review().stageOfWalk(), Stage::Positions);
    ASSERT_NO_FATAL_FAILURE(setPositions());
    driver->key(Qt::Key_PageDown);
    ASSERT_NO_FATAL_FAILURE(measure());
    EXPECT_GE(clicks, 20);
    // The numbers are the truth's, as far as a projection allows: 88 was asked of the figure.
    const MeasureRow* spread = driver->review().session().assessment().measure("leg-spread");
    ASSERT_TRUE(spread && spread->value.value);
    EXPECT_NEAR(*spread->value.value, 88, 6);
    driver->key(Qt::Key_PageDown);
    ASSERT_NO_FATAL_FAILURE(judge());
    driver->key(Qt::Key_PageDown);
    ASSERT_NO_FATAL_FAILURE(say());
    driver->key(Qt::Key_PageDown);
    EXPECT_TRUE(driver->document().plan.corrections.empty()); // nothing is chosen unasked
    driver->key(Qt::Key_P);
    EXPECT_FALSE(driver->document().plan.corrections.empty());
    EXPECT_LE(driver->document().plan.corrections.size(), 3U);
    driver->key(Qt::Key_PageDown);
    ASSERT_NO_FATAL_FAILURE(send());
    readTheMail();
    // The log shows it, with the promise of the next look; the desk no longer does.
    driver->key(Qt::Key_Backspace);
    EXPECT_TRUE(driver->window().library().reviews()->at(0).sent);
    EXPECT_EQ(driver->window().library().promises()->size(), 3U);
    EXPECT_EQ(driver->window().library().outbox()->at(0).state, MailState::Sent);
    EXPECT_TRUE(driver->window().library().verify().empty());
}

} // namespace
} // namespace jg
