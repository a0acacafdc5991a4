// SPDX-License-Identifier: GPL-3.0-or-later
// Work handed over between threads.
#pragma once

#include "base/mutex.h"

#include <QObject>

#include <deque>
#include <functional>

namespace jg {

/// Takes work from any thread and does it, in order, in the thread that made it. What waits when it is
/// destroyed is dropped. The lock is our own, so that a checker of threads sees who waits for whom.
class Inbox : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    /// Any thread; while the inbox lives.
    void put(std::function<void()> work);
    /// Does all that waits now; in the thread that made it.
    void drain();
    bool event(QEvent* event) override;

private:
    std::function<void()> next(); ///< nothing when none waits
    Mutex mutex_;
    std::deque<std::function<void()>> waiting_ JG_GUARDED_BY(mutex_);
};

} // namespace jg
