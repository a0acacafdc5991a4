// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/path_tools.h"

#include "base/caught.h"
#include "desk/session/follow_paths.h"
#include "desk/session/steady_film.h"
#include "ui/bench/sequence_dialog.h"
#include "ui/kit/theme.h"

#include <QPainter>

#include <cmath>

namespace jg::ui {

/// For what a job found: it lands on the delivery it was asked for, whichever is in hand by now.
bool PathTools::performOn(int delivery, const Message& label, std::vector<Change> changes) {
    const Status done = c_.session.perform({label, std::move(changes), delivery});
    if (!done) c_.say(say(done.error().text));
    return done.ok();
}

void PathTools::follow() {
    if (following_) {
        following_->cancel();
        return;
    }
    auto plan = followPlan(c_.session.library(), c_.session.clip(), c_.session.delivery());
    if (!plan) return c_.say(say(plan.error().text));
    c_.say(say("path-tools.following-the-joints-p-stops-it"));
    following_ = new Job(parent_, [this, plan = *std::move(plan), to = delivery().number](
                                      std::stop_token stop, const Job::Progress& progress) {
        auto paths = caught([&] { return followPaths(plan, stop, progress); });
        return Job::Continuation([this, paths = std::move(paths), to] {
            following_ = nullptr;
            if (!paths) return c_.say(say(paths.error().text));
            std::vector<Change> changes;
            for (const auto& [landmark, path] : *paths) changes.push_back(SetPath{landmark, path});
            if (performOn(to, msg("path-tools.follow-the-joints"), std::move(changes)))
                c_.say(say(wordsOf(*paths)));
        });
    });
    QObject::connect(following_, &Job::progressed, parent_, [this](double part) {
        c_.say(say("path-tools.following-the-joints-part-p-stops", {{"part", std::lround(part * 100)}}));
    });
}

void PathTools::steady() {
    if (const auto& known = delivery().shake) {
        CameraShake other = *known;
        other.on = !other.on;
        if (!perform_(other.on ? msg("path-tools.take-the-shake-out") : msg("path-tools.leave-the-shake-in"),
                      {SetShake{other}}))
            return;
        return c_.say(other.on ? say("path-tools.steadied")
                               : say("path-tools.the-numbers-hold-the-cameras-shake"));
    }
    if (following_) {
        following_->cancel();
        return;
    }
    const Clip& clip = c_.session.clip();
    const FrameSpan span = delivery().cut.value_or(FrameSpan{0, clip.frames - 1});
    const auto files = filesOf(c_.session.library(), clip);
    c_.say(say("path-tools.following-background"));
    following_ = new Job(parent_, [this, files, span, to = delivery().number](std::stop_token stop,
                                                                              const Job::Progress& progress) {
        const auto shake = caught([&] { return findShake(files, span, stop, progress); });
        return Job::Continuation([this, shake, to] {
            following_ = nullptr;
            if (!shake) return c_.say(say(shake.error().text));
            if (performOn(to, msg("path-tools.take-the-shake-out"), {SetShake{*shake}}))
                c_.say(say("path-tools.shook", {{"shake", Decimal{largestShift(*shake), 1}}}));
        });
    });
    QObject::connect(following_, &Job::progressed, parent_, [this](double part) {
        c_.say(say("path-tools.following-background-part", {{"part", std::lround(part * 100)}}));
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
        name = say("path-tools.landmark-speed", {{"landmark", info(landmark).name()}});
    }
    c_.ribbon.setCurve(std::move(curve), name);
}

void PathTools::showOrder() {
    const Clip& clip = c_.session.clip();
    if (clip.captureFps <= 0) return c_.say(say("path-tools.rate-wanted"));
    std::optional<Estimate> ball;
    if (const MeasureRow* row = c_.session.assessment().measure("release-instant"); row && row->value.value)
        ball = Estimate{*row->value.value, row->value.half95() / kSdsOf95};
    const auto events = sequenceOf(delivery(), clip, c_.session.athlete().hand, ball);
    if (events.empty()) return c_.say(say("path-tools.touch-wanted"));
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
    if (!suggested) return c_.say(say("path-tools.no-frame"));
    c_.playhead.step(suggested->second.frame - c_.playhead.frame());
    c_.say(say("path-tools.suggested",
               {{"position", info(suggested->first).name()}, {"frames", suggested->second.plusMinus}}));
}

} // namespace jg::ui
