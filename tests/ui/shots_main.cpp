// Makes the pictures of docs/screenshots from a demo library: ui_shots LIBRARY OUT_DIR [WIDTH HEIGHT].
#include "desk/letter_files.h"
#include "desk/own_error_exercise.h"
#include "film/reader.h"
#include "letter/letter_pages.h"
#include "letter/still.h"
#include "post/mail.h"
#include "ui/juxta/juxta_place.h"
#include "ui/juxta/sheet_view.h"
#include "ui/main_window.h"
#include "ui/review/film_watch.h"
#include "ui/review/letter_view.h"
#include "ui/review/stage_view.h"
#include "ui/row_list.h"
#include "ui/theme.h"

#include <QApplication>
#include <QDialog>
#include <QDir>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTest>

#include <iostream>
#include <random>

namespace {

using namespace jg;
using namespace jg::ui;

/// Two exercises as two hands would do them: the page needs something to show.
void keepTwoRuns(Library& library) {
    std::mt19937 engine(4);
    for (const auto& [day, sd] : {std::pair{"2026-09-14", 2.9}, {"2026-11-20", 1.7}}) {
        std::normal_distribution<double> scatter(0, sd);
        ErrorRun run{library.setting("house.coach"), *parseIsoDate(day), {}};
        using L = Landmark;
        const std::array<L, 3> joints[] = {{L::BackHip, L::BackKnee, L::BackAnkle},
                                           {L::LeadHip, L::LeadKnee, L::LeadAnkle},
                                           {L::BackShoulder, L::BackElbow, L::BackWrist}};
        for (int n = 0; n < 9; ++n) {
            ErrorPicture p;
            p.name = "made-" + std::to_string(n);
            p.joints = joints[n % 3];
            p.truth = {{{500.0, 200.0}, {540.0 + 4 * n, 300.0}, {520.0, 410.0 - 3 * n}}};
            for (auto& round : p.clicks)
                for (std::size_t i = 0; i < 3; ++i)
                    round[i] = (*p.truth)[i] + ImagePoint{scatter(engine), scatter(engine)};
            run.pictures.push_back(p);
        }
        if (!keepRun(library, run)) std::cerr << "the exercise was not kept\n";
    }
}

class Photographer {
public:
    Photographer(MainWindow& window, QString out)
        : window_(window)
        , out_(std::move(out)) {}

    void shoot(const QString& name, QWidget* of = nullptr) {
        QTest::qWait(60);
        QWidget* w = of ? of : static_cast<QWidget*>(&window_);
        quiet();
        const QString path = out_ + "/" + name + ".png";
        if (!w->grab().save(path)) std::cerr << "can't write " << path.toStdString() << "\n";
    }

    /// Opens the newest submission of an athlete whose review was sent, or was not.
    void open(const std::string& firstName, bool sent = false) {
        auto submissions = window_.library().submissions();
        std::optional<Submission> newest;
        for (const Submission& s : *submissions) {
            auto athlete = window_.library().athlete(s.athlete);
            auto review = window_.library().reviewOf(s.id);
            const bool isSent = *review && (*review)->sent;
            if (athlete->firstName == firstName && isSent == sent &&
                (!newest || newest->received < s.received))
                newest = s;
        }
        if (newest) openNow(newest->id);
    }

    /// Until what the window reads or writes is done.
    void quiet() {
        if (!QTest::qWaitFor([&] { return window_.settled(); }, 20000)) std::cerr << "it goes on reading\n";
    }

    void key(int k, Qt::KeyboardModifiers m = Qt::NoModifier) {
        if (!window_.isActiveWindow()) window_.activateWindow();
        QTest::keyClick(&window_, static_cast<Qt::Key>(k), m);
        QTest::qWait(40);
        quiet();
    }

    /// On the stage, from one place to another, as parts of its width and height.
    void drag(QPointF from, QPointF to) {
        auto* stage = window_.reviewPlace()->findChild<StageView*>("stage");
        const auto at = [&](QPointF part) {
            return QPointF(part.x() * stage->width(), part.y() * stage->height()).toPoint();
        };
        QTest::mousePress(stage, Qt::LeftButton, {}, at(from));
        for (const double part : {0.3, 0.7, 1.0}) QTest::mouseMove(stage, at(from + part * (to - from)), 20);
        QTest::mouseRelease(stage, Qt::LeftButton, {}, at(to));
    }

    void settle() {
        ReviewPlace* r = window_.reviewPlace();
        if (!QTest::qWaitFor([&] { return r->stage().shownFrame() == r->playhead().frame(); }, 8000))
            std::cerr << "the frame did not come\n";
        QTest::qWait(80);
    }

    /// Waits until the letter's preview is laid out.
    void settleLetter() { QTest::qWait(1500); }

