#include "ui/review/path_tools.h"

#include "desk/follow_paths.h"
#include "desk/steady_film.h"
#include "ui/review/sequence_dialog.h"
#include "ui/theme.h"

#include <QPainter>

#include <cmath>

namespace jg::ui {

/// For what a job found: it lands on the delivery it was asked for, whichever is in hand by now.
bool PathTools::performOn(int delivery, const std::string& label, std::vector<Change> changes) {
    const Status done = c_.session.perform({label, std::move(changes), delivery});
    if (!done) c_.say(text(done.error().text));
    return done.ok();
}

void PathTools::follow() {
    if (following_) {
        following_->cancel();
        return;
    }
    auto plan = followPlan(c_.session);
    if (!plan) return c_.say(text(plan.error().text));
    c_.say("Following the joints \u2026 P stops it.");
    following_ = new Job(parent_, [this, plan = *std::move(plan), to = delivery().number](
                                      std::stop_token stop, const Job::Progress& progress) {
        auto paths = followPaths(plan, stop, progress);
        return Job::Continuation([this, paths = std::move(paths), to] {
            following_ = nullptr;
            if (!paths) return c_.say(text(paths.error().text));
            std::vector<Change> changes;
            for (const auto& [landmark, path] : *paths) changes.push_back(SetPath{landmark, path});
            if (performOn(to, "Follow the joints", std::move(changes))) c_.say(text(wordsOf(*paths)));
        });
    });
    QObject::connect(following_, &Job::progressed, parent_, [this](double part) {
        c_.say(QString("Following the joints: %1 %. P stops it.").arg(std::lround(part * 100)));
    });
}

void PathTools::steady() {
    if (const auto& known = delivery().shake) {
        CameraShake other = *known;
        other.on = !other.on;
        if (!perform_(other.on ? "Take the shake out" : "Leave the shake in", {SetShake{other}})) return;
        return c_.say(other.on ? "The camera's shake is taken out of the numbers."
                               : "The numbers hold the camera's shake again.");
    }
    if (following_) {
        following_->cancel();
        return;
    }
    const Clip& clip = c_.session.clip();
    const FrameSpan span = delivery().cut.value_or(FrameSpan{0, clip.frames - 1});
    const auto files = filesOf(c_.session.library(), clip);
    c_.say("Following the background \u2026 F stops it.");
    following_ = new Job(parent_, [this, files, span, to = delivery().number](std::stop_token stop,
                                                                              const Job::Progress& progress) {
        const auto shake = findShake(files, span, stop, progress);
        return Job::Continuation([this, shake, to] {
            following_ = nullptr;
            if (!shake) return c_.say(text(shake.error().text));
            if (performOn(to, "Take the shake out", {SetShake{*shake}}))
                c_.say(QString(
                           "The camera shook by up to %1 px. It is taken out of the numbers; F puts it back.")
                           .arg(largestShift(*shake), 0, 'f', 1));
        });
    });
    QObject::connect(following_, &Job::progressed, parent_, [this](double part) {
        c_.say(QString("Following the background: %1 %. F stops it.").arg(std::lround(part * 100)));
    });
}

void PathTools::paintGuess(QPainter& p, const ViewTransform& view, const Guess& guess) const {
    p.setBrush(Qt::NoBrush);
    for (const bool casing : {true, false}) {
        QPen pen(casing ? palette::casing : palette::chalk, casing ? 4 : 1.8);
        if (!casing) pen.setDashPattern({2, 2});
        p.setPen(pen);
        p.drawEllipse(view.toView(guess.at), 9, 9);
    }
}

void PathTools::paintPaths(QPainter& p, const ViewTransform& view,
                           const std::vector<Landmark>& landmarks) const {
    for (const Landmark landmark : landmarks) {
        const Path path = pathOf(delivery(), landmark);
        const qint64 shown = c_.stage.shownFrame();
        if (path.empty() || shown < path.front().frame || shown > path.back().frame) continue;
        for (const bool casing : {true, false})
            for (std::size_t i = 0; i + 1 < path.size(); ++i) {
                if (path[i + 1].frame != path[i].frame + 1) continue;
                p.setPen(QPen(casing ? palette::casing : palette::chalk, casing ? 3.6 : 1.6));
                p.drawLine(view.toView(path[i].at), view.toView(path[i + 1].at));
            }
        for (const PathPlace& place : path)
            if (place.frame == c_.stage.shownFrame()) {
                p.setPen(QPen(palette::casing, 1.4));
                p.setBrush(palette::chalk);
                p.drawEllipse(view.toView(place.at), 3.4, 3.4);
            }
    }
}

void PathTools::showCurve(const MeasureDefinition* m) {
    std::vector<RibbonValue> curve;
    QString name;
    if (m && !m->slots.empty()) {
        const Landmark landmark = m->slots.back().landmark;
        for (const FrameValue& v : speeds(pathOf(delivery(), landmark), c_.session.clip().captureFps))
            curve.push_back({v.frame, v.value.value, v.value.half95()});
        name = text(info(landmark).name) + ", speed";
    }
    c_.ribbon.setCurve(std::move(curve), name);
}

void PathTools::showOrder() {
    const Clip& clip = c_.session.clip();
    if (clip.captureFps <= 0)
        return c_.say(
            "The capture rate is unknown, so frames can't be turned into time. Enter the rate first.");
    std::optional<Estimate> ball;
    if (const MeasureRow* row = c_.session.assessment().measure("release-instant"); row && row->value.value)
        ball = Estimate{*row->value.value, row->value.half95() / kSdsOf95};
    const auto events = sequenceOf(delivery(), clip, c_.session.athlete().hand, ball);
    if (events.empty()) return c_.say("Set First touch; the order is told from there.");
    showSequence(parent_, events, clip.captureFps);
}

std::optional<std::pair<Moment, PathEvent>> PathTools::suggestion(const MeasureDefinition* m) const {
    if (!m) return std::nullopt;
    const auto events = momentsFromPaths(delivery(), c_.session.clip(), c_.session.athlete().hand);
    for (const Moment moment : m->moments)
        if (const auto it = events.find(moment);
            it != events.end() && delivery().frameOf(moment) != it->second.frame)
            return *it;
    return std::nullopt;
}

void PathTools::goToSuggested(const MeasureDefinition* m) {
    const auto suggested = suggestion(m);
    if (!suggested)
        return c_.say("The paths suggest no frame for this measure. P follows the clicked joints.");
    c_.playhead.step(suggested->second.frame - c_.playhead.frame());
    c_.say(QString("%1, as the path says, give or take %2 %3. U sets it here.")
               .arg(text(info(suggested->first).name))
               .arg(suggested->second.plusMinus)
               .arg(suggested->second.plusMinus == 1 ? "frame" : "frames"));
}

} // namespace jg::ui
