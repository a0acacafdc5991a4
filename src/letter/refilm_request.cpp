#include "letter/refilm_request.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/qt_text.h"

#include <QPainter>
#include <QPainterPath>

#include <cmath>

namespace jg {

namespace {

constexpr double kScale = 46; // pixels a metre
constexpr QPointF kRubber(340, 280);
constexpr double kSideM = 5, kRearM = 6, kFrontM = 8;

/// Where the phone stands, seen from above: the plate lies to the right, third base below.
QPointF phonePlace(View view, Hand hand) {
    const double down = targetDirectionX(hand, view); // third base: the athlete strides to the right
    switch (view) {
    case View::Front:
        return kRubber + QPointF(kFrontM * kScale, 0);
    case View::Rear:
        return kRubber - QPointF(kRearM * kScale, 0);
    default:
        return kRubber + QPointF(0.6 * kScale, down * kSideM * kScale);
    }
}

double metresOf(View view) {
    return view == View::Front ? kFrontM : view == View::Rear ? kRearM : kSideM;
}

std::string standText(View view, Hand hand) {
    switch (view) {
    case View::Front:
        return "Stand in front, beside the plate, about 8 m (26 ft) from the rubber, behind a net or a "
               "screen: never in "
               "the way of the ball.";
    case View::Rear:
        return "Stand behind the rubber, about 6 m (20 ft) away, on the line to the plate.";
    default:
        break;
    }
    return "Stand on " + std::string(placeOf(view, hand)) +
           ", square to the line from the rubber to the plate, about 5 m (16 ft) away, half a step "
           "towards "
           "the plate.";
}

void arrow(QPainter& p, QPointF from, QPointF to) {
    p.drawLine(from, to);
    const double way = std::atan2(to.y() - from.y(), to.x() - from.x());
    for (const double side : {2.6, -2.6})
        p.drawLine(to, to + 12 * QPointF(std::cos(way + side), std::sin(way + side)));
}

void drawPlace(QPainter& p) {
    p.setPen(Qt::NoPen);
    p.setBrush(palette::shade);
    p.drawEllipse(kRubber, 1.9 * kScale, 1.9 * kScale);
    p.setBrush(palette::ink);
    p.drawRect(QRectF(kRubber - QPointF(5, 16), QSizeF(10, 32)));
    p.setPen(QPen(palette::quiet, 1.6, Qt::DashLine));
    arrow(p, kRubber + QPointF(30, 0), QPointF(860, kRubber.y()));
    p.setFont(textFont(27));
    p.setPen(palette::quiet);
    p.drawText(QRectF(660, kRubber.y() - 46, 220, 38), Qt::AlignRight, "to the plate");
    // Beside the mound on the side no phone looks from.
    p.drawText(QRectF(kRubber.x() - 1.9 * kScale - 110, kRubber.y() - 1.9 * kScale - 14, 160, 38),
               Qt::AlignHCenter, "mound");
}

void drawPhone(QPainter& p, View view, Hand hand) {
    const QPointF at = phonePlace(view, hand), way = kRubber + QPointF(0.6 * kScale, 0) - at;
    const double length = std::hypot(way.x(), way.y());
    const QPointF along = way / length, across(-along.y(), along.x());
    QPainterPath sight(at);
    sight.lineTo(at + way * 1.25 + across * length * 0.55);
    sight.lineTo(at + way * 1.25 - across * length * 0.55);
    sight.closeSubpath();
    QColor light = palette::clay;
    light.setAlphaF(0.12F);
    p.fillPath(sight, light);
    p.setPen(QPen(palette::clay, 2));
    arrow(p, at + along * 18, at + way * 0.72);
    p.setPen(Qt::NoPen);
    p.setBrush(palette::clay);
    p.save();
    p.translate(at);
    p.rotate(std::atan2(along.y(), along.x()) * 180 / M_PI);
    p.drawRoundedRect(QRectF(-6, -15, 12, 30), 3, 3);
    p.restore();
    p.setFont(textFont(27, true));
    p.setPen(palette::clayDeep);
    const QString words = QString("phone, %1 m away").arg(metresOf(view), 0, 'f', 0);
    const QRectF box(std::clamp(at.x() + 24.0, 10.0, 600.0), at.y() + (isSideView(view) ? -19 : 26), 300, 38);
    p.drawText(box, Qt::AlignLeft | Qt::AlignVCenter, words);
}

} // namespace

RefilmRequest refilmRequest(const Athlete& athlete, View view, const std::string& coach) {
    RefilmRequest r;
    r.text = "Hello " + athlete.firstName + ",\n\nplease film once more from the " +
             std::string(nameOf(view)) + ".\n";
    r.text +=
        "\nHow to film:\n- " + standText(view, athlete.hand) +
        "\n- Hold the phone level at hip height, sideways, on something firm. Do not follow the pitch.\n"
        "- The whole body with room on all sides, about two thirds of the picture's height.\n"
        "- Slow motion, 240 pictures a second if the phone can, 120 at least. Plenty of light.\n"
        "- Start before the hands are set and stop when the finish is held. Three pitches are enough.\n"
        "- Send the file as it is, not through an editor.\n\n" +
        coach + "\n";
    r.drawing = QImage(900, 560, QImage::Format_RGB32);
    r.drawing.fill(palette::paper);
    QPainter p(&r.drawing);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(headFont(40));
    p.setPen(palette::ink);
    p.drawText(QRectF(28, 14, 840, 60), Qt::AlignLeft, "Where to stand: " + text(nameOf(view)));
    drawPlace(p);
    drawPhone(p, view, athlete.hand);
    return r;
}

} // namespace jg
