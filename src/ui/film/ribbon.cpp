// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/ribbon.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {
constexpr double kSide = 18;
constexpr double kTickTop = 88;
constexpr double kBase = 96;
} // namespace

Ribbon::Ribbon(QWidget* parent)
    : QWidget(parent) {
    setFixedHeight(em(118));
    setCursor(Qt::PointingHandCursor);
    setAccessibleName(say("ribbon.ribbon-of-frames"));
}

void Ribbon::setFilm(qint64 frames, double captureFps) {
    frames_ = frames;
    fps_ = captureFps;
    update();
}

void Ribbon::setMarks(std::vector<RibbonPin> pins, std::vector<RibbonFlag> flags,
                      std::optional<qint64> zero) {
    pins_ = std::move(pins);
    flags_ = std::move(flags);
    zero_ = zero;
    update();
}

void Ribbon::setDamaged(std::vector<std::pair<std::int64_t, std::int64_t>> stretches) {
    damaged_ = std::move(stretches);
    update();
}

void Ribbon::paintDamaged(QPainter& p) {
    for (const auto& [first, last] : damaged_) {
        const double left = xOf(static_cast<double>(first) - 0.5),
                     right = xOf(static_cast<double>(last) + 0.5);
        const QRectF band(left, 44, std::max(3.0, right - left), usualHeight(*this) - 74);
        p.fillRect(band, palette::shade);
        p.fillRect(band, QBrush(palette::clay, Qt::BDiagPattern));
    }
    if (damaged_.empty()) return;
    p.setFont(textFont(11));
    p.setPen(palette::clay);
    p.drawText(QRectF(usualWidth(*this) - 230, 2, 220, 16), Qt::AlignRight | Qt::AlignVCenter,
               say("ribbon.hatched-damaged-pictures"));
}

void Ribbon::setCut(std::optional<std::pair<qint64, qint64>> cut) {
    cut_ = cut;
    update();
}

void Ribbon::paintCut(QPainter& p) {
    if (!cut_) return;
    const double left = xOf(static_cast<double>(cut_->first)), right = xOf(static_cast<double>(cut_->second));
    for (const auto& [from, to] : {std::pair(0.0, left), std::pair(right, usualWidth(*this))})
        p.fillRect(QRectF(from, 1, to - from, usualHeight(*this) - 1), palette::shade);
}

void Ribbon::setCurve(std::vector<RibbonValue> curve, QString name) {
    curve_ = std::move(curve);
    curveName_ = std::move(name);
    update();
}

void Ribbon::paintCurve(QPainter& p) {
    if (curve_.empty()) return;
    constexpr double kTop = 50, kBottom = 88;
    double low = curve_.front().value, high = low;
    for (const RibbonValue& v : curve_) low = std::min(low, v.value), high = std::max(high, v.value);
    const auto yOf = [&](double value) {
        const double part = (value - low) / std::max(1e-9, high - low);
        return std::clamp(kBottom - part * (kBottom - kTop), kTop - 4, kBottom + 4);
    };
    QColor band = palette::moss;
    band.setAlphaF(0.18f);
    for (std::size_t i = 0; i + 1 < curve_.size(); ++i) {
        const RibbonValue &a = curve_[i], &b = curve_[i + 1];
        if (b.frame != a.frame + 1) continue; // unknown between: no line
        const double x0 = xOf(static_cast<double>(a.frame)), x1 = xOf(static_cast<double>(b.frame));
        p.setPen(Qt::NoPen);
        p.setBrush(band);
        p.drawPolygon(QPolygonF({{x0, yOf(a.value - a.half)},
                                 {x1, yOf(b.value - b.half)},
                                 {x1, yOf(b.value + b.half)},
                                 {x0, yOf(a.value + a.half)}}));
        p.setPen(QPen(palette::moss, 2));
        p.drawLine(QPointF(x0, yOf(a.value)), QPointF(x1, yOf(b.value)));
    }
    p.setFont(textFont(11));
    p.setPen(palette::moss);
    const double right = xOf(static_cast<double>(curve_.back().frame)) + 6;
    const double w = QFontMetricsF(p.font()).horizontalAdvance(curveName_);
    p.drawText(QPointF(std::min(right, usualWidth(*this) - w - 4), kTop + 4), curveName_);
}

void Ribbon::setFrame(qint64 frame) {
    frame_ = frame;
    update();
}

