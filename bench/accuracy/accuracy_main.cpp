// SPDX-License-Identifier: GPL-3.0-or-later
// How often each measure's 95 % interval holds the truth, on bodies of two makers filmed, clicked and told of
// in several ways: accuracy COUNT writes the tables of docs/accuracy.md; accuracy --depths and accuracy
// --trials COUNT write data/playbook/depths.json and trials.json from other deliveries.
#include "bench/accuracy/depth_table.h"
#include "bench/accuracy/trial_table.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "tests/bodies/tally.h"
#include "words/words.h"

#include <QCoreApplication>

#include <array>
#include <cmath>
#include <cstdio>
#include <iostream>
#include <vector>

namespace {

using namespace jg;

constexpr int kFewest = 50; // answers of which a share is told
constexpr std::array<Maker, 2> kMakers = {demoBody, linkedBody};

/// What the program tells beside a number of this scenario; null with a camera nobody spoke of, which carries
/// a warning of its own.
const Trial* told(const Playbook& playbook, const Scenario& s, const std::string& measure) {
    if (s.said == TurnSaid::Nothing) return nullptr;
    return playbook.trials.of({s.said == TurnSaid::Degrees, s.fps >= kFastFps}, measure);
}

/// Whether a number stands as sure as it says.
bool promised(const Playbook& playbook, const Scenario& s, const std::string& measure) {
    const Trial* trial = told(playbook, s, measure);
    return trial && trial->keepsItsPromise();
}

/// Whether a lean shows in the number and nothing beside it says so, nor warns of its error.
bool leansUntold(const Playbook& playbook, const Scenario& s, const std::string& measure, const Tally& t) {
    const double lean = t.sumOff / t.asked;
    if (std::abs(lean) < leastShown(t.unit)) return false;
    const Trial* trial = told(playbook, s, measure);
    if (!trial) return s.said != TurnSaid::Nothing;
    return trial->keepsItsPromise() &&
           !(trial->leans() && (lean < 0 ? trial->leastLean < 0 : trial->mostLean > 0));
}

/// Above a tenth of its sd, by more than twice what the mean of so many answers scatters.
bool leans(const Tally& t) {
    return std::abs(t.bias()) > 0.1 + 2 / std::sqrt(t.asked);
}

/// Of all measures: the median, the worst, and how many lie outside 93 to 97 %.
void printSummary(const Playbook& playbook, const std::vector<std::array<Tallies, 2>>& all) {
    std::printf("| | bodies | within 95 %%: median | lowest | below 93 %% | of them not "
                "warned of | above 97 %% | bias over a tenth of its sd | of them shown and not told of "
                "|\n|---|---|---|---|---|---|---|---|---|\n");
    for (std::size_t s = 0; s < all.size(); ++s)
        for (std::size_t k = 0; k < kMakers.size(); ++k) {
            std::vector<double> held;
            int below = 0, unwarned = 0, above = 0, biased = 0, untold = 0;
            for (const auto& [id, t] : all[s][k]) {
                if (t.asked < kFewest) continue;
                held.push_back(t.held());
                const double percent = t.held();
                if (percent < 93) ++below;
                if (percent < 93 && promised(playbook, scenarios()[s], id)) ++unwarned;
                if (percent > 97) ++above;
                if (leans(t)) ++biased;
                if (leans(t) && leansUntold(playbook, scenarios()[s], id, t)) ++untold;
            }
            if (held.empty()) continue; // too few deliveries to tell a share
            std::sort(held.begin(), held.end());
            const bool silent = scenarios()[s].said == TurnSaid::Nothing;
            const auto orWarned = [&](int n) { return silent ? "all warned of" : std::to_string(n); };
            std::printf("| %s | %s | %.1f | %.1f | %d | %s | %d | %d of %zu | %s |\n",
                        scenarios()[s].name.data(), k == 0 ? "taught" : "others", held[held.size() / 2],
                        held.front(), below, orWarned(unwarned).c_str(), above, biased, held.size(),
                        orWarned(untold).c_str());
        }
}

/// Of both makers, then the width of the others' intervals.
void printBiases(const std::array<Tallies, 2>& makers, const std::string& id) {
    const auto there = [&](std::size_t k) {
        const auto t = makers[k].find(id);
        return t != makers[k].end() && t->second.asked >= kFewest ? &t->second : nullptr;
    };
    const Tally *taught = there(0), *others = there(1);
    if (!taught && !others) return (void)std::printf(" |");
    const auto bias = [](const Tally* t) { return t ? std::printf(" %+.1f", t->bias()) : std::printf(" -"); };
    bias(taught), std::printf(" /"), bias(others);
    if (others) std::printf("; %.1f %s", others->half(), others->unit.c_str());
    std::printf(" |");
}

void printRows(const std::vector<std::array<Tallies, 2>>& all) {
    std::printf("\n| measure |");
    for (std::size_t s = 0; s < all.size(); ++s) std::printf(" %c |", static_cast<char>('A' + s));
    std::printf("\n|---|");
    for (std::size_t s = 0; s < all.size(); ++s) std::printf("---|");
    std::printf("\n");
    for (const auto& [id, unused] : all[0][0]) {
        std::printf("| %s |", id.c_str());
        for (const auto& makers : all) {
            for (std::size_t k = 0; k < kMakers.size(); ++k) {
                const auto t = makers[k].find(id);
                if (t == makers[k].end() || t->second.asked < kFewest)
                    std::printf(" -");
                else
                    std::printf(" %.0f", t->second.held());
                std::printf(k == 0 ? " /" : "");
            }
            printBiases(makers, id);
        }
        std::printf("\n");
    }
}

} // namespace

int main(int argc, char** argv) {
    const QCoreApplication app(argc, argv); // finds the playbook beside the program
    if (argc > 1 && std::string(argv[1]) == "--depths") {
        writeDepths();
        return 0;
    }
    const bool trials = argc > 1 && std::string(argv[1]) == "--trials";
    const int count = argc > 1 + trials ? std::atoi(argv[1 + trials]) : 1000;
    const auto playbook = loadPlaybook(dataFolder() / "playbook");
    if (!playbook || count <= 0) {
        std::cerr << (playbook ? "accuracy COUNT" : english()(playbook.error().text)) << "\n";
        return 1;
    }
    if (trials) {
        std::cout << tryMeasures(*playbook, count).toJson();
        return 0;
    }
    std::vector<std::array<Tallies, 2>> all;
    for (const Scenario& scenario : scenarios()) {
        all.emplace_back();
        for (std::size_t k = 0; k < kMakers.size(); ++k)
            all.back()[k] = tally(*playbook, scenario, kMakers[k], count);
    }
    printSummary(*playbook, all);
    printRows(all);
    return 0;
}
