#include "ui/review/measure_bench.h"

#include "kinematics/geometry.h"
#include "letter/mark_scene.h"
#include "review/letter_model.h"
#include "review/one_person.h"
#include "ui/review/measure_picker.h"
#include "ui/review/measure_words.h"
#include "ui/review/own_measure_dialog.h"
#include "ui/theme.h"

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
    , paths_(this, c_, performer()) {
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
    list_->setAccessibleName("Measures");
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
    if (drawing_)
        return {{"click", "place"}, {"Esc", "back to the guided points", "tool-none"}, {"Z", "undo", "undo"}};
    return {{"click", "place"},
            {"H", "hidden", "point-hidden"},
            {"U", "answer", "measure-answer"},
            {"A", "more measures", "measure-add"},
            {"G", "goal", "measure-ghost"},
            {"S", "scale", "measure-scale"},
            {"W", "by time or body", "measure-order"},
            {"Z", "undo", "undo"}};
}

PerformEdit MeasureBench::performer() {
    return [this](const std::string& label, std::vector<Change> changes) {
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
        ListRow row;
        if (isExtra(m.id) && def->group != part) row.header = groupName(part = def->group);
        row.title = QString::fromStdString(def->shortName);
        row.sub =
            m.target.type == TargetType::Record ? "recorded" : QString::fromStdString(wordsOf(m.target));
        row.value = valueText(m.value);
        if (m.value.value) row.error = "\u00b1" + QString::fromStdString(errorInWords(m.value));
        if (m.value.state == MeasureState::NotLookedAt && !def->hasPoints())
            row.sub = waitsFor(*def, delivery());
        row.look = lookOf(m.judgement);
        rows.push_back(std::move(row));
    }
    const int keep = list_->current();
    list_->setRows(std::move(rows));
    list_->setCurrent(keep);
    listTitle_->setText(QString("By %1, edition %2 \u00b7 walked by %3")
                            .arg(QString::fromStdString(review().approach().name))
                            .arg(review().approach().version)
                            .arg(order_ == WalkOrder::Time ? "time" : "body"));
    showStep();
    showNote();
}

void MeasureBench::enter() {
    showStep();
    showNote();
    goToStep();
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
        title_->setText(positions ? "All points are placed" : "Positions first");
        what_->setText(positions ? "Drag any point to correct it; all numbers follow. " + whatNext(c_.session)
                                 : "Set the key positions, then the points are asked for here.");
        const MeasureDefinition* m = chosen();
        const std::vector<Landmark> landmarks = m ? landmarksOf(*m) : std::vector<Landmark>{};
        figure_->show(std::nullopt, landmarks, !right, m ? QString::fromStdString(m->hint) : QString());
    } else {
        const MeasureDefinition* m = playbook().measure(step_->measures.front());
        std::vector<Landmark> landmarks = landmarksOf(*m);
        if (std::find(landmarks.begin(), landmarks.end(), step_->landmark) == landmarks.end())
            landmarks = {Landmark::Crown, Landmark::Ground};
        title_->setText(QString::fromStdString(m->name));
        const auto left = std::count_if(steps.begin(), steps.end(),
                                        [&](const GuideStep& s) { return s.frame == step_->frame; });
        what_->setText(QString("%1: place the %2, %3. %4 left on this frame, %5 in all.")
                           .arg(step_->lost ? QString("Its path was lost at frame %1").arg(step_->frame)
                                            : "At " + text(info(step_->moment).name),
                                text(info(step_->landmark).name), text(info(step_->landmark).where))
                           .arg(left)
                           .arg(steps.size()));
        figure_->show(step_->landmark, landmarks, !right, QString::fromStdString(m->hint));
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
    if (const auto frame = delivery().frameOf(m->moments.back()))
        c_.playhead.step(*frame - c_.playhead.frame());
    showStep();
    showNote();
    c_.redraw();
}

QString MeasureBench::stageCaption() const {
    const QString steadied = delivery().shake && delivery().shake->on ? "shake taken out" : "";
    for (const auto& [moment, mark] : delivery().moments)
        if (mark.frame == c_.playhead.frame())
            return text(info(moment).name) + (steadied.isEmpty() ? "" : " \u00b7 " + steadied);
    return steadied;
}

QString MeasureBench::loupeText() const {
    if (drawing_) return drawing_->ask();
    if (!step_ || step_->frame != c_.stage.shownFrame()) return {};
    return text(info(step_->landmark).name) + ", " + text(info(step_->landmark).where);
}

void MeasureBench::moveGrip(const Grip& grip, ImagePoint to, const char* label) {
    to.x = std::clamp(to.x, 0.0, static_cast<double>(c_.session.clip().width));
    to.y = std::clamp(to.y, 0.0, static_cast<double>(c_.session.clip().height));
    if (auto change = moved(delivery(), grip, to)) perform(label, {*std::move(change)});
}

