// SPDX-License-Identifier: GPL-3.0-or-later
// What changes between Send and the last byte: six doors, twenty things, five moments. No letter goes out
// that would not be made now, and what is recorded is what went.
#include "apps/post_office/smtp_server.h"
#include "desk/sending/due_mails.h"
#include "desk/sending/ready_letters.h"
#include "post/mail.h"
#include "review/record/review_json.h"
#include "tests/support/walk.h"

#include <QCoreApplication>
#include <QDir>

#include <SQLiteCpp/SQLiteCpp.h>

#include <array>
#include <fstream>
#include <thread>

namespace jg {
namespace {

namespace fs = std::filesystem;
using test::Walk;

enum class Door { Send, AtOnce, FromThePost, Due, AllReady, Later };
constexpr std::array kDoors = {Door::Send, Door::AtOnce,   Door::FromThePost,
                               Door::Due,  Door::AllReady, Door::Later};
enum class When { Before, Making, Waiting, FirstByte, HalfWay };
constexpr std::array kMoments = {When::Before, When::Making, When::Waiting, When::FirstByte, When::HalfWay};

/// What must be true of a letter that goes out although something changed.
enum class Then { NoLetter, ToTheNewAddress, SaysIt, AnyLetter };

struct Thing {
    const char* name;
    Then then;
    std::function<Status(Library&, const Walk&)> change;
    std::string says = {}; ///< stands in the mail or its page
};

Status ofAthlete(Library& library, const Walk& walk, const std::function<void(Athlete&)>& what) {
    const auto now = library.change(walk.athlete.id, [&](Athlete& a) -> Status { return what(a), Done{}; });
    return now ? Status(Done{}) : Status(now.error());
}

Status ofReview(Library& library, const Walk& walk, const std::function<void(Review&)>& what) {
    auto review = library.review(walk.review.id);
    if (!review) return review.error();
    what(*review);
    const auto kept = library.save(*review);
    return kept ? Status(Done{}) : Status(kept.error());
}

Status hurts(Library& library, const SubmissionId& id) {
    const auto now =
        library.change(id, [](Submission& s) -> Status { return s.pain = "His elbow hurts.", Done{}; });
    return now ? Status(Done{}) : Status(now.error());
}

Veil veilOn(const Review& review, std::vector<std::int64_t> asks) {
    const std::int64_t first = review.first().moments.begin()->second.frame.value_or(0);
    return Veil{{{first, PictureBox{{4, 4}, {40, 60}}}}, {first}, std::move(asks)};
}

/// Kept for the library's life: names stay out of sight as long as it is open.
std::unique_ptr<Library>& classMode() {
    static std::unique_ptr<Library> library;
    return library;
}

std::vector<Thing> things() {
    const Date day = test::today();
    return {
        {"pain with this film", Then::NoLetter,
         [](Library& l, const Walk& w) { return hurts(l, w.submission.id); }},
        {"pain with another film", Then::NoLetter,
         [](Library& l, const Walk& w) -> Status {
             Submission other = test::onceMore(w.submission, "hurts");
             other.pain = "Sore shoulder.";
             return l.add(other);
         }},
        {"a consent taken back", Then::NoLetter,
         [day](Library& l, const Walk& w) {
             return ofAthlete(l, w, [&](Athlete& a) { a.consent->takenBack = day; });
         }},
        {"a consent that ended", Then::NoLetter,
         [day](Library& l, const Walk& w) {
             return ofAthlete(l, w, [&](Athlete& a) { a.consent->until = addDays(day, -1); });
         }},
        {"a consent by the child alone", Then::NoLetter,
         [](Library& l, const Walk& w) {
             return ofAthlete(l, w, [](Athlete& a) { a.consent->byGuardian = false; });
         }},
        {"of age by another birth date", Then::NoLetter, // the guardian's consent ends with it
         [](Library& l, const Walk& w) {
             return ofAthlete(l, w, [](Athlete& a) {
                 a.born = Date{std::chrono::year{2001}, std::chrono::March, std::chrono::day{9}};
             });
         }},
        {"another address", Then::ToTheNewAddress,
         [](Library& l, const Walk& w) {
             return ofAthlete(l, w, [](Athlete& a) { a.guardianEmail = "new.home@example.org"; });
         }},
        {"no address", Then::NoLetter,
         [](Library& l, const Walk& w) {
             return ofAthlete(l, w, [](Athlete& a) { a.guardianEmail.clear(); });
         }},
        {"another child's address", Then::NoLetter,
         [](Library& l, const Walk& w) -> Status {
             Athlete other = w.athlete;
             other.id = {"ath-wren"};
             other.firstName = "Wren";
             other.email = "wren@example.org";
             if (auto added = l.add(other); !added) return added;
             return ofAthlete(l, w, [](Athlete& a) { a.guardianEmail = "wren@example.org"; });
         }},
        {"another name", Then::SaysIt,
         [](Library& l, const Walk& w) {
             return ofAthlete(l, w, [](Athlete& a) { a.firstName = "Zedrika"; });
         },
         "Zedrika"},
        {"another language", Then::SaysIt,
         [](Library& l, const Walk& w) {
             return ofAthlete(l, w, [](Athlete& a) { a.language = Language::Spanish; });
         },
         "Hola"},
        {"somebody hidden and lost", Then::NoLetter,
         [](Library& l, const Walk& w) {
             return ofReview(l, w, [](Review& r) { r.first().veils["veil-1"] = veilOn(r, {9}); });
         }},
        {"somebody hidden", Then::AnyLetter,
         [](Library& l, const Walk& w) {
             return ofReview(l, w, [](Review& r) { r.first().veils["veil-1"] = veilOn(r, {}); });
         }},
        {"an edited sentence", Then::SaysIt,
         [](Library& l, const Walk& w) {
             return ofReview(l, w, [](Review& r) { r.plan.opening = "Quince marmalade first."; });
         },
         "Quince marmalade"},
        {"a verdict taken away", Then::NoLetter,
         [](Library& l, const Walk& w) {
             return ofReview(l, w, [](Review& r) { r.judging().grades.erase(r.judging().grades.begin()); });
         }},
        {"a film altered", Then::NoLetter,
         [](Library& l, const Walk& w) -> Status {
             std::ofstream(l.mediaPath(w.submission.clips[0]), std::ios::app | std::ios::binary) << "x";
             return Done{};
         }},
        {"a film of somebody else's, too", Then::NoLetter,
         [](Library& l, const Walk& w) -> Status {
             Athlete other = w.athlete;
             other.id = {"ath-other"};
             other.email.clear();
             if (auto added = l.add(other); !added) return added;
             Submission theirs = test::onceMore(w.submission, "theirs");
             theirs.athlete = other.id;
             for (Clip& c : theirs.clips) c.athlete = other.id;
             return l.add(theirs);
         }},
        {"on the way back", Then::NoLetter,
         [](Library& l, const Walk& w) {
             return ofAthlete(l, w, [](Athlete& a) { a.comingBack = ComingBack{"a broken wrist", {}}; });
         }},
        {"another coach's name", Then::SaysIt,
         [](Library& l, const Walk&) { return l.setSetting("house.coach", "Ottokar Plume"); },
         "Ottokar Plume"},
        {"names out of sight", Then::NoLetter,
         [](Library& l, const Walk&) -> Status {
             auto again = l.again();
             if (!again) return again.error();
             classMode() = std::move(*again);
             const Status only = classMode()->lookOnly(true);
             // While a letter is handed over it is refused: then there is nothing to keep out of sight.
             return only || only.error().code != ErrorCode::Refused ? only : Status(Done{});
         }},
    };
}

/// Does something once, at the first file that is laid into a work folder.
class Watched : public FileStore {
public:
    std::function<void()> atFirst;
    Status publish(const fs::path& path, const std::function<Status(const fs::path&)>& make) override {
        if (path.string().find("/work/") != std::string::npos && atFirst) std::exchange(atFirst, {})();
        return FileStore::publish(path, make);
    }
    Status write(const fs::path& path, std::string_view bytes) override {
        if (path.string().find("/work/") != std::string::npos && atFirst) std::exchange(atFirst, {})();
        return FileStore::write(path, bytes);
    }
};

class ThatMoment : public testing::Test {
protected:
    void SetUp() override {
        test::leaveUnsaid(walk);
        ASSERT_TRUE(office.listen(0));
        ASSERT_TRUE(dispatchRecipe(*walk.session()));
    }
    void TearDown() override { classMode().reset(); }

