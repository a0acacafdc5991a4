// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/judge/judge_bench.h"

#include "review/assess/number_words.h"
#include "review/assess/reasons.h"
#include "review/tell/letter_model.h"
#include "review/tell/stops.h"
#include "ui/bench/measure_words.h"
#include "ui/bench/reason_dialog.h"
#include "ui/forms/verdict_look.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/theme.h"
#include "ui/stages/judge/card_reader.h"

#include <algorithm>
#include <utility>

namespace jg::ui {

namespace {

QString valueWithError(const MeasureValue& v) {
    if (!v.value) return valueText(v);
    return valueText(v) + " " + say("measure-bench.error", {{"error", errorInWords(v)}});
}

} // namespace

JudgeBench::JudgeBench(ReviewContext& context)
    : Bench(context)
    , questions_(this, context, [this](const Message& label, std::vector<Change> changes) {
        return perform(label, std::move(changes));
    }) {
    approach_ = plainButton("");
    approach_->setObjectName("link");
    approach_->setStyleSheet("text-align:left; padding:2px 0px;");
    connect(approach_, &QPushButton::clicked, this, [this] { c_.runAction("judge-approach"); });
    column_->addWidget(approach_);
    title_ = heading("", 20);
    column_->addWidget(title_);
    coach_ = quiet("", 13);
    coach_->setMinimumHeight(em(52));
    coach_->setAlignment(Qt::AlignTop);
    column_->addWidget(coach_);
    number_ = plain("", 13);
    number_->setObjectName("number-behind");
    column_->addWidget(number_);
    where_ = quiet("", 12);
    column_->addWidget(where_);
    buildSteps();
    buildStates();
    problem_ = problemLabel("contradiction");
    column_->addWidget(problem_);
    counts_ = quiet("", 12);
    column_->addWidget(counts_);
    list_ = new RowList;
    list_->setObjectName("items");
    list_->setAccessibleName(say("judge-bench.items-of-the-card"));
    connect(list_, &RowList::selected, this, &JudgeBench::select);
    column_->addWidget(list_, 1);
    refresh();
}

void JudgeBench::buildSteps() {
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
}

void JudgeBench::buildStates() {
    auto* states = new QHBoxLayout;
    states->setSpacing(2);
    for (const auto& [id, word] : {std::pair{"grade-cannot-tell", say("judge-bench.cannot-tell")},
                                   {"grade-hidden", say("judge-bench.not-visible")},
                                   {"grade-fault-absent", say("judge-bench.fault-absent")},
                                   {"grade-not-applicable", say("judge-bench.not-applicable")}}) {
        auto* b = plainButton(word);
        b->setObjectName("link");
        connect(b, &QPushButton::clicked, this, [this, id = QString(id)] { c_.runAction(id); });
        states->addWidget(b);
    }
    states->addStretch(1);
    column_->addLayout(states);
}

const CardRow* JudgeBench::current() const {
    const int row = list_->current();
    return row < 0 || row >= static_cast<int>(card_.size()) ? nullptr : &card_[static_cast<std::size_t>(row)];
}

const GradedItem* JudgeBench::item() const {
    const CardRow* row = current();
    return row && !row->isMeasure ? playbook().item(row->id) : nullptr;
}

const MeasureDefinition* JudgeBench::measure() const {
    const CardRow* row = current();
    return row && row->isMeasure ? playbook().measure(row->id) : nullptr;
}

void JudgeBench::refresh() {
    const Assessment& a = c_.session.assessment();
    const std::string kept = current() ? current()->id : "";
    orderForApproach();
    card_ = cardOf(review(), playbook(), a, order_);
    std::vector<ListRow> rows;
    int at = 0;
    for (const CardRow& c : card_) {
        ListRow row;
        if (const MeasureRow* m = c.isMeasure ? a.measure(c.id) : nullptr) {
            row.title = text(playbook().measure(c.id)->shortName);
            if (m->value.seen.empty()) row.value = valueText(m->value);
            row.look = lookOf(m->judgement);
        } else {
            const GradedItem* def = playbook().item(c.id);
            row.title = text(def->name);
            row.look = lookOf(c.grade, def->protectsArm);
        }
        if (c.id == kept) at = static_cast<int>(rows.size());
        rows.push_back(std::move(row));
    }
    if (order_ == WalkOrder::Body)
        for (const CardPartCount& part : partsOf(card_))
            rows[part.first].header =
                say("judge-bench.part", {{"part", part.name}, {"looked", part.looked}, {"all", part.all}});
    list_->setRows(std::move(rows));
    list_->setCurrent(at);
    showApproach();
    showWork();
    showRow();
}

void JudgeBench::showApproach() {
    const Approach& a = review().approach();
    const int age = c_.session.age();
    approach_->setText(say(
        a.meantFor(age) ? "judge-bench.judged-by" : "judge-bench.judged-by-other-age",
        {{"approach", a.name}, {"edition", a.version}, {"from", a.ageFrom}, {"to", a.ageTo}, {"age", age}}));
}

/// What is open, and what the review says twice and differently.
void JudgeBench::showWork() {
    const Counts& c = c_.session.assessment().counts;
    const int open = c.judgedAll - c.judged;
    counts_->setText(open == 0 ? say("judge-bench.every-item-is-looked-at")
                               : say("judge-bench.open-of-judged-all-not-looked",
                                     {{"open", open}, {"judgedAll", c.judgedAll}}));
    const auto found = c_.session.contradictions();
    const auto first =
        std::find_if(found.begin(), found.end(), [](const Contradiction& x) { return x.stop; });
    problem_->setVisible(first != found.end());
    if (first != found.end()) problem_->setText(say(first->text));
}

void JudgeBench::enter() {
    const auto open =
        std::find_if(card_.begin(), card_.end(), [](const CardRow& r) { return r.open && !r.isMeasure; });
    goToRow(open == card_.end() ? list_->current() : static_cast<int>(open - card_.begin()));
}

Message JudgeBench::whereOf(const CardRow& row) const {
    const GradedItem* def = item();
    const auto& items = c_.session.assessment().items;
    const auto looked =
        std::find_if(items.begin(), items.end(), [&](const ItemRow& i) { return i.id == row.id; });
    const bool unseen = looked != items.end() && !looked->seenFromHere;
    std::vector<Message> where{
        unseen ? msg("judge-bench.cant-be-seen-from-the-view", {{"view", nameOf(c_.session.clip().view)}})
               : msg("judge-bench.at-position", {{"position", info(row.position).name()}})};
    if (def && def->protectsArm) where.push_back(msg("judge-bench.shield-hint"));
    if (row.grade && !row.grade->reason.empty() && !unseen)
        where.push_back(msg("judge-bench.reason", {{"reason", reasonInWords(row.grade->reason)}}));
    return joined(ListStyle::Sentences, std::move(where));
}

void JudgeBench::showRow() {
    const CardRow* row = current();
    if (!row) return;
    const GradedItem* def = item();
    const MeasureDefinition* m = measure();
    title_->setText(text(playbook().nameOfFinding(row->id)));
    coach_->setText(
        def ? say(msg(def->fault == def->name ? "judge-bench.coach" : "judge-bench.coach-and-fault",
                      {{"coach", def->coach}, {"fault", def->fault}}))
            : text(m->hint));
    const MeasureRow* behind = numberBehind(*row, playbook(), c_.session.assessment());
    number_->setVisible(behind != nullptr);
    if (behind)
        number_->setText(say("judge-bench.number", {{"measure", playbook().measure(behind->id)->shortName},
                                                    {"value", valueWithError(behind->value).toStdString()},
                                                    {"judged", behind->judgement.text}}));
    where_->setText(say(whereOf(*row)));
    for (int i = 0; i < steps_.size(); ++i)
        steps_[i]->setChecked(row->grade && row->grade->state == GradeState::Graded &&
                              row->grade->step == i + 1);
}

void JudgeBench::select(int) {
    const CardRow* row = current();
    if (!row) return;
    std::int64_t frame = frameOfFinding(delivery(), playbook(), row->id);
    if (review().ownFinding(row->id)) { // it may have been made on another film
        const FindingPlace place = placeOfFinding(review(), playbook(), c_.session.assessment(), row->id);
        c_.session.takeInHand(place.delivery);
        frame = place.frame;
    }
    c_.playhead.step(frame - c_.playhead.frame());
    showRow();
}

void JudgeBench::goToRow(int row) {
    list_->setCurrent(row);
    select(row);
}

void JudgeBench::keepGrade(const std::string& row, const Grade& g) {
    const std::optional<std::int64_t> frame =
        c_.stage.shownFrame() >= 0 ? std::optional<std::int64_t>(c_.stage.shownFrame()) : std::nullopt;
    if (const Status done = c_.session.grade(row, g, frame); !done) return c_.say(say(done.error().text));
    toNextOpen();
}

/// An item's grade is kept at once, or asks which way it is off; a measure's asks what was seen, or why it is
/// judged by hand.
void JudgeBench::grade(const Grade& g) {
    const CardRow* row = current();
    if (!row) return;
    const MeasureDefinition* m = measure();
    const MeasureRow* value = m ? c_.session.assessment().measure(row->id) : nullptr;
    if (m && m->kind == MeasureKind::Seen && value && value->value.state == MeasureState::NotLookedAt)
        return questions_.seen(*m);
    questions_.whichWay(row->id, g, [this, id = row->id](const Grade& sided) { gradeSided(id, sided); });
}

void JudgeBench::gradeSided(const std::string& row, const Grade& g) {
    const MeasureDefinition* m = playbook().measure(row);
    if (!m) return keepGrade(row, g);
    questions_.byHand(*m, [this, id = row, g](const std::string& reason) {
        Grade with = g;
        with.reason = reason;
        keepGrade(id, with);
    });
}

/// The next open item follows by itself, round the card; one hand is enough.
void JudgeBench::toNextOpen() {
    const int all = static_cast<int>(card_.size());
    for (int i = 1; i < all; ++i) {
        const int at = (list_->current() + i) % all;
        if (const CardRow& r = card_[static_cast<std::size_t>(at)]; r.open && !r.isMeasure)
            return goToRow(at);
    }
    showRow();
}

/// What contradicts first, then what is open, round the card.
void JudgeBench::nextWork() {
    const auto found = c_.session.contradictions();
    const int all = static_cast<int>(card_.size());
    for (int i = 1; i <= all; ++i) {
        const int at = (list_->current() + i) % all;
        const CardRow& r = card_[static_cast<std::size_t>(at)];
        const bool contradicts = std::any_of(
            found.begin(), found.end(), [&](const Contradiction& x) { return x.stop && x.finding == r.id; });
        if (contradicts || r.open) return goToRow(at);
    }
    c_.say(say("judge-bench.every-item-is-looked-at"));
}

/// Words of the coach beside a grade, for the log; the grade and what it was given on stay.
void JudgeBench::remark() {
    const CardRow* row = current();
    if (!row || !row->grade) return c_.say(say("judge-bench.grade-this-item-first-then-r"));
    askChoice(this,
              {"remark",
               text(playbook().nameOfFinding(row->id)),
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
        {"judge-open", [this] { nextWork(); }},
        {"judge-order", [this] { turnOrder(); }},
        {"judge-approach", [this] { questions_.approach(); }},
        {"judge-target", [this] { askTarget(); }},
        {"judge-own", [this] { questions_.ownFinding(std::max<qint64>(0, c_.stage.shownFrame())); }},
        {"judge-compare", [this] { questions_.compare(); }},
        {"judge-reader", [this] { showReader(); }},
    };
    for (int step = 1; step <= 5; ++step)
        all[QString("grade-%1").arg(step)] = [this, step] { grade({GradeState::Graded, step, "", {}}); };
    return all;
}

/// A card with parts of its own is read part by part, until the coach asks for the other order.
void JudgeBench::orderForApproach() {
    if (std::exchange(orderedFor_, review().approach().id) == review().approach().id) return;
    order_ = review().approach().parts.empty() ? WalkOrder::Time : WalkOrder::Body;
}

void JudgeBench::turnOrder() {
    order_ = order_ == WalkOrder::Time ? WalkOrder::Body : WalkOrder::Time;
    refresh();
    c_.say(say(order_ == WalkOrder::Time ? "judge-bench.by-time" : "judge-bench.by-body"));
}

void JudgeBench::showReader() {
    if (auto* open = window()->findChild<CardReader*>()) return open->raise();
    (new CardReader(c_.session, this))->show();
}

/// The measure of the row, or the one behind its item.
void JudgeBench::askTarget() {
    const CardRow* row = current();
    const MeasureDefinition* m = measure();
    if (const GradedItem* def = item()) m = playbook().measure(def->measure);
    if (!row || !m) return c_.say(say("judge-bench.no-number-behind"));
    questions_.target(*m);
}

void JudgeBench::sayHidden() {
    if (const CardRow* row = current(); row && !row->isMeasure)
        askReason(this, text(playbook().nameOfFinding(row->id)), [this, id = row->id](const QString& reason) {
            keepGrade(id, {GradeState::NotVisible, 0, reason.toStdString(), {}});
        });
    else
        c_.say(say("judge-bench.hide-it-in-measure"));
}

void JudgeBench::clearGrade() {
    const CardRow* row = current();
    if (row && !row->grade && review().ownFinding(row->id)) return removeOwn(row->id);
    if (row && row->grade)
        perform(msg("judge-bench.take-the-grade-away"),
                {SetGrade{0, {row->delivery, row->id}, std::nullopt}});
}

/// With its stops and its place in the plan, which would speak of nothing.
void JudgeBench::removeOwn(const std::string& finding) {
    auto own = review().own;
    std::erase_if(own, [&](const OwnFinding& f) { return f.id == finding; });
    auto stops = review().stops;
    std::erase_if(stops, [&](const Stop& s) { return s.finding == finding; });
    Plan plan = review().plan;
    std::erase(plan.corrections, finding);
    std::erase_if(plan.drills, [&](const PlannedDrill& d) { return d.finding == finding; });
    perform(msg("judge-bench.take-the-finding-away"), {SetOwnFindings{own}, SetStops{stops}, SetPlan{plan}});
}

QString JudgeBench::stageCaption() const {
    const CardRow* row = current();
    return row ? say(info(row->position).name()) : QString();
}

std::optional<std::string> JudgeBench::focus() const {
    const CardRow* row = current();
    return row ? std::optional(row->id)
               : std::nullopt; // the measures' marks step back while an item is judged
}

} // namespace jg::ui
