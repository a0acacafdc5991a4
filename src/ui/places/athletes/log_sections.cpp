// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/log_sections.h"

#include "ui/kit/theme.h"

#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

namespace {

const FindingSince* followedIn(const AthleteLog& log, const std::string& finding) {
    if (!log.since) return nullptr;
    const auto& all = log.since->followed;
    const auto it =
        std::find_if(all.begin(), all.end(), [&](const FindingSince& f) { return f.finding == finding; });
    return it == all.end() ? nullptr : &*it;
}

/// "Leg spread: better (83 +- 5 -> 101 +- 4)".
QString inShort(const AthleteLog& log, const Playbook& playbook, const std::string& finding) {
    const auto goal = log.before.goals.find(finding); // a fault is told by what to do instead
    const Message name =
        asIs(goal == log.before.goals.end() ? playbook.nameOfFinding(finding) : goal->second);
    const FindingSince* f = followedIn(log, finding);
    if (!f) return say(name);
    if (f->why.empty()) return say("athletes-place.became", {{"what", name}, {"became", nameOf(f->became)}});
    return say("athletes-place.became-why", {{"what", name}, {"became", nameOf(f->became)}, {"why", f->why}});
}

} // namespace

QWidget* beforeTheLesson(const AthleteLog& log, const Playbook& playbook, Date today) {
    const BeforeLesson& b = log.before;
    if (b.lastTime.empty() && b.toFilm.empty() && b.owed.empty()) return nullptr;
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* column = new QVBoxLayout(card);
    column->setContentsMargins(16, 12, 16, 12);
    column->setSpacing(5);
    column->addWidget(heading(say("athletes-place.before-the-lesson"), 18));
    if (b.letter) column->addWidget(quiet(say("athletes-place.the-letter-of", {{"date", *b.letter}}), 12.5));
    for (std::size_t i = 0; i < b.lastTime.size(); ++i)
        column->addWidget(
            plain(QString::number(i + 1) + ".  " + inShort(log, playbook, b.lastTime[i]), 13.5, true));
    for (const std::string& id : b.kept) {
        const FindingSince* f = followedIn(log, id);
        auto* line = plain(say("athletes-place.keep", {{"what", inShort(log, playbook, id)}}), 13);
        if (f && f->became == Became::Worse) inClay(line);
        column->addWidget(line);
    }
    if (!b.toFilm.empty()) column->addWidget(plain(text(b.toFilm), 13));
    std::vector<Message> owed;
    for (const Promise& p : b.owed) {
        const Message when = p.due ? (*p.due < today ? msg("athletes-place.was-due", {{"date", *p.due}})
                                                     : msg("athletes-place.due", {{"date", *p.due}}))
                                   : msg("athletes-place.no-day");
        owed.push_back(msg(p.owes == Owes::House ? "athletes-place.we-owe" : "athletes-place.they-owe",
                           {{"what", p.text}, {"when", when}}));
    }
    for (const Message& line : owed) column->addWidget(plain(say(line), 13));
    return card;
}

QWidget* sinceThen(const AthleteLog& log, const Playbook& playbook) {
    // Against the last letter the card above has told it.
    if (!log.since || log.since->followed.empty() || log.since->name.empty()) return nullptr;
    auto* box = new QWidget;
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    const SinceThen& s = *log.since;
    column->addWidget(heading(say("athletes-place.since-baseline",
                                  {{"name", s.name}, {"date", WrittenDate{s.when, DateStyle::Year}}}),
                              18));
    column->addWidget(rule());
    for (const FindingSince& f : s.followed) {
        const bool worse = f.became == Became::Worse;
        auto* line = plain(inShort(log, playbook, f.finding), 13, worse);
        if (worse) inClay(line);
        column->addWidget(line);
    }
    return box;
}

} // namespace jg::ui
