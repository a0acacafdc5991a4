// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/judge/judge_questions.h"

#include "coaching/compare.h"
#include "coaching/typed_target.h"
#include "ui/bench/compare_dialog.h"
#include "ui/bench/measure_questions.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/theme.h"

#include <algorithm>

namespace jg::ui {

JudgeQuestions::JudgeQuestions(QWidget* parent, ReviewContext& context, PerformEdit perform)
    : parent_(parent)
    , c_(context)
    , perform_(std::move(perform)) {}

void JudgeQuestions::tell(const Status& done) {
    if (!done) c_.say(say(done.error().text));
}

namespace {

/// "First steps, ages 8 to 12", with a word where it is meant for others.
QString choiceOf(const Approach& a, int age) {
    return say(a.meantFor(age) ? "judge-questions.approach" : "judge-questions.approach-other-age",
               {{"approach", a.name}, {"from", a.ageFrom}, {"to", a.ageTo}, {"age", age}});
}

} // namespace

void JudgeQuestions::approach() {
    // By id: the playbook may change while the question is open.
    QStringList options;
    std::vector<std::string> ids;
    for (const Approach& a : c_.session.livePlaybook().approaches) {
        options << choiceOf(a, age());
        ids.push_back(a.id);
    }
    askChoice(parent_,
              {"approach", say("judge-questions.judge-by-which-approach"),
               say("judge-questions.grades-stay", {{"now", c_.session.review().approach().name}}), options,
               ""},
              [this, ids](const ChoiceAnswer& answer) { part(ids[*answer.option]); });
}

void JudgeQuestions::part(const std::string& approach) {
    const auto& focuses = c_.session.livePlaybook().focuses;
    if (focuses.empty()) return tell(c_.session.judgeBy(approach));
    QStringList options{say("judge-questions.the-whole-card")};
    for (const FocusCard& f : focuses) options << text(f.name);
    askChoice(parent_,
              {"focus", say("judge-questions.how-much-of-it"), say("judge-questions.outside-is-not-asked"),
               options, ""},
              [this, approach, focuses](const ChoiceAnswer& answer) {
                  const std::size_t n = *answer.option;
                  tell(c_.session.judgeBy(approach, n == 0 ? nullptr : &focuses[n - 1]));
              });
}

void JudgeQuestions::target(const MeasureDefinition& m) {
    QStringList options{say("judge-questions.no-target")};
    std::vector<std::optional<Target>> targets{std::nullopt};
    for (const Approach& a : c_.session.livePlaybook().approaches) {
        const Target* t = a.targetOf(m.id);
        if (!t || t->asksNothing()) continue;
        const auto same = [&](const auto& known) { return known && wordsOf(*known) == wordsOf(*t); };
        if (std::any_of(targets.begin(), targets.end(), same)) continue;
        options << say("judge-questions.target-of", {{"target", wordsOf(*t)}, {"approach", a.name}});
        targets.push_back(*t);
    }
    askChoice(parent_,
              {"target", text(m.name), say("judge-questions.what-is-asked-of-it"), options,
               say(m.options.empty() ? "judge-questions.typed-target" : "judge-questions.typed-answer")},
              [this, m, targets](const ChoiceAnswer& answer) {
                  if (answer.option && !targets[*answer.option])
                      return tell(c_.session.setTarget(m.id, std::nullopt));
                  if (answer.option) return forWhom(*targets[*answer.option]);
                  const auto typed =
                      typedTarget(answer.words.toStdString(), m, c_.session.livePlaybook().lengths);
                  if (!typed) return c_.say(say(typed.error().text));
                  forWhom(*typed);
              });
}

void JudgeQuestions::forWhom(const Target& t) {
    askChoice(parent_,
              {"for-whom",
               say("judge-questions.for-how-long"),
               say(wordsOf(t)),
               {say("judge-questions.for-this-review"),
                say("judge-questions.for-the-athlete", {{"name", c_.session.athlete().firstName}})},
               ""},
              [this, t](const ChoiceAnswer& answer) {
                  if (*answer.option == 0) return tell(c_.session.setTarget(t.measure, t));
                  why(t);
              });
}

void JudgeQuestions::why(const Target& t) {
    askChoice(parent_,
              {"why",
               say("judge-questions.why-for-the-athlete", {{"name", c_.session.athlete().firstName}}),
               say("judge-questions.it-stands-beside-the-target"),
               {},
               say("reason-dialog.another-reason-then-enter")},
              [this, t](const ChoiceAnswer& answer) {
                  Target own = t;
                  own.owner = TargetOwner{c_.session.house().coach, c_.session.clock().today(),
                                          answer.words.toStdString()};
                  tell(c_.session.setTarget(own.measure, own, true));
              });
}

void JudgeQuestions::seen(const MeasureDefinition& m) {
    askSeen(parent_, m, perform_);
}

void JudgeQuestions::whichWay(const std::string& row, const Grade& grade,
                              const std::function<void(const Grade&)>& then) {
    constexpr int kKept = 5; // the step of what is good
    const Playbook& book = c_.session.playbook();
    const auto sides = book.sidesOf(row);
    if (sides.empty() || grade.state != GradeState::Graded || grade.step >= kKept) return then(grade);
    const MeasureDefinition* m = book.measure(row);
    const GradedItem* item = book.item(row);
    QStringList options;
    for (const std::string& side : sides)
        options << text(m ? (side == kBelow ? m->goalUp : m->goalDown) : item->side(side)->fault);
    askChoice(parent_,
              {"which-way",
               text(book.nameOfFinding(row)),
               say(m ? "judge-questions.which-way-measure" : "judge-questions.which-way"),
               options,
               {}},
              [then, grade, sides](const ChoiceAnswer& answer) {
                  Grade with = grade;
                  if (answer.option) with.side = sides[*answer.option];
                  then(with);
              });
}

void JudgeQuestions::byHand(const MeasureDefinition& m, const std::function<void(const std::string&)>& then) {
    askChoice(parent_,
              {"by-hand",
               text(m.name),
               say("judge-questions.a-verdict-by-hand-wants-a-reason"),
               {},
               say("reason-dialog.another-reason-then-enter")},
              [then](const ChoiceAnswer& answer) { then(answer.words.toStdString()); });
}

void JudgeQuestions::ownFinding(std::int64_t frame) {
    askChoice(parent_,
              {"own-finding",
               say("judge-questions.what-did-you-see"),
               say("judge-questions.in-your-own-words-frame", {{"frame", frame}}),
               {},
               say("judge-questions.a-finding-then-enter")},
              [this, frame](const ChoiceAnswer& answer) {
                  OwnFinding f;
                  f.id = std::string(kOwnFinding) + c_.session.ids().next<struct FindingTag>("f").value;
                  f.words = answer.words.toStdString();
                  f.delivery = c_.session.inHand();
                  f.frame = frame;
                  groupOf(std::move(f));
              });
}

void JudgeQuestions::groupOf(OwnFinding f) {
    QStringList options;
    std::vector<std::string> ids;
    for (const MeasureGroup& g : measureGroups())
        if (g.id == "lower" || g.id == "trunk" || g.id == "arm") {
            options << say(g.name());
            ids.emplace_back(g.id);
        }
    askChoice(parent_, {"group", text(f.words), say("judge-questions.which-part-of-the-body"), options, ""},
              [this, f, ids](const ChoiceAnswer& answer) {
                  OwnFinding with = f;
                  with.group = ids[*answer.option];
                  drillOf(std::move(with));
              });
}

void JudgeQuestions::drillOf(OwnFinding f) {
    QStringList options{say("judge-questions.no-drill-yet")};
    std::vector<std::string> ids{""};
    const bool lower = f.group == "lower";
    for (const Drill& d : c_.session.playbook().drills) {
        const bool fits =
            (d.body == "lower") == lower && age() >= d.ageFrom && !(c_.session.pain() && d.throwing);
        if (!fits) continue;
        options << text(d.name);
        ids.push_back(d.id);
    }
    askChoice(parent_, {"drill", text(f.words), say("judge-questions.which-drill-helps"), options, ""},
              [this, f, ids](const ChoiceAnswer& answer) {
                  OwnFinding with = f;
                  with.drill = ids[*answer.option];
                  keep(std::move(with));
              });
}

void JudgeQuestions::keep(OwnFinding f) {
    auto all = c_.session.review().own;
    all.push_back(std::move(f));
    perform_(msg("judge-questions.a-finding-of-your-own"), {SetOwnFindings{std::move(all)}});
}

void JudgeQuestions::compare() {
    QStringList options;
    std::vector<std::string> ids;
    for (const Approach& a : c_.session.livePlaybook().approaches)
        if (a.id != c_.session.review().approach().id) {
            options << choiceOf(a, age());
            ids.push_back(a.id);
        }
    askChoice(parent_,
              {"compare-with", say("judge-questions.compare-with-which"),
               say("judge-questions.nothing-is-changed"), options, ""},
              [this, ids](const ChoiceAnswer& answer) {
                  if (const Approach* other = c_.session.livePlaybook().approach(ids[*answer.option]))
                      showComparison(parent_, c_.session, *other);
              });
}

} // namespace jg::ui
