// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/renamed_messages.h"

#include <algorithm>
#include <array>
#include <string_view>
#include <utility>

namespace jg {

namespace {

// Sorted by what they were called, the first words of their sentences, until version 0.1.
using Renamed = std::pair<std::string_view, std::string_view>;
constexpr auto kRenamed = std::to_array<Renamed>({
    {"assess.scale-from-scale-give-or-take", "assess.scale-error"},
    {"assess.the-target-is-a-length-give", "assess.scale-wanted"},
    {"convert.this-films-pixel-format-cant-be", "convert.pixel-format"},
    {"convert.this-films-pixel-format-cant-be-2", "convert.pixel-format-grey"},
    {"database.file-cant-be-opened-as-a", "database.cant-open"},
    {"database.this-library-was-made-by-a", "database.newer"},
    {"database.this-library-was-made-by-an", "database.older"},
    {"demuxer.name-holds-no-moving-picture-only", "demuxer.no-picture-stream"},
    {"demuxer.name-holds-no-pictures-copy-the", "demuxer.no-pictures"},
    {"demuxer.name-is-a-folder-choose-a", "demuxer.folder"},
    {"demuxer.name-is-damaged-its-picture-has", "demuxer.no-size"},
    {"demuxer.name-is-damaged-nothing-in-it", "demuxer.nothing-decodes"},
    {"demuxer.name-is-no-file-but-a", "demuxer.device"},
    {"demuxer.name-is-not-a-film-this", "demuxer.no-film"},
    {"dispatch.a-film-of-this-review-is", "dispatch.film-altered"},
    {"dispatch.the-film-to-be-sent-would", "dispatch.film-tells-place"},
    {"encoder.a-films-size-must-be-even", "encoder.odd-size"},
    {"encoder.the-h-264-encoder-does-not", "encoder.h264-fails"},
    {"file-store.path-cant-be-read-check-its", "file-store.unreadable"},
    {"file-store.path-cant-be-written-error-number", "file-store.unwritable"},
    {"file-store.the-disk-is-full-path-was", "file-store.disk-full"},
    {"film-check.every-second-picture-is-mixed-from", "film-check.mixed"},
    {"film-check.everything-jumps-twice-its-way-at", "film-check.jumps"},
    {"film-check.pictures-do-not-follow-each-other", "film-check.uneven-times"},
    {"film-check.release-cant-be-placed-finer-than", "film-check.release-coarse"},
    {"film-check.the-athlete-fills-tall-of-the", "film-check.athlete-small"},
    {"film-check.the-athlete-leaves-the-picture-in", "film-check.athlete-leaves"},
    {"film-check.the-athlete-never-stands-still-before", "film-check.never-still"},
    {"film-check.the-camera-is-tilted-by-about", "film-check.tilted"},
    {"film-check.the-camera-is-turned-away-from", "film-check.turned"},
    {"film-check.the-capture-rate-is-taken-as", "film-check.rate-assumed"},
    {"film-check.the-fast-part-is-smeared-in", "film-check.smeared"},
    {"film-check.the-file-ends-early-frames-of", "film-check.ends-early"},
    {"film-check.the-file-says-where-it-was", "film-check.tells-place"},
    {"film-check.too-dark-limbs-are-hard-to", "film-check.dark"},
    {"ghost.it-is-inside-its-target-nothing", "ghost.inside-target"},
    {"ghost.this-measure-does-not-lie-in", "ghost.not-in-plane"},
    {"intake.path-is-still-being-written-after", "intake.still-written"},
    {"intake.there-is-no-film-in-this", "intake.no-film"},
    {"library.file-cant-be-read-check-its", "library.unreadable"},
    {"library.the-film-name-is-missing-from", "library.film-missing"},
    {"library.the-film-name-was-altered-its", "library.film-altered"},
    {"one-person.the-to-lies-too-far-from", "one-person.too-far"},
    {"own-measures.there-is-a-measure-of-that", "own-measures.name-taken"},
    {"people-check.check-the-date-of-birth-that", "people-check.birth"},
    {"people-check.check-the-height-write-it-as", "people-check.height"},
    {"positions.frame-frame-is-not-in-the", "positions.outside-cut"},
    {"positions.moment-frame-frame-is-not-in", "positions.position-outside"},
    {"reader.frame-n-is-damaged-and-cant", "reader.frame-damaged"},
    {"reader.name-is-coded-as-codec-which", "reader.codec-unknown"},
    {"reader.name-is-damaged-none-of-its", "reader.nothing-decodes"},
    {"review-session.that-film-is-not-part-of", "review-session.strange-film"},
    {"review-session.the-delivery-this-belongs-to-is", "review-session.delivery-gone"},
    {"review-session.this-review-was-sent-and-stays", "review-session.sent-stays"},
    {"scrub-copy.a-scrub-copy-cant-be-made", "scrub-copy.impossible"},
    {"send-check.first-name-is-under-18-and", "send-check.no-guardian"},
    {"send-check.name-is-both-a-strength-and", "send-check.both-ways"},
    {"send-check.no-date-is-set-for-the", "send-check.no-next-look"},
    {"send-check.no-mail-address-is-known-for", "send-check.no-address"},
    {"send-check.the-letter-is-empty-choose-in", "send-check.letter-empty"},
    {"send-check.there-is-no-spoken-stop-so", "send-check.no-film"},
    {"smtp.nobody-answers-at-host-check-the", "smtp.no-answer"},
    {"smtp.the-mail-server-did-not-take", "smtp.not-taken"},
    {"smtp.the-mail-server-host-is-not", "smtp.host-unknown"},
    {"smtp.the-mail-servers-certificate-is-not", "smtp.untrusted"},
    {"smtp.without-encryption-mail-only-goes-to", "smtp.unencrypted"},
    {"sqlite-outbox.an-earlier-letter-to-recipient-may", "sqlite-outbox.earlier-unsure"},
    {"sqlite-outbox.this-letter-is-being-handed-over", "sqlite-outbox.handing-over"},
    {"sqlite-reviews.that-version-is-not-kept-in", "sqlite-reviews.no-version"},
    {"sqlite-reviews.there-is-no-review-value-in", "sqlite-reviews.no-review"},
    {"sqlite-reviews.this-review-was-sent-and-stays", "sqlite-reviews.sent-stays"},
    {"sqlite-reviews.this-review-was-sent-before-on", "sqlite-reviews.sent-before"},
    {"sqlite-store.another-program-is-writing-to-this", "sqlite-store.busy"},
    {"sqlite-store.there-is-no-what-id-in", "sqlite-store.no-row"},
    {"steady.too-little-stands-still-behind-the", "steady.too-little-still"},
    {"survey.none-of-the-films-pictures-can", "survey.nothing-decodes"},
});
static_assert(std::is_sorted(kRenamed.begin(), kRenamed.end()));

} // namespace

std::string currentId(std::string id) {
    const auto it =
        std::lower_bound(kRenamed.begin(), kRenamed.end(), id,
                         [](const Renamed& row, const std::string& wanted) { return row.first < wanted; });
    return it != kRenamed.end() && it->first == id ? std::string(it->second) : id;
}

} // namespace jg
