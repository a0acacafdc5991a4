// How soon the window answers while its back key is held and while the ribbon is scrubbed, beside a thread
// that does nothing but tick in the same process: window_bench prints JSON.
#include "tests/ui/driver.h"
#include "ui/review/film_deck.h"
#include "ui/review/ribbon.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QThread>
#include <QTimer>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <iostream>

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
    return result;
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    std::cout << bench().dump(2) << '\n';
}
