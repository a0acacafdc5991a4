// SPDX-License-Identifier: GPL-3.0-or-later
// Finding by finding over the dates: found, worked on, good, kept, come back.
#pragma once

#include "desk/pages/log.h"

#include <QWidget>

#include <vector>

namespace jg::ui {

class HotSpot;

/// A row a finding on a true time axis, a dot a review. A dot leads to its film.
class HistoryGrid : public QWidget {
    Q_OBJECT
public:
    HistoryGrid(std::vector<LogLine> lines, const Playbook& playbook, QWidget* parent = nullptr);

Q_SIGNALS:
    void openAt(const jg::LogDot& dot);

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    double nameWidth() const;
    double xOf(Date when) const;
    QPointF placeOf(std::size_t line, std::size_t dot) const;
    void layOutSpots();

    std::vector<LogLine> lines_;
    std::vector<QString> names_;
    Date from_{}, to_{};
    std::vector<std::pair<HotSpot*, std::pair<std::size_t, std::size_t>>> spots_;
};

} // namespace jg::ui
