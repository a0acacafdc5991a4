// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/shots/extra.h"

#include "base/file_store.h"
#include "ui/places/athletes/athletes_place.h"

#include <QDialog>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTest>

#include <iostream>

namespace jg::test {

using namespace jg::ui;

namespace {

/// A roster from a table, and an athlete's outings.
void shootMany(Photographer& p) {
    MainWindow& window = p.window();
    const auto table = std::filesystem::path(p.out().toStdString()) / "team.csv";
    FileStore files;
    if (!files.write(table, "First name,Last name,Born,Throws,Height,Guardian,Guardian mail\n"
                            "Noor,Ade,2011-03-09,left,162,Ada Ade,ada@example.org\n"
                            "Ivo,Brand,3/9/2011,right,,,\n"
                            "Mira,Fenn,2 Jan 2010,right,5 ft 6,Jo Fenn,jo@example.org\n"))
        return;
    window.takeInFiles({QString::fromStdString(table.string())});
    if (QDialog* d = p.dialog("roster")) {
        p.shoot("roster", d);
        d->close();
    }
    std::filesystem::remove(table);
    window.toDesk();
    window.showPlace("athletes");
    QTest::qWait(500);
    if (auto* enter = window.findChild<QPushButton*>("outing-enter")) enter->click();
    if (QDialog* d = p.dialog("outing")) {
        d->findChild<QLineEdit*>("pitches")->setText("54");
        d->findChild<QLineEdit*>("felt")->setText("arm heavy at the end");
        p.shoot("outing-form", d);
        QTest::keyClick(d, Qt::Key_Return, Qt::ControlModifier);
    }
    QTest::qWait(600);
    if (auto* button = window.findChild<QPushButton*>("outing-enter"))
        for (QWidget* w = button; w; w = w->parentWidget())
            if (auto* scroll = qobject_cast<QScrollArea*>(w)) scroll->ensureWidgetVisible(button, 0, 260);
    p.shoot("outings");
}

/// Somebody in the picture is hidden; then names are out of sight.
void shootWhoIsHidden(Photographer& p) {
    MainWindow& window = p.window();
    window.toDesk();
    p.open("Emeka");
    p.stage(0);
    p.settle();
    p.key(Qt::Key_H);
    p.drag({0.72, 0.25}, {0.84, 0.6});
    if (!QTest::qWaitFor([&] { return !window.reviewPlace()->session().delivery().veils.empty(); }, 60000))
        std::cerr << "nobody was hidden\n";
    QTest::qWait(400);
    p.shoot("hidden");
    p.key(Qt::Key_Z);
    window.toDesk();
    p.key(Qt::Key_N, Qt::AltModifier);
    QTest::qWait(400);
    p.shoot("class");
    p.key(Qt::Key_N, Qt::AltModifier);
}

/// A sentence of the letter while it is written anew.
void shootSentence(Photographer& p) {
    p.open("Emeka");
    p.stage(6);
    p.settleLetter();
    p.key(Qt::Key_Down);
    p.key(Qt::Key_Down);
    p.key(Qt::Key_Return);
    p.shoot("sentence");
    if (auto* field = p.window().findChild<QPlainTextEdit*>("sentence"))
        QTest::keyClick(field, Qt::Key_Escape);
}

} // namespace

void shootExtra(Photographer& p) {
    shootWhoIsHidden(p);
    shootMany(p);
    shootSentence(p);
}

} // namespace jg::test
