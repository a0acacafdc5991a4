// SPDX-License-Identifier: GPL-3.0-or-later
// Ways of judging of the coach's own: copies that are changed, in editions, kept in the library.
#pragma once

#include "coaching/playbook.h"
#include "library/library.h"
#include "words/words.h"

#include <string>
#include <vector>

namespace jg {

/// Joins the newest edition of each own approach to a playbook. Errors: Damaged; then the playbook stays as
/// it was.
Status loadOwnApproaches(Library& library, Playbook& playbook);

bool isOwnApproach(const Approach& approach);

/// Keeps a copy under a name of its own and joins it; returns its id. Errors: NotFound, those of Library.
Result<std::string> copyApproach(Library& library, Playbook& playbook, const std::string& id, IdSource& ids,
                                 const Words& words = english());

/// Keeps a part of an approach for one question as a way of judging of the coach's own; returns its id.
/// Errors: NotFound, BadInput (no name, a name that is taken, no row), those of Library.
Result<std::string> keepFocus(Library& library, Playbook& playbook, const std::string& id,
                              const FocusCard& focus, IdSource& ids);

/// Keeps a changed own approach as its next edition and joins it. Reviews that were begun keep theirs.
/// Errors: BadInput (what does not fit the playbook), Refused (it is none of the coach's own), those of
/// Library.
Status keepApproach(Library& library, Playbook& playbook, Approach changed);

/// Takes an own approach out of the playbook; its editions go. Reviews keep what they were judged by.
Status removeApproach(Library& library, Playbook& playbook, const std::string& id);

/// All editions of an own approach, the oldest first.
Result<std::vector<Approach>> editionsOf(Library& library, const std::string& id);

/// An approach as a readable file, with the coach's own items, causes and drills that belong to it
/// (docs/formats.md). Errors: Damaged.
Result<std::string> approachFile(Library& library, const Playbook& playbook, const Approach& approach);

/// Reads such a file and keeps it as an approach of the coach's own, edition 1, with the rows it brings.
/// Errors: BadInput with line and reason, Refused where it would change a row that came with the program;
/// then the playbook stays as it was. Those of Library.
Result<std::string> importApproach(Library& library, Playbook& playbook, std::string_view text, Date today,
                                   IdSource& ids);

} // namespace jg
