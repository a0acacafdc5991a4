// SPDX-License-Identifier: GPL-3.0-or-later
// A mail with films, on its way to the intake: whose it may be, what was asked, what hurts, its films as
// files.
#pragma once

#include "library/library.h"
#include "post/incoming.h"

#include <filesystem>
#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

struct MailIntake {
    std::filesystem::path source; ///< the mail's file
    std::string senderName, senderAddress, subject;
    std::vector<std::filesystem::path> films; ///< under names of our own making
    std::vector<std::string> leftOut;
    /// Who is written from this address, or for whom; nothing when nobody is, or several are.
    std::optional<AthleteId> athlete;
    std::size_t known = 0; ///< how many athletes have this address
    std::string asked, pain;
    std::string olderPain;       ///< of the mail that it answers or passes on; only when `pain` is empty
    std::vector<Message> doubts; ///< why the sender may be somebody else: then `athlete` is nobody
    std::string key;             ///< of its message id and its content: what Submission::mail keeps
    std::shared_ptr<WorkFolder> folder; ///< in which the films lie; gone when nobody needs it
};

/// Reads a mail and lays its films into the library's work folder. Any one thread. Errors: NotFound,
/// Unreadable, BadInput (no mail, no film in it, taken in or put aside before), Refused while nothing may be
/// written, Cancelled, DiskFull, WriteFailed.
Result<MailIntake> openMail(Library& library, const std::filesystem::path& mail, std::stop_token stop = {});

/// What is written into the field of pain for a mail that nobody looks at: the words of it, and those of an
/// older mail below it said to be that.
std::string painOf(const MailIntake& mail);

/// True for what is offered as a mail: the ending .eml.
bool isMailFile(const std::filesystem::path& file);

/// The folder that is watched for mails, a Maildir or one of .eml files; empty = none. Errors of setting it:
/// BadInput when it is no folder.
std::string watchedFolder(Store& store);
Status watchFolder(Store& store, const std::string& folder);

/// What names a mail of a folder however its flags change (Maildir's info behind ':', from memory).
std::string mailKey(const std::filesystem::path& mail);

/// The mails of a folder of .eml files or a Maildir, the oldest name first. Regular files only; none when it
/// is not there.
std::vector<std::filesystem::path> mailsIn(const std::filesystem::path& folder);

/// Mails of the watched folder that were neither taken in nor put aside, as mailsIn() has them.
std::vector<std::filesystem::path> mailsWaiting(Store& store);
/// Never offers a mail of the watched folder again, by the file that it is now; one from elsewhere is
/// nobody's to offer. `key`: that of the mail, when it could be read: the same mail is not opened again from
/// anywhere. Errors: those of writing.
Status settleIncoming(Store& store, const std::filesystem::path& mail, const std::string& key = {});

} // namespace jg
