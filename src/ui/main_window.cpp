#include "ui/main_window.h"

#include "desk/length_choice.h"
#include "desk/own_measures.h"
#include "ui/athletes/athletes_place.h"
#include "ui/desk/desk_place.h"
#include "ui/desk/intake_dialog.h"
#include "ui/hand/own_error_place.h"
#include "ui/playbook/playbook_place.h"
#include "ui/post/post_place.h"
#include "ui/shortcut_sheet.h"
#include "ui/sidebar.h"
#include "ui/theme.h"

#include <QCloseEvent>
#include <QCoreApplication>
#include <QInputDialog>
#include <QProcess>
#include <QTimer>

namespace jg::ui {

namespace {
const QStringList kPlaces = {"desk", "athletes", "playbook", "post", "hand"};
} // namespace

MainWindow::MainWindow(WindowParts parts)
    : parts_(std::move(parts)) {
    setWindowTitle("Juxtagraph");
    setWindowIcon(icon("app"));
    resize(1280, 800);
    setMinimumSize(1024, 640);
    whole_ = new QStackedWidget;
    setCentralWidget(whole_);
    actions_ = new Actions(this, [this](const QString& id) { run(id); });
    const Status own = loadOwnMeasures(*parts_.library, parts_.playbook);
    loadLengthUnit(*parts_.library, parts_.playbook);
    buildHome();
    refreshHome();
    if (!own) foot_->say(text(own.error().text), 0);
    actions_->setWhere(AtHome);
    showPlace("desk");
    scrubs_ = new ScrubMaker(std::make_shared<FileStore>(), this);
    connect(scrubs_, &ScrubMaker::progressed, this, [this] {
        foot_->setKept(scrubs_->waiting() == 0   ? "kept"
                       : scrubs_->waiting() == 1 ? QString("getting a film ready")
                                                 : QString("getting %1 films ready").arg(scrubs_->waiting()));
    });
    constexpr int kAfterStartMs = 3000; // the window comes first
    QTimer::singleShot(kAfterStartMs, this, &MainWindow::makeScrubCopies);
}

void MainWindow::makeScrubCopies() {
    if (const Status queued = scrubs_->makeMissing(*parts_.library); !queued)
        foot_->say(text(queued.error().text));
    else
        Q_EMIT scrubs_->progressed(scrubs_->waiting());
}

MainWindow::~MainWindow() {
    delete scrubs_;
    delete review_; // before the library it saves to
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
    places_ = new QStackedWidget;
    column->addWidget(places_, 1);
    foot_ = new Foot;
    foot_->setHints(
        {{"\u2191 \u2193", "choose"}, {"Enter", "open"}, {"T", "take in films"}, {"F1", "all keys"}});
    foot_->setKept("kept");
    column->addWidget(foot_);
    row->addLayout(column, 1);
    whole_->addWidget(home);

    desk_ = new DeskPlace;
    athletes_ = new AthletesPlace;
    post_ = new PostPlace(*parts_.clock, [this] { return askPassword(); });
    places_->addWidget(desk_);
    places_->addWidget(athletes_);
    places_->addWidget(new PlaybookPlace(parts_.playbook));
    places_->addWidget(post_);
    hand_ = new OwnErrorPlace(*parts_.clock);
    places_->addWidget(hand_);
    connect(sidebar_, &Sidebar::chosen, this, [this](int i) { showPlace(kPlaces.value(i)); });
    connect(desk_, &DeskPlace::open, this, &MainWindow::openReview);
    connect(desk_, &DeskPlace::takeIn, this, [this] { run("take-in"); });
    connect(desk_, &DeskPlace::dropped, this, &MainWindow::takeInFiles);
    connect(desk_, &DeskPlace::settle, this, [this](qint64 row) {
        auto promises = parts_.library->promises();
        if (!promises) return;
        for (Promise& p : *promises)
            if (p.row == row) {
                p.settled = true;
                parts_.library->save(p);
            }
        refreshHome();
    });
    connect(athletes_, &AthletesPlace::open, this, &MainWindow::openReview);
    connect(hand_, &OwnErrorPlace::changed, this, &MainWindow::refreshHome);
    connect(hand_, &OwnErrorPlace::say, this, [this](const QString& sentence) { foot_->say(sentence); });
    connect(post_, &PostPlace::outboxChanged, this, &MainWindow::refreshHome);
    connect(post_, &PostPlace::startPostOffice, this, &MainWindow::startPostOffice);
}

void MainWindow::refreshHome() {
    const Date today = parts_.clock->today();
    auto list = readDesk(*parts_.library, parts_.playbook, today);
    if (!list) {
        foot_->say(text(list.error().text), 0);
        return;
    }
    desk_->show(*list, *parts_.library, today);
    athletes_->show(*parts_.library, parts_.playbook, today);
    post_->show(*parts_.library);
    hand_->show(*parts_.library);
    sidebar_->setHouse(text(parts_.library->setting("house.place")));
    sidebar_->setCount(0, QString("%1 waiting").arg(list->waiting.size()));
    sidebar_->setCount(1, QString::number(list->athletes.size()));
    sidebar_->setCount(2, parts_.playbook.approaches.size() == 1
                              ? "one approach"
                              : QString("%1 approaches").arg(parts_.playbook.approaches.size()));
    int waiting = 0;
    if (auto items = parts_.library->outbox())
        for (const OutboxItem& i : *items) waiting += i.state != "sent";
    sidebar_->setCount(4, hand_->inShort());
    sidebar_->setCount(3, waiting == 0 ? "nothing waits" : QString("%1 in the outbox").arg(waiting));
}

void MainWindow::showPlace(const QString& name) {
    const auto i = static_cast<int>(kPlaces.indexOf(name));
    if (i < 0) return;
    places_->setCurrentIndex(i);
    sidebar_->setCurrent(i);
    places_->currentWidget()->setFocus();
}

void MainWindow::openReview(const SubmissionId& submission) {
    auto session = ReviewSession::open(*parts_.library, parts_.playbook, *parts_.clock, ids_, submission);
    if (!session) {
        foot_->say(text(session.error().text), 0);
        return;
    }
    delete review_;
    review_ = new ReviewPlace(
        std::move(*session),
        {*parts_.microphone, *parts_.loudspeaker, [this](const QString& id) { run(id); },
         [this](unsigned where) { actions_->setWhere(where); }, [this] { toDesk(); },
         [this] { return askPassword(); }, [this] { refreshHome(); },
         [this](const OwnMeasureOrder& order) {
             return keepOwnMeasure(*parts_.library, parts_.playbook, order);
         },
         [this](LengthUnit unit) { return keepLengthUnit(*parts_.library, parts_.playbook, unit); }});
    whole_->addWidget(review_);
    whole_->setCurrentWidget(review_);
    review_->stage().setFocus();
}

void MainWindow::toDesk() {
    if (review_ && review_->busy()) {
        review_->foot().say("The letter is being sent. Wait for it, or cancel it first.");
        return;
    }
    if (review_) {
        review_->leave();
        whole_->removeWidget(review_);
        review_->deleteLater();
        review_ = nullptr;
    }
    whole_->setCurrentIndex(0);
    actions_->setWhere(AtHome);
    refreshHome();
    showPlace("desk");
}

void MainWindow::takeInFiles(const QStringList& files) {
    auto* dialog = new IntakeDialog(*parts_.library, *parts_.clock, ids_, files, this);
    connect(dialog, &IntakeDialog::taken, this, [this] {
        refreshHome();
        showPlace("desk");
        foot_->say("Taken in. It stands on the desk.");
        makeScrubCopies();
    });
    dialog->open();
}

std::optional<QString> MainWindow::askPassword() {
    if (password_) return password_;
    bool ok = false;
    const QString typed = QInputDialog::getText(
        this, "Mail password", "Password of your mail server (kept for this run only):", QLineEdit::Password,
        {}, &ok);
    if (!ok) return std::nullopt;
    password_ = typed;
    return password_;
}

void MainWindow::startPostOffice() {
    if (postOffice_ != 0) {
        foot_->say("The stand-in post office is already open.");
        return;
    }
    const QString program = QCoreApplication::applicationDirPath() + "/post-office";
    const QString store = text((parts_.library->folder() / "post-office").string());
    const bool started = QProcess::startDetached(program, {"--store", store}, {}, &postOffice_);
    foot_->say(
        started ? "The stand-in post office opens on this machine, port 2525. It sends nothing on."
                : "The stand-in post office does not start: is post-office installed beside this program?");
    if (!started) postOffice_ = 0;
}

void MainWindow::run(const QString& id) {
    if (id == "shortcuts") return showShortcutSheet(this);
    if (id == "to-desk") return toDesk();
    if (review_ && review_->act(id)) return;
    if (review_) return;
    if (id == "take-in") return takeInFiles({});
    if (id.startsWith("place-")) return showPlace(id.mid(6));
    const bool atDesk = places_->currentWidget() == desk_;
    if (id == "open" && atDesk) return desk_->openSelected();
    if (id == "row-up" || id == "row-down") {
        const int by = id == "row-up" ? -1 : 1;
        if (atDesk) desk_->moveSelection(by);
        if (places_->currentWidget() == athletes_) athletes_->moveSelection(by);
    }
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (review_ && review_->busy()) {
        review_->foot().say("The letter is being sent. Wait for it, or cancel it first.");
        event->ignore();
        return;
    }
    event->accept();
}

} // namespace jg::ui
