// The sheet of an athlete's reviews under each other, by key and by button.
#include "tests/ui/driver.h"

#include <QDialog>
#include <QLabel>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

TEST(JuxtaWindow, TwoReviewsStandUnderEachOtherByOneKey) {
    Walk walk(Stage::Judge);
    Review later = walk.review;
    later.id = {"rev-later"};
    later.revision = 0;
    later.date = addDays(later.date, 7);
    ASSERT_TRUE(walk.library->save(later));
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    EXPECT_TRUE(d.window().findChild<QPushButton*>("juxta-open"));
    d.key(Qt::Key_J);
    QDialog* dialog = test::opened(d, "juxta");
    ASSERT_TRUE(dialog);
    auto* sheet = dialog->findChild<QLabel*>("juxta-sheet");
    ASSERT_TRUE(waitFor([&] { return !sheet->pixmap().isNull(); }, 60000));
    EXPECT_GT(sheet->width(), 600);
    EXPECT_TRUE(dialog->findChild<QPushButton*>("juxta-save")->isEnabled());
    EXPECT_EQ(test::cutIn(dialog), "");
    dialog->close();
}

TEST(JuxtaWindow, OneReviewAloneIsSaidSo) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().showPlace("athletes");
    d.settle();
    EXPECT_FALSE(d.window().findChild<QPushButton*>("juxta-open"));
    d.key(Qt::Key_J);
    EXPECT_FALSE(d.window().findChild<QDialog*>("juxta"));
}

} // namespace
} // namespace jg
