#include "ui/review/positions_bench.h"

#include "ui/review/reason_dialog.h"
#include "ui/theme.h"

#include <algorithm>

namespace jg::ui {

PositionsBench::PositionsBench(ReviewContext& context)
    : Bench(context) {
    title_ = heading("");
    column_->addWidget(title_);
    how_ = quiet("", 13);
    how_->setMinimumHeight(56);
    how_->setAlignment(Qt::AlignTop);
    column_->addWidget(how_);
    auto* row = new QHBoxLayout;
    set_ = mainButton("Set here");
    auto* hidden = plainButton("Not visible here");
    connect(set_, &QPushButton::clicked, this, [this] { c_.runAction("set-here"); });
    connect(hidden, &QPushButton::clicked, this, [this] { c_.runAction("position-hidden"); });
    row->addWidget(set_, 1);
    row->addWidget(hidden);
    column_->addLayout(row);
    on_ = mainButton("All nine are settled: on to measuring");
    connect(on_, &QPushButton::clicked, this, [this] { c_.runAction("stage-next"); });
    column_->addWidget(on_);
    suggested_ = plainButton("");
    suggested_->setObjectName("link");
    connect(suggested_, &QPushButton::clicked, this, [this] { c_.runAction("position-suggested"); });
    column_->addWidget(suggested_, 0, Qt::AlignLeft);
    list_ = new RowList;
    list_->setObjectName("positions");
    list_->setAccessibleName("Key positions");
    connect(list_, &RowList::selected, this, &PositionsBench::select);
    column_->addWidget(list_, 1);
    refresh();
}

Moment PositionsBench::current() const {
    return static_cast<Moment>(std::max(0, list_->current()));
}

void PositionsBench::refresh() {
    std::vector<ListRow> rows;
    for (const MomentInfo& m : keyPositions()) {
        ListRow row;
        row.title = text(m.name);
        const auto it = delivery().moments.find(m.moment);
        row.mark = it == delivery().moments.end() ? RowMark::Open : RowMark::Done;
        if (it != delivery().moments.end() && it->second.frame) {
            const qint64 frame = *it->second.frame;
            row.right = m.moment == Moment::Release
                            ? releaseText(frame)
                            : QString("%1 \u00b7 f %2").arg(c_.ribbon.timeText(frame)).arg(frame);
        } else if (it != delivery().moments.end()) {
            row.right = "not visible: " + QString::fromStdString(it->second.notVisible);
        } else {
            row.right = "open";
        }
        rows.push_back(std::move(row));
    }
    const int keep = list_->current();
    list_->setRows(std::move(rows));
    list_->setCurrent(keep < 0 ? 0 : keep);
    showHow();
}

/// A bracket of two frames; finer where the ball's first frames were clicked.
QString PositionsBench::releaseText(qint64 frame) const {
    const MeasureRow* ball = c_.session.assessment().measure("release-instant");
    if (!ball || !ball->value.value || ball->delivery != delivery().number)
        return QString("between f %1 and %2").arg(frame).arg(frame + 1);
    const double perMs = c_.session.clip().captureFps / 1000;
    return QString("f %1 \u00b1 %2, by the ball")
        .arg(static_cast<double>(frame) + *ball->value.value * perMs, 0, 'f', 1)
        .arg(std::max(0.1, ball->value.half95() * perMs), 0, 'f', 1);
}

void PositionsBench::enter() {
    // The first open one is next.
    for (const MomentInfo& m : keyPositions())
        if (!delivery().moments.contains(m.moment)) {
            list_->setCurrent(static_cast<int>(m.moment));
            break;
        }
    showHow();
}

void PositionsBench::showHow() {
    title_->setText(text(info(current()).name));
    how_->setText(text(info(current()).how));
    const auto place = suggested();
    suggested_->setVisible(place.has_value());
    if (place)
        suggested_->setText(
            QString("Suggested from motion: f %1%2").arg(place->frame).arg(place->sure ? "" : ", roughly"));
    set_->setText(delivery().moments.contains(current()) ? "Move it here" : "Set here");
    on_->setVisible(allSet());
    setAsMain(set_, !allSet()); // one way on stands out
}

bool PositionsBench::allSet() const {
    const auto& all = keyPositions();
    return std::all_of(all.begin(), all.end(),
                       [&](const MomentInfo& m) { return delivery().moments.contains(m.moment); });
}

std::optional<FoundDelivery::Place> PositionsBench::suggested() const {
    const auto& all = c_.session.clip().deliveries;
    if (all.empty()) return std::nullopt;
    const qint64 now = c_.playhead.frame();
    const auto& cut = delivery().cut;
    const auto here = std::find_if(all.begin(), all.end(), [&](const FoundDelivery& d) {
        const FrameSpan span{d.first, d.last};
        return cut ? *cut == span : span.holds(now);
    });
    const FoundDelivery& delivery = here == all.end() ? all.front() : *here;
    const auto place = delivery.places.find(current());
    return place == delivery.places.end() ? std::nullopt : std::optional(place->second);
}

void PositionsBench::goToSuggested() {
    const auto place = suggested();
    if (!place) return c_.say("Motion suggests no frame for this position: find it by stepping.");
    c_.playhead.step(place->frame - c_.playhead.frame());
    c_.say(place->sure ? "Suggested from motion. Look, step if need be, then Enter."
                       : "A rough guess from motion: step until it is right, then Enter.");
}

void PositionsBench::select(int) {
    showHow();
    if (const auto frame = delivery().frameOf(current())) c_.playhead.step(*frame - c_.playhead.frame());
}

void PositionsBench::setHere() {
    const Moment moment = current();
    const Status set = c_.session.setMoment(moment, c_.playhead.frame());
    if (!set) {
        c_.say(QString::fromStdString(set.error().text));
        return;
    }
    c_.say({}); // what was said of the frame before would cover the keys
    if (list_->current() + 1 < static_cast<int>(keyPositions().size()))
        list_->setCurrent(list_->current() + 1);
    showHow();
}

bool PositionsBench::act(const QString& id) {
    if (id == "set-here") return setHere(), true;
    if (id == "position-suggested") return goToSuggested(), true;
    if (id == "row-up") return list_->move(-1), true;
    if (id == "row-down") return list_->move(1), true;
    if (id == "position-clear")
        return perform("Take the position away", {SetMoment{current(), std::nullopt}}), true;
    if (id == "position-hidden") {
        const Moment moment = current();
        askReason(this, text(info(moment).name) + " is not visible", [this, moment](const QString& reason) {
            if (perform("Not visible here",
                        {SetMoment{moment, MomentMark{std::nullopt, reason.toStdString()}}}) &&
                list_->current() + 1 < 9)
                list_->setCurrent(list_->current() + 1);
            showHow();
        });
        return true;
    }
    return false;
}

QString PositionsBench::stageCaption() const {
    for (const auto& [moment, mark] : delivery().moments)
        if (mark.frame == c_.playhead.frame()) return text(info(moment).name);
    return {};
}

} // namespace jg::ui
