// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/window/main_window.h"

#include "coaching/playbook_reader.h"
#include "desk/intake/people_changes.h"
#include "desk/jobs/job.h"
#include "desk/keeping/backup_reminder.h"
#include "desk/keeping/house_zone.h"
#include "desk/keeping/length_choice.h"
#include "desk/keeping/library_watch.h"
#include "desk/own/own_measures.h"
#include "desk/own/own_playbook.h"
#include "desk/sending/promises.h"
#include "ui/forms/kept_words.h"
#include "ui/kit/ask_first.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/shortcut_sheet.h"
#include "ui/kit/theme.h"
#include "ui/places/athletes/athletes_place.h"
#include "ui/places/desk/desk_place.h"
#include "ui/places/desk/intake_dialog.h"
#include "ui/places/desk/mail_doors.h"
#include "ui/places/group/group_place.h"
#include "ui/places/hand/own_error_place.h"
#include "ui/places/juxta/juxta_place.h"
#include "ui/places/keep/keep_jobs.h"
#include "ui/places/playbook/playbook_place.h"
#include "ui/places/post/post_place.h"
#include "ui/window/fault_dialog.h"
#include "ui/window/library_dialog.h"
#include "ui/window/sidebar.h"

#include <QCloseEvent>
#include <QCoreApplication>
#include <QInputDialog>
#include <QProcess>
#include <QScreen>
#include <QTimer>

