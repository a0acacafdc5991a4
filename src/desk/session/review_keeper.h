// SPDX-License-Identifier: GPL-3.0-or-later
// Hands a review to the disk and tells when it lies there.
#pragma once

#include "base/mutex.h"
#include "desk/jobs/inbox.h"
#include "library/library.h"

#include <QObject>

#include <condition_variable>
#include <memory>
#include <optional>
#include <thread>

namespace jg {

/// How far the last change has come.
enum class KeepState {
    Kept,      ///< it is on the disk
    Keeping,   ///< on its way
    NotKept,   ///< writing failed; it is tried again
    Elsewhere, ///< someone else changed the review: this state is kept as a version, and no more is written
};

/// Keeps one review, always its newest state, each time against the revision it kept last. Once somebody else
/// was quicker, every state it is still given becomes a version beside theirs: nothing is lost, nothing is
/// written over. Lives in the window's thread and tells there.
class ReviewKeeper : public QObject {
    Q_OBJECT
public:
    /// `revision` is the one the review was read at.
    explicit ReviewKeeper(std::int64_t revision)
        : revision_(revision) {}
    /// Takes a state to be kept; one before it that was not begun yet is dropped.
    virtual void keep(Review review, Assessment told) = 0;
    /// Waits until nothing is on its way, or what is can't be written now; state() says how it ended.
    virtual void flush() = 0;
    /// Goes on from a revision that another use case made, or that was read anew after somebody else's.
    /// Errors: those of the last try, while a state is not on the disk; then nothing changes.
    virtual Status rebase(std::int64_t revision);
    KeepState state() const { return state_; }
    /// What went wrong, while state() is NotKept or Elsewhere.
    const Error& error() const { return error_; }
    std::int64_t revision() const { return revision_; }

Q_SIGNALS:
    void changed(); ///< state() or revision()

protected:
    void settle(const Result<std::int64_t>& result, bool more);
    void begin();

private:
    std::int64_t revision_;
    KeepState state_ = KeepState::Kept;
    Error error_;
};

/// Keeps at once, in the calling thread: for programs without a window.
class DirectKeeper final : public ReviewKeeper {
    Q_OBJECT
public:
    DirectKeeper(Store& store, std::int64_t revision)
        : ReviewKeeper(revision)
        , store_(store) {}
    void keep(Review review, Assessment told) override;
    void flush() override {}

private:
    Store& store_;
};

/// Keeps in a thread with a store of its own: the window never waits for a disk. What fails for want of room
/// or because another program writes is tried again every few seconds, and when the next state comes.
class WriterKeeper final : public ReviewKeeper {
    Q_OBJECT
public:
    WriterKeeper(std::unique_ptr<Store> store, std::int64_t revision);
    /// Writes what it was given before it ends.
    ~WriterKeeper() override;
    void keep(Review review, Assessment told) override;
    void flush() override;
    Status rebase(std::int64_t revision) override;

private:
    struct Wish {
        Review review;
        Assessment told;
    };
    void run(std::stop_token stop);
    /// Writes the wish; the mutex is let go of meanwhile.
    void keepOne() JG_NEEDS(mutex_);

    /// True when there is something to write that was not just refused.
    bool mayWrite() const JG_NEEDS(mutex_) { return wish_ && !stuck_; }

    std::unique_ptr<Store> store_;
    Inbox inbox_;
    mutable Mutex mutex_;
    std::condition_variable_any wake_, idle_;
    std::optional<Wish> wish_ JG_GUARDED_BY(mutex_); ///< not begun yet
    std::int64_t next_ JG_GUARDED_BY(mutex_);        ///< the revision to write against
    bool writing_ JG_GUARDED_BY(mutex_) = false;
    bool stuck_ JG_GUARDED_BY(mutex_) =
        false; ///< the last try failed, and its wish waits; wait before the next
    std::jthread thread_;
};

} // namespace jg
