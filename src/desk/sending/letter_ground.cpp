// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/letter_ground.h"

#include "desk/keeping/known_veils.h"
#include "review/record/derived_json.h"
#include "review/record/review_json.h"

namespace jg {

namespace {

/// What is said of an athlete in a letter, or decides who gets it: outings and what they are a model of are
/// neither.
std::string aboutAthlete(Athlete athlete) {
    athlete.outings.clear();
    athlete.model.clear();
    return toJson(athlete);
}

/// Without where the coach is in the walk.
std::string aboutReview(Review review) {
    review.stage = Stage::Send;
    review.sent.reset();
    std::string text = toJson(review);
    for (const DeliveryMarks& d : review.deliveries) text += derivedToJson(d);
    return text;
}

/// Settings that a letter shows or is made by.
constexpr const char* kSettings[] = {"house.coach",   "house.place",  "house.mark",       "house.guidance",
                                     "mail.from",     "letter.paper", "letter.phonePage", "film.shape",
                                     "film.captions", "film.mostMb"};

/// Who is hidden on these films in other reviews.
Result<std::string> aboutHidden(const ReviewSession& session) {
    KnownVeils known(session.library());
    std::string all;
    for (const Clip& clip : session.submission().clips) {
        const auto veils = known.on(clip, session.athlete().id, session.review().id);
        if (!veils) return veils.error();
        for (const auto& [id, veil] : *veils) {
            all += id;
            for (const auto& [frame, box] : veil.boxes) all += " " + std::to_string(frame);
        }
    }
    return all;
}

/// What it may be compared with: reviews that were sent.
Result<std::string> aboutOthers(const ReviewSession& session) {
    const auto reviews = session.library().reviewsOf(session.athlete().id);
    if (!reviews) return reviews.error();
    std::string all;
    for (const ReviewOfAthlete& r : *reviews)
        if (r.summary.id != session.review().id && r.summary.sent)
            all += r.summary.id.value + " " + std::to_string(r.summary.revision) + "\n";
    return all;
}

} // namespace

Result<LetterGround> groundOf(const ReviewSession& session) {
    LetterGround ground;
    ground["review"] = aboutReview(session.review());
    ground["athlete"] = aboutAthlete(session.athlete());
    ground["films"] = toJson(session.submission());
    for (const Submission& s : session.openPain()) ground["pain"] += s.id.value + " " + s.pain + "\n";
    for (const char* key : kSettings) ground["house"] += session.library().setting(key) + "\n";
    auto hidden = aboutHidden(session);
    if (!hidden) return hidden.error();
    ground["hidden"] = *std::move(hidden);
    auto others = aboutOthers(session);
    if (!others) return others.error();
    ground["others"] = *std::move(others);
    return ground;
}

Message changedBetween(const LetterGround& was, const LetterGround& now) {
    std::map<std::string, bool> changed;
    for (const auto& [part, text] : now)
        if (const auto before = was.find(part); before == was.end() || before->second != text)
            changed[part] = true;
    for (const auto& [part, text] : was)
        if (!now.contains(part)) changed[part] = true;
    std::vector<Message> parts;
    for (const auto& [part, yes] : changed) parts.push_back(msg("letter-ground." + part));
    return joined(ListStyle::And, std::move(parts));
}

} // namespace jg
