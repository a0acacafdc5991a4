// SPDX-License-Identifier: GPL-3.0-or-later
// Letters about made deliveries of made bodies, with what a coach might choose.
#pragma once

#include "desk/keeping/places.h"
#include "review/record/points_document.h"
#include "review/tell/letter_model.h"
#include "tests/bodies/scenario.h"
#include "tests/support/fixtures.h"

#include <algorithm>
#include <random>

namespace jg::test {

/// One finished review and whose it is.
struct FinishedReview {
    Review review;
    Athlete athlete;
    Submission submission;
    Assessment assessment;

    LetterModel letter(Audience reader) const {
        Review r = review;
        r.plan.reader = reader;
        return writeLetter(r, playbook(), assessment, athlete, submission, {"Shed", "Ilse Varnholt", ""});
    }
};

/// The n-th, always the same. Body, view, camera, approach, age, grades, corrections and drills are drawn.
inline FinishedReview finishedReview(int n) {
    std::mt19937_64 engine(static_cast<std::uint64_t>(n) * 7919 + 3);
    const auto upTo = [&](int most) { return std::uniform_int_distribution<>(0, most)(engine); };
    const Playbook& book = playbook();
    constexpr View kViews[] = {View::Open, View::Open, View::Open, View::Closed, View::Front, View::Rear};
    const View view = kViews[upTo(5)];
    const MadeBody body =
        n % 2 ? linkedBody(static_cast<std::uint64_t>(n)) : demoBody(static_cast<std::uint64_t>(n));
    double afterFrameS = 0;
    PointsDocument d =
        clickedBy(scenarios()[static_cast<std::size_t>(upTo(5))], body, view, book, engine, afterFrameS);
    FinishedReview f;
    f.athlete.id = {"ath-1"};
    f.athlete.firstName = "Ludo";
    f.athlete.guardianName = "Parent of Ludo";
    f.athlete.guardianEmail = "ludo.home@example.org";
    f.athlete.email = "ludo@example.org";
    f.athlete.hand = d.hand;
    const int age = 8 + upTo(14);
    f.athlete.born = Date{std::chrono::year{2026 - age}, std::chrono::month{3}, std::chrono::day{1}};
    f.athlete.heightM = body.heightM;
    f.athlete.heights = {{f.athlete.born, body.heightM}};
    f.submission.id = {"sub-1"};
    f.submission.athlete = f.athlete.id;
    f.submission.received = today();
    f.submission.clips = d.clips;
    if (upTo(19) == 0) f.submission.pain = "its elbow hurts after throwing";
    f.review = std::move(d.review);
    f.review.id = {"rev-1"};
    f.review.submission = f.submission.id;
    f.review.athlete = f.athlete.id;
    f.review.date = today();
    f.review.extras.clear();
    f.review.first().conditions.surface = upTo(1) ? Surface::Mound : Surface::FlatGround;
    f.review.first().conditions.start = upTo(1) ? Start::Stretch : Start::WindUp;
    Judging& judging = f.review.judging();
    judging.approach =
        book.approaches[static_cast<std::size_t>(upTo(static_cast<int>(book.approaches.size()) - 1))];
    judging.age = age;
    for (const std::string& id : judging.approach.graded)
        if (upTo(3)) {
            Grade& grade = judging.grades[{1, id}] = {GradeState::Graded, 1 + upTo(4), "", {}};
            if (const auto sides = book.sidesOf(id); !sides.empty())
                grade.side = sides[static_cast<std::size_t>(upTo(static_cast<int>(sides.size()) - 1))];
        }
    f.assessment = assess(f.review, book, f.submission.clips, f.athlete.hand);
    std::vector<std::string> faults, strengths;
    for (const Judged& j : f.assessment.findings)
        if (!j.cannotTell) (j.strength ? strengths : faults).push_back(j.finding.id);
    std::shuffle(faults.begin(), faults.end(), engine);
    std::shuffle(strengths.begin(), strengths.end(), engine);
    faults.resize(std::min<std::size_t>(faults.size(), mostCorrections(age)));
    strengths.resize(std::min<std::size_t>(strengths.size(), kMostKept));
    f.review.plan.corrections = faults;
    f.review.plan.keeps = strengths;
    for (const std::string& id : faults) {
        std::vector<const Drill*> serving;
        for (const Drill& drill : book.drills)
            if (drill.trains(f.assessment.sided(id))) serving.push_back(&drill);
        if (serving.empty()) continue;
        const Drill& drill = *serving[static_cast<std::size_t>(upTo(static_cast<int>(serving.size()) - 1))];
        f.review.plan.drills.push_back({drill.id, id, drill.dose, false});
        if (upTo(1)) f.review.plan.whyNot.push_back({id, static_cast<Need>(upTo(3)), {}});
    }
    f.review.plan.nextLook = Date{std::chrono::sys_days{today()} + std::chrono::days{28}};
    return f;
}

} // namespace jg::test
