// SPDX-License-Identifier: GPL-3.0-or-later
// How soon a sheet of twelve cells stands, and how quickly two films step backward together beside one alone:
// juxta_bench LIBRARY prints JSON. The library is one of `juxtagraph-cli demo`, with its scrub copies made.
#include "bench/stopwatch.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "desk/session/juxta.h"
#include "film/reader.h"
#include "film/scrub_copy.h"
#include "film/true_time.h"
#include "letter/fonts.h"
#include "review/compare/lockstep.h"

#include <QGuiApplication>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <chrono>
#include <iostream>

namespace {

using namespace jg;
using nlohmann::json;
using Steady = std::chrono::steady_clock;

/// The athlete with the most deliveries, up to three of them.
std::vector<JuxtaKey> threeDeliveries(Library& library) {
    std::vector<JuxtaKey> best;
    const auto athletes = library.athletes();
    for (const Athlete& a : *athletes) {
        const auto offers = juxtaOffersOf(library, a);
        if (!offers || offers->size() <= best.size()) continue;
        best.clear();
        for (const JuxtaOffer& o : *offers)
            if (best.size() < 3) best.push_back(o.key);
    }
    return best;
}

/// From asking the library to twelve stills as the window shows them.
double sheetMs(Library& library, const Playbook& playbook, const std::vector<JuxtaKey>& keys) {
    const auto begin = Steady::now();
    auto entries = juxtaEntries(library, playbook, keys);
    JuxtaWish wish;
    wish.columns = {Moment::Set, Moment::LiftTop, Moment::Plant, Moment::Release};
    const auto sheet = layOutJuxta(std::move(*entries), playbook, wish);
    JuxtaFilms films(library, *sheet, Stills::Near, {});
    int cells = 0;
    for (std::size_t row = 0; row < sheet->rows.size(); ++row)
        for (std::size_t column = 0; column < sheet->columns.size(); ++column)
            if (const auto frame = sheet->columns[column].cells[row].frame)
                if (const auto picture = films.picture(row, *frame))
                    cells += !juxtaStill(*sheet, {row, column}, *picture, QSize(300, 226)).isNull();
    const double took = msSince(begin);
    if (cells != 12) std::cerr << "only " << cells << " cells\n";
    return took;
}

/// Steps back through the frames of the first film, the others with it in real time; ms a step.
double backwardMs(Library& library, const std::vector<Clip>& clips) {
    std::vector<std::unique_ptr<Reader>> films;
    std::array<FrameTimes, 2> times;
    for (std::size_t i = 0; i < clips.size(); ++i) {
        films.push_back(std::move(*Reader::open(library.mediaPath(clips[i]))));
        times[i] = trueSeconds(films[i]->info(), clips[i].captureFps);
    }
    if (clips.size() == 1) times[1] = times[0];
    constexpr int kSteps = 60;
    const auto last = films[0]->info().frames() - 1;
    Lockstep together(times, {last, static_cast<std::int64_t>(times[1].size()) - 1});
    const auto begin = Steady::now();
    for (int step = 0; step < kSteps; ++step) {
        together.goToFrame(0, last - step);
        for (std::size_t i = 0; i < films.size(); ++i)
            if (!films[i]->picture(FrameNumber{together.frame(i)})) std::cerr << "a frame did not come\n";
    }
    return msSince(begin) / kSteps;
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication app(argc, argv);
    const auto playbook = loadPlaybook(dataFolder() / "playbook");
    auto library = argc == 2 ? Library::open(argv[1], false, std::make_shared<FileStore>())
                             : Result<std::unique_ptr<Library>>(Error{});
    if (!playbook || !library || !loadFonts(dataFolder() / "fonts")) {
        std::cerr << "juxta_bench LIBRARY\n";
        return 2;
    }
    const auto keys = threeDeliveries(**library);
    const auto entries = juxtaEntries(**library, *playbook, keys);
    if (!entries || entries->size() < 3) {
        std::cerr << "no athlete here has three deliveries\n";
        return 1;
    }
    for (const JuxtaEntry& e : *entries) // a library that was looked at has them
        if (const auto scrub = (*library)->scrubPath(e.clip); !std::filesystem::exists(scrub))
            if (auto reader = Reader::open((*library)->mediaPath(e.clip)); reader)
                if (!makeScrubCopy(**reader, scrub, (*library)->files())) std::cerr << "no scrub copy\n";
    std::vector<double> sheets;
    for (int round = 0; round < 6; ++round) sheets.push_back(sheetMs(**library, *playbook, keys));
    const Clip &one = (*entries)[0].clip, &other = (*entries)[1].clip;
    // Both alone, then the two together, each the quickest of three.
    double alone = 1e9, both = 1e9;
    for (int round = 0; round < 3; ++round) {
        alone = std::min(alone, backwardMs(**library, {one}) + backwardMs(**library, {other}));
        both = std::min(both, backwardMs(**library, {one, other}));
    }
    const json result = {{"twelveCellsColdMs", sheets.front()},
                         {"twelveCellsWarmMs", *std::max_element(sheets.begin() + 1, sheets.end())},
                         {"backwardAloneMs", alone},
                         {"backwardTogetherMs", both},
                         {"together", both / alone}};
    std::cout << result.dump(2) << "\n";
    return 0;
}
