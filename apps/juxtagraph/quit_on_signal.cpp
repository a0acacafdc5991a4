#include "apps/juxtagraph/quit_on_signal.h"

#include <QApplication>
#include <QSocketNotifier>
#include <QTimer>

#include <csignal>
#include <fcntl.h>
#include <unistd.h>

namespace {

int wake[2] = {-1, -1};

// A handler may do little more than write: the event loop does the rest.
void onSignal(int) {
    const char byte = 1;
    [[maybe_unused]] const ssize_t written = write(wake[1], &byte, 1);
}

} // namespace

void quitOnSignal(QApplication& app) {
    if (pipe2(wake, O_CLOEXEC | O_NONBLOCK) != 0) return; // then it ends as any program does
    auto* notifier = new QSocketNotifier(wake[0], QSocketNotifier::Read, &app);
    QObject::connect(notifier, &QSocketNotifier::activated, &app, [&app, notifier] {
        notifier->setEnabled(false);
        app.closeAllWindows();
        // A window that still keeps something closes itself when it is done; a letter on its way does not
        // hold the system up: the outbox knows how far it came.
        constexpr int kPatienceMs = 5000;
        QTimer::singleShot(kPatienceMs, &app, &QApplication::quit);
    });
    for (const int signal : {SIGTERM, SIGINT}) std::signal(signal, onSignal);
}
