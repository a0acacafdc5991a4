// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/measure/measure_picker.h"

#include "letter/qt_text.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QDialog>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <memory>

namespace jg::ui {

namespace {

struct Tick {
    std::string id;
    QCheckBox* box;
    QWidget* row;
    QString words; ///< what the filter looks in
    bool own;      ///< the approach's: always taken
};
using Ticks = std::vector<Tick>;

QString viewsOf(const MeasureDefinition& m) {
    QStringList names;
    for (const View v : m.views) names << say(nameOf(v));
    return names.join(", ");
}

Tick tickFor(const MeasureDefinition& m, const Review& review, View view) {
    const bool own = review.approach().targetOf(m.id) != nullptr;
    const bool taken = std::find(review.extras.begin(), review.extras.end(), m.id) != review.extras.end();
    auto* row = new QWidget;
    auto* column = new QVBoxLayout(row);
    column->setContentsMargins(0, 2, 0, 4);
    column->setSpacing(0);
    auto* box = new QCheckBox(text(m.name));
    box->setObjectName(text(m.id));
    box->setChecked(own || taken);
    const bool seen = m.seenFrom(view);
    box->setEnabled(!own && (seen || taken));
    column->addWidget(box);
    QString note = text(m.formula) + (m.hint.empty() ? "" : "; " + text(m.hint));
    if (!seen) note = say("measure-picker.from-elsewhere", {{"m", viewsOf(m)}, {"note", note}});
    if (own) note = say("measure-picker.set-by-the-approach-note", {{"note", note}});
    auto* small = quiet(note, 12);
    small->setContentsMargins(26, 0, 0, 0);
    column->addWidget(small);
    return {m.id, box, row, (text(m.name) + " " + text(m.id) + " " + note).toLower(), own};
}

std::vector<std::string> chosen(const Ticks& ticks) {
    std::vector<std::string> ids;
    for (const Tick& t : ticks)
        if (!t.own && t.box->isChecked()) ids.push_back(t.id);
    return ids;
}

} // namespace

void pickMeasures(QWidget* parent, const Playbook& playbook, const Review& review, View view,
                  const std::function<void(std::vector<std::string>)>& then,
                  const std::function<void()>& makeOwn) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName("measure-picker");
    dialog->setWindowTitle(say("measure-picker.measures-of-this-review"));
    resizeForText(*dialog, 640, 640);
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(24, 20, 24, 18);
    column->addWidget(heading(say("measure-picker.measures-of-this-review"), 20));
    column->addWidget(quiet(say("measure-picker.ticked-ones-join-the-guided-walk")));
    auto* filter = new QLineEdit;
    filter->setPlaceholderText(say("measure-picker.find-knee-glove-release"));
    column->addWidget(filter);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* page = new QWidget;
    auto* list = new QVBoxLayout(page);
    auto ticks = std::make_shared<Ticks>();
    for (const MeasureGroup& group : measureGroups()) {
        const std::string_view id = group.id;
        if (std::none_of(playbook.measures.begin(), playbook.measures.end(),
                         [id](const MeasureDefinition& m) { return m.group == id; }))
            continue;
        list->addWidget(plain(say(group.name()), 14, true));
        for (const MeasureDefinition& m : playbook.measures) {
            if (m.group != id) continue;
            ticks->push_back(tickFor(m, review, view));
            list->addWidget(ticks->back().row);
        }
        list->addSpacing(8);
    }
    list->addStretch(1);
    scroll->setWidget(page);
    column->addWidget(scroll, 1);
    QObject::connect(filter, &QLineEdit::textChanged, dialog, [ticks](const QString& words) {
        for (const Tick& t : *ticks) t.row->setVisible(t.words.contains(words.trimmed().toLower()));
    });
    auto* foot = new QHBoxLayout;
    auto* all = plainButton(say("measure-picker.tick-all-this-view-shows"));
    QObject::connect(all, &QPushButton::clicked, dialog, [ticks] {
        for (const Tick& t : *ticks)
            if (t.box->isEnabled()) t.box->setChecked(true);
    });
    auto* done = mainButton(say("measure-picker.take-these"));
    done->setDefault(true);
    QObject::connect(done, &QPushButton::clicked, dialog, [dialog, ticks, then] {
        dialog->accept();
        then(chosen(*ticks));
    });
    auto* own = plainButton(say("measure-picker.a-measure-of-your-own"));
    QObject::connect(own, &QPushButton::clicked, dialog, [dialog, ticks, then, makeOwn] {
        dialog->accept();
        then(chosen(*ticks)); // what was ticked stays ticked
        makeOwn();
    });
    foot->addWidget(all);
    foot->addWidget(own);
    foot->addStretch(1);
    foot->addWidget(done);
    column->addLayout(foot);
    dialog->open();
    filter->setFocus();
}

} // namespace jg::ui
