#include "ui/hand/own_error_place.h"

#include "ui/theme.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollArea>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <cmath>
#include <random>

namespace jg::ui {

namespace {

QString pixels(double px) {
    return QString::number(px, 'f', 1) + " px";
}

QString degrees(double deg) {
    return QString::number(deg, 'f', 1) + "\u00b0";
}

/// "0.8 px right, 0.3 px up"; empty when it is less than a third of a pixel.
QString leanInWords(ImagePoint lean) {
    constexpr double kSeen = 0.33;
    QStringList parts;
    if (std::abs(lean.x) >= kSeen)
        parts << pixels(std::abs(lean.x)) + (lean.x > 0 ? " to the right" : " to the left");
    if (std::abs(lean.y) >= kSeen)
        parts << pixels(std::abs(lean.y)) + (lean.y > 0 ? " too low" : " too high");
    return parts.isEmpty() ? "no lean" : "leans " + parts.join(", ");
}

} // namespace

OwnErrorPlace::OwnErrorPlace(const Clock& clock, QWidget* parent)
    : QWidget(parent)
    , clock_(clock) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    pages_ = new QStackedWidget;
    pages_->addWidget(resultsPage());
    pages_->addWidget(exercisePage());
    column->addWidget(pages_);
    setFocusPolicy(Qt::StrongFocus);
}

QWidget* OwnErrorPlace::resultsPage() {
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(34, 26, 34, 12);
    column->setSpacing(8);
    column->addWidget(heading("Your hand", 28));
    column->addWidget(
        quiet("How far your clicks scatter. Every give-or-take and every \u201creally changed\u201d in "
              "your reviews is built on it.",
              13));
    summary_ = plain("", 15);
    column->addWidget(summary_);
    auto* row = new QHBoxLayout;
    row->addWidget(plain("Who clicks"));
    coach_ = new QLineEdit;
    coach_->setObjectName("coach");
    coach_->setAccessibleName("Who clicks");
    coach_->setFixedWidth(220);
    row->addWidget(coach_);
    begin_ = mainButton("Begin the exercise");
    connect(begin_, &QPushButton::clicked, this, &OwnErrorPlace::begin);
    row->addWidget(begin_);
    row->addWidget(quiet("About five minutes: joints on some pictures, each shown twice, in no order."), 1);
    column->addLayout(row);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    rows_ = new QVBoxLayout(inner);
    rows_->setContentsMargins(0, 8, 10, 12);
    rows_->setSpacing(5);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    return page;
}

QWidget* OwnErrorPlace::exercisePage() {
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* bar = new QWidget;
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(24, 12, 24, 12);
    prompt_ = plain("", 16, true);
    row->addWidget(prompt_, 1);
    progress_ = quiet("");
    progress_->setWordWrap(false);
    row->addWidget(progress_);
    auto* leave = plainButton("Stop, keep nothing");
    leave->setFocusPolicy(Qt::NoFocus);
    connect(leave, &QPushButton::clicked, this,
            [this] { stop("The exercise was stopped; nothing was kept."); });
    row->addWidget(leave);
    column->addWidget(bar);
    stage_ = new StageView;
    stage_->setTool(this);
    column->addWidget(stage_, 1);
    return page;
}

void OwnErrorPlace::show(Library& library) {
    library_ = &library;
    if (coach_->text().isEmpty()) coach_->setText(text(library.setting("house.coach")));
    auto runs = errorRuns(library);
    runs_ = runs ? *std::move(runs) : std::vector<ErrorRun>{};
    begin_->setEnabled(static_cast<bool>(runs));
    showResults();
    if (!runs) summary_->setText(text(runs.error().text));
}

QString OwnErrorPlace::inShort() const {
    if (runs_.empty()) return "error not measured";
    return QString("clicks within %1 px").arg(ownErrorOf(runs_.back()).sdPx, 0, 'f', 1);
}

void OwnErrorPlace::begin() {
    if (job_ || !library_) return;
    auto own = ownFrames(*library_);
    if (!own) return Q_EMIT say(text(own.error().text));
    begin_->setEnabled(false);
    Q_EMIT say("Getting the pictures ready \u2026");
    const auto work = library_->folder() / "sent" / "work-exercise";
    const auto seed = static_cast<std::uint64_t>(clock_.nowUnix()) + runs_.size();
    job_ = new Job(
        this, [this, own = *std::move(own), work, seed](std::stop_token stop, const Job::Progress& progress) {
            auto made = std::make_shared<Result<Exercise>>(makeExercise(own, work, seed, stop, progress));
            return Job::Continuation([this, made] {
                begin_->setEnabled(true);
                if (*made)
                    start(**std::move(made));
                else
                    Q_EMIT say(text(made->error().text));
            });
        });
}

void OwnErrorPlace::start(Exercise exercise) {
    exercise_ = std::move(exercise);
    shown_ = joint_ = 0;
    running_ = true;
    pages_->setCurrentIndex(1);
    setFocus();
    ask();
}

std::optional<OwnErrorPlace::Asked> OwnErrorPlace::asked() const {
    if (!running_) return std::nullopt;
    return Asked{exercise_.order[shown_], joint_};
}

