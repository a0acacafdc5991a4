#include "ui/review/say_bench.h"

#include "desk/beside.h"
#include "desk/dispatch.h"
#include "desk/unfinished_takes.h"
#include "letter/still.h"
#include "review/letter_model.h"
#include "review/replay.h"
#include "review/stops.h"
#include "ui/review/choice_dialog.h"
#include "ui/review/prompt_card.h"
#include "ui/review/say_questions.h"
#include "ui/review/unsaid_box.h"
#include "ui/theme.h"
#include "voice/audio_file.h"

#include <QDateTime>
#include <QPainter>

#include <cmath>

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
    default:
        return {};
    }
}

} // namespace

SayBench::SayBench(ReviewContext& context, Microphone& microphone, Loudspeaker& loudspeaker)
    : Bench(context)
    , recorder_(context.session.library(), microphone)
    , microphone_(microphone)
    , loudspeaker_(loudspeaker) {
    listening_.setInterval(20);
    connect(&listening_, &QTimer::timeout, this, &SayBench::followSound);
    column_->addWidget(heading(say("say-bench.running-order")));
    summary_ = quiet("", 13);
    column_->addWidget(summary_);
    list_ = new RowList;
    list_->setObjectName("stops");
    list_->setAccessibleName(say("say-bench.running-order"));
    list_->setEmptyText(say("say-bench.nothing-is-in-the-running-order"));
    connect(list_, &RowList::selected, this, [this] {
        showStop();
        rebuildPrompt();
    });
    column_->addWidget(list_, 3);
    prompt_ = new PromptCard;
    column_->addWidget(prompt_);
    unsaid_ = new UnsaidBox;
    connect(unsaid_, &UnsaidBox::add, this, [this](const QString& id) { add(id.toStdString()); });
    connect(unsaid_, &UnsaidBox::choose, this, &SayBench::addSeveral);
    column_->addWidget(unsaid_);
    mic_ = quiet("", 12);
    column_->addWidget(mic_);
    trouble_ = problemLabel("sound-trouble");
    column_->addWidget(trouble_);
    connect(&recorder_, &Recorder::heard, this, &SayBench::heard);
    connect(&recorder_, &Recorder::brokenOff, this, [this](const Message& why) {
        finish();
        c_.say(say(why));
    });
    refresh();
}

KeyHints SayBench::hints() const {
    if (recording())
        return {{"Space", say("say-bench.next-stop"), "say-next"},
                {"\u2190 \u2192", say("say-bench.step-while-talking")},
                {say("hint.mouse"), say("say-bench.point-and-draw")},
                {"M", say("hint.marks"), "say-marks"},
                {"C", say("hint.wipe"), "say-clear"},
                {"Esc", say("hint.stop"), "say-stop"}};
    return {{"Space", say("say-bench.say-the-next-stop"), "say-next"},
            {"R", say("say-bench.say-this-one-again"), "say-again"},
            {"P", say("hint.listen"), "say-listen"},
            {"A", say("say-bench.add-a-finding"), "say-add"},
            {"N", say("say-bench.stop-here"), "say-here"},
            {"T", say("say-bench.its-words"), "say-words"},
            {"F", say("say-bench.its-motion"), "say-motion"},
            {"J", say("say-bench.beside"), "say-beside"},
            {"E", say("hint.recap"), "say-recap"},
            {"Shift+\u2191 \u2193", say("hint.rearrange"), "say-down"},
            {"Del", say("say-bench.take-out"), "say-remove"}};
}

