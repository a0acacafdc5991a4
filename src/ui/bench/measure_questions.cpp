// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/measure_questions.h"

#include "base/number.h"
#include "review/record/camera_place.h"
#include "review/record/camera_turn.h"
#include "review/record/positions.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/theme.h"

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {

constexpr double kMostTurnDeg = 45; ///< own choice: beyond it the other axis is the better one

} // namespace

/// Frames beside the key positions that the measure needs and that are not set yet.
std::vector<Moment> openMoments(const MeasureDefinition& m, const DeliveryMarks& delivery) {
    std::vector<Moment> open;
    std::copy_if(m.moments.begin(), m.moments.end(), std::back_inserter(open),
                 [&](Moment moment) { return !isKeyPosition(moment) && !delivery.moments.contains(moment); });
    return open;
}

void askSeen(QWidget* parent, const MeasureDefinition& m, const PerformEdit& perform) {
    QStringList options;
    for (const std::string& o : m.options) options << text(o);
    askChoice(parent, {"seen", text(m.name), text(m.hint), options, ""},
              [perform, id = m.id, all = m.options](const ChoiceAnswer& answer) {
                  perform(msg("measure-questions.say-what-is-seen"),
                          {SetAnswer{id, MeasureAnswer{all[*answer.option], {}}}});
              });
}

namespace {

/// Of the frames beside the key positions the first one still open; when all are set, the one nearest to
/// `here`.
std::optional<Moment> extraMoment(const MeasureDefinition& m, const DeliveryMarks& delivery, qint64 here) {
    std::optional<Moment> moment;
    for (const Moment extra : m.moments) {
        if (isKeyPosition(extra)) continue;
        const auto at = delivery.frameOf(extra);
        if (!at) return extra;
        if (!moment || std::abs(*at - here) < std::abs(*delivery.frameOf(*moment) - here)) moment = extra;
    }
    return moment;
}

} // namespace

void MeasureQuestions::answer(const MeasureDefinition& m) {
    if (m.kind == MeasureKind::Seen) {
        if (const auto at = m.moments.empty() ? std::nullopt : delivery().frameOf(m.moments.back()))
            c_.playhead.step(*at - c_.playhead.frame());
        return askSeen(parent_, m, perform_);
    }
    if (!m.numbers.empty() && openMoments(m, delivery()).empty()) return askNumber(m, m.numbers.front());
    const bool opened = opened_ && std::find(m.moments.begin(), m.moments.end(), *opened_) != m.moments.end();
    if (opened) return setExtraMoment(*opened_);
    if (const auto moment = extraMoment(m, delivery(), c_.playhead.frame())) return openMoment(*moment);
    c_.say(say("measure-questions.this-measure-asks-for-nothing-beside"));
}

void MeasureQuestions::again(const MeasureDefinition& m) {
    const qint64 here = c_.playhead.frame();
    const auto moment = extraMoment(m, delivery(), here);
    if (!moment) return c_.say(say("measure-questions.nothing-to-repeat"));
    if (const Status set = c_.session.setAgain(*moment, here); !set) return c_.say(say(set.error().text));
    const bool added = isAgain(delivery().moments.at(*moment), here);
    c_.say(say(added ? "measure-questions.again-here" : "measure-questions.no-longer-again",
               {{"moment", info(*moment).name()}, {"here", here}}));
}

void MeasureQuestions::openMoment(Moment moment) {
    opened_ = moment;
    const auto at = delivery().frameOf(moment);
    if (at) c_.playhead.step(*at - c_.playhead.frame());
    c_.say(say(at ? "measure-questions.moment-is-here" : "measure-questions.step-to-moment",
               {{"moment", info(moment).name()}}));
}

/// Sets the frame here that was asked for.
void MeasureQuestions::setExtraMoment(Moment moment) {
    opened_.reset();
    const qint64 here = c_.playhead.frame();
    const Status set = c_.session.setMoment(moment, here);
    c_.say(set ? say("measure-questions.moment-frame-here", {{"moment", info(moment).name()}, {"here", here}})
               : say(set.error().text));
}

/// One number after the other, until all are entered.
void MeasureQuestions::askNumber(const MeasureDefinition& m, const std::string& name) {
    askChoice(parent_,
              {"number",
               text(m.name),
               say("measure-questions.name-as-a-number", {{"name", name}}),
               {},
               say("measure-questions.name-then-enter", {{"name", name}})},
              [this, &m, name](const ChoiceAnswer& typed) {
                  const auto value = typedNumber(typed.words.toStdString());
                  if (!value || *value <= 0)
                      return c_.say(say("measure-questions.that-is-not-a-number-above"));
                  MeasureAnswer answer;
                  if (const auto it = delivery().answers.find(m.id); it != delivery().answers.end())
                      answer = it->second;
                  answer.numbers[name] = *value;
                  perform_(msg("measure-questions.enter-a-number"), {SetAnswer{m.id, answer}});
                  const auto next = std::find(m.numbers.begin(), m.numbers.end(), name) + 1;
                  if (next != m.numbers.end()) askNumber(m, *next);
              });
}

