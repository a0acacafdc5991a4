// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/fault_report.h"

#include "film/film_version.h"
#include "library/schema_version.h"

#include <QSysInfo>

namespace jg {

namespace {

/// How many, or that they can't be read.
Message told(const Result<int>& count) {
    return count ? number(*count) : msg("fault-report.unreadable");
}

template <typename T>
Result<int> countOf(const Result<std::vector<T>>& all) {
    return all ? Result<int>(static_cast<int>(all->size())) : Result<int>(all.error());
}

std::string system() {
    return QStringLiteral("%1, %2 %3, %4")
        .arg(QSysInfo::prettyProductName(), QSysInfo::kernelType(), QSysInfo::kernelVersion(),
             QSysInfo::currentCpuArchitecture())
        .toStdString();
}

Message yesOrNo(bool yes) {
    return msg(yes ? "fault-report.yes" : "fault-report.no");
}

std::vector<Message> facts(Store& store, const FaultSurroundings& around) {
    return {msg("fault-report.program", {{"version", JG_VERSION}}),
            msg("fault-report.system", {{"system", system()}}),
            msg("fault-report.libraries", {{"qt", qVersion()}, {"ffmpeg", ffmpegVersion()}}),
            msg("fault-report.screen", {{"screen", around.screen}}),
            msg("fault-report.library", {{"schema", kSchemaVersion},
                                         {"athletes", told(store.athleteCount())},
                                         {"submissions", told(countOf(store.submissions()))},
                                         {"reviews", told(countOf(store.reviews()))},
                                         {"mails", told(countOf(store.outbox()))}}),
            msg("fault-report.only-read", {{"yes", yesOrNo(store.readOnly())}}),
            msg("fault-report.names-hidden", {{"yes", yesOrNo(around.namesHidden)}})};
}

} // namespace

std::string faultReport(Store& store, const std::vector<FaultNote>& notes, const FaultSurroundings& around,
                        const Words& words) {
    std::string text;
    for (const Message& fact : facts(store, around)) text += words(fact) + "\n";
    std::string log;
    int count = 0;
    for (const FaultNote& note : notes) {
        if (!isRecent(note, around.nowUnix)) continue;
        log += lineOf(note) + "\n";
        ++count;
    }
    return text + "\n" + words(msg("fault-report.log", {{"count", count}, {"hours", kFaultHours}})) + "\n" +
           log;
}

} // namespace jg
