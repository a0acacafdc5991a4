#include "ui/review/review_place.h"

#include "review/deliveries.h"
#include "ui/actions.h"
#include "ui/review/judge_bench.h"
#include "ui/review/look_bench.h"
#include "ui/review/measure_bench.h"
#include "ui/review/positions_bench.h"
#include "ui/review/prescribe_bench.h"
#include "ui/review/say_bench.h"
#include "ui/review/send_bench.h"
#include "ui/theme.h"

#include <QScrollArea>

#include <cmath>

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
    foot_->setKept(session_->library().readOnly() ? "to read only: nothing is kept" : "kept");
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
    const Athlete& a = session_->athlete();
    const Submission& sub = session_->submission();
    line_->setWho(QString("%1, %2, %3").arg(text(a.firstName)).arg(session_->age()).arg(text(nameOf(a.hand))),
                  QString("%1 \u00b7 %2 \u00b7 %3")
                      .arg(text(nameOf(sub.start)), text(nameOf(sub.surface)),
                           text(session_->review().approach().name)));
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
    pictures->addWidget(stage_, 1);
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
    benches_->setFixedWidth(kBenchWidth);
    row->addWidget(benches_);
    column->addLayout(row, 1);
    foot_ = new Foot;
    column->addWidget(foot_);
    buildBenches(s);
    connectParts(s.loudspeaker);
}

void ReviewPlace::buildBenches(const ReviewSurroundings& s) {
    context_.reset(new ReviewContext{*session_, playhead_, *stage_, *ribbon_,
                                     [this](const QString& sentence) { foot_->say(sentence); },
                                     [this](Stage stage) { goTo(stage); }, s.runAction,
                                     [this] { refreshPicture(); }, s.keepMeasure, s.keepLengths});
    auto* send = new SendBench(*context_, *letter_, s.askPassword);
    connect(send, &SendBench::outboxChanged, this, [this] { around_.outboxChanged(); });
    all_ = {new LookBench(*context_),
            new PositionsBench(*context_),
            new MeasureBench(*context_),
            new JudgeBench(*context_),
            new SayBench(*context_, s.microphone, s.loudspeaker),
            new PrescribeBench(*context_),
            send};
    for (Bench* b : all_) benches_->addWidget(b);
}

void ReviewPlace::connectParts(Loudspeaker& loudspeaker) {
    connect(line_, &LineBar::chosen, this, [this](Stage stage) { goTo(stage); });
    connect(line_, &LineBar::toDesk, this, [this] { around_.runAction("to-desk"); });
    connect(ribbon_, &Ribbon::scrubbed, this,
            [this](qint64 frame) { playhead_.step(frame - playhead_.frame()); });
    connect(&playhead_, &Playhead::moved, this, [this](qint64 frame) {
        ribbon_->setFrame(frame);
        if (current_) current_->frameChanged();
    });
    connect(&playhead_, &Playhead::stateChanged, this, &ReviewPlace::refreshPicture);
    deck_ = new FilmDeck(*stage_, playhead_, loudspeaker, this);
    connect(deck_, &FilmDeck::say, this,
            [this](const QString& sentence, bool lasting) { foot_->say(sentence, lasting ? 0 : 6); });
    connect(deck_, &FilmDeck::pictureShown, this, [this] {
        refreshPicture();
        if (current_) current_->frameChanged();
    });
}

void ReviewPlace::openFilm() {
    const Clip& clip = session_->clip();
    shownClip_ = clip.id;
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
    stage_->setScene(sceneFor(session_->delivery(), session_->playbook(), session_->assessment(), frame,
                              current_ ? current_->focus() : std::nullopt, ghost ? &*ghost : nullptr));
    if (auto* say = qobject_cast<SayBench*>(current_); say && say->recording()) return;
    const Clip& clip = session_->clip();
    QString left =
        text(session_->deliveries().size() > 1 ? nameOf(session_->delivery(), session_->submission().clips)
                                               : std::string(nameOf(clip.view)));
    if (current_ && !current_->stageCaption().isEmpty()) left = current_->stageCaption() + " \u00b7 " + left;
    left += clip.captureFps > 0 ? QString(" \u00b7 %1 frames a second").arg(std::lround(clip.captureFps))
                                : QString(" \u00b7 rate unknown");
    static const std::pair<double, const char*> speeds[] = {
        {1, "true speed"}, {0.5, "half speed"}, {0.25, "quarter speed"}, {0.1, "tenth speed"}};
    for (const auto& [first, last] : clip.damaged)
        if (frame >= first && frame <= last) left += " \u00b7 this picture is damaged";
    QString right = playhead_.loop() ? "round and round" : QString();
    for (const auto& [speed, name] : speeds)
        if (playhead_.speed() == speed && (playhead_.playing() || speed != 1))
            right = right.isEmpty() ? name : right + " \u00b7 " + name;
    stage_->setCaption(left, right);
}

