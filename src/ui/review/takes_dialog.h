// The takes of one stop beside each other: looked at, heard, and one of them taken.
#pragma once

#include "base/result.h"
#include "review/review.h"

#include <QDialog>
#include <QTimer>

#include <functional>
#include <optional>
#include <vector>

class QGridLayout;
class QLabel;
class QPushButton;

namespace jg::ui {

class WaveView;

/// The takes of a stop, the one that is in the film first.
struct TakesOnOffer {
    QString stop;
    std::vector<Take> takes;
    std::function<Result<std::vector<float>>(const Take&)> sound; ///< of a take's whole file
    std::function<Status(const Take&)> hear;
    std::function<void()> stopHearing;
    std::function<std::optional<std::int64_t>()> heardAt; ///< in samples of the file; nothing = silent
};

/// Emits once what was decided, and deletes itself when closed.
class TakesDialog : public QDialog {
    Q_OBJECT
public:
    TakesDialog(TakesOnOffer offer, QWidget* parent);
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

    TakesOnOffer offer_;
    std::vector<Row> rows_;
    QLabel* problem_;
    std::optional<std::size_t> heard_;
    QTimer clock_; ///< while one is heard
};

} // namespace jg::ui
