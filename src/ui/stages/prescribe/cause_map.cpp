// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/prescribe/cause_map.h"

#include "coaching/cause_graph.h"
#include "ui/kit/theme.h"

#include <QAbstractButton>
#include <QPainter>
#include <QPainterPath>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {

constexpr double kCardWidth = 200, kAcross = 18, kDown = 44, kEdge = 22; // in usual pixels

/// A finding to click on: its name, and small print.
class Card : public QAbstractButton {
public:
    Card(const CauseCard& card, bool current, QWidget* parent)
        : QAbstractButton(parent)
        , chosen_(card.chosen)
        , root_(card.root)
        , current_(current) {
        setObjectName("cause-" + QString::fromStdString(card.id));
        setAccessibleName(card.note.isEmpty() ? card.title : card.title + ": " + card.note);
        setFocusPolicy(Qt::TabFocus);
        setCursor(Qt::PointingHandCursor);
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(em(14), em(7), em(8), em(7));
        box->setSpacing(2);
        for (QLabel* label : {plain(card.title, 12.5, card.root), quiet(card.note, 11)}) {
            label->setAttribute(Qt::WA_TransparentForMouseEvents);
            box->addWidget(label);
            if (label->text().isEmpty()) label->hide();
        }
        box->addStretch(1);
    }
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override { return layout()->totalHeightForWidth(width); }

protected:
    void paintEvent(QPaintEvent*) override {
        ScaledPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const QRectF box(1.5, 1.5, usualWidth(*this) - 3, usualHeight(*this) - 3);
        const bool inHand = current_ || hasFocus();
        p.setPen(QPen(inHand  ? palette::clay
                      : root_ ? palette::moss
                              : palette::rule,
                      inHand || root_ ? 2.2 : 1));
        p.setBrush(chosen_ ? QColor(Qt::white) : palette::sheet);
        p.drawRoundedRect(box, 7, 7);
        if (!chosen_) return;
        p.setPen(Qt::NoPen);
        p.setBrush(palette::moss);
        p.drawRect(QRectF(box.left(), box.top() + 8, 5, box.height() - 16));
    }

private:
    bool chosen_, root_, current_;
};

struct Groups {
    RootSearch search;
    std::vector<std::string> ids;
    std::vector<int> row; ///< of each circle
};

