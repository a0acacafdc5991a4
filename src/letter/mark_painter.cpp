// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/mark_painter.h"

#include "letter/fonts.h"

#include <QFontMetricsF>

#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace jg {

ViewTransform ViewTransform::fit(QSizeF picture, QRectF area) {
    ViewTransform t;
    if (picture.isEmpty()) return t;
    t.scale = std::min(area.width() / picture.width(), area.height() / picture.height());
    t.offset = area.topLeft() + QPointF((area.width() - picture.width() * t.scale) / 2,
                                        (area.height() - picture.height() * t.scale) / 2);
    return t;
}

namespace {

QColor faded(QColor c, bool faint) {
    if (faint) c.setAlphaF(0.35f);
    return c;
}

class ScenePainter {
public:
    ScenePainter(QPainter& p, const ViewTransform& view, QRectF area, const Words& words, double unit,
                 const QColor& colour)
        : p_(p)
        , view_(view)
        , area_(area)
        , words_(words)
        , unit_(unit)
        , colour_(colour) {}

    void lines(const std::vector<SceneLine>& lines) {
        // The casing of all first, so that no line is cut by its neighbour's.
        for (const bool casing : {true, false})
            for (const SceneLine& l : lines) {
                QPolygonF path;
                for (const ImagePoint q : l.points) path << view_.toView(q);
                p_.setPen(pen(casing ? 4.6 : 2.2, faded(casing ? palette::casing : colour_, l.faint),
                              l.dashed && !casing));
                p_.setBrush(Qt::NoBrush);
                p_.drawPolyline(path);
            }
    }

    void arcs(const std::vector<SceneArc>& arcs) {
        for (const SceneArc& a : arcs) {
            const QPointF v = view_.toView(a.vertex), pa = view_.toView(a.a), pb = view_.toView(a.b);
            const double start = std::atan2(-(pa.y() - v.y()), pa.x() - v.x()),
                         end = std::atan2(-(pb.y() - v.y()), pb.x() - v.x());
            const double sweep = std::remainder(end - start, 2 * M_PI);
            const double shorter = std::min(std::hypot(pa.x() - v.x(), pa.y() - v.y()),
                                            std::hypot(pb.x() - v.x(), pb.y() - v.y()));
            const double r = std::min(26 * unit_, 0.45 * shorter);
            const QRectF box(v.x() - r, v.y() - r, 2 * r, 2 * r);
            const auto sixteenths = [](double rad) {
                return static_cast<int>(std::lround(rad * 180 / M_PI * 16));
            };
            for (const bool casing : {true, false}) {
                p_.setPen(pen(casing ? 4 : 1.8, faded(casing ? palette::casing : colour_, a.faint), false));
                p_.drawArc(box, sixteenths(start), sixteenths(sweep));
            }
        }
    }

    void points(const std::vector<ScenePoint>& points) {
        for (const ScenePoint& s : points) {
            const QPointF c = view_.toView(s.at);
            p_.setPen(pen(1.6, faded(palette::casing, s.faint), false));
            p_.setBrush(faded(colour_, s.faint));
            p_.drawEllipse(c, 5.2 * unit_, 5.2 * unit_);
            p_.setBrush(faded(palette::casing, s.faint));
            p_.setPen(Qt::NoPen);
            p_.drawEllipse(c, 2 * unit_, 2 * unit_);
            taken_.push_back(QRectF(c.x() - 7 * unit_, c.y() - 7 * unit_, 14 * unit_, 14 * unit_));
        }
    }

    void boxes(const std::vector<SceneBox>& boxes) {
        for (const SceneBox& b : boxes) {
            const QRectF r = QRectF(view_.toView(b.a), view_.toView(b.b)).normalized();
            for (const bool casing : {true, false}) {
                p_.setPen(pen(casing ? 4 : 1.8, casing ? palette::casing : colour_, !casing));
                p_.setBrush(Qt::NoBrush);
                p_.drawRect(r);
            }
        }
    }

    void labels(const std::vector<SceneLabel>& labels) {
        for (const SceneLabel& l : labels) label(l, colour_);
    }

    void ghost(const SceneGhost& ghost) {
        p_.setBrush(Qt::NoBrush);
        for (const bool casing : {true, false}) {
            p_.setPen(pen(casing ? 4.6 : 2.4, casing ? palette::casing : palette::ghost, !casing));
            for (const auto& [a, b] : ghost.limbs) p_.drawLine(view_.toView(a), view_.toView(b));
            p_.setPen(pen(casing ? 4 : 2, casing ? palette::casing : palette::ghost, false));
            for (const ImagePoint j : ghost.joints) p_.drawEllipse(view_.toView(j), 5 * unit_, 5 * unit_);
        }
    }

