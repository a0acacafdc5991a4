// SPDX-License-Identifier: GPL-3.0-or-later
// Lists that a library keeps beside its athletes and reviews: each a table of its own, each entry a row of
// its own, so that what two programs add at once is both there.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

namespace jg {

enum class ListOf {
    DueMails,      ///< letters that go out later; key: of the outbox
    SeenMails,     ///< mails that were taken in or put aside; key: a hash, for names of files may be people's
    OwnRows,       ///< editions of playbook rows of the coach's own; key: row and edition
    OwnApproaches, ///< editions of approaches of the coach's own; key: id and edition
    OwnMeasures,   ///< key: id
    Phrases,       ///< the coach's sentences, to be taken again; key: a hash of place and words
    Backups,       ///< where backups were made to, and when; key: the folder
    Forgotten,     ///< records of deleted athletes; key: the athlete's id
    ErrorRuns      ///< measurements of the coach's own error; key: a hash of the run
};
inline constexpr int kListCount = 9;

/// One entry. `row` rises in the order they came; 0 = not kept yet.
struct ListEntry {
    std::int64_t row = 0;
    std::string key;      ///< once in its list
    std::string document; ///< JSON, its own reader knows it
    bool operator==(const ListEntry&) const = default;
};

/// The table of a list, "due_mails".
const char* tableOf(ListOf list);

/// JSON arrays as older libraries kept them in one setting would be named so when they could not be read.
inline constexpr const char* kUnreadableSetting = "unreadable.";

} // namespace jg
