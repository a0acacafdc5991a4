// SPDX-License-Identifier: GPL-3.0-or-later
// A class looks at the screen: no name is in sight anywhere, and nothing that is shown is kept or sent.
#include "tests/ui/tour.h"

#include "apps/post_office/smtp_server.h"
#include "desk/intake/mail_intake.h"
#include "desk/sending/due_mails.h"
#include "post/mail.h"
#include "review/record/review_json.h"
#include "ui/kit/row_list.h"
#include "ui/kit/words.h"

#include <QDir>
#include <QProcess>

#include <fstream>
#include <sstream>

namespace jg {
namespace {

using test::allTextsOf;
using test::Driver;
using test::Walk;

/// Names are shown again, whatever a test does.
struct NamesAgain {
    ~NamesAgain() { ui::hideNames(nullptr); }
};

/// Names in all that `root` shows.
std::string namesIn(QWidget* root, const Athlete& athlete) {
    QStringList words;
    for (const std::string& name :
         {athlete.firstName, athlete.lastName, athlete.guardianName, athlete.email, athlete.guardianEmail})
        for (const QString& word : QString::fromStdString(name).split(' ', Qt::SkipEmptyParts))
            if (word.size() > 3) words << word;
    QStringList found;
    QList<QWidget*> all = root->findChildren<QWidget*>();
    all << root;
    for (QWidget* w : all) {
        if (!w->isVisibleTo(root)) continue;
        for (const QString& text : allTextsOf(w))
            for (const QString& word : words)
                if (text.contains(word, Qt::CaseInsensitive))
                    found << QString("%1 %2: %3").arg(w->metaObject()->className(), w->objectName(), text);
    }
    found.removeDuplicates();
    return found.join("\n").toStdString();
}

TEST(ClassWindow, NoNameIsInSightAndNothingIsKept) {
    const NamesAgain again;
    Walk walk(Stage::Send);
    Driver d(walk.library->folder());
    const Review before = *walk.library->review(walk.review.id);
    EXPECT_NE(namesIn(&d.window(), walk.athlete), ""); // what is looked for is there else
    d.key(Qt::Key_N, Qt::AltModifier);
    EXPECT_TRUE(ui::namesAreHidden());
    d.window().showPlace("athletes");
    d.settle();
    const QStringList shown = allTextsOf(d.window().findChild<ui::RowList*>("athletes"));
    EXPECT_TRUE(shown.join(' ').contains("Athlete A")) << shown.join(' ').toStdString();
    EXPECT_FALSE(shown.join(' ').contains("somebody")) << shown.join(' ').toStdString();
    const test::Look look = [&](QWidget& shown, const std::string& where) {
        EXPECT_EQ(namesIn(&shown, walk.athlete), "") << where;
    };
    test::tourPlaces(d, look);
    test::tourStages(d, walk, look);
    // The letter is laid out without them, too.
    while (d.review().stageOfWalk() != Stage::Send) d.key(Qt::Key_PageDown);
    d.settle();
    look(d.window(), "letter");
    // What is tried is refused, and says why.
    const auto refused = [&](int key) {
        d.key(key);
        return d.review().findChild<ui::Foot*>()->sentence().contains("Alt+N");
    };
    while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    EXPECT_TRUE(refused(Qt::Key_R));
    EXPECT_TRUE(refused(Qt::Key_F));
    while (d.review().stageOfWalk() != Stage::Positions) d.key(Qt::Key_PageUp);
    EXPECT_TRUE(refused(Qt::Key_Delete)) << d.review().findChild<ui::Foot*>()->sentence().toStdString();
    d.key(Qt::Key_Backspace);
    d.settle();
    const auto unchanged = [&] { return toJson(*walk.library->review(walk.review.id)) == toJson(before); };
    EXPECT_TRUE(unchanged());
    // And back: names, and work is kept again.
    d.key(Qt::Key_N, Qt::AltModifier);
    EXPECT_FALSE(ui::namesAreHidden());
    EXPECT_NE(namesIn(&d.window(), walk.athlete), "");
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    d.key(Qt::Key_F);
    d.key(Qt::Key_Backspace);
    d.settle();
    EXPECT_FALSE(unchanged());
}

/// Every file of a library with its content; what SQLite lays beside it to share memory is none. Read by
/// another program: this one would lose the locks of its open database with the first file it closes (POSIX).
std::map<std::string, std::string> filesOf(const std::filesystem::path& library) {
    std::istringstream lines(test::shell("find '" + library.string() +
                                         "' -type f ! -name '*-shm' -exec sha256sum {} +; find '" +
                                         library.string() + "' -type d"));
    std::map<std::string, std::string> all;
    for (std::string line; std::getline(lines, line);) {
        const auto space = line.find("  ");
        if (space == std::string::npos)
            all[line] = "folder";
        else
            all[line.substr(space + 2)] = line.substr(0, space);
    }
    return all;
}

int runs(const QStringList& arguments) {
    QProcess program;
    program.start(QString::fromStdString((test::binFolder() / "juxtagraph-cli").string()), arguments);
    while (program.state() != QProcess::NotRunning) QTest::qWait(20);
    return program.exitCode();
}

// Letters that are due, mails that come in, the command line and the window's own keys: not one byte is
// written to the library or handed to a server. JUXTAGRAPH_LONG makes it ten minutes.
TEST(ClassWindow, WhileItLastsNotOneByteIsWritten) {
    const NamesAgain again;
    const int seconds =
        std::getenv("JUXTAGRAPH_LONG") ? 600 : 18; // letters that are due are looked for every 15
    Walk walk(Stage::Send);
    test::leaveUnsaid(walk);
    const QString post = QString::fromStdString((walk.folder / "post").string());
    SmtpServer office{post};
    ASSERT_TRUE(office.listen(0));
    const std::string url = "smtp://127.0.0.1:" + std::to_string(office.port());
    ASSERT_TRUE(walk.library->setSetting("mail.url", url));
    std::filesystem::create_directories(walk.folder / "mails");
    ASSERT_TRUE(watchFolder(*walk.library, (walk.folder / "mails").string()));
    const auto recipe = dispatchRecipe(*walk.session());
    ASSERT_TRUE(recipe) << said(recipe.error().text);
    ASSERT_TRUE(sendLater(*walk.library, *recipe, walk.clock.nowUnix(), walk.clock, walk.ids));
    const std::string library = walk.library->folder().string();
    walk.library.reset(); // only the window has it open
    Driver d(library);
    d.settle();
    d.key(Qt::Key_N, Qt::AltModifier);
    ASSERT_TRUE(ui::namesAreHidden());
    const auto before = filesOf(library);
    const auto letters = [&] { return QDir(post).entryList({"*.eml"}).size(); };
    for (int second = 0; second < seconds; ++second) {
        Mail mail;
        mail.fromAddress = "odalys.home@example.org", mail.toAddress = "ilse@example.org";
        mail.subject = "Film " + std::to_string(second), mail.text = "Is it late?";
        mail.attachments = {{"a.mp4", "video/mp4", *readFile(walk.folder / "film.mp4")}};
        const auto file = walk.folder / "mails" / (std::to_string(second) + ".eml");
        std::ofstream(file, std::ios::binary) << *toBytes(mail);
        if (second % 6 == 0) {
            EXPECT_NE(runs({"intake", library.c_str(), file.c_str()}), 0);
            EXPECT_NE(runs({"send", library.c_str(), walk.review.id.value.c_str(), "--smtp", url.c_str()}),
                      0);
        }
        d.drop(QString::fromStdString(file.string()));
        QTest::qWait(1000);
        ASSERT_EQ(letters(), 0) << second;
    }
    const auto after = filesOf(library);
    for (const auto& [file, content] : after) {
        const auto was = before.find(file);
        EXPECT_TRUE(was != before.end() && was->second == content) << file << " was written";
    }
    EXPECT_EQ(after.size(), before.size());
    d.key(Qt::Key_N, Qt::AltModifier); // work goes on: what was due goes out
    EXPECT_FALSE(ui::namesAreHidden());
    EXPECT_TRUE(test::waitFor([&] { return letters() == 1; }, 40000));
}

} // namespace
} // namespace jg
