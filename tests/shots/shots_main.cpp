// SPDX-License-Identifier: GPL-3.0-or-later
// Makes the pictures of docs/screenshots from a demo library: ui_shots LIBRARY OUT_DIR [WIDTH HEIGHT]. With
// JUXTAGRAPH_ALL_SHOTS in the environment also those that are not in the set.
#include "base/clock.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "desk/own/own_error_exercise.h"
#include "tests/shots/extra.h"
#include "tests/shots/what_goes_out.h"
#include "ui/kit/theme.h"
#include "ui/places/juxta/juxta_place.h"
#include "ui/places/juxta/sheet_view.h"

#include <QApplication>
#include <QDialog>
#include <QDir>
#include <QTest>

#include <iostream>
#include <random>

namespace {

using namespace jg;
using namespace jg::ui;
using test::Photographer;

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

/// An athlete's deliveries under each other, and two of them large in three ways.
void shootJuxta(Photographer& p, bool extra) {
    p.key(Qt::Key_J);
    JuxtaPlace* juxta = p.window().juxtaPlace();
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
    if (extra) p.shoot("pair-over");
    p.key(Qt::Key_W);
    waitFor(exact);
    if (extra) p.shoot("pair-figures");
    p.key(Qt::Key_Escape);
    p.key(Qt::Key_F);
    while (juxta->curves()->second() != Feature::Elbow) p.key(Qt::Key_G);
    waitFor([&] { return juxta->curves()->stillsShown() > 0; });
    p.shoot("curves");
    p.key(Qt::Key_Escape);
    p.key(Qt::Key_Escape);
    QTest::qWait(60);
}

/// A stop with an earlier delivery beside it.
void rememberThenAndNow(Photographer& p) {
    p.window().toDesk();
    p.open("Ludo", true);
    p.stage(4);
    p.key(Qt::Key_Down);
    p.key(Qt::Key_Down);
    QTest::qWait(1500);
    p.remember("then-and-now");
}

/// The stop in hand has two by now.
void rememberTakes(Photographer& p) {
    p.key(Qt::Key_U);
    if (QDialog* d = p.dialog("takes")) {
        QTest::keyClick(d, Qt::Key_P);
        QTest::qWait(900);
        p.remember("takes", d);
        QTest::keyClick(d, Qt::Key_Escape);
    }
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
    const bool extra = qEnvironmentVariableIsSet("JUXTAGRAPH_ALL_SHOTS");
    Photographer p(window, out, extra);
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
    shootJuxta(p, extra);
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
    rememberThenAndNow(p);
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
    rememberTakes(p);
    p.key(Qt::Key_Z);
    p.stage(5);
    p.shoot("prescribe");
    p.stage(6);
    p.settleLetter();
    p.shoot("send");
    shootFilm(p);
    if (extra) shootExtra(p);
    window.toDesk();
    p.open("Emeka");
    shootLetters(p);
    shootPost(p);
    return 0;
}
