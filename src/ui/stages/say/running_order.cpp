// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/running_order.h"

#include "desk/sending/dispatch.h"
#include "desk/session/beside.h"
#include "letter/qt_text.h"
#include "review/tell/letter_model.h"
#include "review/tell/prompt.h"
#include "review/tell/stops.h"
#include "ui/stages/say/say_questions.h"

#include <utility>

namespace jg::ui {

const Stop* RunningOrder::stopAt(int row) const {
    return row < 0 || row >= static_cast<int>(review().stops.size())
               ? nullptr
               : &review().stops[static_cast<std::size_t>(row)];
}

QString RunningOrder::unsaidInWords(const Judged& j) const {
    const std::string& id = j.finding.id;
    return say(j.strength     ? "say-bench.unsaid-good"
               : j.cannotTell ? "say-bench.unsaid-cannot-tell"
                              : "say-bench.unsaid",
               {{"finding", j.strength ? playbook().nameOfFinding(id)
                                       : goalOf(playbook(), c_.session.assessment(), id)}});
}

void RunningOrder::add(const std::string& finding) {
    if (auto stop = stopFor(review(), playbook(), c_.session.assessment(), finding,
                            c_.session.ids().next<StopTag>("stop")))
        perform_(msg("say-bench.add-a-stop"), {SetStops{withStop(review().stops, std::move(*stop))}});
}

void RunningOrder::addFirstUnsaid() {
    const auto open = unsaid(review(), c_.session.assessment());
    if (open.empty())
        c_.say(say("say-bench.every-finding-is-in-the-running"));
    else if (open.front().cannotTell)
        c_.say(say("say-bench.only-unsure-left")); // it is said on purpose only
    else
        add(open.front().finding.id);
}

void RunningOrder::addSeveral() {
    const auto open = unsaid(review(), c_.session.assessment());
    if (open.empty()) return c_.say(say("say-bench.every-finding-is-in-the-running"));
    std::vector<Tickable> rows;
    for (const Judged& j : open) rows.push_back({j.finding.id, unsaidInWords(j), false});
    askFindings(parent_, rows, [this](const std::vector<std::string>& ticked) {
        auto stops = review().stops;
        for (const std::string& id : ticked)
            if (auto stop = stopFor(review(), playbook(), c_.session.assessment(), id,
                                    c_.session.ids().next<StopTag>("stop")))
                stops = withStop(std::move(stops), std::move(*stop));
        if (stops.size() != review().stops.size())
            perform_(msg("say-bench.add-a-stop"), {SetStops{std::move(stops)}});
    });
}

void RunningOrder::addHere() {
    const std::int64_t frame = c_.playhead.frame();
    const int number = delivery().number;
    askOwnStop(parent_, [=, this](const QString& title) {
        Stop stop{
            c_.session.ids().next<StopTag>("stop"), StopKind::Own, "", title.toStdString(), frame, number};
        const int row = list_.current();
        auto stops = withOwnStop(review().stops, std::move(stop),
                                 row < 0 ? std::nullopt : std::optional(static_cast<std::size_t>(row)));
        perform_(msg("say-bench.add-a-stop"), {SetStops{std::move(stops)}});
        list_.setCurrent(row < 0 ? 0 : row + 1);
    });
}

bool RunningOrder::change(const Message& label, const std::function<void(Stop&)>& how) {
    const int row = list_.current();
    if (!stopAt(row)) return c_.say(say("say-bench.there-is-no-stop-to-say")), false;
    auto stops = review().stops;
    how(stops[static_cast<std::size_t>(row)]);
    return perform_(label, {SetStops{std::move(stops)}});
}

void RunningOrder::writeWords() {
    const Stop* s = current();
    if (!s) return c_.say(say("say-bench.there-is-no-stop-to-say"));
    const QString prompted =
        text(c_.session.readersWords()(joined(ListStyle::Sentences, promptOf(c_.session, *s).sentences())));
    askCaptions(parent_, text(s->title), text(s->words), prompted, [this](const QString& words) {
        change(msg("say-bench.write-its-words"), [&](Stop& stop) { stop.words = words.toStdString(); });
    });
}

void RunningOrder::toggleMotion() {
    if (!change(msg("say-bench.change-its-motion"), [&](Stop& stop) { stop.still = !stop.still; })) return;
    if (const Stop* s = current())
        c_.say(say(s->still ? "say-bench.begins-still" : "say-bench.begins-in-motion"));
}

void RunningOrder::chooseBeside(const std::function<void()>& then) {
    const Stop* s = current();
    if (!s) return c_.say(say("say-bench.there-is-no-stop-to-say"));
    askBeside(parent_, c_.session, *s, c_.say,
              [this, then](const std::optional<JuxtaKey>& other) { putBeside(other, then); });
}

void RunningOrder::putBeside(const std::optional<JuxtaKey>& other, const std::function<void()>& then) {
    const Stop* s = current();
    if (!s) return;
    std::optional<Beside> beside;
    if (other) {
        Stop tried = *s;
        tried.beside = Beside{other->review, other->delivery};
        const auto both = c_.session.beside(tried);
        if (!both) return c_.say(say(both.error().text));
        beside = besideAt((*both)->now.marks, s->frame, (*both)->then);
        if (!beside) return c_.say(say("say-bench.no-shared-position"));
    }
    if (!change(msg("say-bench.change-beside"), [&](Stop& stop) { stop.beside = beside; })) return;
    then();
    if (!beside) return;
    for (const MomentInfo& m : keyPositions())
        if (delivery().frameOf(m.moment) == beside->with)
            return c_.say(say("say-bench.stands-beside", {{"position", m.name()}}));
}

void RunningOrder::addRecap() {
    for (const Stop& s : review().stops)
        if (s.kind == StopKind::Recap) return c_.say(say("say-bench.the-recap-is-already-there"));
    auto stops = review().stops;
    stops.push_back({c_.session.ids().next<StopTag>("stop"), StopKind::Recap, "",
                     english()(msg("say-bench.once-more-in-short")),
                     delivery().frameOf(Moment::Plant).value_or(c_.playhead.frame()), delivery().number});
    perform_(msg("say-bench.add-the-recap"), {SetStops{stops}});
}

void RunningOrder::move(int by) {
    const int from = list_.current(), to = from + by;
    if (!stopAt(from) || !stopAt(to)) return;
    auto stops = review().stops;
    std::swap(stops[static_cast<std::size_t>(from)], stops[static_cast<std::size_t>(to)]);
    list_.setCurrent(to);
    perform_(msg("say-bench.rearrange"), {SetStops{stops}});
}

void RunningOrder::remove() {
    const Stop* s = current();
    if (!s) return;
    auto stops = review().stops;
    const StopId id = s->id;
    stops.erase(stops.begin() + list_.current());
    perform_(msg("say-bench.take-a-stop-out"),
             {SetStops{stops}, SetTake{id, std::nullopt}, SetSpareTakes{id, std::nullopt}});
}

} // namespace jg::ui
