// SPDX-License-Identifier: GPL-3.0-or-later
// The narrated film: what it shows when, read by ffprobe and ffmpeg, and legible on a phone.
#include "letter/narrated_film.h"

#include "base/number.h"
#include "desk/sending/dispatch.h"
#include "film/reader.h"
#include "film/true_time.h"
#include "letter/captions.h"
#include "letter/still.h"
#include "tests/support/walk.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"
#include "voice/voice_chain.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <set>

namespace jg {
namespace {

using test::shell;
using test::Walk;

/// True times of a recipe's films, read here.
TimesOf timesOf(const FilmRecipe& recipe) {
    return [&recipe](int delivery) -> Result<FrameTimes> {
        const ToldDelivery& told = toldIn(recipe, delivery);
        auto reader = Reader::open(told.clip);
        if (!reader) return reader.error();
        return trueSeconds((*reader)->info(), told.captureFps);
    };
}

/// Seconds into the film at which a stop begins to be said.
double saidAt(const FilmRecipe& recipe, const StopId& stop) {
    double at = 0;
    const auto plan = planFilm(recipe, timesOf(recipe));
    for (const FilmSegment& s : *plan) {
        if (s.kind == FilmSegment::Kind::Said && s.stop->id == stop) return at;
        at += static_cast<double>(s.samples) / kSampleRate;
    }
    return -1;
}

/// Small, and quick to make.
FilmRecipe smallRecipe(Walk& walk) {
    FilmRecipe recipe = previewRecipe(*walk.session()).film;
    recipe.width = 320;
    recipe.height = 180;
    return recipe;
}

TEST(NarratedFilm, IsWhatFfprobeSaysItShouldBe) {
    Walk walk;
    const auto session = walk.session();
    const auto film = walk.folder / "film-out.mp4";
    FilmRecipe recipe = previewRecipe(*session).film;
    recipe.width = 640;
    recipe.height = 360;
    double last = 0;
    ASSERT_TRUE(
        renderNarratedFilm(recipe, film, walk.library->files(), {}, [&](double part) { last = part; }));
    EXPECT_GT(last, 0.9);
    const auto probe = nlohmann::json::parse(
        shell("ffprobe -v error -show_streams -show_chapters -show_format -of json '" + film.string() + "'"));
    // By hand: cards, the pitch from its first to its last position, four tenths of a second at a quarter of
    // their speed before each stop but the recap, and what was said.
    double expected = kTitleSeconds + kClosingSeconds;
    const Review& review = session->review();
    std::int64_t firstSet = 1 << 20, lastSet = 0;
    for (const auto& [moment, mark] : review.first().moments)
        if (mark.frame) firstSet = std::min(firstSet, *mark.frame), lastSet = std::max(lastSet, *mark.frame);
    const double rate = walk.submission.clips[0].captureFps,
                 end = static_cast<double>(walk.submission.clips[0].frames - 1) / rate;
    expected += std::min(end, static_cast<double>(lastSet) / rate + kRoundSeconds) -
                std::max(0.0, static_cast<double>(firstSet) / rate - kRoundSeconds);
    for (const Stop& s : review.stops) {
        expected += review.takes.at(s.id).seconds();
        if (s.kind != StopKind::Recap) expected += std::min(0.4, static_cast<double>(s.frame) / rate) * 4;
    }
    EXPECT_NEAR(*parseNumber(probe["format"]["duration"].get<std::string>()), expected, 0.2);
    ASSERT_EQ(probe["chapters"].size(), review.stops.size() + 3);
    EXPECT_EQ(probe["chapters"][1]["tags"]["title"], said(msg("film.whole")));
    EXPECT_EQ(probe["chapters"][2]["tags"]["title"], review.stops[0].title);
    std::set<std::string> codecs;
    for (const auto& s : probe["streams"]) codecs.insert(s["codec_name"].get<std::string>());
    EXPECT_TRUE(codecs.contains("h264") && codecs.contains("aac") && codecs.contains("mov_text"));
    // Fast start: the index comes before the media.
    const auto bytes = readFile(film);
    EXPECT_LT(bytes->find("moov"), bytes->find("mdat"));
    // The voice is there, even and in time: silence under the title, speech after it.
    const auto sound = readSound(film);
    ASSERT_TRUE(sound);
    const auto title = std::span(*sound).subspan(0, static_cast<std::size_t>(2.8 * kSampleRate));
    EXPECT_LT(loudnessOf(title), -60);
    const auto speech =
        std::span(*sound).subspan(static_cast<std::size_t>(saidAt(recipe, review.stops[0].id) * kSampleRate),
                                  static_cast<std::size_t>(5 * kSampleRate));
    EXPECT_NEAR(loudnessOf(speech), kVoiceLufs, 3);
}

TEST(NarratedFilm, AMarkCorrectedLaterIsCorrectInTheFilm) {
    Walk walk;
    const auto session = walk.session();
    const Stop& stop = session->review().stops.front();
    const auto scene =
        sceneFor(session->delivery(), test::playbook(), session->assessment(), stop.frame, stop.finding);
    Review moved = session->review();
    for (auto& [key, mark] : moved.first().points)
        if (key.frame == stop.frame) mark.point.at.x += 12;
    const Assessment a = assess(moved, test::playbook(), session->clip(), session->athlete().hand);
    const auto later = sceneFor(moved.first(), test::playbook(), a, stop.frame, stop.finding);
    ASSERT_EQ(scene.points.size(), later.points.size());
    ASSERT_FALSE(scene.points.empty());
    for (std::size_t i = 0; i < scene.points.size(); ++i)
        EXPECT_NEAR(later.points[i].at.x - scene.points[i].at.x, 12, 1e-9);
}

/// Mean light of a frame of a film, 0 to 1.
double lightOf(const std::filesystem::path& film, std::int64_t frame) {
    auto reader = Reader::open(film);
    return (*reader)->grey(FrameNumber{frame}, 64)->mean();
}

TEST(NarratedFilm, AStopOnAnotherDeliveryShowsItsFilm) {
    Walk walk;
    FilmOrder dark = walk.order;
    dark.brightness = 0.05;
    ASSERT_TRUE(makeFilm(dark, walk.folder / "dark.mp4"));
    FilmRecipe recipe = smallRecipe(walk);
    recipe.review.stops.resize(2);
    recipe.others.push_back(recipe); // the same delivery, as a second film shows it
    recipe.others.front().marks.number = 2;
    recipe.others.front().clip = walk.folder / "dark.mp4";
    recipe.review.stops.back().delivery = 2;
    const auto film = walk.folder / "two.mp4";
    ASSERT_TRUE(renderNarratedFilm(recipe, film, walk.library->files()));
    const auto at = [&](std::size_t stop) {
        return static_cast<std::int64_t>((saidAt(recipe, recipe.review.stops[stop].id) + 1) * 30);
    };
    EXPECT_GT(lightOf(film, at(0)), 1.5 * lightOf(film, at(1)));
}

/// How far two pictures of one size lie apart, in grey levels.
double apart(const QImage& a, const QImage& b) {
    double sum = 0;
    for (int y = 0; y < a.height(); ++y)
        for (int x = 0; x < a.width(); ++x) sum += std::abs(qGray(a.pixel(x, y)) - qGray(b.pixel(x, y)));
    return sum / (a.width() * a.height());
}

// The film's pictures against the events of a take, each taken from the athlete's own film by hand.
TEST(NarratedFilm, ShowsWhatWasLookedAtDrawnAndPlayedWhileItWasSaid) {
    Walk walk;
    FilmRecipe recipe = previewRecipe(*walk.session()).film;
    recipe.width = 640;
    recipe.height = 360;
    recipe.review.stops.resize(1);
    const Stop& stop = recipe.review.stops.front();
    Take& take = recipe.review.takes.at(stop.id);
    const FilmLayout layout = layOutFilm(QSize(640, 360));
    // Twice as near, in the shape of the film's picture.
    const Clip& clip = walk.submission.clips[0];
    const double w = clip.width / 2.0, h = w * layout.picture.height() / layout.picture.width();
    const PictureBox part{{clip.width * 0.3, clip.height * 0.3},
                          {clip.width * 0.3 + w, clip.height * 0.3 + h}};
    const ImagePoint middle{(part.from.x + part.to.x) / 2, (part.from.y + part.to.y) / 2};
    const auto second = [](double s) { return static_cast<std::int64_t>(s * kSampleRate); };
    take.cuts.clear();
    take.events = {
        {.sample = 0, .kind = TakeEventKind::Frame, .frame = stop.frame},
        {.sample = 0, .kind = TakeEventKind::MarksOff},
        {.sample = second(1), .kind = TakeEventKind::View, .at = part.from, .to = part.to},
        {.sample = second(2),
         .kind = TakeEventKind::StrokeBegin,
         .at = middle,
         .pen = Pen::Ring,
         .fades = true},
        {.sample = second(2), .kind = TakeEventKind::StrokeTo, .at = {middle.x + w / 8, middle.y}},
        {.sample = second(2.5), .kind = TakeEventKind::Frame, .frame = stop.frame + 6},
    };
    ASSERT_GT(take.seconds(), 7);
    const auto path = walk.folder / "looked.mp4";
    ASSERT_TRUE(renderNarratedFilm(recipe, path, walk.library->files()));
    auto film = Reader::open(path), own = Reader::open(recipe.clip);
    ASSERT_TRUE(film && own);
    const double begins = saidAt(recipe, stop.id);
    const QRect area = layout.picture.toRect();
    const auto shownAt = [&](double s) {
        return toImage(*(*film)->picture(FrameNumber{static_cast<std::int64_t>((begins + s) * 30)}))
            .copy(area);
    };
    const auto near = [&](std::int64_t frame) {
        return toImage(*(*own)->picture(FrameNumber{frame}))
            .copy(QRectF(QPointF(part.from.x, part.from.y), QSizeF(w, h)).toRect())
            .scaled(area.size(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    };
    const double same = apart(shownAt(1.5), near(stop.frame));
    EXPECT_LT(same, 6);
    EXPECT_GT(apart(shownAt(0.5), near(stop.frame)), 2 * same); // cut to the athlete, as ever
    EXPECT_LT(apart(shownAt(7), near(stop.frame + 6)), 6);      // stepped on, and the ring has faded
    EXPECT_GT(apart(shownAt(7), near(stop.frame)), apart(shownAt(7), near(stop.frame + 6)));
    // The ring's right end is chalk while it is there.
    const QPoint edge(area.width() / 2 + area.width() / 8, area.height() / 2);
    const auto lightest = [&](const QImage& image) {
        int most = 0;
        for (int x = -3; x <= 3; ++x) most = std::max(most, qGray(image.pixel(edge + QPoint(x, 0))));
        return most;
    };
    EXPECT_GT(lightest(shownAt(2.3)), 215);
    EXPECT_LT(lightest(shownAt(1.5)), 215);
}

TEST(NarratedFilm, WhatIsLeftOutOfATakeIsNotInTheFilm) {
    Walk walk;
    FilmRecipe recipe = smallRecipe(walk);
    recipe.review.stops.resize(1);
    const Stop& stop = recipe.review.stops.front();
    Take& take = recipe.review.takes.at(stop.id);
    take.cuts = {{0, kSampleRate}, {2 * kSampleRate, 3 * kSampleRate}};
    take.events = {{.sample = 0, .kind = TakeEventKind::Frame, .frame = stop.frame},
                   {.sample = 5 * kSampleRate / 2, .kind = TakeEventKind::Frame, .frame = 3}};
    const auto plan = planFilm(recipe, timesOf(recipe));
    ASSERT_TRUE(plan);
    for (const FilmSegment& s : *plan)
        if (s.kind == FilmSegment::Kind::Said) {
            EXPECT_EQ(s.samples, take.samples - 2 * kSampleRate);
        }
    const auto path = walk.folder / "shorter.mp4";
    ASSERT_TRUE(renderNarratedFilm(recipe, path, walk.library->files()));
    auto film = Reader::open(path);
    ASSERT_TRUE(film);
    // One second into what is heard the frame changes: its event lies in what is left out.
    const double begins = saidAt(recipe, stop.id);
    const auto greyAt = [&](double s) {
        return toImage(*(*film)->picture(FrameNumber{static_cast<std::int64_t>((begins + s) * 30)}));
    };
    EXPECT_LT(apart(greyAt(0.3), greyAt(0.8)), 1);
    EXPECT_GT(apart(greyAt(0.8), greyAt(1.2)), 1);
}

TEST(NarratedFilm, CancelLeavesNothing) {
    Walk walk;
    const auto session = walk.session();
    std::stop_source stop;
    stop.request_stop();
    const auto made = renderNarratedFilm(previewRecipe(*session).film, walk.folder / "out/film.mp4",
                                         walk.library->files(), stop.get_token());
    ASSERT_FALSE(made);
    EXPECT_EQ(made.error().code, ErrorCode::Cancelled);
    EXPECT_TRUE(std::filesystem::is_empty(walk.folder / "out"));
}

TEST(NarratedFilm, WithoutAWordThereIsNoFilm) {
    Walk walk;
    FilmRecipe recipe = previewRecipe(*walk.session()).film;
    recipe.review.takes.clear();
    EXPECT_EQ(renderNarratedFilm(recipe, walk.folder / "film.mp4", walk.library->files()).error().code,
              ErrorCode::Refused);
}

TEST(NarratedFilm, AMissingTakeIsNamed) {
    Walk walk;
    const FilmRecipe recipe = previewRecipe(*walk.session()).film;
    for (const auto& [id, take] : recipe.review.takes)
        std::filesystem::remove(walk.library->takePath(take.file));
    const auto made = renderNarratedFilm(recipe, walk.folder / "narrated.mp4", walk.library->files());
    ASSERT_FALSE(made);
    EXPECT_NE(said(made.error().text).find(".wav"), std::string::npos);
    EXPECT_FALSE(std::filesystem::exists(walk.folder / "narrated.mp4"));
}

TEST(FilmPlan, AMovingStretchShowsTheFrameOfItsMoment) {
    FrameTimes times;
    for (int i = 0; i < 480; ++i) times.push_back(i / 240.0);
    FilmSegment s;
    s.fromS = 1.0;
    EXPECT_EQ(frameAt(s, times, 0), 240);
    EXPECT_EQ(frameAt(s, times, 0.5), 360);
    s.speed = kMotionSpeed;
    EXPECT_EQ(frameAt(s, times, 0.5), 270); // an eighth of a second of it
    EXPECT_EQ(frameAt(s, times, 100), 479);
    s.fromS = -1;
    EXPECT_EQ(frameAt(s, times, 0), 0);
}

TEST(FilmPlan, AStopBeginsInMotionUnlessItIsTakenOut) {
    Walk walk;
    FilmRecipe recipe = smallRecipe(walk);
    const auto kinds = [&] {
        std::string all;
        const auto plan = planFilm(recipe, timesOf(recipe));
        for (const FilmSegment& s : *plan) all += "TWMSC"[static_cast<int>(s.kind)];
        return all;
    };
    recipe.review.stops.resize(2);
    EXPECT_EQ(kinds(), "TWMSMSC");
    recipe.review.stops[0].still = true;
    EXPECT_EQ(kinds(), "TWSMSC");
    recipe.review.stops[1].kind = StopKind::Recap;
    EXPECT_EQ(kinds(), "TWSSC");
    recipe.review.stops[1].kind = StopKind::Own;
    recipe.review.stops[1].frame = 0; // nothing lies before it
    EXPECT_EQ(kinds(), "TWSSC");
}

TEST(FilmPlan, ASlowMotionCopyIsShownAsFastAsItWasThrown) {
    Walk walk;
    FilmRecipe recipe = smallRecipe(walk);
    const auto whole = [&] {
        const auto plan = planFilm(recipe, timesOf(recipe));
        for (const FilmSegment& s : *plan)
            if (s.kind == FilmSegment::Kind::Whole) return static_cast<double>(s.samples) / kSampleRate;
        return 0.0;
    };
    const double as60 = whole();
    recipe.captureFps *= 4; // as if each second of the file were a quarter of one
    // The room before and after it stays what it is in true seconds, where the film has it.
    EXPECT_LT(whole(), as60 / 2);
    EXPECT_GT(whole(), as60 / 4 - 0.01);
    recipe.captureFps = 0;
    EXPECT_EQ(wholeTitle(recipe).id, "film.whole-unknown-rate");
}

TEST(FilmPlan, ThePartShownHoldsAllThatIsMarkedOrDrawn) {
    Walk walk;
    FilmRecipe recipe = smallRecipe(walk);
    const QSizeF picture(640, 360);
    for (const QSize size : {QSize(1280, 720), QSize(720, 1280)}) {
        const FilmLayout layout = layOutFilm(size);
        const QRectF part = athletePart(recipe.marks, &recipe.review, picture, layout.picture.size());
        EXPECT_NEAR(part.width() / part.height(), layout.picture.width() / layout.picture.height(), 1e-6);
        for (const auto& [key, mark] : recipe.marks.points)
            EXPECT_TRUE(part.contains(QPointF(mark.point.at.x, mark.point.at.y)) || !mark.hidden.empty());
    }
    const QRectF before = athletePart(recipe.marks, &recipe.review, picture, QSizeF(640, 360));
    EXPECT_LT(before.height(), 360); // nearer than the whole picture
    auto& take = recipe.review.takes.begin()->second;
    take.events.push_back({10, TakeEventKind::StrokeBegin, 0, {3, 4}});
    const QRectF after = athletePart(recipe.marks, &recipe.review, picture, QSizeF(640, 360));
    EXPECT_TRUE(after.contains(QPointF(3, 4)));
    EXPECT_FALSE(before.contains(QPointF(3, 4)));
    recipe.marks.points.clear();
    recipe.marks.marks.clear();
    EXPECT_EQ(athletePart(recipe.marks, &recipe.review, picture, QSizeF(640, 360)), QRectF(0, 0, 640, 360));
}

/// Heights of the rows of letters in a part of a picture: runs of lines with something bright in them.
std::vector<int> textRows(const QImage& image, QRect part) {
    std::vector<int> rows;
    int run = 0;
    for (int y = part.top(); y <= part.bottom() + 1; ++y) {
        bool bright = false;
        for (int x = part.left(); y <= part.bottom() && x <= part.right(); ++x)
            bright |= qGray(image.pixel(x, y)) > 120;
        if (bright) {
            ++run;
        } else if (run > 0) {
            rows.push_back(run);
            run = 0;
        }
    }
    return rows;
}

TEST(NarratedFilm, ItsWordsAreLegibleOnAPhone) {
    Walk walk;
    for (const bool upright : {false, true}) {
        FilmRecipe recipe = previewRecipe(*walk.session()).film;
        recipe.width = upright ? 720 : 1280;
        recipe.height = upright ? 1280 : 720;
        recipe.review.stops.resize(1);
        const auto path = walk.folder / "phone.mp4";
        ASSERT_TRUE(renderNarratedFilm(recipe, path, walk.library->files()));
        auto reader = Reader::open(path);
        ASSERT_TRUE(reader);
        const double at = saidAt(recipe, recipe.review.stops[0].id) + 0.5;
        const auto picture = (*reader)->picture(FrameNumber{static_cast<std::int64_t>(at * 30)});
        ASSERT_TRUE(picture);
        const int width = static_cast<int>(kPhoneWidth);
        const QImage phone = toImage(*picture).scaledToWidth(width, Qt::SmoothTransformation);
        const FilmLayout layout = layOutFilm(QSize(recipe.width, recipe.height));
        const double scale = kPhoneWidth / recipe.width;
        const QRect words(0, static_cast<int>(layout.words.top() * scale) + 2, width,
                          static_cast<int>(layout.words.height() * scale) - 4);
        const auto rows = textRows(phone, words);
        ASSERT_FALSE(rows.empty());
        // Capitals are seven tenths of a font of ten pixels.
        for (const int height : rows) EXPECT_GE(height, 7) << (upright ? "upright" : "wide");
    }
}

TEST(NarratedFilm, FitsTheSizeItMayHave) {
    Walk walk;
    FilmRecipe recipe = smallRecipe(walk);
    recipe.review.stops.resize(1);
    const auto path = walk.folder / "fits.mp4";
    const auto large = renderNarratedFilm(recipe, path, walk.library->files());
    ASSERT_TRUE(large);
    EXPECT_EQ(large->tries, 1);
    EXPECT_EQ(large->bytes, static_cast<std::int64_t>(std::filesystem::file_size(path)));
    recipe.mostBytes = large->bytes * 4 / 5;
    const auto small = renderNarratedFilm(recipe, path, walk.library->files());
    ASSERT_TRUE(small) << said(small.error().text);
    EXPECT_LE(static_cast<std::int64_t>(std::filesystem::file_size(path)), recipe.mostBytes);
    EXPECT_GT(small->tries, 1);
    EXPECT_GT(small->quality, large->quality);
    recipe.mostBytes = 2000;
    const auto never = renderNarratedFilm(recipe, walk.folder / "never.mp4", walk.library->files());
    ASSERT_FALSE(never);
    EXPECT_EQ(never.error().code, ErrorCode::Refused);
    EXPECT_FALSE(std::filesystem::exists(walk.folder / "never.mp4"));
}

TEST(Captions, StandInTheFilmAndBesideItAsFfmpegReadsThem) {
    Walk walk;
    FilmRecipe recipe = smallRecipe(walk);
    recipe.review.stops.resize(2);
    recipe.review.stops[1].words = "Keep your chest back & wait <a little>. Then go.";
    const auto path = walk.folder / "captions.mp4";
    const auto made = renderNarratedFilm(recipe, path, walk.library->files());
    ASSERT_TRUE(made);
    ASSERT_GE(made->captions.size(), 2U);
    std::int64_t before = 0;
    for (const Caption& c : made->captions) {
        EXPECT_GE(c.startMs, before) << c.text;
        EXPECT_GT(c.endMs, c.startMs) << c.text;
        before = c.endMs;
    }
    const auto begins = static_cast<std::int64_t>(saidAt(recipe, recipe.review.stops[1].id) * 1000);
    const auto own = std::find_if(made->captions.begin(), made->captions.end(),
                                  [](const Caption& c) { return c.text.starts_with("Keep your chest"); });
    ASSERT_NE(own, made->captions.end());
    EXPECT_NEAR(static_cast<double>(own->startMs), static_cast<double>(begins), 2);
    const std::string read = shell("ffmpeg -v error -i '" + path.string() + "' -map 0:s:0 -f webvtt -");
    for (const Caption& c : made->captions) {
        const std::string plain = c.text.substr(0, c.text.find_first_of("&<"));
        EXPECT_NE(test::squeezed(read).find(test::squeezed(plain)), std::string::npos) << c.text << "\n"
                                                                                       << read;
    }
    const auto file = filmCaptions(recipe);
    ASSERT_TRUE(file);
    EXPECT_TRUE(file->starts_with("WEBVTT\n\n"));
    // Nothing is read twice, one right after the other.
    for (std::size_t i = 1; i < made->captions.size(); ++i) {
        const std::string before = made->captions[i - 1].text;
        EXPECT_FALSE(made->captions[i].text.starts_with(before.substr(0, before.size() - 1))) << before;
    }
    EXPECT_NE(file->find("&amp; wait &lt;a little&gt;."), std::string::npos);
    const auto vtt = walk.folder / "captions.vtt";
    FileStore files;
    ASSERT_TRUE(files.write(vtt, *file));
    const auto probe =
        nlohmann::json::parse(shell("ffprobe -v error -show_packets -of json '" + vtt.string() + "'"));
    EXPECT_EQ(probe["packets"].size(), made->captions.size());
}

TEST(Captions, LinesAreEvenAndNeverLongerThanCanBeRead) {
    const std::string text =
        "Let the front foot find the ground before the trunk begins to turn, and you will "
        "feel the hips pull the shoulders along with them.";
    const auto lines = captionLines(text, 84);
    ASSERT_EQ(lines.size(), 2U);
    std::string joinedAgain;
    for (const std::string& line : lines) {
        EXPECT_LE(line.size(), 84U);
        EXPECT_GT(line.size(), 40U);
        joinedAgain += (joinedAgain.empty() ? "" : " ") + line;
    }
    EXPECT_EQ(joinedAgain, text);
    EXPECT_EQ(captionLines("Short.", 84), std::vector<std::string>{"Short."});
    EXPECT_TRUE(captionLines("", 84).empty());
}

} // namespace
} // namespace jg
