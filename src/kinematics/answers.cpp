// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/answers.h"

#include <algorithm>

namespace jg {

Message eitherOf(const std::vector<std::string>& answers) {
    std::vector<Message> all;
    for (const std::string& answer : answers) all.push_back(asIs(answer));
    return joined(ListStyle::Or, std::move(all));
}

bool isAmong(const std::vector<std::string>& answers, const std::string& answer) {
    return std::find(answers.begin(), answers.end(), answer) != answers.end();
}

} // namespace jg
