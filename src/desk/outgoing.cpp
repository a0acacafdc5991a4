#include "desk/outgoing.h"

#include "base/number.h"
#include "desk/house_zone.h"
#include "review/people_check.h"

#include <algorithm>
#include <chrono>
#include <thread>

namespace jg {

using namespace std::chrono_literals;

namespace {

/// Hands the bytes over and keeps how it ended; the sentence of a failure comes back.
Status handOver(Library& library, const OutboxItem& item, const std::string& bytes, const SendOrder& order,
                const Clock& clock, bool again, std::stop_token stop, const SendProgress& progress) {
    if (auto begun = library.beginHandOver(item, clock.nowUnix(), again); !begun) return begun;
    if (progress) progress(SendStep::HandingOver, 0);
    const Status sent = sendMail(order.server, order.from, item.recipient, bytes, stop, [&](double part) {
        if (progress) progress(SendStep::HandingOver, part);
    });
    const Status stored = settleMail(library, item, sent, clock);
    return stored ? sent : stored;
}

/// Holds a letter back while the coach may think better of it. Errors: Cancelled.
Status holdBack(const SendOrder& order, std::chrono::steady_clock::time_point pressed, std::stop_token stop,
                const SendProgress& progress) {
    const auto until = pressed + std::chrono::seconds(order.takeBackS);
    for (;;) {
        if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("outgoing.taken-back"));
        const auto left = until - std::chrono::steady_clock::now();
        if (left <= left.zero()) return Done{};
        if (progress) progress(SendStep::Waiting, std::chrono::duration<double>(left).count());
        std::this_thread::sleep_for(std::min<std::chrono::steady_clock::duration>(left, 50ms));
    }
}

Result<Parcel> pack(Library& library, const DispatchRecipe& recipe, std::stop_token stop,
                    const SendProgress& progress) {
    const auto work = library.workFolder(); // two sendings of one review never share one
    if (!work) return work.error();
    return packParcel(recipe, (*work)->path(), library.files(), stop, [&](double part) {
        if (progress) progress(SendStep::Making, part);
    });
}

} // namespace

SendOrder sendOrderOf(Library& library, const std::string& password) {
    SendOrder order{{}, library.setting("mail.from")};
    order.server.url = library.setting("mail.url", "smtp://127.0.0.1:2525");
    order.server.user = library.setting("mail.user");
    order.server.password = password;
    order.server.requireTls = !isLoopback(order.server.url);
    order.takeBackS = kTakeBackS;
    if (const auto seconds = parseNumber(library.setting("mail.takeBackS")))
        order.takeBackS = static_cast<int>(std::clamp(*seconds, 0.0, 600.0));
    return order;
}

Status keepMailSettings(Library& library, const std::vector<SettingChange>& typed) {
    for (const SettingChange& c : typed) {
        if (c.key == "mail.url" && !c.now.empty())
            if (auto address = readServerAddress(c.now); !address) return address.error();
        if (c.key == "mail.from" && !c.now.empty() && !isOneAddress(c.now))
            return fail(ErrorCode::BadInput, msg("outgoing.from-is-not-one-address", {{"address", c.now}}));
        if (c.key == "house.timeZone")
            if (auto known = knowTimeZone(c.now); !known) return known;
    }
    if (auto kept = library.changeSettings(typed); !kept) return kept;
    for (const SettingChange& c : typed)
        if (c.key == "house.timeZone") return useTimeZone(c.now);
    return Done{};
}

Result<OutboxItem> sendLetter(Library& library, const DispatchRecipe& recipe, const SendOrder& order,
                              const Clock& clock, IdSource& ids, std::stop_token stop,
                              const SendProgress& progress, bool again) {
    const auto pressed = std::chrono::steady_clock::now();
    const ReviewId& review = recipe.film.review.id;
    if (auto may = library.mayHandOver(review, clock.nowUnix(), again); !may) return may.error();
    auto parcel = pack(library, recipe, stop, progress);
    if (!parcel) return parcel.error();
    if (auto held = holdBack(order, pressed, stop, progress); !held) return held.error();
    auto item = putInOutbox(library, review, recipe, *parcel, clock, ids);
    if (!item) return item.error();
    if (auto sent = handOver(library, *item, parcel->bytes, order, clock, again, stop, progress); !sent)
        return Error{sent.error().code, msg("outgoing.waits", {{"why", sent.error().text}})};
    return item;
}

Result<OutboxItem> layReady(Library& library, const DispatchRecipe& recipe, const Clock& clock, IdSource& ids,
                            std::stop_token stop, const SendProgress& progress) {
    const ReviewId& review = recipe.film.review.id;
    if (auto may = library.mayHandOver(review, clock.nowUnix(), false); !may) return may.error();
    auto parcel = pack(library, recipe, stop, progress);
    if (!parcel) return parcel.error();
    return putInOutbox(library, review, recipe, *parcel, clock, ids);
}

Status sendAgain(Library& library, const Playbook& playbook, OutboxItem item, const SendOrder& order,
                 const Clock& clock, std::stop_token stop, const SendProgress& progress) {
    const auto pressed = std::chrono::steady_clock::now();
    const bool again = stateAt(item, clock.nowUnix()) == MailState::Unsure;
    if (auto may = library.mayHandOver(item.review, clock.nowUnix(), again); !may) return may;
    IdSource ids;
    auto session = ReviewSession::open(library, playbook, clock, ids, item.review);
    if (!session) return session.error();
    auto recipe = dispatchRecipe(**session);
    if (!recipe) return recipe.error();
    auto parcel = pack(library, *recipe, stop, progress);
    if (!parcel) return parcel.error();
    if (auto held = holdBack(order, pressed, stop, progress); !held) return held;
    if (auto written = library.files().write(library.sentPath(item.file), parcel->bytes); !written)
        return written;
    item.recipient = recipe->toAddress;
    item.subject = parcel->subject;
    return handOver(library, item, parcel->bytes, order, clock, again, stop, progress);
}

} // namespace jg
