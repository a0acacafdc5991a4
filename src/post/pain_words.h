// SPDX-License-Identifier: GPL-3.0-or-later
// Pain, heard in what people write.
#pragma once

#include <string>

namespace jg {

/// The sentences that speak of pain, an injury or a joint that does not do what it should, and do not deny
/// it. English and Spanish, as people write: any case, without accents, words that fail a joint only beside
/// one. A denial reaches only its own part of a sentence. It finds too much rather than too little, for a
/// coach reads it. At most about 200 letters. Pure. Common practice, no source.
std::string painIn(const std::string& text);

} // namespace jg
