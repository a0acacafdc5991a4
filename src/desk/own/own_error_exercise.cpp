// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/own/own_error_exercise.h"

#include "base/document.h"
#include "base/file_store.h"
#include "base/unfit.h"
#include "film/reader.h"
#include "kinematics/exercise_angles.h"
#include "library/sha256.h"

#include <QImage>

#include <algorithm>
#include <random>

namespace jg {

namespace fs = std::filesystem;

namespace {

Picture pictureOf(QImage image) {
    image.convertTo(QImage::Format_RGB32);
    const std::size_t bytes =
        static_cast<std::size_t>(image.width()) * static_cast<std::size_t>(image.height()) * 4;
    auto pixels = std::make_shared<std::vector<std::uint8_t>>(image.constBits(), image.constBits() + bytes);
    return {image.width(), image.height(), std::move(pixels)};
}

/// A row of exercise.json with its picture. Throws.
ExercisePicture shippedPicture(const nlohmann::json& row, const fs::path& folder) {
    const fs::path file = folder / row.at("file").get<std::string>();
    const QImage image(QString::fromStdString(file.string()));
    if (image.isNull()) throw Unfit(msg("file-store.unreadable", {{"path", file.string()}}));
    ExercisePicture p;
    p.what.name = row.at("name");
    p.what.truth.emplace();
    for (std::size_t i = 0; i < p.what.joints.size(); ++i) {
        const nlohmann::json& joint = row.at("joints").at(i);
        p.what.joints[i] = landmarkFromId(joint.at("landmark").get<std::string>()).value();
        (*p.what.truth)[i] = {joint.at("x"), joint.at("y")};
    }
    p.picture = pictureOf(image);
    p.what.heightPx = p.picture.height;
    return p;
}

Result<std::vector<ExercisePicture>> shippedPictures(const fs::path& folder) {
    auto text = readFile(folder / "exercise.json");
    if (!text) return text.error();
    try {
        const nlohmann::json document = parseDocument(*text);
        std::vector<ExercisePicture> all;
        for (const nlohmann::json& row : document.at("pictures")) all.push_back(shippedPicture(row, folder));
        return all;
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged,
                    msg("own-error-exercise.pictures", {{"folder", folder.string()}, {"why", whyUnfit(e)}}));
    }
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
        const ExerciseAngle& angle = exerciseAngle(frames.size());
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

Result<Exercise> makeExercise(const std::vector<OwnFrame>& own, const fs::path& shipped, std::uint64_t seed,
                              std::stop_token stop) {
    auto pictures = shippedPictures(shipped);
    if (!pictures) return pictures.error();
    Exercise exercise;
    exercise.pictures = *std::move(pictures);
    for (const OwnFrame& frame : own) {
        if (stop.stop_requested())
            return fail(ErrorCode::Cancelled, msg("own-error-exercise.the-exercise-was-stopped"));
        if (auto picture = shownAgain(frame, stop)) exercise.pictures.push_back(*std::move(picture));
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