    void chooseMeasure(const std::string& id) {
        auto* list = window_.reviewPlace()->findChild<RowList*>("measures");
        const auto& rows = window_.reviewPlace()->session().assessment().measures;
        const auto row = std::find_if(rows.begin(), rows.end(), [&](const auto& m) { return m.id == id; });
        list->setCurrent(0);
        list->move(static_cast<int>(row - rows.begin()));
        settle();
    }

    /// The first row, from the end, whose target is not met and can be drawn.
    void chooseMeasureWithGhost() {
        auto* list = window_.reviewPlace()->findChild<RowList*>("measures");
        const auto& session = window_.reviewPlace()->session();
        const auto& rows = session.assessment().measures;
        int chosen = 0;
        for (std::size_t i = 0; i < rows.size(); ++i)
            if (ghostOf(session.delivery(), session.playbook(), rows[i], session.clip(),
                        session.athlete().hand))
                chosen = static_cast<int>(i);
        list->setCurrent(0);
        list->move(chosen);
        settle();
    }

    void jumpTo(Moment moment) {
        ReviewPlace* r = window_.reviewPlace();
        if (const auto f = r->session().delivery().frameOf(moment))
            r->playhead().step(*f - r->playhead().frame());
        settle();
    }

    void stage(int number) {
        for (int i = 0; i < 8; ++i) key(Qt::Key_PageUp);
        for (int i = 0; i < number; ++i) key(Qt::Key_PageDown);
        settle();
    }

private:
    void openNow(const SubmissionId& id) {
        window_.openReview(id);
        QTest::qWait(200);
        settle();
    }

