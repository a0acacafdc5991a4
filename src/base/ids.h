// SPDX-License-Identifier: GPL-3.0-or-later
// Identifiers that cannot be mixed up: one type for each kind of thing.
#pragma once

#include <compare>
#include <cstdint>
#include <optional>
#include <random>
#include <string>
#include <string_view>

namespace jg {

/// A text id of one kind of thing. Empty means "none". Value type.
template <typename Tag>
struct Id {
    std::string value;
    bool empty() const { return value.empty(); }
    auto operator<=>(const Id&) const = default; // NOLINT(modernize-use-nullptr)
};

/// True for what may be an id: 1 to 80 letters, digits, '-' and '_', a letter or digit first. So an id is
/// never a path, an empty text or a word that a file system reads otherwise. Every id that comes from outside
/// goes through here (`idIn` of the documents).
bool isId(std::string_view text);

/// True for a file's name as this program makes them: 1 to 200 letters, digits, '.', '-' and '_', no dot
/// first.
bool isPlainName(std::string_view text);

using AthleteId = Id<struct AthleteTag>;
using SubmissionId = Id<struct SubmissionTag>;
using ClipId = Id<struct ClipTag>;
using ReviewId = Id<struct ReviewTag>;
using StopId = Id<struct StopTag>;
using TakeId = Id<struct TakeTag>;

/// Makes ids such as "rev-8f3a01c2d4e5...", 128 bits wide, so that several machines never meet on one. From
/// the system's own randomness by default; the same from the same seed. Not thread-safe.
class IdSource {
public:
    IdSource() = default;
    explicit IdSource(std::uint64_t seed)
        : engine_(std::in_place, seed) {}

    template <typename Tag>
    Id<Tag> next(const char* prefix) {
        return {text(prefix)};
    }

private:
    std::string text(const char* prefix);
    std::uint64_t bits();
    std::optional<std::mt19937_64> engine_; ///< nothing = the system's
    std::random_device system_;
};

} // namespace jg
