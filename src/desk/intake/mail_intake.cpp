// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/intake/mail_intake.h"

#include "base/file_store.h"
#include "base/letters.h"
#include "desk/keeping/file_names.h"
#include "library/sha256.h"
#include "post/pain_words.h"
#include "words/words.h"

#include <algorithm>
#include <cctype>
#include <set>

namespace jg {

namespace fs = std::filesystem;

namespace {

constexpr const char* kFolder = "intake.folder";
constexpr std::size_t kMostSeen = 10000; ///< entries that are remembered, the newest: two a mail

/// Whose address it is: the athlete's or the guardian's.
Status findAthlete(Library& library, MailIntake& in) {
    auto athletes = library.athletes();
    if (!athletes) return athletes.error();
    for (const Athlete& a : *athletes)
        if (lowered(a.email) == in.senderAddress || lowered(a.guardianEmail) == in.senderAddress) {
            in.athlete = a.id;
            ++in.known;
        }
    if (in.known != 1) in.athlete.reset(); // brothers and sisters: the coach says who
    return Done{};
}

/// A name of our own: the sender's is never a path, and two films may be called alike.
std::string filmName(const Attachment& film, std::size_t serial) {
    const fs::path given(film.name);
    std::string ending = given.extension().string();
    const bool plain =
        ending.size() > 1 && ending.size() <= 6 &&
        std::all_of(ending.begin() + 1, ending.end(), [](unsigned char c) { return std::isalnum(c) != 0; });
    if (!plain) ending = ".mp4";
    return std::to_string(serial) + "-" + asFileName(given.stem().string()) + ending;
}

Status layOutFilms(Library& library, IncomingMail& mail, MailIntake& in) {
    auto folder = library.workFolder();
    if (!folder) return folder.error();
    in.folder = std::move(*folder);
    for (const Attachment& film : mail.films) {
        const fs::path path = in.folder->path() / filmName(film, in.films.size() + 1);
        if (auto written = library.files().write(path, film.bytes); !written) return written;
        in.films.push_back(path);
    }
    return Done{};
}

/// By what a file is remembered: its name may be a person's. Another file under a name that was settled has
/// another size or another time.
std::string fileKey(const fs::path& mail) {
    std::error_code ec;
    const auto bytes = fs::file_size(mail, ec);
    const auto written = fs::last_write_time(mail, ec).time_since_epoch().count();
    return sha256(mailKey(mail) + "\n" + std::to_string(bytes) + "\n" + std::to_string(written));
}

/// One mail, however often and along whatever way it was delivered.
std::string contentKey(const IncomingMail& mail) {
    std::string all = mail.messageId + "\n" + mail.senderAddress + "\n" + mail.subject + "\n" + mail.text;
    for (const Attachment& film : mail.films) all += "\n" + sha256(film.bytes);
    for (const std::string& name : mail.leftOut) all += "\n" + name;
    return sha256(all);
}

/// Errors: BadInput for one that was taken in or put aside.
Status isNew(Library& library, const std::string& key) {
    const auto taken = library.submissionOfMail(key);
    if (!taken) return taken.error();
    const auto seen = library.row(ListOf::SeenMails, key);
    if (!seen) return seen.error();
    if (!*taken && !*seen) return Done{};
    return fail(ErrorCode::BadInput, msg(*taken ? "incoming.taken-in-before" : "incoming.put-aside-before"));
}

/// Pain as it is written now, in the text or on its page; else that of the mail it answers.
void hearPain(const IncomingMail& mail, MailIntake& in) {
    in.pain = painIn(mail.subject + ".\n\n" + mail.text);
    if (in.pain.empty()) in.pain = painIn(mail.page);
    if (in.pain.empty()) in.olderPain = painIn(mail.quoted);
}

void addMails(const fs::path& folder, bool all, std::vector<fs::path>& mails) {
    std::error_code ec;
    for (const auto& entry : fs::directory_iterator(folder, ec))
        if (!entry.is_symlink(ec) && entry.is_regular_file(ec) && (all || isMailFile(entry.path())) &&
            !entry.path().filename().string().starts_with("."))
            mails.push_back(entry.path());
}

} // namespace

bool isMailFile(const fs::path& file) {
    return lowered(file.extension().string()) == ".eml";
}

std::string painOf(const MailIntake& mail) {
    if (!mail.pain.empty() || mail.olderPain.empty()) return mail.pain;
    return english()(msg("incoming.older-pain", {{"words", mail.olderPain}}));
}

Result<MailIntake> openMail(Library& library, const fs::path& path, std::stop_token stop) {
    if (auto may = library.mayWrite(); !may) return may.error();
    std::error_code ec;
    if (const auto size = fs::file_size(path, ec); !ec && size > kMostMailBytes)
        return fail(ErrorCode::BadInput, msg("incoming.too-large", {{"most", kMostMailBytes >> 20}}));
    auto bytes = readFile(path);
    if (!bytes) return bytes.error();
    if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("intake.stopped"));
    auto mail = readIncoming(*bytes, stop);
    if (!mail) return mail.error();
    if (mail->films.empty())
        return fail(ErrorCode::BadInput, msg("incoming.no-film", {{"sender", mail->senderAddress}}));
    MailIntake in;
    in.source = path;
    in.senderName = mail->senderName;
    in.senderAddress = mail->senderAddress;
    in.subject = mail->subject;
    in.leftOut = mail->leftOut;
    in.asked = askedIn(mail->text);
    in.doubts = mail->doubts;
    in.key = contentKey(*mail);
    hearPain(*mail, in);
    if (auto fresh = isNew(library, in.key); !fresh) return fresh.error();
    if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("intake.stopped"));
    if (auto found = findAthlete(library, in); !found) return found.error();
    if (!in.doubts.empty()) in.athlete.reset(); // the coach says whose it is
    if (auto laid = layOutFilms(library, *mail, in); !laid) return laid.error();
    return in;
}

