// SPDX-License-Identifier: GPL-3.0-or-later
// Changes a library as a window does, until it is killed: change_storm LIBRARY LOG ME SEED. What is on the
// disk is told in LOG, one line each, after the call that put it there returned; and how long after it was
// written the other's newest change was seen.
#include "base/clock.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/library_watch.h"
#include "desk/keeping/places.h"
#include "desk/session/review_session.h"

#include <QCoreApplication>
#include <QTimer>

#include <chrono>
#include <fcntl.h>
#include <random>
#include <unistd.h>

namespace {

using namespace jg;

std::int64_t nowMs() {
    return std::chrono::duration_cast<std::chrono::milliseconds>(
               std::chrono::system_clock::now().time_since_epoch())
        .count();
}

class Changes {
public:
    Changes(Library& library, const Playbook& book, const char* log, std::string me, unsigned seed)
        : library_(library)
        , book_(book)
        , log_(::open(log, O_WRONLY | O_APPEND | O_CREAT, 0644))
        , me_(std::move(me))
        , dice_(seed) {
        QObject::connect(&watch_, &LibraryWatch::changed, &watch_, [this] { look(); });
    }

    void one() {
        const std::string mark = me_ + "-" + std::to_string(::getpid()) + "-" + std::to_string(++serial_);
        const auto athletes = library_.athletes();
        if (!athletes || athletes->empty()) return;
        const Athlete held = athletes->front();
        switch (dice_() % 7) {
        case 0: { // a form that was open for a while
            Athlete typed = held;
            typed.outings.push_back(
                {Date{std::chrono::year{2026}, std::chrono::January, std::chrono::day{1}}, 10, mark});
            const auto kept = library_.change(held.id, [&](Athlete& now) {
                return applyEdit({held, typed}, now);
            });
            return told(kept.ok(), "outing", mark);
        }
        case 1:
            return told(library_.put(ListOf::DueMails, "mail-" + mark, "{}").ok(), "due", mark);
        case 2:
            return told(library_.add(Promise{held.id, asIs(mark), {}}).ok(), "promise", mark);
        case 3:
            return told(library_.setSetting("storm." + mark, mark).ok(), "setting", mark);
        case 4: { // taken back once, it must stay so
            const auto kept = library_.change(held.id, [](Athlete& a) -> Status {
                if (a.consent && !a.consent->takenBack)
                    a.consent->takenBack =
                        Date{std::chrono::year{2026}, std::chrono::June, std::chrono::day{1}};
                return Done{};
            });
            return told(kept.ok(), "consent", mark);
        }
        case 5: {
            const auto submissions = library_.submissions();
            if (!submissions || submissions->empty()) return;
            auto session = ReviewSession::open(library_, book_, clock_, ids_, submissions->front().id);
            if (!session) return;
            Plan plan = (*session)->review().plan;
            plan.opening = mark;
            const bool done = (*session)->perform(asIs("Write"), {SetPlan{plan}}).ok();
            return told(done && (*session)->keepState() == KeepState::Kept, "review", mark);
        }
        default: // what the other looks for
            newest_ = nowMs();
            told(library_.setSetting("seen." + me_, std::to_string(newest_)).ok(), "beat", mark);
        }
    }

private:
    void told(bool kept, const std::string& what, const std::string& mark) {
        if (!kept) return;
        const std::string line = what + " " + mark + "\n";
        if (::write(log_, line.data(), line.size()) < 0) std::_Exit(4);
    }

    /// How old the other's newest beat is at the moment at which it is first seen.
    void look() {
        const std::string other = me_ == "a" ? "b" : "a", beat = library_.setting("seen." + other);
        if (beat.empty() || beat == seen_) return;
        seen_ = beat;
        told(true, "saw", std::to_string(nowMs() - std::stoll(beat)));
    }

    Library& library_;
    const Playbook& book_;
    int log_;
    std::string me_, seen_;
    std::mt19937 dice_;
    LibraryWatch watch_{library_};
    SystemClock clock_;
    IdSource ids_;
    std::int64_t newest_ = 0;
    int serial_ = 0;
};

} // namespace

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    if (argc != 5) return 2;
    const auto book = loadPlaybook(dataFolder() / "playbook");
    const auto library = Library::open(argv[1], false, std::make_shared<FileStore>());
    if (!book || !library) return 3;
    Changes changes(**library, *book, argv[2], argv[3], static_cast<unsigned>(std::atoi(argv[4])));
    QTimer timer;
    QObject::connect(&timer, &QTimer::timeout, &timer, [&] { changes.one(); });
    timer.start(15);
    return app.exec();
}
