// SPDX-License-Identifier: GPL-3.0-or-later
// Before a letter goes: its sentences changed in place, the film watched, and what stands beside the stage
// while a review is said.
#include "desk/sending/due_mails.h"
#include "letter/film_plan.h"
#include "letter/narrated_film.h"
#include "letter/qt_text.h"
#include "review/tell/letter_sentences.h"
#include "tests/ui/driver.h"
#include "ui/kit/row_list.h"
#include "ui/stages/send/film_watch.h"
#include "ui/stages/send/letter_view.h"
#include "ui/stages/send/sentence_editor.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QScrollArea>

namespace jg::test {
namespace {

/// The letter of a finished review, laid out.
struct AtTheLetter {
    Walk walk;
    Driver d{walk.library->folder()};
    ui::LetterView* letter = nullptr;

    AtTheLetter() {
        d.window().openReview(walk.submission.id);
        EXPECT_EQ(d.review().stageOfWalk(), Stage::Send);
        letter = d.review().findChild<ui::LetterView*>();
        EXPECT_TRUE(waitFor([&] { return letter->placeOf("greeting").has_value(); }));
    }
    std::string firstKey(const std::string& kind) {
        for (const LetterSentence& s : sentencesOf(d.review().session().letter()))
            if (s.key.starts_with(kind)) return s.key;
        ADD_FAILURE() << "no sentence " << kind;
        return {};
    }
    std::string now(const std::string& key) {
        for (const LetterSentence& s : sentencesOf(d.review().session().letter()))
            if (s.key == key) return said(s.text);
        return {};
    }
    QPlainTextEdit* editor() {
        for (auto* field : letter->findChildren<QPlainTextEdit*>("sentence"))
            if (field->isVisible()) return field;
        ADD_FAILURE() << "no sentence is being written";
        return nullptr;
    }
    void write(const QString& words) {
        QPlainTextEdit* field = editor();
        ASSERT_TRUE(field);
        field->selectAll();
        QTest::keyClicks(field, words);
        QTest::keyClick(field, Qt::Key_Return);
        QCoreApplication::processEvents();
        d.settle();
    }
};

TEST(SendWindow, ASentenceIsChangedByMouseWhereItStands) {
    AtTheLetter w;
    const std::string key = w.firstKey("feel:");
    w.letter->choose(key); // brings it into sight
    const QPoint at = w.letter->placeOf(key)->center().toPoint();
    w.d.click(w.letter, at);
    const std::string before = w.now(key);
    EXPECT_EQ(w.editor()->toPlainText().toStdString(), before);
    w.write("Let the front foot find the floor first.");
    EXPECT_EQ(w.now(key), "Let the front foot find the floor first.");
    EXPECT_FALSE(w.letter->editing());
    // It stands in what goes out, too.
    const auto pdf = w.walk.folder / "own.pdf";
    ASSERT_TRUE(exportLetter(previewRecipe(w.d.review().session()), pdf, w.d.window().library().files()));
    EXPECT_NE(squeezed(shell("pdftotext -enc UTF-8 '" + pdf.string() + "' -")).find("findthefloorfirst"),
              std::string::npos);
    w.d.key(Qt::Key_Z); // undone like any edit
    EXPECT_EQ(w.now(key), before);
}

TEST(SendWindow, KeysAloneChooseAndChangeASentenceAndTheOldOneComesBack) {
    AtTheLetter w;
    w.d.key(Qt::Key_Down);
    EXPECT_EQ(w.letter->chosen(), "greeting");
    w.d.key(Qt::Key_Down);
    w.d.key(Qt::Key_Up);
    EXPECT_EQ(w.letter->chosen(), "greeting");
    const std::string before = w.now("greeting");
    w.d.key(Qt::Key_Return);
    w.write("Odalys, well thrown");
    EXPECT_EQ(w.now("greeting"), "Odalys, well thrown");
    w.d.key(Qt::Key_Return);
    QPlainTextEdit* field = w.editor();
    ASSERT_TRUE(field);
    // Keys of the window are letters here.
    QTest::keyClicks(field, " wsf");
    EXPECT_FALSE(w.d.window().findChild<ui::FilmWatch*>());
    QTest::keyClick(field, Qt::Key_Escape);
    EXPECT_EQ(w.now("greeting"), "Odalys, well thrown");
    w.d.key(Qt::Key_Return);
    w.d.click(w.d.button(w.letter, "As the letter would say it"));
    EXPECT_EQ(w.now("greeting"), before);
}

TEST(SendWindow, ANumberThatChangedStopsTheCoachsSentenceUntilItIsSeenAgain) {
    AtTheLetter w;
    const std::string key = w.firstKey("number:");
    w.letter->choose(key);
    w.d.key(Qt::Key_Return);
    w.write("This is where it stood.");
    Plan plan = w.d.document().plan;
    plan.sentences[key].was = asIs("what the letter said of another number");
    ASSERT_TRUE(w.d.review().session().perform(msg("send-bench.change-a-sentence"), {SetPlan{plan}}));
    w.d.key(Qt::Key_Return, Qt::ControlModifier);
    w.d.key(Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(w.d.window().library().outbox()->empty());
    bool told = false;
    for (const QLabel* l : w.d.review().findChildren<QLabel*>())
        told |= l->isVisible() && l->text().contains("This is where it stood.");
    EXPECT_TRUE(told);
    w.letter->choose(key);
    w.d.key(Qt::Key_Return);
    w.write("This is where it stands.");
    EXPECT_TRUE(staleSentences(w.d.review().session().letter()).empty());
}

TEST(SendWindow, APhraseWrittenOnceIsOfferedInTheNextLetter) {
    AtTheLetter w;
    w.letter->choose("closing");
    w.d.key(Qt::Key_Return);
    w.write("Throw well, Ilse.");
    w.d.key(Qt::Key_Z);
    w.letter->choose("closing");
    w.d.key(Qt::Key_Return);
    QPlainTextEdit* field = w.editor();
    ASSERT_TRUE(field);
    w.d.click(w.d.button(w.letter, "Throw well, Ilse."));
    EXPECT_EQ(field->toPlainText(), "Throw well, Ilse.");
}

/// A finished review with one stop to say, quick to make a film of.
void keepOneStop(const Walk& walk) {
    Review r = *walk.library->review(walk.review.id);
    r.stops.resize(1);
    std::erase_if(r.takes, [&](const auto& t) { return t.first != r.stops[0].id; });
    ASSERT_TRUE(walk.library->save(r));
}

TEST(SendWindow, TheFilmIsWatchedBeforeItGoesAndLeavesNothingBehind) {
    Walk walk;
    keepOneStop(walk);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    const auto works = folderIn(d.window().library().folder(), LibraryFolder::Work);
    d.key(Qt::Key_W);
    ui::FilmWatch* watch = nullptr;
    ASSERT_TRUE(waitFor(
        [&] {
            watch = d.window().findChild<ui::FilmWatch*>();
            return watch && watch->isVisible();
        },
        120000));
    ASSERT_FALSE(std::filesystem::is_empty(works));
    EXPECT_TRUE(std::filesystem::exists(std::filesystem::directory_iterator(works)->path() / "film.mp4"));
    auto* chapters = watch->findChild<ui::RowList*>("chapters");
    ASSERT_TRUE(chapters);
    EXPECT_EQ(chapters->rows().size(), 4U); // hello, the whole pitch, the stop, what to work on
    QTest::keyClick(watch, Qt::Key_Down);
    QTest::keyClick(watch, Qt::Key_Down);
    EXPECT_EQ(chapters->current(), 2);
    const double before = watch->seconds();
    EXPECT_GT(before, kTitleSeconds);
    QTest::keyClick(watch, Qt::Key_Space);
    EXPECT_TRUE(watch->playing());
    EXPECT_TRUE(waitFor([&] { return watch->seconds() > before + 0.3; }));
    QTest::keyClick(watch, Qt::Key_Space);
    EXPECT_FALSE(watch->playing());
    EXPECT_EQ(cutIn(watch), "");
    QTest::keyClick(watch, Qt::Key_Escape);
    EXPECT_TRUE(waitFor([&] { return std::filesystem::is_empty(works); }));
}

TEST(SendWindow, ALetterCanBeTakenBackForAWhileAndLeavesNothing) {
    Walk walk;
    keepOneStop(walk);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    Library& library = d.window().library();
    ASSERT_TRUE(library.setSetting("mail.takeBackS", "600")); // making the film counts
    ASSERT_TRUE(library.setSetting("mail.url", "smtp://127.0.0.1:1"));
    auto* state = d.review().findChild<QLabel*>("send-state");
    d.key(Qt::Key_Return, Qt::ControlModifier);
    d.key(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return state->text().contains("It goes out in"); }, 120000))
        << state->text().toStdString();
    d.click(d.button(&d.review(), "Cancel"));
    ASSERT_TRUE(waitFor([&] { return state->text().contains("Taken back"); })) << state->text().toStdString();
    EXPECT_TRUE(library.outbox()->empty());
    EXPECT_FALSE(d.document().sent);
}

TEST(SendWindow, PaperAndShapeOfTheFilmAreChosenOnceForAll) {
    AtTheLetter w;
    w.d.key(Qt::Key_F);
    QDialog* form = opened(w.d, "letter-choice");
    ASSERT_TRUE(form);
    form->findChild<QComboBox*>("paper")->setCurrentIndex(1);
    form->findChild<QComboBox*>("shape")->setCurrentIndex(1);
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
    const DispatchRecipe recipe = previewRecipe(w.d.review().session());
    EXPECT_EQ(recipe.paper, Paper::Letter);
    EXPECT_EQ(recipe.film.width, 720);
    EXPECT_EQ(recipe.film.height, 1280);
}

/// Say, with the first stop at hand.
struct AtSaying {
    Walk walk;
    Driver d{walk.library->folder()};

