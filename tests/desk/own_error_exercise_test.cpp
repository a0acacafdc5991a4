// SPDX-License-Identifier: GPL-3.0-or-later
// The pictures of the click exercise.
#include "demo/films/exercise_pictures.h"
#include "desk/keeping/places.h"
#include "desk/own/own_error_exercise.h"
#include "tests/support/fixtures.h"

#include <cstdlib>
#include <fstream>

namespace jg {
namespace {

namespace fs = std::filesystem;

fs::path shipped() {
    return dataFolder() / "exercise";
}

double meanDifference(const Picture& a, const Picture& b) {
    double sum = 0;
    for (std::size_t i = 0; i < a.pixels->size(); ++i)
        if (i % 4 != 3) sum += std::abs(int((*a.pixels)[i]) - int((*b.pixels)[i]));
    return sum / (0.75 * static_cast<double>(a.pixels->size()));
}

TEST(Exercise, TheShippedPicturesAreThoseTheGeneratorMakes) {
    const test::TempFolder folder;
    ASSERT_TRUE(makeExercisePictures(folder.path()));
    const auto made = makeExercise({}, folder.path(), 1), kept = makeExercise({}, shipped(), 1);
    ASSERT_TRUE(made);
    ASSERT_TRUE(kept) << kept.error().text;
    ASSERT_EQ(kept->pictures.size(), 6U);
    for (std::size_t i = 0; i < 6; ++i) {
        const ExercisePicture &m = made->pictures[i], &k = kept->pictures[i];
        EXPECT_EQ(m.what, k.what) << k.what.name;
        ASSERT_EQ(m.picture.width, k.picture.width);
        ASSERT_EQ(m.picture.height, k.picture.height);
        EXPECT_LT(meanDifference(m.picture, k.picture), 2) << k.what.name; // other codecs round otherwise
    }
}

TEST(Exercise, ItsTruthLiesInThePicture) {
    const auto exercise = makeExercise({}, shipped(), 1);
    ASSERT_TRUE(exercise);
    for (const ExercisePicture& p : exercise->pictures) {
        ASSERT_TRUE(p.what.truth);
        EXPECT_EQ(p.what.heightPx, p.picture.height);
        for (const ImagePoint& at : *p.what.truth) {
            EXPECT_TRUE(at.x > 0 && at.x < p.picture.width) << p.what.name;
            EXPECT_TRUE(at.y > 0 && at.y < p.picture.height) << p.what.name;
        }
    }
}

TEST(Exercise, ShowsEachPictureTwiceAndNoneTwiceInARow) {
    for (std::uint64_t seed = 0; seed < 40; ++seed) {
        const auto exercise = makeExercise({}, shipped(), seed);
        ASSERT_TRUE(exercise);
        std::map<std::size_t, int> shown;
        for (std::size_t i = 0; i < exercise->order.size(); ++i) {
            ++shown[exercise->order[i].picture];
            if (i > 0) {
                EXPECT_NE(exercise->order[i].picture, exercise->order[i - 1].picture) << seed;
            }
        }
        EXPECT_EQ(shown.size(), 6U);
        for (const auto& [picture, times] : shown) EXPECT_EQ(times, 2) << picture;
    }
}

TEST(Exercise, WithoutItsPicturesItSaysWhatToDo) {
    const test::TempFolder folder;
    EXPECT_EQ(makeExercise({}, folder.path(), 1).error().code, ErrorCode::NotFound);
    for (const char* text :
         {"[", "{}", R"({"pictures": [{"name": "a", "file": "none.jpg", "joints": []}]})"}) {
        std::ofstream(folder / "exercise.json") << text;
        const auto exercise = makeExercise({}, folder.path(), 1);
        ASSERT_FALSE(exercise);
        EXPECT_EQ(exercise.error().code, ErrorCode::Damaged);
        EXPECT_NE(test::squeezed(said(exercise.error().text)).find("Installtheprogramagain"),
                  std::string::npos);
    }
}

} // namespace
} // namespace jg
