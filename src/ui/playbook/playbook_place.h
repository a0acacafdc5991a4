// The playbook, to read: targets, graded items, causes and drills of an approach.
#pragma once

#include "coaching/playbook.h"

#include <QWidget>

class QVBoxLayout;

namespace jg::ui {

class PlaybookPlace : public QWidget {
public:
    explicit PlaybookPlace(const Playbook& playbook, QWidget* parent = nullptr);

private:
    void addApproach(const Playbook& playbook, const Approach& approach);
    void addDrills(const Playbook& playbook);
    QVBoxLayout* page_;
};

} // namespace jg::ui
