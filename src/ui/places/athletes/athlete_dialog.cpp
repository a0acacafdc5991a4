// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/athlete_dialog.h"

#include "ui/forms/athlete_form.h"
#include "ui/kit/theme.h"
#include "ui/places/athletes/judged_by.h"

#include <QDialog>
#include <QVBoxLayout>

namespace jg::ui {

void editAthlete(QWidget* parent, const Athlete& athlete, const Playbook& playbook, Date today,
                 const std::function<std::optional<QString>(const Athlete&)>& keepAthlete) {
    auto* dialog = new QDialog(parent);
    dialog->setObjectName("athlete-dialog");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(say("athlete-dialog.edit-an-athlete"));
    dialog->setMinimumWidth(em(520));
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(26, 20, 26, 18);
    column->setSpacing(10);
    column->addWidget(heading(text(athlete.fullName()), 22));
    auto* form = new AthleteForm(today);
    form->fill(athlete);
    column->addWidget(form);
    auto* judged = new JudgedBy(athlete, playbook, athlete.ageOn(today));
    column->addWidget(judged);
    auto* problem = problemLabel("athlete-problem");
    column->addWidget(problem);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    auto* cancel = plainButton(say("athlete-dialog.cancel"));
    QObject::connect(cancel, &QPushButton::clicked, dialog, &QDialog::reject);
    auto* keep = mainButton(say("athlete-dialog.keep"));
    keep->setDefault(true);
    QObject::connect(keep, &QPushButton::clicked, dialog,
                     [dialog, form, judged, problem, athlete, keepAthlete] {
                         const auto read = form->read(judged->read(athlete));
                         const auto wrong = read ? keepAthlete(*read) : std::optional(say(read.error().text));
                         if (!wrong) return dialog->accept();
                         problem->setText(*wrong);
                         problem->show();
                     });
    buttons->addWidget(cancel);
    buttons->addWidget(keep);
    column->addLayout(buttons);
    dialog->open();
}

} // namespace jg::ui
