// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/prescribe/week_view.h"

#include "ui/kit/theme.h"

#include <QFrame>
#include <QGridLayout>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace jg::ui {

namespace {

/// A full bar for the lower body, a broken one for the upper, none for rest.
class BodyBar : public QWidget {
public:
    explicit BodyBar(const QString& body)
        : body_(body) {
        setFixedHeight(em(5));
    }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        if (body_.isEmpty()) return;
        const double part = width() / 3.0;
        for (int i = 0; i < 3; ++i)
            p.fillRect(QRectF(i * part, 0, body_ == "lower" ? part + 1 : part - 5, height()), palette::moss);
    }

private:
    QString body_;
};

/// Why nothing is done on a day.
QString restOf(const Circumstances& at, int weekday) {
    if (at.gameDays >> weekday & 1U) return say("week-view.game");
    if (!(at.days >> weekday & 1U)) return say("week-view.not-free");
    return say("letter.rest");
}

} // namespace

WeekView::WeekView(QWidget* parent)
    : QWidget(parent) {
    setObjectName("week-view");
    auto* page = new QVBoxLayout(this);
    page->setContentsMargins(24, 18, 24, 18);
    page->setSpacing(10);
    auto* top = new QHBoxLayout;
    top->addWidget(heading(say("week-view.the-week"), 22), 1);
    auto* calendar = plainButton(say("week-view.save-the-calendar"));
    calendar->setObjectName("save-calendar");
    auto* sheet = plainButton(say("week-view.save-the-sheet"));
    sheet->setObjectName("save-sheet");
    connect(calendar, &QPushButton::clicked, this, &WeekView::saveCalendar);
    connect(sheet, &QPushButton::clicked, this, &WeekView::saveSheet);
    top->addWidget(calendar);
    top->addWidget(sheet);
    page->addLayout(top);
    days_ = new QGridLayout;
    days_->setSpacing(8);
    page->addLayout(days_);
    notes_ = new QVBoxLayout;
    notes_->setSpacing(6);
    page->addLayout(notes_);
    page->addStretch(1);
}

QWidget* WeekView::column(const ShownWeek& shown, int weekday) const {
    const PlanDay* day = shown.week.day(weekday);
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    box->setContentsMargins(0, 0, 0, 10);
    box->setSpacing(5);
    box->addWidget(new BodyBar(day ? text(day->body) : QString()));
    auto* inner = new QVBoxLayout;
    inner->setContentsMargins(9, 4, 6, 0);
    inner->setSpacing(3);
    inner->addWidget(plain(say(weekdayShort(weekday)), 14, true));
    inner->addWidget(quiet(day ? say(msg("letter-body." + day->body)) : restOf(shown.at, weekday), 11.5));
    inner->addSpacing(4);
    for (const PlannedDrill& d : shown.drills) {
        if (!day || std::find(day->drills.begin(), day->drills.end(), d.drill) == day->drills.end()) continue;
        const Drill& drill = *shown.playbook.drill(d.drill);
        auto* name = plain(text(drill.name), 12.5);
        name->setToolTip(text(drill.how));
        inner->addWidget(name);
        inner->addWidget(
            quiet(d.doseWaived && d.dose.missing() ? say("letter.as-agreed") : say(wordsOf(d.dose)), 11.5));
        inner->addSpacing(4);
    }
    if (day && day->throws > 0)
        inner->addWidget(quiet(say("week-view.throws", {{"throws", day->throws}}), 11.5));
    box->addLayout(inner);
    box->addStretch(1);
    card->setMinimumHeight(em(190));
    return card;
}

void WeekView::addNotes(const ShownWeek& shown) {
    const auto note = [this](const QString& words, const char* kind) {
        auto* frame = new QFrame;
        frame->setObjectName(kind);
        auto* box = new QVBoxLayout(frame);
        box->setContentsMargins(12, 7, 10, 7);
        box->addWidget(plain(words, 12.5));
        notes_->addWidget(frame);
    };
    if (shown.drills.empty()) note(say("week-view.no-drill-yet"), "note");
    for (const PlannedDrill& d : shown.drills)
        if (const Drill* drill = shown.playbook.drill(d.drill)) {
            auto* name = plain(text(drill->name), 13.5, true);
            notes_->addSpacing(4);
            notes_->addWidget(name);
            notes_->addWidget(
                quiet(say(joined(ListStyle::Sentences,
                                 {asIs(drill->how), drill->notFor.empty() ? Message{}
                                                                          : msg("plan-questions.not-for",
                                                                                {{"whom", drill->notFor}})})),
                      12.5));
        }
    for (const Message& why : shown.week.blocked) note(say(why), "pain");
    for (const std::string& id : shown.week.missingDose)
        note(say("prescribe-bench.dose-missing-drill", {{"drill", shown.playbook.drill(id)->name}}), "pain");
    for (const Message& m : shown.week.notes) note(say(m), "note");
}

void WeekView::show(const ShownWeek& shown) {
    clearLayout(*days_);
    clearLayout(*notes_);
    columns_.clear();
    for (int weekday = 0; weekday < 7; ++weekday) columns_.push_back(column(shown, weekday));
    perLine_ = 0;
    placeDays();
    addNotes(shown);
}

/// All seven in one line where the widest word of each fits into what is seen.
void WeekView::placeDays() {
    if (columns_.empty()) return;
    const QMargins page = layout()->contentsMargins();
    const int room = (parentWidget() ? parentWidget()->width() : width()) - page.left() - page.right();
    int widest = 0;
    for (const QWidget* c : columns_) widest = std::max(widest, c->minimumSizeHint().width());
    const int count = static_cast<int>(columns_.size());
    const int needed = count * (widest + days_->spacing()) - days_->spacing();
    const int perLine = needed <= room ? count : (count + 1) / 2;
    if (perLine == std::exchange(perLine_, perLine)) return;
    for (int i = 0; i < count; ++i) {
        days_->addWidget(columns_[static_cast<std::size_t>(i)], i / perLine, i % perLine);
        days_->setColumnStretch(i, i < perLine ? 1 : 0);
    }
}

} // namespace jg::ui
