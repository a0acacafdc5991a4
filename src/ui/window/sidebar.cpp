// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/window/sidebar.h"

#include "ui/kit/hot_spot.h"
#include "ui/kit/theme.h"

namespace jg::ui {

Sidebar::Sidebar(QWidget* parent)
    : QWidget(parent) {
    setFixedWidth(em(212));
    setAccessibleName(say("sidebar.places"));
    for (const auto& [id, file] : {std::pair{"place.desk", "desk"},
                                   {"place.athletes", "athletes"},
                                   {"place.group", "group"},
                                   {"place.playbook", "playbook"},
                                   {"place.post", "post"},
                                   {"place.hand", "hand"}}) {
        const auto i = static_cast<int>(entries_.size());
        const QString name = say(id);
        auto* spot = new HotSpot(name, this);
        spot->setGeometry(scaled(placeRect(i)));
        connect(spot, &HotSpot::clicked, this, [this, i] { Q_EMIT chosen(i); });
        entries_.push_back({name, {}, icon(file, palette::chalk), icon(file, palette::ink), spot});
    }
}

void Sidebar::setHouse(const QString& place) {
    house_ = place;
    update();
}

void Sidebar::setCount(int place, const QString& text) {
    Entry& e = entries_.at(static_cast<std::size_t>(place));
    e.count = text;
    e.spot->setState(text, place == current_);
    update();
}

void Sidebar::setCurrent(int place) {
    current_ = place;
    for (int i = 0; i < static_cast<int>(entries_.size()); ++i) {
        const Entry& e = entries_[static_cast<std::size_t>(i)];
        e.spot->setState(e.count, i == place);
    }
    update();
}

QRect Sidebar::placeRect(int place) const {
    return QRect(10, 101 + place * 58, 192, 54);
}

void Sidebar::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.fillRect(unscaled(rect()), palette::moss);
    p.setPen(palette::chalk);
    p.setFont(headFont(23));
    p.drawText(QPointF(22, 47), "Juxtagraph");
    QColor soft = palette::chalk;
    soft.setAlphaF(0.78f);
    p.setPen(soft);
    p.setFont(textFont(12));
    p.drawText(QRectF(22, 56, 180, 20), Qt::AlignVCenter,
               QFontMetricsF(p.font()).elidedText(house_, Qt::ElideRight, 180));
    for (int i = 0; i < static_cast<int>(entries_.size()); ++i) {
        const QRectF box = placeRect(i);
        const Entry& e = entries_[static_cast<std::size_t>(i)];
        const bool on = i == current_;
        if (on) {
            p.setPen(Qt::NoPen);
            p.setBrush(palette::chalk);
            p.drawRoundedRect(box, 6, 6);
        }
        (on ? e.iconChosen : e.icon)
            .paint(&p, QRect(static_cast<int>(box.right()) - 34, static_cast<int>(box.top()) + 17, 20, 20));
        p.setPen(on ? palette::ink : palette::chalk);
        p.setFont(textFont(14.5, true));
        p.drawText(box.adjusted(12, 8, -40, -24), Qt::AlignVCenter, e.name);
        p.setFont(textFont(11.5));
        p.setPen(on ? palette::quiet : soft);
        p.drawText(box.adjusted(12, 28, -40, -6), Qt::AlignVCenter, e.count);
    }
    p.setPen(soft);
    p.setFont(textFont(11.5));
    p.drawText(QRectF(22, usualHeight(*this) - 44, 180, 20), Qt::AlignVCenter, say("sidebar.f1-all-keys"));
}

} // namespace jg::ui
