// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/juxta/pair_view.h"

#include "film/convert.h"
#include "kinematics/ghost.h"
#include "kinematics/unit_words.h"
#include "letter/mark_painter.h"
#include "letter/veils.h"
#include "review/record/joints.h"
#include "ui/film/loupe.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <QMouseEvent>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {
constexpr double kBetween = 6;
// Of the area's height: the body, and where the ground lies. Of its width: how far from the middle a body
// stands away from its target, so that the stride has room.
constexpr double kBodyPart = 0.7, kGroundPart = 0.88, kBack = 0.17;
constexpr double kRoom = 1.75; ///< heights that a delivery takes from one side to the other
constexpr double kMostZoom = 12;
const QColor kColours[2] = {palette::chalk, palette::second};
} // namespace

PairView::PairView(const Playbook& playbook, QWidget* parent)
    : QWidget(parent)
    , playbook_(playbook) {
    setObjectName("pair-view");
    setAccessibleName(say("pair-place.two"));
    setMinimumSize(400, 240);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void PairView::setSide(std::size_t side, PairSide shown) {
    const PairSide& before = sides_[side];
    if (shown.picture.pixels != before.picture.pixels || !before.row) { // a step tells more than a picture
        const JuxtaEntry& entry = shown.row->entry;
        const QImage image = shownImage(shown.picture, entry.marks.veils, shown.frame,
                                        QSizeF(entry.clip.width, entry.clip.height));
        images_[side] = shown.row->fit && shown.row->fit->mirrored ? image.mirrored(true, false) : image;
    }
    middles_[side] = bodyMiddleAt(shown.row->entry, std::max<std::int64_t>(0, shown.frame));
    sides_[side] = std::move(shown);
    update();
}

void PairView::setLook(PairLook look) {
    look_ = look;
    fit();
}

void PairView::setStacked(bool above) {
    stacked_ = above;
    fit();
}

void PairView::setFade(double part) {
    fade_ = std::clamp(part, 0.0, 1.0);
    update();
}

void PairView::setUnlocked(std::optional<std::size_t> side) {
    unlocked_ = side;
    update();
}

void PairView::setAngles(std::vector<AngleChange> angles) {
    angles_ = std::move(angles);
    update();
}

void PairView::setAsking(const QString& landmark) {
    asking_ = landmark;
    setCursor(landmark.isEmpty() ? Qt::ArrowCursor : Qt::CrossCursor);
    update();
}

void PairView::fit() {
    zoom_ = 1;
    pan_ = {};
    update();
}

QRectF PairView::areaOf(std::size_t side) const {
    const QRectF all = unscaled(rect());
    if (look_ != PairLook::Beside) return all;
    const auto at = static_cast<double>(side);
    if (stacked_) {
        const double h = (all.height() - kBetween) / 2;
        return {0, at * (h + kBetween), all.width(), h};
    }
    const double w = (all.width() - kBetween) / 2;
    return {at * (w + kBetween), 0, w, all.height()};
}

ViewTransform PairView::viewOf(std::size_t side) const {
    const PairSide& s = sides_[side];
    const QRectF area = areaOf(side);
    const Clip& clip = s.row->entry.clip;
    ViewTransform view = ViewTransform::fit(QSizeF(clip.width, clip.height), area);
    if (const auto& fit = s.row->fit; fit && sides_[1 - side].row->fit) {
        const int toward = targetDirectionX(s.row->entry.hand, clip.view) * (fit->mirrored ? -1 : 1);
        // Beside each other each goes with its athlete; over each other both stay where they stood at Set.
        const bool follows = look_ == PairLook::Beside;
        const double x = follows ? middles_[side] : fit->middleX;
        const double middle = fit->mirrored ? clip.width - x : x;
        const double bodyPx =
            follows ? kBodyPart * area.height() : std::min(kBodyPart * area.height(), area.width() / kRoom);
        view.scale = bodyPx / fit->heightPx;
        view.offset = {area.center().x() - (follows ? 0 : toward * kBack * area.width()) -
                           middle * view.scale,
                       area.top() + kGroundPart * area.height() - fit->groundY * view.scale};
    }
    view.offset = area.center() + (view.offset - area.center()) * zoom_ + pan_;
    view.scale *= zoom_;
    return view;
}

QPointF PairView::toView(std::size_t side, ImagePoint at) const {
    const JuxtaRow& row = *sides_[side].row;
    if (row.fit && row.fit->mirrored) at.x = row.entry.clip.width - at.x;
    return viewOf(side).toView(at) * textScale();
}

ImagePoint PairView::toPicture(std::size_t side, QPointF at) const {
    const JuxtaRow& row = *sides_[side].row;
    ImagePoint p = viewOf(side).toImage(at);
    if (row.fit && row.fit->mirrored) p.x = row.entry.clip.width - p.x;
    return p;
}

std::optional<std::size_t> PairView::sideAt(QPointF at) const {
    // One over the other: the one that is seen more takes the mouse.
    if (look_ != PairLook::Beside) return fade_ > 0.5 ? 1 : 0;
    for (const std::size_t side : {std::size_t{0}, std::size_t{1}})
        if (areaOf(side).contains(at)) return side;
    return std::nullopt;
}

void PairView::paintPicture(QPainter& p, std::size_t side, double opacity) {
    if (images_[side].isNull()) return;
    const ViewTransform view = viewOf(side);
    const Clip& clip = sides_[side].row->entry.clip;
    p.setOpacity(opacity);
    p.drawImage(QRectF(view.toView({0, 0}), QSizeF(clip.width * view.scale, clip.height * view.scale)),
                images_[side]);
    p.setOpacity(1);
}

void PairView::paintMarks(QPainter& p, std::size_t side, const QRectF& area) {
    const PairSide& s = sides_[side];
    if (s.frame < 0) return;
    MarkScene scene = sceneFor(s.row->entry.marks, playbook_, s.row->entry.results, s.frame);
    for (const auto& [landmark, at] : jointsOn(s.row->entry.marks, s.frame))
        if (std::none_of(scene.points.begin(), scene.points.end(), [&, at = at](const ScenePoint& known) {
                return known.at.x == at.x && known.at.y == at.y;
            }))
            scene.points.push_back({at, true});
    if (look_ == PairLook::Over) scene.labels.clear(); // two on one place; the panel tells them
    paintScene(p, mirroredFor(*s.row, std::move(scene)), viewOf(side), area, windowWords(), 1,
               kColours[side]);
}

void PairView::paintFigure(QPainter& p, std::size_t side) {
    const PairSide& s = sides_[side];
    const JointPlaces joints = jointsOn(s.row->entry.marks, s.frame);
    const auto place = [&](Landmark l) { return toView(side, joints.at(l)) / textScale(); };
    QPen pen(kColours[side], 5, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
    if (side == 1) pen.setDashPattern({1.6, 1.2}); // told apart without colour
    p.setPen(pen);
    for (const auto& [a, b] : limbsOf(joints)) p.drawLine(place(a), place(b));
    p.setPen(QPen(palette::casing, 1.5));
    p.setBrush(kColours[side]);
    for (const auto& [landmark, at] : joints) {
        if (landmark == Landmark::Ground || landmark == Landmark::Rubber) continue;
        if (side == 0)
            p.drawEllipse(place(landmark), 5, 5);
        else
            p.drawRect(QRectF(place(landmark) - QPointF(4.5, 4.5), QSizeF(9, 9)));
    }
}

void PairView::paintAngles(QPainter& p) {
    MarkScene scene;
    const JointPlaces joints = jointsOn(sides_[1].row->entry.marks, sides_[1].frame);
    for (const AngleChange& a : angles_)
        if (const auto at = joints.find(a.angle->vertex); a.real && at != joints.end()) {
            const QPointF v = toView(1, at->second) / textScale();
            const auto by = std::lround(a.difference.value);
            scene.labels.push_back(
                {{v.x(), v.y()},
                 msg(by < 0 ? "pair-place.less" : "pair-place.more",
                     {{"number", withUnit({std::abs(static_cast<double>(by)), 0}, "deg")}}),
                 false});
        }
    paintScene(p, scene, {}, unscaled(rect()), windowWords());
}

void PairView::paintCaption(QPainter& p, std::size_t side) {
    const PairSide& s = sides_[side];
    const QRectF area = areaOf(side);
    // Over each other the first is told at the left, the second at the right.
    const bool right = look_ != PairLook::Beside && side == 1;
    const double w = look_ == PairLook::Beside ? area.width() - 24 : area.width() / 2 - 24;
    const QRectF box(right ? area.right() - 12 - w : area.left() + 12, area.top() + 10, w, 40);
    const auto align = (right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignTop;
    const auto write = [&](const QFont& font, const QString& words, double y) {
        p.setFont(font);
        const QRectF line(box.left(), box.top() + y, box.width(), 20);
        const QRectF room = p.boundingRect(line, static_cast<int>(align), words).adjusted(-6, -1, 6, 1);
        p.setPen(Qt::NoPen);
        QColor under = palette::casing;
        under.setAlphaF(0.8f);
        p.setBrush(under);
        p.drawRoundedRect(room, 3, 3);
        p.setPen(kColours[side]);
        p.drawText(line, static_cast<int>(align), words);
    };
    write(textFont(13.5, true), s.caption, 0);
    write(textFont(12.5), s.time, 23);
    if (unlocked_ == side) write(textFont(12.5, true), say("pair-place.unlocked"), 46);
    if (!s.message.isEmpty()) {
        p.setPen(palette::chalk);
        p.setFont(textFont(14));
        p.drawText(area.adjusted(30, 90, -30, -30), Qt::AlignCenter | Qt::TextWordWrap, s.message);
    }
}

void PairView::paintBeside(QPainter& p) {
    for (const std::size_t side : {std::size_t{0}, std::size_t{1}}) {
        const QRectF area = areaOf(side);
        p.save();
        p.setClipRect(area);
        p.fillRect(area, palette::stage);
        paintPicture(p, side, 1);
        paintMarks(p, side, area);
        p.restore();
    }
}

void PairView::paintOver(QPainter& p) {
    p.fillRect(unscaled(rect()), palette::stage);
    paintPicture(p, 0, 1);
    paintPicture(p, 1, fade_);
    if (fade_ < 1) paintMarks(p, 0, areaOf(0));
    if (fade_ > 0) paintMarks(p, 1, areaOf(1));
}

void PairView::paintFigures(QPainter& p) {
    const QRectF all = unscaled(rect());
    p.fillRect(all, palette::stage);
    constexpr std::size_t kFew = 3; // joints of which no figure can be made
    const auto enough = [&](const PairSide& s) {
        return jointsOn(s.row->entry.marks, s.frame).size() >= kFew;
    };
    if (!enough(sides_[0]) || !enough(sides_[1])) {
        p.setPen(palette::chalk);
        p.setFont(textFont(14));
        p.drawText(all.adjusted(60, 60, -60, -60), Qt::AlignCenter | Qt::TextWordWrap,
                   say("pair-place.no-figures"));
    }
    if (const auto& fit = sides_[0].row->fit) {
        const double ground = viewOf(0).toView({0, fit->groundY}).y();
        p.setPen(QPen(palette::quiet, 1.5));
        p.drawLine(QPointF(0, ground), QPointF(all.width(), ground));
    }
    for (const std::size_t side : {std::size_t{0}, std::size_t{1}})
        if (enough(sides_[side])) paintFigure(p, side);
    paintAngles(p);
}

void PairView::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    if (!sides_[0].row || !sides_[1].row) return;
    p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    p.fillRect(unscaled(rect()), palette::paper);
    if (look_ == PairLook::Beside) paintBeside(p);
    if (look_ == PairLook::Over) paintOver(p);
    if (look_ == PairLook::Figures) paintFigures(p);
    for (const std::size_t side : {std::size_t{0}, std::size_t{1}}) paintCaption(p, side);
    paintGlass(p);
    if (asking_.isEmpty()) return;
    const QRectF all = unscaled(rect());
    p.setFont(textFont(13.5, true));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(asking_) + 24;
    const QRectF box(all.center().x() - w / 2, all.bottom() - 40, w, 28);
    p.setPen(Qt::NoPen);
    p.setBrush(palette::clay);
    p.drawRoundedRect(box, 4, 4);
    p.setPen(Qt::white);
    p.drawText(box, Qt::AlignCenter, asking_);
}

void PairView::paintGlass(QPainter& p) {
    const auto side = held_ ? held_ : mouse_ ? sideAt(*mouse_) : std::nullopt;
    if (!side || !mouse_ || (asking_.isEmpty() && !held_) || look_ == PairLook::Figures) return;
    if (!sides_[*side].exact || images_[*side].isNull()) return;
    const ViewTransform view = viewOf(*side);
    const Clip& clip = sides_[*side].row->entry.clip;
    const QRectF place(view.toView({0, 0}), QSizeF(clip.width * view.scale, clip.height * view.scale));
    paintLoupe(p, look_ == PairLook::Beside ? areaOf(*side) : unscaled(rect()), *mouse_, images_[*side],
               place, {}, textFont(11.5));
}

void PairView::leaveEvent(QEvent*) {
    mouse_.reset();
    update();
}

void PairView::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position() / textScale();
    const auto side = sideAt(at);
    if (side && event->button() == Qt::LeftButton && sides_[*side].exact && look_ != PairLook::Figures) {
        held_ = side;
        constexpr double kReach = 10;
        Q_EMIT pressed(*side, toPicture(*side, at), kReach / viewOf(*side).scale);
    }
    panning_ = event->button() != Qt::LeftButton;
    panFrom_ = at;
}

void PairView::mouseMoveEvent(QMouseEvent* event) {
    const QPointF at = event->position() / textScale();
    mouse_ = at;
    if (!asking_.isEmpty() || held_) update();
    if (held_) Q_EMIT dragged(toPicture(*held_, at));
    if (panning_) {
        pan_ += at - panFrom_;
        panFrom_ = at;
        update();
    }
}

void PairView::mouseReleaseEvent(QMouseEvent*) {
    if (held_) Q_EMIT released();
    held_.reset();
    panning_ = false;
}

void PairView::wheelEvent(QWheelEvent* event) {
    const QPointF at = event->position() / textScale();
    const auto side = sideAt(at);
    if (!side) return;
    constexpr double kNotch = 120;
    const double to = std::clamp(zoom_ * std::pow(1.2, event->angleDelta().y() / kNotch), 1.0, kMostZoom);
    // What lies under the pointer stays there.
    const QPointF centre = areaOf(*side).center();
    pan_ = (at - centre) * (1 - to / zoom_) + pan_ * (to / zoom_);
    zoom_ = to;
    if (zoom_ == 1) pan_ = {};
    update();
}

QString PairView::spokenValue() const {
    QStringList words;
    for (const PairSide& s : sides_) words << s.caption << s.time;
    for (const AngleChange& a : angles_)
        if (a.real) words << say(a.angle->name()) + " " + QString::number(std::lround(a.difference.value));
    return words.join(", ");
}

} // namespace jg::ui
