#include "ui/review/cause_map.h"

#include "coaching/cause_graph.h"
#include "ui/theme.h"

#include <QAbstractButton>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {

constexpr int kCardWidth = 196, kCardHeight = 66, kAcross = 76, kDown = 18, kEdge = 22;
constexpr int kUsualWidth = 866; // of the middle at 1280

/// A finding to click on: its name, and small print.
class Card : public QAbstractButton {
public:
    Card(const CauseCard& card, bool current, QWidget* parent)
        : QAbstractButton(parent)
        , card_(card)
        , current_(current) {
        setObjectName("cause-" + QString::fromStdString(card.id));
        setText(card.title);
        setAccessibleName(card.note.isEmpty() ? card.title : card.title + ": " + card.note);
        setFocusPolicy(Qt::TabFocus);
        setCursor(Qt::PointingHandCursor);
    }

protected:
    void paintEvent(QPaintEvent*) override {
        ScaledPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const QRectF box(1.5, 1.5, usualWidth(*this) - 3, usualHeight(*this) - 3);
        p.setPen(QPen(current_ || hasFocus() ? palette::clay
                      : card_.root           ? palette::moss
                                             : palette::rule,
                      current_ || hasFocus() ? 2.5
                      : card_.root           ? 2
                                             : 1));
        p.setBrush(card_.chosen ? QColor(Qt::white) : palette::sheet);
        p.drawRoundedRect(box, 7, 7);
        if (card_.chosen) {
            p.setPen(Qt::NoPen);
            p.setBrush(palette::moss);
            p.drawRect(QRectF(box.left(), box.top() + 8, 5, box.height() - 16));
        }
        const QRectF inner = box.adjusted(13, 6, -8, -6);
        p.setPen(palette::ink);
        p.setFont(textFont(12.5, card_.root));
        const int flags = Qt::AlignLeft | Qt::TextWordWrap;
        const double noteHeight = card_.note.isEmpty() ? 0 : 17;
        const QRectF title = inner.adjusted(0, 0, 0, -noteHeight);
        const bool twoLines = p.boundingRect(title, flags, card_.title).height() <= title.height();
        p.drawText(title, flags | Qt::AlignTop,
                   twoLines ? card_.title
                            : p.fontMetrics().elidedText(card_.title, Qt::ElideRight,
                                                         static_cast<int>(title.width() * 1.8)));
        p.setPen(palette::quiet);
        p.setFont(textFont(11));
        p.drawText(QRectF(inner.left(), inner.bottom() - noteHeight, inner.width(), noteHeight),
                   Qt::AlignLeft | Qt::AlignVCenter,
                   p.fontMetrics().elidedText(card_.note, Qt::ElideRight, static_cast<int>(inner.width())));
    }

private:
    CauseCard card_;
    bool current_;
};

struct Groups {
    RootSearch search;
    std::vector<std::string> ids;
    std::vector<int> column; ///< of each circle
};

/// Circles with their columns: one further right than the rightmost that leads to it.
Groups groupsOf(const CauseReport& report) {
    Groups g;
    g.ids = report.order;
    std::map<std::string, std::size_t> place;
    for (const std::string& id : g.ids) place.emplace(id, place.size());
    std::vector<std::pair<std::size_t, std::size_t>> arrows;
    for (const CauseLink& l : report.links) arrows.emplace_back(place.at(l.from), place.at(l.to));
    g.search = findRoots(g.ids.size(), arrows);
    g.column.assign(g.search.circles.size(), 0);
    for (std::size_t round = 0; round < g.column.size(); ++round)
        for (const auto& [from, to] : arrows) {
            const std::size_t a = g.search.circleOf[from], b = g.search.circleOf[to];
            if (a != b) g.column[b] = std::max(g.column[b], g.column[a] + 1);
        }
    return g;
}

bool isAlone(const Groups& g, std::size_t circle, const CauseReport& report) {
    const std::string& id = g.ids[g.search.circles[circle].front()];
    return g.search.circles[circle].size() == 1 &&
           std::none_of(report.links.begin(), report.links.end(),
                        [&](const CauseLink& l) { return l.from == id || l.to == id; });
}

} // namespace

CauseMap::CauseMap(QWidget* parent)
    : QWidget(parent) {
    setObjectName("cause-map");
    setAccessibleName(say("cause-map.name"));
}

void CauseMap::show(const CauseReport& report, const std::vector<CauseCard>& cards,
                    const std::string& current) {
    for (const auto& [id, button] : buttons_) button->hide(), button->deleteLater();
    buttons_.clear();
    cards_ = cards;
    links_ = report.links;
    for (const CauseCard& card : cards_) {
        auto* button = new Card(card, card.id == current, this);
        connect(button, &QAbstractButton::clicked, this,
                [this, id = QString::fromStdString(card.id)] { Q_EMIT chosen(id); });
        buttons_[card.id] = button;
        button->QWidget::show();
    }
    layOut(report);
    describe(report);
    update();
}

