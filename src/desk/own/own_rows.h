// SPDX-License-Identifier: GPL-3.0-or-later
// Items, causes and drills of the coach's own, and the shipped ones they changed: in editions, kept in the
// library.
#pragma once

#include "coaching/playbook_rows.h"
#include "library/library.h"

#include <functional>
#include <string>
#include <vector>

namespace jg {

/// One kept edition of a row. `key` is that of the row it stands in for, or its own first one.
struct RowEdition {
    std::string key;
    int edition = 1;
    Date on{};
    PlaybookRow row;
};

/// Every kept edition, the oldest first. Errors: Damaged.
Result<std::vector<RowEdition>> ownRows(Library& library);

/// Joins the newest edition of each own row to a playbook. Errors: Damaged, BadInput; then the playbook stays
/// as it was.
Status loadOwnRows(Library& library, Playbook& playbook);

/// Keeps a new row, or the next edition of the one with that key, and joins it. A new item or drill has an
/// empty id and gets one. Reviews that were begun keep theirs. Returns its key. Errors: BadInput (what is
/// missing or does not fit), those of Library; then nothing is kept.
Result<std::string> keepRow(Library& library, Playbook& playbook, PlaybookRow row, const std::string& key,
                            Date today, IdSource& ids);

/// Keeps them all as next editions, or none; those that are kept already as they are stay. `alsoFits` looks
/// at the playbook as it would be with them, before anything is kept. Errors: Refused (one of them came with
/// the program), BadInput, Damaged, those of `alsoFits` and of Library.
Status keepRows(Library& library, Playbook& playbook, const std::vector<PlaybookRow>& rows, Date today,
                const std::function<Status(const Playbook&)>& alsoFits);

/// The coach's own rows that belong to an approach: items it grades, causes between its rows, drills that
/// serve them. Rows that came with the program are not among them, changed or not. Errors: Damaged.
Result<std::vector<PlaybookRow>> ownRowsOf(Library& library, const Playbook& playbook,
                                           const Approach& approach);

/// The key under which the row shown as `row` is kept; its own when it is none of the coach's.
std::string keptKeyOf(const std::vector<RowEdition>& own, const PlaybookRow& row);

/// True when something of that key came with the program.
bool isShipped(const Playbook& playbook, const std::string& key);

/// Takes an own row away with its editions; a shipped one is again as it came. Errors: Refused where an
/// approach, an item's cause or a drill still needs it, those of Library; then nothing changes.
Status removeRow(Library& library, Playbook& playbook, const std::string& key);

} // namespace jg
