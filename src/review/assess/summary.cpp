// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/summary.h"

#include "review/assess/counts_json.h"
#include "review/record/json_fields.h"

#include <algorithm>

namespace jg {

using nlohmann::json;

std::vector<FaultInShort> faultsInShort(const Assessment& told) {
    std::vector<FaultInShort> faults;
    for (const Finding& f : told.faults())
        faults.push_back({f.id, f.gapInSds, f.verdict == Verdict::Protect});
    std::stable_sort(faults.begin(), faults.end(), [](const FaultInShort& a, const FaultInShort& b) {
        return a.protects != b.protects ? a.protects : a.gapInSds > b.gapInSds;
    });
    return faults;
}

namespace {

json faultsAsJson(const std::vector<FaultInShort>& faults) {
    json rows = json::array();
    for (const FaultInShort& f : faults)
        rows.push_back({{"finding", f.finding}, {"gapInSds", f.gapInSds}, {"protects", f.protects}});
    return rows;
}

std::vector<FaultInShort> faultsIn(const json& rows) {
    std::vector<FaultInShort> faults;
    for (const json& row : rows)
        faults.push_back({row.at("finding"), row.at("gapInSds"), row.at("protects")});
    return faults;
}

} // namespace

ReviewSummary summaryOf(const Review& review, const Assessment* told) {
    ReviewSummary s{review.id,
                    review.submission,
                    review.athlete,
                    review.date,
                    review.stage,
                    review.sent,
                    !review.takes.empty(),
                    false,
                    {},
                    review.plan.corrections,
                    {},
                    {},
                    review.revision};
    s.hides = std::any_of(review.deliveries.begin(), review.deliveries.end(),
                          [](const DeliveryMarks& d) { return !d.veils.empty(); });
    if (!told) return s;
    s.counts = told->counts;
    s.faults = faultsInShort(*told);
    for (const Judged& j : told->findings)
        if (j.strength) s.keeps.push_back(j.finding.id);
    return s;
}

std::string toJson(const ReviewSummary& s) {
    json row = {{"spoken", s.spoken}, {"hides", s.hides}, {"corrections", s.corrections}, {"keeps", s.keeps}};
    if (s.counts) row["counts"] = countsAsJson(*s.counts);
    if (s.faults) row["faults"] = faultsAsJson(*s.faults);
    return row.dump();
}

Status readSummary(std::string_view text, ReviewSummary& summary) {
    auto read = guarded<ReviewSummary>(text, "summary", [&](const json& row) {
        ReviewSummary s = summary;
        s.spoken = row.value("spoken", false);
        s.hides = row.value("hides", true);
        s.corrections = row.value("corrections", s.corrections);
        s.keeps = row.value("keeps", s.keeps);
        if (row.contains("counts")) s.counts = countsIn(row["counts"]);
        if (row.contains("faults")) s.faults = faultsIn(row["faults"]);
        return s;
    });
    if (!read) return read.error();
    summary = std::move(*read);
    return Done{};
}

} // namespace jg
