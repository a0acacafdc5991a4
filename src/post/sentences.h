// SPDX-License-Identifier: GPL-3.0-or-later
// A mail's text in sentences. Inside the post room only.
#pragma once

#include <string>
#include <vector>

namespace jg {

/// Sentences: to a full stop, a question or an exclamation mark, or an empty line; a line end within one
/// becomes a space.
std::vector<std::string> sentencesIn(const std::string& text);

/// The first so many bytes, whole letters and words.
std::string beginningOf(const std::string& text, std::size_t most);

/// Sentences one after the other, as many as fit into about 200 letters; the first always, were it cut.
std::string inShort(std::vector<std::string> sentences);

} // namespace jg
