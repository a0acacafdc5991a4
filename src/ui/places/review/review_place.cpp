// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/review/review_place.h"

#include "review/record/deliveries.h"
#include "ui/forms/kept_words.h"
#include "ui/kit/actions.h"
#include "ui/kit/theme.h"
#include "ui/stages/judge/judge_bench.h"
#include "ui/stages/look/look_bench.h"
#include "ui/stages/measure/measure_bench.h"
#include "ui/stages/positions/positions_bench.h"
#include "ui/stages/prescribe/prescribe_bench.h"
#include "ui/stages/say/say_bench.h"
#include "ui/stages/send/send_bench.h"

#include <QScrollArea>

#include <cmath>
#include <utility>

namespace jg::ui {

namespace {

constexpr int kBenchWidth = 404;

} // namespace

ReviewPlace::ReviewPlace(std::unique_ptr<ReviewSession> session, const ReviewSurroundings& surroundings)
    : session_(std::move(session))
    , around_(surroundings) {
    build(surroundings);
    connect(session_.get(), &ReviewSession::changed, this, &ReviewPlace::onChanged);
    connect(session_.get(), &ReviewSession::keepChanged, this, &ReviewPlace::showKept);
    connect(foot_, &Foot::asked, this, [this](const QString& id) { around_.runAction(id); });
    foot_->setKept(keptWords(session_->library()));
    seen_ = session_->review().stage != Stage::Look;
    openFilm();
    shownDelivery_ = session_->delivery().number;
    refreshRibbon();
    const Stage stage = session_->review().stage == Stage::Sent ? Stage::Send : session_->review().stage;
    goTo(stage);
}

ReviewPlace::~ReviewPlace() {
    if (current_) current_->leave();
}

void ReviewPlace::build(const ReviewSurroundings& s) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    line_ = new LineBar;
    column->addWidget(line_);
    auto* row = new QHBoxLayout;
    row->setSpacing(0);
    stage_ = new StageView;
    ribbon_ = new Ribbon;
    letter_ = new LetterView;
    auto* pictureSide = new QWidget;
    auto* pictures = new QVBoxLayout(pictureSide);
    pictures->setContentsMargins(0, 0, 0, 0);
    pictures->setSpacing(0);
    otherStage_ = new StageView;
    otherStage_->setObjectName("other-stage");
    otherStage_->hide(); // before it is laid out: it takes no room until a stop shows something
    auto* stages = new QHBoxLayout;
    stages->setSpacing(2);
    stages->addWidget(otherStage_, 1);
    stages->addWidget(stage_, 1);
    pictures->addLayout(stages, 1);
    pictures->addWidget(ribbon_);
    auto* letterScroll = new QScrollArea;
    letterScroll->setWidgetResizable(true);
    letterScroll->setWidget(letter_);
    letterScroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    middle_ = new QStackedWidget;
    middle_->addWidget(pictureSide);
    middle_->addWidget(letterScroll);
    row->addWidget(middle_, 1);
    auto* edge = new QFrame;
    edge->setFixedWidth(1);
    edge->setStyleSheet(QString("background:%1;").arg(palette::rule.name()));
    row->addWidget(edge);
    benches_ = new QStackedWidget;
    benches_->setFixedWidth(em(kBenchWidth));
    row->addWidget(benches_);
    column->addLayout(row, 1);
    foot_ = new Foot;
    column->addWidget(foot_);
    buildBenches(s);
    connectParts(s.loudspeaker);
}

void ReviewPlace::buildBenches(const ReviewSurroundings& s) {
    context_.reset(new ReviewContext{
        *session_, playhead_, *stage_, *ribbon_, [this](const QString& sentence) { foot_->tell(sentence); },
        [this](Stage stage) { goTo(stage); }, s.runAction, [this] { refreshPicture(); }, s.keepMeasure,
        s.keepLengths, s.writeDrill, [this](const Stop* stop) { showBeside(stop); }, [this] { showMiddle(); },
        [this] { showHints(); }});
    auto* send = new SendBench(*context_, *letter_, s.password, s.loudspeaker);
    connect(send, &SendBench::outboxChanged, this, [this] { around_.outboxChanged(); });
    auto* prescribe = new PrescribeBench(*context_);
    all_ = {new LookBench(*context_),
            new PositionsBench(*context_),
            new MeasureBench(*context_),
            new JudgeBench(*context_),
            new SayBench(*context_, s.microphone, s.loudspeaker),
            prescribe,
            send};
    for (Bench* b : all_) benches_->addWidget(b);
    for (QWidget* w : prescribe->middles()) middle_->addWidget(w);
}

