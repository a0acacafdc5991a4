// SPDX-License-Identifier: GPL-3.0-or-later
// The window of a demo library, driven by keys and photographed.
#pragma once

#include "kinematics/anatomy.h"
#include "ui/window/main_window.h"

#include <QImage>
#include <QPointF>
#include <QString>

#include <map>
#include <string>

class QDialog;

namespace jg::test {

class Photographer {
public:
    /// Pictures go into `out`; with `all` also those that are only remembered.
    Photographer(ui::MainWindow& window, QString out, bool all);

    ui::MainWindow& window() { return window_; }
    QString out() const { return out_; }
    /// Of the window, or of a widget; also kept for a sheet of several.
    void shoot(const QString& name, QWidget* of = nullptr);
    /// The same, for a sheet alone.
    void remember(const QString& name, QWidget* of = nullptr);
    void save(const QString& name, const QImage& picture) const;
    QImage taken(const QString& name) const;

    /// Opens the newest submission of an athlete whose review was sent, or was not.
    void open(const std::string& firstName, bool sent = false);
    /// Until what the window reads or writes is done.
    void quiet();
    void key(int k, Qt::KeyboardModifiers m = Qt::NoModifier);
    /// On the stage, from one place to another, as parts of its width and height.
    void drag(QPointF from, QPointF to);
    /// Until the frame is there in full.
    void settle();
    /// Until the letter's preview is laid out.
    void settleLetter();
    /// The first row, from the end, whose target is not met and can be drawn.
    void chooseMeasureWithGhost();
    void jumpTo(Moment moment);
    void stage(int number);
    /// The visible one of that name; null when it does not come within 20 s.
    QDialog* dialog(const QString& name);

private:
    ui::MainWindow& window_;
    QString out_;
    bool all_;
    std::map<QString, QImage> taken_;
};

} // namespace jg::test
