// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/compare_dialog.h"

#include "coaching/compare.h"
#include "ui/bench/measure_words.h"
#include "ui/forms/verdict_look.h"
#include "ui/kit/row_list.h"
#include "ui/kit/theme.h"

#include <QDialog>
#include <QVBoxLayout>

#include <algorithm>
#include <iterator>

namespace jg::ui {

namespace {

/// A row's verdict by one approach: what is asked, and the word.
QString verdictBy(const Assessment& a, const Approach& approach, const std::string& id) {
    const MeasureRow* row = a.measure(id);
    if (!approach.targetOf(id)) return say("compare-dialog.not-by", {{"approach", approach.name}});
    return say("compare-dialog.by",
               {{"approach", approach.name},
                {"asked", askedInWords(approach.targetOf(id))},
                {"verdict", row ? lookOf(row->judgement).word.toStdString() : std::string("\u2013")}});
}

bool disagree(const MeasureRow* one, const MeasureRow* other) {
    return one && other && one->judgement.verdict && other->judgement.verdict &&
           *one->judgement.verdict != *other->judgement.verdict;
}

std::vector<std::string> measuresOf(const Approach& one, const Approach& other) {
    std::vector<std::string> ids;
    for (const Approach* a : {&one, &other})
        for (const Target& t : a->targets)
            if (std::find(ids.begin(), ids.end(), t.measure) == ids.end()) ids.push_back(t.measure);
    return ids;
}

} // namespace

void showComparison(QWidget* parent, const ReviewSession& session, const Approach& other) {
    const Approach& mine = session.review().approach();
    const Assessment &a = session.assessment(), b = session.assessedBy(other);
    std::vector<ListRow> rows, agreed;
    for (const std::string& id : measuresOf(mine, other)) {
        const MeasureDefinition* m = session.livePlaybook().measure(id);
        if (!m) continue;
        const MeasureRow *one = a.measure(id), *two = b.measure(id);
        ListRow row;
        row.title = text(m->shortName);
        row.sub = verdictBy(a, mine, id) + "   " + verdictBy(b, other, id);
        const MeasureRow* value = one ? one : two;
        if (value && value->value.seen.empty()) row.value = valueText(value->value);
        (disagree(one, two) ? rows : agreed).push_back(std::move(row));
    }
    if (!rows.empty()) rows.front().header = say("compare-dialog.they-disagree");
    if (!agreed.empty()) agreed.front().header = say("compare-dialog.the-rest");
    std::move(agreed.begin(), agreed.end(), std::back_inserter(rows));
    auto* dialog = new QDialog(parent);
    dialog->setObjectName("comparison");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(say("compare-dialog.two-approaches"));
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(28, 22, 28, 20);
    column->addWidget(heading(say("compare-dialog.title", {{"one", mine.name}, {"other", other.name}}), 22));
    column->addWidget(quiet(say("compare-dialog.nothing-is-averaged"), 13));
    auto* list = new RowList;
    list->setObjectName("comparison-rows");
    list->setAccessibleName(say("compare-dialog.two-approaches"));
    list->setRows(std::move(rows));
    list->setEmptyText(say("compare-dialog.no-measure"));
    column->addWidget(list, 1);
    auto* close = mainButton(say("sequence-dialog.close"));
    QObject::connect(close, &QPushButton::clicked, dialog, &QDialog::accept);
    column->addWidget(close, 0, Qt::AlignRight);
    resizeForText(*dialog, 860, 640);
    dialog->open();
}

} // namespace jg::ui
