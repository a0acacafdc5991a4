// SPDX-License-Identifier: GPL-3.0-or-later
// The takes of one stop beside each other: looked at, heard, and one of them taken.
#pragma once

#include "library/library.h"
#include "review/record/review.h"
#include "ui/stages/say/narration.h"

#include <QDialog>
#include <QPointer>
#include <QTimer>

#include <optional>
#include <vector>

class QGridLayout;
class QLabel;
class QPushButton;

namespace jg::ui {

class WaveView;

/// Emits once what was decided, and deletes itself when closed.
class TakesDialog : public QDialog {
    Q_OBJECT
public:
    /// `takes` are those of the stop, the one that is in the film first; their sounds lie in `library`.
    TakesDialog(const Stop& stop, std::vector<Take> takes, const Library& library, Narration& narration,
                QWidget* parent);
    ~TakesDialog() override;

Q_SIGNALS:
    void taken(std::size_t take);
    void othersThrownAway();

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Row {
        WaveView* wave;
        QPushButton* take;
        QPushButton* play;
        std::size_t samples; ///< of the file
    };
    Row addRow(QGridLayout& grid, std::size_t n);
    void take(std::size_t n);
    void throwOthersAway();
    void hear(std::size_t n);
    void follow();
    /// The take whose buttons have the focus; else the first.
    std::size_t current() const;
    void go(int by);

    const Stop stop_;
    const std::vector<Take> takes_;
    const Library& library_;
    const QPointer<Narration> narration_; ///< plays them; gone before this when the window closes
    std::vector<Row> rows_;
    QLabel* problem_;
    std::optional<std::size_t> heard_;
    QTimer clock_; ///< while one is heard
};

} // namespace jg::ui
