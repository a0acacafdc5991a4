// SPDX-License-Identifier: GPL-3.0-or-later
// Your hand: the coach's own click error, the exercise it comes from, and how it got better.
#pragma once

#include "base/clock.h"
#include "desk/jobs/job.h"
#include "desk/own/own_error_exercise.h"
#include "ui/film/stage_view.h"

#include <QPointer>
#include <QWidget>

class QLabel;
class QLineEdit;
class QPushButton;
class QStackedWidget;
class QVBoxLayout;

namespace jg::ui {

class OwnErrorPlace : public QWidget, public StageTool {
    Q_OBJECT
public:
    explicit OwnErrorPlace(const Clock& clock, QWidget* parent = nullptr);
    void show(Library& library);
    /// The small print in the sidebar.
    QString inShort() const;

    /// The point asked for now; nothing when no exercise is under way.
    struct Asked {
        Showing showing;
        std::size_t joint = 0;
    };
    std::optional<Asked> asked() const;
    const Exercise& exercise() const { return exercise_; }
    StageView& stage() { return *stage_; }

    bool press(ImagePoint at, double reach) override;
    bool wantsLoupe() const override { return asked().has_value(); }
    QString loupeText() const override;

Q_SIGNALS:
    void changed();
    void tell(const QString& sentence);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    QWidget* resultsPage();
    QWidget* exercisePage();
    void begin();
    void start(Exercise exercise);
    void stop(const QString& why);
    void ask();
    void finish();
    void showResults();
    void addRow(const QString& left, const QString& middle, const QString& right);

    const Clock& clock_;
    Library* library_ = nullptr;
    std::vector<ErrorRun> runs_;
    Exercise exercise_;
    std::size_t shown_ = 0; ///< index into the exercise's order
    std::size_t joint_ = 0;
    bool running_ = false;
    QPointer<Job> job_;

    QStackedWidget* pages_;
    QLineEdit* coach_;
    QLabel* summary_;
    QPushButton* begin_;
    QVBoxLayout* rows_;
    StageView* stage_;
    QLabel* prompt_;
    QLabel* progress_;
};

} // namespace jg::ui
