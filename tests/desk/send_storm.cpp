// Sends every letter of a library until it is killed: send_storm LIBRARY URL. What lies in the outbox and did
// not go out is sent first, as the post does; what may have gone out is left alone. Ends with 0 when nothing
// is left to send.
#include "desk/due_mails.h"
#include "desk/places.h"
#include "desk/review_session.h"
#include "letter/fonts.h"

#include <QGuiApplication>

#include <iostream>
#include <set>

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
    if (argc != 3) return 2;
    const auto book = loadPlaybook(dataFolder() / "playbook");
    auto library = Library::open(argv[1], false, std::make_shared<FileStore>());
    if (!book || !library || !loadFonts(dataFolder() / "fonts")) return 1;
    Sender sender(**library, *book, argv[2]);
    while (sender.sendOne()) {
    }
    return 0;
}
