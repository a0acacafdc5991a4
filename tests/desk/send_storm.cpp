// SPDX-License-Identifier: GPL-3.0-or-later
// Sends every letter of a library until it is killed: send_storm LIBRARY URL. What lies in the outbox and did
// not go out is sent first, as the post does; what may have gone out is left alone. Ends with 0 when nothing
// is left to send. send_storm LIBRARY URL schedule I OF lays every OF-th letter, from the I-th on, ready for
// now; send_storm LIBRARY URL due hands over what is due until nothing is.
#include "base/clock.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "desk/sending/due_mails.h"
#include "desk/session/review_session.h"
#include "letter/fonts.h"

#include <QGuiApplication>

#include <cstdlib>
#include <iostream>
#include <set>
#include <unistd.h>

namespace {

using namespace jg;

class Sender {
public:
    Sender(Library& library, const Playbook& playbook, const std::string& url)
        : library_(library)
        , playbook_(playbook)
        , order_{{url, "", "", false, 20}, "ilse@example.org"} {}

    /// False when nothing was left to do.
    bool sendOne() {
        const auto outbox = library_.outbox();
        const auto reviews = library_.reviews();
        if (!outbox || !reviews) return false;
        std::set<std::string> begun;
        for (const OutboxItem& item : *outbox) {
            begun.insert(item.review.value);
            if (!waits(item)) continue;
            (void)sendAgain(library_, playbook_, item, order_, clock_);
            return true;
        }
        for (const ReviewSummary& review : *reviews) {
            if (begun.contains(review.id.value) || review.sent) continue;
            auto session = ReviewSession::open(library_, playbook_, clock_, ids_, review.id);
            const auto recipe = session ? dispatchRecipe(**session) : Result<DispatchRecipe>(session.error());
            if (!recipe) continue;
            (void)sendLetter(library_, *recipe, order_, clock_, ids_);
            return true;
        }
        return false;
    }

    /// Every `of`-th unsent letter from the `first` on, for now. How many were kept.
    int schedule(int first, int of) {
        const auto reviews = library_.reviews();
        int at = 0, kept = 0;
        for (const ReviewSummary& review : *reviews) {
            if (review.sent || at++ % of != first) continue;
            auto session = ReviewSession::open(library_, playbook_, clock_, ids_, review.id);
            const auto recipe = session ? dispatchRecipe(**session) : Result<DispatchRecipe>(session.error());
            if (!recipe) continue;
            kept += sendLater(library_, *recipe, clock_.nowUnix(), clock_, ids_) ? 1 : 0;
        }
        return kept;
    }

    /// Until nothing is due; what another program has in hand is waited for.
    void sendDueOnes() {
        for (;;) {
            const auto due = mailsDueAt(library_, clock_.nowUnix());
            if (!due || (due->empty() && dueMails(library_).empty())) return;
            if (due->empty()) ::usleep(20000);
            for (const OutboxItem& item : *due) (void)sendDue(library_, playbook_, item, order_, clock_);
        }
    }

private:
    Library& library_;
    const Playbook& playbook_;
    SendOrder order_;
    SystemClock clock_;
    IdSource ids_;
};

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    const QGuiApplication app(argc, argv);
    if (argc < 3) return 2;
    const auto book = loadPlaybook(dataFolder() / "playbook");
    auto library = Library::open(argv[1], false, std::make_shared<FileStore>());
    if (!book || !library || !loadFonts(dataFolder() / "fonts")) return 1;
    Sender sender(**library, *book, argv[2]);
    const std::string what = argc > 3 ? argv[3] : "";
    if (what == "schedule" && argc > 5)
        return sender.schedule(std::atoi(argv[4]), std::atoi(argv[5])) > 0 ? 0 : 4;
    if (what == "due") return sender.sendDueOnes(), 0;
    while (sender.sendOne()) {
    }
    return 0;
}
