#include "ui/playbook/row_picker.h"

#include "coaching/approach_rows.h"
#include "ui/row_list.h"
#include "ui/theme.h"

#include <QDialog>
#include <QLineEdit>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

namespace {

struct Pick {
    std::string id;
    QString name, words;
};

std::vector<Pick> picksOf(const Playbook& playbook, const Approach& approach) {
    std::vector<Pick> all;
    for (const MeasureDefinition& m : playbook.measures)
        if (!approach.targetOf(m.id)) all.push_back({m.id, text(m.name), text(m.hint)});
    for (const GradedItem& i : playbook.items)
        if (!asksFor(approach, i.id)) all.push_back({i.id, text(i.name), text(i.coach)});
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
    auto* search = new QLineEdit;
    search->setObjectName("pick-search");
    search->setPlaceholderText(say("row-picker.part-of-its-name"));
    column->addWidget(search);
    auto* list = new RowList;
    list->setObjectName("pick-rows");
    list->setAccessibleName(say("playbook-place.add-a-row"));
    list->setEmptyText(say("row-picker.nothing-of-that-name"));
    column->addWidget(list, 1);
    const auto all = std::make_shared<std::vector<Pick>>(picksOf(playbook, approach));
    const auto shown = std::make_shared<std::vector<Pick>>();
    const auto narrow = [=](const QString& part) {
        shown->clear();
        std::vector<ListRow> rows;
        for (const Pick& p : *all) {
            if (!p.name.contains(part, Qt::CaseInsensitive)) continue;
            ListRow row;
            row.title = p.name;
            row.sub = p.words;
            rows.push_back(std::move(row));
            shown->push_back(p);
        }
        list->setRows(std::move(rows));
        list->setCurrent(0);
    };
    const auto take = [=] {
        const int row = list->current();
        if (row < 0 || row >= static_cast<int>(shown->size())) return;
        const std::string id = (*shown)[static_cast<std::size_t>(row)].id;
        dialog->accept();
        then(id);
    };
    QObject::connect(search, &QLineEdit::textChanged, dialog, narrow);
    QObject::connect(search, &QLineEdit::returnPressed, dialog, take);
    QObject::connect(list, &RowList::activated, dialog, take);
    for (const auto& [key, by] : {std::pair(Qt::Key_Up, -1), std::pair(Qt::Key_Down, 1)}) {
        auto* shortcut = new QShortcut(QKeySequence(key), dialog);
        QObject::connect(shortcut, &QShortcut::activated, dialog, [list, by = by] { list->move(by); });
    }
    narrow({});
    search->setFocus();
    resizeForText(*dialog, 520, 560);
    dialog->open();
}

} // namespace jg::ui
