// SPDX-License-Identifier: GPL-3.0-or-later
// How long the core takes for what happens at every edit and every frame.
#include "coaching/causes.h"
#include "coaching/playbook_reader.h"
#include "demo/films/film_maker.h"
#include "desk/keeping/places.h"
#include "film/reader.h"
#include "review/assess/assess.h"
#include "review/assess/ghost.h"
#include "review/assess/guide.h"

#include <QCoreApplication>

#include <benchmark/benchmark.h>

#include <filesystem>
#include <random>

namespace {

using namespace jg;

/// A review with every point of the approach placed.
struct FullReview {
    Playbook playbook = *loadPlaybook(dataFolder() / "playbook");
    Review review;
    Clip clip;
    /// With so many measures of the catalogue beside the approach's.
    explicit FullReview(std::size_t extras = 0) {
        review.judging().approach = *playbook.approach("load-and-drive");
        for (const MeasureDefinition& m : playbook.measures)
            if (review.extras.size() < extras && m.hasPoints() && m.seenFrom(View::Open) &&
                !review.judging().approach.targetOf(m.id))
                review.extras.push_back(m.id);
        clip.captureFps = 120;
        clip.frames = 300;
        clip.width = 1280;
        clip.height = 720;
        const FilmOrder order;
        const Delivery d(order.knobs);
        for (const auto& [moment, timeS] : d.events())
            review.first().moments[moment] = {static_cast<std::int64_t>((timeS - d.startS()) * 120), ""};
        for (const GuideStep& s : openSteps(review, review.first(), playbook, clip))
            review.first().points[{s.frame, s.landmark}] = {
                {projectJoints(order, d.poseAt(d.startS() + static_cast<double>(s.frame) / 120))
                     .at(s.landmark),
                 2},
                ""};
    }
};

void assessAfterADrag(benchmark::State& state) {
    FullReview full;
    auto& point = full.review.first().points.begin()->second.point.at;
    for (auto _ : state) {
        point.x += 0.5;
        benchmark::DoNotOptimize(assess(full.review, full.playbook, full.clip, Hand::Right));
    }
}
BENCHMARK(assessAfterADrag)->Unit(benchmark::kMicrosecond);

void assessFortyMeasuresAfterADrag(benchmark::State& state) {
    FullReview full(28);
    auto& point = full.review.first().points.begin()->second.point.at;
    std::size_t numbers = 0;
    for (auto _ : state) {
        point.x += 0.05;
        const Assessment a = assess(full.review, full.playbook, full.clip, Hand::Right);
        numbers = a.measures.size();
        benchmark::DoNotOptimize(a);
    }
    state.counters["measures"] = static_cast<double>(numbers);
}
BENCHMARK(assessFortyMeasuresAfterADrag)->Unit(benchmark::kMicrosecond);

/// One round solves every ghost of the review; the time is of one.
void ghostOfAMeasure(benchmark::State& state) {
    FullReview full;
    for (Target& t :
         full.review.judging().approach.targets) // beyond what the figure does, so that all are drawn
        if (t.type == TargetType::AtLeast) t.x += 15;
    const Assessment a = assess(full.review, full.playbook, full.clip, Hand::Right);
    std::vector<const MeasureRow*> drawn;
    for (const MeasureRow& row : a.measures)
        if (ghostOf(full.review.first(), full.playbook, row, full.clip, Hand::Right)) drawn.push_back(&row);
    std::size_t next = 0;
    for (auto _ : state)
        benchmark::DoNotOptimize(ghostOf(full.review.first(), full.playbook, *drawn[next++ % drawn.size()],
                                         full.clip, Hand::Right));
    state.counters["ghosts"] = static_cast<double>(drawn.size());
}
BENCHMARK(ghostOfAMeasure)->Unit(benchmark::kMicrosecond);

void poseOfTheFigure(benchmark::State& state) {
    const Delivery d{DeliveryKnobs{}};
    double t = -1;
    for (auto _ : state) benchmark::DoNotOptimize(d.poseAt(t += 1e-5));
}
BENCHMARK(poseOfTheFigure)->Unit(benchmark::kMicrosecond);

/// Roots of 200 findings with some four hundred random links, of an athlete with everything wrong.
void rootsOfTwoHundredFindings(benchmark::State& state) {
    std::mt19937 random(17);
    Playbook book;
    std::vector<Finding> findings;
    for (int i = 0; i < 200; ++i) {
        GradedItem item;
        item.id = item.name = "i" + std::to_string(i), item.group = "lower";
        findings.push_back({item.id, Verdict::Change, 1});
        book.items.push_back(std::move(item));
    }
    for (int i = 0; i < 400; ++i)
        book.causes.push_back(
            {"i" + std::to_string(random() % 200), "i" + std::to_string(random() % 200), "", "", ""});
    for (auto _ : state) benchmark::DoNotOptimize(explain(book, findings));
}
BENCHMARK(rootsOfTwoHundredFindings)->Unit(benchmark::kMicrosecond);

} // namespace

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv); // the data folder lies beside the executable
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
}