void OwnErrorPlace::ask() {
    const auto now = asked();
    const ExercisePicture& p = exercise_.pictures[now->showing.picture];
    stage_->setPicture(static_cast<qint64>(shown_), p.picture);
    const LandmarkInfo& landmark = info(p.what.joints[joint_]);
    prompt_->setText(QString("Click the %1: %2.").arg(text(landmark.name), text(landmark.where)));
    progress_->setText(QString("Picture %1 of %2").arg(shown_ + 1).arg(exercise_.order.size()));
}

QString OwnErrorPlace::loupeText() const {
    const auto now = asked();
    return now ? text(info(exercise_.pictures[now->showing.picture].what.joints[joint_]).name) : QString();
}

bool OwnErrorPlace::press(ImagePoint at, double) {
    const auto now = asked();
    if (!now) return false;
    ExercisePicture& p = exercise_.pictures[now->showing.picture];
    if (at.x < 0 || at.y < 0 || at.x > p.picture.width || at.y > p.picture.height) {
        Q_EMIT say("That is beside the picture. Click on the athlete.");
        return true;
    }
    p.what.clicks[now->showing.round][joint_] = at;
    if (++joint_ == p.what.joints.size()) joint_ = 0, ++shown_;
    if (shown_ == exercise_.order.size())
        finish();
    else
        ask();
    return true;
}

void OwnErrorPlace::finish() {
    ErrorRun run{coach_->text().trimmed().toStdString(), clock_.today(), {}};
    for (const ExercisePicture& p : exercise_.pictures) run.pictures.push_back(p.what);
    const Status kept = keepRun(*library_, run);
    stop(kept ? "Kept. New points carry your own error from now on." : text(kept.error().text));
    Q_EMIT changed();
}

void OwnErrorPlace::stop(const QString& why) {
    running_ = false;
    exercise_ = {};
    pages_->setCurrentIndex(0);
    Q_EMIT say(why);
}

void OwnErrorPlace::keyPressEvent(QKeyEvent* event) {
    if (running_ && event->key() == Qt::Key_Escape)
        return stop("The exercise was stopped; nothing was kept.");
    QWidget::keyPressEvent(event);
}

void OwnErrorPlace::addRow(const QString& left, const QString& middle, const QString& right) {
    auto* w = new QWidget;
    auto* row = new QHBoxLayout(w);
    row->setContentsMargins(0, 2, 0, 2);
    auto* l = plain(left, 13.5);
    l->setFixedWidth(240);
    row->addWidget(l);
    row->addWidget(quiet(middle, 12.5), 1);
    auto* r = plain(right, 13.5, true);
    r->setWordWrap(false);
    row->addWidget(r);
    rows_->addWidget(w);
    rows_->addWidget(rule());
}

void OwnErrorPlace::showResults() {
    while (QLayoutItem* item = rows_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    if (runs_.empty()) {
        summary_->setText(
            QString("Not measured yet: %1 on a picture of 720 lines is assumed for every click.")
                .arg(pixels(kDefaultClickSigmaPx)));
        rows_->addStretch(1);
        return;
    }
    const ErrorRun& last = runs_.back();
    const OwnError e = ownErrorOf(last);
    QString words =
        QString("Your clicks lie within %1 (standard error on each axis, on a picture of 720 lines).")
            .arg(pixels(e.sdPx));
    if (e.semDeg && e.smallestChangeDeg)
        words +=
            QString(" An angle of yours repeats within %1; two measurements must be %2 apart to be a real "
                    "change.")
                .arg(degrees(*e.semDeg), degrees(*e.smallestChangeDeg));
    if (e.icc) words += QString(" Agreement with yourself (ICC 2,1): %1.").arg(*e.icc, 0, 'f', 3);
    summary_->setText(words);
    rows_->addWidget(heading("By joint", 18));
    for (const LandmarkError& l : e.landmarks)
        addRow(
            text(info(l.landmark).name),
            QString("%1; %2 clicks with a known answer or a repeat").arg(leanInWords(l.lean)).arg(l.clicks),
            pixels(l.sdPx));
    rows_->addSpacing(10);
    rows_->addWidget(heading("Each time", 18));
    for (auto run = runs_.rbegin(); run != runs_.rend(); ++run) {
        const OwnError one = ownErrorOf(*run);
        addRow(text(longDate(run->day)), text(run->coach),
               pixels(one.sdPx) + (one.semDeg ? " \u00b7 angle " + degrees(*one.semDeg) : QString()));
    }
    for (auto run = runs_.rbegin(); run != runs_.rend(); ++run)
        if (run->coach != last.coach)
            if (const auto both = agreementOf(last, *run)) {
                rows_->addSpacing(10);
                rows_->addWidget(heading("Two coaches", 18));
                addRow(text(last.coach + " and " + run->coach),
                       QString("agreement on %1 angles (ICC 2,1): %2")
                           .arg(both->pictures)
                           .arg(both->icc, 0, 'f', 3),
                       "angle " + degrees(both->semDeg));
                break;
            }
    rows_->addStretch(1);
}

} // namespace jg::ui
