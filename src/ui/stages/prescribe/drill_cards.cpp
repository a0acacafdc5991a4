// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/prescribe/drill_cards.h"

#include "ui/kit/theme.h"

#include <QSpinBox>
#include <QVBoxLayout>

namespace jg::ui {

DrillCards::DrillCards(ReviewContext& context, KeepPlan keep)
    : c_(context)
    , keep_(std::move(keep)) {
    column_ = new QVBoxLayout(this);
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(4);
}

void DrillCards::show() {
    const Plan& plan = c_.session.review().plan;
    std::string key;
    for (const PlannedDrill& d : plan.drills) {
        const Drill* drill = c_.session.playbook().drill(d.drill);
        const bool blocked =
            drill && !blockedBy(*drill, planFor(c_.session, c_.session.review()).gates()).empty();
        key += d.drill + (d.doseWaived ? " waived" : "") + (blocked ? " blocked," : ",");
    }
    if (key == built_) return;
    built_ = key;
    clearLayout(*column_);
    if (plan.drills.empty()) column_->addWidget(quiet(say("prescribe-bench.choose-work"), 12.5));
    for (std::size_t i = 0; i < plan.drills.size(); ++i) column_->addWidget(drillCard(i));
}

QWidget* DrillCards::drillCard(std::size_t i) {
    const PlannedDrill& planned = c_.session.review().plan.drills[i];
    const Drill* drill = c_.session.playbook().drill(planned.drill);
    const QString called = drill ? text(drill->name) : say("prescribe-bench.unknown-drill");
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    box->setContentsMargins(10, 6, 10, 6);
    box->setSpacing(2);
    auto* top = new QHBoxLayout;
    auto* name = plain(called, 13);
    name->setWordWrap(true);
    name->setToolTip(drill ? text(drill->how) : QString());
    top->addWidget(name, 1);
    auto* waive = plainButton(planned.doseWaived ? say("prescribe-bench.give-a-dose")
                                                 : say("prescribe-bench.needs-no-dose"));
    waive->setObjectName("link");
    waive->setProperty("waives", true);
    waive->setAccessibleName(waive->text() + ": " + called);
    connect(waive, &QPushButton::clicked, this, [this, i] { waiveDose(i); });
    top->addWidget(waive);
    auto* away = plainButton(say("prescribe-bench.take-out"));
    away->setObjectName("link");
    away->setAccessibleName(away->text() + ": " + called);
    connect(away, &QPushButton::clicked, this, [this, i] { removeDrill(i); });
    top->addWidget(away);
    box->addLayout(top);
    if (Message why = drill ? blockedBy(*drill, planFor(c_.session, c_.session.review()).gates()) : Message{};
        !why.empty())
        box->addWidget(quiet(say(why), 12));
    if (!planned.doseWaived) box->addLayout(doseRow(i, called));
    return card;
}

QLayout* DrillCards::doseRow(std::size_t i, const QString& called) {
    auto* row = new QHBoxLayout;
    const Dose& dose = c_.session.review().plan.drills[i].dose;
    const int values[] = {dose.sets, dose.reps, dose.days};
    const char* patterns[] = {"prescribe-bench.dose-sets", "prescribe-bench.dose-times",
                              "prescribe-bench.dose-days"};
    const QString said[] = {say("prescribe-bench.sets"), say("prescribe-bench.times-in-a-set"),
                            say("prescribe-bench.days-a-week")};
    for (int part = 0; part < 3; ++part) {
        auto* spin = new QSpinBox;
        spin->setAccessibleName(QString("%1: %2").arg(said[part], called));
        spin->setButtonSymbols(QAbstractSpinBox::NoButtons);
        spin->setAlignment(Qt::AlignCenter);
        spin->setRange(0, part == 2 ? 3 : 100);
        spin->setSuffix(say(patterns[part]));
        spin->setSpecialValueText(say("prescribe-bench.missing"));
        spin->setValue(values[part]);
        spin->setFocusPolicy(Qt::ClickFocus);
        connect(spin, &QSpinBox::valueChanged, this, [this, i, part](int v) { setDose(i, part, v); });
        row->addWidget(spin, 1);
    }
    return row;
}

/// A drill that is done by feel, or whose dose the athlete has elsewhere.
void DrillCards::waiveDose(std::size_t drill) {
    Plan plan = c_.session.review().plan;
    if (drill >= plan.drills.size()) return;
    plan.drills[drill].doseWaived = !plan.drills[drill].doseWaived;
    keep_(plan.drills[drill].doseWaived ? msg("prescribe-bench.waive-a-dose")
                                        : msg("prescribe-bench.give-a-dose"),
          plan);
}

void DrillCards::removeDrill(std::size_t drill) {
    Plan plan = c_.session.review().plan;
    if (drill >= plan.drills.size()) return;
    plan.drills.erase(plan.drills.begin() + static_cast<std::ptrdiff_t>(drill));
    keep_(msg("prescribe-bench.take-a-drill-out"), plan);
}

void DrillCards::setDose(std::size_t drill, int part, int value) {
    Plan plan = c_.session.review().plan;
    if (drill >= plan.drills.size()) return;
    Dose& dose = plan.drills[drill].dose;
    (part == 0 ? dose.sets : part == 1 ? dose.reps : dose.days) = value;
    keep_(msg("prescribe-bench.set-a-dose"), plan);
}

} // namespace jg::ui
