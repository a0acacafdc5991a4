// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/intake/scrub_maker.h"

#include "base/caught.h"
#include "film/scrub_copy.h"

#include <algorithm>
#include <sys/resource.h>
#include <sys/syscall.h>
#include <unistd.h>

namespace jg {

namespace fs = std::filesystem;

namespace {

/// Only this thread gives way to the window and the film at hand.
void giveWay() {
    setpriority(PRIO_PROCESS, static_cast<id_t>(syscall(SYS_gettid)), 10);
}

Status makeOne(const fs::path& film, const fs::path& scrub, FileStore& files, std::stop_token stop,
               const Job::Progress& progress) {
    giveWay();
    // A budget of its own: the film being reviewed keeps its frames.
    const auto reader = Reader::open(film, {std::make_shared<FrameBudget>(std::size_t{64} << 20)}, stop);
    if (!reader) return reader.error();
    std::error_code ec;
    fs::create_directories(scrub.parent_path(), ec);
    return makeScrubCopy(**reader, scrub, files, stop, progress);
}

} // namespace

ScrubMaker::ScrubMaker(std::shared_ptr<FileStore> files, QObject* parent)
    : QObject(parent)
    , files_(std::move(files)) {}

Status ScrubMaker::makeMissing(Library& library) {
    if (!own_) {
        auto again = library.again();
        if (!again) return again.error();
        own_ = std::move(*again);
    }
    auto waiting = library.waiting();
    if (!waiting) return waiting.error();
    std::error_code ec;
    for (const WaitingRow& row : *waiting)
        for (const Clip& clip : row.submission.clips) {
            const Task task{clip.mediaHash, library.mediaPath(clip), library.scrubPath(clip)};
            const bool known =
                (job_ && current_ == task) || std::find(queue_.begin(), queue_.end(), task) != queue_.end();
            if (!known && !fs::exists(task.scrub, ec)) queue_.push_back(task);
        }
    next();
    return Done{};
}

void ScrubMaker::next() {
    if (job_ || queue_.empty()) return;
    current_ = queue_.front();
    queue_.pop_front();
    job_ = new Job(this, [this, task = current_, files = files_, own = own_](std::stop_token stop,
                                                                             const Job::Progress& progress) {
        std::stop_source given; // stopped, or given up while nothing may be written
        const std::stop_callback stopped(stop, [&] { given.request_stop(); });
        const Job::Progress watched = [&](double part) {
            if (!own->mayWrite()) given.request_stop();
            progress(part);
        };
        // One that can't be made is reviewed without.
        if (own->mayWrite())
            caught([&] { return makeOne(task.film, task.scrub, *files, given.get_token(), watched); }).ok();
        // Its athlete may have been deleted meanwhile: rows go first, then files, so one of both sees the
        // other.
        if (const auto there = own->hasFilm(task.hash); there && !*there) {
            std::error_code ec;
            fs::remove(task.scrub, ec);
        }
        return Job::Continuation([this] {
            job_ = nullptr;
            next();
            Q_EMIT progressed(waiting());
        });
    });
}

} // namespace jg
