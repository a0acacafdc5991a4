// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/juxta/curve_place.h"

#include "base/caught.h"
#include "desk/jobs/job.h"
#include "desk/session/juxta.h"
#include "ui/kit/theme.h"
#include "ui/places/juxta/curve_chart.h"

#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

namespace {
constexpr QSize kStill(250, 168); // usual pixels
}

CurvePlace::CurvePlace(const Library& library, JuxtaSheet sheet, std::function<void()> back)
    : library_(library)
    , sheet_(std::move(sheet))
    , back_(std::move(back)) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    chart_ = new CurveChart;
    row->addWidget(chart_, 1);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFixedWidth(em(kStill.width() + 50));
    auto* inner = new QWidget;
    legend_ = new QVBoxLayout(inner);
    legend_->setContentsMargins(14, 14, 16, 8);
    legend_->setSpacing(4);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    row->addWidget(scroll);
    refresh();
}

void CurvePlace::next(int by) {
    const auto all = allFeatures();
    const auto count = static_cast<int>(all.size());
    feature_ = all[static_cast<std::size_t>((static_cast<int>(feature_) + by + count) % count)];
    if (second_ == feature_) second_.reset();
    refresh();
}

/// Round the features that are not the first one, with none between the last and the first.
void CurvePlace::nextSecond(int by) {
    std::vector<std::optional<Feature>> all = {std::nullopt};
    for (const Feature f : allFeatures())
        if (f != feature_) all.emplace_back(f);
    const auto at = std::find(all.begin(), all.end(), second_) - all.begin();
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    second_ = all[static_cast<std::size_t>((at + by + count) % count)];
    refresh();
}

ChartFeature CurvePlace::chartOf(Feature feature) const {
    ChartFeature chart{say(nameOf(feature)), unitOf(feature), {}};
    for (const JuxtaRow& r : sheet_.rows)
        chart.curves.push_back({say(captionOf(r.entry)), featureCurve(r.entry, feature)});
    return chart;
}

void CurvePlace::refresh() {
    ++serial_;
    stillsShown_ = 0;
    clearLayout(*legend_);
    ChartFeature first = chartOf(feature_);
    std::optional<ChartFeature> second;
    if (second_) second = chartOf(*second_);
    for (std::size_t r = 0; r < first.curves.size(); ++r) {
        addLegend(r, first.curves[r].curve, first.curves.front().curve);
        if (second) addSecond(first.curves[r].curve, second->curves[r].curve);
        legend_->addSpacing(10);
    }
    legend_->addStretch(1);
    chart_->setFeatures(std::move(first), std::move(second));
}

void CurvePlace::addSecond(const FeatureCurve& one, const FeatureCurve& other) {
    if (!other.event) {
        legend_->addWidget(
            quiet(say(nameOf(*second_)) + ": " + say(other.why.empty() ? other.noEvent : other.why), 12.5));
        return;
    }
    legend_->addWidget(quiet(say("curve-place.second-event", {{"moment", momentOf(*second_)},
                                                              {"ms", Decimal{other.event->ms, 0}},
                                                              {"error", Decimal{other.event->half95, 0}}}),
                             12.5));
    if (one.event)
        legend_->addWidget(quiet(say(orderOf({feature_, *one.event}, {*second_, *other.event})), 12.5));
}

/// Whose it is, when its moment came and how that lies to the first row's, and the still of it.
void CurvePlace::addLegend(std::size_t r, const FeatureCurve& curve, const FeatureCurve& first) {
    const JuxtaEntry& e = sheet_.rows[r].entry;
    legend_->addWidget(plain(CurveChart::letterOf(r) + "   " + say(captionOf(e)), 13.5, true));
    std::optional<std::int64_t> frame = e.marks.frameOf(Moment::FootTouch);
    if (!curve.why.empty()) {
        legend_->addWidget(quiet(say(curve.why), 12.5));
    } else if (const CurvePoint* at = pointAtEvent(curve)) {
        frame = at->frame;
        legend_->addWidget(quiet(say("curve-place.event", {{"ms", Decimal{curve.event->ms, 0}},
                                                           {"error", Decimal{curve.event->half95, 0}}}),
                                 12.5));
        if (r > 0 && first.event)
            legend_->addWidget(quiet(
                say("curve-place.against-first", {{"how", whichFirst(*first.event, *curve.event)}}), 12.5));
    } else {
        legend_->addWidget(quiet(say(curve.noEvent), 12.5));
    }
    if (frame) readStill(r, *frame);
}

void CurvePlace::readStill(std::size_t row, std::int64_t frame) {
    auto* label = new QLabel;
    label->setFixedSize(QSize(em(kStill.width()), em(kStill.height())));
    label->setAccessibleName(say("curve-place.still"));
    legend_->addWidget(label);
    auto other = library_.again();
    if (!other) return;
    const JuxtaRow& whole = sheet_.rows[row]; // a sheet of this one still
    const JuxtaSheet one{{whole}, {{Moment::FootTouch, {cellAt(whole.entry, frame)}, {}}}};
    const QSize size = label->size() * devicePixelRatioF();
    new Job(this,
            [this, label, one, frame, size, serial = serial_,
             own = std::shared_ptr<Library>(std::move(*other))](std::stop_token stop,
                                                                const Job::Progress&) -> Job::Continuation {
                JuxtaFilms films(*own, one, Stills::Near, stop);
                auto picture = caught([&] { return films.picture(0, frame); });
                if (!picture) return {};
                return [this, label, serial, still = juxtaStill(one, {0, 0}, *picture, size)] {
                    if (serial != serial_) return; // the label is on its way out
                    QPixmap shown = QPixmap::fromImage(still);
                    shown.setDevicePixelRatio(devicePixelRatioF());
                    label->setPixmap(shown);
                    ++stillsShown_;
                };
            });
}

KeyHints CurvePlace::hints() const {
    return {{"F", say("curve-place.next-feature"), "curve-next"},
            {"G", say("curve-place.second"), "curve-second"},
            {"Esc", say("pair-place.back"), "curve-back"}};
}

Handlers CurvePlace::makeHandlers() {
    return {{"curve-next", [this] { next(1); }},
            {"curve-previous", [this] { next(-1); }},
            {"curve-second", [this] { nextSecond(1); }},
            {"curve-second-back", [this] { nextSecond(-1); }},
            {"curve-back", [this] { back_(); }}};
}

} // namespace jg::ui