    SendOrder order(int takeBackS) const {
        return {{"smtp://127.0.0.1:" + std::to_string(office.port()), "", "", false, 20},
                "ilse@example.org",
                takeBackS};
    }

    /// Sends by a door in the thread of its own; `change` is done once, at a moment. True when it was.
    bool sendWhile(Library& library, Door door, When when, const std::function<void()>& change,
                   Watched& files) {
        std::function<void()> once = change;
        const auto now = [&](When here) {
            if (here == when && once) std::exchange(once, {})();
        };
        const SendProgress progress = [&](SendStep step, double part) {
            if (step == SendStep::Waiting) now(When::Waiting);
            if (step != SendStep::HandingOver) return;
            now(part == 0 ? When::FirstByte : part < 1 ? When::HalfWay : When::Before);
        };
        if (when == When::Making) files.atFirst = [&] { now(When::Making); };
        IdSource ids{7};
        const auto recipe = [&] {
            auto session = ReviewSession::open(library, walk.book, walk.clock, ids, walk.review.id);
            return dispatchRecipe(**session);
        };
        const bool lies = door == Door::FromThePost || door == Door::Due;
        OutboxItem item;
        if (lies || door == Door::Later) {
            auto kept = std::exchange(files.atFirst, {});
            const auto laid = sendLater(library, *recipe(), walk.clock.nowUnix(), walk.clock, ids);
            EXPECT_TRUE(laid);
            item = *laid;
            files.atFirst = std::move(kept);
        }
        const auto sendable = recipe(); // as the coach saw it
        const auto ready = readyLetters(library, walk.book, walk.clock);
        now(When::Before);
        const int wait = when == When::Waiting ? 1 : 0;
        if (door == Door::Send || door == Door::AtOnce)
            (void)sendLetter(library, *sendable, order(wait), walk.clock, ids, {}, progress);
        else if (door == Door::FromThePost)
            (void)sendAgain(library, walk.book, item, order(wait), walk.clock, {}, progress);
        else if (door == Door::AllReady)
            (void)sendAll(library, walk.book, *ready, order(wait), walk.clock, ids, {},
                          [&](std::size_t, SendStep step, double part) { progress(step, part); });
        else
            (void)sendDue(library, walk.book, item, order(wait), walk.clock, {}, progress);
        files.atFirst = {};
        return !once;
    }

