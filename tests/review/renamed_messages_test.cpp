// SPDX-License-Identifier: GPL-3.0-or-later
// What older libraries kept under other names is said as ever.
#include "review/record/message_json.h"
#include "review/record/renamed_messages.h"
#include "tests/support/core.h"

#include <nlohmann/json.hpp>

namespace jg {
namespace {

TEST(RenamedMessages, AKeptMessageOfAnOlderVersionIsSaidAsEver) {
    const auto kept = nlohmann::json::parse(R"({"id": "film-check.too-dark-limbs-are-hard-to", "args": []})");
    EXPECT_EQ(said(messageIn(kept)).find("Too dark"), 0U);
    const auto inner = nlohmann::json::parse(R"({"id": "", "args": [["", {"message":
        {"id": "smtp.nobody-answers-at-host-check-the", "args": [["host", "mail.example.org"]]}}]]})");
    EXPECT_NE(said(messageIn(inner)).find("mail.example.org"), std::string::npos);
}

TEST(RenamedMessages, TheFirstAndTheLastAreFoundAndOthersStayWhatTheyAre) {
    EXPECT_EQ(currentId("assess.scale-from-scale-give-or-take"), "assess.scale-error");
    EXPECT_EQ(currentId("survey.none-of-the-films-pictures-can"), "survey.nothing-decodes");
    for (const char* id : {"", "a", "zzz", "film-check.dark", "reader"}) EXPECT_EQ(currentId(id), id);
}

TEST(RenamedMessages, WhatIsKeptNowHasTheNewName) {
    EXPECT_EQ(messageAsJson(msg("film-check.dark"))["id"], "film-check.dark");
}

} // namespace
} // namespace jg
