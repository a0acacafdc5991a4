#include "ui/review/measure_questions.h"

#include "base/number.h"
#include "review/camera_place.h"
#include "review/camera_turn.h"
#include "ui/review/choice_dialog.h"
#include "ui/theme.h"

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

void MeasureQuestions::answer(const MeasureDefinition& m) {
    if (m.kind == MeasureKind::Seen) {
        QStringList options;
        for (const std::string& o : m.options) options << QString::fromStdString(o);
        askChoice(parent_,
                  {"seen", QString::fromStdString(m.name), QString::fromStdString(m.hint), options, ""},
                  [this, id = m.id](const QString& option) {
                      perform_("Say what is seen", {SetAnswer{id, MeasureAnswer{option.toStdString(), {}}}});
                  });
        return;
    }
    const auto extra =
        std::any_of(m.moments.begin(), m.moments.end(), [](Moment moment) { return !isKeyPosition(moment); });
    if (!m.numbers.empty() && openMoments(m, delivery()).empty()) return askNumber(m, m.numbers.front());
    if (extra) return setExtraMoment(m);
    c_.say("This measure asks for nothing beside its points and positions.");
}

/// The first one still open; when all are set, the one nearest to the playhead moves here.
void MeasureQuestions::setExtraMoment(const MeasureDefinition& m) {
    const qint64 here = c_.playhead.frame();
    std::optional<Moment> moment;
    for (const Moment extra : m.moments) {
        if (isKeyPosition(extra)) continue;
        const auto at = delivery().frameOf(extra);
        if (!at) {
            moment = extra;
            break;
        }
        if (!moment || std::abs(*at - here) < std::abs(*delivery().frameOf(*moment) - here)) moment = extra;
    }
    const Status set = c_.session.setMoment(*moment, here);
    c_.say(set ? QString("%1: frame %2.").arg(text(info(*moment).name)).arg(here)
               : QString::fromStdString(set.error().text));
}

/// One number after the other, until all are entered.
void MeasureQuestions::askNumber(const MeasureDefinition& m, const std::string& name) {
    askChoice(parent_,
              {"number",
               QString::fromStdString(m.name),
               QString("%1, as a number:").arg(QString::fromStdString(name)),
               {},
               QString("%1, then Enter").arg(QString::fromStdString(name))},
              [this, &m, name](const QString& typed) {
                  const auto value = typedNumber(typed.toStdString());
                  if (!value || *value <= 0)
                      return c_.say("That is not a number above zero. Press U to enter it again.");
                  MeasureAnswer answer;
                  if (const auto it = delivery().answers.find(m.id); it != delivery().answers.end())
                      answer = it->second;
                  answer.numbers[name] = *value;
                  perform_("Enter a number", {SetAnswer{m.id, answer}});
                  const auto next = std::find(m.numbers.begin(), m.numbers.end(), name) + 1;
                  if (next != m.numbers.end()) askNumber(m, *next);
              });
}

void MeasureQuestions::cameraTurn(const Draw& draw) {
    const bool side = isSideView(c_.session.clip().view);
    const QString now = delivery().turn ? QString(" Now: %1, give or take %2.")
                                              .arg(std::lround(delivery().turn->deg))
                                              .arg(std::lround(kSdsOf95 * delivery().turn->sdDeg))
                                        : QString(" Now: taken as square.");
    const QString none = "square or not known: leave it out",
                  rubber = "find it: click three corners of the rubber",
                  heights = QString("find it: two posts of one height on a line %1")
                                .arg(side ? "to the plate" : "across the field");
    QStringList options{none};
    if (side) options << rubber;
    options << heights;
    askChoice(
        parent_,
        {"turn", "How far was the camera turned from square?",
         QString(
             "Degrees toward the %1, minus for away from it. The numbers are corrected for it and for the "
             "body's depth, and their errors widen.")
                 .arg(side ? "plate" : "glove side") +
             now,
         options, "degrees, then Enter"},
        [this, none, rubber, heights, draw](const QString& typed) {
            if (typed == rubber) return draw(rubberDrawing());
            if (typed == heights) return findByHeights(draw);
            if (typed == none) {
                perform_("Camera's turn", {SetTurn{std::nullopt}});
                return;
            }
            const auto deg = typedNumber(typed.toStdString());
            if (!deg) return c_.say("That is not a number of degrees. Press Y to enter it again.");
            if (std::abs(*deg) > kMostTurnDeg)
                return c_.say("More than 45 degrees can't be corrected: ask for a film from the side.");
            perform_("Camera's turn", {SetTurn{CameraTurn{*deg}}});
        });
}

Drawing MeasureQuestions::rubberDrawing() {
    return Drawing(MarkKind::Angle,
                   {"the rubber's near corner away from the plate", "its near corner toward the plate",
                    "the far end of that edge"},
                   [this](const auto& corners) {
                       const auto clicked = [&](std::size_t i) {
                           return ClickedPoint{corners.at(i), kDefaultClickSigmaPx};
                       };
                       takeTurn(turnByRubber(delivery(), c_.session.clip(), c_.session.athlete().hand,
                                             {clicked(1), clicked(0), clicked(2)}),
                                "By the rubber",
                                "These three points show no rubber. Press Y and click its corners again.");
                   });
}

