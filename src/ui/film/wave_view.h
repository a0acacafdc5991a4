// SPDX-License-Identifier: GPL-3.0-or-later
// The sound of a take as a picture: how loud it was, and where it is heard now.
#pragma once

#include "review/record/review.h"

#include <QWidget>

#include <optional>
#include <vector>

namespace jg::ui {

class WaveView : public QWidget {
    Q_OBJECT
public:
    explicit WaveView(QWidget* parent = nullptr);
    /// Mono samples -1..1, what is left out of them faint. Nothing is shown of none.
    void setSound(const std::vector<float>& samples, const std::vector<SampleSpan>& cuts);
    /// As a part of its length; nothing = not heard.
    void setHeard(std::optional<double> part);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    struct Column {
        float loudest = 0;
        bool leftOut = false;
    };
    std::vector<Column> columns_;
    std::optional<double> heard_;
};

} // namespace jg::ui
