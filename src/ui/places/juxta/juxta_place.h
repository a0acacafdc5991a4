// SPDX-License-Identifier: GPL-3.0-or-later
// The sheet of deliveries under each other, worked with by keys; any two of its cells open large.
#pragma once

#include "base/clock.h"
#include "desk/jobs/job.h"
#include "desk/session/juxta.h"
#include "ui/places/juxta/curve_place.h"
#include "ui/places/juxta/pair_place.h"

#include <QPointer>
#include <QStackedWidget>

class QLabel;
class QScrollArea;

namespace jg {
class Job;
}

namespace jg::ui {

class SheetView;

/// What the place needs from the window.
struct JuxtaSurroundings {
    Library& library;
    const Playbook& playbook;
    const Clock& clock;
    IdSource& ids;
    std::function<void(unsigned)> setWhere;
    std::function<void(const QString&)> runAction;
    std::function<void()> home;
    MakeKeeper keeperOf = {}; ///< of reviews that are edited beside each other
    std::function<void(std::unique_ptr<ReviewKeeper>)> park =
        {}; ///< takes what is still on its way at the end
};

class JuxtaPlace : public QWidget {
    Q_OBJECT
public:
    /// Rows by date at first; then in the coach's order. `athlete` is whose other deliveries are offered
    /// first.
    JuxtaPlace(std::vector<JuxtaKey> rows, AthleteId athlete, const JuxtaSurroundings& surroundings);

    ~JuxtaPlace() override;

    bool act(const QString& id);
    bool knows(const QString& id) const;
    SheetView& sheet() { return *sheet_; }
    /// The two that are open large; null while the sheet is shown.
    PairPlace* pair() const { return pair_; }
    /// The curves; null while they are not shown.
    CurvePlace* curves() const { return curves_; }
    Foot& foot() { return *foot_; }
    const std::vector<JuxtaKey>& rows() const { return rows_; }
    /// Nothing is being read any more.
    bool settled() const { return reading_ == 0; }

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    Handlers handlers();
    void read();
    void show(JuxtaSheet sheet);
    void readStills();
    void readRow(const std::shared_ptr<const JuxtaSheet>& sheet, std::size_t row, QSize size);
    void setHints();
    PairStart startOf(CellKey cell) const;
    void openTwo();
    void closeTwo();
    void openCurves();
    void closeCurves();
    const Handlers& current() const;
    void markCell();
    void hideRow();
    void hideColumn();
    void moveRow(int by);
    void moveColumn(int by);
    void chooseRows();
    void askForRows(const std::vector<JuxtaOffer>& offers);
    void chooseColumns();
    void nameRow();
    void overrule();
    void save();
    void saveTo(const QString& path);
    void changeAthlete(const AthleteId& athlete, const std::function<void(Athlete&)>& change);
    bool aCellIsChosen() const;

    std::vector<QPointer<Job>> stillJobs_; ///< of the size that is shown
    JuxtaSurroundings s_;
    AthleteId athlete_;
    std::vector<JuxtaKey> rows_;
    bool ordered_ = false; ///< by the coach, else by date
    std::vector<JuxtaAt> columns_;
    std::set<std::string> overruled_; ///< measures that are compared by the coach's word
    int reading_ = 0;
    int serial_ = 0; ///< of the sheet shown: stills of an older one are dropped
    Inbox inbox_;    ///< stills on their way from the jobs
    QStackedWidget* stack_;
    QLabel *title_, *how_;
    QScrollArea* scroll_;
    SheetView* sheet_;
    PairPlace* pair_ = nullptr;
    CurvePlace* curves_ = nullptr;
    Foot* foot_;
    const Handlers handlers_ = handlers();
};

} // namespace jg::ui
