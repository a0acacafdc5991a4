// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/exercise_pictures.h"

#include "base/file_store.h"
#include "demo/films/film_maker.h"
#include "demo/films/random_orders.h"
#include "film/reader.h"
#include "kinematics/exercise_angles.h"

#include <QImage>
#include <nlohmann/json.hpp>

#include <array>
#include <cerrno>
#include <string>

namespace jg {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

constexpr std::uint64_t kSeed = 20; // every coach sees the same bodies
constexpr int kPictures = 6;

/// A film of two pictures round a moment.
FilmOrder orderOf(int n) {
    FilmOrder order = randomOrder(kSeed, n);
    order.camera.view = n % 2 == 0 ? View::Open : View::Closed;
    order.camera.width = 1280;
    order.camera.height = 720;
    order.fps = 60;
    order.shakePx = 0;
    order.sound = false;
    order.startAtS = Delivery(order.knobs).events().at(exerciseAngle(static_cast<std::size_t>(n)).at);
    order.cutAfterS = order.startAtS + 2.0 / order.fps;
    return order;
}

Result<Picture> firstPicture(const FilmOrder& order, const fs::path& film, std::stop_token stop) {
    if (auto made = makeFilm(order, film, stop); !made) return made.error();
    auto reader = Reader::open(film, {}, stop);
    auto picture = reader ? (*reader)->picture(FrameNumber{0}, stop) : Result<Picture>(reader.error());
    std::error_code ec;
    fs::remove(film, ec);
    return picture;
}

/// The picture's row of exercise.json, once the picture lies in the folder.
Result<json> makeOne(int n, const fs::path& folder, std::stop_token stop) {
    const FilmOrder order = orderOf(n);
    const std::string name = "made-" + std::to_string(n);
    const auto picture = firstPicture(order, folder / (name + ".mp4"), stop);
    if (!picture) return picture.error();
    const QImage image(picture->row(0), picture->width, picture->height, picture->stride(),
                       QImage::Format_RGB32);
    const fs::path file = folder / (name + ".jpg");
    if (!image.save(QString::fromStdString(file.string()), "JPG", 92)) return writeError(file, errno);
    const Delivery delivery(order.knobs);
    const auto joints = projectJoints(order, delivery.poseAt(timeOfPicture(order, delivery, 0)));
    json row = {{"name", name}, {"file", file.filename().string()}, {"joints", json::array()}};
    for (const Landmark l : exerciseAngle(static_cast<std::size_t>(n)).joints)
        row["joints"].push_back(
            {{"landmark", std::string(info(l).id)}, {"x", joints.at(l).x}, {"y", joints.at(l).y}});
    return row;
}

} // namespace

Status makeExercisePictures(const fs::path& folder, std::stop_token stop) {
    json document = {{"format", "juxtagraph-exercise-1"}, {"pictures", json::array()}};
    for (int n = 0; n < kPictures; ++n) {
        auto row = makeOne(n, folder, stop);
        if (!row) return row.error();
        document["pictures"].push_back(*std::move(row));
    }
    FileStore files;
    return files.write(folder / "exercise.json", document.dump(1) + "\n");
}

} // namespace jg
