// SPDX-License-Identifier: GPL-3.0-or-later
// The log: one athlete over time.
#pragma once

#include "desk/keeping/library_reader.h"
#include "desk/pages/log.h"
#include "review/record/athlete_edit.h"

#include <QWidget>

#include <functional>
#include <optional>
#include <vector>

class QLineEdit;
class QVBoxLayout;

namespace jg::ui {

class RowList;

/// Athletes at the left, narrowed by a search as typed; the chosen one's facts, measures over time, reviews
/// and promises at the right. Everything is read beside the window.
class AthletesPlace : public QWidget {
    Q_OBJECT
public:
    /// `keep` puts an edit of an athlete into the library.
    AthletesPlace(LibraryReader& reader, const Playbook& playbook,
                  std::function<Status(const AthleteEdit&)> keep, QWidget* parent = nullptr);
    /// Reads again.
    void show(Date today);
    void choose(const AthleteId& athlete);
    void moveSelection(int by);
    /// The newest review of the chosen athlete.
    void openNewest();
    void editCurrent();
    const std::optional<AthleteId>& chosen() const { return chosen_; }
    void startSearch();

Q_SIGNALS:
    void open(const jg::SubmissionId& submission);
    void takeVersion(qint64 row);
    /// A report of pain is closed, with what was said of it.
    void closePain(const jg::SubmissionId& submission, const QString& words);
    void closePromise(qint64 promiseRow, jg::Kept how);
    void juxtaAsked();
    void rosterAsked();
    void bundleAsked(const jg::AthleteId& athlete);
    void numbersAsked(const jg::AthleteId& athlete);
    void seasonAsked(const jg::AthleteId& athlete);
    void forgetAsked(const jg::AthleteId& athlete);
    /// To the film of a finding, at the frame where it is seen.
    void openAt(const jg::LogDot& dot);

private:
    /// Keeps what a form makes of the athlete shown now, or gives a sentence. Told once that another window
    /// changed the same, it lets this one stand.
    std::function<std::optional<QString>(const Athlete&)> keeping() const;
    void readRows();
    void showRows(const Result<std::vector<AthleteRow>>& rows);
    void readPage();
    void clearPage();
    void addWaiting(const AthletePage& page);
    void addComingBack(const Athlete& athlete);
    void showPage(const Result<AthleteLog>& log);
    void addHistory(const AthleteLog& log);
    void addOutings(const AthleteLog& log);
    void addOutingsTold(const Athlete& athlete);
    void addKeeping(const AthleteId& athlete);
    void addFacts(const Athlete& athlete);
    void addConsent(const Athlete& athlete);
    void addPain(const AthletePage& page);
    void askToClosePain(const SubmissionId& submission);
    void addMeasures(const AthleteLog& log);
    void addReviews(const AthleteLog& log);
    void addReview(const AthleteLog& log, const ReviewOfAthlete& review,
                   const std::vector<KeptVersion>& versions);
    void addPromises(const AthletePage& page);

    LibraryReader& reader_;
    const Playbook& playbook_; ///< the library's, which grows
    std::function<Status(const AthleteEdit&)> keep_;
    QLineEdit* search_;
    QLabel* unread_;
    RowList* list_;
    QVBoxLayout* page_;
    std::vector<AthleteRow> rows_;
    std::optional<AthleteId> chosen_;
    std::optional<AthletePage> shown_;
    QString filter_; ///< of findings
    Date today_{};
};

} // namespace jg::ui
