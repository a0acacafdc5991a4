// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/measure/guide_figure.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/qt_text.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <QPainterPath>

#include <map>

namespace jg::ui {

namespace {

/// The figure's landmarks in a 120 x 110 drawing, moving to the right.
const std::map<Landmark, QPointF>& places() {
    static const std::map<Landmark, QPointF> p = {
        {Landmark::Head, {56, 20}},         {Landmark::Crown, {56, 8}},
        {Landmark::Chin, {61, 27}},         {Landmark::Neck, {56, 33}},
        {Landmark::MidBack, {55, 48}},      {Landmark::Pelvis, {56, 64}},
        {Landmark::LeadShoulder, {68, 37}}, {Landmark::BackShoulder, {44, 37}},
        {Landmark::LeadElbow, {84, 39}},    {Landmark::BackElbow, {28, 39}},
        {Landmark::LeadWrist, {98, 33}},    {Landmark::BackWrist, {27, 22}},
        {Landmark::LeadHip, {62, 65}},      {Landmark::BackHip, {50, 65}},
        {Landmark::LeadKnee, {86, 76}},     {Landmark::BackKnee, {32, 82}},
        {Landmark::LeadAnkle, {95, 99}},    {Landmark::BackAnkle, {12, 98}},
        {Landmark::LeadHeel, {92, 104}},    {Landmark::BackHeel, {7, 98}},
        {Landmark::LeadToe, {106, 104}},    {Landmark::BackToe, {15, 105}},
        {Landmark::Ball, {27, 14}},         {Landmark::Glove, {103, 31}},
        {Landmark::Rubber, {6, 106}},       {Landmark::Ground, {56, 106}}};
    return p;
}

} // namespace

GuideFigure::GuideFigure(QWidget* parent)
    : QWidget(parent) {
    setAccessibleName(say("guide-figure.where-to-click"));
    setFixedHeight(em(132));
}

void GuideFigure::show(std::optional<Landmark> next, std::vector<Landmark> others, bool mirror,
                       const QString& hint) {
    next_ = next;
    others_ = std::move(others);
    mirror_ = mirror;
    hint_ = hint;
    update();
}

QPointF GuideFigure::at(Landmark l) const {
    QPointF q = places().at(l);
    if (mirror_) q.setX(116 - q.x());
    return QPointF(26 + q.x() * 1.12, 8 + q.y() * 1.06);
}

void GuideFigure::paintBody(QPainter& p, double thick, bool filled) const {
    using L = Landmark;
    p.setPen(QPen(QColor(0xA8, 0xA2, 0x98), thick, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
    for (const auto& path : {std::vector{L::BackHip, L::BackKnee, L::BackAnkle, L::BackToe},
                             {L::LeadHip, L::LeadKnee, L::LeadAnkle, L::LeadToe},
                             {L::Pelvis, L::MidBack, L::Neck},
                             {L::BackShoulder, L::LeadShoulder, L::LeadElbow, L::LeadWrist},
                             {L::BackShoulder, L::BackElbow, L::BackWrist},
                             {L::BackHip, L::LeadHip}}) {
        QPolygonF line;
        for (const Landmark l : path) line << at(l);
        p.drawPolyline(line);
    }
    if (filled) p.setBrush(p.pen().color());
    p.drawEllipse(at(L::Head), 10, 10);
}

/// The next landmark drawn near: where in the limb the point lies.
void GuideFigure::paintNear(QPainter& p) const {
    constexpr double kRadius = 42, kTimes = 3.4;
    const QPointF middle(usualWidth(*this) - kRadius - 10, kRadius + 8), joint = at(*next_);
    p.save();
    QPainterPath round;
    round.addEllipse(middle, kRadius, kRadius);
    p.fillPath(round, palette::paper);
    p.setClipPath(round);
    p.translate(middle);
    p.scale(kTimes, kTimes);
    p.translate(-joint);
    paintBody(p, 8, true);
    if (*next_ == Landmark::Ground || *next_ == Landmark::Rubber) {
        p.setPen(QPen(palette::quiet, 1));
        p.drawLine(QPointF(0, joint.y()), QPointF(usualWidth(*this), joint.y()));
    }
    p.restore();
    p.setPen(QPen(palette::rule, 1));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(middle, kRadius, kRadius);
    p.setPen(QPen(palette::clay, 2));
    for (const QPointF& arm : {QPointF(1, 0), QPointF(-1, 0), QPointF(0, 1), QPointF(0, -1)})
        p.drawLine(middle + 4 * arm, middle + 13 * arm);
    p.drawEllipse(middle, 2, 2);
}

void GuideFigure::paintWords(QPainter& p) const {
    constexpr double kLeft = 184;
    const double right = next_ ? 104 : 8;
    double y = 24;
    for (const Landmark l : others_) {
        const bool next = l == next_;
        p.setFont(textFont(12, next));
        p.setPen(next ? palette::clay : palette::quiet);
        p.drawText(QRectF(kLeft, y - 12, usualWidth(*this) - kLeft - right, 18), Qt::AlignVCenter,
                   say(info(l).name()));
        y += 19;
        if (y > 92) break;
    }
    p.setFont(textFont(11.5));
    p.setPen(palette::quiet);
    p.drawText(QRectF(kLeft, 96, usualWidth(*this) - kLeft - 8, 34), Qt::AlignVCenter | Qt::TextWordWrap,
               hint_);
}

void GuideFigure::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.setPen(QPen(palette::rule, 1));
    p.setBrush(palette::sheet);
    p.drawRoundedRect(unscaled(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 6, 6);
    paintBody(p, 5, false);
    p.setPen(Qt::NoPen);
    p.setBrush(palette::moss);
    for (const Landmark l : others_)
        if (l != next_) p.drawEllipse(at(l), 4.5, 4.5);
    if (next_) {
        p.setBrush(palette::clay);
        p.drawEllipse(at(*next_), 7.5, 7.5);
        paintNear(p);
    }
    paintWords(p);
}

QString GuideFigure::spokenValue() const {
    QStringList words;
    if (next_) words << say("guide-figure.next-next", {{"next", info(*next_).name()}});
    if (!hint_.isEmpty()) words << hint_;
    return words.join(". ");
}

} // namespace jg::ui
