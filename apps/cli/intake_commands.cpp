// SPDX-License-Identifier: GPL-3.0-or-later
// Films that came by mail, taken in without a window: only what can belong to nobody else.
#include "apps/cli/command.h"
#include "apps/cli/open_library.h"
#include "base/clock.h"
#include "base/date.h"
#include "desk/intake/intake.h"
#include "desk/intake/mail_intake.h"
#include "desk/intake/roster.h"

#include <iostream>

namespace jg::cli {

using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// A mail, or those of a folder or a Maildir.
std::vector<fs::path> mailsOf(const fs::path& source) {
    std::error_code ec;
    return fs::is_directory(source, ec) ? mailsIn(source) : std::vector<fs::path>{source};
}

/// The films of one mail, kept as one submission. What stands in the way comes back as a sentence.
Result<Submission> takeMail(Library& library, const fs::path& path, std::stop_token stop) {
    auto mail = openMail(library, path, stop);
    if (!mail) return mail.error();
    if (!mail->doubts.empty())
        return fail(ErrorCode::Refused,
                    msg("intake-commands.doubt", {{"why", joined(ListStyle::Sentences, mail->doubts)}}));
    if (!mail->athlete)
        return fail(ErrorCode::Refused,
                    msg(mail->known > 1 ? "intake-commands.several" : "intake-commands.nobody",
                        {{"address", mail->senderAddress}}));
    auto athlete = library.athlete(*mail->athlete);
    if (!athlete) return athlete.error();
    IntakeForm form;
    form.athlete = *mail->athlete;
    form.start = Start::Unknown;
    form.surface = Surface::Unknown;
    form.asked = mail->asked;
    form.pain = painOf(*mail);
    form.mail = mail->key;
    for (const fs::path& film : mail->films) form.films.push_back({film, View::Open, 0});
    IdSource ids;
    auto taken = lookAndTakeIn(library, form, athlete->hand, SystemClock(), ids, stop);
    if (!taken) return taken.error();
    if (auto settled = settleIncoming(library, mail->source, mail->key); !settled) return settled.error();
    return taken;
}

/// A mail that is here already: nothing is left to do with it.
bool wasTakenIn(const Error& why) {
    return why.text.id == "incoming.taken-in-before" || why.text.id == "sqlite-store.mail-taken-in";
}

void intake(const Arguments& a, std::stop_token stop) {
    const auto library = openLibrary(a.word(0, "LIB"));
    std::vector<fs::path> mails = mailsOf(a.word(1, "SOURCE"));
    json all = json::array();
    std::size_t left = 0;
    for (const fs::path& path : mails) {
        const auto taken = takeMail(*library, path, stop);
        if (!taken && taken.error().code == ErrorCode::Cancelled) throw Refusal(taken.error().text);
        const bool before = !taken && wasTakenIn(taken.error());
        left += !taken && !before;
        json row = {{"mail", path.filename().string()}};
        if (before) {
            row["before"] = true;
        } else if (taken) {
            row["submission"] = taken->id.value;
            row["films"] = taken->clips.size();
            row["asked"] = taken->asked;
            row["pain"] = taken->pain;
        } else {
            row["left"] = taken.error().text;
        }
        if (!a.has("json"))
            std::cout << (before  ? msg("intake-commands.before", {{"mail", path.filename().string()}})
                          : taken ? msg("intake-commands.taken",
                                        {{"mail", path.filename().string()}, {"films", taken->clips.size()}})
                                  : msg("intake-commands.left",
                                        {{"mail", path.filename().string()}, {"why", taken.error().text}}))
                      << "\n";
        all.push_back(std::move(row));
    }
    if (a.has("json")) std::cout << all.dump(2) << "\n";
    if (mails.empty()) throw Refusal(msg("intake-commands.no-mail", {{"source", a.word(1, "SOURCE")}}));
    if (left > 0) throw Refusal(msg("intake-commands.some-left", {{"count", left}}));
}

/// Who a table would add or change; kept with --yes.
void roster(const Arguments& a, std::stop_token) {
    const auto library = openLibrary(a.word(0, "LIB"));
    const auto rows = orRefuse(readRoster(*library, a.word(1, "FILE"), SystemClock().today()));
    json all = json::array();
    for (const RosterRow& row : rows) {
        all.push_back({{"line", row.line},
                       {"who", row.who},
                       {"kind", idOf(row.kind)},
                       {"words", english()(row.words)}});
        if (!a.has("json"))
            std::cout << msg("intake-commands.roster-row", {{"line", row.line},
                                                            {"kind", std::string(idOf(row.kind))},
                                                            {"who", row.who},
                                                            {"words", row.words}})
                      << "\n";
    }
    if (a.has("json")) std::cout << all.dump(2) << "\n";
    if (!a.has("yes"))
        return void(a.has("json") || std::cout << msg("intake-commands.roster-say-yes") << "\n");
    const int kept = orRefuse(keepRoster(*library, rows));
    if (!a.has("json")) std::cout << msg("intake-commands.roster-kept", {{"count", kept}}) << "\n";
}

} // namespace

std::vector<Command> intakeCommands() {
    return {{"intake", "intake LIB MAIL.eml|MAILDIR|FOLDER [--json]", {}, {"json"}, 2, 2, intake},
            {"roster",
             "roster LIB FILE.csv [--yes] [--json]  (says who is new or changed; --yes keeps them)",
             {},
             {"json", "yes"},
             2,
             2,
             roster}};
}

} // namespace jg::cli