void ReviewPlace::connectParts(Loudspeaker& loudspeaker) {
    connect(line_, &LineBar::chosen, this, [this](Stage stage) { goTo(stage); });
    connect(line_, &LineBar::toDesk, this, [this] { around_.runAction("to-desk"); });
    connect(ribbon_, &Ribbon::scrubbed, this,
            [this](qint64 frame) { playhead_.step(frame - playhead_.frame()); });
    connect(&playhead_, &Playhead::moved, this, [this](qint64 frame) {
        ribbon_->setFrame(frame);
        followBeside();
        if (current_) current_->frameChanged();
    });
    connect(&playhead_, &Playhead::stateChanged, this, &ReviewPlace::refreshPicture);
    deck_ = new FilmDeck(*stage_, playhead_, loudspeaker, this);
    beside_ = new BesideStage(*stage_, *otherStage_, this);
    connect(deck_, &FilmDeck::tell, this,
            [this](const QString& sentence, bool lasting) { foot_->tell(sentence, lasting ? 0 : 6); });
    connect(deck_, &FilmDeck::pictureShown, this, [this] {
        refreshPicture();
        followBeside();
        if (current_) current_->frameChanged();
    });
}

void ReviewPlace::showBeside(const Stop* stop) {
    const auto both = stop ? session_->beside(*stop) : std::shared_ptr<const ThenAndNow>();
    if (!both) foot_->tell(say("beside.gone", {{"stop", stop->title}, {"why", both.error().text}}), 0);
    if (!both || !*both) return beside_->showNothing();
    beside_->show(*stop, *both, session_->playbook(), session_->library());
    followBeside();
}

void ReviewPlace::followBeside() {
    beside_->follow(playhead_.frame(), playhead_.playing(), deck_->info(), deck_->captureFps());
}

void ReviewPlace::openFilm() {
    loopFrom_.reset();
    const Clip& clip = session_->clip();
    shownClip_ = clip.id;
    shownFrames_ = clip.frames;
    ribbon_->setFilm(clip.frames, clip.captureFps);
    ribbon_->setDamaged(clip.damaged);
    playhead_.setFilm(clip.frames, clip.captureFps);
    deck_->open(session_->library().mediaPath(clip), session_->library().scrubPath(clip), clip.captureFps);
}

std::optional<MeasureGhost> ReviewPlace::ghostOn(qint64 frame) const {
    const auto id = current_ ? current_->ghostOfMeasure() : std::nullopt;
    const MeasureRow* row = id ? session_->assessment().measure(*id) : nullptr;
    if (!row || session_->delivery().frameOf(session_->playbook().measure(*id)->moments.back()) != frame)
        return std::nullopt;
    auto ghost =
        ghostOf(session_->delivery(), session_->playbook(), *row, session_->clip(), session_->athlete().hand);
    return ghost ? std::optional(*std::move(ghost)) : std::nullopt;
}

void ReviewPlace::refreshPicture() {
    const qint64 frame = stage_->shownFrame();
    const auto ghost = ghostOn(frame);
    stage_->setVeils(session_->hiddenOn(session_->delivery()));
    stage_->setScene(sceneFor(session_->delivery(), session_->playbook(), session_->assessment(), frame,
                              current_ ? current_->focus() : std::nullopt, ghost ? &*ghost : nullptr));
    if (auto* saying = qobject_cast<SayBench*>(current_); saying && saying->recording()) return;
    const Clip& clip = session_->clip();
    std::vector<Message> left;
    if (current_ && !current_->stageCaption().isEmpty())
        left.push_back(asIs(current_->stageCaption().toStdString()));
    if (beside_->shows()) left.push_back(beside_->ownCaption());
    left.push_back(session_->deliveries().size() > 1
                       ? nameOf(session_->delivery(), session_->submission().clips)
                       : nameOf(clip.view));
    left.push_back(clip.captureFps > 0 ? msg("review-place.rate", {{"rate", std::lround(clip.captureFps)}})
                                       : msg("look-bench.rate-unknown"));
    for (const auto& [first, last] : clip.damaged)
        if (frame >= first && frame <= last) left.push_back(msg("review-place.damaged"));
    static constexpr std::pair<double, const char*> speeds[] = {
        {1, "speed.true"}, {0.5, "speed.half"}, {0.25, "speed.quarter"}, {0.1, "speed.tenth"}};
    std::vector<Message> right;
    if (playhead_.loop()) right.push_back(msg("review-place.round"));
    for (const auto& [speed, id] : speeds)
        if (playhead_.speed() == speed && (playhead_.playing() || speed != 1)) right.push_back(msg(id));
    stage_->setCaption(say(joined(ListStyle::Dots, std::move(left))),
                       say(joined(ListStyle::Dots, std::move(right))));
}