namespace jg::ui {

namespace {
const QStringList kPlaces = {"desk", "athletes", "group", "playbook", "post", "hand"};
int placeNumber(const char* place) {
    return static_cast<int>(kPlaces.indexOf(place));
}

constexpr const char* kGeometry = "window/geometry";
constexpr int kPostOfficePort = 2525; // of the stand-in, unless it is taken
constexpr QSize kUsual(1280, 800), kSmallest(1024, 640);

std::unique_ptr<LibraryReader> readerOf(const Library& library) {
    auto again = library.again();
    return again ? std::make_unique<LibraryReader>(std::move(*again)) : nullptr;
}

} // namespace

std::unique_ptr<ReviewKeeper> MainWindow::keeperOf(Library& library, std::int64_t revision) {
    if (auto again = library.again()) return std::make_unique<WriterKeeper>(std::move(*again), revision);
    return std::make_unique<DirectKeeper>(library, revision);
}

MainWindow::MainWindow(WindowParts parts)
    : parts_(std::move(parts))
    , reader_(readerOf(*parts_.library)) {
    setWindowTitle("Juxtagraph");
    setWindowIcon(icon("app"));
    setMinimumSize(kSmallest);
    restorePlace();
    whole_ = new QStackedWidget;
    setCentralWidget(whole_);
    actions_ = new Actions(this, [this](const QString& id) { run(id); });
    const Status zone = useTimeZone(parts_.library->setting("house.timeZone"));
    const Status own = loadOwnPlaybook(*parts_.library, parts_.playbook);
    loadLengthUnit(*parts_.library, parts_.playbook);
    buildHome();
    const std::vector<Message> swept = parts_.library->sweep();
    refreshHome();
    if (!swept.empty()) foot_->tell(say(joined(ListStyle::Sentences, swept)), 0);
    if (const Message reminder = backupReminder(*parts_.library, parts_.clock->nowUnix());
        !reminder.empty() && swept.empty())
        foot_->tell(say(reminder), 20);
    for (const Status& done : {zone, own})
        if (!done) foot_->tell(say(done.error().text), 0);
    actions_->setWhere(AtHome);
    showPlace("desk");
    scrubs_ = new ScrubMaker(std::make_shared<FileStore>(), this);
    connect(scrubs_, &ScrubMaker::progressed, this, [this] {
        foot_->setKept(parts_.library->readOnly() || scrubs_->waiting() == 0 ? keptWords(*parts_.library)
                       : scrubs_->waiting() == 1 ? say("main-window.getting-a-film-ready")
                                                 : say("main-window.getting-waiting-films-ready",
                                                       {{"waiting", scrubs_->waiting()}}));
    });
    constexpr int kAfterStartMs = 3000; // the window comes first
    if (parts_.library->readOnly()) return;
    QTimer::singleShot(kAfterStartMs, this, &MainWindow::makeScrubCopies);
    constexpr int kLookForDueMs = 15000;
    auto* due = new QTimer(this);
    connect(due, &QTimer::timeout, post_, &PostPlace::sendWhatIsDue);
    due->start(kLookForDueMs);
    auto* watch = new LibraryWatch(*parts_.library, this);
    connect(watch, &LibraryWatch::changed, this, &MainWindow::changedElsewhere);
}

/// What another window or program wrote arrives where it is shown; nothing is held that could be written
/// back.
void MainWindow::changedElsewhere(const std::set<std::string>& tables) {
    const auto any = [&](std::initializer_list<const char*> names) {
        return std::any_of(names.begin(), names.end(),
                           [&](const char* name) { return tables.contains(name); });
    };
    if (any({"own_rows", "own_approaches", "own_measures"})) {
        if (auto fresh = loadPlaybook(dataFolder() / "playbook");
            fresh && loadOwnPlaybook(*parts_.library, *fresh)) {
            loadLengthUnit(*parts_.library, *fresh);
            parts_.playbook = std::move(*fresh);
            if (review_) review_->session().playbookChanged();
        }
    }
    if (review_ && any({"settings", "error_runs"})) review_->session().settingsChanged();
    if (review_ && any({"reviews"})) review_->session().othersChanged();
    if (review_ && any({"athletes", "submissions", "clips"}))
        if (const Status read = review_->session().peopleChanged(); !read)
            review_->foot().tell(say(read.error().text), 0);
    if (whole_->currentIndex() == 0) refreshHome();
}

/// As it was left, when that still lies on a screen.
void MainWindow::restorePlace() {
    resize(kUsual);
    if (!parts_.settings) return;
    restoreGeometry(parts_.settings->value(kGeometry).toByteArray());
    if (isMaximized() || !screen()) return;
    const QRect room = screen()->availableGeometry();
    resize(size().boundedTo(room.size()).expandedTo(minimumSize()));
    if (!room.contains(geometry())) move(room.topLeft());
}

void MainWindow::makeScrubCopies() {
    if (const Status queued = scrubs_->makeMissing(*parts_.library); !queued)
        foot_->tell(say(queued.error().text));
    else
        Q_EMIT scrubs_->progressed(scrubs_->waiting());
}

MainWindow::~MainWindow() {
    // A job uses the clock, the library and the pages: it ends before any of them.
    for (Job* job : findChildren<Job*>()) delete job;
    delete scrubs_;
    delete juxta_;
    delete review_; // before the library it saves to
    if (!postOffice_) return;
    postOffice_->terminate();
    if (!postOffice_->waitForFinished(2000)) postOffice_->kill();
}

QWidget* MainWindow::buildPlaces() {
    places_ = new QStackedWidget;
    desk_ = new DeskPlace;
    athletes_ = new AthletesPlace(*reader_, parts_.playbook,
                                  [this](const AthleteEdit& edit) { return keepAthlete(edit); });
    post_ = new PostPlace(parts_.playbook, *parts_.clock, password_);
    places_->addWidget(desk_);
    places_->addWidget(athletes_);
    group_ = new GroupPlace(*reader_, *parts_.library, parts_.playbook);
    places_->addWidget(group_);
    playbook_ = new PlaybookPlace(*parts_.library, parts_.playbook, *parts_.clock, ids_);
    places_->addWidget(playbook_);
    places_->addWidget(post_);
    hand_ = new OwnErrorPlace(*parts_.clock);
    places_->addWidget(hand_);
    return places_;
}

void MainWindow::buildHome() {
    auto* home = new QWidget;
    auto* row = new QHBoxLayout(home);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    sidebar_ = new Sidebar;
    row->addWidget(sidebar_);
    auto* column = new QVBoxLayout;
    column->setSpacing(0);
    column->addWidget(buildPlaces(), 1);
    foot_ = new Foot;
    foot_->setHints({{"\u2191 \u2193", say("hint.choose"), "row-down"},
                     {"Enter", say("hint.open"), "open"},
                     {"T", say("main-window.take-in-films"), "take-in"},
                     {"F1", say("main-window.all-keys"), "shortcuts"}});
    foot_->setKept(keptWords(*parts_.library));
    connect(foot_, &Foot::asked, this, &MainWindow::run);
    column->addWidget(foot_);
    row->addLayout(column, 1);
    whole_->addWidget(home);
    connectPlaces();
    connectKeeping();
}

void MainWindow::connectPlaces() {
    connect(sidebar_, &Sidebar::chosen, this, [this](int i) { showPlace(kPlaces.value(i)); });
    connect(desk_, &DeskPlace::open, this, &MainWindow::openReview);
    connect(desk_, &DeskPlace::takeIn, this, [this] { run("take-in"); });
    connect(desk_, &DeskPlace::lookOver, this, [this] { run("look-over"); });
    connect(desk_, &DeskPlace::dropped, this, &MainWindow::takeInFiles);
    connect(desk_, &DeskPlace::mailsAsked, this, [this] { run("mail-in"); });
    connect(desk_, &DeskPlace::mailFolderAsked, this, [this] { run("mail-watch"); });
    mails_ =
        new MailDoors({*this, *parts_.library, [this] { return openIntake({}); },
                       [this](const QString& sentence) { foot_->tell(sentence); }, [this] { refreshHome(); }},
                      this);
    connect(desk_, &DeskPlace::closePromise, this, &MainWindow::closePromise);
    connect(athletes_, &AthletesPlace::closePromise, this, &MainWindow::closePromise);
    connect(athletes_, &AthletesPlace::open, this, &MainWindow::openReview);
    connect(athletes_, &AthletesPlace::openAt, this, &MainWindow::openReviewAt);
    connect(athletes_, &AthletesPlace::juxtaAsked, this, [this] { run("athlete-juxta"); });
    connect(athletes_, &AthletesPlace::takeVersion, this, &MainWindow::takeVersion);
    connect(athletes_, &AthletesPlace::closePain, this, &MainWindow::closePain);
    connect(group_, &GroupPlace::open, this, [this](const AthleteId& athlete) {
        athletes_->choose(athlete);
        showPlace("athletes");
    });
    connect(group_, &GroupPlace::tell, this, [this](const QString& sentence) { foot_->tell(sentence); });
    connect(playbook_, &PlaybookPlace::tell, this,
            [this](const QString& sentence) { foot_->tell(sentence); });
    connect(playbook_, &PlaybookPlace::changed, this, &MainWindow::refreshHome);
    connect(hand_, &OwnErrorPlace::changed, this, &MainWindow::refreshHome);
    connect(hand_, &OwnErrorPlace::tell, this, [this](const QString& sentence) { foot_->tell(sentence); });
    connect(post_, &PostPlace::outboxChanged, this, &MainWindow::refreshHome);
    connect(post_, &PostPlace::startPostOffice, this, &MainWindow::startPostOffice);
}

void MainWindow::closePromise(qint64 row, Kept how) {
    const auto close = [this, row, how](const std::string& words) {
        const Status done = jg::closePromise(*parts_.library, row, how, words, parts_.clock->today());
        if (!done) foot_->tell(say(done.error().text), 0);
        refreshHome();
    };
    if (how == Kept::Kept) return close("");
    auto* d =
        new FormDialog(this, "promise-broken", say("main-window.not-kept"), say("main-window.not-kept-hint"));
    auto* words = d->line("broken-words", say("main-window.what-happened"), {});
    d->openWith([=]() -> std::optional<QString> {
        close(words->text().trimmed().toStdString());
        return std::nullopt;
    });
}

Status MainWindow::keepAthlete(const AthleteEdit& edit) {
    if (Status kept = jg::keepAthlete(*parts_.library, edit, parts_.clock->today()); !kept) {
        foot_->tell(say(kept.error().text), 0);
        return kept;
    }
    foot_->tell(say("main-window.kept-letters-that-are-not-sent"));
    refreshHome();
    return Done{};
}

void MainWindow::closePain(const SubmissionId& id, const QString& words) {
    const Status kept = jg::closePain(*parts_.library, id, words.toStdString(), parts_.clock->today());
    if (!kept) return foot_->tell(say(kept.error().text), 0);
    foot_->tell(say("main-window.pain-closed"));
    refreshHome();
}

/// The version that was refused takes the place of the kept one, which becomes a version itself.
void MainWindow::takeVersion(qint64 row) {
    if (const Status taken = parts_.library->takeVersion(row); !taken)
        return foot_->tell(say(taken.error().text), 0);
    foot_->tell(say("main-window.version-taken"));
    refreshHome();
}

void MainWindow::refreshHome() {
    if (!reader_) return foot_->tell(say("main-window.library-busy"), 0);
    const Date today = parts_.clock->today();
    reader_->ask<Result<DeskList>>(
        "desk", [book = parts_.playbook, today](Store& store) { return readDesk(store, book, today); },
        [this](Result<DeskList> list) {
            if (!list) return foot_->tell(say(list.error().text), 0);
            showDesk(*list);
        });
    athletes_->show(today);
    group_->show(today);
    post_->show(*parts_.library);
    hand_->show(*parts_.library);
    sidebar_->setHouse(text(parts_.library->setting("house.place")));
    sidebar_->setCount(
        placeNumber("playbook"),
        parts_.playbook.approaches.size() == 1
            ? say("main-window.one-approach")
            : say("main-window.approaches-approaches", {{"approaches", parts_.playbook.approaches.size()}}));
    sidebar_->setCount(placeNumber("hand"), hand_->inShort());
}

void MainWindow::showDesk(const DeskList& list) {
    desk_->show(list, *parts_.library, parts_.clock->today());
    sidebar_->setCount(placeNumber("desk"),
                       say("main-window.waiting-waiting", {{"waiting", list.waiting.size()}}));
    sidebar_->setCount(placeNumber("athletes"), QString::number(list.athletes));
    sidebar_->setCount(placeNumber("group"), say("main-window.owed", {{"count", list.owed.size()}}));
    sidebar_->setCount(placeNumber("post"), list.unsentMails == 0
                                                ? say("main-window.nothing-waits")
                                                : say("main-window.unsent-mails-in-the-outbox",
                                                      {{"unsentMails", list.unsentMails}}));
}

bool MainWindow::settled() const {
    if (juxta_ && !juxta_->settled()) return false;
    const bool kept = !review_ || review_->session().keepState() != KeepState::Keeping;
    return kept && !mails_->busy() && parked_.empty() && !(reader_ && reader_->busy());
}

void MainWindow::showPlace(const QString& name) {
    const auto i = static_cast<int>(kPlaces.indexOf(name));
    if (i < 0) return;
    places_->setCurrentIndex(i);
    sidebar_->setCurrent(i);
    places_->currentWidget()->setFocus();
}

void MainWindow::openReview(const SubmissionId& submission) {
    auto session =
        ReviewSession::open(*parts_.library, parts_.playbook, *parts_.clock, ids_, submission, keeperOf);
    if (!session) {
        foot_->tell(say(session.error().text), 0);
        return;
    }
    delete review_;
    review_ = new ReviewPlace(
        std::move(*session),
        {*parts_.microphone, *parts_.loudspeaker, [this](const QString& id) { run(id); },
         [this](unsigned where) { actions_->setWhere(where); }, [this] { toDesk(); }, password_,
         [this] { refreshHome(); },
         [this](const OwnMeasureOrder& order) {
             return keepOwnMeasure(*parts_.library, parts_.playbook, order);
         },
         [this](LengthUnit unit) { return keepLengthUnit(*parts_.library, parts_.playbook, unit); },
         [this](const Drill& drill, const RowKept& then) {
             editRow(this, {*parts_.library, parts_.playbook, ids_, parts_.clock->today()}, drill, then);
         }});
    whole_->addWidget(review_);
    whole_->setCurrentWidget(review_);
    review_->stage().setFocus();
}

void MainWindow::toDesk() {
    if (review_ && review_->busy()) {
        review_->foot().tell(say("main-window.the-letter-is-being-sent-wait"));
        return;
    }
    if (review_) {
        review_->leave();
        park(review_->session().takeKeeper());
        whole_->removeWidget(review_);
        review_->deleteLater();
        review_ = nullptr;
    }
    whole_->setCurrentIndex(0);
    actions_->setWhere(AtHome);
    refreshHome();
    showPlace("desk");
}

/// What is still on its way to the disk goes on while the desk is shown; the desk is read again after it.
void MainWindow::park(std::unique_ptr<ReviewKeeper> keeper) {
    if (!keeper || keeper->state() == KeepState::Kept || keeper->state() == KeepState::Elsewhere) return;
    ReviewKeeper* one = keeper.get();
    keeper->disconnect();
    connect(one, &ReviewKeeper::changed, this, [this, one] {
        if (one->state() == KeepState::NotKept)
            foot_->tell(say("main-window.the-last-change-is-not-kept", {{"one", one->error().text}}), 0);
        if (one->state() == KeepState::Keeping || one->state() == KeepState::NotKept) return;
        QTimer::singleShot(0, this, [this, one] {
            std::erase_if(parked_, [&](const auto& k) { return k.get() == one; });
            refreshHome();
            if (closing_) close();
        });
    });
    parked_.push_back(std::move(keeper));
}

void MainWindow::takeInFiles(const QStringList& files) {
    if (const Status may = parts_.library->mayWrite(); !may) return foot_->tell(say(may.error().text), 0);
    if (files.size() == 1 && files.front().endsWith(".zip", Qt::CaseInsensitive))
        return takeInBundle(this, *parts_.library, files.front(), parts_.clock->today(), tellKeep(),
                            [this] { refreshHome(); });
    if (files.size() == 1 && files.front().endsWith(".csv", Qt::CaseInsensitive))
        return takeInRoster(files.front());
    QStringList films;
    std::vector<std::filesystem::path> mails;
    for (const QString& file : files) {
        if (isMailFile(file.toStdString()))
            mails.emplace_back(file.toStdString());
        else
            films.push_back(file);
    }
    if (!mails.empty()) mails_->take(mails);
    if (!films.isEmpty() || files.isEmpty()) openIntake(films);
}

IntakeDialog* MainWindow::openIntake(const QStringList& films) {
    auto* dialog = new IntakeDialog(*parts_.library, *parts_.clock, films, this);
    connect(dialog, &IntakeDialog::taken, this, [this](const SubmissionId& submission) {
        desk_->choose(submission);
        refreshHome();
        showPlace("desk");
        foot_->tell(say("main-window.taken-in"));
        makeScrubCopies();
    });
    dialog->open();
    return dialog;
}

void MainWindow::startPostOffice() {
    if (postOffice_ && postOffice_->state() != QProcess::NotRunning) {
        foot_->tell(say("main-window.post-office-open"));
        return;
    }
    if (!postOffice_) postOffice_ = new QProcess(this);
    const QString store = jg::text((parts_.library->folder() / "post-office").string());
    connect(postOffice_, &QProcess::readyReadStandardOutput, this, [this] { postOfficeListens(); });
    connect(postOffice_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
        if (error == QProcess::FailedToStart) foot_->tell(say("main-window.post-office-fails"));
    });
    postOffice_->setProcessChannelMode(QProcess::ForwardedErrorChannel);
    // Behind this window, until a mail comes; a port that is taken is no reason to have none.
    postOffice_->start(QCoreApplication::applicationDirPath() + "/post-office",
                       {"--store", store, "--any-port", "--behind"});
}

