// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/hand/own_error_place.h"

#include "base/caught.h"
#include "base/clock.h"
#include "desk/keeping/places.h"
#include "ui/kit/theme.h"

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
    return say("own-error-place.px-px", {{"px", Decimal{px, 1}}});
}

QString degrees(double deg) {
    return say("unit.deg", {{"number", Decimal{deg, 1}}});
}

/// "0.8 px right, 0.3 px up"; empty when it is less than a third of a pixel.
QString leanInWords(ImagePoint lean) {
    constexpr double kSeen = 0.33;
    std::vector<Message> parts;
    const auto add = [&](const char* id, double px) {
        parts.push_back(msg(id, {{"px", Decimal{std::abs(px), 1}}}));
    };
    if (std::abs(lean.x) >= kSeen)
        add(lean.x > 0 ? "own-error-place.lean-right" : "own-error-place.lean-left", lean.x);
    if (std::abs(lean.y) >= kSeen)
        add(lean.y > 0 ? "own-error-place.lean-low" : "own-error-place.lean-high", lean.y);
    if (parts.empty()) return say("own-error-place.no-lean");
    return say("own-error-place.leans", {{"how", joined(ListStyle::Commas, std::move(parts))}});
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
    column->addWidget(heading(say("own-error-place.your-hand"), 28));
    column->addWidget(quiet(say("own-error-place.how-far-your-clicks-scatter-every"), 13));
    summary_ = plain("", 15);
    column->addWidget(summary_);
    auto* row = new QHBoxLayout;
    row->addWidget(plain(say("own-error-place.who-clicks")));
    coach_ = new QLineEdit;
    coach_->setObjectName("coach");
    coach_->setAccessibleName(say("own-error-place.who-clicks"));
    coach_->setFixedWidth(em(220));
    row->addWidget(coach_);
    begin_ = mainButton(say("own-error-place.begin-the-exercise"));
    connect(begin_, &QPushButton::clicked, this, &OwnErrorPlace::begin);
    row->addWidget(begin_);
    row->addWidget(quiet(say("own-error-place.what-it-takes")), 1);
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
    auto* leave = plainButton(say("own-error-place.stop-keep-nothing"));
    leave->setFocusPolicy(Qt::NoFocus);
    connect(leave, &QPushButton::clicked, this, [this] { stop(say("own-error-place.stopped")); });
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
    if (!runs) summary_->setText(say(runs.error().text));
}

QString OwnErrorPlace::inShort() const {
    if (runs_.empty()) return say("own-error-place.error-not-measured");
    return say("own-error-place.clicks-within-sd-px-px",
               {{"sdPx", Decimal{ownErrorOf(runs_.back()).sdPx, 1}}});
}

