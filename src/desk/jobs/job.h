// SPDX-License-Identifier: GPL-3.0-or-later
// Long work beside the window: progress, cancel, and a result back in the caller's thread.
#pragma once

#include "desk/jobs/inbox.h"

#include <functional>
#include <stop_token>
#include <thread>

namespace jg {

/// One job on its own thread. The work takes values, a stop token and a progress callback, and returns what
/// is to be done with its result; that runs in the thread that started the job. Deletes itself when done.
class Job : public QObject {
    Q_OBJECT
public:
    using Progress = std::function<void(double)>;
    using Continuation = std::function<void()>;
    using Work = std::function<Continuation(std::stop_token, const Progress&)>;

    /// Starts at once. The job belongs to `parent`, whose end cancels and joins it. Work that can fail gives
    /// a Result by caught(); what it throws all the same ends the job, told by broke().
    Job(QObject* parent, Work work);
    ~Job() override;
    void cancel() { thread_.request_stop(); }

Q_SIGNALS:
    void progressed(double part);       ///< 0..1, in the caller's thread
    void finished();                    ///< after the continuation has run
    void broke(const jg::Message& why); ///< instead of the continuation

private:
    Inbox inbox_; ///< what the thread tells
    std::jthread thread_;
};

} // namespace jg
