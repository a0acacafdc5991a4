// SPDX-License-Identifier: GPL-3.0-or-later
// The line: the seven stages as stations with their counts.
#pragma once

#include "review/assess/assess.h"

#include <QWidget>

#include <array>

namespace jg::ui {

class HotSpot;

/// The walk at the top of a review. A station is a click target; the counts tell what is unfinished.
class LineBar : public QWidget {
    Q_OBJECT
public:
    explicit LineBar(QWidget* parent = nullptr);
    void setWho(const QString& who, const QString& conditions);
    void setState(Stage stage, const Counts& counts, bool seen);
    QSize sizeHint() const override { return {1280, height()}; }
    QRect stationRect(Stage stage) const;
    QRect deskRect() const;

Q_SIGNALS:
    void chosen(jg::Stage stage);
    void toDesk();

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void paintStations(QPainter& p);
    void paintWho(QPainter& p);
    void tellStates();
    bool narrow() const;
    double xOf(int station) const;
    QString countOf(Stage stage) const;
    bool doneAt(Stage stage) const;
    HotSpot* desk_;
    std::array<HotSpot*, 7> stations_;
    QString who_, conditions_;
    Stage stage_ = Stage::Look;
    Counts counts_;
    bool seen_ = false;
};

} // namespace jg::ui
