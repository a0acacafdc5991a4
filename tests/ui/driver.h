// SPDX-License-Identifier: GPL-3.0-or-later
// Drives the real window by mouse and keys, as a coach does.
#pragma once

#include "desk/keeping/places.h"
#include "tests/support/walk.h"
#include "ui/stages/measure/measure_bench.h"
#include "ui/window/main_window.h"

#include <QDialog>
#include <QPushButton>
#include <QTest>

#include <functional>

namespace jg::test {

class Driver {
public:
    /// A window on the library in `folder`; the stand-in microphone speaks `speed` times as fast.
    Driver(const std::filesystem::path& folder, double speed = 12,
           std::vector<std::filesystem::path> voices = demoVoices(), const Playbook& book = playbook());

    ui::MainWindow& window() { return *window_; }
    ui::ReviewPlace& review() { return *window_->reviewPlace(); }
    const Review& document() { return review().session().review(); }
    /// The delivery in hand.
    const DeliveryMarks& delivery() { return review().session().delivery(); }
    /// Until nothing is read or written any more.
    void settle();

    void key(int k, Qt::KeyboardModifiers m = Qt::NoModifier);
    void type(QWidget* into, const QString& text);
    /// Clicks through the window, so that what is covered or disabled is not clicked.
    void click(QWidget* widget, QPoint at);
    void click(QWidget* widget) { click(widget, widget->rect().center()); }
    /// Clicks a picture point on the stage.
    void clickPicture(ImagePoint at);
    void dragPicture(ImagePoint from, ImagePoint to);
    /// Steps with the arrow keys until `frame` is on the stage.
    void stepTo(qint64 frame);
    void waitForPicture();
    /// Until the exact picture of the playhead's frame is shown.
    void waitForExact();
    void drop(const QString& file);
    /// Looks at a dialog that has opened, and closes it.
    void withDialog(const char* name, const std::function<void(QDialog&)>& look);
    QPushButton* button(QWidget* inside, const QString& text);

private:
    std::unique_ptr<ui::MainWindow> window_;
};

/// The top dialog of a name, shown and ready for keys; null, with a failure, when none opens.
QDialog* opened(Driver& d, const char* name);

/// Labels and buttons inside `root` that have less room than their text needs, one a line.
std::string cutIn(QWidget* root);

/// Waits; false when it did not come.
bool waitFor(const std::function<bool()>& done, int ms = 20000);

} // namespace jg::test
