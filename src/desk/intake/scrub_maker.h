// SPDX-License-Identifier: GPL-3.0-or-later
// Makes scrub copies beside the work, one film after another.
#pragma once

#include "desk/jobs/job.h"
#include "library/library.h"

#include <QObject>

#include <deque>
#include <filesystem>
#include <memory>
#include <utility>

namespace jg {

/// Lives in the window's thread; works in one of low priority. Its end cancels what is under way.
class ScrubMaker : public QObject {
    Q_OBJECT
public:
    ScrubMaker(std::shared_ptr<FileStore> files, QObject* parent = nullptr);
    /// Queues every film of the library that has no scrub copy; those of waiting submissions first.
    /// Errors: those of Library.
    Status makeMissing(Library& library);
    /// Films still to be made, the one under way included.
    int waiting() const { return static_cast<int>(queue_.size()) + (job_ ? 1 : 0); }

Q_SIGNALS:
    /// A film was made, or could not be (then it is reviewed without).
    void progressed(int waiting);

private:
    void next();
    struct Task {
        std::string hash;
        std::filesystem::path film, scrub;
        bool operator==(const Task&) const = default;
    };
    std::shared_ptr<Library> own_; ///< to ask whether a film is still there
    std::shared_ptr<FileStore> files_;
    std::deque<Task> queue_;
    Task current_;
    Job* job_ = nullptr;
};

} // namespace jg
