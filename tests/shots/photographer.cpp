// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/shots/photographer.h"

#include "ui/film/stage_view.h"
#include "ui/kit/row_list.h"

#include <QDialog>
#include <QTest>

#include <iostream>

namespace jg::test {

using namespace jg::ui;

Photographer::Photographer(MainWindow& window, QString out, bool all)
    : window_(window)
    , out_(std::move(out))
    , all_(all) {}

void Photographer::remember(const QString& name, QWidget* of) {
    QTest::qWait(60);
    QWidget* w = of ? of : static_cast<QWidget*>(&window_);
    quiet();
    taken_[name] = w->grab().toImage();
    if (all_) save(name, taken_[name]);
}

void Photographer::shoot(const QString& name, QWidget* of) {
    remember(name, of);
    save(name, taken_[name]);
}

void Photographer::save(const QString& name, const QImage& picture) const {
    const QString path = out_ + "/" + name + ".png";
    if (!picture.save(path)) std::cerr << "can't write " << path.toStdString() << "\n";
}

QImage Photographer::taken(const QString& name) const {
    const auto it = taken_.find(name);
    if (it == taken_.end()) std::cerr << name.toStdString() << " was not photographed\n";
    return it == taken_.end() ? QImage() : it->second;
}

void Photographer::open(const std::string& firstName, bool sent) {
    auto submissions = window_.library().submissions();
    std::optional<Submission> newest;
    for (const Submission& s : *submissions) {
        auto athlete = window_.library().athlete(s.athlete);
        auto review = window_.library().reviewOf(s.id);
        const bool isSent = *review && (*review)->sent;
        if (athlete->firstName == firstName && isSent == sent && (!newest || newest->received < s.received))
            newest = s;
    }
    if (!newest) return;
    window_.openReview(newest->id);
    QTest::qWait(200);
    settle();
}

void Photographer::quiet() {
    if (!QTest::qWaitFor([&] { return window_.settled(); }, 20000)) std::cerr << "it goes on reading\n";
}

void Photographer::key(int k, Qt::KeyboardModifiers m) {
    if (!window_.isActiveWindow()) window_.activateWindow();
    QTest::keyClick(&window_, static_cast<Qt::Key>(k), m);
    QTest::qWait(40);
    quiet();
}

void Photographer::drag(QPointF from, QPointF to) {
    auto* stage = window_.reviewPlace()->findChild<StageView*>("stage");
    const auto at = [&](QPointF part) {
        return QPointF(part.x() * stage->width(), part.y() * stage->height()).toPoint();
    };
    QTest::mousePress(stage, Qt::LeftButton, {}, at(from));
    for (const double part : {0.3, 0.7, 1.0}) QTest::mouseMove(stage, at(from + part * (to - from)), 20);
    QTest::mouseRelease(stage, Qt::LeftButton, {}, at(to));
}

void Photographer::settle() {
    ReviewPlace* r = window_.reviewPlace();
    if (!QTest::qWaitFor([&] { return r->stage().shownFrame() == r->playhead().frame(); }, 8000))
        std::cerr << "the frame did not come\n";
    QTest::qWait(80);
}

void Photographer::settleLetter() {
    QTest::qWait(1500);
}

void Photographer::chooseMeasureWithGhost() {
    auto* list = window_.reviewPlace()->findChild<RowList*>("measures");
    const auto& session = window_.reviewPlace()->session();
    const auto& rows = session.assessment().measures;
    int chosen = 0;
    for (std::size_t i = 0; i < rows.size(); ++i)
        if (ghostOf(session.delivery(), session.playbook(), rows[i], session.clip(), session.athlete().hand))
            chosen = static_cast<int>(i);
    list->setCurrent(0);
    list->move(chosen);
    settle();
}

void Photographer::jumpTo(Moment moment) {
    ReviewPlace* r = window_.reviewPlace();
    if (const auto f = r->session().delivery().frameOf(moment))
        r->playhead().step(*f - r->playhead().frame());
    settle();
}

void Photographer::stage(int number) {
    for (int i = 0; i < 8; ++i) key(Qt::Key_PageUp);
    for (int i = 0; i < number; ++i) key(Qt::Key_PageDown);
    settle();
}

QDialog* Photographer::dialog(const QString& name) {
    QDialog* found = nullptr;
    const auto open = [&] {
        for (QDialog* d : window_.findChildren<QDialog*>(name))
            if (d->isVisible()) found = d;
        return found != nullptr;
    };
    if (!QTest::qWaitFor(open, 20000)) std::cerr << name.toStdString() << " did not open\n";
    QTest::qWait(600);
    return found;
}

} // namespace jg::test