    AtSaying() {
        d.window().openReview(walk.submission.id);
        while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
        d.waitForPicture();
        list()->setCurrent(0);
        d.key(Qt::Key_Down);
        d.key(Qt::Key_Up);
    }
    ui::RowList* list() { return d.review().findChild<ui::RowList*>("stops"); }
    QString prompt() { return d.review().findChild<QLabel*>("prompt")->text(); }
};

TEST(SayWindow, ThePromptTellsWhatToSayAndWhatComesNext) {
    AtSaying w;
    const auto& stops = w.d.document().stops;
    ASSERT_GE(stops.size(), 2U);
    EXPECT_TRUE(w.prompt().contains(text(stops[0].title).toHtmlEscaped())) << w.prompt().toStdString();
    EXPECT_TRUE(w.prompt().contains(text(stops[1].title).toHtmlEscaped())) << w.prompt().toStdString();
    w.d.key(Qt::Key_Down);
    EXPECT_FALSE(w.prompt().contains("<b>" + text(stops[0].title).toHtmlEscaped() + "</b>"));
    w.d.key(Qt::Key_R);
    EXPECT_TRUE(w.d.review().findChild<QLabel*>("prompt")->isVisible()); // it stays while it is said
    w.d.key(Qt::Key_Escape);
}

TEST(SayWindow, AStopOfTheCoachsOwnStandsOnTheFrameThatIsShown) {
    AtSaying w;
    const auto before = w.d.document().stops.size();
    w.d.stepTo(w.d.review().playhead().frame() + 3);
    const auto frame = w.d.review().playhead().frame();
    w.d.key(Qt::Key_N);
    QDialog* form = opened(w.d, "say-here");
    ASSERT_TRUE(form);
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(form->isVisible()); // it wants a name
    QTest::keyClicks(form->findChild<QLineEdit*>("title"), "Where the glove goes");
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
    ASSERT_EQ(w.d.document().stops.size(), before + 1);
    const Stop& own = w.d.document().stops[1];
    EXPECT_EQ(own.title, "Where the glove goes");
    EXPECT_EQ(own.kind, StopKind::Own);
    EXPECT_EQ(own.frame, frame);
    EXPECT_EQ(w.list()->current(), 1);
}

TEST(SayWindow, CaptionsAreWrittenFromThePromptAndAStopMayBeginStill) {
    AtSaying w;
    w.d.key(Qt::Key_T);
    QDialog* form = opened(w.d, "say-words");
    ASSERT_TRUE(form);
    auto* words = form->findChild<QPlainTextEdit*>("words");
    EXPECT_FALSE(words->toPlainText().isEmpty());
    words->setPlainText("This is the best of it.");
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
    EXPECT_EQ(w.d.document().stops[0].words, "This is the best of it.");
    EXPECT_TRUE(w.prompt().contains("This is the best of it."));
    w.d.key(Qt::Key_F);
    EXPECT_TRUE(w.d.document().stops[0].still);
    w.d.key(Qt::Key_F);
    EXPECT_FALSE(w.d.document().stops[0].still);
}

TEST(SayWindow, AllFindingsInNoStopCanBeChosenFrom) {
    AtSaying w;
    while (!w.d.document().stops.empty()) w.d.key(Qt::Key_Delete);
    const auto& session = w.d.review().session();
    const std::size_t findings = session.assessment().findings.size();
    ASSERT_GT(findings, 2U);
    w.d.key(Qt::Key_A, Qt::ShiftModifier);
    QDialog* form = opened(w.d, "say-all");
    ASSERT_TRUE(form);
    const auto boxes = form->findChildren<QAbstractItemView*>();
    ASSERT_FALSE(boxes.empty());
    EXPECT_EQ(boxes.front()->model()->rowCount(), static_cast<int>(findings));
    for (int row : {0, static_cast<int>(findings) - 1})
        boxes.front()->model()->setData(boxes.front()->model()->index(row, 0), Qt::Checked,
                                        Qt::CheckStateRole);
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
    EXPECT_EQ(w.d.document().stops.size(), 2U);
}

TEST(SayWindow, TheLengthThatIsAimedAtIsSetAndTurnedRoundOnesAreRefused) {
    AtSaying w;
    w.d.key(Qt::Key_Q);
    QDialog* form = opened(w.d, "say-length");
    ASSERT_TRUE(form);
    form->findChild<QSpinBox*>("least")->setValue(6);
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(form->isVisible());
    form->findChild<QSpinBox*>("most")->setValue(8);
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
    bool told = false;
    for (const QLabel* l : w.d.review().findChildren<QLabel*>()) told |= l->text().contains("6:00 to 8:00");
    EXPECT_TRUE(told);
}

/// A walk whose letter is quick to make.
struct QuickLetter : Walk {
    QuickLetter() { leaveUnsaid(*this); }
};

TEST(SendWindow, TheLetterIsWrittenForParentsAndInSpanishByKeys) {
    AtTheLetter w;
    ASSERT_TRUE(w.d.review().findChild<QPushButton*>("reader"));
    const auto shown = [&](const char* words) {
        for (const QLabel* l : w.d.review().findChildren<QLabel*>())
            if (l->isVisible() && l->text().contains(words)) return true;
        return false;
    };
    EXPECT_TRUE(shown("Written for the player, in English; easy from school year"));
    w.d.key(Qt::Key_R);
    QDialog* form = opened(w.d, "reader-choice");
    ASSERT_TRUE(form);
    form->findChild<QComboBox*>("reader")->setCurrentIndex(2);
    form->findChild<QComboBox*>("language")->setCurrentIndex(1);
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    w.d.settle();
    EXPECT_TRUE(shown("Written for the parents, in Spanish"));
    EXPECT_EQ(w.d.window().library().athlete(w.walk.athlete.id)->language, Language::Spanish);
    EXPECT_EQ(w.d.document().plan.reader, Audience::Parent);
    EXPECT_TRUE(w.d.document().plan.opening.starts_with("Preguntaste")) << w.d.document().plan.opening;
    ASSERT_TRUE(waitFor([&] { return w.letter->placeOf("foreword").has_value(); }));
    const auto pdf = w.walk.folder / "padres.pdf";
    ASSERT_TRUE(exportLetter(previewRecipe(w.d.review().session()), pdf, w.d.window().library().files()));
    const std::string read = squeezed(shell("pdftotext -enc UTF-8 '" + pdf.string() + "' -"));
    EXPECT_NE(read.find("Paraquienescuidana"), std::string::npos) << read;
    EXPECT_EQ(read.find("givetake"), std::string::npos);
    EXPECT_EQ(read.find("Wewant"), std::string::npos) << read;
    // A sentence is changed in the language it is read in, and the mail speaks it, too.
    w.letter->choose(w.firstKey("feel:"));
    w.d.key(Qt::Key_Return);
    w.write("Siente el suelo.");
    EXPECT_EQ(w.d.document().plan.sentences.begin()->second.language, Language::Spanish);
}

TEST(SendWindow, ALetterIsLaidAsideUntilATimeAndHeldBackInThePost) {
    QuickLetter walk;
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_T);
    QDialog* form = opened(d, "send-later");
    ASSERT_TRUE(form);
    auto* when = form->findChild<QLineEdit*>("when");
    ASSERT_TRUE(when);
    d.type(when, "soon");
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(form->isVisible()); // it says what a time looks like
    when->clear();
    d.type(when, "tomorrow 7:30");
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    auto* state = d.review().findChild<QLabel*>("send-state");
    ASSERT_TRUE(waitFor([&] { return state->text().contains("07:30"); }, 60000))
        << state->text().toStdString();
    ASSERT_EQ(dueMails(d.window().library()).size(), 1U);
    EXPECT_FALSE(d.document().sent);
    d.key(Qt::Key_Backspace);
    d.key(Qt::Key_P, Qt::AltModifier);
    d.settle();
    auto* hold = d.window().findChild<QPushButton*>("hold");
    ASSERT_TRUE(hold);
    d.click(hold);
    EXPECT_TRUE(dueMails(d.window().library()).empty());
    EXPECT_EQ(d.window().library().outbox()->at(0).state, MailState::Ready); // it waits for a hand
    EXPECT_FALSE(d.window().findChild<QPushButton*>("hold"));
}

