// SPDX-License-Identifier: GPL-3.0-or-later
// Begins a job in the real window and closes it, or is closed: close_storm LIBRARY KIND button|signal MS.
// "began" is written when the job was begun. Ends with 0 when the window closed.
#include "apps/juxtagraph/quit_on_signal.h"
#include "base/clock.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "ui/kit/theme.h"
#include "ui/window/main_window.h"

#include <QApplication>
#include <QDialog>
#include <QMessageBox>
#include <QPushButton>
#include <QTest>
#include <QTimer>

#include <iostream>

namespace {

using namespace jg;

/// A window that does not go, as one whose letter is being sent.
class Stays : public QObject {
public:
    using QObject::QObject;
    bool eventFilter(QObject*, QEvent* event) override {
        if (event->type() == QEvent::Close) event->ignore();
        return event->type() == QEvent::Close;
    }
};

/// What begins each kind of job; false when it is not there.
bool begin(ui::MainWindow& window, const QString& kind, const SubmissionId& submission) {
    const auto press = [&](const char* name) {
        auto* button = window.findChild<QPushButton*>(name);
        if (button) button->click();
        return button != nullptr;
    };
    if (kind == "again") {
        window.showPlace("post");
        for (auto* button : window.findChildren<QPushButton*>())
            if (button->text() == ui::say("post-place.send-now") ||
                button->text() == ui::say("post-place.send-it-again"))
                return button->click(), true;
        return false;
    }
    if (kind == "stays") return window.installEventFilter(new Stays(&window)), true;
    if (kind == "mails") return window.run("mail-in"), true;
    window.openReview(submission);
    // The letter is laid out when its stage is shown; a light copy of the film is made by and by.
    if (kind == "preview" || kind == "scrub") return true;
    if (kind == "watch") return window.run("send-watch"), true;
    return press("main");
}

/// One step toward the desktop, as a person takes it: a question is answered, a form left, the window closed.
void leaveOneStep(ui::MainWindow& window) {
    QWidget* top = QApplication::activeModalWidget();
    if (auto* question = qobject_cast<QMessageBox*>(top)) {
        for (auto* button : question->buttons())
            if (question->buttonRole(button) == QMessageBox::AcceptRole) return button->click();
    }
    if (auto* form = qobject_cast<QDialog*>(top)) return form->reject();
    window.close();
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    if (argc < 5) return 2;
    quitOnSignal(app);
    ui::dress(app);
    auto book = loadPlaybook(dataFolder() / "playbook");
    auto library = Library::open(argv[1], false, std::make_shared<FileStore>());
    if (!book || !library) return 3;
    const auto submissions = (*library)->submissions();
    if (!submissions || submissions->empty()) return 4;
    const SubmissionId submission = submissions->front().id;
    ui::MainWindow window({std::move(*library), std::move(*book), std::make_shared<SystemClock>(),
                           makeStandInMicrophone(demoVoices()), makeStandInLoudspeaker()});
    window.show();
    QTimer::singleShot(0, &window, [&] {
        std::cout << (begin(window, argv[2], submission) ? "began" : "nothing") << std::endl;
        if (QString(argv[3]) != "button") return;
        QTimer::singleShot(std::atoi(argv[4]), &window, [&] {
            // While a letter is sent it stays open and says so: whoever wants to close it tries again. A form
            // is left first, for nobody reaches the window below it.
            auto* again = new QTimer(&window);
            QObject::connect(again, &QTimer::timeout, &window, [&] { leaveOneStep(window); });
            again->start(50);
        });
    });
    return app.exec();
}
