// SPDX-License-Identifier: GPL-3.0-or-later
// How many pictures a second a film was taken at, as a choice that can also be typed.
#pragma once

#include "base/result.h"

#include <QComboBox>

namespace jg::ui {

class RateBox : public QComboBox {
    Q_OBJECT
public:
    /// `fromFile` is what stands for "no word of the coach".
    explicit RateBox(const QString& fromFile, QWidget* parent = nullptr);
    void setRate(double fps); ///< 0 = from the file
    /// Pictures a second; 0 = as the file says. Errors: BadInput, with what to do.
    Result<double> rate() const;
};

} // namespace jg::ui
