#include "desk/juxta.h"

#include "film/reader.h"

#include <map>
#include <memory>

namespace jg {

Result<std::vector<JuxtaEntry>> juxtaEntries(Store& store, const Playbook& playbook,
                                             const std::vector<ReviewId>& reviews) {
    std::vector<JuxtaEntry> entries;
    for (const ReviewId& id : reviews) {
        auto review = store.review(id);
        if (!review) return review.error();
        auto athlete = store.athlete(review->athlete);
        if (!athlete) return athlete.error();
        auto submission = store.submission(review->submission);
        if (!submission) return submission.error();
        if (submission->clips.empty()) return fail(ErrorCode::NotFound, msg("juxta.no-film"));
        auto kept = store.results(id);
        if (!kept) return kept.error();
        JuxtaEntry e;
        e.name = athlete->firstName;
        e.when = review->date;
        e.hand = athlete->hand;
        e.marks = review->deliveryOr(review->lead);
        e.clip = filmOf(e.marks, submission->clips);
        e.results = review->sent && *kept ? std::move(**kept)
                                          : assess(*review, playbook, submission->clips, athlete->hand);
        entries.push_back(std::move(e));
    }
    return entries;
}

Result<QImage> juxtaPicture(const Library& library, const JuxtaSheet& sheet, const Playbook& playbook,
                            const Words& words, std::stop_token stop,
                            const std::function<void(double)>& progress) {
    std::map<std::string, std::unique_ptr<Reader>> films; // one film may stand in several rows
    const JuxtaPicture picture = [&](std::size_t row, std::int64_t frame) -> Result<Picture> {
        const auto path = library.mediaPath(sheet.rows[row].entry.clip);
        auto& reader = films[path.string()];
        if (!reader) {
            auto opened = Reader::open(path, {}, stop);
            if (!opened) return opened.error();
            reader = std::move(*opened);
        }
        return reader->picture(FrameNumber{frame}, stop);
    };
    return paintJuxta(sheet, playbook, picture, words, stop, progress);
}

} // namespace jg
