// SPDX-License-Identifier: GPL-3.0-or-later
// The ribbon: one tick a frame, pins, the release bracket, stops, a curve of what is known.
#pragma once

#include "ui/kit/spoken.h"

#include <QWidget>

#include <optional>
#include <vector>

namespace jg::ui {

struct RibbonPin {
    qint64 frame = 0;
    QString name;
    bool bracket = false; ///< release: this frame and the next
    bool keyPosition = true;
};

struct RibbonFlag {
    qint64 frame = 0;
    bool said = false;
};

/// A value of the ribbon's curve and half the width of its band.
struct RibbonValue {
    qint64 frame = 0;
    double value = 0;
    double half = 0;
};

/// Time along the film in milliseconds from first touch. Clicking and dragging scrubs.
class Ribbon : public QWidget, public Spoken {
    Q_OBJECT
public:
    explicit Ribbon(QWidget* parent = nullptr);
    void setFilm(qint64 frames, double captureFps);
    void setMarks(std::vector<RibbonPin> pins, std::vector<RibbonFlag> flags, std::optional<qint64> zero);
    /// Stretches whose pictures are damaged: first and last frame of each.
    void setDamaged(std::vector<std::pair<std::int64_t, std::int64_t>> stretches);
    /// The delivery under review: what lies outside is shaded.
    void setCut(std::optional<std::pair<qint64, qint64>> cut);
    /// A curve over the frames where it is known, with its band; empty = none. Values in one unit.
    void setCurve(std::vector<RibbonValue> curve, QString name);
    void setFrame(qint64 frame);
    /// The level of a recording, newest last, with labels of events; empty = show the film's ribbon.
    void setWave(std::vector<float> levels, double seconds, std::vector<std::pair<double, QString>> events);
    QSize sizeHint() const override { return {800, height()}; }
    /// "-83 ms" from first touch, or seconds from the film's start when first touch is not set.
    QString timeText(qint64 frame) const;
    QAccessible::Role spokenRole() const override { return QAccessible::Slider; }
    /// "frame 174, +33 ms, Plant".
    QString spokenValue() const override;
    std::optional<SpokenRange> spokenRange() const override;
    void setSpoken(qint64 frame) override { Q_EMIT scrubbed(frame); }

Q_SIGNALS:
    void scrubbed(qint64 frame);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

private:
    double xOf(double frame) const;
    void scrub(double x);
    void paintWave(QPainter& p);
    void paintScale(QPainter& p);
    void paintDamaged(QPainter& p);
    void paintCut(QPainter& p);
    void paintCurve(QPainter& p);
    void paintPins(QPainter& p);
    void paintHead(QPainter& p);

    qint64 frames_ = 0;
    double fps_ = 0;
    qint64 frame_ = 0;
    std::vector<RibbonPin> pins_;
    std::vector<RibbonFlag> flags_;
    std::optional<qint64> zero_;
    std::vector<std::pair<std::int64_t, std::int64_t>> damaged_;
    std::optional<std::pair<qint64, qint64>> cut_;
    std::vector<RibbonValue> curve_;
    QString curveName_;
    std::vector<float> wave_;
    double waveSeconds_ = 0;
    std::vector<std::pair<double, QString>> waveEvents_;
};

} // namespace jg::ui
