// SPDX-License-Identifier: GPL-3.0-or-later
// The bottom line where it is too narrow for all its keys.
#include "tests/ui/driver.h"

#include "ui/kit/key_cap.h"

#include <QLabel>
#include <QPushButton>
#include <QSignalSpy>

namespace jg {
namespace {

const ui::KeyHints kHints = {{"Enter", "open the next one", "open"},
                             {"click", "place"},
                             {"W", "by time or by body", "measure-order"},
                             {"Z", "take it back", "undo"},
                             {"PgUp", "back to what was before", "stage-previous"}};

/// The words in sight, from left to right; every key in sight must have its own.
QStringList wordsIn(const ui::Foot& foot) {
    QStringList words;
    const auto labels = foot.findChildren<QLabel*>();
    for (std::size_t i = 0; i + 1 < static_cast<std::size_t>(labels.size()); ++i) {
        const QLabel* key = labels.at(static_cast<int>(i));
        if (!key->isVisible() || key->parentWidget() == &foot || !key->styleSheet().contains("border"))
            continue;
        const QLabel* what = labels.at(static_cast<int>(i) + 1);
        EXPECT_TRUE(what->isVisible()) << key->text().toStdString();
        EXPECT_LE(key->parentWidget()->mapTo(&foot, key->parentWidget()->rect().topRight()).x(),
                  foot.width());
        words << what->text();
    }
    return words;
}

TEST(Foot, KeepsAKeyTogetherWithItsWordsAndLeadsToTheRest) {
    ui::Foot foot;
    foot.setHints(kHints);
    foot.resize(1000, foot.height());
    foot.show();
    QCoreApplication::processEvents();
    EXPECT_EQ(wordsIn(foot).size(), kHints.size());
    EXPECT_FALSE(wordsIn(foot).contains("more keys"));
    foot.resize(480, foot.height());
    QCoreApplication::processEvents();
    const QStringList few = wordsIn(foot);
    EXPECT_LT(few.size(), kHints.size());
    EXPECT_GE(few.size(), 2);
    EXPECT_EQ(few.front(), "open the next one");
    ASSERT_EQ(few.back(), "more keys") << few.join("|").toStdString();
    QSignalSpy asked(&foot, &ui::Foot::asked);
    for (auto* button : foot.findChildren<QPushButton*>())
        if (button->isVisible() && button->accessibleName().contains("more keys")) button->click();
    ASSERT_EQ(asked.size(), 1);
    EXPECT_EQ(asked.front().front().toString(), "shortcuts");
    foot.resize(1000, foot.height());
    QCoreApplication::processEvents();
    EXPECT_EQ(wordsIn(foot).size(), kHints.size());
}

} // namespace
} // namespace jg
