// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/desk/mail_doors.h"

#include "base/caught.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"
#include "ui/places/desk/intake_dialog.h"

#include <QDir>
#include <QLineEdit>

#include <algorithm>

namespace jg::ui {

namespace fs = std::filesystem;

MailDoors::MailDoors(MailSurroundings around, QObject* parent)
    : QObject(parent)
    , around_(std::move(around)) {
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, [this] { around_.changed(); });
    watch();
}

void MailDoors::watch() {
    if (!watcher_.directories().isEmpty()) watcher_.removePaths(watcher_.directories());
    const fs::path folder = watchedFolder(around_.library);
    if (folder.empty()) return;
    for (const fs::path& each : {folder, folder / "new", folder / "cur"})
        if (const QString path = jg::text(each.string()); QDir(path).exists()) watcher_.addPath(path);
}

void MailDoors::take(const std::vector<fs::path>& mails) {
    queue_.insert(queue_.end(), mails.begin(), mails.end());
    next();
}

void MailDoors::takeWaiting() {
    const auto waiting = mailsWaiting(around_.library);
    if (waiting.empty() && queue_.empty())
        return watchedFolder(around_.library).empty() ? askFolder()
                                                      : around_.tell(say("mail-doors.none-waits"));
    for (const fs::path& mail : waiting)
        if (std::find(queue_.begin(), queue_.end(), mail) == queue_.end()) queue_.push_back(mail);
    next();
}

void MailDoors::next() {
    if (job_ || dialog_ || queue_.empty()) return;
    const fs::path mail = queue_.front();
    queue_.pop_front();
    auto again = around_.library.again();
    if (!again) return around_.tell(say(again.error().text));
    std::shared_ptr<Library> own = std::move(*again);
    around_.tell(say("mail-doors.reading"));
    job_ = new Job(this, [this, own, mail](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
        auto read = std::make_shared<Result<MailIntake>>(caught([&] { return openMail(*own, mail, stop); }));
        return [this, read, mail] {
            job_ = nullptr;
            opened(*read, mail);
        };
    });
}

void MailDoors::opened(Result<MailIntake>& mail, const fs::path& source) {
    if (!mail) {
        around_.tell(say(mail.error().text));
        // What holds no film is not offered again; what could not be read may be readable later.
        if (mail.error().code == ErrorCode::BadInput) settle(source);
        return next();
    }
    around_.tell({});
    dialog_ = around_.openIntake();
    dialog_->fillFrom(*mail);
    connect(dialog_, &IntakeDialog::taken, this, [this, source, key = mail->key] { settle(source, key); });
    connect(dialog_, &IntakeDialog::putAside, this, [this, source, key = mail->key] { settle(source, key); });
    connect(dialog_, &QDialog::finished, this, [this] {
        dialog_ = nullptr;
        next();
    });
}

void MailDoors::settle(const fs::path& source, const std::string& key) {
    if (const Status settled = settleIncoming(around_.library, source, key); !settled)
        around_.tell(say(settled.error().text));
    around_.changed();
}

void MailDoors::askFolder() {
    auto* form =
        new FormDialog(&around_.window, "mail-folder", say("mail-doors.title"), say("mail-doors.hint"));
    auto* folder = form->line("folder", say("mail-doors.folder"), text(watchedFolder(around_.library)),
                              say("mail-doors.none"));
    form->does(say("mail-doors.watch"));
    form->openWith([this, folder]() -> std::optional<QString> {
        const Status kept = watchFolder(around_.library, folder->text().trimmed().toStdString());
        if (!kept) return say(kept.error().text);
        watch();
        around_.changed();
        return std::nullopt;
    });
}

} // namespace jg::ui
