// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/jobs/inbox.h"

#include <QCoreApplication>
#include <QEvent>

namespace jg {

void Inbox::put(std::function<void()> work) {
    const Holding lock(mutex_);
    waiting_.push_back(std::move(work));
    QCoreApplication::postEvent(this, new QEvent(QEvent::User));
}

std::function<void()> Inbox::next() {
    const Holding lock(mutex_);
    if (waiting_.empty()) return {}; // it was drained before its event came
    std::function<void()> work = std::move(waiting_.front());
    waiting_.pop_front();
    return work;
}

void Inbox::drain() {
    while (const auto work = next()) work();
}

bool Inbox::event(QEvent* event) {
    if (event->type() != QEvent::User) return QObject::event(event);
    if (const auto work = next()) work(); // it may close what owns this
    return true;
}

} // namespace jg
