// SPDX-License-Identifier: GPL-3.0-or-later
// What a screen reader finds, and where Tab goes.
#include "tests/ui/driver.h"

#include "ui/film/ribbon.h"
#include "ui/kit/row_list.h"

#include <QAccessible>
#include <QDialog>

#include <set>

namespace jg {
namespace {

using test::Driver;
using test::waitFor;
using test::Walk;

bool takesPart(const QAccessibleInterface* i) {
    const QAccessible::State s = i->state();
    return !s.invisible && !s.disabled;
}

bool isInteractive(QAccessibleInterface* i) {
    static const std::set<QAccessible::Role> roles = {
        QAccessible::Button,   QAccessible::CheckBox, QAccessible::RadioButton,  QAccessible::ComboBox,
        QAccessible::Slider,   QAccessible::SpinBox,  QAccessible::EditableText, QAccessible::List,
        QAccessible::ListItem, QAccessible::Graphic};
    return roles.contains(i->role());
}

/// Every interactive thing below `i` without a name, by its role and its class.
void nameless(QAccessibleInterface* i, QStringList& found, int depth = 0) {
    if (!i || depth > 40 || !takesPart(i)) return;
    // A spin box's or a combo box's own line edit is part of it.
    const bool part = i->parent() && (i->parent()->role() == QAccessible::SpinBox ||
                                      i->parent()->role() == QAccessible::ComboBox);
    if (isInteractive(i) && !part && i->text(QAccessible::Name).trimmed().isEmpty())
        found << QString("%1 %2 \"%3\"")
                     .arg(i->role())
                     .arg(i->object() ? i->object()->metaObject()->className() : "row",
                          i->object() ? i->object()->objectName() : QString());
    if (part) return;
    for (int c = 0; c < i->childCount(); ++c) nameless(i->child(c), found, depth + 1);
}

std::string namelessIn(QWidget* root) {
    QStringList found;
    nameless(QAccessible::queryAccessibleInterface(root), found);
    return found.join("; ").toStdString();
}

TEST(Reader, NothingInteractiveIsWithoutAName) {
    Walk walk;
    Driver d(walk.library->folder());
    for (const char* place : {"desk", "athletes", "playbook", "post", "hand"}) {
        d.window().showPlace(place);
        d.settle();
        EXPECT_EQ(namelessIn(&d.window()), "") << place;
    }
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    while (d.review().stageOfWalk() != Stage::Look) d.key(Qt::Key_PageUp);
    for (int i = 0; i < 7; ++i, d.key(Qt::Key_PageDown)) {
        QTest::qWait(10);
        EXPECT_EQ(namelessIn(&d.window()), "") << "stage " << i;
    }
}

TEST(Reader, DialogsNameTheirFields) {
    Walk walk(Stage::Look);
    Driver d(walk.library->folder());
    const auto check = [&](const char* name) {
        d.withDialog(name, [&](QDialog& dialog) { EXPECT_EQ(namelessIn(&dialog), "") << name; });
    };
    d.drop(QString::fromStdString((walk.folder / "film.mp4").string()));
    check("intake");
    d.window().showPlace("athletes");
    d.settle();
    d.key(Qt::Key_E);
    check("athlete-dialog");
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_F);
    check("film-dialog");
    d.key(Qt::Key_R);
    check("refilm");
}

TEST(Reader, RowsLineAndRibbonSayWhatTheyShow) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    d.key(Qt::Key_PageUp);
    auto* list = QAccessible::queryAccessibleInterface(d.review().findChild<ui::RowList*>("measures"));
    ASSERT_EQ(list->role(), QAccessible::List);
    ASSERT_EQ(list->childCount(), static_cast<int>(d.review().session().assessment().measures.size()));
    const QString row = list->child(0)->text(QAccessible::Name);
    EXPECT_TRUE(row.contains("Back knee")) << row.toStdString(); // name, number and verdict in one sentence
    EXPECT_TRUE(row.contains("\u00b0")) << row.toStdString();
    auto* ribbon = d.review().findChild<ui::Ribbon*>();
    auto* slider = QAccessible::queryAccessibleInterface(ribbon);
    ASSERT_EQ(slider->role(), QAccessible::Slider);
    ASSERT_TRUE(slider->valueInterface());
    const auto plant = *d.delivery().frameOf(Moment::Plant);
    slider->valueInterface()->setCurrentValue(static_cast<qint64>(plant)); // a reader moves it
    EXPECT_EQ(d.review().playhead().frame(), plant);
    EXPECT_TRUE(slider->text(QAccessible::Value).contains("Plant"))
        << slider->text(QAccessible::Value).toStdString();
    EXPECT_EQ(slider->valueInterface()->maximumValue().toLongLong(), d.review().session().clip().frames - 1);
}

/// Names of what Tab goes round through.
QStringList tabRound(Driver& d) {
    QStringList names;
    std::set<QWidget*> seen;
    for (int i = 0; i < 200; ++i) {
        QTest::keyClick(&d.window(), Qt::Key_Tab);
        QWidget* at = QApplication::focusWidget();
        if (!at || !seen.insert(at).second) break;
        names << at->accessibleName() + "|" + at->metaObject()->className();
    }
    return names;
}

TEST(Reader, TabReachesTheStationsAndSpacePressesThem) {
    Walk walk(Stage::Judge);
    Driver d(walk.library->folder());
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    const QStringList round = tabRound(d);
    for (const char* name : {"Look", "Positions", "Measure", "Judge", "Say", "Prescribe", "Send"})
        EXPECT_TRUE(round.filter(QString(name) + "|").size() >= 1)
            << name << " in " << round.join(", ").toStdString();
    for (QWidget* w : d.window().findChildren<QWidget*>())
        if (w->accessibleName() == "Positions" && w->isVisible()) w->setFocus();
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
    EXPECT_TRUE(waitFor([&] { return d.review().stageOfWalk() == Stage::Positions; }));
}

} // namespace
} // namespace jg