/// Circles with their rows: one below the lowest that leads to it.
Groups groupsOf(const CauseReport& report) {
    Groups g;
    g.ids = report.order;
    std::map<std::string, std::size_t> place;
    for (const std::string& id : g.ids) place.emplace(id, place.size());
    std::vector<std::pair<std::size_t, std::size_t>> arrows;
    for (const CauseLink& l : report.links) arrows.emplace_back(place.at(l.from), place.at(l.to));
    g.search = findRoots(g.ids.size(), arrows);
    g.row.assign(g.search.circles.size(), 0);
    for (std::size_t round = 0; round < g.row.size(); ++round)
        for (const auto& [from, to] : arrows) {
            const std::size_t a = g.search.circleOf[from], b = g.search.circleOf[to];
            if (a != b) g.row[b] = std::max(g.row[b], g.row[a] + 1);
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
    alone_ = plain(say("cause-map.alone"), 12.5, true);
    alone_->setParent(this);
}

void CauseMap::show(const CauseReport& report, const std::vector<CauseCard>& cards,
                    const std::string& current) {
    for (const auto& [id, button] : buttons_) button->hide(), button->deleteLater();
    buttons_.clear();
    cards_ = cards;
    report_ = report;
    for (const CauseCard& card : cards_) {
        auto* button = new Card(card, card.id == current, this);
        connect(button, &QAbstractButton::clicked, this,
                [this, id = QString::fromStdString(card.id)] { Q_EMIT chosen(id); });
        buttons_[card.id] = button;
        button->QWidget::show();
    }
    layOut();
    describe();
    update();
}

/// Places cards side by side from `top` on, as many a line as fit; gives the bottom.
int CauseMap::placeLine(const std::vector<std::string>& ids, int top) {
    const int width = em(kCardWidth), across = em(kAcross), edge = em(kEdge);
    const int perLine = std::max(1, (this->width() - 2 * edge + across) / (width + across));
    int height = em(50), n = 0;
    for (const std::string& id : ids)
        if (const auto b = buttons_.find(id); b != buttons_.end())
            height = std::max(height, b->second->heightForWidth(width));
    for (const std::string& id : ids) {
        const auto b = buttons_.find(id);
        if (b == buttons_.end()) continue;
        b->second->setGeometry(edge + n % perLine * (width + across), top + n / perLine * (height + across),
                               width, height);
        ++n;
    }
    return n == 0 ? top : top + ((n - 1) / perLine + 1) * (height + across) - across;
}

void CauseMap::layOut() {
    const Groups g = groupsOf(report_);
    std::map<int, std::vector<std::string>> lines;
    std::vector<std::string> alone;
    std::vector<std::vector<std::string>> together;
    for (std::size_t i = 0; i < g.search.circles.size(); ++i) {
        std::vector<std::string> members;
        for (const std::size_t n : g.search.circles[i]) members.push_back(g.ids[n]);
        auto& line = isAlone(g, i, report_) ? alone : lines[g.row[i]];
        line.insert(line.end(), members.begin(), members.end());
        if (members.size() > 1) together.push_back(std::move(members));
    }
    int y = em(kEdge);
    for (const auto& [row, ids] : lines) y = placeLine(ids, y) + em(kDown);
    // What nothing leads to and that leads nowhere stands below.
    alone_->setVisible(!alone.empty() && !lines.empty());
    if (!alone.empty() && !lines.empty()) {
        const int width = std::max(em(kCardWidth), this->width() - 2 * em(kEdge));
        alone_->setGeometry(em(kEdge), y, width, alone_->heightForWidth(width));
        y += alone_->height() + em(8);
    }
    if (!alone.empty()) y = placeLine(alone, y) + em(kEdge);
    circles_.clear();
    for (const auto& members : together) {
        QRect frame;
        for (const std::string& id : members)
            if (const auto b = buttons_.find(id); b != buttons_.end()) frame |= b->second->geometry();
        circles_.push_back(frame.adjusted(-em(7), -em(7), em(7), em(7)));
    }
    setMinimumHeight(y);
}

void CauseMap::resizeEvent(QResizeEvent*) {
    layOut();
}

/// The arrows in words, for a screen reader.
void CauseMap::describe() {
    std::map<std::string, QString> titles;
    for (const CauseCard& c : cards_) titles[c.id] = c.title;
    for (const CauseCard& c : cards_) {
        std::vector<Message> to;
        for (const CauseLink& l : report_.links)
            if (l.from == c.id) to.push_back(asIs(titles[l.to].toStdString()));
        buttons_.at(c.id)->setAccessibleDescription(
            to.empty() ? QString() : say("cause-map.leads-to", {{"what", joined(ListStyle::And, to)}}));
    }
}

void CauseMap::paintArrow(QPainter& p, const CauseLink& link) const {
    const auto from = buttons_.find(link.from), to = buttons_.find(link.to);
    if (from == buttons_.end() || to == buttons_.end()) return;
    const QRectF a = unscaled(from->second->geometry()), b = unscaled(to->second->geometry());
    const bool beside = b.top() < a.bottom(); // within a circle, or on one line
    const double sideways = b.center().x() > a.center().x() ? 1 : -1;
    const QPointF start = beside ? QPointF(sideways > 0 ? a.right() : a.left(), a.center().y() - 7 * sideways)
                                 : QPointF(a.center().x(), a.bottom());
    const QPointF end = beside ? QPointF(sideways > 0 ? b.left() : b.right(), b.center().y() - 7 * sideways)
                               : QPointF(b.center().x(), b.top() - 1);
    QPen pen(link.stance == Stance::Agreed ? palette::moss : palette::quiet,
             link.stance == Stance::Agreed ? 2.6 : 1.4);
    if (!link.through.empty()) pen.setStyle(Qt::DashLine);
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    QPainterPath way(start);
    const QPointF bend =
        beside ? QPointF(6 * sideways, 0) : QPointF(0, std::max(22.0, (end.y() - start.y()) / 2));
    way.cubicTo(start + bend, end - bend, end);
    p.drawPath(way);
    p.setPen(Qt::NoPen);
    p.setBrush(pen.color());
    const QPointF behind = beside ? QPointF(-9 * sideways, 0) : QPointF(0, -9);
    const QPointF wide = beside ? QPointF(0, 4) : QPointF(4, 0);
    p.drawPolygon(QPolygonF({end, end + behind + wide, end + behind - wide}));
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
    p.setPen(QPen(palette::clay, 1.2, Qt::DotLine));
    p.setBrush(palette::shade);
    for (const QRect& circle : circles_) p.drawRoundedRect(unscaled(circle), 9, 9);
    for (const CauseLink& link : report_.links) paintArrow(p, link);
}

} // namespace jg::ui