const Stop* SayBench::stopAt(int row) const {
    return row < 0 || row >= static_cast<int>(review().stops.size())
               ? nullptr
               : &review().stops[static_cast<std::size_t>(row)];
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
        const bool now = recording() && recorder_.stop() == s.id;
        row.mark = now ? RowMark::Now : take != review().takes.end() ? RowMark::Done : RowMark::Open;
        row.right = now                            ? say("say-bench.saying")
                    : take != review().takes.end() ? clockText(take->second.seconds())
                                                   : say("say-bench.not-said");
        row.rightAccent = now;
        if (take != review().takes.end()) said += take->second.seconds();
        rows.push_back(std::move(row));
    }
    const int keep = list_->current();
    list_->setRows(std::move(rows));
    list_->setCurrent(keep < 0 && !review().stops.empty() ? 0 : keep);
    const Counts& c = c_.session.assessment().counts;
    const SayingLength length = letterChoiceOf(c_.session.library()).saying;
    summary_->setText(c.saidAll == 0
                          ? say("say-bench.good-things-first-then-at-most")
                          : say("say-bench.said-said-said2-of-said-all", {{"said", clockText(said)},
                                                                          {"least", clockText(length.leastS)},
                                                                          {"most", clockText(length.mostS)},
                                                                          {"said2", c.said},
                                                                          {"saidAll", c.saidAll}}));
    if (!recording()) trouble_->hide();
    mic_->setText(say("say-bench.microphone-microphone", {{"microphone", microphone_.name()}}));
    rebuildPrompt();
    rebuildUnsaid();
}

void SayBench::rebuildPrompt() {
    const Stop* s = current();
    prompt_->setVisible(s != nullptr);
    if (s) prompt_->showPrompt(*s, promptOf(c_.session, *s), c_.session.readersWords());
}

void SayBench::rebuildUnsaid() {
    const auto open = unsaid(review(), c_.session.assessment());
    unsaid_->setVisible(!open.empty() && !recording());
    std::vector<std::pair<std::string, QString>> lines;
    for (const Judged& j : open) lines.emplace_back(j.finding.id, unsaidInWords(j));
    unsaid_->show(lines);
}

QString SayBench::unsaidInWords(const Judged& j) const {
    const std::string& id = j.finding.id;
    return say(j.strength     ? "say-bench.unsaid-good"
               : j.cannotTell ? "say-bench.unsaid-cannot-tell"
                              : "say-bench.unsaid",
               {{"finding", j.strength ? playbook().nameOfFinding(id)
                                       : goalOf(playbook(), c_.session.assessment(), id)}});
}

/// What a killed program left of a take is offered once it can belong to nobody else.
void SayBench::offerUnfinished() {
    const auto found = unfinishedTakes(c_.session.library(), review(), c_.session.clock().nowUnix());
    if (found.empty() || c_.session.library().readOnly() || review().sent) return;
    const UnfinishedTake take = found.front();
    const Stop* stop = review().stop(take.stop);
    const QDateTime at = QDateTime::fromSecsSinceEpoch(take.endedUnix);
    askChoice(this,
              {"unfinished-take",
               text(stop->title),
               say("say-bench.unfinished", {{"length", clockText(take.seconds()).toStdString()},
                                            {"time", at.toString("HH:mm").toStdString()}}),
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
                  perform(msg("say-bench.say-a-stop"), {SetTake{take.stop, *kept}});
              });
}

void SayBench::enter() {
    offerUnfinished();
    if (list_->current() < 0 && !review().stops.empty()) list_->setCurrent(0);
    for (std::size_t i = 0; i < review().stops.size(); ++i)
        if (!review().takes.contains(review().stops[i].id)) {
            list_->setCurrent(static_cast<int>(i));
            break;
        }
    showStop();
}

void SayBench::leave() {
    stopListening();
    finish();
}

void SayBench::frameChanged() {
    if (recording())
        recorder_.note(TakeEventKind::Frame, c_.playhead.frame());
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
    if (!marks_) return "no marks";
    return s->finding;
}

std::optional<std::string> SayBench::ghostOfMeasure() const {
    const Stop* s = current();
    return s && marks_ ? std::optional(s->finding) : std::nullopt;
}

