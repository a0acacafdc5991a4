// A class looks at the screen: no name is in sight anywhere, and nothing that is shown is kept or sent.
#include "tests/ui/tour.h"

#include "review/review_json.h"
#include "ui/row_list.h"
#include "ui/words.h"

namespace jg {
namespace {

using test::Driver;
using test::textsOf;
using test::Walk;

/// Names are shown again, whatever a test does.
struct NamesAgain {
    ~NamesAgain() { ui::hideNames(nullptr); }
};

/// Names in all that `root` shows.
std::string namesIn(QWidget* root, const Athlete& athlete) {
    QStringList words;
    for (const std::string& name :
         {athlete.firstName, athlete.lastName, athlete.guardianName, athlete.email, athlete.guardianEmail})
        for (const QString& word : QString::fromStdString(name).split(' ', Qt::SkipEmptyParts))
            if (word.size() > 3) words << word;
    QStringList found;
    QList<QWidget*> all = root->findChildren<QWidget*>();
    all << root;
    for (QWidget* w : all) {
        if (!w->isVisibleTo(root)) continue;
        for (const QString& text : textsOf(w))
            for (const QString& word : words)
                if (text.contains(word, Qt::CaseInsensitive))
                    found << QString("%1 %2: %3").arg(w->metaObject()->className(), w->objectName(), text);
    }
    found.removeDuplicates();
    return found.join("\n").toStdString();
}

TEST(ClassWindow, NoNameIsInSightAndNothingIsKept) {
    const NamesAgain again;
    Walk walk(Stage::Send);
    Driver d(walk.library->folder());
    const Review before = *walk.library->review(walk.review.id);
    EXPECT_NE(namesIn(&d.window(), walk.athlete), ""); // what is looked for is there else
    d.key(Qt::Key_N, Qt::AltModifier);
    EXPECT_TRUE(ui::namesAreHidden());
    d.window().showPlace("athletes");
    d.settle();
    const QStringList shown = textsOf(d.window().findChild<ui::RowList*>("athletes"));
    EXPECT_TRUE(shown.join(' ').contains("Athlete A")) << shown.join(' ').toStdString();
    EXPECT_FALSE(shown.join(' ').contains("somebody")) << shown.join(' ').toStdString();
    const test::Look look = [&](QWidget& shown, const std::string& where) {
        EXPECT_EQ(namesIn(&shown, walk.athlete), "") << where;
    };
    test::tourPlaces(d, look);
    test::tourStages(d, walk, look);
    // The letter is laid out without them, too.
    while (d.review().stageOfWalk() != Stage::Send) d.key(Qt::Key_PageDown);
    d.settle();
    look(d.window(), "letter");
    // What is tried is refused, and says why.
    const auto refused = [&](int key) {
        d.key(key);
        return d.review().findChild<ui::Foot*>()->sentence().contains("Alt+N");
    };
    while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    EXPECT_TRUE(refused(Qt::Key_R));
    EXPECT_TRUE(refused(Qt::Key_F));
    while (d.review().stageOfWalk() != Stage::Positions) d.key(Qt::Key_PageUp);
    EXPECT_TRUE(refused(Qt::Key_Delete)) << d.review().findChild<ui::Foot*>()->sentence().toStdString();
    d.key(Qt::Key_Backspace);
    d.settle();
    const auto unchanged = [&] { return toJson(*walk.library->review(walk.review.id)) == toJson(before); };
    EXPECT_TRUE(unchanged());
    // And back: names, and work is kept again.
    d.key(Qt::Key_N, Qt::AltModifier);
    EXPECT_FALSE(ui::namesAreHidden());
    EXPECT_NE(namesIn(&d.window(), walk.athlete), "");
    d.window().openReview(walk.submission.id);
    while (d.review().stageOfWalk() != Stage::Say) d.key(Qt::Key_PageUp);
    d.key(Qt::Key_F);
    d.key(Qt::Key_Backspace);
    d.settle();
    EXPECT_FALSE(unchanged());
}

} // namespace
} // namespace jg
