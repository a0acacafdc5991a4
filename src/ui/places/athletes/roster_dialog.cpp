// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/roster_dialog.h"

#include "base/caught.h"
#include "desk/jobs/job.h"
#include "ui/kit/row_list.h"
#include "ui/kit/theme.h"

#include <QDialog>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

namespace {

ListRow lineOf(const RosterRow& row) {
    ListRow line;
    line.title = text(row.who.empty() ? std::string("?") : row.who);
    line.sub = row.words.empty()
                   ? say("roster-dialog.line", {{"line", row.line}})
                   : say("roster-dialog.line-words", {{"line", row.line}, {"words", row.words}});
    line.right = say(msg("roster-kind." + std::string(idOf(row.kind))));
    line.rightAccent = row.kind == RosterKind::Refused;
    return line;
}

} // namespace

void askRoster(QWidget* parent, Library& library, const QString& file, Date today,
               const std::function<void(const QString&)>& then) {
    const auto rows = readRoster(library, file.toStdString(), today);
    if (!rows) return then(say(rows.error().text));
    const auto count = [&](RosterKind kind) {
        return std::count_if(rows->begin(), rows->end(), [&](const RosterRow& r) { return r.kind == kind; });
    };
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName("roster");
    dialog->setWindowTitle(say("roster-dialog.title"));
    dialog->resize(em(620), em(500));
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(24, 18, 24, 18);
    column->addWidget(heading(say("roster-dialog.title"), 20));
    column->addWidget(quiet(say("roster-dialog.what", {{"new", count(RosterKind::New)},
                                                       {"changed", count(RosterKind::Changed)},
                                                       {"same", count(RosterKind::Same)},
                                                       {"refused", count(RosterKind::Refused)}}),
                            13));
    auto* list = new RowList;
    list->setObjectName("roster-rows");
    list->setAccessibleName(say("roster-dialog.title"));
    std::vector<ListRow> lines;
    for (const RosterRow& row : *rows) lines.push_back(lineOf(row));
    list->setRows(std::move(lines));
    column->addWidget(list, 1);
    const auto kept = count(RosterKind::New) + count(RosterKind::Changed);
    auto* keep = mainButton(say("roster-dialog.keep", {{"count", kept}}));
    keep->setObjectName("roster-keep");
    keep->setEnabled(kept > 0);
    const auto done = [dialog, keep, &library, rows = *rows, then] {
        auto own = library.again();
        if (!own) return then(say(own.error().text));
        keep->setEnabled(false);
        new Job(dialog, [=, own = std::shared_ptr<Library>(std::move(*own))](std::stop_token,
                                                                             const Job::Progress&) {
            const auto result = caught([&] { return keepRoster(*own, rows); });
            return Job::Continuation([=] {
                dialog->accept();
                then(result ? say("roster-dialog.kept", {{"count", *result}}) : say(result.error().text));
            });
        });
    };
    QObject::connect(keep, &QPushButton::clicked, dialog, done);
    auto* key = new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_Return), dialog);
    QObject::connect(key, &QShortcut::activated, dialog, [keep, done] {
        if (keep->isEnabled()) done();
    });
    column->addWidget(keep, 0, Qt::AlignRight);
    dialog->open();
}

} // namespace jg::ui