void SayBench::sayAgain() {
    const Stop* s = current();
    const auto take = s ? review().takes.find(s->id) : review().takes.end();
    const auto heard = listening_.isActive() ? loudspeaker_.position() : std::nullopt;
    if (!heard || take == review().takes.end()) return start(list_->current());
    const TakeHead head{take->second, static_cast<std::int64_t>(*heard * kSampleRate)};
    start(list_->current(), head);
    if (!recording()) return;
    StageState state = stateAt(*current(), head.take, head.samples);
    strokes_ = std::move(state.strokes);
    marks_ = state.marks;
    c_.playhead.jump(state.frame);
    c_.say(say("say-bench.again-from", {{"time", clockText(*heard)}}));
}

void SayBench::start(int row, const std::optional<TakeHead>& head) {
    stopListening();
    finish();
    const Stop* s = stopAt(row);
    if (!s) {
        c_.say(say("say-bench.there-is-no-stop-to-say"));
        return;
    }
    list_->setCurrent(row);
    showStop();
    strokes_.clear();
    marks_ = true;
    const Status started =
        recorder_.start(review().id, *s,
                        std::to_string(c_.session.clock().nowUnix()) + "-" + std::to_string(++serial_), head);
    if (!started) {
        c_.say(say(started.error().text));
        return;
    }
    c_.say({});
    refresh();
    heard();
}

void SayBench::finish() {
    if (!recording()) return;
    const StopId id = recorder_.stop();
    auto take = recorder_.finish();
    c_.ribbon.setWave({}, 0, {});
    c_.stage.setCaption({}, {}, false);
    strokes_.clear();
    if (!take)
        c_.say(say(take.error().text));
    else if (*take)
        perform(msg("say-bench.say-a-stop"), {SetTake{id, **take}});
    refresh();
}

void SayBench::listen() {
    const Stop* s = current();
    const auto take = s ? review().takes.find(s->id) : review().takes.end();
    if (listening_.isActive()) return stopListening();
    if (take == review().takes.end()) return c_.say(say("say-bench.this-stop-is-not-said-yet"));
    if (const auto problem = loudspeaker_.problem()) return c_.say(say(*problem));
    auto sound = readSound(c_.session.library().takePath(take->second.file));
    if (!sound) return c_.say(say(sound.error().text));
    c_.playhead.pause();
    loudspeaker_.play(std::make_shared<const std::vector<float>>(std::move(*sound)), 0);
    listening_.start();
    c_.say(say("say-bench.listening"));
}

void SayBench::stopListening() {
    if (!listening_.isActive()) return;
    listening_.stop();
    loudspeaker_.stop();
    strokes_.clear();
    marks_ = true;
    showStop();
    c_.say({});
}

void SayBench::followSound() {
    const Stop* s = current();
    const auto take = s ? review().takes.find(s->id) : review().takes.end();
    const auto at = loudspeaker_.position();
    if (!at || take == review().takes.end()) return stopListening();
    StageState state = stateAt(*s, take->second, static_cast<std::int64_t>(*at * kSampleRate));
    strokes_ = std::move(state.strokes);
    marks_ = state.marks;
    c_.playhead.jump(state.frame);
    c_.stage.update();
}

void SayBench::next() {
    int row = recording() ? list_->current() + 1 : list_->current();
    if (!recording()) {
        // The next one not yet said, from the top.
        for (std::size_t i = 0; i < review().stops.size(); ++i)
            if (!review().takes.contains(review().stops[i].id)) {
                row = static_cast<int>(i);
                break;
            }
    }
    const bool allSaid = !recording() && stopAt(row) && review().takes.contains(stopAt(row)->id);
    if (allSaid) {
        c_.say(say("say-bench.every-stop-is-said-r-says"));
        return;
    }
    if (recording() && row >= static_cast<int>(review().stops.size())) {
        finish();
        c_.say(say("say-bench.that-was-the-last-stop"));
        return;
    }
    start(row);
}