/// Its first line says where it listens: "listening on 127.0.0.1:2525".
void MainWindow::postOfficeListens() {
    const QString line = QString::fromUtf8(postOffice_->readAllStandardOutput()).section('\n', 0, 0);
    const int port = line.section(':', -1).toInt();
    if (!line.startsWith("listening") || port <= 0) return;
    foot_->tell(port == kPostOfficePort
                    ? say("main-window.post-office-opens")
                    : say("main-window.post-office-elsewhere",
                          {{"port", std::to_string(port)}, {"usual", std::to_string(kPostOfficePort)}}),
                port == kPostOfficePort ? 6 : 0);
}

Handlers MainWindow::handlers() {
    Handlers all = {
        {"take-in", [this] { takeInFiles({}); }},
        {"mail-in", [this] { mails_->takeWaiting(); }},
        {"mail-watch", [this] { mails_->askFolder(); }},
        {"open",
         [this] {
             atDesk()       ? desk_->openSelected()
             : atAthletes() ? athletes_->openNewest()
             : atGroup()    ? group_->openSelected()
                            : void();
         }},
        {"athlete-edit",
         [this] {
             if (atAthletes()) athletes_->editCurrent();
         }},
        {"athlete-juxta",
         [this] {
             if (const auto athlete = athleteInHand()) openJuxta(*athlete);
         }},
        {"athlete-search", [this] { showPlace("athletes"), athletes_->startSearch(); }},
        {"look-over",
         [this] { lookOverLibrary(this, *parts_.library, *parts_.clock, [this] { refreshHome(); }); }},
        {"hide-names", [this] { toggleNames(); }},
        {"row-up", [this] { moveSelection(-1); }},
        {"row-down", [this] { moveSelection(1); }},
    };
    for (const QString& place : kPlaces) all["place-" + place] = [this, place] { showPlace(place); };
    return all;
}

