#include "ui/review/judge_bench.h"

#include "review/stops.h"
#include "ui/review/choice_dialog.h"
#include "ui/review/reason_dialog.h"
#include "ui/theme.h"

namespace jg::ui {

JudgeBench::JudgeBench(ReviewContext& context)
    : Bench(context) {
    title_ = heading("", 20);
    column_->addWidget(title_);
    coach_ = quiet("", 13);
    coach_->setMinimumHeight(52);
    coach_->setAlignment(Qt::AlignTop);
    column_->addWidget(coach_);
    where_ = quiet("", 12);
    column_->addWidget(where_);
    auto* row = new QHBoxLayout;
    row->setSpacing(5);
    const char* words[] = {"1 change", "2 more", "3 adjust", "4 nearly", "5 keep"};
    for (int i = 0; i < 5; ++i) {
        auto* b = plainButton(words[i]);
        b->setObjectName("choice");
        b->setCheckable(true);
        b->setMinimumWidth(0);
        b->setStyleSheet("padding:6px 2px;");
        connect(b, &QPushButton::clicked, this, [this, i] { c_.runAction(QString("grade-%1").arg(i + 1)); });
        steps_ << b;
        row->addWidget(b, 1);
    }
    column_->addLayout(row);
    auto* states = new QHBoxLayout;
    states->setSpacing(2);
    for (const auto& [id, words2] : {std::pair{"grade-cannot-tell", "cannot tell"},
                                     {"grade-hidden", "not visible"},
                                     {"grade-fault-absent", "fault absent"},
                                     {"grade-not-applicable", "n/a"}}) {
        auto* b = plainButton(words2);
        b->setObjectName("link");
        connect(b, &QPushButton::clicked, this, [this, id = QString(id)] { c_.runAction(id); });
        states->addWidget(b);
    }
    states->addStretch(1);
    column_->addLayout(states);
    counts_ = quiet("", 12);
    column_->addWidget(counts_);
    list_ = new RowList;
    list_->setObjectName("items");
    list_->setAccessibleName("Items of the card");
    connect(list_, &RowList::selected, this, &JudgeBench::select);
    column_->addWidget(list_, 1);
    refresh();
}

const ItemRow* JudgeBench::currentRow() const {
    const auto& items = c_.session.assessment().items;
    const int row = list_->current();
    return row < 0 || row >= static_cast<int>(items.size()) ? nullptr : &items[static_cast<std::size_t>(row)];
}

const GradedItem* JudgeBench::item() const {
    const ItemRow* row = currentRow();
    return row ? playbook().item(row->id) : nullptr;
}

void JudgeBench::refresh() {
    std::vector<ListRow> rows;
    for (const ItemRow& i : c_.session.assessment().items) {
        const GradedItem* def = playbook().item(i.id);
        ListRow row;
        row.title = QString::fromStdString(def->name);
        row.look = lookOf(i.grade, def->protectsArm);
        rows.push_back(std::move(row));
    }
    const int keep = list_->current();
    list_->setRows(std::move(rows));
    list_->setCurrent(keep < 0 ? 0 : keep);
    const Counts& c = c_.session.assessment().counts;
    const int open = c.judgedAll - c.judged;
    counts_->setText(open == 0 ? "Every item is looked at."
                               : QString("%1 of %2 not looked at yet.").arg(open).arg(c.judgedAll));
    showItem();
}

void JudgeBench::enter() {
    const auto& items = c_.session.assessment().items;
    for (std::size_t i = 0; i < items.size(); ++i)
        if (!items[i].grade) {
            list_->setCurrent(static_cast<int>(i));
            break;
        }
    select(list_->current());
}

void JudgeBench::showItem() {
    const GradedItem* def = item();
    if (!def) return;
    title_->setText(QString::fromStdString(def->name));
    coach_->setText(QString::fromStdString(def->coach));
    const ItemRow& row = c_.session.assessment().items[static_cast<std::size_t>(list_->current())];
    QString where = "At " + text(info(def->position).name) + ".";
    if (!row.seenFromHere)
        where =
            "Can't be seen from the " + text(nameOf(c_.session.clip().view)) + ": counted as not visible.";
    if (def->protectsArm)
        where += " With a shield: it loads the arm, so a low grade goes before everything else.";
    if (row.grade && !row.grade->reason.empty() && row.seenFromHere)
        where += " " + QString::fromStdString(row.grade->reason) + ".";
    where_->setText(where);
    for (int i = 0; i < steps_.size(); ++i)
        steps_[i]->setChecked(row.grade && row.grade->state == GradeState::Graded &&
                              row.grade->step == i + 1);
}

void JudgeBench::select(int) {
    if (const GradedItem* def = item())
        c_.playhead.step(frameOfFinding(delivery(), playbook(), def->id) - c_.playhead.frame());
    showItem();
}

void JudgeBench::grade(const Grade& g) {
    const GradedItem* def = item();
    if (!def) return;
    const std::optional<std::int64_t> frame =
        c_.stage.shownFrame() >= 0 ? std::optional<std::int64_t>(c_.stage.shownFrame()) : std::nullopt;
    if (const Status done = c_.session.grade(def->id, g, frame); !done)
        return c_.say(text(done.error().text));
    // The next open one follows by itself; one hand is enough.
    const auto& items = c_.session.assessment().items;
    for (int i = list_->current() + 1; i < static_cast<int>(items.size()); ++i)
        if (!items[static_cast<std::size_t>(i)].grade) {
            list_->setCurrent(i);
            select(i);
            return;
        }
    showItem();
}

/// Words of the coach beside a grade, for the log; the grade and what it was given on stay.
void JudgeBench::remark() {
    const GradedItem* def = item();
    const ItemRow* row = currentRow();
    if (!def || !row || !row->grade) return c_.say("Grade this item first; then R writes a remark to it.");
    askChoice(this,
              {"remark",
               text(def->name),
               "A remark to this item:",
               {},
               row->grade->reason.empty() ? QString("a remark, then Enter") : text(row->grade->reason)},
              [this, key = GradeKey{row->delivery, row->id}](const QString& words) {
                  const Grade* now = review().judging().grade(key.delivery, key.item);
                  if (!now) return;
                  Grade with = *now;
                  with.reason = words.trimmed().toStdString();
                  perform("Write a remark", {SetGrade{0, key, with}});
              });
}

bool JudgeBench::act(const QString& id) {
    for (int step = 1; step <= 5; ++step)
        if (id == QString("grade-%1").arg(step)) return grade({GradeState::Graded, step, "", {}}), true;
    if (id == "grade-cannot-tell") return grade({GradeState::CannotTell, 0, "", {}}), true;
    if (id == "grade-not-applicable") return grade({GradeState::NotApplicable, 0, "", {}}), true;
    if (id == "grade-fault-absent") return grade({GradeState::FaultAbsent, 5, "", {}}), true;
    if (id == "grade-skip") return grade({GradeState::SetAside, 0, "Set aside by the coach", {}}), true;
    if (id == "grade-hidden") {
        if (const GradedItem* def = item())
            askReason(this, QString::fromStdString(def->name), [this](const QString& reason) {
                grade({GradeState::NotVisible, 0, reason.toStdString(), {}});
            });
        return true;
    }
    if (id == "grade-clear") {
        const ItemRow* row = currentRow();
        if (row && row->grade)
            perform("Take the grade away", {SetGrade{0, {row->delivery, row->id}, std::nullopt}});
        return true;
    }
    if (id == "grade-remark") return remark(), true;
    if (id == "row-up") return list_->move(-1), true;
    if (id == "row-down") return list_->move(1), true;
    return false;
}

QString JudgeBench::stageCaption() const {
    const GradedItem* def = item();
    return def ? text(info(def->position).name) : QString();
}

std::optional<std::string> JudgeBench::focus() const {
    const GradedItem* def = item();
    return def ? std::optional(def->id)
               : std::nullopt; // the measures' marks step back while an item is judged
}

} // namespace jg::ui
