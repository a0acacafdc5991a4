// SPDX-License-Identifier: GPL-3.0-or-later
// Broken films by the thousand: mutants FIRST COUNT FOLDER. Changes bytes of small seed films in FOLDER with
// fixed seeds, opens each and asks for some frames. Ends with 1 when one of them takes longer than allowed;
// crashes and leaks are the sanitizers' to find.
#include "base/file_store.h"
#include "film/convert.h"
#include "film/reader.h"
#include "film/survey.h"
#include "tests/support/mutate.h"

#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <random>
#include <string>
#include <vector>

namespace {

using namespace jg;
namespace fs = std::filesystem;

constexpr double kMostSeconds = 60; // under sanitizers on a busy machine; two without

/// What intake and window do with a film: look it through, open it, step, jump, go back.
void use(const fs::path& film, bool lookThrough) {
    auto reader = Reader::open(film, {std::make_shared<FrameBudget>(std::size_t{8} << 20)});
    if (!reader) return;
    const std::int64_t frames = (*reader)->info().frames();
    for (const std::int64_t n : {std::int64_t{0}, frames - 1, frames / 2, frames / 2 - 1, frames / 3})
        if (n >= 0)
            if (const auto frame = (*reader)->frame(FrameNumber{n}))
                (void)toPicture(**frame, (*reader)->info(), 320);
    if (!lookThrough) return;
    const auto watched = Reader::open(
        film, {.budget = std::make_shared<FrameBudget>(std::size_t{8} << 20), .watchErrors = true});
    if (watched) (void)surveyFilm(**watched, 200);
}

} // namespace

int main(int argc, char** argv) {
    if (argc != 4) {
        std::fputs("mutants FIRST COUNT FOLDER\n", stderr);
        return 2;
    }
    const int first = std::atoi(argv[1]), count = std::atoi(argv[2]);
    const fs::path folder = argv[3];
    std::vector<fs::path> seeds;
    for (const auto& entry : fs::directory_iterator(folder))
        if (entry.path().stem().string().rfind("seed", 0) == 0) seeds.push_back(entry.path());
    std::sort(seeds.begin(), seeds.end());
    if (seeds.empty()) return 2;
    double slowest = 0;
    for (int i = first; i < first + count; ++i) {
        std::mt19937_64 engine(static_cast<std::uint64_t>(i));
        const fs::path& seed = seeds[static_cast<std::size_t>(i) % seeds.size()];
        const fs::path film = folder / ("mutant-" + std::to_string(first) + seed.extension().string());
        std::ofstream(film, std::ios::binary) << test::mutatedBytes(*readFile(seed), engine);
        const auto start = std::chrono::steady_clock::now();
        use(film, i % 10 == 0); // the slowest part by far
        const double took = std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
        if (took > 1) std::printf("mutant %d of %s: %.1f s\n", i, seed.filename().c_str(), took);
        slowest = std::max(slowest, took);
        fs::remove(film);
        if (took > kMostSeconds) {
            std::printf("mutant %d of %s took %.1f s\n", i, seed.filename().c_str(), took);
            return 1;
        }
    }
    std::printf("%d mutants, slowest %.2f s\n", count, slowest);
}