void SayBench::heard() {
    if (!recording()) return;
    const Message trouble = inWords(recorder_.trouble());
    trouble_->setText(say(trouble));
    trouble_->setVisible(!trouble.empty());
    std::vector<std::pair<double, QString>> events;
    double last = -10;
    for (const TakeEvent& e : recorder_.events()) {
        const double at = static_cast<double>(e.sample) / kSampleRate;
        const QString name = eventName(e);
        if (name.isEmpty() || at - last < 1.5) continue; // names need room
        events.emplace_back(at, name);
        last = at;
    }
    c_.ribbon.setWave(recorder_.levels(), recorder_.seconds(), std::move(events));
    c_.stage.setCaption(say("say-bench.saying-it-seconds", {{"seconds", clockText(recorder_.seconds())}}),
                        say("say-bench.stop-current-of-stops",
                            {{"current", list_->current() + 1}, {"stops", review().stops.size()}}),
                        true);
}

void SayBench::add(const std::string& finding) {
    if (auto stop = stopFor(review(), playbook(), c_.session.assessment(), finding,
                            c_.session.ids().next<StopTag>("stop")))
        perform(msg("say-bench.add-a-stop"), {SetStops{withStop(review().stops, std::move(*stop))}});
}

void SayBench::addFirstUnsaid() {
    const auto open = unsaid(review(), c_.session.assessment());
    if (open.empty())
        c_.say(say("say-bench.every-finding-is-in-the-running"));
    else
        add(open.front().finding.id);
}

/// All findings that no stop speaks of, to be ticked.
void SayBench::addSeveral() {
    const auto open = unsaid(review(), c_.session.assessment());
    if (open.empty()) return c_.say(say("say-bench.every-finding-is-in-the-running"));
    std::vector<Tickable> rows;
    for (const Judged& j : open) rows.push_back({j.finding.id, unsaidInWords(j), false});
    askFindings(this, rows, [this](const std::vector<std::string>& ticked) {
        auto stops = review().stops;
        for (const std::string& id : ticked)
            if (auto stop = stopFor(review(), playbook(), c_.session.assessment(), id,
                                    c_.session.ids().next<StopTag>("stop")))
                stops = withStop(std::move(stops), std::move(*stop));
        if (stops.size() != review().stops.size())
            perform(msg("say-bench.add-a-stop"), {SetStops{std::move(stops)}});
    });
}

/// A stop on the frame that is shown, about what no finding names.
void SayBench::addHere() {
    const std::int64_t frame = c_.playhead.frame();
    const int number = delivery().number;
    askOwnStop(this, [=, this](const QString& title) {
        Stop stop{
            c_.session.ids().next<StopTag>("stop"), StopKind::Own, "", title.toStdString(), frame, number};
        const int row = list_->current();
        auto stops = withOwnStop(review().stops, std::move(stop),
                                 row < 0 ? std::nullopt : std::optional(static_cast<std::size_t>(row)));
        perform(msg("say-bench.add-a-stop"), {SetStops{std::move(stops)}});
        list_->setCurrent(row < 0 ? 0 : row + 1);
    });
}

void SayBench::changeStop(const Message& label, const std::function<void(Stop&)>& change) {
    const int row = list_->current();
    if (!stopAt(row)) return c_.say(say("say-bench.there-is-no-stop-to-say"));
    auto stops = review().stops;
    change(stops[static_cast<std::size_t>(row)]);
    perform(label, {SetStops{std::move(stops)}});
}

/// What stands in the captions, from the prompt until it is written.
void SayBench::writeWords() {
    const Stop* s = current();
    if (!s) return c_.say(say("say-bench.there-is-no-stop-to-say"));
    const QString prompted =
        text(c_.session.readersWords()(joined(ListStyle::Sentences, promptOf(c_.session, *s).sentences())));
    askCaptions(this, text(s->title), text(s->words), prompted, [this](const QString& words) {
        changeStop(msg("say-bench.write-its-words"), [&](Stop& stop) { stop.words = words.toStdString(); });
    });
}

