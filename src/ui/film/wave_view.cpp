// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/wave_view.h"

#include "ui/kit/theme.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {
constexpr std::size_t kColumns = 150;
constexpr float kLeast = 0.02F; // of full: a line where it is silent
} // namespace

WaveView::WaveView(QWidget* parent)
    : QWidget(parent) {
    setFixedSize(em(2.0 * kColumns), em(34));
}

void WaveView::setSound(const std::vector<float>& samples, const std::vector<SampleSpan>& cuts) {
    columns_.assign(samples.empty() ? 0 : kColumns, {kLeast, false});
    for (std::size_t i = 0; i < samples.size(); ++i) {
        // The root, as speech is quiet beside its peaks.
        float& loudest = columns_[i * kColumns / samples.size()].loudest;
        loudest = std::max(loudest, std::sqrt(std::min(1.F, std::abs(samples[i]))));
    }
    for (std::size_t c = 0; c < columns_.size(); ++c) {
        const auto middle = static_cast<std::int64_t>((2 * c + 1) * samples.size() / (2 * kColumns));
        columns_[c].leftOut = std::any_of(cuts.begin(), cuts.end(), [&](const SampleSpan& cut) {
            return cut.from <= middle && middle < cut.to;
        });
    }
    update();
}

void WaveView::setHeard(std::optional<double> part) {
    if (heard_ == part) return;
    heard_ = part;
    update();
}

void WaveView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const double step = static_cast<double>(width()) / kColumns, middle = height() / 2.0;
    for (std::size_t i = 0; i < columns_.size(); ++i) {
        const double half = columns_[i].loudest * (middle - 1);
        const bool past = heard_ && (static_cast<double>(i) + 0.5) / kColumns <= *heard_;
        p.fillRect(QRectF(static_cast<double>(i) * step, middle - half, 0.7 * step, 2 * half),
                   columns_[i].leftOut ? palette::rule
                   : past              ? palette::clay
                                       : palette::moss);
    }
}

} // namespace jg::ui
