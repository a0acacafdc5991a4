// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/shots/what_goes_out.h"

#include "desk/sending/letter_files.h"
#include "letter/letter_pages.h"
#include "letter/still.h"
#include "post/mail.h"
#include "tests/shots/panels.h"
#include "ui/bench/plan_asker.h"
#include "ui/stages/send/film_watch.h"

#include <QDialog>
#include <QLineEdit>
#include <QPainter>
#include <QProcess>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTest>

#include <fstream>
#include <iostream>

namespace jg::test {

using namespace jg::ui;

namespace {

constexpr QSize kPage{310, 438};   ///< of an A4 page beside others
constexpr QSize kWindow{632, 395}; ///< of a window beside another

QImage pageOf(const LetterPages& pages) {
    QImage page((2 * pages.size()).toSize(), QImage::Format_RGB32);
    QPainter painter(&page);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.scale(2, 2);
    pages.paint(painter, 0);
    return page;
}

/// As a browser lays the file out on a phone. A headless window is never as narrow: the page stands in a
/// frame.
QImage onPhone(const DispatchRecipe& recipe) {
    constexpr int kWidth = 360, kHeight = 509;
    const QTemporaryDir folder;
    const std::filesystem::path at = folder.path().toStdString();
    FileStore files;
    if (!exportLetterHtml(recipe, at / "letter.html", files)) return {};
    std::ofstream(at / "frame.html")
        << "<!doctype html><body style='margin:0'><iframe src=letter.html style='border:0;width:" << kWidth
        << "px;height:" << kHeight << "px'></iframe>";
    QProcess browser;
    browser.start("chromium",
                  {"--headless=new", "--no-sandbox", "--disable-gpu", "--hide-scrollbars",
                   "--disable-background-networking", "--user-data-dir=" + folder.filePath("browser"),
                   "--force-device-scale-factor=2", "--window-size=700,700",
                   "--screenshot=" + folder.filePath("phone.png"), folder.filePath("frame.html")});
    if (!browser.waitForFinished(120000)) std::cerr << "no browser laid the letter out\n";
    return QImage(folder.filePath("phone.png")).copy(0, 0, 2 * kWidth, 2 * kHeight);
}

Status rewriteFor(ReviewSession& session, Audience reader, Language language) {
    const Words& before = session.readersWords();
    if (const Status kept = session.setLanguage(language); !kept) return kept;
    Plan plan = inLanguage(planFor(session, session.review()), before, session.readersWords());
    plan.reader = reader;
    return session.perform(msg("send-bench.change-the-reader"), {SetPlan{plan}});
}

/// A mail from home with a film and a word of pain.
Result<std::filesystem::path> mailFromHome(Photographer& p) {
    const auto file = std::filesystem::path(p.out().toStdString()) / "from-home.eml";
    const auto submissions = p.window().library().submissions();
    if (!submissions) return submissions.error();
    const auto film = readFile(p.window().library().mediaPath(submissions->front().clips.front()));
    if (!film) return film.error();
    Mail m;
    m.fromName = "Parent of Ludo";
    m.fromAddress = "ludo.home@example.org";
    m.toAddress = "ilse@example.org";
    m.subject = "Three from today";
    m.text = "Hello Ilse,\n\nis he still short? His elbow is a little sore since Sunday.\n";
    m.attachments = {{"IMG_0412.mov", "video/quicktime", *film}, {"sketch.pdf", "application/pdf", "%PDF"}};
    m.messageId = "home@example.org";
    const auto bytes = toBytes(m);
    if (!bytes) return bytes.error();
    FileStore files;
    const Status written = files.write(file, *bytes);
    return written ? Result<std::filesystem::path>(file) : written.error();
}

/// The letter of the review in hand waits for the evening.
void layForLater(Photographer& p) {
    p.key(Qt::Key_T);
    QDialog* form = p.dialog("send-later");
    if (!form) return;
    form->findChild<QLineEdit*>("when")->setText("18:30");
    QTest::keyClick(form, Qt::Key_Return, Qt::ControlModifier);
    if (!QTest::qWaitFor([&] { return !p.window().reviewPlace()->busy(); }, 300000))
        std::cerr << "the letter was not laid into the post\n";
}

/// Presses the button of the window that says so.
void press(MainWindow& window, const char* words) {
    for (auto* button : window.findChildren<QPushButton*>())
        if (button->isVisible() && button->text() == say(words)) return button->click();
    std::cerr << "no button says " << words << "\n";
}

} // namespace

void shootFilm(Photographer& p) {
    p.key(Qt::Key_W);
    FilmWatch* watch = nullptr;
    const auto open = [&] {
        watch = p.window().findChild<FilmWatch*>();
        return watch && watch->isVisible();
    };
    if (!QTest::qWaitFor(open, 300000)) return;
    for (int i = 0; i < 4; ++i) QTest::keyClick(watch, Qt::Key_Down);
    QTest::keyClick(watch, Qt::Key_C);
    QTest::qWait(1500);
    p.remember("film-watch", watch);
    QTest::keyClick(watch, Qt::Key_F);
    p.remember("film-on-a-phone", watch);
    QTest::keyClick(watch, Qt::Key_Escape);
    p.save("film", panels({{"The film before it goes, with its chapters and captions", p.taken("film-watch")},
                           {"The same as wide as a phone", p.taken("film-on-a-phone")},
                           {"A stop with an earlier delivery beside it", p.taken("then-and-now")},
                           {"The takes of a stop: heard, then one taken", p.taken("takes")}},
                          2, kWindow));
}

void shootPost(Photographer& p) {
    MainWindow& window = p.window();
    window.toDesk();
    window.showPlace("post");
    press(window, "post-place.send-all");
    if (QDialog* d = p.dialog("send-all")) {
        QTest::qWait(1500);
        p.remember("send-all", d);
        d->close();
    }
    window.toDesk();
    p.open("Emeka");
    p.stage(6);
    layForLater(p);
    window.toDesk();
    window.showPlace("post");
    p.remember("post");
    press(window, "post-place.mail-server");
    if (QDialog* d = p.dialog("mail-server")) {
        p.remember("mail-server", d);
        d->close();
    }
    const auto mail = mailFromHome(p);
    if (!mail) return;
    window.toDesk();
    window.takeInFiles({QString::fromStdString(mail->string())});
    if (QDialog* d = p.dialog("intake")) p.remember("mail-in", d); // it would ask before it closes
    std::filesystem::remove(*mail);
    p.save("post", panels({{"All that are ready, after one look at who gets what", p.taken("send-all")},
                           {"What waits in the post, and until when", p.taken("post")},
                           {"The coach's own mail server", p.taken("mail-server")},
                           {"A mail from home, taken in", p.taken("mail-in")}},
                          2, kWindow));
}

void shootLetters(Photographer& p) {
    ReviewSession& session = p.window().reviewPlace()->session();
    std::vector<Panel> pages;
    for (const Language language : allLanguages()) {
        for (const Audience reader : allAudiences()) {
            if (const Status done = rewriteFor(session, reader, language); !done)
                std::cerr << english()(done.error().text) << "\n";
            const DispatchRecipe recipe = previewRecipe(session);
            auto stills = correctionStills(recipe.film);
            if (!stills) return;
            pages.push_back({say(nameOf(reader)) + ", " + say(nameOf(language)),
                             pageOf(LetterPages(recipe.film.letter, std::move(*stills), recipe.film.words))});
        }
        pages.push_back({"on a phone", onPhone(previewRecipe(session))});
    }
    if (const Status back = rewriteFor(session, Audience::Player, Language::English); !back)
        std::cerr << english()(back.error().text) << "\n";
    p.save("letters", panels(pages, 4, kPage));
}

} // namespace jg::test