void CauseMap::layOut(const CauseReport& report) {
    const Groups g = groupsOf(report);
    circles_.clear();
    std::map<int, int> bottomOf; // of each column, in usual pixels
    int right = 0, bottom = 0;
    std::vector<std::size_t> order, alone;
    for (std::size_t i = 0; i < g.column.size(); ++i) (isAlone(g, i, report) ? alone : order).push_back(i);
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return g.column[a] < g.column[b]; });
    for (const std::size_t circle : order) {
        const auto& members = g.search.circles[circle];
        const bool together = members.size() > 1;
        const int x = kEdge + g.column[circle] * (kCardWidth + kAcross);
        int& y = bottomOf.try_emplace(g.column[circle], kEdge).first->second;
        const int top = y;
        if (together) y += 10;
        for (const std::size_t n : members) {
            const auto button = buttons_.find(g.ids[n]);
            if (button == buttons_.end()) continue;
            button->second->setGeometry(scaled(QRectF(x, y, kCardWidth, kCardHeight)));
            y += kCardHeight + (together ? 8 : kDown);
        }
        if (together) {
            circles_.push_back(scaled(QRectF(x - 8, top, kCardWidth + 16, y - top + 2)));
            y += kDown + 4;
        }
        right = std::max(right, x + kCardWidth), bottom = std::max(bottom, y);
    }
    // What nothing leads to and that leads nowhere stands below, side by side.
    aloneTop_ = alone.empty() || order.empty() ? 0 : bottom + 14;
    int x = kEdge, y = aloneTop_ > 0 ? aloneTop_ + 34 : kEdge;
    const int perRow = std::max(1, (kUsualWidth - kEdge) / (kCardWidth + kDown));
    for (std::size_t i = 0; i < alone.size(); ++i) {
        if (i > 0 && i % static_cast<std::size_t>(perRow) == 0) x = kEdge, y += kCardHeight + kDown;
        if (const auto b = buttons_.find(g.ids[g.search.circles[alone[i]].front()]); b != buttons_.end())
            b->second->setGeometry(scaled(QRectF(x, y, kCardWidth, kCardHeight)));
        x += kCardWidth + kDown;
        right = std::max(right, x), bottom = std::max(bottom, y + kCardHeight + kDown);
    }
    const QRect whole = scaled(QRectF(0, 0, right + kEdge, bottom + 10));
    setMinimumSize(whole.size());
}

/// The arrows in words, for a screen reader.
void CauseMap::describe(const CauseReport& report) {
    std::map<std::string, QString> titles;
    for (const CauseCard& c : cards_) titles[c.id] = c.title;
    for (const CauseCard& c : cards_) {
        std::vector<Message> to;
        for (const CauseLink& l : report.links)
            if (l.from == c.id) to.push_back(asIs(titles[l.to].toStdString()));
        buttons_.at(c.id)->setAccessibleDescription(
            to.empty() ? QString() : say("cause-map.leads-to", {{"what", joined(ListStyle::And, to)}}));
    }
}

void CauseMap::paintArrow(QPainter& p, const CauseLink& link) const {
    const auto from = buttons_.find(link.from), to = buttons_.find(link.to);
    if (from == buttons_.end() || to == buttons_.end()) return;
    const QRectF a = unscaled(from->second->geometry()), b = unscaled(to->second->geometry());
    const bool back = b.left() <= a.left(); // within a circle
    const QPointF start(back ? a.left() + 24 : a.right(), back ? a.bottom() : a.center().y());
    const QPointF end(back ? b.left() + 24 : b.left() - 1, back ? b.top() : b.center().y());
    QPen pen(link.stance == Stance::Agreed ? palette::moss : palette::quiet,
             link.stance == Stance::Agreed ? 2.6 : 1.4);
    if (!link.through.empty()) pen.setStyle(Qt::DashLine);
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    QPainterPath way(start);
    const double bend = back ? 0 : std::max(30.0, (end.x() - start.x()) / 2);
    way.cubicTo(start + QPointF(bend, back ? 14 : 0), end - QPointF(bend, back ? 14 : 0), end);
    p.drawPath(way);
    p.setPen(Qt::NoPen);
    p.setBrush(pen.color());
    const QPointF tip = end, side = back ? QPointF(4, 0) : QPointF(0, 4),
                  behind = back ? QPointF(0, -9) : QPointF(-9, 0);
    p.drawPolygon(QPolygonF({tip, tip + behind + side, tip + behind - side}));
}

void CauseMap::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(QRectF(0, 0, usualWidth(*this), usualHeight(*this)), palette::paper);
    if (cards_.empty()) {
        p.setPen(palette::quiet);
        p.setFont(textFont(14));
        p.drawText(QRectF(0, 0, usualWidth(*this), usualHeight(*this)), Qt::AlignCenter,
                   say("cause-map.empty"));
        return;
    }
    if (aloneTop_ > 0) {
        p.setPen(palette::quiet);
        p.setFont(textFont(12.5, true));
        p.drawText(QRectF(kEdge, aloneTop_, usualWidth(*this) - kEdge, 26), Qt::AlignLeft | Qt::AlignVCenter,
                   say("cause-map.alone"));
    }
    p.setPen(QPen(palette::clay, 1.2, Qt::DotLine));
    p.setBrush(palette::shade);
    for (const QRect& circle : circles_) p.drawRoundedRect(unscaled(circle), 9, 9);
    for (const CauseLink& link : links_) paintArrow(p, link);
}

} // namespace jg::ui
