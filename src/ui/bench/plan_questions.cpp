// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/plan_questions.h"

#include "kinematics/answers.h"
#include "review/record/people_check.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>

#include <algorithm>

namespace jg::ui {

namespace {

void setChoice(std::vector<CauseChoice>& choices, CauseChoice choice, bool listed) {
    std::erase_if(choices, [&](const CauseChoice& c) { return c.from == choice.from && c.to == choice.to; });
    // An open link that the playbook has anyway needs no word.
    if (choice.stance != Stance::Open || !listed) choices.push_back(std::move(choice));
}

std::vector<Hypothesis> causesOfOne(const Playbook& playbook, const std::string& finding,
                                    const Known& known) {
    std::vector<Hypothesis> all;
    for (CompetingCauses& c : possibleCauses(playbook, {finding}, known)) all = std::move(c.causes);
    return all;
}

unsigned daysIn(const std::vector<QCheckBox*>& boxes) {
    unsigned days = 0;
    for (std::size_t i = 0; i < boxes.size(); ++i) days |= static_cast<unsigned>(boxes[i]->isChecked()) << i;
    return days;
}

std::vector<Tickable> dayBoxes(const char* name, unsigned on) {
    std::vector<Tickable> days;
    for (int d = 0; d < 7; ++d)
        days.push_back({name + std::to_string(d), say(weekdayShort(d)), (on >> d & 1U) != 0});
    return days;
}

} // namespace

void askCauses(QWidget* parent, const Playbook& playbook, const std::string& finding, const QString& title,
               const std::vector<Finding>& findings, const Known& known,
               const std::vector<CauseChoice>& choices,
               const std::function<void(const std::vector<CauseChoice>&)>& then) {
    auto* d = new FormDialog(parent, "ask-causes", title, say("plan-questions.causes-hint"));
    const QStringList stances = {say("plan-questions.open"), say("plan-questions.agreed"),
                                 say("plan-questions.refused")};
    std::vector<std::pair<std::string, QComboBox*>> boxes;
    for (const Hypothesis& h : causesOfOne(playbook, finding, known)) {
        const CauseChoice* choice = choiceOf(choices, h.cause, finding);
        auto* box = d->choice(("stance-" + h.cause).c_str(), text(playbook.nameOfFinding(h.cause)), stances,
                              choice ? static_cast<int>(choice->stance) : 0);
        box->setAccessibleDescription(say(h.standing));
        d->remark(say(joined(
            ListStyle::Sentences,
            {asIs(h.why), msg("plan-questions.stands", {{"who", h.says}, {"state", h.standing}}), h.tells})));
        boxes.emplace_back(h.cause, box);
    }
    std::vector<Message> screens;
    for (const Screen* s : screensFor(playbook, finding)) screens.push_back(asIs(s->name));
    d->remark(say("plan-questions.screens-tell", {{"screens", joined(ListStyle::Commas, screens)}}));
    QStringList others = {say("plan-questions.no-other-cause")};
    std::vector<std::string> ids;
    for (const Finding& f : findings)
        if (f.id != finding) {
            ids.push_back(f.id);
            others << text(playbook.nameOfFinding(f.id));
        }
    auto* other = d->choice("cause-own", say("plan-questions.own-cause"), others, 0);
    auto* why = d->line("cause-own-why", say("plan-questions.own-why"), {});
    d->openWith([=]() -> std::optional<QString> {
        std::vector<CauseChoice> now = choices;
        for (const auto& [cause, box] : boxes)
            setChoice(now, {cause, finding, static_cast<Stance>(box->currentIndex()), {}}, true);
        if (other->currentIndex() > 0) {
            if (why->text().trimmed().isEmpty()) return say("plan-questions.own-needs-why");
            setChoice(now,
                      {ids[static_cast<std::size_t>(other->currentIndex() - 1)], finding, Stance::Agreed,
                       why->text().trimmed().toStdString()},
                      false);
        }
        then(now);
        return std::nullopt;
    });
}

void askWhyNot(QWidget* parent, const Playbook& playbook, const WhyNot& known, const QString& title,
               const std::function<void(const WhyNot&)>& then) {
    auto* d = new FormDialog(parent, "ask-why-not", title, say("plan-questions.why-not-hint"));
    QStringList needs = {say("plan-questions.by-the-screens")};
    for (const Need n : kNeeds) needs << say(nameOf(n));
    auto* need = d->choice("why-not-need", say("plan-questions.my-word"), needs,
                           known.need ? static_cast<int>(*known.need) + 1 : 0);
    const QStringList results = {say("plan-questions.not-done"), say("plan-questions.passed"),
                                 say("plan-questions.failed")};
    std::vector<std::pair<std::string, QComboBox*>> boxes;
    for (const Screen* s : screensFor(playbook, known.finding)) {
        const auto done = known.screens.find(s->id);
        auto* box = d->choice(("screen-" + s->id).c_str(), text(s->name), results,
                              done == known.screens.end() ? 0
                              : done->second              ? 1
                                                          : 2);
        d->remark(say("plan-questions.screen", {{"how", s->how}, {"pass", s->pass}, {"fail", s->fail}}));
        boxes.emplace_back(s->id, box);
    }
    d->openWith([=]() -> std::optional<QString> {
        WhyNot now{known.finding, std::nullopt, {}};
        if (need->currentIndex() > 0) now.need = static_cast<Need>(need->currentIndex() - 1);
        for (const auto& [id, box] : boxes)
            if (box->currentIndex() > 0) now.screens[id] = box->currentIndex() == 1;
        then(now);
        return std::nullopt;
    });
}

void chooseDrills(QWidget* parent, const std::vector<DrillOffer>& offers,
                  const std::vector<std::string>& chosen, const QString& title,
                  const std::function<void()>& write,
                  const std::function<void(const std::vector<std::string>&)>& then) {
    auto* d = new FormDialog(parent, "choose-drills", title, say("plan-questions.drills-hint"));
    std::vector<std::pair<std::string, QCheckBox*>> boxes;
    for (const DrillOffer& o : offers) {
        auto* box =
            d->tick(("drill-" + o.drill->id).c_str(), text(o.drill->name), isAmong(chosen, o.drill->id));
        box->setEnabled(o.blocked.empty() || box->isChecked());
        std::vector<Message> words;
        if (!o.blocked.empty()) words.push_back(o.blocked);
        if (!o.made) words.push_back(msg("plan-questions.fallback"));
        if (!o.fitsNeed) words.push_back(msg("plan-questions.other-need"));
        std::vector<Message> needs;
        for (const std::string& need : o.drill->needs)
            if (const auto n = needFromId(need)) needs.push_back(remedyOf(*n));
        words.push_back(msg("plan-questions.drill-facts", {{"needs", joined(ListStyle::Commas, needs)},
                                                           {"equipment", o.drill->equipment},
                                                           {"age", o.drill->ageFrom}}));
        if (!o.drill->notFor.empty())
            words.push_back(msg("plan-questions.not-for", {{"whom", o.drill->notFor}}));
        words.push_back(asIs(o.drill->how));
        if (o.drill->minutes > 0)
            words.push_back(msg("plan-questions.minutes", {{"minutes", o.drill->minutes}}));
        for (const DrillStage& s : o.drill->stages)
            words.push_back(msg("plan-questions.stage", {{"what", s.what}, {"until", s.until}}));
        d->remark(say(joined(ListStyle::Sentences, words)));
        boxes.emplace_back(o.drill->id, box);
    }
    d->door("write-drill", say("plan-questions.write-a-drill"), write);
    d->openWith([=]() -> std::optional<QString> {
        std::vector<std::string> now;
        for (const auto& [id, box] : boxes)
            if (box->isChecked()) now.push_back(id);
        then(now);
        return std::nullopt;
    });
}

void askCircumstances(QWidget* parent, const Playbook& playbook, const Circumstances& at,
                      const std::function<void(const Circumstances&)>& then) {
    auto* d = new FormDialog(parent, "ask-week", say("plan-questions.days-and-gear"),
                             say("plan-questions.week-hint"));
    constexpr int kDaysARow = 4; // at the largest text too
    const auto free =
        d->ticks("free-days", say("plan-questions.free-days"), dayBoxes("free-", at.days), kDaysARow);
    const auto games =
        d->ticks("game-days", say("plan-questions.game-days"), dayBoxes("game-", at.gameDays), kDaysARow);
    QStringList seasons;
    for (const Season s : {Season::Unknown, Season::Off, Season::Before, Season::During})
        seasons << say(nameOf(s));
    auto* season = d->choice("season", say("plan-questions.season"), seasons, static_cast<int>(at.season));
    auto* throwing = d->tick("throwing", say("plan-questions.throwing"), at.throwing);
    std::vector<Tickable> things;
    const auto all = thingsOf(playbook);
    for (std::size_t i = 0; i < all.size(); ++i)
        things.push_back({"thing-" + std::to_string(i), text(all[i]), !isAmong(at.without, all[i])});
    const auto there = d->ticks("things", say("plan-questions.what-is-there"), things);
    d->openWith([=]() -> std::optional<QString> {
        Circumstances now{daysIn(free),
                          daysIn(games),
                          static_cast<Season>(season->currentIndex()),
                          throwing->isChecked(),
                          {}};
        if (now.days == 0) return say("plan-questions.no-free-day");
        for (std::size_t i = 0; i < there.size(); ++i)
            if (!there[i]->isChecked()) now.without.push_back(all[i]);
        then(now);
        return std::nullopt;
    });
}

void chooseKeeps(QWidget* parent, const Playbook& playbook, const std::vector<std::string>& strengths,
                 const std::vector<std::string>& chosen, std::size_t most,
                 const std::function<void(const std::vector<std::string>&)>& then) {
    auto* d =
        new FormDialog(parent, "choose-keeps", say("plan-questions.keep"), say("plan-questions.keep-hint"));
    std::vector<Tickable> rows;
    for (const std::string& id : strengths)
        rows.push_back({id, text(playbook.nameOfFinding(id)), isAmong(chosen, id)});
    const auto ticked = d->list("keeps", say("plan-questions.strengths"), rows);
    d->openWith([=]() -> std::optional<QString> {
        const auto now = ticked();
        if (now.size() > most) return say("plan-questions.so-many-strengths", {{"most", most}});
        then(now);
        return std::nullopt;
    });
}

void askPromise(QWidget* parent, const Promise& begun, Date today,
                const std::function<void(const Promise&)>& then) {
    auto* d = new FormDialog(parent, "ask-promise", say("plan-questions.promise"),
                             say("plan-questions.promise-hint"));
    auto* what = d->line("promise-what", say("plan-questions.promised-what"), {});
    auto* who = d->choice("promise-who", say("plan-questions.promised-by"),
                          {say("plan-questions.by-us"), say("plan-questions.by-the-athlete")}, 0);
    auto* when = d->line("promise-when", say("plan-questions.promised-for"),
                         text(isoDate(begun.due.value_or(addDays(today, 7)))));
    d->openWith([=]() -> std::optional<QString> {
        Promise made = begun;
        if (what->text().trimmed().isEmpty()) return say("plan-questions.promise-needs-words");
        const auto due = dateFromWords(when->text().trimmed().toStdString());
        if (!due) return say("plan-questions.promise-needs-day");
        if (*due < today) return say("plan-questions.promise-in-the-past");
        made.text = asIs(what->text().trimmed().toStdString());
        made.owes = who->currentIndex() == 0 ? Owes::House : Owes::Athlete;
        made.due = *due;
        made.made = today;
        then(made);
        return std::nullopt;
    });
}

} // namespace jg::ui