bool MainWindow::atDesk() const {
    return places_->currentWidget() == desk_;
}

bool MainWindow::atGroup() const {
    return places_->currentWidget() == group_;
}

/// Whose row is chosen where the window stands.
std::optional<AthleteId> MainWindow::athleteInHand() const {
    return atDesk()    ? desk_->athleteOfSelected()
           : atGroup() ? group_->athleteOfSelected()
                       : athletes_->chosen();
}

bool MainWindow::atAthletes() const {
    return places_->currentWidget() == athletes_;
}

void MainWindow::moveSelection(int by) {
    if (atDesk()) desk_->moveSelection(by);
    if (atAthletes()) athletes_->moveSelection(by);
    if (atGroup()) group_->moveSelection(by);
    if (places_->currentWidget() == playbook_) playbook_->moveSelection(by);
}

bool MainWindow::knows(const QString& id) const {
    if (id == "shortcuts" || id == "report-fault" || id == "to-desk" || id == "back") return true;
    if (juxta_) return juxta_->knows(id);
    return review_ ? review_->knows(id) : handlers_.contains(id);
}

void MainWindow::run(const QString& id) {
    if (id == "shortcuts") return showShortcutSheet(this, actions_->where());
    if (id == "report-fault")
        return openFaultReport(this, *parts_.library, parts_.clock->nowUnix(), namesAreHidden());
    if (id == "back" && review_ && review_->removeChosen()) return;
    if (id == "to-desk" || id == "back") return toDesk();
    if (juxta_)
        juxta_->act(id);
    else if (review_)
        review_->act(id);
    else
        runIn(handlers_, id);
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (review_ && review_->busy()) {
        review_->foot().tell(say("main-window.the-letter-is-being-sent-wait"));
        event->ignore();
        return;
    }
    if (parts_.settings) parts_.settings->setValue(kGeometry, saveGeometry());
    if (review_) toDesk();
    // What is on its way is waited for; what can't be kept is the coach's to decide.
    const auto stuck = std::find_if(parked_.begin(), parked_.end(),
                                    [](const auto& k) { return k->state() == KeepState::NotKept; });
    if (!parked_.empty() && stuck == parked_.end()) {
        closing_ = true;
        event->ignore();
        return;
    }
    if (stuck == parked_.end() || closeUnsaved_) return event->accept();
    event->ignore(); // once the system ends the program nobody is asked: it is tried until its patience ends
    if (!nobodyIsAsked() && !findChild<QDialog*>("close-unsaved"))
        askFirst(this, "close-unsaved", say("main-window.close-without", {{"stuck", (*stuck)->error().text}}),
                 say("main-window.close-unsaved"), [this] {
                     closeUnsaved_ = true;
                     close();
                 });
}

} // namespace jg::ui