    MainWindow& window_;
    QString out_;
};

void shootLetterAndFilm(MainWindow& window, const QString& out, std::size_t ofStop = 1) {
    ReviewSession& session = window.reviewPlace()->session();
    const DispatchRecipe recipe = previewRecipe(session);
    auto stills = correctionStills(recipe.film);
    if (!stills) return;
    const LetterPages pages(recipe.film.letter, std::move(*stills), recipe.film.words);
    for (int i = 0; i < (ofStop == 1 ? 1 : pages.count()); ++i) {
        QImage page(pages.size().toSize(), QImage::Format_RGB32);
        QPainter painter(&page);
        painter.setRenderHint(QPainter::Antialiasing);
        pages.paint(painter, i);
        painter.end();
        page.save(out + (i == 0 ? QString("/letter.png") : QString("/letter-%1.png").arg(i + 1)));
    }
    FileStore files;
    const std::filesystem::path film = (out + "/film.mp4").toStdString();
    const auto made = renderNarratedFilm(recipe.film, film, files);
    if (!made) return;
    auto reader = Reader::open(film);
    if (!reader) return;
    // Into the second stop, while the finger points: after the cards and its moment in motion.
    const Stop& stop = session.review().stops[ofStop];
    const double second = static_cast<double>(made->chapters[2 + ofStop].endMs) / 1000 -
                          0.45 * session.review().takes.at(stop.id).seconds();
    auto still = (*reader)->picture(FrameNumber{static_cast<std::int64_t>(second * 30)});
    if (still) toImage(*still).save(out + "/film-still.png");
    reader->reset();
    std::filesystem::remove(film);
}

/// A stop with an earlier delivery beside it.
void shootThenAndNow(MainWindow& window, Photographer& p) {
    window.toDesk();
    p.open("Ludo", true);
    p.stage(4);
    p.key(Qt::Key_Down);
    p.key(Qt::Key_Down);
    QTest::qWait(1500);
    p.shoot("then-and-now");
}

/// Its letter and film, for looking at them.
void shootItsLetter(MainWindow& window, Photographer& p, const QString& out) {
    window.toDesk();
    p.open("Ludo", true);
    QDir().mkpath(out + "/then");
    shootLetterAndFilm(window, out + "/then", 2);
}

/// Many at once: a roster from a table, all ready letters; and an athlete's outings.
void shootMany(MainWindow& window, Photographer& p, const QString& out) {
    const auto dialog = [&](const char* name) -> QDialog* {
        QDialog* found = nullptr;
        const auto open = [&] {
            for (QDialog* d : window.findChildren<QDialog*>(name))
                if (d->isVisible()) found = d;
            return found != nullptr;
        };
        if (!QTest::qWaitFor(open, 20000)) return nullptr;
        QTest::qWait(1500);
        return found;
    };
    const auto table = std::filesystem::path(out.toStdString()) / "team.csv";
    FileStore files;
    if (!files.write(table, "First name,Last name,Born,Throws,Height,Guardian,Guardian mail\n"
                            "Noor,Ade,2011-03-09,left,162,Ada Ade,ada@example.org\n"
                            "Ivo,Brand,3/9/2011,right,,,\n"
                            "Mira,Fenn,2 Jan 2010,right,5 ft 6,Jo Fenn,jo@example.org\n"))
        return;
    window.takeInFiles({QString::fromStdString(table.string())});
    if (QDialog* d = dialog("roster")) {
        p.shoot("roster", d);
        d->close();
    }
    std::filesystem::remove(table);
    window.toDesk();
    window.showPlace("post");
    if (auto* all = window.findChild<QPushButton*>("send-all-ready")) all->click();
    if (QDialog* d = dialog("send-all")) {
        p.shoot("send-all", d);
        d->close();
    }
    p.shoot("post");
    window.toDesk();
    window.showPlace("athletes");
    QTest::qWait(500);
    if (auto* enter = window.findChild<QPushButton*>("outing-enter")) enter->click();
    if (QDialog* d = dialog("outing")) {
        d->findChild<QLineEdit*>("pitches")->setText("54");
        d->findChild<QLineEdit*>("felt")->setText("arm heavy at the end");
        p.shoot("outing-form", d);
        QTest::keyClick(d, Qt::Key_Return, Qt::ControlModifier);
    }
    QTest::qWait(600);
    if (auto* button = window.findChild<QPushButton*>("outing-enter"))
        for (QWidget* w = button; w; w = w->parentWidget())
            if (auto* scroll = qobject_cast<QScrollArea*>(w)) scroll->ensureWidgetVisible(button, 0, 260);
    p.shoot("outings");
}

/// What passes quickly: a sentence being written, the film being watched, a mail being taken in. For looking
/// at them, not for the set.
/// Somebody in the picture is hidden; then names are out of sight.
void shootWhoIsHidden(MainWindow& window, Photographer& p) {
    window.toDesk();
    p.open("Emeka");
    p.stage(0);
    p.settle();
    p.key(Qt::Key_H);
    p.drag({0.72, 0.25}, {0.84, 0.6});
    if (!QTest::qWaitFor([&] { return !window.reviewPlace()->session().delivery().veils.empty(); }, 60000))
        std::cerr << "nobody was hidden\n";
    QTest::qWait(400);
    p.shoot("hidden");
    p.key(Qt::Key_Z);
    window.toDesk();
    p.key(Qt::Key_N, Qt::AltModifier);
    QTest::qWait(400);
    p.shoot("class");
    p.key(Qt::Key_N, Qt::AltModifier);
}

void shootWhatPasses(MainWindow& window, Photographer& p, const QString& out) {
    shootWhoIsHidden(window, p);
    shootItsLetter(window, p, out);
    shootMany(window, p, out);
    p.open("Emeka");
    p.stage(6);
    p.settleLetter();
    p.key(Qt::Key_Down);
    p.key(Qt::Key_Down);
    p.key(Qt::Key_Return);
    p.shoot("sentence");
    if (auto* field = window.findChild<QPlainTextEdit*>("sentence")) QTest::keyClick(field, Qt::Key_Escape);
    p.key(Qt::Key_W);
    FilmWatch* watch = nullptr;
    const auto open = [&] {
        watch = window.findChild<FilmWatch*>();
        return watch && watch->isVisible();
    };
    if (!QTest::qWaitFor(open, 300000)) return;
    for (int i = 0; i < 4; ++i) QTest::keyClick(watch, Qt::Key_Down);
    QTest::keyClick(watch, Qt::Key_C);
    QTest::qWait(1500);
    p.shoot("film-watch", watch);
    QTest::keyClick(watch, Qt::Key_F);
    p.shoot("film-on-a-phone", watch);
    QTest::keyClick(watch, Qt::Key_Escape);
    const auto mail = std::filesystem::path(out.toStdString()) / "from-home.eml";
    const auto submissions = window.library().submissions();
    const auto film = readFile(window.library().mediaPath(submissions->front().clips.front()));
    Mail m;
    m.fromName = "Parent of Ludo";
    m.fromAddress = "ludo.home@example.org";
    m.toAddress = "ilse@example.org";
    m.subject = "Three from today";
    m.text = "Hello Ilse,\n\nis he still short? His elbow is a little sore since Sunday.\n";
    m.attachments = {{"IMG_0412.mov", "video/quicktime", *film}, {"sketch.pdf", "application/pdf", "%PDF"}};
    m.messageId = "home@example.org";
    FileStore files;
    if (!files.write(mail, *toBytes(m))) return;
    window.toDesk();
    window.takeInFiles({QString::fromStdString(mail.string())});
    const auto intake = [&] { return window.findChild<QDialog*>("intake") != nullptr; };
    if (QTest::qWaitFor(intake, 20000)) p.shoot("mail-in", window.findChild<QDialog*>("intake"));
    std::filesystem::remove(mail);
}

/// An athlete's deliveries under each other, and two of them large in three ways.
void shootJuxta(MainWindow& window, Photographer& p) {
    p.key(Qt::Key_J);
    JuxtaPlace* juxta = window.juxtaPlace();
    if (!juxta) return;
    const auto waitFor = [](const auto& done) {
        for (int i = 0; i < 600 && !done(); ++i) QTest::qWait(50);
        QTest::qWait(400);
    };
    waitFor([&] { return juxta->settled() && juxta->sheet().stillsShown() > 0; });
    p.key(Qt::Key_Right);
    p.key(Qt::Key_Right);
    p.shoot("juxta");
    p.key(Qt::Key_Return);
    const auto exact = [&] {
        return juxta->pair()->view().side(0).exact && juxta->pair()->view().side(1).exact;
    };
    waitFor([&] { return juxta->pair()->lockstep() && exact(); });
    p.shoot("pair");
    p.key(Qt::Key_W);
    if (qEnvironmentVariableIsSet("JUXTAGRAPH_ALL_SHOTS")) p.shoot("pair-over");
    p.key(Qt::Key_W);
    waitFor(exact);
    if (qEnvironmentVariableIsSet("JUXTAGRAPH_ALL_SHOTS")) p.shoot("pair-figures");
    p.key(Qt::Key_Escape);
    p.key(Qt::Key_F);
    waitFor([&] { return juxta->curves()->stillsShown() > 0; });
    p.shoot("curves");
    p.key(Qt::Key_Escape);
    p.key(Qt::Key_Escape);
    QTest::qWait(60);
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    if (argc < 3) {
        std::cerr << "ui_shots LIBRARY OUT_DIR [WIDTH HEIGHT [test-language | large-text]]\n";
        return 2;
    }
    const QString out = argv[2];
    QDir().mkpath(out);
    const std::string how = argc > 5 ? argv[5] : "";
    if (how == "large-text") setTextScale(1.5);
    dress(app);
    if (how == "test-language") setWindowWords(accented());
    auto playbook = loadPlaybook(dataFolder() / "playbook");
    auto library = Library::open(argv[1], false, std::make_shared<FileStore>());
    if (!playbook || !library) {
        std::cerr << (english()(!playbook ? playbook.error().text : library.error().text)) << "\n";
        return 1;
    }
    keepTwoRuns(**library);
    const Date today = *parseIsoDate("2026-11-25");
    MainWindow window({std::move(*library), std::move(*playbook), std::make_shared<FixedClock>(today),
                       makeStandInMicrophone(demoVoices()), makeStandInLoudspeaker()});
    window.resize(argc > 4 ? atoi(argv[3]) : 1280, argc > 4 ? atoi(argv[4]) : 800);
    window.show();
    window.activateWindow();
    if (!QTest::qWaitForWindowExposed(&window)) return 1;
    Photographer p(window, out);
    p.shoot("desk");
    window.showPlace("playbook");
    p.shoot("playbook");
    window.showPlace("hand");
    p.shoot("hand");
    window.showPlace("group");
    p.shoot("group");
    window.showPlace("athletes");
    p.key(Qt::Key_Down);
    p.shoot("log");
    shootJuxta(window, p);
    window.showPlace("desk");
    p.open("Wren");
    p.jumpTo(Moment::Set);
    window.reviewPlace()->playhead().step(250);
    p.settle();
    p.shoot("look");
    window.toDesk();
    p.open("Ludo");
    p.stage(1);
    p.jumpTo(Moment::Plant);
    p.shoot("positions");
    p.stage(2);
    p.shoot("measure");
    p.stage(3);
    p.shoot("judge");
    shootThenAndNow(window, p);
    window.toDesk();
    p.open("Emeka");
    p.stage(2);
    p.chooseMeasureWithGhost();
    p.shoot("ghost");
    p.stage(4);
    p.key(Qt::Key_Down);
    p.key(Qt::Key_Down);
    p.settle();
    p.key(Qt::Key_R);
    QTest::qWait(2500);
    p.key(Qt::Key_K);
    QTest::qWait(1200);
    p.key(Qt::Key_3);
    p.drag({0.34, 0.30}, {0.42, 0.66});
    QTest::qWait(600);
    p.shoot("say");
    p.key(Qt::Key_Escape);
    p.key(Qt::Key_Z);
    p.stage(5);
    p.shoot("prescribe");
    p.stage(6);
    p.settleLetter();
    p.shoot("send");
    shootLetterAndFilm(window, out);
    if (qEnvironmentVariableIsSet("JUXTAGRAPH_ALL_SHOTS")) shootWhatPasses(window, p, out);
    return 0;
}
