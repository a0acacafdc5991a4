// SPDX-License-Identifier: GPL-3.0-or-later
// The house's own mark: taken from strangers' files, kept, and at the head of letter and film.
#include "letter/house_mark.h"

#include "demo/library/demo_mark.h"
#include "desk/keeping/house_settings.h"
#include "desk/sending/dispatch.h"
#include "desk/sending/letter_files.h"
#include "letter/film_painter.h"
#include "letter/letter_pages.h"
#include "tests/support/walk.h"

#include <fstream>
#include <sstream>

namespace jg {
namespace {

using test::shell;
using test::TempFolder;
using test::Walk;

QImage drawn(int width, int height) {
    QImage picture(width, height, QImage::Format_RGB32);
    picture.fill(QColor(120, 40, 30));
    picture.setText("Author", "a-name-that-must-not-travel");
    return picture;
}

TEST(HouseMark, IsMadeSmallAndToldOfNothingButItself) {
    const TempFolder folder;
    for (const char* name : {"mark.png", "mark.jpg", "no-ending"}) {
        const auto file = folder / name;
        ASSERT_TRUE(drawn(1600, 500).save(QString::fromStdString(file.string()),
                                          name == std::string("mark.jpg") ? "JPEG" : "PNG"));
        const auto png = readHouseMark(file);
        ASSERT_TRUE(png) << name << said(png.error().text);
        EXPECT_EQ(markImage(*png).size(), QSize(640, 200)) << name;
        EXPECT_EQ(png->find("must-not-travel"), std::string::npos) << name;
        EXPECT_TRUE(markImage(*png).textKeys().isEmpty()) << name;
    }
}

TEST(HouseMark, AWhiteOneIsNotSeenOnPaper) {
    QImage mark(200, 100, QImage::Format_ARGB32);
    mark.fill(Qt::transparent);
    EXPECT_FALSE(isSeenOnPaper(mark));
    QPainter p(&mark);
    p.fillRect(20, 20, 160, 60, Qt::white);
    EXPECT_FALSE(isSeenOnPaper(mark));
    p.fillRect(20, 20, 160, 60, QColor(0, 0, 0, 20)); // a shadow of a shape
    EXPECT_FALSE(isSeenOnPaper(mark));
    p.fillRect(20, 20, 30, 20, QColor(40, 60, 50));
    EXPECT_TRUE(isSeenOnPaper(mark));
    EXPECT_TRUE(isSeenOnPaper(drawn(64, 64)));
    EXPECT_TRUE(isSeenOnPaper(markImage(demoMark())));
}

TEST(HouseMark, WhatIsNoPictureIsRefusedInWords) {
    const TempFolder folder;
    const auto refused = [](const std::filesystem::path& file) {
        const auto png = readHouseMark(file);
        return png ? std::string("taken") : said(png.error().text);
    };
    std::ofstream(folder / "words.png") << "not a picture";
    std::ofstream(folder / "drawn.svg") << "<svg xmlns='http://www.w3.org/2000/svg' width='90' height='90'/>";
    ASSERT_TRUE(drawn(20, 300).save(QString::fromStdString((folder / "thin.png").string())));
    ASSERT_TRUE(drawn(300, 300).save(QString::fromStdString((folder / "cut.png").string())));
    std::filesystem::resize_file(folder / "cut.png", 60);
    for (const char* name : {"words.png", "drawn.svg", "nowhere.png", "."})
        EXPECT_NE(refused(folder / name).find("no PNG or JPEG"), std::string::npos) << refused(folder / name);
    EXPECT_NE(refused(folder / "thin.png").find("smaller than 24"), std::string::npos);
    EXPECT_NE(refused(folder / "cut.png").find("can't be read"), std::string::npos)
        << refused(folder / "cut.png");
    shell("mkfifo '" + (folder / "pipe.png").string() + "'");
    EXPECT_NE(refused(folder / "pipe.png").find("no PNG or JPEG"), std::string::npos); // and waits for nobody
}

TEST(HouseMark, KeepsItsShapeAndIsNeverTooWide) {
    EXPECT_EQ(markSize(QImage(), 30), QSizeF());
    EXPECT_EQ(markSize(drawn(200, 200), 30), QSizeF(30, 30));
    EXPECT_EQ(markSize(drawn(800, 100), 30), QSizeF(120, 15));
}

TEST(HouseMark, StandsAtTheHeadOfTheLetterOnPaperOnThePhoneAndOfTheFilm) {
    Walk walk;
    const auto pictures = [&](const DispatchRecipe& recipe) {
        const LetterPages pages(recipe.film.letter, {}, recipe.film.words);
        std::vector<QRectF> found;
        for (const auto& b : pages.blocks(0))
            if (b.kind == LetterPages::Block::Kind::Image) found.push_back(b.rect);
        return found;
    };
    EXPECT_TRUE(pictures(previewRecipe(*walk.session())).empty());
    ASSERT_TRUE(keepHouseMark(*walk.library, demoMark()));
    EXPECT_EQ(houseMark(*walk.library), demoMark());
    const DispatchRecipe recipe = previewRecipe(*walk.session());
    ASSERT_EQ(pictures(recipe).size(), 1U);
    EXPECT_LT(pictures(recipe)[0].bottom(), 110);
    FileStore files;
    ASSERT_TRUE(exportLetterHtml(recipe, walk.folder / "letter.html", files));
    std::ifstream in(walk.folder / "letter.html");
    std::stringstream html;
    html << in.rdbuf();
    EXPECT_NE(html.str().find("<header><b><img class=\"mark\" alt=\""), std::string::npos);
    const auto titleOf = [](const FilmRecipe& film) {
        FilmPainter painter(film);
        painter.title();
        return painter.canvas().copy();
    };
    FilmRecipe bare = recipe.film;
    bare.letter.mark.clear();
    EXPECT_NE(titleOf(recipe.film), titleOf(bare));
    ASSERT_TRUE(keepHouseMark(*walk.library, ""));
    EXPECT_TRUE(houseMark(*walk.library).empty());
}

} // namespace
} // namespace jg