void OwnErrorPlace::begin() {
    if (job_ || !library_) return;
    auto own = ownFrames(*library_);
    if (!own) return Q_EMIT tell(say(own.error().text));
    begin_->setEnabled(false);
    Q_EMIT tell(say("own-error-place.getting-the-pictures-ready"));
    const auto seed = static_cast<std::uint64_t>(clock_.nowUnix()) + runs_.size();
    job_ = new Job(this, [this, own = *std::move(own), shipped = dataFolder() / "exercise",
                          seed](std::stop_token stop, const Job::Progress&) {
        auto made = std::make_shared<Result<Exercise>>(
            caught([&] { return makeExercise(own, shipped, seed, stop); }));
        return Job::Continuation([this, made] {
            begin_->setEnabled(true);
            if (*made)
                start(**std::move(made));
            else
                Q_EMIT tell(say(made->error().text));
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
    prompt_->setText(
        say("own-error-place.click", {{"landmark", landmark.name()}, {"where", landmark.where()}}));
    progress_->setText(say("own-error-place.picture-shown-of-order",
                           {{"shown", shown_ + 1}, {"order", exercise_.order.size()}}));
}

QString OwnErrorPlace::loupeText() const {
    const auto now = asked();
    return now ? say(info(exercise_.pictures[now->showing.picture].what.joints[joint_]).name()) : QString();
}

bool OwnErrorPlace::press(ImagePoint at, double) {
    const auto now = asked();
    if (!now) return false;
    ExercisePicture& p = exercise_.pictures[now->showing.picture];
    if (at.x < 0 || at.y < 0 || at.x > p.picture.width || at.y > p.picture.height) {
        Q_EMIT tell(say("measure-bench.that-is-beside-the-picture-click"));
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
    stop(kept ? say("own-error-place.kept") : say(kept.error().text));
    Q_EMIT changed();
}

void OwnErrorPlace::stop(const QString& why) {
    running_ = false;
    exercise_ = {};
    pages_->setCurrentIndex(0);
    Q_EMIT tell(why);
}

void OwnErrorPlace::keyPressEvent(QKeyEvent* event) {
    if (running_ && event->key() == Qt::Key_Escape) return stop(say("own-error-place.stopped"));
    QWidget::keyPressEvent(event);
}

void OwnErrorPlace::addRow(const QString& left, const QString& middle, const QString& right) {
    auto* w = new QWidget;
    auto* row = new QHBoxLayout(w);
    row->setContentsMargins(0, 2, 0, 2);
    auto* l = plain(left, 13.5);
    l->setFixedWidth(em(240));
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
        summary_->setText(say("own-error-place.not-measured", {{"pixels", pixels(kDefaultClickSigmaPx)}}));
        rows_->addStretch(1);
        return;
    }
    const ErrorRun& last = runs_.back();
    const OwnError e = ownErrorOf(last);
    QStringList words{say("own-error-place.your-clicks-lie-within-sd-px", {{"sdPx", pixels(e.sdPx)}})};
    constexpr double kMatters = 0.3; // of the error; below nobody would notice it go
    if (e.leanPx > kMatters * e.sdPx)
        words << say("own-error-place.lean-part",
                     {{"lean", pixels(e.leanPx)},
                      {"without", pixels(std::sqrt(std::max(0.0, e.sdPx * e.sdPx - e.leanPx * e.leanPx)))}});
    if (e.semDeg && e.smallestChangeDeg)
        words << say("own-error-place.repeats",
                     {{"repeats", degrees(*e.semDeg)}, {"change", degrees(*e.smallestChangeDeg)}});
    if (e.icc) words << say("own-error-place.agreement", {{"icc", Decimal{*e.icc, 3}}});
    summary_->setText(words.join(' '));
    rows_->addWidget(heading(say("own-error-place.by-joint"), 18));
    for (const LandmarkError& l : e.landmarks)
        addRow(say(info(l.landmark).name()),
               say("own-error-place.lean-of", {{"lean", leanInWords(l.lean)}, {"clicks", l.clicks}}),
               pixels(l.sdPx));
    rows_->addSpacing(10);
    rows_->addWidget(heading(say("own-error-place.each-time"), 18));
    for (auto run = runs_.rbegin(); run != runs_.rend(); ++run) {
        const OwnError one = ownErrorOf(*run);
        addRow(say(day(run->day)), text(run->coach),
               one.semDeg ? say("own-error-place.pixels-and-angle",
                                {{"pixels", pixels(one.sdPx)}, {"angle", degrees(*one.semDeg)}})
                          : pixels(one.sdPx));
    }
    for (auto run = runs_.rbegin(); run != runs_.rend(); ++run)
        if (run->coach != last.coach)
            if (const auto both = agreementOf(last, *run)) {
                rows_->addSpacing(10);
                rows_->addWidget(heading(say("own-error-place.two-coaches"), 18));
                addRow((say("own-error-place.coach-and-coach2",
                            {{"coach", last.coach}, {"coach2", run->coach}})),
                       say("own-error-place.agreement-on-pictures-angles-icc-2",
                           {{"pictures", both->pictures}, {"icc", Decimal{both->icc, 3}}}),
                       say("own-error-place.angle-sem-deg", {{"semDeg", degrees(both->semDeg)}}));
                break;
            }
    rows_->addStretch(1);
}

} // namespace jg::ui
