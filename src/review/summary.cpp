#include "review/summary.h"

#include "review/counts_json.h"
#include "review/json_fields.h"

namespace jg {

using nlohmann::json;

ReviewSummary summaryOf(const Review& review, const Assessment* told) {
    ReviewSummary s{review.id,
                    review.submission,
                    review.athlete,
                    review.date,
                    review.stage,
                    review.sent,
                    !review.takes.empty(),
                    {},
                    review.plan.corrections,
                    {},
                    review.revision};
    if (!told) return s;
    s.counts = told->counts;
    for (const Judged& j : told->findings)
        if (j.strength) s.keeps.push_back(j.finding.id);
    return s;
}

std::string toJson(const ReviewSummary& s) {
    json row = {{"spoken", s.spoken}, {"corrections", s.corrections}, {"keeps", s.keeps}};
    if (s.counts) row["counts"] = countsAsJson(*s.counts);
    return row.dump();
}

Status readSummary(std::string_view text, ReviewSummary& summary) {
    auto read = guarded<ReviewSummary>(text, "summary", [&](const json& row) {
        ReviewSummary s = summary;
        s.spoken = row.value("spoken", false);
        s.corrections = row.value("corrections", s.corrections);
        s.keeps = row.value("keeps", s.keeps);
        if (row.contains("counts")) s.counts = countsIn(row["counts"]);
        return s;
    });
    if (!read) return read.error();
    summary = std::move(*read);
    return Done{};
}

} // namespace jg
