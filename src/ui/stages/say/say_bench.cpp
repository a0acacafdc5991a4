// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/say_bench.h"

#include "desk/sending/dispatch.h"
#include "letter/still.h"
#include "review/assess/number_words.h"
#include "review/tell/letter_model.h"
#include "review/tell/stops.h"
#include "ui/forms/verdict_look.h"
#include "ui/kit/theme.h"
#include "ui/stages/say/pen_row.h"
#include "ui/stages/say/prompt_card.h"
#include "ui/stages/say/say_questions.h"
#include "ui/stages/say/unsaid_box.h"

#include <algorithm>

namespace jg::ui {

namespace {

QString eventName(const TakeEvent& e) {
    switch (e.kind) {
    case TakeEventKind::Frame:
        return say("say-bench.event-frame", {{"frame", e.frame}});
    case TakeEventKind::Pointer:
        return say("say-bench.event-points");
    case TakeEventKind::StrokeBegin:
        return say("say-bench.event-draws");
    case TakeEventKind::MarksOff:
        return say("say-bench.marks-off");
    case TakeEventKind::MarksOn:
        return say("say-bench.marks-on");
    case TakeEventKind::GoalOff:
        return say("say-bench.goal-off");
    case TakeEventKind::GoalOn:
        return say("say-bench.goal-on");
    case TakeEventKind::View:
        return say(e.at == e.to ? "say-bench.event-all" : "say-bench.event-closer");
    default:
        return {};
    }
}

} // namespace

SayBench::SayBench(ReviewContext& context, Microphone& microphone, Loudspeaker& loudspeaker)
    : Bench(context)
    , narration_(context, microphone, loudspeaker)
    , microphone_(microphone)
    , list_(new RowList)
    , order_(this, context, *list_, editor())
    , takes_(this, context, narration_, editor()) {
    column_->addWidget(heading(say("say-bench.running-order")));
    summary_ = quiet("", 13);
    column_->addWidget(summary_);
    list_->setObjectName("stops");
    list_->setAccessibleName(say("say-bench.running-order"));
    list_->setEmptyText(say("say-bench.nothing-is-in-the-running-order"));
    connect(list_, &RowList::selected, this, [this] {
        c_.stage.look(std::nullopt);
        showStop();
        rebuildPrompt();
        c_.showHints();
    });
    column_->addWidget(list_, 3);
    prompt_ = new PromptCard;
    column_->addWidget(prompt_);
    unsaid_ = new UnsaidBox;
    connect(unsaid_, &UnsaidBox::add, this, [this](const QString& id) { order_.add(id.toStdString()); });
    connect(unsaid_, &UnsaidBox::choose, this, [this] { order_.addSeveral(); });
    column_->addWidget(unsaid_);
    pens_ = new PenRow;
    connect(pens_, &PenRow::asked, this, [this](const QString& action) { c_.runAction(action); });
    column_->addWidget(pens_);
    mic_ = quiet("", 12);
    column_->addWidget(mic_);
    trouble_ = problemLabel("sound-trouble");
    column_->addWidget(trouble_);
    connect(&narration_, &Narration::heard, this, &SayBench::heard);
    connect(&narration_, &Narration::brokenOff, this, [this](const Message& why) {
        finish();
        c_.say(say(why));
    });
    connect(&narration_, &Narration::listened, this, [this] {
        showStop();
        c_.say({});
    });
    connect(&narration_, &Narration::toolsChanged, this, &SayBench::showTools);
    refresh();
}

PerformEdit SayBench::editor() {
    return [this](const Message& label, std::vector<Change> changes) {
        return perform(label, std::move(changes));
    };
}

bool SayBench::takeBack() {
    if (!recording()) return false;
    narration_.dropLast();
    return true;
}

KeyHints SayBench::hints() const {
    if (recording())
        return {{"Space", say("say-bench.next-stop"), "say-next"},
                {"\u2190 \u2192", say("say-bench.step-while-talking")},
                {"V", say("hint.play"), "play"},
                {"K", say("say-bench.closer"), "say-closer"},
                {"1\u20135", say("say-bench.draw")},
                {"Z", say("say-bench.take-back"), "undo"},
                {"C", say("hint.wipe"), "say-clear"},
                {"M", say("hint.marks"), "say-marks"},
                {"Esc", say("hint.stop"), "say-stop"}};
    KeyHints hints{{"Space", say("hint.say-next"), "say-next"}};
    // Of a stop that is said what becomes of its takes, of another how the order is made: all else is in the
    // list of keys.
    if (takes_.of(current())) {
        hints << KeyHints{{"R", say("hint.again"), "say-again"}, {"P", say("hint.listen"), "say-listen"}};
        if (review().spareTakes.contains(current()->id))
            hints << KeyHint{"U", say("hint.takes"), "say-takes"};
        hints << KeyHint{"S", say("hint.pauses"), "say-shorten"};
    } else {
        hints << KeyHints{{"A", say("hint.add"), "say-add"},
                          {"N", say("hint.stop-here"), "say-here"},
                          {"E", say("hint.recap"), "say-recap"},
                          {"Shift+\u2191 \u2193", say("hint.rearrange"), "say-down"}};
    }
    return hints << KeyHints{{"T", say("hint.captions"), "say-words"},
                             {"F", say("hint.motion"), "say-motion"},
                             {"J", say("hint.beside"), "say-beside"},
                             {"Del", say("say-bench.take-out"), "say-remove"}};
}

QImage SayBench::stillOf(const Stop& stop) {
    const auto key = std::pair(stop.delivery, stop.frame);
    if (stills_.contains(key)) return stills_[key];
    if (stop.delivery == delivery().number && c_.stage.shownFrame() == stop.frame && c_.stage.exact())
        return stills_[key] = toImage(c_.stage.picture()).scaledToWidth(222, Qt::SmoothTransformation);
    QImage blank(222, 126, QImage::Format_RGB32);
    blank.fill(palette::stage);
    return blank;
}

void SayBench::refresh() {
    std::vector<ListRow> rows;
    double said = 0;
    for (const Stop& s : review().stops) {
        ListRow row;
        row.title =
            s.kind == StopKind::Strength ? say("say-bench.good-title", {{"title", s.title}}) : text(s.title);
        if (const MeasureRow* m = c_.session.assessment().measure(s.finding)) {
            Message number = labelOf(m->value);
            if (const auto wants = wordsOf(m->target); s.kind == StopKind::Correction && !wants.empty())
                number = msg("say-bench.number-wants", {{"number", number}, {"target", wants}});
            row.sub = say(joined(ListStyle::Dots, {asIs(lookOf(m->judgement).word.toStdString()), number}));
        } else {
            row.sub = s.kind == StopKind::Recap      ? say("say-bench.recap-and-the-week")
                      : s.kind == StopKind::Own      ? say("say-bench.own-words")
                      : s.kind == StopKind::Strength ? say("verdict.keep")
                                                     : say("say-bench.to-work-on");
        }
        row.still = stillOf(s);
        const auto take = review().takes.find(s.id);
        const bool now = recording() && narration_.recorder().stop() == s.id;
        row.mark = now ? RowMark::Now : take != review().takes.end() ? RowMark::Done : RowMark::Open;
        row.right = now                            ? say("say-bench.saying")
                    : take != review().takes.end() ? clockText(take->second.seconds())
                                                   : say("say-bench.not-said");
        row.rightAccent = now;
        if (take != review().takes.end()) said += take->second.seconds();
        if (const auto spares = review().spareTakes.find(s.id); !now && spares != review().spareTakes.end())
            row.right =
                say("say-bench.of-takes", {{"time", row.right}, {"takes", spares->second.size() + 1}});
        rows.push_back(std::move(row));
    }
    const int keep = list_->current();
    list_->setRows(std::move(rows));
    list_->setCurrent(keep < 0 && !review().stops.empty() ? 0 : keep);
    const Counts& c = c_.session.assessment().counts;
    const SayingLength length = letterChoiceOf(c_.session.library()).saying;
    summary_->setText(c.saidAll == 0 ? say("say-bench.good-things-first-then-at-most")
                                     : say("say-bench.how-much-said", {{"said", clockText(said)},
                                                                       {"least", clockText(length.leastS)},
                                                                       {"most", clockText(length.mostS)},
                                                                       {"said2", c.said},
                                                                       {"saidAll", c.saidAll}}));
    if (!recording()) trouble_->hide();
    mic_->setText(say("say-bench.microphone-microphone", {{"microphone", microphone_.name()}}));
    rebuildPrompt();
    rebuildUnsaid();
    showTools();
}

void SayBench::rebuildPrompt() {
    const Stop* s = current();
    prompt_->setVisible(s != nullptr);
    if (s) prompt_->showPrompt(*s, promptOf(c_.session, *s), asShown(c_.session.readersWords()));
}

void SayBench::rebuildUnsaid() {
    const auto open = unsaid(review(), c_.session.assessment());
    unsaid_->setVisible(!open.empty() && !recording());
    std::vector<std::pair<std::string, QString>> lines;
    for (const Judged& j : open) lines.emplace_back(j.finding.id, order_.unsaidInWords(j));
    unsaid_->show(lines);
}

void SayBench::enter() {
    takes_.offerUnfinished();
    c_.stage.look(std::nullopt); // what was looked at while measuring is not what is told
    if (list_->current() < 0 && !review().stops.empty()) list_->setCurrent(0);
    for (std::size_t i = 0; i < review().stops.size(); ++i)
        if (!review().takes.contains(review().stops[i].id)) {
            list_->setCurrent(static_cast<int>(i));
            break;
        }
    showStop();
}

void SayBench::leave() {
    narration_.stopListening();
    finish();
}

void SayBench::frameChanged() {
    if (recording())
        narration_.frameChanged();
    else if (const Stop* s = current(); s && s->delivery == delivery().number &&
                                        c_.stage.shownFrame() == s->frame && c_.stage.exact() &&
                                        !stills_.contains({s->delivery, s->frame}))
        refresh();
}

void SayBench::showStop() {
    if (const Stop* s = current()) {
        const std::int64_t frame = s->frame;
        c_.session.takeInHand(s->delivery); // `s` may lie elsewhere after it
        c_.playhead.step(frame - c_.playhead.frame());
    }
    c_.showBeside(current());
    c_.stage.update();
}

std::optional<std::string> SayBench::focus() const {
    const Stop* s = current();
    if (!s) return std::nullopt;
    if (!narration_.state().marks) return "no marks";
    return s->finding;
}

std::optional<std::string> SayBench::ghostOfMeasure() const {
    const Stop* s = current();
    const StageState& shown = narration_.state();
    return s && shown.marks && shown.goal ? std::optional(s->finding) : std::nullopt;
}

void SayBench::sayAgain() {
    const Take* take = takes_.of(current());
    const auto heard = narration_.heardAt();
    if (!heard || !take) return start(list_->current());
    start(list_->current(), TakeHead{*take, *heard});
    if (recording())
        c_.say(say("say-bench.again-from", {{"time", clockText(static_cast<double>(*heard) / kSampleRate)}}));
}

void SayBench::start(int row, const std::optional<TakeHead>& head) {
    narration_.stopListening();
    finish();
    const Stop* s = order_.stopAt(row);
    if (!s) {
        c_.say(say("say-bench.there-is-no-stop-to-say"));
        return;
    }
    if (row != list_->current()) c_.stage.look(std::nullopt); // another stop is seen whole
    list_->setCurrent(row);
    showStop();
    if (const Status started = narration_.record(*s, head); !started) {
        c_.say(say(started.error().text));
        return;
    }
    c_.say({});
    refresh();
    heard();
}

void SayBench::finish() {
    if (!recording()) return;
    const StopId id = narration_.recorder().stop();
    auto take = narration_.finish();
    c_.ribbon.setWave({}, 0, {});
    c_.stage.setCaption({}, {}, false);
    if (!take)
        c_.say(say(take.error().text));
    else if (*take)
        takes_.put(msg("say-bench.say-a-stop"), id, **take);
    refresh();
}

void SayBench::listen() {
    if (narration_.listening()) return narration_.stopListening();
    const Take* take = takes_.of(current());
    if (!take) return c_.say(say("say-bench.this-stop-is-not-said-yet"));
    if (const Status heard = narration_.listen(*current(), *take); !heard)
        return c_.say(say(heard.error().text));
    c_.say(say("say-bench.listening"));
}

/// The first row from `row` on whose stop is not said yet; -1 when there is none.
int SayBench::nextUnsaid(int row) const {
    for (; order_.stopAt(row); ++row)
        if (!review().takes.contains(order_.stopAt(row)->id)) return row;
    return -1;
}

void SayBench::next() {
    if (review().stops.empty()) return start(list_->current());
    const int row = nextUnsaid(recording() ? list_->current() + 1 : 0);
    if (row >= 0) return start(row);
    if (!recording()) return c_.say(say("say-bench.every-stop-is-said-r-says"));
    finish();
    c_.say(say("say-bench.that-was-the-last-stop"));
}

void SayBench::heard() {
    if (!recording()) return;
    const Recorder& recorder = narration_.recorder();
    const Message trouble = inWords(recorder.trouble());
    trouble_->setText(say(trouble));
    trouble_->setVisible(!trouble.empty());
    std::vector<std::pair<double, QString>> events;
    double last = -10;
    for (const TakeEvent& e : recorder.soFar().events) {
        const double at = static_cast<double>(e.sample) / kSampleRate;
        const QString name = eventName(e);
        if (name.isEmpty() || at - last < 1.5) continue; // names need room
        events.emplace_back(at, name);
        last = at;
    }
    c_.ribbon.setWave(recorder.levels(), recorder.seconds(), std::move(events));
    c_.stage.setCaption(say("say-bench.saying-it-seconds", {{"seconds", clockText(recorder.seconds())}}),
                        say("say-bench.stop-current-of-stops",
                            {{"current", list_->current() + 1}, {"stops", review().stops.size()}}),
                        true);
}

void SayBench::chooseLength() {
    askLength(this, letterChoiceOf(c_.session.library()).saying, kMostSayingMinutes,
              [this](const SayingLength& length) {
                  LetterChoice choice = letterChoiceOf(c_.session.library());
                  choice.saying = length;
                  const Status kept = keepLetterChoice(c_.session.library(), choice);
                  refresh();
                  return kept;
              });
}

Handlers SayBench::handlers() {
    // What would disturb a recording waits for its end.
    const auto quietly = [this](std::function<void()> then) {
        return [this, then = std::move(then)] {
            if (recording()) return c_.say(say("say-bench.stop-the-recording-first-esc"));
            then();
        };
    };
    return {
        {"say-next", [this] { next(); }},
        {"say-again", [this] { sayAgain(); }},
        {"say-stop", [this] { narration_.stopListening(), finish(); }},
        {"say-marks", [this] { narration_.toggleMarks(); }},
        {"say-goal", [this] { narration_.toggleGoal(); }},
        {"say-clear", [this] { narration_.clear(); }},
        {"say-closer", [this] { narration_.closer(); }},
        {"say-fades", [this] { narration_.toggleFades(); }},
        {"say-pen-1", [this] { narration_.choosePen(Pen::Free); }},
        {"say-pen-2", [this] { narration_.choosePen(Pen::Line); }},
        {"say-pen-3", [this] { narration_.choosePen(Pen::Arrow); }},
        {"say-pen-4", [this] { narration_.choosePen(Pen::Ring); }},
        {"say-pen-5", [this] { narration_.choosePen(Pen::Box); }},
        {"say-takes", quietly([this] { takes_.choose(current()); })},
        {"say-shorten", quietly([this] { takes_.shorten(current()); })},
        {"say-listen", quietly([this] { listen(); })},
        {"say-add", quietly([this] { order_.addFirstUnsaid(); })},
        {"say-all", quietly([this] { order_.addSeveral(); })},
        {"say-here", quietly([this] { order_.addHere(); })},
        {"say-words", quietly([this] { order_.writeWords(); })},
        {"say-motion", quietly([this] { order_.toggleMotion(); })},
        {"say-length", quietly([this] { chooseLength(); })},
        {"say-beside", quietly([this] { order_.chooseBeside([this] { showStop(); }); })},
        {"say-recap", quietly([this] { order_.addRecap(); })},
        {"say-up", quietly([this] { order_.move(-1); })},
        {"say-down", quietly([this] { order_.move(1); })},
        {"say-remove", quietly([this] { order_.remove(); })},
        {"row-up",
         [this] {
             if (!recording()) list_->move(-1);
         }},
        {"row-down",
         [this] {
             if (!recording()) list_->move(1);
         }},
    };
}

void SayBench::showTools() {
    pens_->setVisible(recording());
    pens_->show(narration_.pen(), narration_.fades());
}

} // namespace jg::ui
