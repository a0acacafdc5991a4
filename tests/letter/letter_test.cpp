// SPDX-License-Identifier: GPL-3.0-or-later
// What leaves the house: the PDF read by poppler's tools, the film by ffprobe, the numbers as CSV.
#include "letter/csv.h"

#include "desk/sending/dispatch.h"
#include "letter/fonts.h"
#include "letter/letter_pages.h"
#include "letter/mark_painter.h"
#include "letter/still.h"
#include "review/assess/number_words.h"
#include "tests/support/walk.h"

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
    const std::string cells =
        shell("pdftotext -enc UTF-8 -raw '" + pdf.string() + "' -"); // one after the other
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
        EXPECT_NE(test::squeezed(cells).find(test::squeezed(said(wordsOf(d.dose)))), std::string::npos)
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
    for (int i = 0; i < 3; ++i) {
        LetterCorrection c;
        c.finding = "leg-spread";
        c.title = asIs("Correction " + std::to_string(i));
        c.number = asIs(m.opening.substr(0, 900));
        c.why = asIs("why");
        c.feel = asIs("feel");
        c.caption = asIs("caption");
        m.corrections.push_back(std::move(c));
    }
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
