// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/review/line_bar.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "ui/kit/hot_spot.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

namespace jg::ui {

namespace {
constexpr int kStations = 7;
constexpr double kFirst = 216;
constexpr double kNarrow = 1000; ///< usual pixels; below it the stations keep their names only
} // namespace

LineBar::LineBar(QWidget* parent)
    : QWidget(parent) {
    setFixedHeight(em(56));
    setAccessibleName(say("line-bar.the-walk-of-this-review"));
    desk_ = new HotSpot(say("line-bar.back-to-the-desk"), this);
    connect(desk_, &HotSpot::clicked, this, &LineBar::toDesk);
    for (int i = 0; i < kStations; ++i) {
        const auto stage = static_cast<Stage>(i);
        auto* spot = new HotSpot(say(nameOf(stage)), this);
        connect(spot, &HotSpot::clicked, this, [this, stage] { Q_EMIT chosen(stage); });
        stations_[static_cast<std::size_t>(i)] = spot;
    }
}

void LineBar::resizeEvent(QResizeEvent*) {
    desk_->setGeometry(scaled(deskRect()));
    for (int i = 0; i < kStations; ++i)
        stations_[static_cast<std::size_t>(i)]->setGeometry(scaled(stationRect(static_cast<Stage>(i))));
}

void LineBar::tellStates() {
    for (int i = 0; i < kStations; ++i) {
        const auto stage = static_cast<Stage>(i);
        const QString count = countOf(stage).trimmed().replace("/", say("line-bar.of"));
        stations_[static_cast<std::size_t>(i)]->setState(
            doneAt(stage) ? (say("line-bar.count-done", {{"count", count}})).trimmed() : count,
            stage == stage_);
    }
}

void LineBar::setWho(const QString& who, const QString& conditions) {
    who_ = who;
    conditions_ = conditions;
    setAccessibleDescription(who_ + ", " + conditions_);
    update();
}

void LineBar::setState(Stage stage, const Counts& counts, bool seen) {
    stage_ = stage;
    counts_ = counts;
    seen_ = seen;
    tellStates();
    update();
}

bool LineBar::narrow() const {
    return usualWidth(*this) < kNarrow;
}

double LineBar::xOf(int station) const {
    const double last =
        narrow() ? kFirst + 444 : std::clamp(usualWidth(*this) - 356, kFirst + 560, kFirst + 800);
    return kFirst + (last - kFirst) * station / (kStations - 1);
}

QRect LineBar::stationRect(Stage stage) const {
    const int half = narrow() ? 36 : 50;
    return QRect(static_cast<int>(xOf(static_cast<int>(stage))) - half, 4, 2 * half, 48);
}

QRect LineBar::deskRect() const {
    return QRect(14, 4, 160, 48);
}

QString LineBar::countOf(Stage stage) const {
    const StageWork work = workAt(stage, counts_);
    return work.all > 0 ? QString(" %1/%2").arg(work.done).arg(work.all) : QString();
}

bool LineBar::doneAt(Stage stage) const {
    if (stage == Stage::Look) return seen_;
    if (stage == Stage::Send) return stage_ == Stage::Sent;
    return workAt(stage, counts_).complete;
}

void LineBar::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.fillRect(unscaled(rect()), palette::sheet);
    p.fillRect(QRectF(0, usualHeight(*this) - 1, usualWidth(*this), 1), palette::rule);
    p.setPen(palette::ink);
    p.setFont(headFont(19));
    p.drawText(QPointF(20, 34), "Juxtagraph");
    p.setPen(QPen(palette::quiet, 1.6));
    p.drawPolyline(QPolygonF({QPointF(130, 22), QPointF(123, 28), QPointF(130, 34)}));
    p.setFont(textFont(12.5));
    p.drawText(QPointF(136, 33), say("line-bar.desk"));

    paintStations(p);
    paintWho(p);
}

void LineBar::paintStations(QPainter& p) {
    p.setPen(QPen(palette::rule, 3));
    p.drawLine(QPointF(xOf(0), 20), QPointF(xOf(kStations - 1), 20));
    p.setPen(QPen(palette::moss, 3));
    for (int i = 0; i + 1 < kStations; ++i)
        if (doneAt(static_cast<Stage>(i))) p.drawLine(QPointF(xOf(i), 20), QPointF(xOf(i + 1), 20));
    for (int i = 0; i < kStations; ++i) {
        const auto stage = static_cast<Stage>(i);
        const bool current = stage == stage_;
        const bool done = doneAt(stage);
        p.setPen(current || done ? QPen(palette::sheet, 2) : QPen(palette::quiet, 1.8));
        p.setBrush(current ? palette::clay : done ? palette::moss : palette::sheet);
        p.drawEllipse(QPointF(xOf(i), 20), current ? 8 : 6, current ? 8 : 6);
        const QString name = say(nameOf(stage)), count = narrow() ? QString() : countOf(stage);
        const QFont nameFont = textFont(12.5, current), countFont = textFont(12.5, current);
        const double w = QFontMetricsF(nameFont).horizontalAdvance(name),
                     cw = QFontMetricsF(countFont).horizontalAdvance(count);
        const double left = xOf(i) - (w + cw) / 2;
        p.setFont(nameFont);
        p.setPen(palette::ink);
        p.drawText(QPointF(left, 45), name);
        p.setFont(countFont);
        p.setPen(palette::quiet);
        p.drawText(QPointF(left + w, 45), count);
    }
}

void LineBar::paintWho(QPainter& p) {
    const double right = usualWidth(*this) - 20;
    const double from = xOf(kStations - 1) + 30; // its name is short
    const auto elided = [&](const QString& s, const QFont& f) {
        return QFontMetricsF(f).elidedText(s, Qt::ElideRight, right - from);
    };
    p.setFont(textFont(13.5, true));
    p.setPen(palette::ink);
    p.drawText(QRectF(from, 8, right - from, 22), Qt::AlignRight | Qt::AlignVCenter, elided(who_, p.font()));
    p.setFont(textFont(12));
    p.setPen(palette::quiet);
    p.drawText(QRectF(from, 29, right - from, 20), Qt::AlignRight | Qt::AlignVCenter,
               elided(conditions_, p.font()));
}

} // namespace jg::ui
