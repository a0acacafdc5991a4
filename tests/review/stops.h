// SPDX-License-Identifier: GPL-3.0-or-later
// What forbids sending a made review, as sentences.
#pragma once

#include "review/assess/assess.h"
#include "review/tell/send_check.h"
#include "tests/review/made_review.h"

namespace jg::test {

inline std::vector<std::string> stopsOf(const Review& r, const Submission& s, const Athlete& a = athlete()) {
    std::vector<std::string> texts;
    for (const SendProblem& p :
         checkBeforeSending(r, playbook(), assess(r, playbook(), clip(), Hand::Right), a, s, today()))
        if (p.stop) texts.push_back(said(p.text));
    return texts;
}

inline bool mentions(const std::vector<std::string>& texts, const std::string& words) {
    return std::any_of(texts.begin(), texts.end(),
                       [&](const auto& t) { return t.find(words) != std::string::npos; });
}

} // namespace jg::test
