// SPDX-License-Identifier: GPL-3.0-or-later
// The window: the places round the desk, and the review.
#pragma once

#include "base/clock.h"
#include "desk/intake/scrub_maker.h"
#include "desk/keeping/library_reader.h"
#include "desk/keeping/places.h"
#include "desk/pages/desk_list.h"
#include "desk/pages/log.h"
#include "library/library.h"
#include "review/record/athlete_edit.h"
#include "ui/forms/mail_password.h"
#include "ui/kit/actions.h"
#include "ui/places/review/review_place.h"

#include <QMainWindow>
#include <QSettings>
#include <QStackedWidget>

#include <memory>
#include <set>
#include <string>
#include <vector>

class QProcess;

namespace jg::ui {

class AthletesPlace;
class DeskPlace;
class GroupPlace;
class IntakeDialog;
class JuxtaPlace;
class MailDoors;
class OwnErrorPlace;
class PlaybookPlace;
class PostPlace;
class Sidebar;

/// What the window is given at the start; tests give their own.
struct WindowParts {
    std::unique_ptr<Library> library;
    Playbook playbook;
    std::shared_ptr<Clock> clock;
    std::unique_ptr<Microphone> microphone;
    std::unique_ptr<Loudspeaker> loudspeaker;
    std::shared_ptr<QSettings> settings = {}; ///< size and place of the window; null = none are kept
};

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(WindowParts parts);
    ~MainWindow() override;

    /// Runs an action of the table where the window stands.
    void run(const QString& id);
    /// Whether an action does something where the window is.
    bool knows(const QString& id) const;
    void openReview(const SubmissionId& submission);
    /// The same, at the frame where a finding of the log is seen.
    void openReviewAt(const LogDot& dot);
    void toDesk();
    /// Films, mails with films, or a bundle.
    void takeInFiles(const QStringList& files);
    /// An athlete's deliveries under each other; a sentence in the foot when there are fewer than two.
    void openJuxta(const AthleteId& athlete);
    JuxtaPlace* juxtaPlace() const { return juxta_; }
    /// desk | athletes | group | playbook | post
    void showPlace(const QString& name);
    ReviewPlace* reviewPlace() const { return review_; }
    Library& library() { return *parts_.library; }
    /// Starts the stand-in post office beside this program, once.
    void startPostOffice();
    /// Nothing is being read or written any more.
    bool settled() const;

protected:
    void closeEvent(QCloseEvent* event) override;

private:
    IntakeDialog* openIntake(const QStringList& films);
    void postOfficeListens();
    Handlers handlers();
    bool atDesk() const;
    bool atAthletes() const;
    bool atGroup() const;
    std::optional<AthleteId> athleteInHand() const;
    void leaveJuxta();
    void moveSelection(int by);
    void buildHome();
    QWidget* buildPlaces();
    void connectPlaces();
    void takeInRoster(const QString& file);
    void connectKeeping();
    std::function<void(const QString&, bool)> tellKeep();
    void restorePlace();
    void refreshHome();
    void showDesk(const DeskList& list);
    void closePromise(qint64 row, Kept how);
    static std::unique_ptr<ReviewKeeper> keeperOf(Library& library, std::int64_t revision);
    void changedElsewhere(const std::set<std::string>& tables);
    Status keepAthlete(const AthleteEdit& edit);
    void closePain(const SubmissionId& submission, const QString& words);
    void takeVersion(qint64 row);
    /// For a class that looks on: names are out of sight and nothing is kept, or all is as ever again.
    void toggleNames();
    void park(std::unique_ptr<ReviewKeeper> keeper);
    void makeScrubCopies();

    WindowParts parts_;
    IdSource ids_;
    MailPassword password_;
    QStackedWidget* whole_;
    QStackedWidget* places_;
    Sidebar* sidebar_;
    DeskPlace* desk_;
    AthletesPlace* athletes_;
    GroupPlace* group_ = nullptr;
    OwnErrorPlace* hand_ = nullptr;
    PlaybookPlace* playbook_ = nullptr;
    PostPlace* post_;
    MailDoors* mails_ = nullptr;
    Foot* foot_;
    ReviewPlace* review_ = nullptr;
    JuxtaPlace* juxta_ = nullptr;
    Actions* actions_;
    ScrubMaker* scrubs_;
    std::unique_ptr<LibraryReader> reader_;
    std::vector<std::unique_ptr<ReviewKeeper>> parked_; ///< of reviews that were left before all was kept
    QProcess* postOffice_ = nullptr;
    bool closing_ = false;
    bool closeUnsaved_ = false;            ///< the coach said so
    const Handlers handlers_ = handlers(); ///< of the places
};

} // namespace jg::ui
