// SPDX-License-Identifier: GPL-3.0-or-later
// A review of Ludo with nothing marked on it, and what belongs to it.
#pragma once

#include "review/record/people.h"
#include "review/record/review.h"
#include "tests/support/core.h"

namespace jg::test {

inline Clip clip() {
    Clip c;
    c.id = {"clip-1"};
    c.athlete = {"ath-1"};
    c.captureFps = 120;
    c.frames = 300;
    c.width = 1280;
    c.height = 720;
    return c;
}

inline Athlete athlete(int age = 15) {
    Athlete a;
    a.id = {"ath-1"};
    a.firstName = "Ludo";
    a.born = Date{std::chrono::year{2026 - age}, std::chrono::month{3}, std::chrono::day{1}};
    a.email = "ludo@example.org";
    a.guardianName = "Parent of Ludo";
    a.guardianEmail = "ludo.home@example.org";
    a.consent = Consent{true, true, false, a.guardianName, age < 18, addDays(today(), -200), {}, {}};
    return a;
}

inline Submission submission() {
    Submission s;
    s.id = {"sub-1"};
    s.athlete = {"ath-1"};
    s.received = today();
    s.asked = "Follow-up";
    s.start = Start::Stretch;
    s.surface = Surface::Mound;
    s.clips = {clip()};
    return s;
}

inline Review review() {
    Review r;
    r.id = {"rev-1"};
    r.submission = {"sub-1"};
    r.athlete = {"ath-1"};
    r.first().clip = {"clip-1"};
    r.date = today();
    r.judging().approach = *playbook().approach("load-and-drive");
    return r;
}

inline void place(Review& r, Moment moment, std::int64_t frame,
                  std::vector<std::pair<Landmark, ImagePoint>> points) {
    r.first().moments[moment] = {frame, ""};
    for (const auto& [landmark, at] : points) r.first().points[{frame, landmark}] = {{at, 2}, ""};
}

} // namespace jg::test