void Ribbon::setWave(std::vector<float> levels, double seconds,
                     std::vector<std::pair<double, QString>> events) {
    wave_ = std::move(levels);
    waveSeconds_ = seconds;
    waveEvents_ = std::move(events);
    update();
}

double Ribbon::xOf(double frame) const {
    return kSide +
           (usualWidth(*this) - 2 * kSide) * frame / std::max<double>(1, static_cast<double>(frames_ - 1));
}

QString Ribbon::timeText(qint64 frame) const {
    if (fps_ <= 0) return say("ribbon.frame-frame", {{"frame", frame}});
    if (!zero_) return say("film-deck.seconds", {{"seconds", Decimal{static_cast<double>(frame) / fps_, 2}}});
    const auto ms = std::lround(1000.0 * static_cast<double>(frame - *zero_) / fps_);
    return ms > 0 ? say("ribbon.after", {{"ms", ms}}) : say("unit.ms", {{"number", ms}});
}

void Ribbon::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.fillRect(unscaled(rect()), palette::sheet);
    p.fillRect(QRectF(0, 0, usualWidth(*this), 1), palette::rule);
    if (!wave_.empty()) {
        paintWave(p);
        return;
    }
    if (frames_ <= 0) return;
    paintCut(p);
    paintDamaged(p);
    paintScale(p);
    paintCurve(p);
    paintPins(p);
    paintHead(p);
}

void Ribbon::paintScale(QPainter& p) {
    const double perFrame =
        (usualWidth(*this) - 2 * kSide) / std::max<double>(1, static_cast<double>(frames_ - 1));
    p.setPen(QPen(palette::rule, 1));
    p.drawLine(QPointF(kSide, kBase), QPointF(usualWidth(*this) - kSide, kBase));
    const qint64 every = perFrame >= 3 ? 1 : static_cast<qint64>(std::ceil(3 / perFrame));
    p.setPen(QPen(palette::quiet, 1));
    for (qint64 n = 0; n < frames_; n += every) {
        const double x = std::round(xOf(static_cast<double>(n))) + 0.5;
        p.drawLine(QPointF(x, n % (10 * every) == 0 ? kTickTop - 4 : kTickTop + 2), QPointF(x, kBase));
    }
    // Labels at round times: as many as fit without touching.
    if (fps_ <= 0) return;
    const double zero = zero_ ? static_cast<double>(*zero_) : 0;
    const double lengthMs = 1000.0 * static_cast<double>(frames_) / fps_;
    double stepMs = 100;
    for (const double s : {100.0, 200.0, 250.0, 500.0, 1000.0, 2000.0, 5000.0, 10000.0, 30000.0}) {
        stepMs = s;
        if (lengthMs / s * 90 < usualWidth(*this)) break;
    }
    p.setFont(textFont(11));
    p.setPen(palette::quiet);
    for (double ms = std::ceil(-zero / fps_ * 1000 / stepMs) * stepMs;
         ms <= (static_cast<double>(frames_) - zero) / fps_ * 1000; ms += stepMs) {
        const double x = xOf(zero + ms * fps_ / 1000);
        const QString text = ms == 0 ? (zero_ ? say("ribbon.0-ms") : "0")
                                     : (ms > 0 ? "+" : "\u2212") + QString::number(std::abs(ms));
        p.drawText(QRectF(x - 40, kBase + 2, 80, 16), Qt::AlignHCenter, text);
    }
}

void Ribbon::paintPins(QPainter& p) {
    p.setFont(textFont(11.5));
    const QFontMetricsF metrics(p.font());
    double lastRight[2] = {-100, -100};
    for (const RibbonPin& pin : pins_) {
        const double x = xOf(static_cast<double>(pin.frame));
        p.setPen(QPen(palette::rule, 1));
        p.drawLine(QPointF(x, 40), QPointF(x, kBase));
        p.setPen(Qt::NoPen);
        p.setBrush(pin.keyPosition ? palette::ink : palette::quiet);
        if (pin.bracket)
            p.drawRect(QRectF(x - 1, 38, std::max(6.0, xOf(static_cast<double>(pin.frame + 1)) - x + 2), 9));
        else
            p.drawEllipse(QPointF(x, 42), 4, 4);
        if (!pin.keyPosition) continue;
        // Two rows of names; where neighbours lie too close one moves aside, tied to its dot.
        const double w = metrics.horizontalAdvance(pin.name);
        const double wanted = std::clamp(x - w / 2, 2.0, usualWidth(*this) - w - 2.0);
        const double at[2] = {std::max(wanted, lastRight[0] + 6), std::max(wanted, lastRight[1] + 6)};
        const int row = at[1] <= at[0] ? 1 : 0;
        const double left = at[row], base = row == 1 ? 32 : 16;
        lastRight[row] = left + w;
        if (left > wanted + 1) {
            p.setPen(QPen(palette::quiet, 0.8));
            p.drawLine(QPointF(x, 38), QPointF(left + 4, base + 3));
        }
        p.setPen(palette::ink);
        p.drawText(QPointF(left, base), pin.name);
    }
    for (const RibbonFlag& flag : flags_) {
        const double x = xOf(static_cast<double>(flag.frame));
        p.setPen(QPen(palette::clay, 1.5));
        p.drawLine(QPointF(x, 58), QPointF(x, 78));
        p.setBrush(flag.said ? palette::clay : palette::sheet);
        p.drawPolygon(QPolygonF({QPointF(x, 58), QPointF(x + 12, 63), QPointF(x, 68)}));
    }
}

