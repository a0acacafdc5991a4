// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/juxta/change_panel.h"

#include "letter/juxta_sheet.h"
#include "review/assess/number_words.h"
#include "review/tell/letter_model.h"
#include "ui/kit/theme.h"

#include <QScrollArea>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

QString both(const MeasureValue& before, const MeasureValue& after) {
    return say(labelOf(before)) + QString::fromUtf8(" \u2192 ") + say(labelOf(after));
}

} // namespace

ChangePanel::ChangePanel(QWidget* parent)
    : QWidget(parent) {
    setFixedWidth(em(300));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(18, 14, 14, 8);
    column->setSpacing(4);
    title_ = heading("", 20);
    column->addWidget(title_);
    where_ = quiet("", 12);
    where_->setObjectName("pair-when");
    column->addWidget(where_);
    column->addWidget(rule());
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* inner = new QWidget;
    lines_ = new QVBoxLayout(inner);
    lines_->setContentsMargins(0, 2, 8, 0);
    lines_->setSpacing(2);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
}

void ChangePanel::line(const QString& name, const QString& numbers, const QString& verdict, bool real) {
    lines_->addWidget(plain(name, 13));
    lines_->addWidget(plain(numbers, 13, true));
    auto* words = real ? plain(verdict, 12.5, true) : quiet(verdict, 12.5);
    words->setObjectName("pair-verdict");
    lines_->addWidget(words);
    lines_->addSpacing(6);
}

void ChangePanel::show(Moment moment, const QString& where, const std::vector<JuxtaChange>& changes,
                       const std::vector<AngleChange>& angles, const Playbook& playbook) {
    title_->setText(say(info(moment).name()));
    where_->setText(where);
    clearLayout(*lines_);
    for (const JuxtaChange& c : changes) {
        const MeasureDefinition* m = playbook.measure(c.measure);
        QString verdict = say(c.trend ? nameOf(*c.trend) : c.notComparable);
        if (c.difference) verdict = say(differenceOf(c)) + ", " + verdict;
        line(text(m ? m->shortName : c.measure), both(*c.values[0], *c.values[1]), verdict,
             c.trend && isReal(*c.trend));
    }
    for (const AngleChange& a : angles)
        line(say(a.angle->name()), both(a.before, a.after),
             say(a.real ? "pair-place.really" : "pair-place.inside-error",
                 {{"difference", differenceInWords(a.difference, "deg")}}),
             a.real);
    if (changes.empty() && angles.empty()) lines_->addWidget(quiet(say("pair-place.nothing-here"), 13));
    lines_->addStretch(1);
}

} // namespace jg::ui
