// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/ui/driver.h"

#include "base/clock.h"
#include "desk/keeping/places.h"
#include "ui/kit/theme.h"
#include "ui/places/desk/desk_place.h"

#include <QDropEvent>
#include <QMimeData>
#include <QPushButton>
#include <QWindow>

namespace jg::test {

bool waitFor(const std::function<bool()>& done, int ms) {
    return QTest::qWaitFor(done, ms);
}

Driver::Driver(const std::filesystem::path& folder, double speed, std::vector<std::filesystem::path> voices,
               const Playbook& book) {
    static const bool dressed = ui::dress(*qApp);
    EXPECT_TRUE(dressed);
    auto library = Library::open(folder, true, std::make_shared<FileStore>());
    EXPECT_TRUE(library) << said(library.error().text);
    if (!(*library)->readOnly()) {
        EXPECT_TRUE((*library)->setSetting("mail.takeBackS", "0")); // nobody thinks better of it here
    }
    window_ = std::make_unique<ui::MainWindow>(
        ui::WindowParts{std::move(*library), book, std::make_shared<FixedClock>(today()),
                        makeStandInMicrophone(std::move(voices), speed), makeStandInLoudspeaker()});
    window_->show();
    EXPECT_TRUE(QTest::qWaitForWindowExposed(window_.get()));
    window_->activateWindow();
    settle();
}

void Driver::key(int k, Qt::KeyboardModifiers m) {
    // A dialog that has just closed leaves no window active on a screen without a window manager.
    if (!QApplication::activeModalWidget() && !window_->isActiveWindow()) {
        window_->activateWindow();
        EXPECT_TRUE(QTest::qWaitForWindowActive(window_.get()));
    }
    QWidget* target = QApplication::activeModalWidget();
    if (!target) target = window_.get();
    QTest::keyClick(target->windowHandle(), static_cast<Qt::Key>(k), m);
    QCoreApplication::processEvents();
    settle();
}

void Driver::settle() {
    EXPECT_TRUE(waitFor([&] { return window_->settled(); })) << "it goes on reading or writing";
    QCoreApplication::processEvents(); // what is new is shown
}

void Driver::type(QWidget* into, const QString& text) {
    into->setFocus();
    QTest::keyClicks(into, text);
}

void Driver::click(QWidget* widget, QPoint at) {
    QWidget* top = widget->window();
    QTest::mouseClick(top->windowHandle(), Qt::LeftButton, Qt::NoModifier, widget->mapTo(top, at));
    QCoreApplication::processEvents();
    settle();
}

void Driver::clickPicture(ImagePoint at) {
    ui::StageView& stage = review().stage();
    click(&stage, stage.transform().toView(at).toPoint());
}

void Driver::dragPicture(ImagePoint from, ImagePoint to) {
    ui::StageView& stage = review().stage();
    QWindow* w = window_->windowHandle();
    const auto place = [&](ImagePoint p) {
        return stage.mapTo(window_.get(), stage.transform().toView(p).toPoint());
    };
    QTest::mousePress(w, Qt::LeftButton, Qt::NoModifier, place(from));
    for (int i = 1; i <= 5; ++i) {
        QTest::mouseMove(w, place({from.x + (to.x - from.x) * i / 5, from.y + (to.y - from.y) * i / 5}));
        QCoreApplication::processEvents();
    }
    QTest::mouseRelease(w, Qt::LeftButton, Qt::NoModifier, place(to));
    QCoreApplication::processEvents();
    settle();
}

void Driver::waitForPicture() {
    EXPECT_TRUE(waitFor([&] { return review().stage().shownFrame() == review().playhead().frame(); }))
        << "frame " << review().playhead().frame() << " did not come";
}

void Driver::waitForExact() {
    EXPECT_TRUE(waitFor([&] {
        return review().stage().exact() && review().stage().shownFrame() == review().playhead().frame();
    })) << "frame "
        << review().playhead().frame() << " did not come";
}

void Driver::stepTo(qint64 frame) {
    while (frame - review().playhead().frame() >= 10) key(Qt::Key_Right, Qt::ControlModifier);
    while (review().playhead().frame() - frame >= 10) key(Qt::Key_Left, Qt::ControlModifier);
    while (review().playhead().frame() < frame) key(Qt::Key_Right);
    while (review().playhead().frame() > frame) key(Qt::Key_Left);
    waitForPicture();
}

void Driver::drop(const QString& file) {
    auto* desk = window_->findChild<ui::DeskPlace*>("desk");
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(file)});
    QDragEnterEvent enter(desk->rect().center(), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(desk, &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent dropped(desk->rect().center(), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(desk, &dropped);
}

void Driver::withDialog(const char* name, const std::function<void(QDialog&)>& look) {
    auto* dialog = window_->findChild<QDialog*>(name);
    ASSERT_TRUE(dialog) << name;
    ASSERT_TRUE(QTest::qWaitForWindowExposed(dialog));
    look(*dialog);
    dialog->done(0);
    EXPECT_TRUE(waitFor([&] { return !QApplication::activeModalWidget(); }));
}

QPushButton* Driver::button(QWidget* inside, const QString& text) {
    for (QPushButton* b : inside->findChildren<QPushButton*>())
        if (b->text() == text && b->isVisible()) return b;
    ADD_FAILURE() << "no button \"" << text.toStdString() << "\"";
    return nullptr;
}

QDialog* opened(Driver& d, const char* name) {
    QDialog* dialog = nullptr;
    EXPECT_TRUE(waitFor([&] {
        for (QDialog* open : d.window().findChildren<QDialog*>(name))
            if (open->isVisible()) dialog = open;
        return dialog != nullptr;
    })) << name;
    if (dialog) {
        EXPECT_TRUE(QTest::qWaitForWindowExposed(dialog)) << name;
    }
    return dialog;
}

std::string cutIn(QWidget* root) {
    QStringList found;
    for (QWidget* w : root->findChildren<QWidget*>()) {
        if (!w->isVisible() || w->width() < 2) continue;
        QString text;
        bool cut = false;
        if (auto* label = qobject_cast<QLabel*>(w); label && !label->text().isEmpty()) {
            text = label->text();
            cut = label->wordWrap() ? label->heightForWidth(label->width()) > label->height() + 2
                                    : label->sizeHint().width() > label->width() + 2;
        } else if (auto* button = qobject_cast<QAbstractButton*>(w); button && !button->text().isEmpty()) {
            text = button->text();
            cut = button->fontMetrics().horizontalAdvance(text) > button->width();
        }
        if (cut)
            found << QString("%1 %2: %3 (%4 x %5)")
                         .arg(w->metaObject()->className(), w->objectName(), text)
                         .arg(w->width())
                         .arg(w->height());
    }
    found.removeDuplicates();
    return found.join("\n").toStdString();
}

} // namespace jg::test