void ReviewPlace::refreshRibbon() {
    std::vector<RibbonPin> pins;
    for (const auto& [moment, mark] : session_->delivery().moments)
        if (mark.frame)
            pins.push_back(
                {*mark.frame, text(info(moment).shortly), moment == Moment::Release, isKeyPosition(moment)});
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

/// "kept" is said only when it is on the disk.
void ReviewPlace::showKept() {
    switch (session_->keepState()) {
    case KeepState::Kept:
        return foot_->setKept("kept \u00b7 " + text(session_->clock().timeOfDay()));
    case KeepState::Keeping:
        return foot_->setKept("keeping \u2026");
    case KeepState::NotKept:
        foot_->setKept("not kept");
        return foot_->say(text(session_->keepError().text) + " It is tried again by itself.", 0);
    case KeepState::Elsewhere:
        foot_->setKept("not kept here");
        return foot_->say("Changed elsewhere meanwhile. Yours is kept as a version on the athlete's page. "
                          "Backspace, then open it again.",
                          0);
    }
}

void ReviewPlace::refreshLine() {
    line_->setState(session_->review().sent ? Stage::Send : walk_, session_->assessment().counts, seen_);
}

void ReviewPlace::onChanged() {
    const DeliveryMarks& r = session_->delivery();
    const bool other = r.number != shownDelivery_;
    if (session_->clip().id != shownClip_) openFilm();
    refreshRibbon();
    refreshLine();
    for (Bench* b : all_) b->refresh();
    refreshPicture();
    if (!other) return;
    shownDelivery_ = r.number;
    if (const auto first = nearestPin(-1, 1); first || r.cut) playhead_.jump(first.value_or(ends().first));
}

/// Round the deliveries that hold marks.
void ReviewPlace::nextDelivery() {
    const std::vector<int> all = session_->deliveries();
    if (all.size() < 2)
        return foot_->say("Only one delivery is marked. In Look, choose another one or another film.");
    const auto next = std::upper_bound(all.begin(), all.end(), session_->delivery().number);
    session_->takeInHand(next == all.end() ? all.front() : *next);
    foot_->say(text(nameOf(session_->delivery(), session_->submission().clips)) + " is in hand.", 4);
}

void ReviewPlace::goTo(Stage stage) {
    if (current_) current_->leave();
    playhead_.pause();
    walk_ = stage;
    if (stage != Stage::Look) seen_ = true;
    session_->setStage(stage);
    current_ = all_.at(static_cast<std::size_t>(stage));
    benches_->setCurrentWidget(current_);
    middle_->setCurrentIndex(stage == Stage::Send ? 1 : 0);
    stage_->setTool(current_->tool());
    foot_->say({}, 0);
    foot_->setHints(current_->hints());
    around_.setWhere(static_cast<unsigned>(AtLook) << static_cast<unsigned>(stage));
    current_->refresh();
    current_->enter();
    stage_->setFocus();
    refreshLine();
    refreshPicture();
}

std::optional<qint64> ReviewPlace::nearestPin(qint64 from, int direction) const {
    std::optional<qint64> best;
    for (const auto& [moment, mark] : session_->delivery().moments)
        if (mark.frame && (*mark.frame - from) * direction > 0 &&
            (!best || (*best - *mark.frame) * direction > 0))
            best = *mark.frame;
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
        foot_->say(session_->delivery().moments.empty() ? "No position is set yet."
                                                        : "There is no further position.");
}

/// Between the positions on both sides of the playhead, or to the end again.
void ReviewPlace::loopHere() {
    if (playhead_.loop()) {
        playhead_.setLoop(std::nullopt);
        return foot_->say("Plays to the end again.", 3);
    }
    const qint64 here = playhead_.frame();
    playhead_.setLoop(std::pair(nearestPin(here + 1, -1).value_or(ends().first),
                                nearestPin(here, 1).value_or(ends().second)));
    if (!playhead_.playing()) playhead_.play();
    foot_->say("Plays round between the positions on both sides. L again: to the end.", 4);
}

void ReviewPlace::beginAnother() {
    if (!session_->review().sent)
        return foot_->say("This review is not sent yet: go on with it. A new one begins when it is sent.");
    const Status begun = session_->beginAnother();
    if (!begun) return foot_->say(text(begun.error().text), 0);
    goTo(Stage::Positions);
    foot_->say("A new review of these films. Positions and points were taken along.");
}

bool ReviewPlace::busy() const {
    return qobject_cast<SendBench*>(all_.back())->busy();
}

bool ReviewPlace::act(const QString& id) {
    if (current_ && current_->act(id)) {
        refreshPicture();
        foot_->setHints(current_->hints());
        return true;
    }
    if (id == "step-back") return playhead_.step(-1), true;
    if (id == "step-on") return playhead_.step(1), true;
    if (id == "step-back-10") return playhead_.step(-10), true;
    if (id == "step-on-10") return playhead_.step(10), true;
    if (id == "first-frame") return playhead_.step(ends().first - playhead_.frame()), true;
    if (id == "last-frame") return playhead_.step(ends().second - playhead_.frame()), true;
    if (id == "pin-previous") return jumpToPin(-1), true;
    if (id == "pin-next") return jumpToPin(1), true;
    if (id == "play") return playhead_.toggle(), true;
    if (id == "play-back") return playhead_.toggle(-1), true;
    if (id == "loop") return loopHere(), true;
    if (id == "details") return deck_->toggleDetails(), true;
    if (id == "slower") return playhead_.slower(), true;
    if (id == "fit") return stage_->fit(), true;
    if (id == "delivery-next") return nextDelivery(), true;
    if (id == "begin-another") return beginAnother(), true;
    if (id == "undo" || id == "redo") {
        const QString label =
            text(id == "undo" ? session_->history().undoLabel() : session_->history().redoLabel());
        const bool done = id == "undo" ? session_->undo() : session_->redo();
        foot_->say(done ? (id == "undo" ? "Undone: " : "Again: ") + label : "Nothing to " + id + ".", 3);
        return true;
    }
    if (id == "stage-next" || id == "stage-previous") {
        const int to = static_cast<int>(walk_) + (id == "stage-next" ? 1 : -1);
        if (to >= 0 && to <= static_cast<int>(Stage::Send)) goTo(static_cast<Stage>(to));
        return true;
    }
    return false;
}

} // namespace jg::ui
