#include "ui/review/judge_bench.h"

#include "review/reasons.h"
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
    coach_->setMinimumHeight(em(52));
    coach_->setAlignment(Qt::AlignTop);
    column_->addWidget(coach_);
    where_ = quiet("", 12);
    column_->addWidget(where_);
    auto* row = new QHBoxLayout;
    row->setSpacing(5);
    const char* steps[] = {"verdict.change", "verdict.more", "verdict.adjust", "verdict.nearly",
                           "verdict.keep"};
    for (int i = 0; i < 5; ++i) {
        auto* b = plainButton(say("judge-bench.step", {{"key", i + 1}, {"grade", say(steps[i])}}));
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
    for (const auto& [id, words2] : {std::pair{"grade-cannot-tell", say("judge-bench.cannot-tell")},
                                     {"grade-hidden", say("judge-bench.not-visible")},
                                     {"grade-fault-absent", say("judge-bench.fault-absent")},
                                     {"grade-not-applicable", say("judge-bench.not-applicable")}}) {
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
    list_->setAccessibleName(say("judge-bench.items-of-the-card"));
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
    counts_->setText(open == 0 ? say("judge-bench.every-item-is-looked-at")
                               : say("judge-bench.open-of-judged-all-not-looked",
                                     {{"open", open}, {"judgedAll", c.judgedAll}}));
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
    std::vector<Message> where{
        row.seenFromHere
            ? msg("judge-bench.at-position", {{"position", info(def->position).name()}})
            : msg("judge-bench.cant-be-seen-from-the-view", {{"view", nameOf(c_.session.clip().view)}})};
    if (def->protectsArm) where.push_back(msg("judge-bench.with-a-shield-it-loads-the"));
    if (row.grade && !row.grade->reason.empty() && row.seenFromHere)
        where.push_back(msg("judge-bench.reason", {{"reason", reasonInWords(row.grade->reason)}}));
    where_->setText(say(joined(ListStyle::Sentences, std::move(where))));
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
    if (const Status done = c_.session.grade(def->id, g, frame); !done) return c_.say(say(done.error().text));
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
    if (!def || !row || !row->grade) return c_.say(say("judge-bench.grade-this-item-first-then-r"));
    askChoice(this,
              {"remark",
               text(def->name),
               say("judge-bench.a-remark-to-this-item"),
               {},
               row->grade->reason.empty() ? say("judge-bench.a-remark-then-enter")
                                          : say(reasonInWords(row->grade->reason))},
              [this, key = GradeKey{row->delivery, row->id}](const ChoiceAnswer& answer) {
                  const Grade* now = review().judging().grade(key.delivery, key.item);
                  if (!now) return;
                  Grade with = *now;
                  with.reason = answer.words.toStdString();
                  perform(msg("judge-bench.write-a-remark"), {SetGrade{0, key, with}});
              });
}

Handlers JudgeBench::handlers() {
    Handlers all = {
        {"grade-cannot-tell",
         [this] {
             grade({GradeState::CannotTell, 0, "", {}});
         }},
        {"grade-not-applicable",
         [this] {
             grade({GradeState::NotApplicable, 0, "", {}});
         }},
        {"grade-fault-absent",
         [this] {
             grade({GradeState::FaultAbsent, 5, "", {}});
         }},
        {"grade-skip",
         [this] {
             grade({GradeState::SetAside, 0, std::string(kSetAside), {}});
         }},
        {"grade-remark", [this] { remark(); }},
        {"row-up", [this] { list_->move(-1); }},
        {"row-down", [this] { list_->move(1); }},
        {"grade-hidden", [this] { sayHidden(); }},
        {"grade-clear", [this] { clearGrade(); }},
    };
    for (int step = 1; step <= 5; ++step)
        all[QString("grade-%1").arg(step)] = [this, step] { grade({GradeState::Graded, step, "", {}}); };
    return all;
}

void JudgeBench::sayHidden() {
    if (const GradedItem* def = item())
        askReason(this, text(def->name), [this](const QString& reason) {
            grade({GradeState::NotVisible, 0, reason.toStdString(), {}});
        });
}

void JudgeBench::clearGrade() {
    const ItemRow* row = currentRow();
    if (row && row->grade)
        perform(msg("judge-bench.take-the-grade-away"),
                {SetGrade{0, {row->delivery, row->id}, std::nullopt}});
}

QString JudgeBench::stageCaption() const {
    const GradedItem* def = item();
    return def ? say(info(def->position).name()) : QString();
}

std::optional<std::string> JudgeBench::focus() const {
    const GradedItem* def = item();
    return def ? std::optional(def->id)
               : std::nullopt; // the measures' marks step back while an item is judged
}

} // namespace jg::ui