bool MeasureBench::press(ImagePoint at, double reach) {
    if (drawing_) return placeCorner(at), true;
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
        c_.say("That is beside the picture. Click on the athlete.");
        return true;
    }
    if (step_ && step_->frame == c_.stage.shownFrame()) return placePoint(at), true;
    if (step_) {
        c_.say(QString("The next point belongs to %1 (frame %2). Enter goes there.")
                   .arg(text(info(step_->moment).name))
                   .arg(step_->frame));
        return true;
    }
    return false;
}

void MeasureBench::drag(ImagePoint at) {
    if (!grabbed_) return;
    dragged_ = dragged_ || length(at - grabFrom_) > slack_;
    if (dragged_) moveGrip(*grabbed_, at + grabOffset_, "Move a point");
}

void MeasureBench::release(ImagePoint at) {
    if (!grabbed_) return;
    c_.session.endGesture();
    grabbed_.reset();
    // Joints may lie on one another in the picture: a click places what is asked for, only a drag moves.
    if (!dragged_ && step_ && step_->frame == c_.stage.shownFrame()) placePoint(at);
}

void MeasureBench::placePoint(ImagePoint at, double smearPx) {
    const PointKey key{step_->frame, step_->landmark};
    const std::string label = "Place the " + std::string(info(step_->landmark).name);
    const qint64 before = c_.playhead.frame();
    // Within a smear the joint may lie anywhere alike.
    const double sigma = std::hypot(c_.session.clickSigmaPx(step_->landmark), smearPx / std::sqrt(12.0));
    if (!perform(label, {SetPoint{key, PointMark{{at, sigma}, ""}}})) return;
    selected_ = Grip{key, "", 0};
    showStep();
    if (step_ && step_->frame != before) goToStep();
    for (const OddPair& pair : notOnePerson(delivery()))
        if (pair.frame == key.frame && (pair.from == key.landmark || pair.to == key.landmark))
            return c_.say(text(pair.words) + " Z takes it back.");
}

void MeasureBench::startDrawing(MarkKind kind) {
    const QStringList asks = kind == MarkKind::Angle ? QStringList{"one side", "the corner", "the other side"}
                                                     : QStringList{"one end", "the other end"};
    draw(Drawing(kind, asks, [this, kind](const auto& corners) { keepMark(kind, corners); }));
    c_.say(
        QString("%1: click its %2.")
            .arg(text(nameOf(kind)), pointsOf(kind) == 3 ? "three points, the corner second" : "two ends"));
}

void MeasureBench::draw(Drawing drawing) {
    drawing_ = std::move(drawing);
    c_.stage.setTool(this);
    c_.say("Click " + drawing_->ask() + ".");
}

void MeasureBench::stopDrawing() {
    drawing_.reset();
    cursor_.reset();
    c_.say({});
    c_.stage.setTool(this);
}

void MeasureBench::placeCorner(ImagePoint at) {
    if (!drawing_->place(at)) return c_.say("Click " + drawing_->ask() + ".");
    const Drawing drawn = *drawing_;
    stopDrawing();
    drawn.finish();
}

void MeasureBench::keepMark(MarkKind kind, const std::vector<ImagePoint>& corners) {
    const std::string id = c_.session.ids().next<struct MarkTag>("mark").value;
    const FreeMark mark{id, kind, c_.stage.shownFrame(), corners};
    perform("Draw a " + std::string(nameOf(kind)), {SetMark{id, mark}});
    selected_ = Grip{std::nullopt, id, mark.points.size() - 1};
}

void MeasureBench::paintOver(QPainter& p, const ViewTransform& view) {
    p.setRenderHint(QPainter::Antialiasing);
    if (const MeasureDefinition* m = chosen()) paths_.paintPaths(p, view, landmarksOf(*m));
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
    if (!step_) return;
    const PointKey key{step_->frame, step_->landmark};
    perform("Hidden here", {SetPoint{key, PointMark{{}, "hidden by the body"}}});
    goToStep();
}