void SayBench::toggleMotion() {
    changeStop(msg("say-bench.change-its-motion"), [&](Stop& stop) { stop.still = !stop.still; });
    if (const Stop* s = current())
        c_.say(say(s->still ? "say-bench.begins-still" : "say-bench.begins-in-motion"));
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

/// An earlier delivery beside the chosen stop, or none.
void SayBench::chooseBeside() {
    const Stop* s = current();
    if (!s) return c_.say(say("say-bench.there-is-no-stop-to-say"));
    askBeside(this, c_.session, *s, c_.say,
              [this](const std::optional<JuxtaKey>& other) { putBeside(other); });
}

void SayBench::putBeside(const std::optional<JuxtaKey>& other) {
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
    changeStop(msg("say-bench.change-beside"), [&](Stop& stop) { stop.beside = beside; });
    showStop();
    if (!beside) return;
    for (const MomentInfo& m : keyPositions())
        if (delivery().frameOf(m.moment) == beside->with)
            return c_.say(say("say-bench.stands-beside", {{"position", m.name()}}));
}

void SayBench::addRecap() {
    for (const Stop& s : review().stops)
        if (s.kind == StopKind::Recap) return c_.say(say("say-bench.the-recap-is-already-there"));
    auto stops = review().stops;
    stops.push_back({c_.session.ids().next<StopTag>("stop"), StopKind::Recap, "",
                     english()(msg("say-bench.once-more-in-short")),
                     delivery().frameOf(Moment::Plant).value_or(c_.playhead.frame()), delivery().number});
    perform(msg("say-bench.add-the-recap"), {SetStops{stops}});
}

void SayBench::moveStop(int by) {
    const int from = list_->current(), to = from + by;
    if (!stopAt(from) || !stopAt(to)) return;
    auto stops = review().stops;
    std::swap(stops[static_cast<std::size_t>(from)], stops[static_cast<std::size_t>(to)]);
    list_->setCurrent(to);
    perform(msg("say-bench.rearrange"), {SetStops{stops}});
}

void SayBench::removeStop() {
    const Stop* s = current();
    if (!s) return;
    auto stops = review().stops;
    const StopId id = s->id;
    stops.erase(stops.begin() + list_->current());
    perform(msg("say-bench.take-a-stop-out"), {SetStops{stops}, SetTake{id, std::nullopt}});
}

bool SayBench::press(ImagePoint at, double) {
    if (!recording()) return false;
    strokes_.push_back({at});
    recorder_.note(TakeEventKind::StrokeBegin, 0, at);
    return true;
}

void SayBench::drag(ImagePoint at) {
    if (!recording() || strokes_.empty()) return;
    strokes_.back().push_back(at);
    recorder_.note(TakeEventKind::StrokeTo, 0, at);
}

void SayBench::hover(ImagePoint at) {
    if (recording()) recorder_.note(TakeEventKind::Pointer, 0, at);
}

void SayBench::paintOver(QPainter& p, const ViewTransform& view) {
    for (const auto& stroke : strokes_) paintStroke(p, stroke, view);
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
        {"say-stop", [this] { stopListening(), finish(); }},
        {"say-marks", [this] { toggleMarks(); }},
        {"say-clear", [this] { wipe(); }},
        {"say-listen", quietly([this] { listen(); })},
        {"say-add", quietly([this] { addFirstUnsaid(); })},
        {"say-all", quietly([this] { addSeveral(); })},
        {"say-here", quietly([this] { addHere(); })},
        {"say-words", quietly([this] { writeWords(); })},
        {"say-motion", quietly([this] { toggleMotion(); })},
        {"say-length", quietly([this] { chooseLength(); })},
        {"say-beside", quietly([this] { chooseBeside(); })},
        {"say-recap", quietly([this] { addRecap(); })},
        {"say-up", quietly([this] { moveStop(-1); })},
        {"say-down", quietly([this] { moveStop(1); })},
        {"say-remove", quietly([this] { removeStop(); })},
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

void SayBench::toggleMarks() {
    marks_ = !marks_;
    recorder_.note(marks_ ? TakeEventKind::MarksOn : TakeEventKind::MarksOff);
    c_.playhead.moved(c_.playhead.frame());
}

void SayBench::wipe() {
    strokes_.clear();
    recorder_.note(TakeEventKind::StrokesClear);
    c_.stage.update();
}

} // namespace jg::ui
