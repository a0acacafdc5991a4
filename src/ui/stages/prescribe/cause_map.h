// SPDX-License-Identifier: GPL-3.0-or-later
// The findings of one athlete as a picture: causes above, what follows from them below.
#pragma once

#include "coaching/causes.h"

#include <QWidget>

#include <map>
#include <string>
#include <vector>

class QAbstractButton;
class QLabel;

namespace jg::ui {

/// One finding on the picture.
struct CauseCard {
    std::string id;
    QString title;
    QString note; ///< "root of 3", "worked on"
    bool chosen = false;
    bool root = false;
};

/// Cards with arrows between them; cards that cause each other stand in one frame. A card can be clicked,
/// reached by Tab and read by a screen reader; the arrows are told in its description. A broken arrow goes
/// through what is not known.
class CauseMap : public QWidget {
    Q_OBJECT
public:
    explicit CauseMap(QWidget* parent = nullptr);
    void show(const CauseReport& report, const std::vector<CauseCard>& cards, const std::string& current);

Q_SIGNALS:
    void chosen(const QString& finding);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void layOut();
    int placeLine(const std::vector<std::string>& ids, int top);
    void describe();
    void paintArrow(QPainter& p, const CauseLink& link) const;

    std::vector<CauseCard> cards_;
    CauseReport report_;
    std::map<std::string, QAbstractButton*> buttons_;
    std::vector<QRect> circles_;
    QLabel* alone_; ///< the heading of those that stand alone
};

} // namespace jg::ui
