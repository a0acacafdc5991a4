// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/ui/tour.h"

#include "ui/kit/spoken.h"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>

namespace jg::test {

namespace {

constexpr QSize kUsual(1280, 800);

void openAtLook(Driver& d, const Walk& walk) {
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    while (d.review().stageOfWalk() != Stage::Look) d.key(Qt::Key_PageUp);
}

} // namespace

QStringList textsOf(QWidget* w) {
    QStringList texts{w->toolTip(), w->accessibleName(), w->accessibleDescription()};
    if (auto* label = qobject_cast<QLabel*>(w)) texts << label->text();
    if (auto* button = qobject_cast<QAbstractButton*>(w)) texts << button->text();
    if (auto* edit = qobject_cast<QLineEdit*>(w)) texts << edit->placeholderText();
    if (auto* box = qobject_cast<QComboBox*>(w))
        for (int i = 0; i < box->count(); ++i) texts << box->itemText(i);
    if (auto* list = qobject_cast<QAbstractItemView*>(w); list && list->model())
        for (int i = 0; i < list->model()->rowCount(); ++i)
            texts << list->model()->index(i, 0).data(Qt::AccessibleTextRole).toString();
    if (auto* spoken = dynamic_cast<ui::Spoken*>(w)) texts << spoken->spokenValue();
    if (w->isWindow()) texts << w->windowTitle();
    return texts;
}

QStringList allTextsOf(QWidget* w) {
    QStringList texts = textsOf(w);
    if (auto* edit = qobject_cast<QLineEdit*>(w)) texts << edit->text();
    return texts;
}

void tourPlaces(Driver& d, const Look& look) {
    d.window().resize(kUsual);
    for (const char* place : {"desk", "athletes", "group", "playbook", "post", "hand"}) {
        d.window().showPlace(place);
        d.settle();
        look(d.window(), place);
    }
}

void tourStages(Driver& d, const Walk& walk, const Look& look) {
    d.window().resize(kUsual);
    openAtLook(d, walk);
    for (int i = 0; i < 7; ++i, d.key(Qt::Key_PageDown)) {
        QTest::qWait(10);
        for (const int key : {Qt::Key_Down, Qt::Key_Up}) {
            look(d.window(), "stage " + std::to_string(i));
            d.key(key);
        }
    }
}

void tourDialogs(Driver& d, const Walk& walk, const Look& look) {
    d.window().resize(kUsual);
    const auto opened = [&](const char* name) {
        d.withDialog(name, [&](QDialog& dialog) { look(dialog, name); });
    };
    d.key(Qt::Key_F1);
    opened("shortcuts");
    d.drop(QString::fromStdString((walk.folder / "film.mp4").string()));
    opened("intake");
    d.window().showPlace("athletes");
    d.settle();
    d.key(Qt::Key_E);
    opened("athlete-dialog");
    openAtLook(d, walk);
    d.key(Qt::Key_F);
    opened("film-dialog");
    d.key(Qt::Key_R);
    opened("refilm");
    while (d.review().stageOfWalk() != Stage::Measure) d.key(Qt::Key_PageDown);
    d.key(Qt::Key_Y);
    opened("turn");
    d.key(Qt::Key_S);
    opened("scale");
    d.key(Qt::Key_Q);
    opened("sequence");
    while (d.review().stageOfWalk() != Stage::Prescribe) d.key(Qt::Key_PageDown);
    if (d.document().plan.corrections.empty()) d.key(Qt::Key_P);
    for (const int shown : {Qt::Key_W, Qt::Key_X, Qt::Key_C}) {
        d.key(shown);
        QTest::qWait(10);
        look(d.window(), "prescribe");
    }
    for (const auto& [key, name] : {std::pair{Qt::Key_K, "ask-causes"},
                                    {Qt::Key_Y, "ask-why-not"},
                                    {Qt::Key_D, "choose-drills"},
                                    {Qt::Key_T, "ask-week"},
                                    {Qt::Key_S, "choose-keeps"},
                                    {Qt::Key_M, "ask-promise"}}) {
        d.key(key);
        opened(name);
    }
}

} // namespace jg::test