void ReviewPlace::refreshRibbon() {
    std::vector<RibbonPin> pins;
    for (const auto& [moment, mark] : session_->delivery().moments) {
        if (mark.frame)
            pins.push_back(
                {*mark.frame, say(info(moment).shortly()), moment == Moment::Release, isKeyPosition(moment)});
        for (const qint64 frame : mark.again)
            pins.push_back(
                {frame, say("review-place.again", {{"position", info(moment).shortly()}}), false, false});
    }
    std::sort(pins.begin(), pins.end(),
              [](const RibbonPin& a, const RibbonPin& b) { return a.frame < b.frame; });
    std::vector<RibbonFlag> flags;
    for (const Stop& s : session_->review().stops)
        if (s.delivery == session_->delivery().number)
            flags.push_back({s.frame, session_->review().takes.contains(s.id)});
    std::optional<qint64> zero;
    const auto& cut = session_->delivery().cut;
    ribbon_->setCut(cut ? std::optional(std::pair(qint64{cut->first}, qint64{cut->last})) : std::nullopt);
    if (const auto touch = session_->delivery().frameOf(Moment::FootTouch)) zero = *touch;
    ribbon_->setMarks(std::move(pins), std::move(flags), zero);
}

void ReviewPlace::showKept() {
    ui::showKept(*session_, *foot_);
}

void ReviewPlace::refreshLine() {
    const Athlete& a = session_->athlete();
    const Submission& sub = session_->submission();
    line_->setWho(
        QString("%1, %2, %3").arg(text(a.firstName)).arg(session_->age()).arg(say(nameOf(a.hand))),
        QString("%1 \u00b7 %2 \u00b7 %3")
            .arg(say(nameOf(sub.start)), say(nameOf(sub.surface)), text(session_->review().approach().name)));
    line_->setState(session_->review().sent ? Stage::Send : walk_, session_->assessment().counts, seen_);
}

void ReviewPlace::onChanged(Parts parts) {
    const DeliveryMarks& r = session_->delivery();
    const bool other = r.number != shownDelivery_;
    if (session_->clip().id != shownClip_ || session_->clip().frames != shownFrames_) openFilm();
    if (other || parts.has(Part::Film | Part::Marks | Part::Talk)) refreshRibbon();
    refreshLine();
    if (current_) current_->refresh(); // one that is out of sight is refreshed when it is entered
    if (other || parts != Part::Plan) refreshPicture(); // of the plan nothing is drawn on it
    if (!other) return;
    shownDelivery_ = r.number;
    if (const auto first = nearestPin(-1, 1); first || r.cut) playhead_.jump(first.value_or(ends().first));
}

/// Round the deliveries that hold marks.
void ReviewPlace::nextDelivery() {
    const std::vector<int> all = session_->deliveries();
    if (all.size() < 2) return foot_->tell(say("review-place.one-delivery"));
    const auto next = std::upper_bound(all.begin(), all.end(), session_->delivery().number);
    session_->takeInHand(next == all.end() ? all.front() : *next);
    foot_->tell(say("review-place.clips-is-in-hand",
                    {{"clips", nameOf(session_->delivery(), session_->submission().clips)}}),
                4);
}

void ReviewPlace::goTo(Stage stage) {
    if (current_) current_->leave();
    beside_->showNothing();
    playhead_.pause();
    walk_ = stage;
    if (stage != Stage::Look) seen_ = true;
    session_->setStage(stage);
    current_ = all_.at(static_cast<std::size_t>(stage));
    benches_->setCurrentWidget(current_);
    showMiddle();
    stage_->setTool(current_->tool());
    foot_->tell({}, 0);
    showHints();
    around_.setWhere(static_cast<unsigned>(AtLook) << static_cast<unsigned>(stage));
    current_->refresh();
    current_->enter();
    stage_->setFocus();
    refreshLine();
    refreshPicture();
}

void ReviewPlace::showHints() {
    if (current_) foot_->setHints(current_->hints());
}

/// The picture, the letter, or what the bench has instead.
void ReviewPlace::showMiddle() {
    QWidget* own = current_ ? current_->middle() : nullptr;
    if (own)
        middle_->setCurrentWidget(own);
    else
        middle_->setCurrentIndex(walk_ == Stage::Send ? 1 : 0);
}

std::optional<qint64> ReviewPlace::nearestPin(qint64 from, int direction) const {
    std::optional<qint64> best;
    const auto look = [&](qint64 frame) {
        if ((frame - from) * direction > 0 && (!best || (*best - frame) * direction > 0)) best = frame;
    };
    for (const auto& [moment, mark] : session_->delivery().moments) {
        if (mark.frame) look(*mark.frame);
        for (const qint64 frame : mark.again) look(frame);
    }
    return best;
}

