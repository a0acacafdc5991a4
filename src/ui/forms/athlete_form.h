// SPDX-License-Identifier: GPL-3.0-or-later
// The facts of an athlete as fields: for a new one and for one that is edited.
#pragma once

#include "base/result.h"
#include "review/record/people.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;

namespace jg::ui {

class AthleteForm : public QWidget {
    Q_OBJECT
public:
    explicit AthleteForm(Date today, QWidget* parent = nullptr);
    void fill(const Athlete& athlete);
    /// What is typed, on top of `athlete`. Errors: BadInput, with what to do.
    Result<Athlete> read(Athlete athlete) const;
    /// True when something is typed.
    bool touched() const;

private:
    void showAge();
    Status readComingBack(Athlete& athlete) const;

    Date today_;
    QLineEdit *first_, *last_, *born_, *height_, *level_, *email_, *guardianName_, *guardianEmail_,
        *comingBack_, *planSeen_, *model_;
    QComboBox *hand_, *language_;
    QLabel* age_;
};

} // namespace jg::ui
