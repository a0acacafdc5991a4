// Work handed over between threads.
#pragma once

#include <QObject>

#include <deque>
#include <functional>
#include <mutex>

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
    std::mutex mutex_;
    std::deque<std::function<void()>> waiting_;
};

} // namespace jg
