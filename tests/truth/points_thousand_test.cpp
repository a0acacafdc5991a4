// SPDX-License-Identifier: GPL-3.0-or-later
// A document of points is answered as the window answers the same clicks, to the last digit.
#include "review/assess/assess.h"
#include "review/record/review_json.h"
#include "tests/bodies/scenario.h"
#include "tests/support/fixtures.h"

#include <nlohmann/json.hpp>

namespace jg {
namespace {

using nlohmann::json;

/// The document another program would write of the same clicks.
std::string documentOf(const PointsDocument& d) {
    const DeliveryMarks& marks = d.review.deliveries.front();
    const Clip& clip = d.clips.front();
    json document = {{"format", kPointsFormat},       {"hand", idOf(d.hand)},    {"view", idOf(clip.view)},
                     {"captureFps", clip.captureFps}, {"width", clip.width},     {"height", clip.height},
                     {"positions", json::object()},   {"points", json::array()}, {"lines", json::array()}};
    if (marks.turn == std::optional(kSquareTurn))
        document["turn"] = "square";
    else if (marks.turn)
        document["turn"] = {{"deg", marks.turn->deg}, {"sd", marks.turn->sdDeg}};
    for (const auto& [moment, mark] : marks.moments) document["positions"][info(moment).id] = *mark.frame;
    for (const auto& [key, mark] : marks.points) {
        json row = {{"frame", key.frame},
                    {"landmark", info(key.landmark).id},
                    {"x", mark.point.at.x},
                    {"y", mark.point.at.y}};
        if (mark.point.sigmaPx != kDefaultClickSigmaPx) row["sigma"] = mark.point.sigmaPx;
        document["points"].push_back(std::move(row));
    }
    for (const auto& [id, line] : marks.marks)
        document["lines"].push_back({{"kind", "plumb"},
                                     {"frame", line.frame},
                                     {"x1", line.points[0].x},
                                     {"y1", line.points[0].y},
                                     {"x2", line.points[1].x},
                                     {"y2", line.points[1].y}});
    return document.dump();
}

void expectSame(const MeasureValue& a, const MeasureValue& b) {
    EXPECT_EQ(a.state, b.state) << a.id;
    ASSERT_EQ(a.value.has_value(), b.value.has_value()) << a.id;
    if (a.value) {
        EXPECT_EQ(*a.value, *b.value) << a.id;
    }
    EXPECT_EQ(a.sd, b.sd) << a.id;
    EXPECT_EQ(a.low95, b.low95) << a.id;
    EXPECT_EQ(a.high95, b.high95) << a.id;
    EXPECT_EQ(a.warnings.size(), b.warnings.size()) << a.id;
}

TEST(PointsDocument, AreAnsweredAsTheWindowAnswersThem) {
    constexpr int kDocuments = 1000;
    std::mt19937_64 engine(29);
    int numbers = 0;
    for (int n = 0; n < kDocuments; ++n) {
        const auto k = static_cast<std::size_t>(n);
        const View view = std::array{View::Open, View::Closed, View::Front, View::Rear}[k % 4];
        double afterFrameS = 0;
        PointsDocument clicked = clickedBy(scenarios()[k % scenarios().size()], linkedBody(k), view,
                                           test::playbook(), engine, afterFrameS);
        auto read = readPointsDocument(documentOf(clicked));
        ASSERT_TRUE(read) << said(read.error().text);
        read->review.extras = clicked.review.extras;
        clicked.review.date = test::today();
        // The window's review comes from its library.
        auto kept = reviewFromJson(toJson(clicked.review));
        ASSERT_TRUE(kept) << said(kept.error().text);
        const Assessment window = assess(*kept, test::playbook(), clicked.clips, clicked.hand),
                         other = assess(read->review, test::playbook(), read->clips, read->hand);
        ASSERT_EQ(window.measures.size(), other.measures.size());
        for (std::size_t i = 0; i < window.measures.size(); ++i) {
            expectSame(window.measures[i].value, other.measures[i].value);
            numbers += window.measures[i].value.value.has_value();
        }
        ASSERT_FALSE(HasFailure()) << "document " << n;
    }
    EXPECT_GT(numbers, kDocuments * 20);
}

} // namespace
} // namespace jg
