// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/positions/positions_bench.h"

#include "review/assess/reasons.h"
#include "review/record/positions.h"
#include "ui/bench/reason_dialog.h"
#include "ui/kit/theme.h"

#include <algorithm>
#include <utility>

namespace jg::ui {

PositionsBench::PositionsBench(ReviewContext& context)
    : Bench(context) {
    title_ = heading("");
    column_->addWidget(title_);
    how_ = quiet("", 13);
    how_->setMinimumHeight(em(56));
    how_->setAlignment(Qt::AlignTop);
    column_->addWidget(how_);
    auto* row = new QHBoxLayout;
    set_ = mainButton(say("positions-bench.set-here"));
    auto* hidden = plainButton(say("positions-bench.not-visible-here"));
    connect(set_, &QPushButton::clicked, this, [this] { setHere(); });
    connect(hidden, &QPushButton::clicked, this, [this] { c_.runAction("position-hidden"); });
    row->addWidget(set_, 1);
    row->addWidget(hidden);
    column_->addLayout(row);
    on_ = mainButton(say("positions-bench.settled"));
    connect(on_, &QPushButton::clicked, this, [this] { c_.runAction("stage-next"); });
    column_->addWidget(on_);
    suggested_ = plainButton("");
    suggested_->setObjectName("link");
    connect(suggested_, &QPushButton::clicked, this, [this] { c_.runAction("position-suggested"); });
    column_->addWidget(suggested_, 0, Qt::AlignLeft);
    again_ = plainButton("");
    again_->setObjectName("link");
    connect(again_, &QPushButton::clicked, this, [this] { c_.runAction("position-again"); });
    column_->addWidget(again_, 0, Qt::AlignLeft);
    list_ = new RowList;
    list_->setObjectName("positions");
    list_->setAccessibleName(say("positions-bench.key-positions"));
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
        row.title = say(m.name());
        const auto it = delivery().moments.find(m.moment);
        row.mark = it == delivery().moments.end() ? RowMark::Open : RowMark::Done;
        if (it != delivery().moments.end() && it->second.frame) {
            const qint64 frame = *it->second.frame;
            row.right = m.moment == Moment::Release
                            ? releaseText(frame)
                            : say("positions-bench.time-and-frame",
                                  {{"time", c_.ribbon.timeText(frame)}, {"frame", frame}});
            std::vector<Message> again;
            for (const qint64 other : it->second.again) again.push_back(asIs(std::to_string(other)));
            if (!again.empty())
                row.sub =
                    say("positions-bench.again-at", {{"frames", joined(ListStyle::And, std::move(again))}});
        } else if (it != delivery().moments.end()) {
            row.right = say("positions-bench.not-visible-not-visible",
                            {{"notVisible", reasonInWords(it->second.notVisible)}});
        } else {
            row.right = say("verdict.open");
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
        return say("positions-bench.between-f-frame-and-frame2", {{"frame", frame}, {"frame2", frame + 1}});
    const double perMs = c_.session.clip().captureFps / 1000;
    return say("positions-bench.release-by-ball",
               {{"perMs", Decimal{static_cast<double>(frame) + *ball->value.value * perMs, 1}},
                {"perMs2", Decimal{std::max(0.1, ball->value.half95() * perMs), 1}}});
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
    title_->setText(say(info(current()).name()));
    how_->setText(say(info(current()).how()));
    const auto place = suggested();
    suggested_->setVisible(place.has_value());
    if (place)
        suggested_->setText(
            say(place->sure ? "positions-bench.suggested" : "positions-bench.suggested-roughly",
                {{"frame", place->frame}}));
    const auto mark = delivery().moments.find(current());
    const bool isSet = mark != delivery().moments.end() && mark->second.frame;
    const bool again = isSet && isAgain(mark->second, c_.playhead.frame());
    set_->setText(say(again                              ? "positions-bench.this-one-counts"
                      : mark != delivery().moments.end() ? "positions-bench.move-it-here"
                                                         : "positions-bench.set-here"));
    again_->setVisible(isSet && *mark->second.frame != c_.playhead.frame());
    again_->setText(say(again ? "positions-bench.not-again-here" : "positions-bench.again-here"));
    on_->setVisible(allSet());
    setAsMain(set_, !allSet()); // one way on stands out
    if (std::exchange(enterSays_, enterDoes()) != enterSays_) c_.showHints();
}

const char* PositionsBench::enterDoes() const {
    const auto set = delivery().frameOf(current());
    if (!set) return "positions-bench.set-here-2";
    if (*set != c_.playhead.frame()) return "positions-bench.hint-move";
    return allSet() ? "positions-bench.on-to-measuring" : "positions-bench.another-position";
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
    if (!place) return c_.say(say("positions-bench.no-suggestion"));
    c_.playhead.step(place->frame - c_.playhead.frame());
    c_.say(place->sure ? say("positions-bench.from-motion")
                       : say("positions-bench.a-rough-guess-from-motion-step"));
}

void PositionsBench::select(int) {
    showHow();
    if (const auto frame = delivery().frameOf(current())) c_.playhead.step(*frame - c_.playhead.frame());
}

std::optional<Message> PositionsBench::askBefore(Moment moment, qint64 frame) const {
    const auto set = delivery().frameOf(moment);
    const Message name = info(moment).name();
    if (set && *set != frame) return msg("positions-bench.ask-move", {{"position", name}, {"frame", *set}});
    for (const auto& [other, mark] : delivery().moments)
        if (other != moment && mark.frame == frame)
            return msg("positions-bench.ask-same", {{"position", name}, {"other", info(other).name()}});
    return std::nullopt;
}

/// Enter sets what is open. What is set already is moved by a second Enter only, and one that stands here
/// leads on.
void PositionsBench::setByKey() {
    const std::pair<Moment, qint64> here{current(), c_.playhead.frame()};
    if (delivery().frameOf(here.first) == here.second)
        return allSet() ? c_.runAction("stage-next") : toNextOpen();
    const auto ask = askBefore(here.first, here.second);
    if (ask && std::exchange(asked_, here) != here) return c_.say(say(*ask));
    setHere();
}

/// The next open position, round the list; the one in hand when none is.
void PositionsBench::toNextOpen() {
    const int all = static_cast<int>(keyPositions().size()), now = list_->current();
    for (int i = 1; i < all; ++i) {
        const int row = (now + i) % all;
        if (delivery().moments.contains(static_cast<Moment>(row))) continue;
        list_->setCurrent(row);
        break;
    }
    showHow();
}

void PositionsBench::setHere() {
    const Moment moment = current();
    const Status set = c_.session.setMoment(moment, c_.playhead.frame());
    if (!set) {
        c_.say(say(set.error().text));
        return;
    }
    c_.say({}); // what was said of the frame before would cover the keys
    asked_.reset();
    toNextOpen();
}

Handlers PositionsBench::handlers() {
    return {
        {"set-here", [this] { setByKey(); }},
        {"position-suggested", [this] { goToSuggested(); }},
        {"row-up", [this] { list_->move(-1); }},
        {"row-down", [this] { list_->move(1); }},
        {"position-clear",
         [this] {
             perform(msg("positions-bench.take-the-position-away"), {SetMoment{current(), std::nullopt}});
         }},
        {"position-hidden", [this] { sayHidden(); }},
        {"position-again", [this] { setAgain(); }},
    };
}

void PositionsBench::setAgain() {
    const Status set = c_.session.setAgain(current(), c_.playhead.frame());
    c_.say(set ? QString() : say(set.error().text));
    showHow();
}

void PositionsBench::sayHidden() {
    const Moment moment = current();
    askReason(this, say("positions-bench.moment-is-not-visible", {{"moment", info(moment).name()}}),
              [this, moment](const QString& reason) {
                  if (perform(msg("positions-bench.not-visible-here"),
                              {SetMoment{moment, MomentMark{std::nullopt, reason.toStdString()}}}))
                      toNextOpen();
                  showHow();
              });
}

QString PositionsBench::stageCaption() const {
    for (const auto& [moment, mark] : delivery().moments)
        if (mark.frame == c_.playhead.frame())
            return say(info(moment).name());
        else if (isAgain(mark, c_.playhead.frame()))
            return say("review-place.again", {{"position", info(moment).name()}});
    return {};
}

} // namespace jg::ui
