// What leaves the house: the PDF read by poppler's tools, the film by ffprobe, the numbers as CSV.
#include "letter/csv.h"

#include "base/number.h"
#include "letter/fonts.h"
#include "letter/letter_pages.h"
#include "letter/mark_painter.h"
#include "letter/still.h"
#include "tests/support/walk.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"
#include "voice/voice_chain.h"

#include <QFontDatabase>
#include <QFontInfo>
#include <QFontMetricsF>

#include <nlohmann/json.hpp>

#include <cmath>
#include <fstream>
#include <sstream>

namespace jg {
namespace {

using test::shell;
using test::Walk;

TEST(Fonts, AreTheShippedOnesWithEqualDigits) {
    Walk walk(Stage::Look);
    EXPECT_EQ(QFontInfo(textFont(13)).family(), "Open Sans");
    EXPECT_EQ(QFontInfo(headFont(20)).family(), "Vollkorn");
    const QFontMetricsF m(textFont(13));
    EXPECT_DOUBLE_EQ(m.horizontalAdvance("1111"), m.horizontalAdvance("8888"));
}

TEST(Letter, ThePdfHoldsSelectableTextAndEmbeddedFonts) {
    Walk walk;
    const auto session = walk.session();
    const auto pdf = walk.folder / "letter.pdf";
    ASSERT_TRUE(exportLetter(previewRecipe(*session), pdf, walk.library->files()));
    const std::string text = shell("pdftotext -enc UTF-8 -layout '" + pdf.string() + "' -");
    for (const std::string& words :
         {std::string("Odalys,"), std::string("The Tram Shed, Larkmoor"), std::string("Your week"),
          std::string("Ilse Varnholt"), std::string("Next look")})
        EXPECT_NE(text.find(words), std::string::npos) << words;
    for (const std::string& id : session->review().plan.corrections)
        EXPECT_NE(test::squeezed(text).find(test::squeezed(goalOf(test::playbook(), session->told(), id))),
                  std::string::npos)
            << id;
    for (const PlannedDrill& d : session->review().plan.drills) {
        EXPECT_NE(text.find(test::playbook().drill(d.drill)->name), std::string::npos) << d.drill;
        EXPECT_NE(test::squeezed(text).find(test::squeezed(said(wordsOf(d.dose)))), std::string::npos)
            << d.drill;
    }
    const std::string fonts = shell("pdffonts '" + pdf.string() + "'");
    EXPECT_NE(fonts.find("OpenSans"), std::string::npos);
    EXPECT_NE(fonts.find("Vollkorn"), std::string::npos);
    // Columns "emb sub uni" end each row of pdffonts: every font is embedded.
    std::istringstream rows(fonts);
    std::string row;
    std::getline(rows, row);
    const auto emb = row.find("emb");
    std::getline(rows, row);
    while (std::getline(rows, row)) EXPECT_EQ(row.substr(emb, 3), "yes") << row;
    EXPECT_NE(shell("pdfinfo '" + pdf.string() + "'").find("A4"), std::string::npos);
}

TEST(Letter, PainOpensItWithTheCaution) {
    Walk walk(Stage::Send, Hand::Right, 15, "Elbow sore");
    const auto session = walk.session();
    const auto pdf = walk.folder / "letter.pdf";
    ASSERT_TRUE(exportLetter(previewRecipe(*session), pdf, walk.library->files()));
    const std::string text = shell("pdftotext -enc UTF-8 '" + pdf.string() + "' -");
    const auto caution = text.find("stop throwing"), greeting = text.find("Odalys,");
    ASSERT_NE(caution, std::string::npos);
    EXPECT_LT(caution, greeting);
    EXPECT_EQ(text.find("Rock back and throw"), std::string::npos);
}

TEST(Letter, ManyWordsGoOnToAnotherPage) {
    Walk walk(Stage::Look);
    LetterModel m;
    m.greeting = asIs("Odalys");
    for (int i = 0; i < 40; ++i)
        m.opening += "A long sentence that goes on and on about the delivery and its many moments. ";
    for (int i = 0; i < 3; ++i)
        m.corrections.push_back({"leg-spread",
                                 asIs("Correction " + std::to_string(i)),
                                 asIs(m.opening.substr(0, 900)),
                                 asIs("why"),
                                 asIs("feel"),
                                 {},
                                 asIs("caption"),
                                 0});
    const LetterPages pages(m, {}, english());
    EXPECT_GT(pages.count(), 1);
}

TEST(Letter, IsWrittenInTheReadersLanguage) {
    Walk walk;
    DispatchRecipe recipe = previewRecipe(*walk.session());
    recipe.film.words = accented();
    recipe.toAddress = "odalys.home@example.org";
    const auto pdf = walk.folder / "letter.pdf";
    ASSERT_TRUE(exportLetter(recipe, pdf, walk.library->files()));
    const std::string text = test::squeezed(shell("pdftotext -layout '" + pdf.string() + "' -"));
    for (const char* id : {"letter.week", "letter.why", "letter.next-look-heading", "letter.closing"}) {
        EXPECT_NE(text.find(test::squeezed(accented()(msg(id)))), std::string::npos) << id;
        EXPECT_EQ(text.find(test::squeezed(english()(msg(id)))), std::string::npos) << id;
    }
    recipe.film.review.takes.clear(); // the letter alone is enough here, and quick
    FileStore files;
    const auto parcel = packParcel(recipe, walk.folder / "work", files);
    ASSERT_TRUE(parcel) << said(parcel.error().text);
    EXPECT_EQ(parcel->subject, accented()(recipe.film.letter.greeting));
}

TEST(Letter, AFullDiskLeavesNoHalfPdf) {
    Walk walk;
    const auto session = walk.session();
    test::FullDisk full;
    const Status made = exportLetter(previewRecipe(*session), walk.folder / "letter.pdf", full);
    ASSERT_FALSE(made);
    EXPECT_EQ(made.error().code, ErrorCode::DiskFull);
    EXPECT_FALSE(std::filesystem::exists(walk.folder / "letter.pdf"));
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
    double said = 0;
    for (const auto& [id, take] : session->review().takes) said += take.seconds();
    const double expected = said + kTitleSeconds + kClosingSeconds;
    EXPECT_NEAR(*parseNumber(probe["format"]["duration"].get<std::string>()), expected, 0.1);
    ASSERT_EQ(probe["chapters"].size(), session->review().stops.size() + 2);
    EXPECT_EQ(probe["chapters"][1]["tags"]["title"], session->review().stops[0].title);
    bool video = false, audio = false;
    for (const auto& s : probe["streams"]) {
        if (s["codec_name"] == "h264") video = true;
        if (s["codec_name"] == "aac") audio = true;
    }
    EXPECT_TRUE(video && audio);
    // Fast start: the index comes before the media.
    const auto bytes = readFile(film);
    EXPECT_LT(bytes->find("moov"), bytes->find("mdat"));
    // The voice is there, even and in time: silence under the title, speech after it.
    const auto sound = readSound(film);
    ASSERT_TRUE(sound);
    const auto title = std::span(*sound).subspan(0, static_cast<std::size_t>(2.8 * kSampleRate));
    EXPECT_LT(loudnessOf(title), -60);
    const auto speech = std::span(*sound).subspan(static_cast<std::size_t>(kTitleSeconds * kSampleRate),
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
    FilmRecipe recipe = previewRecipe(*walk.session()).film;
    recipe.width = 320;
    recipe.height = 180;
    recipe.review.stops.resize(2);
    recipe.others.push_back(recipe); // the same delivery, as a second film shows it
    recipe.others.front().marks.number = 2;
    recipe.others.front().clip = walk.folder / "dark.mp4";
    recipe.review.stops.back().delivery = 2;
    const auto film = walk.folder / "two.mp4";
    ASSERT_TRUE(renderNarratedFilm(recipe, film, walk.library->files()));
    const auto& stops = recipe.review.stops;
    const double first = recipe.review.takes.at(stops[0].id).seconds();
    const auto at = [&](double seconds) { return static_cast<std::int64_t>((kTitleSeconds + seconds) * 30); };
    EXPECT_GT(lightOf(film, at(first - 1)), 2 * lightOf(film, at(first + 1)));
}

TEST(NarratedFilm, CancelLeavesNothing) {
    Walk walk;
    const auto session = walk.session();
    std::stop_source stop;
    stop.request_stop();
    const Status made = renderNarratedFilm(previewRecipe(*session).film, walk.folder / "out/film.mp4",
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
    const Status made = renderNarratedFilm(recipe, walk.folder / "narrated.mp4", walk.library->files());
    ASSERT_FALSE(made);
    EXPECT_NE(said(made.error().text).find(".wav"), std::string::npos);
    EXPECT_FALSE(std::filesystem::exists(walk.folder / "narrated.mp4"));
}

TEST(Scene, ALabelHasItsNumberToItsUnitsDigit) {
    MeasureValue v;
    v.value = -0.34, v.low95 = -0.54, v.high95 = -0.14;
    v.unit = "x";
    EXPECT_EQ(labelOf(v), "\u22120.3 \u00b10.2");
    v.value = 87.6, v.low95 = 84, v.high95 = 91.2;
    v.unit = "deg";
    EXPECT_EQ(labelOf(v), "88\u00b0 \u00b14");
    EXPECT_EQ(labelOf(MeasureValue{}), "");
}

TEST(Scene, LabelsKeepClearOfJointsAndOfEachOther) {
    Walk walk;
    const auto session = walk.session();
    const auto plant = session->delivery().frameOf(Moment::Plant);
    const MarkScene scene = sceneFor(session->delivery(), test::playbook(), session->assessment(), *plant);
    ASSERT_GE(scene.labels.size(), 3U);
    QImage with(1280, 720, QImage::Format_RGB32), without(1280, 720, QImage::Format_RGB32);
    with.fill(Qt::darkGray);
    without.fill(Qt::darkGray);
    const ViewTransform view{4, {0, 0}};
    MarkScene bare = scene;
    bare.labels.clear();
    {
        QPainter p(&with);
        paintScene(p, scene, view, QRectF(0, 0, 1280, 720), english());
        QPainter q(&without);
        paintScene(q, bare, view, QRectF(0, 0, 1280, 720), english());
    }
    // A joint's own pixel looks the same with and without labels.
    for (const ScenePoint& s : scene.points) {
        const QPoint at = view.toView(s.at).toPoint();
        EXPECT_EQ(with.pixel(at), without.pixel(at));
    }
}

TEST(ViewTransform, GoesThereAndBack) {
    const ViewTransform t = ViewTransform::fit({1280, 720}, {0, 40, 900, 550});
    const ImagePoint p{333.25, 512.5};
    const ImagePoint back = t.toImage(t.toView(p));
    EXPECT_NEAR(back.x, p.x, 1e-9);
    EXPECT_NEAR(back.y, p.y, 1e-9);
}

TEST(Csv, OneRowAMeasureWithUnitAndError) {
    Walk walk;
    const auto session = walk.session();
    const std::string csv = measuresAsCsv(test::playbook(), session->assessment());
    EXPECT_EQ(csv.substr(0, csv.find("\r\n")),
              "id,name,value,unit,sd,low95,high95,state,target,verdict,pitches,mean,spread");
    EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'),
              1 + static_cast<long>(session->assessment().measures.size()));
    EXPECT_NE(csv.find("leg-spread,Leg spread at plant,"), std::string::npos);
}

} // namespace
} // namespace jg
