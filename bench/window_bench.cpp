// SPDX-License-Identifier: GPL-3.0-or-later
// How soon the window answers while its back key is held and while the ribbon is scrubbed, beside a thread
// that does nothing but tick in the same process: window_bench prints JSON.
#include "tests/ui/driver.h"
#include "ui/film/film_deck.h"
#include "ui/film/ribbon.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QThread>
#include <QTimer>
#include <nlohmann/json.hpp>
#include <sqlite3.h>

#include <algorithm>
#include <atomic>
#include <iostream>
#include <thread>

namespace {

using namespace jg;
using nlohmann::json;

/// How much later than asked a timer of 2 ms came in the thread it lives in, in milliseconds.
class Latency : public QObject {
public:
    Latency() {
        timer_.setTimerType(Qt::PreciseTimer);
        connect(&timer_, &QTimer::timeout, this, [this] {
            waits_.push_back(static_cast<double>(clock_.nsecsElapsed()) * 1e-6 - 2);
            clock_.start();
        });
        clock_.start();
        timer_.start(2);
    }
    json figures() const {
        const auto quick = std::count_if(waits_.begin(), waits_.end(), [](double ms) { return ms < 50; });
        return {{"below50", static_cast<double>(quick) / static_cast<double>(waits_.size())},
                {"worstMs", *std::max_element(waits_.begin(), waits_.end())}};
    }

private:
    QTimer timer_{this};
    QElapsedTimer clock_;
    std::vector<double> waits_;
};

/// What `work` left of the window's own pace and of the idle thread's.
json measured(const std::function<void()>& work) {
    QThread idle;
    Latency own, reference;
    reference.moveToThread(&idle);
    idle.start();
    work();
    QMetaObject::invokeMethod(
        &reference, [&] { reference.moveToThread(QCoreApplication::instance()->thread()); },
        Qt::BlockingQueuedConnection);
    idle.quit();
    idle.wait();
    return {{"window", own.figures()}, {"idle", reference.figures()}};
}

std::atomic<int> statements = 0; ///< that the window's own thread gave to the database
std::thread::id windowsThread;

int countStatement(unsigned, void*, void*, void*) {
    if (std::this_thread::get_id() == windowsThread) ++statements;
    return 0;
}

int watchConnection(sqlite3* db, char**, const struct sqlite3_api_routines*) {
    return sqlite3_trace_v2(db, SQLITE_TRACE_STMT, countStatement, nullptr);
}

/// What a step of a drag costs the window's thread with every stage built and 60 measures asked: edit,
/// assessment, and what is seen of it.
json edits() {
    test::Walk walk;
    Review r = *walk.library->review(walk.review.id);
    for (const MeasureDefinition& m : test::playbook().measures) {
        const Assessment now = assess(r, test::playbook(), walk.submission.clips, walk.athlete.hand);
        if (now.measures.size() >= 60) break;
        if (!now.measure(m.id)) r.extras.push_back(m.id);
    }
    if (!walk.library->save(r)) return {};
    test::Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    for (const int key : {Qt::Key_PageUp, Qt::Key_PageDown}) // through all stages, and back to Measure
        for (int i = 0; i < 7; ++i) {
            d.key(key);
            d.settle();
        }
    for (int i = 0; i < 4; ++i) d.key(Qt::Key_PageUp);
    d.settle();
    ReviewSession& session = d.review().session();
    const auto [key, mark] = *session.delivery().points.begin();
    std::vector<double> ms;
    const int before = statements;
    session.beginGesture();
    for (int i = 0; i < 300; ++i) {
        PointMark moved = mark;
        moved.point.at.x += 0.05 * i;
        QElapsedTimer clock;
        clock.start();
        if (!session.perform(asIs("Move"), {SetPoint{key, moved}})) return {};
        ms.push_back(static_cast<double>(clock.nsecsElapsed()) * 1e-6);
    }
    const int asked = statements - before;
    session.endGesture();
    std::sort(ms.begin(), ms.end());
    return {{"measures", session.assessment().measures.size()},
            {"medianMs", ms[ms.size() / 2]},
            {"p95Ms", ms[ms.size() * 95 / 100]},
            {"queries", asked}};
}

json bench() {
    test::Walk walk(Stage::Look);
    FilmOrder order = walk.order;
    order.fps = 240;
    order.seed = 99;
    if (!makeFilm(order, walk.folder / "long.mp4")) return {};
    const IntakeForm form{walk.athlete.id,
                          {},
                          {{walk.folder / "long.mp4", View::Open, 240}},
                          Start::Stretch,
                          Surface::Mound,
                          "",
                          "",
                          test::today()};
    const Submission taken =
        *takeIn(*walk.library, form, {*lookAtFilm(walk.folder / "long.mp4")}, walk.clock, walk.ids);
    test::Driver d(walk.library->folder());
    d.window().openReview(taken.id);
    d.waitForPicture();
    d.key(Qt::Key_End);
    d.waitForPicture();
    int shown = 0;
    QObject::connect(d.review().findChild<ui::FilmDeck*>(), &ui::FilmDeck::pictureShown, [&] { ++shown; });
    json result;
    result["held"] = measured([&] {
        for (int i = 0; i < 500; ++i) {
            d.key(Qt::Key_Left);
            QTest::qWait(14);
        }
    });
    result["heldShown"] = shown;
    auto* ribbon = d.review().findChild<ui::Ribbon*>();
    result["scrubbed"] = measured([&] {
        QTest::mousePress(ribbon, Qt::LeftButton, {}, {40, 90});
        for (int i = 0; i < 200; ++i) {
            QTest::mouseMove(ribbon, {40 + (i * 37) % (ribbon->width() - 80), 90});
            QTest::qWait(5);
        }
        QTest::mouseRelease(ribbon, Qt::LeftButton, {}, {40, 90});
    });
    result["edit"] = edits();
    return result;
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    windowsThread = std::this_thread::get_id();
    sqlite3_auto_extension(reinterpret_cast<void (*)()>(watchConnection));
    QApplication app(argc, argv);
    std::cout << bench().dump(2) << '\n';
}
