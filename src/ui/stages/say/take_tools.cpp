// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/take_tools.h"

#include "base/time_zone.h"
#include "desk/session/unfinished_takes.h"
#include "letter/qt_text.h"
#include "review/tell/take_cuts.h"
#include "ui/kit/choice_dialog.h"
#include "ui/stages/say/takes_dialog.h"
#include "voice/audio_file.h"
#include "voice/speech.h"

#include <algorithm>

namespace jg::ui {

const Take* TakeTools::of(const Stop* stop) const {
    const auto take = stop ? review().takes.find(stop->id) : review().takes.end();
    return take == review().takes.end() ? nullptr : &take->second;
}

bool TakeTools::put(const Message& label, const StopId& stop, const Take& take) {
    std::vector<Take> spares;
    const auto add = [&](const Take& t) {
        if (t.file != take.file) spares.push_back(t);
    };
    if (const auto before = review().takes.find(stop); before != review().takes.end()) add(before->second);
    if (const auto more = review().spareTakes.find(stop); more != review().spareTakes.end())
        std::for_each(more->second.begin(), more->second.end(), add);
    return perform_(label,
                    {SetTake{stop, take},
                     SetSpareTakes{stop, spares.empty() ? std::nullopt : std::optional(std::move(spares))}});
}

void TakeTools::choose(const Stop* stop) {
    const Take* take = of(stop);
    if (!take) return c_.say(say("say-bench.this-stop-is-not-said-yet"));
    const StopId id = stop->id;
    const auto spares = review().spareTakes.find(id);
    if (spares == review().spareTakes.end()) return c_.say(say("say-bench.only-one-take"));
    std::vector<Take> all{*take};
    all.insert(all.end(), spares->second.begin(), spares->second.end());
    auto* dialog = new TakesDialog(*stop, all, c_.session.library(), narration_, parent_);
    QObject::connect(dialog, &TakesDialog::taken, parent_, [this, id, all](std::size_t n) {
        if (n > 0) put(msg("say-bench.choose-a-take"), id, all[n]);
    });
    QObject::connect(dialog, &TakesDialog::othersThrownAway, parent_, [this, id] {
        perform_(msg("say-bench.throw-takes-away"), {SetSpareTakes{id, std::nullopt}});
    });
    dialog->open();
}

void TakeTools::shorten(const Stop* stop) {
    const Take* take = of(stop);
    if (!take) return c_.say(say("say-bench.this-stop-is-not-said-yet"));
    const auto sound = readSound(c_.session.library().takePath(take->file));
    if (!sound) return c_.say(say(sound.error().text));
    const auto spoken = speechIn(*sound);
    const auto cuts = [&](Shortening how) { return cutsOf(*take, spoken, how); };
    const auto ends = cuts(Shortening::Ends), pauses = cuts(Shortening::Pauses);
    const double before = take->seconds();
    Take other = *take;
    other.cuts = take->cuts == pauses ? std::vector<SampleSpan>{} : take->cuts == ends ? pauses : ends;
    if (other.cuts == take->cuts) return c_.say(say("say-bench.nothing-to-shorten"));
    const double after = other.seconds();
    const char* told = other.cuts.empty()     ? "say-bench.as-it-was-said"
                       : other.cuts == pauses ? "say-bench.pauses-shortened"
                                              : "say-bench.ends-left-out";
    if (!perform_(msg("say-bench.leave-silence-out"), {SetTake{stop->id, std::move(other)}})) return;
    c_.say(say(told, {{"before", clockText(before)}, {"after", clockText(after)}}));
}

void TakeTools::offerUnfinished() {
    const auto found = unfinishedTakes(c_.session.library(), review(), c_.session.clock().nowUnix());
    if (found.empty() || c_.session.library().readOnly() || review().sent) return;
    const UnfinishedTake take = found.front();
    const Stop* stop = review().stop(take.stop);
    askChoice(parent_,
              {"unfinished-take",
               text(stop->title),
               say("say-bench.unfinished", {{"length", clockText(take.seconds()).toStdString()},
                                            {"time", clockWords(civilAt(take.endedUnix))}}),
               {say("say-bench.keep-the-take"), say("say-bench.throw-it-away")},
               ""},
              [this, take](const ChoiceAnswer& answer) {
                  const Stop* now = review().stop(take.stop);
                  if (!now) return;
                  if (*answer.option == 1) {
                      if (const Status gone = dropUnfinished(c_.session.library(), take); !gone)
                          c_.say(say(gone.error().text));
                      return;
                  }
                  const auto kept = keepUnfinished(c_.session.library(), take, *now);
                  if (!kept) return c_.say(say(kept.error().text));
                  put(msg("say-bench.say-a-stop"), take.stop, *kept);
              });
}

} // namespace jg::ui