std::string watchedFolder(Store& store) {
    return store.setting(kFolder);
}

Status watchFolder(Store& store, const std::string& folder) {
    std::error_code ec;
    if (!folder.empty() && !fs::is_directory(folder, ec))
        return fail(ErrorCode::BadInput, msg("incoming.no-folder", {{"folder", folder}}));
    return store.setSetting(kFolder, folder);
}

std::string mailKey(const fs::path& mail) {
    const std::string name = mail.filename().string();
    return name.substr(0, name.find(':'));
}

std::vector<fs::path> mailsIn(const fs::path& folder) {
    std::vector<fs::path> mails;
    addMails(folder, false, mails);
    for (const char* sub : {"new", "cur"}) addMails(folder / sub, true, mails);
    std::sort(mails.begin(), mails.end(),
              [](const fs::path& a, const fs::path& b) { return mailKey(a) < mailKey(b); });
    return mails;
}

std::vector<fs::path> mailsWaiting(Store& store) {
    const fs::path folder = watchedFolder(store);
    if (folder.empty()) return {};
    std::vector<fs::path> mails = mailsIn(folder);
    std::set<std::string> seen;
    if (const auto rows = store.rows(ListOf::SeenMails))
        for (const ListEntry& row : *rows) seen.insert(row.key);
    // Older versions remembered the name alone.
    std::erase_if(mails, [&](const fs::path& m) {
        return seen.contains(fileKey(m)) || seen.contains(sha256(mailKey(m)));
    });
    return mails;
}

Status settleIncoming(Store& store, const fs::path& mail, const std::string& key) {
    const fs::path folder = watchedFolder(store), home = mail.parent_path();
    const bool watched =
        !folder.empty() && (home == folder || home == folder / "new" || home == folder / "cur");
    std::vector<std::string> keys;
    if (watched) keys.push_back(fileKey(mail));
    if (!key.empty()) keys.push_back(key);
    if (keys.empty()) return Done{};
    return store.changeRows(ListOf::SeenMails, [&](std::vector<ListEntry>& rows) -> Status {
        for (const std::string& k : keys) {
            std::erase_if(rows, [&](const ListEntry& row) { return row.key == k; });
            rows.push_back({0, k, "{}"});
        }
        if (rows.size() > kMostSeen) rows.erase(rows.begin(), rows.end() - kMostSeen);
        return Done{};
    });
}

} // namespace jg
