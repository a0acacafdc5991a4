// The small figure that shows the next point.
#pragma once

#include "kinematics/anatomy.h"

#include <QWidget>

#include <optional>
#include <vector>

namespace jg::ui {

/// A drawn body in the landing (or standing at set) with the wanted points; the next one in the accent.
class GuideFigure : public QWidget {
public:
    explicit GuideFigure(QWidget* parent = nullptr);
    /// `mirror` for an athlete who moves to the left in the picture.
    void show(std::optional<Landmark> next, std::vector<Landmark> others, bool mirror, const QString& hint);
    QSize sizeHint() const override { return {340, 132}; }

protected:
    void paintEvent(QPaintEvent*) override;

private:
    std::optional<Landmark> next_;
    std::vector<Landmark> others_;
    bool mirror_ = false;
    QString hint_;
};

} // namespace jg::ui