TEST(SendWindow, WhatWasAllowedIsEnteredOnTheAthletesPageAndStopsTheLetter) {
    QuickLetter walk;
    walk.athlete.consent.reset();
    ASSERT_TRUE(test::put(*walk.library, walk.athlete));
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    auto* enter = d.window().findChild<QPushButton*>("consent");
    ASSERT_TRUE(enter);
    d.click(enter);
    QDialog* form = opened(d, "consent");
    ASSERT_TRUE(form);
    EXPECT_TRUE(form->findChild<QCheckBox*>("consent-guardian")->isChecked()); // under 18
    form->findChild<QCheckBox*>("consent-filming")->setChecked(true);
    auto* back = form->findChild<QLineEdit*>("consent-taken-back");
    d.type(back, "when it rains");
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(form->isVisible());
    back->clear();
    d.type(back, QString::fromStdString(isoDate(today())));
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    d.settle();
    const auto kept = walk.library->athlete(walk.athlete.id);
    ASSERT_TRUE(kept->consent);
    EXPECT_EQ(kept->consent->takenBack, today());
    d.window().openReview(walk.submission.id);
    d.key(Qt::Key_Return, Qt::ControlModifier);
    d.key(Qt::Key_Return, Qt::ControlModifier);
    EXPECT_TRUE(d.window().library().outbox()->empty());
    bool told = false;
    for (const QLabel* l : d.review().findChildren<QLabel*>())
        told |= l->isVisible() && l->text().contains("taken back");
    EXPECT_TRUE(told);
}

} // namespace
} // namespace jg::test
