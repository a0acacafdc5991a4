// A feature of the sheet's deliveries as curves, beside the stills at the moments that matter.
#pragma once

#include "library/library.h"
#include "review/curve.h"
#include "ui/actions.h"
#include "ui/key_cap.h"

#include <QImage>
#include <QWidget>

#include <functional>

class QVBoxLayout;

namespace jg::ui {

class CurveChart;

class CurvePlace : public QWidget {
    Q_OBJECT
public:
    CurvePlace(const Library& library, JuxtaSheet sheet, std::function<void()> back);
    const Handlers& handlers() const { return handlers_; }
    KeyHints hints() const;
    Feature feature() const { return feature_; }
    int stillsShown() const { return stillsShown_; }

private:
    Handlers makeHandlers();
    void next(int by);
    void refresh();
    void addLegend(std::size_t row, const FeatureCurve& curve, const FeatureCurve& first);
    void readStill(std::size_t row, std::int64_t frame);

    const Library& library_;
    JuxtaSheet sheet_;
    std::function<void()> back_;
    Feature feature_ = Feature::FrontKnee;
    int serial_ = 0, stillsShown_ = 0;
    CurveChart* chart_;
    QVBoxLayout* legend_;
    const Handlers handlers_ = makeHandlers();
};

} // namespace jg::ui
