// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/keep/keep_jobs.h"

#include "base/caught.h"
#include "desk/jobs/job.h"
#include "desk/pages/season.h"
#include "desk/session/juxta.h"
#include "letter/juxta_tables.h"
#include "library/backup.h"
#include "library/bundle.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"
#include "words/words.h"

#include <QLineEdit>

namespace jg::ui {

namespace {

/// Runs with a library of its own; the progress is told, and then what `work` says.
void runBeside(QWidget* parent, Library& library, const char* saying, const TellKeep& tell,
               const std::function<Message(Library&, std::stop_token, const Job::Progress&)>& work,
               const std::function<void()>& then = {}) {
    auto other = library.again();
    if (!other) return tell(say(other.error().text), true);
    tell(say(saying, {{"percent", 0}}), true);
    auto* job = new Job(parent,
                        [own = std::shared_ptr<Library>(std::move(*other)), work, tell,
                         then](std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
                            const auto done =
                                caught([&] { return Result<Message>(work(*own, stop, progress)); });
                            const Message ended = done ? *done : done.error().text;
                            return [ended, tell, then] {
                                tell(say(ended), true);
                                if (then) then();
                            };
                        });
    QObject::connect(job, &Job::progressed, parent, [tell, saying](double part) {
        tell(say(saying, {{"percent", std::lround(part * 100)}}), true);
    });
}

} // namespace

void backUpTo(QWidget* parent, Library& library, const QString& folder, std::int64_t nowUnix,
              const TellKeep& tell) {
    runBeside(parent, library, "keep.backing-up", tell,
              [to = std::filesystem::path(folder.toStdString()), nowUnix](Library& own, std::stop_token stop,
                                                                          const Job::Progress& progress) {
                  constexpr double kHalf = 0.5; // copying, then reading it again
                  const auto state =
                      backUp(own, to, nowUnix, stop, [&](double part) { progress(part * kHalf); });
                  if (!state) return state.error().text;
                  auto wrong =
                      checkBackup(to, *state, stop, [&](double part) { progress(kHalf + part * kHalf); });
                  if (!wrong) return wrong.error().text;
                  for (const std::string& file : state->missing)
                      wrong->push_back(msg("backup.was-missing", {{"file", file}}));
                  if (!wrong->empty()) return joined(ListStyle::Sentences, *wrong);
                  return msg("keep.backed-up",
                             {{"files", state->files.size()},
                              {"megabytes", Decimal{static_cast<double>(state->copiedBytes) / 1e6, 0}}});
              });
}

void saveBundle(QWidget* parent, Library& library, const AthleteId& athlete, const TellKeep& tell) {
    const QString path = fileToSave(parent, say("keep.bundle"), "athlete.zip", "ZIP (*.zip)");
    if (!path.isEmpty()) saveBundleTo(parent, library, athlete, path, tell);
}

void saveBundleTo(QWidget* parent, Library& library, const AthleteId& athlete, const QString& path,
                  const TellKeep& tell) {
    runBeside(parent, library, "keep.bundling", tell,
              [athlete, to = path.toStdString()](Library& own, std::stop_token stop,
                                                 const Job::Progress& progress) {
                  const Status done = exportBundle(own, {athlete}, to, stop, progress);
                  return done ? msg("keep.bundled", {{"file", to}}) : done.error().text;
              });
}

void saveNumbers(QWidget* parent, Library& library, const Playbook& playbook, const AthleteId& athlete,
                 const TellKeep& tell) {
    const QString path = fileToSave(parent, say("keep.numbers"), "numbers.csv", "CSV (*.csv)");
    if (!path.isEmpty()) saveNumbersTo(parent, library, playbook, athlete, path, tell);
}

void saveNumbersTo(QWidget* parent, Library& library, const Playbook& playbook, const AthleteId& athlete,
                   const QString& path, const TellKeep& tell) {
    runBeside(
        parent, library, "keep.writing-numbers", tell,
        [athlete, playbook, to = path.toStdString()](Library& own, std::stop_token, const Job::Progress&) {
            const auto all = allDeliveries(own, playbook, athlete);
            if (!all) return all.error().text;
            const Status done = own.files().write(to, numbersAsCsv(*all, playbook));
            return done ? msg("keep.numbers-written", {{"file", to}, {"deliveries", all->size()}})
                        : done.error().text;
        });
}

void saveSeason(QWidget* parent, Library& library, const Playbook& playbook, const AthleteId& athlete,
                Date today, const TellKeep& tell) {
    const QString path = fileToSave(parent, say("keep.season"), "season.pdf", "PDF (*.pdf)");
    if (!path.isEmpty()) saveSeasonTo(parent, library, playbook, athlete, today, path, tell);
}

void saveSeasonTo(QWidget* parent, Library& library, const Playbook& playbook, const AthleteId& athlete,
                  Date today, const QString& path, const TellKeep& tell) {
    runBeside(parent, library, "keep.writing-season", tell,
              [athlete, playbook, today, to = path.toStdString()](Library& own, std::stop_token,
                                                                  const Job::Progress&) {
                  const Status done = writeSeason(own, playbook, athlete, today, english(), to);
                  return done ? msg("keep.season-written", {{"file", to}}) : done.error().text;
              });
}

void takeInBundle(QWidget* parent, Library& library, const QString& path, Date today, const TellKeep& tell,
                  const std::function<void()>& then) {
    runBeside(
        parent, library, "keep.taking-in", tell,
        [from = path.toStdString(), today](Library& own, std::stop_token stop,
                                           const Job::Progress& progress) {
            const auto report = importBundle(own, from, today, stop, progress);
            if (!report) return report.error().text;
            std::vector<Message> told = {
                msg("keep.taken-in", {{"added", report->added}, {"same", report->same}})};
            told.insert(told.end(), report->differs.begin(), report->differs.end());
            return joined(ListStyle::Sentences, std::move(told));
        },
        then);
}

void askToForget(QWidget* parent, Library& library, const AthleteId& athlete, Date today,
                 const TellKeep& tell, const std::function<void()>& then) {
    const auto b = library.belongingsOf(athlete);
    if (!b) return tell(say(b.error().text), true);
    auto* d = new FormDialog(parent, "forget", say("keep.forget-title", {{"name", b->name}}),
                             say("keep.forget-hint", {{"submissions", b->submissions},
                                                      {"reviews", b->reviews},
                                                      {"mails", b->mails},
                                                      {"files", b->files.size()}}));
    auto* name = d->line("forget-name", say("keep.forget-name"), {}, text(b->name));
    for (const std::string& folder : b->backups)
        d->remark(say("library.backup-still-holds", {{"folder", folder}}));
    d->does(say("keep.forget-it", {{"name", b->name}}));
    d->openWith([parent, &library, b = *b, name, today, tell, then]() -> std::optional<QString> {
        if (name->text().trimmed().toStdString() != b.name)
            return say("keep.forget-type", {{"name", b.name}});
        // The database is written anew, which takes a while in a large library.
        runBeside(
            parent, library, "keep.forgetting", tell,
            [b, today](Library& own, std::stop_token, const Job::Progress&) {
                const auto left = own.forgetAthlete(b.athlete, today);
                if (!left) return left.error().text;
                std::vector<Message> told = {msg("keep.forgotten", {{"name", b.name}})};
                told.insert(told.end(), left->begin(), left->end());
                return joined(ListStyle::Sentences, std::move(told));
            },
            then);
        return std::nullopt;
    });
}

} // namespace jg::ui
