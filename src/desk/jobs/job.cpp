// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/jobs/job.h"

#include "base/caught.h"

namespace jg {

Job::Job(QObject* parent, Work work)
    : QObject(parent) {
    thread_ = std::jthread([this, work = std::move(work)](std::stop_token stop) {
        int shown = -1;
        const Progress progress = [&](double part) {
            const int percent = static_cast<int>(part * 100);
            if (percent == shown) return; // the window needs no more than a hundred steps
            shown = percent;
            inbox_.put([this, part] { Q_EMIT progressed(part); });
        };
        Continuation then;
        try {
            then = work(stop, progress);
        } catch (const std::exception& e) {
            then = [this, why = whyBroken(e)] { Q_EMIT broke(why); };
        }
        inbox_.put([this, then = std::move(then)] {
            if (then) then();
            Q_EMIT finished();
            deleteLater();
        });
    });
}

Job::~Job() {
    thread_.request_stop();
}

} // namespace jg
