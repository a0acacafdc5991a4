// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/takes_dialog.h"

#include "letter/qt_text.h"
#include "ui/film/wave_view.h"
#include "ui/kit/theme.h"
#include "voice/audio_file.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

namespace {
constexpr int kTickMs = 40;
}

TakesDialog::TakesDialog(const Stop& stop, std::vector<Take> takes, const Library& library,
                         Narration& narration, QWidget* parent)
    : QDialog(parent)
    , stop_(stop)
    , takes_(std::move(takes))
    , library_(library)
    , narration_(&narration) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName("takes");
    setWindowTitle(text(stop_.title));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(22, 18, 22, 18);
    column->setSpacing(10);
    column->addWidget(heading(text(stop_.title), 20));
    column->addWidget(quiet(say("takes-dialog.hint")));
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(12);
    column->addLayout(grid);
    for (std::size_t n = 0; n < takes_.size(); ++n) rows_.push_back(addRow(*grid, n));
    auto* others =
        plainButton(QString("%1   %2").arg(takes_.size() + 1).arg(say("say-bench.throw-the-others-away")));
    others->setAutoDefault(false);
    connect(others, &QPushButton::clicked, this, &TakesDialog::throwOthersAway);
    column->addWidget(others, 0, Qt::AlignLeft);
    problem_ = problemLabel("takes-problem");
    column->addWidget(problem_);
    clock_.setInterval(kTickMs);
    connect(&clock_, &QTimer::timeout, this, &TakesDialog::follow);
    rows_.front().take->setFocus();
}

TakesDialog::~TakesDialog() {
    if (heard_ && narration_) narration_->stopListening();
}

TakesDialog::Row TakesDialog::addRow(QGridLayout& grid, std::size_t n) {
    const Take& take = takes_[n];
    const Message when = take.atUnix ? momentInWords(take.atUnix) : msg("say-bench.take-some-time");
    auto* choose = plainButton(
        QString("%1   %2").arg(n + 1).arg(say(n == 0 ? "say-bench.take-heard" : "say-bench.take",
                                              {{"length", clockText(take.seconds())}, {"when", when}})));
    choose->setObjectName(QString("take-%1").arg(n + 1));
    choose->setStyleSheet("text-align:left;");
    choose->setMinimumWidth(choose->sizeHint().width());
    connect(choose, &QPushButton::clicked, this, [this, n] { this->take(n); });
    auto* play = plainButton(say("takes-dialog.hear"));
    play->setObjectName(QString("hear-%1").arg(n + 1));
    play->setAutoDefault(false);
    connect(play, &QPushButton::clicked, this, [this, n] { hear(n); });
    auto* wave = new WaveView(this);
    const auto sound = readSound(library_.takePath(take.file));
    sound ? wave->setSound(*sound, take.cuts) : wave->hide();
    const int row = static_cast<int>(n);
    grid.addWidget(choose, row, 0);
    grid.addWidget(sound ? static_cast<QWidget*>(wave) : quiet(say(sound.error().text)), row, 1);
    grid.addWidget(play, row, 2);
    return {wave, choose, play, sound ? sound->size() : 0};
}

void TakesDialog::take(std::size_t n) {
    accept();
    Q_EMIT taken(n);
}

void TakesDialog::throwOthersAway() {
    accept();
    Q_EMIT othersThrownAway();
}

/// A second time ends it.
void TakesDialog::hear(std::size_t n) {
    const bool again = heard_ == n;
    if (heard_) narration_->stopListening();
    follow();
    if (again) return;
    const Status heard = narration_->listen(stop_, takes_[n]);
    problem_->setText(heard ? QString() : say(heard.error().text));
    problem_->setVisible(!heard);
    if (!heard) return;
    heard_ = n;
    rows_[n].play->setText(say("takes-dialog.stop"));
    clock_.start();
}

void TakesDialog::follow() {
    if (!heard_) return;
    Row& row = rows_[*heard_];
    const auto at = narration_->heardAt();
    row.wave->setHeard(at && row.samples > 0
                           ? std::optional(static_cast<double>(*at) / static_cast<double>(row.samples))
                           : std::nullopt);
    if (at) return;
    row.play->setText(say("takes-dialog.hear"));
    heard_.reset();
    clock_.stop();
}

std::size_t TakesDialog::current() const {
    for (std::size_t n = 0; n < rows_.size(); ++n)
        if (rows_[n].take->hasFocus() || rows_[n].play->hasFocus()) return n;
    return 0;
}

void TakesDialog::go(int by) {
    const int last = static_cast<int>(rows_.size()) - 1;
    rows_[static_cast<std::size_t>(std::clamp(static_cast<int>(current()) + by, 0, last))].take->setFocus();
}

void TakesDialog::keyPressEvent(QKeyEvent* event) {
    const int digit = event->key() - Qt::Key_1;
    if (event->key() == Qt::Key_Down) return go(1);
    if (event->key() == Qt::Key_Up) return go(-1);
    if (event->key() == Qt::Key_P) return hear(current());
    if (digit >= 0 && digit < static_cast<int>(rows_.size())) return take(static_cast<std::size_t>(digit));
    if (digit == static_cast<int>(rows_.size())) return throwOthersAway();
    QDialog::keyPressEvent(event);
}

} // namespace jg::ui
