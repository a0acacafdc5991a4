// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/shortcut_sheet.h"

#include "letter/palette.h"
#include "ui/kit/actions.h"
#include "ui/kit/theme.h"

#include <QDialog>
#include <QGridLayout>
#include <QScrollArea>

namespace jg::ui {

namespace {

struct Section {
    const char* id;
    unsigned where;
};

constexpr Section kSections[] = {{"keys.everywhere", Everywhere},  {"keys.places", AtHome},
                                 {"keys.every-stage", InReview},   {"stage.look", AtLook},
                                 {"stage.positions", AtPositions}, {"stage.measure", AtMeasure},
                                 {"stage.judge", AtJudge},         {"stage.say", AtSay},
                                 {"stage.prescribe", AtPrescribe}, {"stage.send", AtSend},
                                 {"keys.juxta", AtJuxta},          {"keys.pair", AtPair},
                                 {"keys.curves", AtCurves}};

/// The section a row belongs to: the one that says exactly where it works, else each single place it names.
bool belongs(const ActionRow& row, const Section& s) {
    if (row.where == s.where) return true;
    for (const Section& other : kSections)
        if (row.where == other.where) return false;
    const bool single = (s.where & (s.where - 1)) == 0;
    return single && (row.where & s.where);
}

/// In rows, with its heading; 0 for one without any.
int heightOf(const Section& s) {
    int rows = 0;
    for (const ActionRow& row : actionTable()) rows += belongs(row, s);
    return rows == 0 ? 0 : rows + 2;
}

} // namespace

void showShortcutSheet(QWidget* parent, unsigned where) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName("shortcuts");
    dialog->setWindowTitle(say("shortcut-sheet.keys"));
    // As much of the window's height as there is: the sheet is read, not scrolled, where it fits.
    resizeForText(*dialog, 1180, parent ? parent->window()->height() : 780);
    auto* outer = new QVBoxLayout(dialog);
    outer->setContentsMargins(26, 20, 26, 16);
    outer->addWidget(heading(say("shortcut-sheet.all-keys"), 24));
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    auto* columns = new QHBoxLayout(inner);
    columns->setSpacing(34);
    QVBoxLayout* sides[3];
    for (auto*& side : sides) {
        side = new QVBoxLayout;
        side->setSpacing(2);
        columns->addLayout(side, 1);
    }
    int all = 0, filled = 0;
    for (const Section& s : kSections) all += heightOf(s);
    int column = 0;
    for (const Section& s : kSections) {
        const int height = heightOf(s);
        if (height == 0) continue;
        // In the order of the walk, column by column.
        if (column < 2 && filled + height / 2 > all * (column + 1) / 3) ++column;
        filled += height;
        QVBoxLayout* side = sides[column];
        auto* title = heading(say(s.id), 16);
        if (s.where == where) {
            title->setObjectName("keys-here");
            title->setStyleSheet(QString("color:%1;").arg(palette::clay.name()));
        }
        side->addWidget(title);
        auto* grid = new QGridLayout;
        grid->setVerticalSpacing(0);
        grid->setColumnStretch(1, 1);
        int at = 0;
        for (const ActionRow& row : actionTable()) {
            if (!belongs(row, s)) continue;
            auto* key = plain(row.keys.first().toString(QKeySequence::NativeText), 12, true);
            key->setMinimumWidth(em(92));
            grid->addWidget(key, at, 0, Qt::AlignTop);
            grid->addWidget(quiet(row.text(), 12), at++, 1);
        }
        side->addLayout(grid);
        side->addSpacing(6);
    }
    for (auto* side : sides) side->addStretch(1);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    outer->addWidget(scroll, 1);
    outer->addWidget(quiet(say("shortcut-sheet.mouse"), 12.5));
    dialog->open();
    if (auto* here = dialog->findChild<QLabel*>("keys-here")) scroll->ensureWidgetVisible(here, 0, em(200));
}

} // namespace jg::ui