void MeasureQuestions::findByHeights(const Draw& draw) {
    if (!cameraPlaceOf(delivery(), c_.session.clip()))
        return c_.say(
            "Place the top of the head and the ground at Set first: from the athlete's height comes "
            "how far away the camera stood.");
    draw(Drawing(
        MarkKind::Line,
        {"the top of the first post", "its foot", "the top of the second, of the same height", "its foot"},
        [this](const auto& ends) {
            const auto upright = [&](std::size_t i) {
                return Upright{{ends.at(i), kDefaultClickSigmaPx}, {ends.at(i + 1), kDefaultClickSigmaPx}};
            };
            takeTurn(turnByHeights(delivery(), c_.session.clip(), c_.session.athlete().hand,
                                   {upright(0), upright(2)}),
                     "By the two heights",
                     "These two tell no turn: they stand too near each other or are not of one "
                     "height. Press Y and click two others.");
        }));
}

void MeasureQuestions::takeTurn(Estimate turn, const QString& by, const QString& otherwise) {
    constexpr double kMostSdDeg = 12; // own choice: a rougher turn corrects nothing
    if (!std::isfinite(turn.value) || std::abs(turn.value) > kMostTurnDeg || !(turn.sd <= kMostSdDeg))
        return c_.say(otherwise);
    const QString toward = isSideView(c_.session.clip().view) ? "the plate" : "the glove side";
    if (perform_("Camera's turn", {SetTurn{CameraTurn{turn.value, turn.sd}}}))
        c_.say(QString("%1 the camera was turned %2\u00b0 %3 %4, give or take %5\u00b0.")
                   .arg(by)
                   .arg(std::lround(std::abs(turn.value)))
                   .arg(turn.value < 0 ? "away from" : "toward", toward)
                   .arg(std::lround(std::max(1.0, turn.half95()))));
}

void MeasureQuestions::scale(const Draw& draw) {
    QStringList options;
    std::vector<ScaleInfo> scales; // whose length this film can show
    for (const ScaleInfo& s : allScales()) {
        if (!s.seenFrom(c_.session.clip().view)) continue;
        scales.push_back(s);
        options << text(s.name) + (delivery().scales.contains(s.kind) ? " (given)" : "") +
                       (s.planeSd > kLargestPlaneSd ? ": too far from the athlete" : "");
    }
    const bool metric = c_.session.playbook().lengths == LengthUnit::Centimetres;
    options << (metric ? "say lengths in inches" : "say lengths in centimetres");
    if (!delivery().scales.empty()) options << "take all scales away";
    askChoice(parent_,
              {"scale", "Which length is known?",
               "Inches or centimetres come from it. It holds in its own plane only: the nearest to the "
               "athlete is used, and its "
               "error with it.",
               options, ""},
              [this, options, scales, metric, draw](const QString& chosen) {
                  const auto row = static_cast<std::size_t>(options.indexOf(chosen));
                  if (row == scales.size())
                      return sayLengthsIn(metric ? LengthUnit::Inches : LengthUnit::Centimetres);
                  if (row > scales.size()) {
                      std::vector<Change> gone;
                      for (const auto& [kind, mark] : delivery().scales)
                          gone.push_back(SetScale{kind, std::nullopt});
                      perform_("Take the scales away", std::move(gone));
                      return;
                  }
                  const ScaleInfo& s = scales[row];
                  if (s.planeSd > kLargestPlaneSd)
                      return c_.say("Home plate lies 60 ft from the athlete: its size tells nothing of the "
                                    "body. Take the rubber or the athlete's height.");
                  if (s.metres > 0) return draw(scaleDrawing(s.kind, s.metres));
                  askLength(s.kind, draw);
              });
}

void MeasureQuestions::sayLengthsIn(LengthUnit unit) {
    if (const Status kept = c_.keepLengths(unit); !kept) return c_.say(text(kept.error().text));
    c_.session.playbookChanged();
    c_.say(unit == LengthUnit::Inches ? "Lengths are said in inches, in all reviews."
                                      : "Lengths are said in centimetres, in all reviews.");
}

Drawing MeasureQuestions::scaleDrawing(ScaleKind kind, double metres) {
    return Drawing(MarkKind::Line, {text(info(kind).where), "its other end"},
                   [this, kind, metres](const std::vector<ImagePoint>& ends) {
                       if (ends[0] == ends[1])
                           return c_.say("Both ends lie on the same spot. Press S and click again.");
                       perform_("Give a scale",
                                {SetScale{kind, ScaleMark{c_.stage.shownFrame(), ends[0], ends[1], metres}}});
                   });
}

void MeasureQuestions::askLength(ScaleKind kind, const Draw& draw) {
    askChoice(parent_,
              {"length",
               QString("How long is %1?").arg(text(info(kind).name)),
               "As 170 cm, 1.7 m, 67 in or 5 ft 7.",
               {},
               "length, then Enter"},
              [this, kind, draw](const QString& typed) {
                  const auto metres = metresFromWords(typed.toStdString());
                  if (!metres)
                      return c_.say(
                          "That is no length. Write it as 170 cm, 67 in or 5 ft 7. Press S to try again.");
                  if (kind != ScaleKind::Height) return draw(scaleDrawing(kind, *metres));
                  perform_("Give the athlete's height", {SetScale{kind, ScaleMark{0, {}, {}, *metres}}});
                  if (heightOf(delivery()).value <= 0)
                      c_.say(
                          "Kept. Inches follow when the top of the head and the ground at Set are placed.");
              });
}

} // namespace jg::ui
