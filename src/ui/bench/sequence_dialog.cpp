// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/sequence_dialog.h"

#include "ui/kit/theme.h"

#include <QDialog>
#include <QScrollArea>
#include <QVBoxLayout>

#include <cmath>

namespace jg::ui {

namespace {

constexpr int kRow = 46, kTop = 34, kNames = 190, kWords = 300;

/// A row an event: its name, its place on the clock with a bar as wide as its error, what it follows.
class Chart : public QWidget {
public:
    explicit Chart(std::vector<SequenceEvent> events)
        : events_(std::move(events)) {
        setMinimumSize(em(780), em(kTop + kRow * static_cast<int>(events_.size()) + 12));
        setAccessibleName(say("sequence-dialog.order-of-events"));
        low_ = high_ = events_.front().ms;
        for (const SequenceEvent& e : events_) {
            low_ = std::min(low_, e.ms - e.halfMs);
            high_ = std::max(high_, e.ms + e.halfMs);
        }
    }

protected:
    void paintEvent(QPaintEvent*) override {
        ScaledPainter p(this);
        paintClock(p);
        for (std::size_t i = 0; i < events_.size(); ++i)
            paintRow(p, events_[i], kTop + static_cast<int>(i) * kRow);
    }

private:
    double xOf(double ms) const {
        const double left = kNames + 12, right = usualWidth(*this) - kWords - 24;
        return left + (right - left) * (ms - low_) / std::max(1.0, high_ - low_);
    }

    void paintClock(QPainter& p) {
        p.setFont(textFont(11));
        double step = 50;
        while ((high_ - low_) / step > 5) step *= 2;
        for (double ms = std::ceil(low_ / step) * step; ms <= high_; ms += step) {
            p.setPen(QPen(ms == 0 ? palette::quiet : palette::rule, 1));
            p.drawLine(QPointF(xOf(ms), kTop - 8), QPointF(xOf(ms), usualHeight(*this) - 6));
            p.setPen(palette::quiet);
            p.drawText(QRectF(xOf(ms) - 40, 4, 80, 18), Qt::AlignHCenter,
                       ms == 0 ? say("unit.ms", {{"number", 0}})
                               : (ms > 0 ? "+" : "\u2212") + QString::number(std::abs(ms)));
        }
    }

    void paintRow(QPainter& p, const SequenceEvent& e, int top) {
        const double y = top + kRow / 2.0;
        p.setPen(palette::ink);
        p.setFont(textFont(13.5, true));
        p.drawText(QRectF(0, top, kNames, kRow / 2.0 + 3), Qt::AlignLeft | Qt::AlignBottom,
                   QFontMetricsF(p.font()).elidedText(
                       say(e.again ? msg("review-place.again", {{"position", info(e.moment).name()}})
                                   : info(e.moment).name()),
                       Qt::ElideRight, kNames));
        p.setFont(textFont(11.5));
        p.setPen(palette::quiet);
        p.drawText(
            QRectF(0, top + kRow / 2.0 + 3, kNames, kRow / 2.0), Qt::AlignLeft | Qt::AlignTop,
            say(e.fromPath ? "sequence-dialog.frame-by-path" : "film-deck.frame", {{"frame", e.frame}}));
        const double left = xOf(e.ms - e.halfMs), right = std::max(left + 3, xOf(e.ms + e.halfMs));
        p.setPen(QPen(palette::moss, 1.6));
        p.setBrush(e.fromPath ? palette::sheet : palette::moss); // hollow: not set by the coach
        p.drawRoundedRect(QRectF(left, y - 7, right - left, 14), 3, 3);
        p.setPen(e.outOfOrder ? palette::clay : e.tooClose ? palette::quiet : palette::ink);
        QString words = say(e.after);
        if (e.outOfOrder)
            words = say("sequence-dialog.before-what-should-come-first-words", {{"words", words}});
        p.setFont(textFont(12.5, e.outOfOrder));
        p.drawText(QRectF(usualWidth(*this) - kWords, top, kWords - 4, kRow),
                   Qt::AlignVCenter | Qt::AlignLeft | Qt::TextWordWrap, words);
        p.setPen(QPen(palette::rule, 1));
        p.drawLine(QPointF(0, top + kRow), QPointF(usualWidth(*this), top + kRow));
    }

    std::vector<SequenceEvent> events_;
    double low_ = 0, high_ = 1;
};

} // namespace

void showSequence(QWidget* parent, const std::vector<SequenceEvent>& events, double captureFps) {
    auto* dialog = new QDialog(parent);
    dialog->setObjectName("sequence");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(say("sequence-dialog.the-order-of-events"));
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(28, 22, 28, 20);
    column->addWidget(heading(say("sequence-dialog.the-order-of-events"), 24));
    column->addWidget(quiet(say("sequence-dialog.axis", {{"captureFps", std::lround(captureFps)}}), 13));
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(new Chart(events));
    scroll->viewport()->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    auto* close = mainButton(say("sequence-dialog.close"));
    QObject::connect(close, &QPushButton::clicked, dialog, &QDialog::accept);
    column->addWidget(close, 0, Qt::AlignRight);
    resizeForText(*dialog, 900, std::min(640, 190 + kTop + kRow * static_cast<int>(events.size())));
    dialog->open();
}

} // namespace jg::ui
