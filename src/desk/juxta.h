// Reviews of a library as a sheet of deliveries under each other.
#pragma once

#include "letter/juxta_sheet.h"
#include "library/library.h"

#include <stop_token>
#include <vector>

namespace jg {

/// The lead deliveries of some reviews, whoever's, with what they say: of those sent as they were told, of
/// others as they are now. Errors: those of reading the store.
Result<std::vector<JuxtaEntry>> juxtaEntries(Store& store, const Playbook& playbook,
                                             const std::vector<ReviewId>& reviews);

/// The picture of a sheet, its frames read from the library's films. Runs in any one thread with a library of
/// its own. Errors: those of Reader and paintJuxta().
Result<QImage> juxtaPicture(const Library& library, const JuxtaSheet& sheet, const Playbook& playbook,
                            const Words& words, std::stop_token stop = {},
                            const std::function<void(double)>& progress = {});

} // namespace jg
