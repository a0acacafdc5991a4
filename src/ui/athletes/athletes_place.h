// The log: one athlete over time.
#pragma once

#include "desk/desk_list.h"
#include "library/library.h"
#include "review/assess.h"

#include <QWidget>

#include <map>
#include <vector>

class QLabel;
class QVBoxLayout;

namespace jg::ui {

class RowList;

/// Athletes at the left; the chosen one's reviews, measures over time and promises at the right.
class AthletesPlace : public QWidget {
    Q_OBJECT
public:
    explicit AthletesPlace(QWidget* parent = nullptr);
    void show(Library& library, const Playbook& playbook, Date today);
    void choose(const AthleteId& athlete);
    void moveSelection(int by);

Q_SIGNALS:
    void open(const jg::SubmissionId& submission);

private:
    struct Seen {
        Review review;
        Submission submission;
        Assessment assessment;
    };
    void showAthlete(int row);
    void addMeasures(const std::vector<Seen>& seen);
    void addReviews(const std::vector<Seen>& seen);

    RowList* list_;
    QVBoxLayout* page_;
    std::vector<Athlete> athletes_;
    std::map<AthleteId, std::vector<Seen>> seen_;
    std::vector<Promise> promises_;
    const Playbook* playbook_ = nullptr;
    Date today_{};
};

} // namespace jg::ui