namespace {

/// What the film's own lines show of the turn, as the film check said it; empty when they show none.
QString turnByFilm(const Clip& clip) {
    for (const Message& line : clip.check)
        if (line.id == "film-check.turned") return ' ' + say(line);
    return {};
}

} // namespace

void MeasureQuestions::cameraTurn(const Draw& draw) {
    const bool side = isSideView(c_.session.clip().view);
    const QString now = delivery().turn ? say("measure-questions.now-deg-give-or-take-sd",
                                              {{"deg", std::lround(delivery().turn->deg)},
                                               {"sdDeg", std::lround(kSdsOf95 * delivery().turn->sdDeg)}})
                                        : say("measure-questions.now-not-said");
    enum class By { Square, Nothing, Rubber, YouthRubber, Heights };
    QStringList options{say("measure-questions.square-said"), say("measure-questions.turn-not-known")};
    std::vector<By> ways{By::Square, By::Nothing};
    if (side) {
        options << say("measure-questions.rubber-corners");
        ways.push_back(By::Rubber);
        options << say("measure-questions.find-youth-rubber");
        ways.push_back(By::YouthRubber);
    }
    options << say(side ? "measure-questions.find-posts-side" : "measure-questions.find-posts-ends");
    ways.push_back(By::Heights);
    askChoice(parent_,
              {"turn", say("measure-questions.how-far-was-the-camera-turned"),
               say(side ? "measure-questions.degrees-toward-plate" : "measure-questions.degrees-toward-glove",
                   {{"now", now}}) +
                   turnByFilm(c_.session.clip()),
               options, say("measure-questions.degrees-then-enter")},
              [this, ways, draw](const ChoiceAnswer& answer) {
                  const auto said = [&](std::optional<CameraTurn> turn) {
                      perform_(msg("measure-questions.cameras-turn"), {SetTurn{turn}});
                  };
                  if (answer.option) switch (ways[*answer.option]) {
                      case By::Square:
                          return said(kSquareTurn);
                      case By::Nothing:
                          return said(std::nullopt);
                      case By::Rubber:
                          return draw(rubberDrawing(kFullRubber));
                      case By::YouthRubber:
                          return draw(rubberDrawing(kYouthRubber));
                      case By::Heights:
                          return findByHeights(draw);
                      }
                  const auto deg = typedNumber(answer.words.toStdString());
                  if (!deg) return c_.say(say("measure-questions.no-degrees"));
                  if (std::abs(*deg) > kMostTurnDeg) return c_.say(say("measure-questions.turned-too-far"));
                  said(CameraTurn{*deg});
              });
}

Drawing MeasureQuestions::rubberDrawing(RubberSize size) {
    return Drawing(MarkKind::Angle,
                   {say("measure-questions.rubber-corner"),
                    say("measure-questions.its-near-corner-toward-the-plate"),
                    say("measure-questions.the-far-end-of-that-edge")},
                   [this, size](const auto& corners) {
                       const auto clicked = [&](std::size_t i) {
                           return ClickedPoint{corners.at(i), kDefaultClickSigmaPx};
                       };
                       takeTurn(turnByRubber(delivery(), c_.session.clip(), c_.session.athlete().hand,
                                             {clicked(1), clicked(0), clicked(2), size}),
                                say("measure-questions.by-the-rubber"),
                                say("measure-questions.these-three-points-show-no-rubber"));
                   });
}

void MeasureQuestions::findByHeights(const Draw& draw) {
    if (!cameraPlaceOf(delivery(), c_.session.clip()))
        return c_.say(say("measure-questions.place-the-top-of-the-head"));
    draw(Drawing(
        MarkKind::Line,
        {say("measure-questions.the-top-of-the-first-post"), say("measure-questions.its-foot"),
         say("measure-questions.second-top"), say("measure-questions.its-foot")},
        [this](const auto& ends) {
            const auto upright = [&](std::size_t i) {
                return Upright{{ends.at(i), kDefaultClickSigmaPx}, {ends.at(i + 1), kDefaultClickSigmaPx}};
            };
            takeTurn(turnByHeights(delivery(), c_.session.clip(), c_.session.athlete().hand,
                                   {upright(0), upright(2)}),
                     say("measure-questions.by-the-two-heights"), say("measure-questions.no-turn"));
        }));
}