/// Of the delivery under review, or of the film.
std::pair<qint64, qint64> ReviewPlace::ends() const {
    if (const auto& cut = session_->delivery().cut) return {cut->first, cut->last};
    return {0, playhead_.frames() - 1};
}

void ReviewPlace::jumpToPin(int direction) {
    if (const auto pin = nearestPin(playhead_.frame(), direction))
        playhead_.step(*pin - playhead_.frame());
    else
        foot_->tell(session_->delivery().moments.empty() ? say("review-place.no-position-is-set-yet")
                                                         : say("review-place.there-is-no-further-position"));
}

/// Between the positions on both sides of the playhead, or to the end again.
void ReviewPlace::loopHere() {
    if (playhead_.loop()) {
        playhead_.setLoop(std::nullopt);
        return foot_->tell(say("review-place.plays-to-the-end-again"), 3);
    }
    const qint64 here = playhead_.frame();
    playhead_.setLoop(std::pair(nearestPin(here + 1, -1).value_or(ends().first),
                                nearestPin(here, 1).value_or(ends().second)));
    if (!playhead_.playing()) playhead_.play();
    foot_->tell(say("review-place.plays-round"), 4);
}

/// Round between two frames of one's own: the first call takes where it begins, the second where it ends.
void ReviewPlace::loopBetween() {
    const qint64 here = playhead_.frame();
    const auto from = std::exchange(loopFrom_, std::nullopt);
    if (!from) {
        loopFrom_ = here;
        return foot_->tell(say("review-place.round-from", {{"frame", here}}), 0);
    }
    if (*from == here) return foot_->tell(say("review-place.round-of-one-frame"));
    const auto [first, last] = std::minmax(*from, here);
    playhead_.setLoop(std::pair(first, last));
    if (!playhead_.playing()) playhead_.play();
    foot_->tell(say("review-place.plays-round-between-the-frames", {{"from", first}, {"to", last}}), 4);
}

void ReviewPlace::beginAnother() {
    if (!session_->review().sent) return foot_->tell(say("review-place.this-review-is-not-sent-yet"));
    const Status begun = session_->beginAnother();
    if (!begun) return foot_->tell(say(begun.error().text), 0);
    goTo(Stage::Positions);
    foot_->tell(say("review-place.a-new-review-of-these-films"));
}

bool ReviewPlace::busy() const {
    return qobject_cast<SendBench*>(all_.back())->busy();
}

bool ReviewPlace::act(const QString& id) {
    if (!current_ || !current_->act(id)) return runIn(handlers_, id);
    refreshPicture();
    showHints();
    return true;
}

Handlers ReviewPlace::handlers() {
    return {
        {"step-back", [this] { playhead_.step(-1); }},
        {"step-on", [this] { playhead_.step(1); }},
        {"step-back-10", [this] { playhead_.step(-10); }},
        {"step-on-10", [this] { playhead_.step(10); }},
        {"first-frame", [this] { playhead_.step(ends().first - playhead_.frame()); }},
        {"last-frame", [this] { playhead_.step(ends().second - playhead_.frame()); }},
        {"pin-previous", [this] { jumpToPin(-1); }},
        {"pin-next", [this] { jumpToPin(1); }},
        {"play", [this] { playhead_.toggle(); }},
        {"play-back", [this] { playhead_.toggle(-1); }},
        {"loop", [this] { loopHere(); }},
        {"loop-between", [this] { loopBetween(); }},
        {"details", [this] { deck_->toggleDetails(); }},
        {"slower", [this] { playhead_.slower(); }},
        {"fit", [this] { stage_->fit(); }},
        {"delivery-next", [this] { nextDelivery(); }},
        {"begin-another", [this] { beginAnother(); }},
        {"promise", [this] { askForPromise(this, *session_, context_->say); }},
        {"undo", [this] { undo(true); }},
        {"redo", [this] { undo(false); }},
        {"stage-next", [this] { goBy(1); }},
        {"stage-previous", [this] { goBy(-1); }},
    };
}

void ReviewPlace::undo(bool back) {
    if (back && current_->takeBack()) return;
    const Message label = back ? session_->history().undoLabel() : session_->history().redoLabel();
    const bool done = back ? session_->undo() : session_->redo();
    foot_->tell(done ? say(back ? "review-place.undone" : "review-place.again", {{"what", label}})
                     : say(back ? "review-place.nothing-to-undo" : "review-place.nothing-to-redo"),
                3);
}

void ReviewPlace::goBy(int stages) {
    const int to = static_cast<int>(walk_) + stages;
    if (to >= 0 && to <= static_cast<int>(Stage::Send)) goTo(static_cast<Stage>(to));
}

} // namespace jg::ui
