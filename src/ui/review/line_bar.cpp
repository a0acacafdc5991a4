#include "ui/review/line_bar.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "ui/hot_spot.h"
#include "ui/words.h"

#include <QPainter>

namespace jg::ui {

namespace {
constexpr int kStations = 7;
constexpr double kFirst = 216;
} // namespace

LineBar::LineBar(QWidget* parent)
    : QWidget(parent) {
    setFixedHeight(56);
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
    desk_->setGeometry(deskRect());
    for (int i = 0; i < kStations; ++i)
        stations_[static_cast<std::size_t>(i)]->setGeometry(stationRect(static_cast<Stage>(i)));
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

double LineBar::xOf(int station) const {
    const double last = std::clamp(width() - 356.0, kFirst + 560, kFirst + 800);
    return kFirst + (last - kFirst) * station / (kStations - 1);
}

QRect LineBar::stationRect(Stage stage) const {
    return QRect(static_cast<int>(xOf(static_cast<int>(stage))) - 50, 4, 100, 48);
}

QRect LineBar::deskRect() const {
    return QRect(14, 4, 160, 48);
}

QString LineBar::countOf(Stage stage) const {
    const auto of = [](int done, int all) {
        return all > 0 ? QString(" %1/%2").arg(done).arg(all) : QString();
    };
    switch (stage) {
    case Stage::Positions:
        return of(counts_.positions, counts_.positionsAll);
    case Stage::Measure:
        return of(counts_.measures, counts_.measuresAll);
    case Stage::Judge:
        return of(counts_.judged, counts_.judgedAll);
    case Stage::Say:
        return of(counts_.said, counts_.saidAll);
    case Stage::Prescribe:
        return counts_.drills > 0 ? of(counts_.drills - counts_.drillsWithoutDose, counts_.drills)
                                  : QString();
    default:
        return {};
    }
}

bool LineBar::doneAt(Stage stage) const {
    const Counts& c = counts_;
    switch (stage) {
    case Stage::Look:
        return seen_;
    case Stage::Positions:
        return c.positions == c.positionsAll;
    case Stage::Measure:
        return c.measuresAll > 0 && c.measures == c.measuresAll;
    case Stage::Judge:
        return c.judgedAll > 0 && c.judged == c.judgedAll;
    case Stage::Say:
        return c.saidAll > 0 && c.said == c.saidAll;
    case Stage::Prescribe:
        return c.corrections > 0 && c.drills > 0 && c.drillsWithoutDose == 0;
    default:
        return stage_ == Stage::Sent;
    }
}

void LineBar::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), palette::sheet);
    p.fillRect(QRectF(0, height() - 1, width(), 1), palette::rule);
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
        const QString name = say(nameOf(stage)), count = countOf(stage);
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
    const double right = width() - 20;
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
