// SPDX-License-Identifier: GPL-3.0-or-later
// One feature or two of the sheet's deliveries as curves, beside the stills at the moments that matter.
#pragma once

#include "library/library.h"
#include "review/compare/curve.h"
#include "review/compare/juxta.h"
#include "ui/kit/actions.h"
#include "ui/kit/key_cap.h"

#include <QImage>
#include <QWidget>

#include <functional>

class QVBoxLayout;

namespace jg::ui {

class CurveChart;
struct ChartFeature;

class CurvePlace : public QWidget {
    Q_OBJECT
public:
    CurvePlace(const Library& library, JuxtaSheet sheet, std::function<void()> back);
    const Handlers& handlers() const { return handlers_; }
    KeyHints hints() const;
    Feature feature() const { return feature_; }
    std::optional<Feature> second() const { return second_; }
    int stillsShown() const { return stillsShown_; }

private:
    Handlers makeHandlers();
    void next(int by);
    void nextSecond(int by);
    ChartFeature chartOf(Feature feature) const;
    void refresh();
    void addLegend(std::size_t row, const FeatureCurve& curve, const FeatureCurve& first);
    /// When the second feature's moment came, and which of the row's two was first.
    void addSecond(const FeatureCurve& one, const FeatureCurve& other);
    void readStill(std::size_t row, std::int64_t frame);

    const Library& library_;
    JuxtaSheet sheet_;
    std::function<void()> back_;
    Feature feature_ = Feature::FrontKnee;
    std::optional<Feature> second_;
    int serial_ = 0, stillsShown_ = 0;
    CurveChart* chart_;
    QVBoxLayout* legend_;
    const Handlers handlers_ = makeHandlers();
};

} // namespace jg::ui
