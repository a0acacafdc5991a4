// SPDX-License-Identifier: GPL-3.0-or-later
// Keeping a library safe: backup, restore, and deleting an athlete whole.
#include "apps/cli/command.h"
#include "apps/cli/open_library.h"
#include "base/clock.h"
#include "base/date.h"
#include "library/backup.h"
#include "library/bundle.h"

#include <iostream>

namespace jg::cli {

using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// The state that is asked for, else the newest.
BackupState stateOf(const fs::path& folder, const Arguments& a) {
    const auto states = orRefuse(backupStates(folder));
    const auto at = a.value("at");
    for (const Message& line : states.unreadable) std::cerr << line << "\n";
    for (const BackupState& s : states.states)
        if (!at || s.at == *at) return s;
    throw Refusal(msg("keep-commands.no-state", {{"folder", folder.string()}}));
}

void refuseWrong(const std::vector<Message>& wrong) {
    if (!wrong.empty())
        throw Refusal(msg("keep-commands.not-whole",
                          {{"count", wrong.size()}, {"what", joined(ListStyle::Sentences, wrong)}}));
}

void backup(const Arguments& a, std::stop_token stop) {
    const auto library = openLibrary(a.word(0, "LIB"));
    const fs::path to = a.word(1, "FOLDER");
    const auto show = [](double part) { showProgress(part, msg("keep-commands.backing-up")); };
    const BackupState state = orRefuse(backUp(*library, to, SystemClock().nowUnix(), stop, show));
    if (a.has("check")) refuseWrong(orRefuse(checkBackup(to, state, stop, show)));
    for (const std::string& file : state.missing)
        std::cerr << msg("backup.was-missing", {{"file", file}}) << "\n";
    if (a.has("json"))
        std::cout << json{{"at", state.at},
                          {"files", state.files.size()},
                          {"copiedBytes", state.copiedBytes},
                          {"missing", state.missing}}
                         .dump(2)
                  << "\n";
    else
        std::cout << msg("keep-commands.backed-up",
                         {{"at", state.at},
                          {"files", state.files.size()},
                          {"megabytes", Decimal{static_cast<double>(state.copiedBytes) / 1e6, 1}}})
                  << "\n";
}

/// Looked over when it is there: a backup that can not be used is told at once.
void restore(const Arguments& a, std::stop_token stop) {
    const fs::path folder = a.word(0, "FOLDER"), to = a.word(1, "DIR");
    const BackupState state = stateOf(folder, a);
    const auto files = std::make_shared<FileStore>();
    const RestoreReport report = orRefuse(restoreBackup(folder, state, to, *files, stop, [](double part) {
        showProgress(part, msg("keep-commands.bringing-back"));
    }));
    for (const Message& note : report.notes) std::cerr << note << "\n";
    const auto library = orRefuse(Library::open(to, false, files));
    std::vector<Message> wrong;
    for (const Problem& p : orRefuse(library->examine(stop))) wrong.push_back(p.text);
    refuseWrong(wrong);
    std::cout << msg("keep-commands.brought-back", {{"at", state.at}, {"files", state.files.size()}}) << "\n";
}

void bundleExport(const Arguments& a, std::stop_token stop) {
    const auto library = openLibrary(a.word(0, "LIB"));
    BundleWish wish;
    if (const auto review = a.value("review")) {
        wish.review = ReviewId{*review};
        wish.athlete = orRefuse(library->review(*wish.review)).athlete;
    } else {
        wish.athlete = athleteCalled(*library, a.need("athlete"));
    }
    orRefuse(exportBundle(*library, wish, a.need("out"), stop,
                          [](double part) { showProgress(part, msg("keep-commands.bundling")); }));
}

void bundleImport(const Arguments& a, std::stop_token stop) {
    const auto library = openLibrary(a.word(0, "LIB"));
    const BundleReport report =
        orRefuse(importBundle(*library, a.word(1, "BUNDLE"), SystemClock().today(), stop,
                              [](double part) { showProgress(part, msg("keep-commands.taking-in")); }));
    if (a.has("json")) {
        std::cout << json{{"athlete", report.athlete.value},
                          {"added", report.added},
                          {"same", report.same},
                          {"differs", report.differs}}
                         .dump(2)
                  << "\n";
        return;
    }
    std::cout << msg("keep-commands.taken-in", {{"added", report.added}, {"same", report.same}}) << "\n";
    for (const Message& line : report.differs) std::cout << line << "\n";
}

void forget(const Arguments& a, std::stop_token) {
    const auto library = openLibrary(a.word(0, "LIB"));
    const AthleteId athlete = athleteCalled(*library, a.word(1, "ATHLETE"));
    const Belongings b = orRefuse(library->belongingsOf(athlete));
    const Message what = msg("keep-commands.belongings", {{"name", b.name},
                                                          {"submissions", b.submissions},
                                                          {"reviews", b.reviews},
                                                          {"mails", b.mails},
                                                          {"files", b.files.size()}});
    if (!a.has("yes")) {
        std::cout << what << "\n" << msg("keep-commands.say-yes") << "\n";
        return;
    }
    const auto left = orRefuse(library->forgetAthlete(athlete, SystemClock().today()));
    std::cout << msg("keep-commands.forgotten", {{"what", what}}) << "\n";
    for (const Message& line : left) std::cout << line << "\n";
}

} // namespace

std::vector<Command> keepCommands() {
    return {{"backup",
             "backup LIB FOLDER [--check] [--json]  (copies what is new; --check reads all of it again)",
             {},
             {"check", "json"},
             2,
             2,
             backup},
            {"restore",
             "restore FOLDER DIR [--at STATE]  (DIR is not there yet, or empty)",
             {"at"},
             {},
             2,
             2,
             restore},
            {"bundle export",
             "bundle export LIB --athlete ATHLETE | --review ID --out FILE.zip",
             {"athlete", "review", "out"},
             {},
             1,
             1,
             bundleExport},
            {"review import", "review import LIB FILE.zip [--json]", {}, {"json"}, 2, 2, bundleImport},
            {"bundle import", "bundle import LIB FILE.zip [--json]", {}, {"json"}, 2, 2, bundleImport},
            {"forget",
             "forget LIB ATHLETE [--yes]  (says what would go; --yes deletes it for good)",
             {},
             {"yes"},
             2,
             2,
             forget}};
}

} // namespace jg::cli
