// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/outgoing.h"

#include "base/caught.h"
#include "base/clock.h"
#include "base/number.h"
#include "desk/keeping/house_zone.h"
#include "review/record/people_check.h"

#include <algorithm>
#include <chrono>
#include <thread>

namespace jg {

using namespace std::chrono_literals;

namespace {

/// The letter as it would be made now; nothing when it is the one that was made. Errors: Refused with what
/// stands against sending it now, NotFound when it is gone.
Result<std::optional<DispatchRecipe>> anotherSince(Library& library, const DispatchRecipe& made,
                                                   const Clock& clock) {
    if (auto may = library.mayWrite(); !may) return may.error();
    IdSource ids;
    auto session = ReviewSession::open(library, made.film.playbook, clock, ids, made.film.review.id);
    if (!session) return session.error();
    auto now = dispatchRecipe(**session);
    if (!now) return now.error();
    if (auto films = filmsAreWhatCameIn(*now); !films) return films.error();
    if (now->ground == made.ground) return std::optional<DispatchRecipe>();
    return std::optional(*std::move(now));
}

/// Whom the coach saw it go to is who gets it.
Status sameReader(const DispatchRecipe& seen, const DispatchRecipe& now) {
    if (seen.toAddress == now.toAddress) return Done{};
    return fail(ErrorCode::Refused, msg("ready.other-address", {{"address", now.toAddress}}));
}

/// The server has the letter, and the library could not be told.
Error taken(const Error& why) {
    return fail(why.code, msg("outgoing.server-has-it", {{"why", why.text}}));
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

/// One letter on its way out: made, held back, looked at again, handed over; and once more from the start
/// while what it follows from changes under it.
class Leaving {
public:
    Leaving(Library& library, DispatchRecipe recipe, const SendOrder& order, const Clock& clock,
            std::stop_token stop, const SendProgress& progress)
        : library_(library)
        , seen_(recipe)
        , now_(std::move(recipe))
        , order_(order)
        , clock_(clock)
        , stop_(std::move(stop))
        , progress_(progress) {}

    /// Makes it of what is there now, and waits. Errors: those of packParcel(), Cancelled, Refused as
    /// anotherSince().
    Status make(std::chrono::steady_clock::time_point pressed) {
        constexpr int kMostTimes = 5; // own choice: somebody is still at it
        for (int i = 0; i < kMostTimes; ++i) {
            if (auto fresh = renew(); !fresh) return fresh;
            auto parcel = pack(library_, now_, stop_, progress_);
            if (!parcel) return parcel.error();
            parcel_ = *std::move(parcel);
            if (auto held = holdBack(order_, pressed, stop_, progress_); !held) return held;
            const auto another = anotherSince(library_, now_, clock_);
            if (!another) return another.error();
            if (!*another) return Done{};
        }
        return fail(ErrorCode::Refused, msg("outgoing.keeps-changing"));
    }

    /// Hands it over as `item`, and keeps how that ended. Stale when what it follows from changed meanwhile:
    /// then nothing went out.
    Status handOver(const OutboxItem& item, Repeat repeat) {
        if (auto begun = library_.beginHandOver(item, clock_.nowUnix(), repeat); !begun) return begun;
        if (progress_) progress_(SendStep::HandingOver, 0);
        const Status sent = sendMail(
            order_.server, order_.from, item.recipient, parcel_.bytes, stop_,
            [&](double part) {
                if (progress_) progress_(SendStep::HandingOver, part);
            },
            [&] { return unchanged(); });
        const Status stored = caught([&] { return settleMail(library_, item, now_.film, sent, clock_); });
        if (stored) return sent;
        const bool mayBeThere = sent || sent.error().code == ErrorCode::Unsure;
        return mayBeThere ? Status(taken(stored.error())) : stored;
    }

    const DispatchRecipe& recipe() const { return now_; }
    const Parcel& parcel() const { return parcel_; }

private:
    Status renew() {
        auto another = anotherSince(library_, now_, clock_);
        if (!another) return another.error();
        if (*another) {
            if (order_.madeAnew) order_.madeAnew(changedBetween(now_.ground, (*another)->ground));
            now_ = **std::move(another);
        }
        return sameReader(seen_, now_);
    }

    Status unchanged() {
        const auto another = anotherSince(library_, now_, clock_);
        if (!another) return another.error();
        if (!*another) return Done{};
        return fail(ErrorCode::Stale,
                    msg("outgoing.changed", {{"what", changedBetween(now_.ground, (*another)->ground)}}));
    }

    Library& library_;
    const DispatchRecipe seen_;
    DispatchRecipe now_;
    const SendOrder& order_;
    const Clock& clock_;
    std::stop_token stop_;
    const SendProgress& progress_;
    Parcel parcel_;
};

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

namespace {

/// Of the files that a mail had, the one that its row names stays.
void dropOthers(Library& library, const std::string& item, const std::vector<std::string>& files) {
    const auto row = library.mail(item);
    if (!row) return; // it went with its athlete
    std::error_code ec;
    for (const std::string& file : files)
        if (file != row->file) std::filesystem::remove(library.sentPath(file), ec);
}

/// What holds a mail that has not gone out is kept with it.
void keepReason(Library& library, const std::string& item, const Error& why) {
    library
        .changeMail(item,
                    [&](OutboxItem& now) -> Status {
                        if (now.state == MailState::Ready || now.state == MailState::Refused)
                            now.state = MailState::Refused, now.reason = why.text;
                        return Done{};
                    })
        .ok(); // it is told as well
}

/// One whose handing over could not be settled has gone out.
Message whereItIs(Library& library, const OutboxItem& item, const Error& why) {
    const auto row = library.mail(item.id);
    if (row && row->state == MailState::HandingOver) return why.text;
    return msg("outgoing.waits", {{"why", why.text}});
}

/// The letter as it was made last, in the place of what lay under `item`.
Status lay(Library& library, const Leaving& leaving, OutboxItem& item) {
    auto file = layMail(library, item.id, leaving.parcel().bytes);
    if (!file) return file.error();
    item.file = *std::move(file);
    item.recipient = leaving.recipe().toAddress;
    item.subject = leaving.parcel().subject;
    return Done{};
}

/// Hands it over; what changed while its bytes went out is made anew first.
Status handOverMaybeAnew(Library& library, Leaving& leaving, OutboxItem& item,
                         std::chrono::steady_clock::time_point pressed, Repeat repeat) {
    constexpr int kMostTimes = 3;
    std::vector<std::string> files = {item.file};
    const auto once = [&]() -> Status {
        if (auto laid = lay(library, leaving, item); !laid) return laid;
        files.push_back(item.file);
        return leaving.handOver(item, repeat);
    };
    Status sent = once();
    for (int i = 1; i < kMostTimes && !sent && sent.error().code == ErrorCode::Stale; ++i) {
        const Status made = leaving.make(pressed);
        sent = made ? once() : made;
        if (!made) keepReason(library, item.id, made.error());
    }
    dropOthers(library, item.id, files);
    return sent;
}

} // namespace

Result<OutboxItem> sendLetter(Library& library, const DispatchRecipe& recipe, const SendOrder& order,
                              const Clock& clock, IdSource& ids, std::stop_token stop,
                              const SendProgress& progress, Repeat repeat) {
    const auto pressed = std::chrono::steady_clock::now();
    const ReviewId& review = recipe.film.review.id;
    if (auto may = library.mayHandOver(review, clock.nowUnix(), repeat); !may) return may.error();
    Leaving leaving(library, recipe, order, clock, stop, progress);
    if (auto made = leaving.make(pressed); !made) return made.error();
    auto item = putInOutbox(library, review, leaving.recipe(), leaving.parcel(), clock, ids);
    if (!item) return item.error();
    const Status sent = handOverMaybeAnew(library, leaving, *item, pressed, repeat);
    if (!sent) return Error{sent.error().code, whereItIs(library, *item, sent.error())};
    return item;
}

Result<OutboxItem> layReady(Library& library, const DispatchRecipe& recipe, const Clock& clock, IdSource& ids,
                            std::stop_token stop, const SendProgress& progress) {
    const ReviewId& review = recipe.film.review.id;
    if (auto may = library.mayHandOver(review, clock.nowUnix(), Repeat::Never); !may) return may.error();
    const SendOrder atOnce;
    Leaving leaving(library, recipe, atOnce, clock, stop, progress);
    if (auto made = leaving.make(std::chrono::steady_clock::now()); !made) return made.error();
    return putInOutbox(library, review, leaving.recipe(), leaving.parcel(), clock, ids);
}

Status sendAgain(Library& library, const Playbook& playbook, OutboxItem item, const SendOrder& order,
                 const Clock& clock, std::stop_token stop, const SendProgress& progress, Repeat repeat) {
    const auto pressed = std::chrono::steady_clock::now();
    if (repeat == Repeat::Never && stateAt(item, clock.nowUnix()) == MailState::Unsure)
        repeat = Repeat::Unsure;
    if (auto may = library.mayHandOver(item.review, clock.nowUnix(), repeat); !may) return may;
    const auto made = [&]() -> Result<std::unique_ptr<Leaving>> {
        IdSource ids;
        auto session = ReviewSession::open(library, playbook, clock, ids, item.review);
        if (!session) return session.error();
        auto recipe = dispatchRecipe(**session);
        if (!recipe) return recipe.error();
        auto leaving = std::make_unique<Leaving>(library, *std::move(recipe), order, clock, stop, progress);
        if (auto whole = leaving->make(pressed); !whole) return whole.error();
        return leaving;
    }();
    if (!made) {
        if (made.error().code != ErrorCode::Cancelled) keepReason(library, item.id, made.error());
        return made.error();
    }
    return handOverMaybeAnew(library, **made, item, pressed, repeat);
}

} // namespace jg
