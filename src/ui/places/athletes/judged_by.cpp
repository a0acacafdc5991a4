// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/judged_by.h"

#include "ui/kit/theme.h"

#include <QComboBox>
#include <QFormLayout>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

JudgedBy::JudgedBy(const Athlete& athlete, const Playbook& playbook, int age, QWidget* parent)
    : QWidget(parent)
    , targets_(athlete.targets) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* form = new QFormLayout;
    form->setHorizontalSpacing(18);
    approach_ = new QComboBox;
    approach_->setObjectName("approach");
    approach_->setAccessibleName(say("judged-by.approach-of-new-reviews"));
    approach_->addItem(say("judged-by.the-usual-one"));
    ids_.emplace_back();
    for (const Approach& a : playbook.approaches) {
        approach_->addItem(
            say(a.meantFor(age) ? "judge-questions.approach" : "judge-questions.approach-other-age",
                {{"approach", a.name}, {"from", a.ageFrom}, {"to", a.ageTo}, {"age", age}}));
        if (a.id == athlete.approach) approach_->setCurrentIndex(static_cast<int>(ids_.size()));
        ids_.push_back(a.id);
    }
    form->addRow(say("judged-by.judged-by"), approach_);
    alignLabels(*form);
    column->addLayout(form);
    for (const Target& t : athlete.targets) addTarget(*column, t, playbook);
}

void JudgedBy::addTarget(QVBoxLayout& column, const Target& t, const Playbook& playbook) {
    auto* holder = new QWidget;
    auto* row = new QHBoxLayout(holder);
    row->setContentsMargins(0, 0, 0, 0);
    const TargetOwner owner = t.owner.value_or(TargetOwner{});
    row->addWidget(quiet(say("judged-by.own-target", {{"measure", playbook.nameOfFinding(t.measure)},
                                                      {"target", wordsOf(t)},
                                                      {"who", owner.who},
                                                      {"on", owner.on},
                                                      {"why", owner.reason}}),
                         12.5),
                   1);
    auto* gone = plainButton(say("judged-by.take-away"));
    gone->setObjectName("link");
    connect(gone, &QPushButton::clicked, this, [this, holder, measure = t.measure] {
        std::erase_if(targets_, [&](const Target& own) { return own.measure == measure; });
        holder->hide();
    });
    row->addWidget(gone, 0, Qt::AlignTop);
    column.addWidget(holder);
}

Athlete JudgedBy::read(Athlete athlete) const {
    athlete.approach = ids_.at(static_cast<std::size_t>(approach_->currentIndex()));
    athlete.targets = targets_;
    return athlete;
}

} // namespace jg::ui
