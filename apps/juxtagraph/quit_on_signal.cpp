// SPDX-License-Identifier: GPL-3.0-or-later
#include "apps/juxtagraph/quit_on_signal.h"

#include "ui/kit/ask_first.h"

#include <QApplication>
#include <QDialog>
#include <QSocketNotifier>
#include <QTimer>

#include <cerrno>
#include <csignal>
#include <fcntl.h>
#include <unistd.h>

namespace {

int wake[2] = {-1, -1};

// A handler may do little more than write: the event loop does the rest.
void onSignal(int) {
    const int before = errno;
    const char byte = 1;
    [[maybe_unused]] const ssize_t written = write(wake[1], &byte, 1);
    errno = before;
}

/// A form that waits for an answer would hold the program up: it is left, as by Escape.
void leaveDialogs() {
    while (QWidget* top = QApplication::activeModalWidget()) {
        auto* dialog = qobject_cast<QDialog*>(top);
        dialog ? dialog->reject() : static_cast<void>(top->close());
        if (QApplication::activeModalWidget() == top) return; // it does not go; the patience below ends
    }
}

} // namespace

void quitOnSignal(QApplication& app) {
    if (pipe2(wake, O_CLOEXEC | O_NONBLOCK) != 0) return; // then it ends as any program does
    auto* notifier = new QSocketNotifier(wake[0], QSocketNotifier::Read, &app);
    QObject::connect(notifier, &QSocketNotifier::activated, &app, [&app, notifier] {
        notifier->setEnabled(false);
        jg::ui::askNobody();
        // A window that still keeps something closes itself when it is done; a letter on its way does not
        // hold the system up: the outbox knows how far it came.
        constexpr int kPatienceMs = 5000;
        // First, for what is left may hold up; exit(), for quit() would ask the windows once more.
        QTimer::singleShot(kPatienceMs, &app, [] { QCoreApplication::exit(0); });
        leaveDialogs();
        app.closeAllWindows();
    });
    for (const int signal : {SIGTERM, SIGINT}) {
        struct sigaction action = {};
        action.sa_handler = onSignal;
        action.sa_flags = SA_RESTART;
        sigaction(signal, &action, nullptr);
    }
}
