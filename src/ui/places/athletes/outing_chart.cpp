// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/outing_chart.h"

#include "review/assess/number_words.h"
#include "review/tell/letter_model.h"
#include "ui/kit/theme.h"

#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

OutingChart::OutingChart(Outing outing, QString name, QWidget* parent)
    : QWidget(parent)
    , outing_(std::move(outing))
    , name_(std::move(name)) {
    setAccessibleName(name_);
    setFixedHeight(em(110));
}

void OutingChart::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF area(54, 8, usualWidth(*this) - 74, usualHeight(*this) - 34);
    double low = 1e18, high = -1e18;
    for (const OutingPitch& o : outing_.pitches)
        low = std::min(low, o.value - o.half95), high = std::max(high, o.value + o.half95);
    const double pad = std::max(1.0, 0.1 * (high - low));
    low -= pad, high += pad;
    const double first = outing_.pitches.front().number - 0.5,
                 last = std::max(outing_.pitches.back().number + 0.5, first + 1);
    const auto at = [&](double number, double value) {
        return QPointF(area.left() + area.width() * (number - first) / (last - first),
                       area.bottom() - area.height() * (value - low) / (high - low));
    };
    if (const auto& c = outing_.change) {
        const auto numberOf = [&](std::size_t i) {
            return outing_.pitches[std::min(i, outing_.pitches.size() - 1)].number - 0.5;
        };
        p.fillRect(QRectF(at(numberOf(c->low), high), at(numberOf(c->high) + 1, low)), palette::shade);
        p.setPen(QPen(palette::clay, 1.5));
        p.drawLine(at(first, c->before), at(numberOf(c->at), c->before));
        p.drawLine(at(numberOf(c->at), c->after), at(last, c->after));
    }
    p.setPen(QPen(palette::rule, 1));
    p.drawLine(area.bottomLeft(), area.bottomRight());
    p.setFont(textFont(11.5));
    p.setPen(palette::quiet);
    for (const double v : {low + pad, high - pad})
        p.drawText(QRectF(0, at(first, v).y() - 9, 48, 18), Qt::AlignRight | Qt::AlignVCenter,
                   say(numberInWords(v, outing_.unit)));
    double lastRight = -100;
    for (const OutingPitch& o : outing_.pitches) {
        const QPointF place = at(o.number, o.value);
        p.setPen(QPen(palette::quiet, 1.4));
        p.drawLine(at(o.number, o.value - o.half95), at(o.number, o.value + o.half95));
        p.setPen(Qt::NoPen);
        p.setBrush(o.off ? palette::clay : palette::ink);
        if (o.off)
            p.drawRect(QRectF(place - QPointF(4, 4), QSizeF(8, 8)));
        else
            p.drawEllipse(place, 4, 4);
        if (place.x() - 14 < lastRight) continue;
        lastRight = place.x() + 14;
        p.setPen(palette::quiet);
        p.drawText(QRectF(place.x() - 30, area.bottom() + 4, 60, 16), Qt::AlignHCenter,
                   QString::number(o.number));
    }
}

QString OutingChart::spokenValue() const {
    QStringList words;
    for (const OutingPitch& o : outing_.pitches)
        words << say("outing.pitch", {{"number", o.number}, {"value", numberInWords(o.value, outing_.unit)}});
    return words.join(", ");
}

QWidget* outingSection(const Outing& outing, const Playbook& playbook) {
    auto* box = new QWidget;
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(3);
    const MeasureDefinition* m = playbook.measure(outing.measure);
    const QString name = text(m ? m->shortName : outing.measure);
    column->addWidget(plain(say("outing.title", {{"name", name}, {"date", outing.on}}), 13.5, true));
    column->addWidget(new OutingChart(outing, name));
    std::vector<Message> words = {outing.inWords};
    constexpr double kByChance = 0.05;
    if (const auto& a = outing.withNumber; a && a->chance <= kByChance)
        words.push_back(msg(a->rank > 0 ? "outing.rises" : "outing.falls", {{"count", a->pairs}}));
    if (outing.went.size() > 1) {
        std::vector<Message> rows;
        for (const WentRow& w : outing.went)
            rows.push_back(msg("outing.went", {{"where", nameOf(w.went)},
                                               {"count", w.count},
                                               {"mean", numberInWords(w.mean, outing.unit)}}));
        words.push_back(msg("outing.went-all", {{"rows", joined(ListStyle::Commas, rows)}}));
    }
    column->addWidget(quiet(say(joined(ListStyle::Sentences, std::move(words))), 12.5));
    return box;
}

} // namespace jg::ui