void Ribbon::paintHead(QPainter& p) {
    const double x = xOf(static_cast<double>(frame_));
    p.setPen(QPen(palette::clay, 2));
    p.drawLine(QPointF(x, 36), QPointF(x, kBase + 2));
    const QString text = timeText(frame_) + " \u00b7 f " + QString::number(frame_);
    p.setFont(textFont(11.5, true));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(text) + 16;
    QRectF box(x - w / 2, 70, w, 19);
    box.moveLeft(std::clamp(box.left(), 2.0, usualWidth(*this) - w - 2.0));
    p.setPen(Qt::NoPen);
    p.setBrush(palette::clay);
    p.drawRoundedRect(box, 4, 4);
    p.setPen(Qt::white);
    p.drawText(box, Qt::AlignCenter, text);
}

void Ribbon::paintWave(QPainter& p) {
    const double shown = std::max(20.0, std::ceil(waveSeconds_ / 5) * 5);
    const auto xAt = [&](double s) { return kSide + (usualWidth(*this) - 2 * kSide) * s / shown; };
    p.setFont(textFont(11));
    for (const auto& [at, name] : waveEvents_) {
        p.setPen(QPen(palette::rule, 1));
        p.drawLine(QPointF(xAt(at), 16), QPointF(xAt(at), 88));
        p.setPen(palette::quiet);
        p.drawText(QPointF(xAt(at) + 4, 14), name);
    }
    const double step = waveSeconds_ / static_cast<double>(wave_.size());
    p.setPen(QPen(palette::moss, 2, Qt::SolidLine, Qt::RoundCap));
    for (std::size_t i = 0; i < wave_.size(); ++i) {
        const double h = 1 + 30 * std::sqrt(std::clamp<double>(wave_[i], 0, 1));
        const double x = xAt((static_cast<double>(i) + 0.5) * step);
        p.drawLine(QPointF(x, 52 - h), QPointF(x, 52 + h));
    }
    p.setPen(palette::quiet);
    for (int s = 0; s <= shown; s += 5)
        p.drawText(QRectF(xAt(s) - 30, kBase + 2, 60, 16), Qt::AlignHCenter,
                   QString("0:%1").arg(s, 2, 10, QChar('0')));
    p.setPen(QPen(palette::clay, 2));
    p.drawLine(QPointF(xAt(waveSeconds_), 10), QPointF(xAt(waveSeconds_), 92));
}

void Ribbon::scrub(double x) {
    if (frames_ <= 0 || !wave_.empty()) return;
    const double part = std::clamp((x - kSide) / std::max(1.0, usualWidth(*this) - 2 * kSide), 0.0, 1.0);
    Q_EMIT scrubbed(std::llround(part * static_cast<double>(frames_ - 1)));
}

void Ribbon::mousePressEvent(QMouseEvent* event) {
    scrub(event->position().x() / textScale());
}

void Ribbon::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() & Qt::LeftButton) scrub(event->position().x() / textScale());
}

QString Ribbon::spokenValue() const {
    QStringList words{say("ribbon.frame-frame", {{"frame", frame_}}), timeText(frame_)};
    for (const RibbonPin& pin : pins_)
        if (pin.frame == frame_) words << pin.name;
    return words.join(", ");
}

std::optional<SpokenRange> Ribbon::spokenRange() const {
    return SpokenRange{0, std::max<qint64>(0, frames_ - 1), frame_};
}

} // namespace jg::ui
