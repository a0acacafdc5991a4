// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/fault_report.h"

#include "film/film_version.h"
#include "library/schema_version.h"

#include <QSysInfo>

namespace jg {

namespace {

/// How many, or that they can't be read.
template <typename T>
Message countOf(const Result<std::vector<T>>& all) {
    return all ? number(static_cast<double>(all->size())) : msg("fault-report.unreadable");
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
                                         {"athletes", countOf(store.athletes())},
                                         {"submissions", countOf(store.submissions())},
                                         {"reviews", countOf(store.reviews())},
                                         {"mails", countOf(store.outbox())}}),
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
        if (around.nowUnix - note.unix >= std::int64_t{kFaultHours} * 3600) continue;
        log += lineOf(note) + "\n";
        ++count;
    }
    return text + "\n" + words(msg("fault-report.log", {{"count", count}, {"hours", kFaultHours}})) + "\n" +
           log;
}

} // namespace jg
