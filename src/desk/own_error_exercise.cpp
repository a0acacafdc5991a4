#include "desk/own_error_exercise.h"

#include "demo/film_maker.h"
#include "demo/random_orders.h"
#include "film/reader.h"
#include "library/sha256.h"

#include <algorithm>
#include <random>

namespace jg {

namespace fs = std::filesystem;

namespace {

constexpr std::uint64_t kPicturesSeed = 20; // every coach sees the same bodies
constexpr int kGenerated = 6;

using L = Landmark;
struct Angle {
    Moment at;
    std::array<Landmark, 3> joints;
};
const std::array<Angle, 3> kAngles = {Angle{Moment::Load, {L::BackHip, L::BackKnee, L::BackAnkle}},
                                      Angle{Moment::Plant, {L::LeadHip, L::LeadKnee, L::LeadAnkle}},
                                      Angle{Moment::Plant, {L::BackShoulder, L::BackElbow, L::BackWrist}}};

/// A film of two pictures round a moment, its first picture and the truth in it.
Result<ExercisePicture> generated(int n, const fs::path& folder, std::stop_token stop) {
    const Angle& angle = kAngles[static_cast<std::size_t>(n) % kAngles.size()];
    FilmOrder order = randomOrder(kPicturesSeed, n);
    order.camera.view = n % 2 == 0 ? View::Open : View::Closed;
    order.camera.width = 1280;
    order.camera.height = 720;
    order.fps = 60;
    order.shakePx = 0;
    order.sound = false;
    const Delivery delivery(order.knobs);
    order.startAtS = delivery.events().at(angle.at);
    order.cutAfterS = order.startAtS + 2.0 / order.fps;
    const fs::path film = folder / ("exercise-" + std::to_string(n) + ".mp4");
    auto made = makeFilm(order, film, stop);
    if (!made) return made.error();
    auto reader = Reader::open(film, {}, stop);
    if (!reader) return reader.error();
    auto picture = (*reader)->picture(FrameNumber{0}, stop);
    if (!picture) return picture.error();
    const auto joints = projectJoints(order, delivery.poseAt(timeOfPicture(order, delivery, 0)));
    ExercisePicture p;
    p.what.name = "made-" + std::to_string(n);
    p.what.joints = angle.joints;
    p.what.truth.emplace();
    for (std::size_t i = 0; i < 3; ++i) (*p.what.truth)[i] = joints.at(angle.joints[i]);
    p.what.heightPx = picture->height;
    p.picture = *std::move(picture);
    return p;
}

std::optional<ExercisePicture> shownAgain(const OwnFrame& own, std::stop_token stop) {
    auto reader = Reader::open(own.film, {}, stop);
    if (!reader) return std::nullopt;
    auto picture = (*reader)->picture(FrameNumber{own.frame}, stop);
    if (!picture) return std::nullopt;
    ExercisePicture p;
    p.what.name = own.name;
    p.what.joints = own.joints;
    p.what.heightPx = picture->height;
    p.picture = *std::move(picture);
    return p;
}

/// Both rounds shuffled; the second does not begin with what the first ended on.
std::vector<Showing> shuffled(std::size_t pictures, std::uint64_t seed) {
    std::mt19937_64 engine(seed);
    std::vector<Showing> order;
    for (std::size_t round = 0; round < 2; ++round) {
        std::vector<Showing> some;
        for (std::size_t i = 0; i < pictures; ++i) some.push_back({i, round});
        std::shuffle(some.begin(), some.end(), engine);
        if (!order.empty() && some.size() > 1 && some.front().picture == order.back().picture)
            std::swap(some.front(), some.back());
        order.insert(order.end(), some.begin(), some.end());
    }
    return order;
}

} // namespace

Result<std::vector<OwnFrame>> ownFrames(Library& library, std::size_t most) {
    constexpr int kNewest = 40; // further back nobody remembers the picture either
    auto reviews = library.reviews(kNewest);
    if (!reviews) return reviews.error();
    std::vector<OwnFrame> frames;
    for (const ReviewSummary& summary : *reviews) {
        if (frames.size() >= most) break;
        auto review = library.review(summary.id);
        auto submission = library.submission(summary.submission);
        if (!review || !submission) continue;
        const DeliveryMarks& d = review->first();
        const auto clip = std::find_if(submission->clips.begin(), submission->clips.end(),
                                       [&](const Clip& c) { return c.id == d.clip; });
        const Angle& angle = kAngles[frames.size() % kAngles.size()];
        const auto frame = d.frameOf(angle.at);
        if (clip == submission->clips.end() || !frame) continue;
        const bool clicked = std::all_of(angle.joints.begin(), angle.joints.end(),
                                         [&](Landmark l) { return d.seenPoint(*frame, l); });
        if (clicked)
            frames.push_back({library.mediaPath(*clip),
                              summary.id.value + "-" + std::string(info(angle.at).id), *frame, angle.joints});
    }
    return frames;
}

Result<Exercise> makeExercise(const std::vector<OwnFrame>& own, const fs::path& workFolder,
                              std::uint64_t seed, std::stop_token stop,
                              const std::function<void(double)>& progress) {
    std::error_code ec;
    fs::create_directories(workFolder, ec);
    Exercise exercise;
    const double all = kGenerated + static_cast<double>(own.size());
    for (int n = 0; n < kGenerated; ++n) {
        auto picture = generated(n, workFolder, stop);
        if (!picture) {
            fs::remove_all(workFolder, ec);
            return picture.error();
        }
        exercise.pictures.push_back(*std::move(picture));
        if (progress) progress((n + 1) / all);
    }
    fs::remove_all(workFolder, ec);
    for (const OwnFrame& frame : own) {
        if (stop.stop_requested())
            return fail(ErrorCode::Cancelled, msg("own-error-exercise.the-exercise-was-stopped"));
        if (auto picture = shownAgain(frame, stop)) exercise.pictures.push_back(*std::move(picture));
        if (progress) progress(static_cast<double>(exercise.pictures.size()) / all);
    }
    exercise.order = shuffled(exercise.pictures.size(), seed);
    return exercise;
}

Result<std::vector<ErrorRun>> errorRuns(Library& library) {
    const auto rows = library.rows(ListOf::ErrorRuns);
    if (!rows) return rows.error();
    std::vector<ErrorRun> all;
    for (const ListEntry& row : *rows) {
        auto runs = errorRunsFromJson("[" + row.document + "]");
        if (!runs) return runs.error();
        all.insert(all.end(), runs->begin(), runs->end());
    }
    return all;
}

Status keepRun(Library& library, const ErrorRun& run) {
    const std::string list = toJson(std::vector{run}), row = list.substr(1, list.size() - 2);
    return library.put(ListOf::ErrorRuns, sha256(row), row);
}

} // namespace jg