    /// The mails that arrived, each with its page as text.
    std::vector<ReadMail> arrived() const {
        std::vector<ReadMail> all;
        for (const QString& name : QDir(post()).entryList({"*.eml"}))
            all.push_back(*readMail(*readFile((fs::path(post().toStdString()) / name.toStdString()))));
        return all;
    }
    QString post() const { return QString::fromStdString((walk.folder / "post").string()); }

    /// Empty when all is as it must be.
    std::string judge(const Thing& thing, Library& library) {
        const auto mails = arrived();
        const auto review = library.review(walk.review.id);
        int sent = 0;
        for (const OutboxItem& item : *library.outbox()) {
            if (item.state != MailState::Sent) continue;
            ++sent;
            const std::string kept = *readFile(library.sentPath(item.file));
            if (mails.empty() || readMail(kept)->text != mails.front().text) return "another mail is kept";
            if (readMail(kept)->to != mails.front().to) return "another reader is kept";
        }
        if (mails.size() > 1) return "it went out twice";
        if (sent != static_cast<int>(mails.size())) return "the outbox is wrong";
        if (review->sent.has_value() == mails.empty()) return "the review's record is wrong";
        if (mails.empty()) return {};
        const std::string& to = mails.front().to;
        if (to.find(review->sent->to) == to.npos) return "recorded as sent to another";
        if (thing.then == Then::NoLetter) return "it went out";
        if (thing.then == Then::ToTheNewAddress && to.find("new.home") == to.npos)
            return "it went to the old address";
        std::string all = mails.front().text + mails.front().subject;
        for (const Attachment& a : mails.front().attachments)
            if (a.type == "text/html") all += a.bytes;
        if (thing.then == Then::SaysIt && all.find(thing.says) == all.npos) return "the old letter went out";
        return {};
    }

