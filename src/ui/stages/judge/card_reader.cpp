// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/judge/card_reader.h"

#include "review/assess/card.h"
#include "ui/forms/verdict_look.h"
#include "ui/kit/theme.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

CardReader::CardReader(ReviewSession& session, QWidget* parent)
    : QDialog(parent)
    , session_(session) {
    setObjectName("card-reader");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(say("card-reader.title"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(28, 22, 28, 20);
    column->setSpacing(12);
    last_ = heading("", 30);
    last_->setObjectName("read-back");
    last_->setMinimumHeight(em(84));
    column->addWidget(last_);
    auto* halves = new QHBoxLayout;
    halves->setSpacing(24);
    const auto half = [&](QLabel* title, const char* name) {
        auto* side = new QVBoxLayout;
        side->addWidget(title);
        auto* list = new RowList;
        list->setObjectName(name);
        list->setAccessibleName(title->text());
        side->addWidget(list, 1);
        halves->addLayout(side, 1);
        return list;
    };
    openTitle_ = heading(say("card-reader.missing"), 18);
    open_ = half(openTitle_, "card-open");
    open_->setEmptyText(say("judge-bench.every-item-is-looked-at"));
    judged_ = half(heading(say("card-reader.judged"), 18), "card-judged");
    judged_->setEmptyText(say("card-reader.nothing-judged"));
    column->addLayout(halves, 1);
    connect(&session_, &ReviewSession::changed, this, [this](Parts parts) {
        if (parts.has(Part::Film | Part::Marks | Part::Judged | Part::Playbook)) refresh();
    });
    resizeForText(*this, 820, 620);
    refresh();
}

void CardReader::refresh() {
    const Playbook& book = session_.playbook();
    std::vector<ListRow> open, judged;
    std::vector<std::pair<QString, QString>> words;
    for (const CardRow& c : cardOf(session_.review(), book, session_.assessment())) {
        const GradedItem* item = book.item(c.id);
        const MeasureRow* m = c.isMeasure ? session_.assessment().measure(c.id) : nullptr;
        ListRow row;
        row.title = text(book.nameOfFinding(c.id));
        row.sub = say(info(c.position).name());
        row.look = m ? lookOf(m->judgement) : lookOf(c.grade, item && item->protectsArm);
        if (!c.open) words.emplace_back(row.title, row.look->word);
        (c.open ? open : judged).push_back(std::move(row));
    }
    openTitle_->setText(say("card-reader.missing-count", {{"count", open.size()}}));
    open_->setRows(std::move(open));
    judged_->setRows(std::move(judged));
    readBack(words);
}

void CardReader::readBack(const std::vector<std::pair<QString, QString>>& judged) {
    for (const auto& now : judged)
        if (!before_.empty() && std::find(before_.begin(), before_.end(), now) == before_.end())
            last_->setText(say("card-reader.last",
                               {{"row", now.first.toStdString()}, {"verdict", now.second.toStdString()}}));
    if (last_->text().isEmpty()) last_->setText(say("card-reader.waiting"));
    before_ = judged;
}

} // namespace jg::ui
