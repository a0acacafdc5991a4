// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/playbook/row_picker.h"

#include "coaching/approach_rows.h"
#include "ui/kit/found_list.h"
#include "ui/kit/theme.h"

#include <QDialog>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

struct Picks {
    std::vector<std::string> ids;
    std::vector<ListRow> rows;
};

Picks picksOf(const Playbook& playbook, const Approach& approach) {
    Picks all;
    const auto add = [&](const std::string& id, const std::string& name, const std::string& words) {
        ListRow row;
        row.title = text(name);
        row.sub = text(words);
        all.rows.push_back(std::move(row));
        all.ids.push_back(id);
    };
    for (const MeasureDefinition& m : playbook.measures)
        if (!approach.targetOf(m.id)) add(m.id, m.name, m.hint);
    for (const GradedItem& i : playbook.items)
        if (!asksFor(approach, i.id)) add(i.id, i.name, i.coach);
    return all;
}

} // namespace

void pickRow(QWidget* parent, const Playbook& playbook, const Approach& approach,
             const std::function<void(const std::string& id)>& then) {
    auto* dialog = new QDialog(parent);
    dialog->setObjectName("pick-row");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(say("playbook-place.add-a-row"));
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(22, 18, 22, 18);
    column->addWidget(heading(say("playbook-place.add-a-row"), 20));
    Picks picks = picksOf(playbook, approach);
    auto* list = new FoundList(std::move(picks.rows), say("row-picker.part-of-its-name"));
    column->addWidget(list, 1);
    QObject::connect(list, &FoundList::taken, dialog, [dialog, then, ids = std::move(picks.ids)](int row) {
        dialog->accept();
        then(ids[static_cast<std::size_t>(row)]);
    });
    list->setFocus();
    resizeForText(*dialog, 520, 560);
    dialog->open();
}

} // namespace jg::ui