    Walk walk;
    SmtpServer office{post()};
};

TEST_F(ThatMoment, NothingWrongLeavesByAnyDoor) {
    const bool all = std::getenv("JUXTAGRAPH_LONG") != nullptr;
    constexpr int kEvery = 23; // of the short run: every door, thing and moment comes
    int at = 0, tried = 0, changed = 0, letters = 0, wrong = 0;
    const auto list = things();
    ASSERT_EQ(list.size(), 20U);
    for (const Door door : kDoors)
        for (const Thing& thing : list)
            for (const When when : kMoments) {
                if (!all && at++ % kEvery != 0) continue;
                classMode().reset();
                fs::remove_all(walk.folder / "case");
                fs::remove_all(post().toStdString());
                QDir().mkpath(post());
                fs::copy(walk.library->folder(), walk.folder / "case", fs::copy_options::recursive);
                std::optional<bool> done;
                auto files = std::make_shared<Watched>();
                std::thread thread([&] {
                    auto own = Library::open(walk.folder / "case", false, files);
                    auto other = Library::open(walk.folder / "case", false, std::make_shared<FileStore>());
                    done = sendWhile(
                        **own, door, when,
                        [&] {
                            const Status changes = thing.change(**other, walk);
                            EXPECT_TRUE(changes) << thing.name << ": " << said(changes.error().text);
                        },
                        *files);
                });
                while (!done) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
                thread.join();
                const bool hidden = classMode() && !classMode()->mayWrite();
                classMode().reset();
                const auto library =
                    Library::open(walk.folder / "case", false, std::make_shared<FileStore>());
                // What could not be kept out of sight was not.
                Thing judged = thing;
                if (std::string(thing.name) == "names out of sight" && !hidden) judged.then = Then::AnyLetter;
                if (!*done)
                    judged.then = Then::AnyLetter; // that moment never came: a due letter does not wait
                const std::string why = judge(judged, **library);
                ++tried;
                changed += *done;
                letters += !arrived().empty();
                wrong += !why.empty();
                EXPECT_EQ(why, "") << thing.name << ", door " << static_cast<int>(door) << ", moment "
                                   << static_cast<int>(when);
            }
    std::printf("%d cases, %d changed in time, %d letters, %d wrong\n", tried, changed, letters, wrong);
    EXPECT_GE(changed, tried * 4 / 5); // a letter that is made slowly does not wait
    EXPECT_GT(letters, tried / 8);
}

// Twenty seconds after Send the coach knows what was changed meanwhile, for the letter was made anew.
TEST_F(ThatMoment, WhatWasChangedMeanwhileIsTold) {
    auto files = std::make_shared<Watched>();
    auto own = Library::open(walk.library->folder(), false, files);
    ASSERT_TRUE(own);
    SendOrder told = order(6); // longer than making it takes on a busy machine
    std::string what;
    told.madeAnew = [&](const Message& changed) { what = said(changed); };
    const auto recipe = dispatchRecipe(*walk.session());
    std::optional<Result<OutboxItem>> sent;
    std::thread thread([&] {
        IdSource ids{9};
        bool once = false;
        sent = sendLetter(**own, *recipe, told, walk.clock, ids, {}, [&](SendStep step, double) {
            if (step != SendStep::Waiting || std::exchange(once, true)) return;
            auto other = (*own)->again();
            EXPECT_TRUE(ofReview(**other, walk, [](Review& r) { r.plan.opening = "Quince."; }));
        });
    });
    while (!sent) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
    thread.join();
    ASSERT_TRUE(*sent) << said(sent->error().text);
    EXPECT_EQ(what, "the review");
    EXPECT_EQ(walk.library->review(walk.review.id)->plan.opening, "Quince.");
}

// An edit that arrives between the last byte and the answer is no part of what went out: it becomes a
// version.
TEST_F(ThatMoment, WhatIsRecordedAsSentIsWhatWentOut) {
    const auto recipe = dispatchRecipe(*walk.session());
    ASSERT_TRUE(recipe);
    const auto parcel = packParcel(*recipe, walk.folder / "work", walk.library->files());
    ASSERT_TRUE(parcel);
    const auto item = putInOutbox(*walk.library, walk.review.id, *recipe, *parcel, walk.clock, walk.ids);
    ASSERT_TRUE(item);
    ASSERT_TRUE(walk.library->beginHandOver(*item, walk.clock.nowUnix(), Repeat::Never));
    ASSERT_TRUE(ofReview(*walk.library, walk, [](Review& r) { r.plan.opening = "Too late."; }));
    ASSERT_TRUE(settleMail(*walk.library, *item, recipe->film, Done{}, walk.clock));
    const auto kept = walk.library->review(walk.review.id);
    ASSERT_TRUE(kept->sent);
    EXPECT_EQ(kept->plan.opening, recipe->film.review.plan.opening);
    const auto versions = walk.library->versions(walk.review.id);
    ASSERT_EQ(versions->size(), 1U);
    EXPECT_EQ(walk.library->version(versions->front().row)->plan.opening, "Too late.");
    EXPECT_TRUE(walk.library->verify().empty());
}

// A server's no is final, and says why; "not now" is tried again.
TEST_F(ThatMoment, AServersNoIsFinalAndSaysWhy) {
    office.setMood(PostOfficeMood::RefusesRecipients);
    IdSource ids{9};
    const auto recipe = dispatchRecipe(*walk.session());
    const auto laid = sendLater(*walk.library, *recipe, walk.clock.nowUnix(), walk.clock, ids);
    ASSERT_TRUE(laid);
    std::optional<Status> sent;
    std::thread thread([&] {
        auto own = walk.library->again();
        sent = sendDue(**own, walk.book, *laid, order(0), walk.clock);
    });
    while (!sent) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
    thread.join();
    ASSERT_FALSE(*sent);
    EXPECT_EQ(sent->error().code, ErrorCode::Refused) << said(sent->error().text);
    EXPECT_NE(said(sent->error().text).find("550"), std::string::npos) << said(sent->error().text);
    EXPECT_TRUE(dueMails(*walk.library).empty()); // it waits for a hand
    EXPECT_EQ(walk.library->mail(laid->id)->state, MailState::Refused);
}

// One that may have gone out is not sent again by itself when a letter of its review went out since.
TEST_F(ThatMoment, AnUnsureOneAsksWhenAnotherWentOutSince) {
    const OutboxItem left{"mail-1",
                          walk.review.id,
                          "odalys.home@example.org",
                          "Hello",
                          "mail-1.eml",
                          MailState::Unsure,
                          {},
                          walk.clock.nowUnix() - 3600};
    ASSERT_TRUE(test::put(*walk.library, left));
    ASSERT_TRUE(walk.library->markSent(*walk.library->review(walk.review.id), nullptr,
                                       {test::today(), "odalys.home@example.org"}));
    const Status refused = sendAgain(*walk.library, walk.book, left, order(0), walk.clock);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::Refused);
    EXPECT_TRUE(walk.library->mayHandOver(walk.review.id, walk.clock.nowUnix(), Repeat::Always));
}

// The server took it and the library could not be told: the letter has gone out, and that is what is said.
TEST_F(ThatMoment, ADiskThatFillsAfterTheLastByteSaysThatTheServerHasIt) {
    const auto recipe = dispatchRecipe(*walk.session());
    SQLite::Database blocker((walk.library->folder() / "library.sqlite").string(), SQLite::OPEN_READWRITE);
    std::optional<Result<OutboxItem>> sent;
    std::thread thread([&] {
        auto own = walk.library->again();
        IdSource ids{9};
        bool once = false;
        sent = sendLetter(**own, *recipe, order(0), walk.clock, ids, {}, [&](SendStep step, double part) {
            if (step == SendStep::HandingOver && part == 1 && !std::exchange(once, true))
                blocker.exec("BEGIN IMMEDIATE");
        });
    });
    while (!sent) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
    thread.join();
    blocker.exec("ROLLBACK");
    ASSERT_FALSE(*sent);
    EXPECT_EQ(arrived().size(), 1U);
    EXPECT_NE(said(sent->error().text).find("mail server took the letter"), std::string::npos)
        << said(sent->error().text);
    EXPECT_EQ(said(sent->error().text).find("waits in the outbox"), std::string::npos);
    EXPECT_EQ(walk.library->outbox()->front().state, MailState::HandingOver); // unsure in half an hour
    EXPECT_FALSE(walk.library->mayHandOver(walk.review.id, walk.clock.nowUnix(), Repeat::Never));
}

} // namespace
} // namespace jg
