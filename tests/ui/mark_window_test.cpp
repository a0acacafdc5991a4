// SPDX-License-Identifier: GPL-3.0-or-later
// The house's own mark is chosen where the house is written down, and taken away there.
#include "demo/library/demo_mark.h"
#include "desk/keeping/house_settings.h"
#include "tests/ui/driver.h"
#include "ui/places/post/mark_field.h"

#include <QDialog>
#include <QLabel>
#include <QPushButton>

#include <fstream>

namespace jg {
namespace {

using test::Driver;
using test::opened;
using test::Walk;

struct HouseForm {
    HouseForm()
        : d(walk.library->folder()) {
        d.key(Qt::Key_P, Qt::AltModifier);
        d.settle();
    }
    Walk walk;
    Driver d;

    QDialog* open() {
        d.click(d.button(&d.window(), ui::say("post-place.mail-server")));
        return opened(d, "mail-server");
    }
    std::string kept() { return houseMark(d.window().library()); }
};

TEST(MarkWindow, IsChosenKeptAndTakenAway) {
    HouseForm w;
    const auto file = w.walk.folder / "mark.png";
    std::ofstream(file, std::ios::binary) << demoMark();
    std::ofstream(w.walk.folder / "words.png") << "words";
    QDialog* form = w.open();
    ASSERT_TRUE(form);
    auto* field = form->findChild<ui::MarkField*>("house-mark");
    ASSERT_TRUE(field);
    EXPECT_FALSE(form->findChild<QPushButton*>("mark-away")->isVisible());
    QImage white(80, 80, QImage::Format_RGB32);
    white.fill(Qt::white);
    ASSERT_TRUE(white.save(QString::fromStdString((w.walk.folder / "white.png").string())));
    field->take(w.walk.folder / "white.png"); // taken, with a word
    auto* problem = form->findChild<QLabel*>("mark-problem");
    EXPECT_TRUE(problem->isVisible() && problem->text().contains("white paper"));
    field->take(file);
    EXPECT_FALSE(problem->isVisible());
    field->take(w.walk.folder / "words.png"); // told of, and the mark stays
    EXPECT_TRUE(problem->text().contains("words.png"));
    EXPECT_TRUE(w.kept().empty());
    QTest::keyClick(form, Qt::Key_Return);
    w.d.settle();
    EXPECT_FALSE(w.kept().empty());
    form = w.open();
    ASSERT_TRUE(form);
    w.d.click(form->findChild<QPushButton*>("mark-away"));
    QTest::keyClick(form, Qt::Key_Escape);
    EXPECT_FALSE(w.kept().empty()); // nothing is kept that was not kept by hand
    form = w.open();
    ASSERT_TRUE(form);
    w.d.click(form->findChild<QPushButton*>("mark-away"));
    QTest::keyClick(form, Qt::Key_Return);
    w.d.settle();
    EXPECT_TRUE(w.kept().empty());
}

} // namespace
} // namespace jg
