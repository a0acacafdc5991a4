// The findings of one athlete as a picture: causes at the left, what follows from them at the right.
#pragma once

#include "coaching/causes.h"

#include <QWidget>

#include <map>
#include <string>
#include <vector>

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

private:
    void layOut(const CauseReport& report);
    void describe(const CauseReport& report);
    void paintArrow(QPainter& p, const CauseLink& link) const;

    std::vector<CauseCard> cards_;
    std::vector<CauseLink> links_;
    std::map<std::string, QAbstractButton*> buttons_;
    std::vector<QRect> circles_;
    int aloneTop_ = 0; ///< where those begin that stand alone, in usual pixels; 0 = there are none below
};

} // namespace jg::ui
