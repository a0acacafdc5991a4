#include "desk/mail_intake.h"

#include "base/file_store.h"
#include "base/letters.h"
#include "desk/file_names.h"
#include "library/sha256.h"

#include <algorithm>
#include <cctype>
#include <set>

namespace jg {

namespace fs = std::filesystem;

namespace {

constexpr const char* kFolder = "intake.folder";
constexpr std::size_t kMostSeen = 5000; ///< mails that are remembered, the newest ones

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

/// By what a mail is remembered: a file's name may be a person's.
std::string seenKey(const fs::path& mail) {
    return sha256(mailKey(mail));
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

Result<MailIntake> openMail(Library& library, const fs::path& path) {
    std::error_code ec;
    if (const auto size = fs::file_size(path, ec); !ec && size > kMostMailBytes)
        return fail(ErrorCode::BadInput, msg("incoming.too-large", {{"most", kMostMailBytes >> 20}}));
    auto bytes = readFile(path);
    if (!bytes) return bytes.error();
    auto mail = readIncoming(*bytes);
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
    in.pain = painIn(mail->subject + ".\n\n" + mail->text);
    if (auto found = findAthlete(library, in); !found) return found.error();
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
    std::erase_if(mails, [&](const fs::path& m) { return seen.contains(seenKey(m)); });
    return mails;
}

Status settleIncoming(Store& store, const fs::path& mail) {
    const fs::path folder = watchedFolder(store);
    const fs::path home = mail.parent_path();
    if (folder.empty() || (home != folder && home != folder / "new" && home != folder / "cur")) return Done{};
    return store.changeRows(ListOf::SeenMails, [&](std::vector<ListEntry>& rows) -> Status {
        const std::string key = seenKey(mail);
        std::erase_if(rows, [&](const ListEntry& row) { return row.key == key; });
        rows.push_back({0, key, "{}"});
        if (rows.size() > kMostSeen) rows.erase(rows.begin(), rows.end() - kMostSeen);
        return Done{};
    });
}

} // namespace jg
