// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/salvage.h"

#include "base/document.h"
#include "review/record/review_json.h"

#include <nlohmann/json.hpp>

namespace jg {

using nlohmann::json;

namespace {

/// The fields of a document; of one that breaks off or is broken in the middle those before that place.
json fieldsOf(std::string_view text) {
    json whole = parseDocumentOrNone(text);
    for (std::size_t end = text.size(); whole.is_discarded() && end > 0;) {
        end = text.rfind(',', end - 1);
        if (end == text.npos) break;
        whole = parseDocumentOrNone(std::string(text.substr(0, end)) + "}");
    }
    return whole.is_object() ? whole : json::object();
}

/// `document` with each of the fields with which it still reads.
template <typename Read>
void takeWhatReads(json& document, const json& fields, Read reads) {
    for (const auto& [name, value] : fields.items()) {
        if (name == "id" || name == "athlete") continue; // the row knows better
        json with = document;
        with[name] = value;
        if (reads(with)) document = std::move(with);
    }
}

} // namespace

Result<Athlete> salvagedAthlete(std::string_view text, Athlete known, Date today) {
    known.born = today;
    json document = json::parse(toJson(known));
    takeWhatReads(document, fieldsOf(text), [](const json& d) { return athleteFromJson(d.dump()).ok(); });
    return athleteFromJson(document.dump());
}

Result<Submission> salvagedSubmission(std::string_view text, Submission known, const std::string& painLost) {
    const json fields = fieldsOf(text);
    json document = json::parse(toJson(known));
    const auto reads = [](const json& d) { return submissionFromJson(d.dump()).ok(); };
    for (const json& clip : fields.value("clips", json::array())) { // each clip for itself
        if (!clip.is_object()) continue;
        for (json& own : document["clips"]) {
            if (clip.value("id", json()) != own["id"] || clip.value("media", json()) != own["media"])
                continue;
            takeWhatReads(own, clip, [&](const json& with) {
                json one = document;
                one["clips"] = json::array({with});
                return reads(one);
            });
        }
    }
    json rest = fields;
    rest.erase("clips");
    takeWhatReads(document, rest, reads);
    if (!fields.contains("pain") || document["pain"] != fields["pain"]) document["pain"] = painLost;
    return submissionFromJson(document.dump());
}

} // namespace jg
