#include "desk/inbox.h"

#include <QCoreApplication>
#include <QEvent>

namespace jg {

void Inbox::put(std::function<void()> work) {
    const std::lock_guard lock(mutex_);
    waiting_.push_back(std::move(work));
    QCoreApplication::postEvent(this, new QEvent(QEvent::User));
}

bool Inbox::event(QEvent* event) {
    if (event->type() != QEvent::User) return QObject::event(event);
    std::function<void()> next;
    {
        const std::lock_guard lock(mutex_);
        next = std::move(waiting_.front());
        waiting_.pop_front();
    }
    next(); // it may close what owns this
    return true;
}

} // namespace jg
