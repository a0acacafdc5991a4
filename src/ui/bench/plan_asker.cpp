// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/plan_asker.h"

#include "desk/keeping/file_names.h"
#include "desk/sending/dispatch.h"
#include "desk/sending/letter_files.h"
#include "kinematics/answers.h"
#include "ui/bench/plan_questions.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/theme.h"

#include <algorithm>

namespace jg::ui {

PlanFor planFor(const ReviewSession& session, const Review& review) {
    return {session.playbook(),   review,         session.told(),          session.athlete(),
            session.submission(), session.clip(), session.clock().today(), session.pain()};
}

void askForPromise(QWidget* parent, const ReviewSession& session,
                   const std::function<void(const QString&)>& tell) {
    Promise begun{session.athlete().id, {}, std::nullopt};
    begun.review = session.review().id;
    askPromise(parent->window(), begun, session.clock().today(), [&session, tell](const Promise& made) {
        const Status kept = session.library().add(made);
        tell(kept ? say("prescribe-bench.promised", {{"what", made.text}, {"due", *made.due}})
                  : say(kept.error().text));
    });
}

void PlanAsker::causes(const std::string& id) {
    askCauses(parent_->window(), book(), id, text(goalOf(book(), c_.session.told(), id)),
              c_.session.told().faults(), knownOf(c_.session.told()), review().plan.causes,
              [this](const std::vector<CauseChoice>& choices) {
                  Plan plan = review().plan;
                  plan.causes = choices;
                  keep_(msg("prescribe-bench.weigh-causes"), plan);
              });
}

Plan PlanAsker::withDrills(const Plan& plan) const {
    Review asked = review();
    asked.plan = plan;
    return proposePlan(planFor(c_.session, asked), plan.corrections, c_.session.readersWords());
}

void PlanAsker::whyNot(const std::string& id) {
    const WhyNot* known = review().plan.whyNotOf(id);
    askWhyNot(parent_->window(), book(), known ? *known : WhyNot{id, std::nullopt, {}},
              text(goalOf(book(), c_.session.told(), id)), [this, id](const WhyNot& now) {
                  Plan plan = review().plan;
                  std::erase_if(plan.whyNot, [&](const WhyNot& w) { return w.finding == id; });
                  plan.whyNot.push_back(now);
                  // Its drills are proposed anew for what is needed; those of the others stay.
                  if (isAmong(plan.corrections, id))
                      std::erase_if(plan.drills, [&](const PlannedDrill& d) { return d.finding == id; });
                  keep_(msg("prescribe-bench.say-why-not"), withDrills(plan));
              });
}

/// What was called a style is worked on no longer; what protects the arm goes on, and that is said.
Plan PlanAsker::withoutStyle(Plan plan, const std::string& id) {
    const auto size = plan.sizes.find(id);
    if (size == plan.sizes.end() || size->second != FindingSize::Style) return plan;
    if (!isStyle(plan, c_.session.told(), id)) {
        plan.sizes.erase(size);
        c_.say(say("prescribe-bench.protects-no-style"));
        return plan;
    }
    if (!isAmong(plan.corrections, id)) return plan;
    std::erase(plan.corrections, id);
    return withDrills(plan);
}

void PlanAsker::size(const std::string& id) {
    QStringList options;
    for (const FindingSize size : kFindingSizes) options << say(nameOf(size));
    options << say("plan-asker.size-nothing");
    askChoice(parent_->window(),
              {"size", text(goalOf(book(), c_.session.told(), id)), say("plan-asker.size-hint"), options, {}},
              [this, id](const ChoiceAnswer& answer) {
                  Plan plan = review().plan;
                  if (*answer.option < kFindingSizes.size())
                      plan.sizes[id] = kFindingSizes.at(*answer.option);
                  else
                      plan.sizes.erase(id);
                  keep_(msg("prescribe-bench.say-size"), withoutStyle(std::move(plan), id));
              });
}

void PlanAsker::drills(const std::string& id) {
    if (!isAmong(review().plan.corrections, id)) return c_.say(say("prescribe-bench.choose-it-first"));
    const WhyNot* whyNot = review().plan.whyNotOf(id);
    const auto offers =
        offersFor(book(), textOf(c_.session.told().sided(id)), planFor(c_.session, review()).gates(),
                  whyNot ? needOf(book(), *whyNot) : std::nullopt);
    std::vector<std::string> chosen, offered;
    for (const PlannedDrill& d : review().plan.drills) chosen.push_back(d.drill); // one may serve two
    for (const DrillOffer& o : offers) offered.push_back(o.drill->id);
    chooseDrills(
        parent_->window(), offers, chosen, text(goalOf(book(), c_.session.told(), id)),
        [this, id] { writeDrill(id); },
        [this, id, offered](const std::vector<std::string>& now) {
            Plan plan = review().plan;
            std::erase_if(plan.drills, [&](const PlannedDrill& d) {
                return isAmong(offered, d.drill) && !isAmong(now, d.drill);
            });
            for (const std::string& drill : now) {
                const bool there = std::any_of(plan.drills.begin(), plan.drills.end(),
                                               [&](const PlannedDrill& d) { return d.drill == drill; });
                if (!there) plan.drills.push_back({drill, id, book().drill(drill)->dose, false});
            }
            keep_(msg("prescribe-bench.choose-its-drills"), plan);
        });
}

/// A drill of the coach's own for a finding: kept in the playbook, and in this plan at once.
void PlanAsker::writeDrill(const std::string& finding) {
    Drill drill;
    drill.body = book().groupOfFinding(finding) == "lower" ? "lower" : "upper";
    drill.serves = {finding};
    drill.dose = {3, 8, 2};
    c_.writeDrill(drill, [this, finding](const Status& done, const std::string& key) {
        if (!done) return c_.say(say(done.error().text));
        c_.session.playbookChanged();
        const Drill* written = book().drill(key);
        if (!written) return;
        Plan plan = review().plan;
        plan.drills.push_back({key, finding, written->dose, false});
        keep_(msg("prescribe-bench.choose-its-drills"), plan);
    });
}

void PlanAsker::week() {
    askCircumstances(parent_->window(), book(), review().plan.circumstances, [this](const Circumstances& at) {
        Plan plan = review().plan;
        plan.circumstances = at;
        keep_(msg("prescribe-bench.set-days-and-gear"), plan);
    });
}

void PlanAsker::keeps() {
    std::vector<std::string> strengths;
    for (const Judged& j : c_.session.told().findings)
        if (j.strength && !j.cannotTell) strengths.push_back(j.finding.id);
    if (strengths.empty()) return c_.say(say("prescribe-bench.no-strength-yet"));
    chooseKeeps(parent_->window(), book(), strengths, review().plan.keeps,
                mostKept(review().plan.corrections.size()), [this](const std::vector<std::string>& keeps) {
                    Plan plan = review().plan;
                    plan.keeps = keeps;
                    keep_(msg("prescribe-bench.choose-strengths"), plan);
                });
}

void PlanAsker::save(bool calendar) {
    const QString name =
        text(asFileName(c_.session.athlete().firstName) + "-week") + (calendar ? ".ics" : ".pdf");
    const QString path = fileToSave(
        parent_->window(), say(calendar ? "week-view.save-the-calendar" : "week-view.save-the-sheet"), name);
    if (path.isEmpty()) return;
    const DispatchRecipe recipe = previewRecipe(c_.session);
    FileStore& files = c_.session.library().files();
    const Status done = calendar ? exportCalendar(recipe, path.toStdString(), files)
                                 : exportWeekSheet(recipe, recipe.paper, path.toStdString(), files);
    c_.say(done ? say("week-view.saved", {{"path", path.toStdString()}}) : say(done.error().text));
}

} // namespace jg::ui