    void label(const SceneLabel& l, const QColor& colour) {
        const QFont font = textFont(13.5 * unit_, true);
        const QFontMetricsF metrics(font);
        p_.setFont(font);
        const QString text = QString::fromStdString(words_(l.text));
        const QSizeF size(metrics.horizontalAdvance(text) + 14 * unit_, 21 * unit_);
        const QRectF box = freePlace(view_.toView(l.at), size);
        p_.setPen(Qt::NoPen);
        p_.setBrush(palette::casing);
        p_.setOpacity(0.92);
        p_.drawRoundedRect(box, 3 * unit_, 3 * unit_);
        p_.setOpacity(1);
        p_.setPen(colour);
        p_.drawText(box, Qt::AlignCenter, text);
        taken_.push_back(box);
    }

private:
    QPen pen(double width, QColor color, bool dashed) const {
        QPen pen(color, width * unit_, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
        if (dashed) pen.setDashPattern({2.5, 2.5});
        return pen;
    }

    /// The place round `at` that covers least of what is already drawn.
    QRectF freePlace(QPointF at, QSizeF size) const {
        QRectF best;
        double least = 1e18;
        for (const double distance : {16.0, 30.0, 48.0})
            for (int i = 0; i < 12; ++i) {
                const double a = i * M_PI / 6;
                const QPointF centre = at + QPointF(std::cos(a) * (distance * unit_ + size.width() / 2),
                                                    std::sin(a) * (distance * unit_ + size.height() / 2));
                const QRectF box(centre.x() - size.width() / 2, centre.y() - size.height() / 2, size.width(),
                                 size.height());
                double cost = distance * 0.4;
                for (const QRectF& t : taken_)
                    if (t.intersects(box))
                        cost +=
                            40 + t.intersected(box).width() * t.intersected(box).height() / (unit_ * unit_);
                if (!area_.contains(box)) cost += 5000;
                if (cost < least) least = cost, best = box;
            }
        return best;
    }

    QPainter& p_;
    const ViewTransform& view_;
    QRectF area_;
    const Words& words_;
    double unit_;
    QColor colour_;
    std::vector<QRectF> taken_;
};

} // namespace

void paintScene(QPainter& painter, const MarkScene& scene, const ViewTransform& view, QRectF area,
                const Words& words, double unit, const QColor& colour) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    ScenePainter p(painter, view, area, words, unit, colour);
    p.boxes(scene.boxes);
    p.lines(scene.lines);
    p.arcs(scene.arcs);
    if (scene.ghost) p.ghost(*scene.ghost);
    p.points(scene.points);
    p.labels(scene.labels);
    if (scene.ghost) p.label(scene.ghost->label, palette::ghost);
    painter.restore();
}

namespace {

constexpr double kArrowHead = 15, kArrowSpread = 0.45; ///< in units; radians to each side

QPainterPath arrow(QPointF from, QPointF to, double unit) {
    QPainterPath path(from);
    path.lineTo(to);
    const QPointF way = to - from;
    const double length = std::hypot(way.x(), way.y());
    if (length < 1) return path;
    const double head = std::min(kArrowHead * unit, 0.6 * length), back = std::atan2(-way.y(), -way.x());
    for (const double side : {-kArrowSpread, kArrowSpread}) {
        path.moveTo(to);
        path.lineTo(to + head * QPointF(std::cos(back + side), std::sin(back + side)));
    }
    return path;
}

QPainterPath pathOf(const Drawn& drawn, const ViewTransform& view, double unit) {
    const QPointF from = view.toView(drawn.points.front()), to = view.toView(drawn.points.back());
    QPainterPath path(from);
    switch (drawn.pen) {
    case Pen::Free:
        for (const ImagePoint p : drawn.points) path.lineTo(view.toView(p));
        break;
    case Pen::Line:
        path.lineTo(to);
        break;
    case Pen::Arrow:
        return arrow(from, to, unit);
    case Pen::Ring: {
        const double r = std::hypot((to - from).x(), (to - from).y());
        path.addEllipse(from, r, r);
        break;
    }
    case Pen::Box:
        path.addRect(QRectF(from, to).normalized());
        break;
    }
    return path;
}

} // namespace

void paintDrawn(QPainter& painter, const Drawn& drawn, const ViewTransform& view, double unit) {
    if (drawn.points.empty()) return;
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setOpacity(drawn.clear);
    painter.setBrush(Qt::NoBrush);
    const QPainterPath path = pathOf(drawn, view, unit);
    for (const bool casing : {true, false}) {
        painter.setPen(QPen(casing ? palette::casing : palette::chalk, (casing ? 6 : 3.2) * unit,
                            Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        painter.drawPath(path);
    }
    painter.restore();
}

void paintPointer(QPainter& painter, ImagePoint at, const ViewTransform& view, double unit) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QPointF c = view.toView(at);
    QColor halo = palette::clay;
    halo.setAlphaF(0.45f);
    painter.setPen(Qt::NoPen);
    painter.setBrush(halo);
    painter.drawEllipse(c, 13 * unit, 13 * unit);
    painter.setBrush(palette::clay);
    painter.drawEllipse(c, 5 * unit, 5 * unit);
    painter.restore();
}

} // namespace jg