void MeasureQuestions::takeTurn(Estimate turn, const QString& by, const QString& otherwise) {
    constexpr double kMostSdDeg = 12; // own choice: a rougher turn corrects nothing
    if (!std::isfinite(turn.value) || std::abs(turn.value) > kMostTurnDeg || !(turn.sd <= kMostSdDeg))
        return c_.say(otherwise);
    const bool side = isSideView(c_.session.clip().view);
    const char* told =
        turn.value < 0 ? side ? "measure-questions.turned-from-plate" : "measure-questions.turned-from-glove"
        : side         ? "measure-questions.turned-to-plate"
                       : "measure-questions.turned-to-glove";
    if (perform_(msg("measure-questions.cameras-turn"), {SetTurn{CameraTurn{turn.value, turn.sd}}}))
        c_.say(say(told, {{"by", by},
                          {"degrees", std::lround(std::abs(turn.value))},
                          {"error", std::lround(std::max(1.0, turn.half95()))}}));
}

void MeasureQuestions::scale(const Draw& draw) {
    QStringList options;
    std::vector<ScaleInfo> scales; // whose length this film can show
    for (const ScaleInfo& s : allScales()) {
        if (!s.seenFrom(c_.session.clip().view)) continue;
        scales.push_back(s);
        options << say(delivery().scales.contains(s.kind) ? "measure-questions.scale-given"
                       : s.planeSd > kLargestPlaneSd      ? "measure-questions.scale-too-far"
                                                          : "measure-questions.scale",
                       {{"scale", s.name()}});
    }
    const bool metric = c_.session.playbook().lengths == LengthUnit::Centimetres;
    options << (metric ? say("measure-questions.say-lengths-in-inches")
                       : say("measure-questions.say-lengths-in-centimetres"));
    if (!delivery().scales.empty()) options << say("measure-questions.take-all-scales-away");
    askChoice(parent_,
              {"scale", say("measure-questions.which-length-is-known"), say("measure-questions.scale-hint"),
               options, ""},
              [this, scales, metric, draw](const ChoiceAnswer& answer) {
                  const std::size_t row = *answer.option;
                  if (row == scales.size())
                      return sayLengthsIn(metric ? LengthUnit::Inches : LengthUnit::Centimetres);
                  if (row > scales.size()) {
                      std::vector<Change> gone;
                      for (const auto& [kind, mark] : delivery().scales)
                          gone.push_back(SetScale{kind, std::nullopt});
                      perform_(msg("measure-questions.take-the-scales-away"), std::move(gone));
                      return;
                  }
                  const ScaleInfo& s = scales[row];
                  if (s.planeSd > kLargestPlaneSd) return c_.say(say("measure-questions.plate-far"));
                  if (s.metres > 0) return draw(scaleDrawing(s.kind, s.metres));
                  askLength(s.kind, draw);
              });
}

void MeasureQuestions::sayLengthsIn(LengthUnit unit) {
    if (const Status kept = c_.keepLengths(unit); !kept) return c_.say(say(kept.error().text));
    c_.session.playbookChanged();
    c_.say(unit == LengthUnit::Inches ? say("measure-questions.now-inches")
                                      : say("measure-questions.now-centimetres"));
}

Drawing MeasureQuestions::scaleDrawing(ScaleKind kind, double metres) {
    return Drawing(MarkKind::Line, {say(info(kind).where()), say("measure-bench.its-other-end")},
                   [this, kind, metres](const std::vector<ImagePoint>& ends) {
                       if (ends[0] == ends[1]) return c_.say(say("measure-questions.same-spot"));
                       perform_(msg("measure-questions.give-a-scale"),
                                {SetScale{kind, ScaleMark{c_.stage.shownFrame(), ends[0], ends[1], metres}}});
                   });
}

void MeasureQuestions::askLength(ScaleKind kind, const Draw& draw) {
    const double known =
        kind == ScaleKind::Height ? c_.session.athlete().heightOn(c_.session.review().date) : 0;
    QStringList options;
    if (known > 0)
        options << say("measure-questions.as-on-the-athletes-page", {{"cm", std::lround(known * 100)}});
    askChoice(parent_,
              {"length", say("measure-questions.how-long-is-info", {{"info", info(kind).name()}}),
               say("measure-questions.as-170-cm-1-7-m"), options, say("measure-questions.length-then-enter")},
              [this, kind, draw, known](const ChoiceAnswer& typed) {
                  const auto metres =
                      typed.option ? std::optional(known) : metresFromWords(typed.words.toStdString());
                  if (!metres) return c_.say(say("measure-questions.no-length"));
                  if (kind != ScaleKind::Height) return draw(scaleDrawing(kind, *metres));
                  perform_(msg("measure-questions.give-the-athletes-height"),
                           {SetScale{kind, ScaleMark{0, {}, {}, *metres}}});
                  if (heightOf(delivery()).value <= 0)
                      c_.say(say("measure-questions.kept-inches-follow-when-the-top"));
              });
}

} // namespace jg::ui
