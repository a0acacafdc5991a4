// SPDX-License-Identifier: GPL-3.0-or-later
// The drills of a plan as cards with their doses.
#pragma once

#include "ui/bench/plan_asker.h"

#include <QWidget>

class QLayout;

namespace jg::ui {

/// A card a drill: name, dose, why it may not be given; a dose can be waived and a drill taken out.
class DrillCards : public QWidget {
public:
    DrillCards(ReviewContext& context, KeepPlan keep);
    /// Shows the review's plan; cards that stay are not built again, so that a field keeps its cursor.
    void show();

private:
    QWidget* drillCard(std::size_t i);
    QLayout* doseRow(std::size_t i, const QString& called);
    void waiveDose(std::size_t drill);
    void removeDrill(std::size_t drill);
    void setDose(std::size_t drill, int part, int value);

    ReviewContext& c_;
    KeepPlan keep_;
    QVBoxLayout* column_;
    std::string built_; ///< which drills the cards were built for
};

} // namespace jg::ui