void MeasureBench::placeSmeared() {
    if (!step_ || step_->frame != c_.stage.shownFrame())
        return c_.say("No point is asked for on this frame. Enter goes to the next one.");
    draw(Drawing(MarkKind::Line, {"one end of the smear", "its other end"}, [this](const auto& ends) {
        if (step_ && step_->frame == c_.stage.shownFrame())
            placePoint({(ends[0].x + ends[1].x) / 2, (ends[0].y + ends[1].y) / 2}, length(ends[1] - ends[0]));
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
    if (!m) return c_.say("Choose a measure in the list; then U answers what it asks.");
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
    if (!g) return c_.say("There is no guess here: click the point, or C to place it by keys.");
    placePoint(g->at);
}

void MeasureBench::startCursor() {
    if (!step_ || step_->frame != c_.stage.shownFrame())
        return c_.say("No point is asked for on this frame. Enter goes to the next one.");
    const Clip& clip = c_.session.clip();
    cursor_ = startFor(delivery(), *step_).value_or(ImagePoint{clip.width / 2.0, clip.height / 2.0});
    c_.say("The ring: Shift+arrows move it by half a pixel, Ctrl+Shift+arrows by ten. K takes it, Esc ends.");
    c_.stage.update();
}

void MeasureBench::addMeasures() {
    pickMeasures(
        this, playbook(), review(), c_.session.clip().view,
        [this](std::vector<std::string> extras) {
            if (extras != review().extras) perform("Choose the measures", {SetExtras{std::move(extras)}});
        },
        [this] { makeOwnMeasure(); });
}

void MeasureBench::makeOwnMeasure() {
    askOwnMeasure(this, [this](const OwnMeasureOrder& order) {
        const auto id = c_.keepMeasure(order);
        if (!id) return text(id.error().text);
        c_.session.playbookChanged();
        std::vector<std::string> extras = review().extras;
        extras.push_back(*id);
        perform("Take a measure of your own", {SetExtras{std::move(extras)}});
        return QString();
    });
}

void MeasureBench::nudge(double dx, double dy) {
    if (cursor_) {
        const Clip& clip = c_.session.clip();
        cursor_ = ImagePoint{std::clamp(cursor_->x + dx, 0.0, static_cast<double>(clip.width)),
                             std::clamp(cursor_->y + dy, 0.0, static_cast<double>(clip.height))};
        return c_.stage.update();
    }
    if (!selected_) {
        c_.say("Click a point first; then the keys nudge it by half a pixel.");
        return;
    }
    if (const auto place = placeOf(delivery(), *selected_))
        moveGrip(*selected_, {place->x + dx, place->y + dy}, "Nudge a point");
}

void MeasureBench::removeSelected() {
    if (!selected_) return;
    perform(selected_->point ? "Delete a point" : "Delete a line", {removed(*selected_)});
    selected_.reset();
}

void MeasureBench::skipMeasure() {
    const MeasureDefinition* m = chosen();
    if (!m) {
        c_.say("Choose a measure in the list, then set it aside.");
        return;
    }
    const bool aside = delivery().measureNotes.contains(m->id);
    perform(aside ? "Take it up again" : "Set aside",
            {SetMeasureNote{m->id, aside ? std::nullopt
                                         : std::optional(MeasureNote{MeasureState::NotApplicable,
                                                                     "Set aside by the coach."})}});
}

void MeasureBench::nextOpen() {
    showStep();
    if (step_)
        goToStep();
    else
        c_.goTo(Stage::Judge);
}

bool MeasureBench::act(const QString& id) {
    if (id == "measure-next") return nextOpen(), true;
    if (id == "point-hidden") return hidePoint(), true;
    if (id == "point-smeared") return placeSmeared(), true;
    if (id == "measure-answer") return giveAnswer(), true;
    if (id == "measure-add") return addMeasures(), true;
    if (id == "measure-sequence") return paths_.showOrder(), true;
    if (id == "measure-steady") return paths_.steady(), true;
    if (id == "measure-follow") return paths_.follow(), true;
    if (id == "point-guess") return takeGuess(), true;
    if (id == "measure-suggested") return paths_.goToSuggested(chosen()), true;
    if (id == "measure-turn") return questions_.cameraTurn([this](Drawing d) { draw(std::move(d)); }), true;
    if (id == "measure-scale") return questions_.scale([this](Drawing d) { draw(std::move(d)); }), true;
    if (id == "measure-ghost") {
        showGhost_ = !showGhost_;
        c_.say(showGhost_ ? "The goal of the chosen measure is drawn on the athlete."
                          : "The goal is not drawn.");
        return refresh(), true;
    }
    if (id == "measure-order") {
        order_ = order_ == WalkOrder::Time ? WalkOrder::Body : WalkOrder::Time;
        refresh();
        return goToStep(), true;
    }
    if (id == "measure-skip") return skipMeasure(), true;
    if (id == "point-delete") return removeSelected(), true;
    if (id == "nudge-left") return nudge(-0.5, 0), true;
    if (id == "nudge-right") return nudge(0.5, 0), true;
    if (id == "nudge-up") return nudge(0, -0.5), true;
    if (id == "nudge-down") return nudge(0, 0.5), true;
    if (id == "nudge-left-10") return nudge(-10, 0), true;
    if (id == "nudge-right-10") return nudge(10, 0), true;
    if (id == "nudge-up-10") return nudge(0, -10), true;
    if (id == "nudge-down-10") return nudge(0, 10), true;
    if (id == "point-cursor") return startCursor(), true;
    if (id == "row-up") return list_->move(-1), true;
    if (id == "row-down") return list_->move(1), true;
    if (id == "tool-plumb") return startDrawing(MarkKind::Plumb), true;
    if (id == "tool-level") return startDrawing(MarkKind::Level), true;
    if (id == "tool-line") return startDrawing(MarkKind::Line), true;
    if (id == "tool-head-box") return startDrawing(MarkKind::HeadBox), true;
    if (id == "tool-angle") return startDrawing(MarkKind::Angle), true;
    if (id == "tool-mound") return startDrawing(MarkKind::Mound), true;
    if (id == "tool-none") return stopDrawing(), true;
    return false;
}

} // namespace jg::ui
