// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/juxta/lock_strip.h"

#include "letter/palette.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>
#include <vector>

namespace jg::ui {

namespace {
constexpr double kMargin = 24, kTrackH = 34;
constexpr double kBeforeMs = 250, kAfterMs = 350; // shown about the outermost positions
constexpr double kBetweenNames = 6, kLeastBetweenNames = 1, kBesideDot = 2;

/// Where the names begin: above their dots, and of two that are too near each other one to the left of its
/// own and one to the right.
std::vector<double> leftsOf(const std::vector<double>& dots, const std::vector<double>& widths) {
    std::vector<double> lefts;
    bool pushed = false;
    for (std::size_t i = 0; i < dots.size(); ++i) {
        const double centred = dots[i] - widths[i] / 2;
        const bool crowded =
            i + 1 < dots.size() && centred + widths[i] + kBetweenNames > dots[i + 1] - widths[i + 1] / 2;
        lefts.push_back(pushed ? dots[i] + kBesideDot : crowded ? dots[i] - kBesideDot - widths[i] : centred);
        pushed = crowded && !pushed;
    }
    return lefts;
}
} // namespace

LockStrip::LockStrip(QWidget* parent)
    : QWidget(parent) {
    setFixedHeight(em(92));
    setAccessibleName(say("pair-place.time"));
}

void LockStrip::setTracks(std::array<LockTrack, 2> tracks) {
    tracks_ = std::move(tracks);
    const double first = std::min(tracks_[0].firstMs, tracks_[1].firstMs),
                 last = std::max(tracks_[0].lastMs, tracks_[1].lastMs);
    firstMs_ = last, lastMs_ = first;
    for (const LockTrack& t : tracks_)
        for (const LockPin& pin : t.pins) {
            firstMs_ = std::min(firstMs_, pin.ms - kBeforeMs);
            lastMs_ = std::max(lastMs_, pin.ms + kAfterMs);
        }
    if (firstMs_ >= lastMs_) firstMs_ = first, lastMs_ = last;
    firstMs_ = std::max(firstMs_, first);
    lastMs_ = std::max(firstMs_ + 1, std::min(lastMs_, last));
    update();
}

void LockStrip::setNow(double ms, const QString& words) {
    now_ = ms;
    words_ = words;
    update();
}

double LockStrip::xOf(double ms) const {
    return kMargin + (usualWidth(*this) - 2 * kMargin) * (ms - firstMs_) / (lastMs_ - firstMs_);
}

void LockStrip::paintTrack(QPainter& p, std::size_t track) {
    const LockTrack& t = tracks_[track];
    const double base = 30 + static_cast<double>(track) * kTrackH;
    p.setPen(QPen(palette::rule, 1));
    p.drawLine(QPointF(xOf(std::max(t.firstMs, firstMs_)), base),
               QPointF(xOf(std::min(t.lastMs, lastMs_)), base));
    const double perFrame = xOf(t.frameMs) - xOf(0);
    if (perFrame >= 3) {
        p.setPen(QPen(palette::quiet, 1));
        const double from = std::ceil((std::max(t.firstMs, firstMs_)) / t.frameMs) * t.frameMs;
        for (double ms = from; ms <= std::min(t.lastMs, lastMs_); ms += t.frameMs)
            p.drawLine(QPointF(xOf(ms), base - 3), QPointF(xOf(ms), base));
    }
    p.setFont(textFont(11));
    const QFontMetricsF metrics(p.font());
    std::vector<double> dots, widths;
    for (const LockPin& pin : t.pins) {
        dots.push_back(xOf(pin.ms));
        widths.push_back(metrics.horizontalAdvance(pin.name));
    }
    const std::vector<double> lefts = leftsOf(dots, widths);
    double lastRight = -100;
    for (std::size_t i = 0; i < dots.size(); ++i) {
        const double x = dots[i];
        p.setPen(Qt::NoPen);
        p.setBrush(palette::ink);
        if (track == 0)
            p.drawEllipse(QPointF(x, base), 4, 4);
        else
            p.drawRect(QRectF(x - 3.5, base - 3.5, 7, 7));
        if (lefts[i] < lastRight + kLeastBetweenNames) continue; // its dot stays
        lastRight = lefts[i] + widths[i];
        p.setPen(palette::ink);
        p.drawText(QPointF(lefts[i], base - 8), t.pins[i].name);
    }
}

void LockStrip::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(unscaled(rect()), palette::sheet);
    p.fillRect(QRectF(0, 0, usualWidth(*this), 1), palette::rule);
    for (const std::size_t track : {std::size_t{0}, std::size_t{1}}) paintTrack(p, track);
    const double x = xOf(std::clamp(now_, firstMs_, lastMs_));
    p.setPen(QPen(palette::clay, 2));
    p.drawLine(QPointF(x, 8), QPointF(x, 70));
    p.setFont(textFont(11.5, true));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(words_) + 16;
    QRectF box(x - w / 2, 70, w, 19);
    box.moveLeft(std::clamp(box.left(), 2.0, std::max(2.0, usualWidth(*this) - w - 2.0)));
    p.setPen(Qt::NoPen);
    p.setBrush(palette::clay);
    p.drawRoundedRect(box, 4, 4);
    p.setPen(Qt::white);
    p.drawText(box, Qt::AlignCenter, words_);
}

void LockStrip::scrub(double x) {
    const double part = (x - kMargin) / std::max(1.0, usualWidth(*this) - 2 * kMargin);
    Q_EMIT scrubbed(firstMs_ + std::clamp(part, 0.0, 1.0) * (lastMs_ - firstMs_));
}

void LockStrip::mousePressEvent(QMouseEvent* event) {
    scrub(event->position().x() / textScale());
}

void LockStrip::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() & Qt::LeftButton) scrub(event->position().x() / textScale());
}

std::optional<SpokenRange> LockStrip::spokenRange() const {
    return SpokenRange{std::llround(firstMs_), std::llround(lastMs_), std::llround(now_)};
}

} // namespace jg::ui
