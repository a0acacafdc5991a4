// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/measure/measure_bench.h"

#include "desk/own/usual_measures.h"
#include "kinematics/geometry.h"
#include "letter/mark_scene.h"
#include "review/assess/reasons.h"
#include "review/record/one_person.h"
#include "review/tell/letter_model.h"
#include "ui/bench/measure_words.h"
#include "ui/kit/theme.h"
#include "ui/stages/measure/measure_picker.h"
#include "ui/stages/measure/own_measure_dialog.h"

#include <QPainter>

#include <cmath>

namespace jg::ui {

namespace {

/// Each landmark once, in the order of the formula.
std::vector<Landmark> landmarksOf(const MeasureDefinition& m) {
    std::vector<Landmark> all;
    for (const Slot& slot : m.slots)
        if (std::find(all.begin(), all.end(), slot.landmark) == all.end()) all.push_back(slot.landmark);
    return all;
}

} // namespace

MeasureBench::MeasureBench(ReviewContext& context)
    : Bench(context)
    , questions_(this, c_, performer())
    , paths_(this, c_, performer())
    , goal_(c_, performer()) {
    title_ = heading("");
    column_->addWidget(title_);
    what_ = quiet("", 13);
    column_->addWidget(what_);
    figure_ = new GuideFigure;
    column_->addWidget(figure_);
    listTitle_ = quiet("", 12);
    column_->addWidget(listTitle_);
    list_ = new RowList;
    list_->setObjectName("measures");
    list_->setAccessibleName(say("measure-bench.measures"));
    connect(list_, &RowList::selected, this, &MeasureBench::select);
    column_->addWidget(list_, 1);
    noteBox_ = new QFrame;
    noteBox_->setObjectName("note");
    auto* box = new QVBoxLayout(noteBox_);
    box->setContentsMargins(12, 8, 12, 8);
    note_ = plain("", 12.5);
    box->addWidget(note_);
    column_->addWidget(noteBox_);
    refresh();
}

KeyHints MeasureBench::hints() const {
    if (goal_.active()) return goal_.hints();
    if (drawing_)
        return {{say("hint.click"), say("hint.place")},
                {"Esc", say("measure-bench.back-to-the-guided-points"), "tool-none"},
                {"Z", say("hint.undo"), "undo"}};
    return {{say("hint.click"), say("hint.place")},
            {"H", say("hint.hidden"), "point-hidden"},
            {"U", say("hint.answer"), "measure-answer"},
            {"A", say("measure-bench.more-measures"), "measure-add"},
            {"G", say("hint.goal"), "measure-ghost"},
            {"D", say("hint.goal-by-hand"), "measure-goal-by-hand"},
            {"S", say("hint.scale"), "measure-scale"},
            {"W", say("measure-bench.by-time-or-body"), "measure-order"},
            {"Z", say("hint.undo"), "undo"}};
}

PerformEdit MeasureBench::performer() {
    return [this](const Message& label, std::vector<Change> changes) {
        return perform(label, std::move(changes));
    };
}

const MeasureDefinition* MeasureBench::chosen() const {
    return measureAt(list_->current());
}

const MeasureDefinition* MeasureBench::measureAt(int row) const {
    const auto& rows = c_.session.assessment().measures;
    if (row < 0 || row >= static_cast<int>(rows.size())) return nullptr;
    return playbook().measure(rows[static_cast<std::size_t>(row)].id);
}

bool MeasureBench::isExtra(const std::string& id) const {
    const auto& extras = review().extras;
    return std::find(extras.begin(), extras.end(), id) != extras.end();
}

void MeasureBench::refresh() {
    std::vector<ListRow> rows;
    std::string part;
    for (const MeasureRow& m : c_.session.assessment().measures) {
        const MeasureDefinition* def = playbook().measure(m.id);
        ListRow row = listRowOf(*def, m, delivery());
        if (isExtra(m.id) && def->group != part) row.header = groupName(part = def->group);
        rows.push_back(std::move(row));
    }
    const int keep = list_->current();
    list_->setRows(std::move(rows));
    list_->setCurrent(keep);
    listTitle_->setText(
        say(order_ == WalkOrder::Time ? "measure-bench.by-time" : "measure-bench.by-body",
            {{"approach", review().approach().name}, {"edition", review().approach().version}}));
    showStep();
    showNote();
}

void MeasureBench::enter() {
    showStep();
    showNote();
    goToStep();
}

void MeasureBench::leave() {
    if (goal_.active()) goal_.end();
    questions_.left();
    c_.ribbon.setCurve({}, {});
}

void MeasureBench::showStep() {
    const auto steps = openSteps(review(), delivery(), playbook(), c_.session.clip(), order_);
    step_.reset();
    // By time the frame on the stage comes first: the hand stays where it is.
    for (const GuideStep& s : steps)
        if (order_ == WalkOrder::Time && s.frame == c_.playhead.frame()) {
            step_ = s;
            break;
        }
    if (!step_ && !steps.empty()) step_ = steps.front();
    const bool right = targetDirectionX(c_.session.athlete().hand, c_.session.clip().view) >= 0;
    if (!step_) {
        const bool positions = c_.session.assessment().counts.positions > 0;
        title_->setText(positions ? say("measure-bench.all-points-are-placed")
                                  : say("measure-bench.positions-first"));
        what_->setText(positions ? say("measure-bench.drag-hint", {{"session", whatNext(c_.session)}})
                                 : say("measure-bench.positions-wanted"));
        const MeasureDefinition* m = chosen();
        const std::vector<Landmark> landmarks = m ? landmarksOf(*m) : std::vector<Landmark>{};
        figure_->show(std::nullopt, landmarks, !right, m ? text(m->hint) : QString());
    } else {
        const MeasureDefinition* m = playbook().measure(step_->measures.front());
        std::vector<Landmark> landmarks = landmarksOf(*m);
        if (std::find(landmarks.begin(), landmarks.end(), step_->landmark) == landmarks.end())
            landmarks = {Landmark::Crown, Landmark::Ground};
        title_->setText(text(m->name));
        const auto left = std::count_if(steps.begin(), steps.end(),
                                        [&](const GuideStep& s) { return s.frame == step_->frame; });
        what_->setText(say(step_->lost ? "measure-bench.place-lost" : "measure-bench.place",
                           {{"frame", step_->frame},
                            {"position", info(step_->moment).name()},
                            {"landmark", info(step_->landmark).name()},
                            {"where", info(step_->landmark).where()},
                            {"left", left},
                            {"all", steps.size()}}));
        figure_->show(step_->landmark, landmarks, !right, text(m->hint));
    }
}

void MeasureBench::showNote() {
    QString note;
    if (const auto& rows = c_.session.assessment().measures;
        list_->current() >= 0 && list_->current() < static_cast<int>(rows.size()))
        note = noteOn(c_.session, paths_, rows[static_cast<std::size_t>(list_->current())]);
    paths_.showCurve(chosen());
    note_->setText(note);
    noteBox_->setVisible(!note.isEmpty());
}

std::optional<std::string> MeasureBench::ghostOfMeasure() const {
    const MeasureDefinition* m = showGhost_ ? chosen() : nullptr;
    return m ? std::optional(m->id) : std::nullopt;
}

void MeasureBench::goToStep() {
    if (step_ && step_->frame != c_.playhead.frame()) c_.playhead.step(step_->frame - c_.playhead.frame());
}

void MeasureBench::select(int row) {
    const MeasureDefinition* m = measureAt(row);
    if (!m) return;
    if (goal_.active()) goal_.end();
    if (const auto frame = delivery().frameOf(m->moments.back()))
        c_.playhead.step(*frame - c_.playhead.frame());
    showStep();
    showNote();
    c_.redraw();
}

QString MeasureBench::stageCaption() const {
    QString steadied = delivery().shake && delivery().shake->on ? say("measure-bench.shake-taken-out") : "";
    for (const auto& [moment, mark] : delivery().moments)
        if (mark.frame == c_.playhead.frame())
            return say(info(moment).name()) + (steadied.isEmpty() ? "" : " \u00b7 " + steadied);
    return steadied;
}

QString MeasureBench::loupeText() const {
    if (drawing_) return drawing_->ask();
    if (!step_ || step_->frame != c_.stage.shownFrame()) return {};
    return say(info(step_->landmark).name()) + ", " + say(info(step_->landmark).where());
}

void MeasureBench::moveGrip(const Grip& grip, ImagePoint to, const Message& label) {
    to.x = std::clamp(to.x, 0.0, static_cast<double>(c_.session.clip().width));
    to.y = std::clamp(to.y, 0.0, static_cast<double>(c_.session.clip().height));
    if (auto change = moved(delivery(), grip, to)) perform(label, {*std::move(change)});
}

bool MeasureBench::press(ImagePoint at, double reach) {
    if (drawing_) return placeCorner(at), true;
    if (goal_.active()) return goal_.press(at, reach);
    if (const auto grip = gripAt(delivery(), c_.stage.shownFrame(), at, reach)) {
        grabbed_ = selected_ = grip;
        const ImagePoint place = *placeOf(delivery(), *grip);
        grabOffset_ = place - at;
        grabFrom_ = at;
        dragged_ = false;
        slack_ = reach * 0.3;
        c_.session.beginGesture();
        return true;
    }
    const Clip& clip = c_.session.clip();
    if (at.x < 0 || at.y < 0 || at.x > clip.width || at.y > clip.height) {
        c_.say(say("measure-bench.that-is-beside-the-picture-click"));
        return true;
    }
    if (step_ && step_->frame == c_.stage.shownFrame()) return placePoint(at), true;
    if (step_) {
        c_.say(say("measure-bench.the-next-point-belongs-to-moment",
                   {{"moment", info(step_->moment).name()}, {"frame", step_->frame}}));
        return true;
    }
    return false;
}

void MeasureBench::drag(ImagePoint at) {
    if (goal_.active()) return goal_.drag(at);
    if (!grabbed_) return;
    dragged_ = dragged_ || length(at - grabFrom_) > slack_;
    if (dragged_) moveGrip(*grabbed_, at + grabOffset_, msg("measure-bench.move-a-point"));
}

void MeasureBench::release(ImagePoint at) {
    if (goal_.active()) return goal_.release();
    if (!grabbed_) return;
    c_.session.endGesture();
    grabbed_.reset();
    // Joints may lie on one another in the picture: a click places what is asked for, only a drag moves.
    if (!dragged_ && step_ && step_->frame == c_.stage.shownFrame()) placePoint(at);
}

void MeasureBench::placePoint(ImagePoint at, double smearPx) {
    const PointKey key{step_->frame, step_->landmark};
    const Message label =
        msg("measure-bench.place-the-landmark", {{"landmark", info(step_->landmark).name()}});
    const qint64 before = c_.playhead.frame();
    const double sigma = c_.session.clickSigmaPx(step_->landmark, smearPx);
    if (!perform(label, {SetPoint{key, PointMark{{at, sigma}, ""}}})) return;
    selected_ = Grip{key, "", 0};
    showStep();
    if (step_ && step_->frame != before) goToStep();
    for (const OddPair& pair : notOnePerson(delivery()))
        if (pair.frame == key.frame && (pair.from == key.landmark || pair.to == key.landmark))
            return c_.say(say("measure-bench.pair-z-takes-it-back", {{"pair", pair.words}}));
}

void MeasureBench::startDrawing(MarkKind kind) {
    const QStringList asks =
        kind == MarkKind::Angle
            ? QStringList{say("measure-bench.one-side"), say("measure-bench.the-corner"),
                          say("measure-bench.the-other-side")}
            : QStringList{say("measure-bench.one-end"), say("measure-bench.the-other-end")};
    draw(Drawing(kind, asks, [this, kind](const auto& corners) { keepMark(kind, corners); }));
    c_.say(say(pointsOf(kind) == 3 ? "measure-bench.click-three" : "measure-bench.click-two",
               {{"mark", nameOf(kind)}}));
}

void MeasureBench::draw(Drawing drawing) {
    drawing_ = std::move(drawing);
    c_.stage.setTool(this);
    c_.say(say("measure-bench.click-ask", {{"ask", drawing_->ask()}}));
}

void MeasureBench::stopDrawing() {
    drawing_.reset();
    cursor_.reset();
    if (goal_.active()) goal_.end();
    c_.say({});
    c_.stage.setTool(this);
}

void MeasureBench::placeCorner(ImagePoint at) {
    if (!drawing_->place(at)) return c_.say(say("measure-bench.click-ask", {{"ask", drawing_->ask()}}));
    const Drawing drawn = *drawing_;
    stopDrawing();
    drawn.finish();
}

void MeasureBench::keepMark(MarkKind kind, const std::vector<ImagePoint>& corners) {
    const std::string id = c_.session.ids().next<struct MarkTag>("mark").value;
    const FreeMark mark{id, kind, c_.stage.shownFrame(), corners};
    perform(msg("measure-bench.draw", {{"nameOf", nameOf(kind)}}), {SetMark{id, mark}});
    selected_ = Grip{std::nullopt, id, mark.points.size() - 1};
}

void MeasureBench::paintUnder(QPainter& p, const ViewTransform& view) {
    p.setRenderHint(QPainter::Antialiasing);
    if (const MeasureDefinition* m = chosen()) paths_.paintPaths(p, view, landmarksOf(*m));
}

void MeasureBench::paintOver(QPainter& p, const ViewTransform& view) {
    p.setRenderHint(QPainter::Antialiasing);
    if (goal_.active()) return goal_.paint(p, view);
    if (cursor_)
        paths_.paintGuess(p, view, {*cursor_, 0, GuessFrom::Limb});
    else if (const auto g = guess(); g && !drawing_)
        paths_.paintGuess(p, view, *g);
    if (drawing_) drawing_->paint(p, view, hover_);
    if (!selected_) return;
    const auto place = placeOf(delivery(), *selected_);
    if (!place || (selected_->point && selected_->point->frame != c_.stage.shownFrame())) return;
    p.setPen(QPen(palette::clay, 2));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(view.toView(*place), 9, 9);
}

void MeasureBench::hidePoint() {
    if (!step_) return c_.say(say("measure-bench.nothing-to-hide"));
    const PointKey key{step_->frame, step_->landmark};
    perform(msg("measure-bench.hidden-here"), {SetPoint{key, PointMark{{}, std::string(kHiddenByBody)}}});
    goToStep();
}

void MeasureBench::placeSmeared() {
    if (!step_ || step_->frame != c_.stage.shownFrame()) return c_.say(say("measure-bench.none-on-frame"));
    draw(Drawing(MarkKind::Line,
                 {say("measure-bench.one-end-of-the-smear"), say("measure-bench.its-other-end")},
                 [this](const auto& ends) {
                     if (step_ && step_->frame == c_.stage.shownFrame())
                         placePoint({(ends[0].x + ends[1].x) / 2, (ends[0].y + ends[1].y) / 2},
                                    length(ends[1] - ends[0]));
                 }));
}

void MeasureBench::giveAnswer() {
    const MeasureDefinition* m = chosen();
    // Without a chosen row the first one that waits for an answer is meant.
    for (const MeasureRow& row : c_.session.assessment().measures) {
        if (m) break;
        const MeasureDefinition* next = playbook().measure(row.id);
        if (row.value.state == MeasureState::NotLookedAt && !waitsFor(*next, delivery()).isEmpty()) m = next;
    }
    if (!m) return c_.say(say("measure-bench.choose-a-measure-in-the-list"));
    questions_.answer(*m);
}

std::optional<Guess> MeasureBench::guess() const {
    if (!step_ || step_->frame != c_.stage.shownFrame()) return std::nullopt;
    return guessFor(delivery(), step_->landmark, step_->frame);
}

void MeasureBench::takeGuess() {
    if (cursor_ && step_ && step_->frame == c_.stage.shownFrame()) {
        placePoint(*cursor_);
        // The hand stays on the keys for the rest of the frame.
        cursor_.reset();
        if (step_ && step_->frame == c_.stage.shownFrame()) startCursor();
        return c_.stage.update();
    }
    const auto g = guess();
    if (!g) return c_.say(say("measure-bench.there-is-no-guess-here-click"));
    placePoint(g->at);
}

void MeasureBench::startCursor() {
    if (goal_.active()) return goal_.nextJoint();
    if (!step_ || step_->frame != c_.stage.shownFrame()) return c_.say(say("measure-bench.none-on-frame"));
    const Clip& clip = c_.session.clip();
    cursor_ = startFor(delivery(), *step_).value_or(ImagePoint{clip.width / 2.0, clip.height / 2.0});
    c_.say(say("measure-bench.ring-hint"));
    c_.stage.update();
}

void MeasureBench::addMeasures() {
    Library& library = c_.session.library();
    const auto take = [this](std::vector<std::string> extras) {
        if (extras != review().extras)
            perform(msg("measure-bench.choose-the-measures"), {SetExtras{std::move(extras)}});
    };
    const auto keepUsual = [&library](const std::vector<std::string>& ids) {
        const Status kept = keepUsualMeasures(library, ids);
        return kept ? QString() : say(kept.error().text);
    };
    pickMeasures(
        this, {playbook(), review(), c_.session.assessment(), c_.session.clip().view, usualMeasures(library)},
        {take, keepUsual, [this] { makeOwnMeasure(); }});
}

void MeasureBench::makeOwnMeasure() {
    askOwnMeasure(this, [this](const OwnMeasureOrder& order) {
        const auto id = c_.keepMeasure(order);
        if (!id) return say(id.error().text);
        c_.session.playbookChanged();
        std::vector<std::string> extras = review().extras;
        extras.push_back(*id);
        perform(msg("measure-bench.take-a-measure-of-your-own"), {SetExtras{std::move(extras)}});
        return QString();
    });
}

void MeasureBench::nudge(double dx, double dy) {
    if (goal_.active()) return goal_.nudge(dx, dy);
    if (cursor_) {
        const Clip& clip = c_.session.clip();
        cursor_ = ImagePoint{std::clamp(cursor_->x + dx, 0.0, static_cast<double>(clip.width)),
                             std::clamp(cursor_->y + dy, 0.0, static_cast<double>(clip.height))};
        return c_.stage.update();
    }
    if (!selected_) {
        c_.say(say("measure-bench.nudge-first"));
        return;
    }
    if (const auto place = placeOf(delivery(), *selected_))
        moveGrip(*selected_, {place->x + dx, place->y + dy}, msg("measure-bench.nudge-a-point"));
}

void MeasureBench::removeSelected() {
    if (goal_.active()) return goal_.remove();
    if (!selected_) return;
    perform(selected_->point ? msg("measure-bench.delete-a-point") : msg("measure-bench.delete-a-line"),
            {removed(*selected_)});
    selected_.reset();
}

bool MeasureBench::removeChosen() {
    const bool here = selected_ && (!selected_->point || selected_->point->frame == c_.stage.shownFrame());
    if (!goal_.active() && !here) return false;
    removeSelected();
    return true;
}

void MeasureBench::skipMeasure() {
    const MeasureDefinition* m = chosen();
    if (!m) {
        c_.say(say("measure-bench.choose-a-measure-in-the-list-2"));
        return;
    }
    const bool aside = delivery().measureNotes.contains(m->id);
    perform(aside ? msg("measure-bench.take-it-up-again") : msg("measure-bench.set-aside"),
            {SetMeasureNote{m->id, aside ? std::nullopt
                                         : std::optional(MeasureNote{MeasureState::NotApplicable,
                                                                     std::string(kSetAside)})}});
}

/// The points of this frame first, then the next row in the list that nothing is known of: a row that waits
/// for an answer is as open as one that waits for points.
void MeasureBench::nextOpen() {
    showStep();
    if (step_ && step_->frame != c_.playhead.frame()) return goToStep();
    const auto& rows = c_.session.assessment().measures;
    const int count = static_cast<int>(rows.size());
    for (int i = 1; i <= count; ++i) {
        const int row = (std::max(list_->current(), 0) + i) % count;
        if (rows[static_cast<std::size_t>(row)].value.state != MeasureState::NotLookedAt) continue;
        list_->setCurrent(row);
        return select(row);
    }
    if (!step_) c_.goTo(Stage::Judge);
}

Handlers MeasureBench::handlers() {
    const auto drawing = [this](Drawing d) { draw(std::move(d)); };
    Handlers all = {
        {"measure-next", [this] { nextOpen(); }},
        {"point-hidden", [this] { hidePoint(); }},
        {"point-smeared", [this] { placeSmeared(); }},
        {"measure-answer", [this] { giveAnswer(); }},
        {"measure-again",
         [this] {
             if (const auto* m = chosen()) questions_.again(*m);
         }},
        {"measure-add", [this] { addMeasures(); }},
        {"measure-sequence", [this] { paths_.showOrder(); }},
        {"measure-steady", [this] { paths_.steady(); }},
        {"measure-follow", [this] { paths_.follow(); }},
        {"point-guess", [this] { takeGuess(); }},
        {"measure-suggested", [this] { paths_.goToSuggested(chosen()); }},
        {"measure-turn", [this, drawing] { questions_.cameraTurn(drawing); }},
        {"measure-scale", [this, drawing] { questions_.scale(drawing); }},
        {"measure-skip", [this] { skipMeasure(); }},
        {"point-delete", [this] { removeSelected(); }},
        {"point-cursor", [this] { startCursor(); }},
        {"row-up", [this] { list_->move(-1); }},
        {"row-down", [this] { list_->move(1); }},
        {"tool-none", [this] { stopDrawing(); }},
        {"measure-ghost", [this] { toggleGhost(); }},
        {"measure-goal-by-hand", [this] { setGoalByHand(); }},
        {"measure-order", [this] { toggleOrder(); }},
    };
    constexpr std::pair<const char*, MarkKind> tools[] = {
        {"tool-plumb", MarkKind::Plumb}, {"tool-level", MarkKind::Level},
        {"tool-line", MarkKind::Line},   {"tool-head-box", MarkKind::HeadBox},
        {"tool-angle", MarkKind::Angle}, {"tool-mound", MarkKind::Mound}};
    all.merge(nudges([this](double dx, double dy) { nudge(dx, dy); }));
    for (const auto& [id, kind] : tools) all[id] = [this, kind = kind] { startDrawing(kind); };
    return all;
}

void MeasureBench::toggleGhost() {
    showGhost_ = !showGhost_;
    c_.say(showGhost_ ? say("measure-bench.the-goal-of-the-chosen-measure")
                      : say("measure-bench.the-goal-is-not-drawn"));
    refresh();
}

void MeasureBench::setGoalByHand() {
    if (goal_.active()) return goal_.end();
    const MeasureDefinition* m = chosen();
    if (!m) return c_.say(say("measure-bench.choose-a-measure-in-the-list-2"));
    showGhost_ = true;
    goal_.begin(*m);
}

void MeasureBench::toggleOrder() {
    order_ = order_ == WalkOrder::Time ? WalkOrder::Body : WalkOrder::Time;
    refresh();
    goToStep();
}

} // namespace jg::ui
