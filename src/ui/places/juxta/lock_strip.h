// SPDX-License-Identifier: GPL-3.0-or-later
// Two films on one scale of real milliseconds from their lock.
#pragma once

#include "ui/kit/spoken.h"

#include <QWidget>

#include <array>
#include <vector>

namespace jg::ui {

/// A position of one of the two.
struct LockPin {
    double ms = 0;
    QString name;
};

/// What the strip shows of one film: where it has pictures, its frames, its positions.
struct LockTrack {
    double firstMs = 0, lastMs = 0;
    double frameMs = 0; ///< length of a frame
    std::vector<LockPin> pins;
};

class LockStrip : public QWidget, public Spoken {
    Q_OBJECT
public:
    explicit LockStrip(QWidget* parent = nullptr);
    void setTracks(std::array<LockTrack, 2> tracks);
    void setNow(double ms, const QString& words);
    QAccessible::Role spokenRole() const override { return QAccessible::Slider; }
    QString spokenValue() const override { return words_; }
    std::optional<SpokenRange> spokenRange() const override;
    void setSpoken(qint64 ms) override { Q_EMIT scrubbed(static_cast<double>(ms)); }

Q_SIGNALS:
    void scrubbed(double ms);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

private:
    double xOf(double ms) const;
    void scrub(double x);
    void paintTrack(QPainter& p, std::size_t track);

    std::array<LockTrack, 2> tracks_;
    double firstMs_ = 0, lastMs_ = 1; ///< shown
    double now_ = 0;
    QString words_;
};

} // namespace jg::ui
