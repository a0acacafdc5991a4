// SPDX-License-Identifier: GPL-3.0-or-later
// The window where the system asks for text half as large again: nothing is cut at 1280 x 800.
#include "tests/ui/tour.h"

#include "ui/film/ribbon.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/theme.h"

#include <QScrollArea>
#include <QScrollBar>

namespace jg {
namespace {

using test::cutIn;
using test::Driver;
using test::Walk;

/// Large text while it lives.
struct LargeText {
    LargeText() { dressAs(1.5); }
    ~LargeText() { dressAs(1); }
    static void dressAs(double scale) {
        ui::setTextScale(scale);
        ui::dress(*qApp);
    }
};

class InLargeText : public testing::Test {
protected:
    Walk walk{Stage::Send, Hand::Right};
    LargeText before; ///< any widget is made
    Driver d{walk.library->folder()};

    /// What needs to be pushed sideways to be read.
    static std::string sidewaysIn(QWidget* root) {
        std::string found;
        for (auto* area : root->findChildren<QScrollArea*>())
            if (area->isVisible() && area->horizontalScrollBar()->maximum() > 0)
                found += area->objectName().toStdString() + " by " +
                         std::to_string(area->horizontalScrollBar()->maximum()) + " px\n";
        return found;
    }
    test::Look look = [](QWidget& shown, const std::string& where) {
        EXPECT_EQ(cutIn(&shown), "") << where;
        EXPECT_EQ(sidewaysIn(&shown), "") << where;
    };
};

TEST(TextScale, FollowsTheSystemsFontBetweenOneAndAHalf) {
    QFont usual("Open Sans"), large("Open Sans"), pixels("Open Sans");
    usual.setPointSizeF(11);
    large.setPointSizeF(16);
    pixels.setPixelSize(22);
    EXPECT_EQ(ui::scaleOfSystemFont(usual, 96), 1);
    EXPECT_NEAR(ui::scaleOfSystemFont(usual, 120), 1.25, 0.01) << "a desktop that scales dots, not points";
    EXPECT_NEAR(ui::scaleOfSystemFont(large, 96), 1.4545, 0.001);
    EXPECT_EQ(ui::scaleOfSystemFont(large, 144), 1.5) << "no more than fits";
    EXPECT_NEAR(ui::scaleOfSystemFont(pixels, 96), 1.5, 0.001);
}

TEST_F(InLargeText, NothingOfAPlaceIsCut) {
    test::tourPlaces(d, look);
    EXPECT_EQ(d.window().size(), QSize(1280, 800)) << "it still fits the screen";
    EXPECT_GE(QFontInfo(QApplication::font()).pixelSize(), 19);
}

TEST_F(InLargeText, NothingOfAStageIsCut) {
    test::tourStages(d, walk, look);
    EXPECT_EQ(d.window().size(), QSize(1280, 800));
    EXPECT_GT(d.review().stage().width(), 560) << "the film keeps its room";
}

TEST_F(InLargeText, NothingOfADialogIsCut) {
    test::tourDialogs(d, walk, [&](QWidget& dialog, const std::string& name) {
        look(dialog, name);
        EXPECT_LE(dialog.width(), 1280) << name;
        EXPECT_LE(dialog.height(), 800) << name;
    });
}

TEST_F(InLargeText, WhatIsPaintedIsHitWhereItIsSeen) {
    d.window().resize(1280, 800);
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    while (d.review().stageOfWalk() != Stage::Positions) d.key(Qt::Key_PageUp);
    auto* ribbon = d.window().findChild<ui::Ribbon*>();
    ASSERT_TRUE(ribbon);
    // The right end of the ribbon is the last picture, whatever the text's size.
    d.click(ribbon, {ribbon->width() - 4, ribbon->height() / 2});
    EXPECT_EQ(d.review().playhead().frame(), d.review().session().clip().frames - 1);
    d.click(ribbon, {4, ribbon->height() / 2});
    EXPECT_EQ(d.review().playhead().frame(), 0);
}

} // namespace
} // namespace jg
