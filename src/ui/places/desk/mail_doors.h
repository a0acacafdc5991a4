// SPDX-License-Identifier: GPL-3.0-or-later
// Mails with films: dropped, or lying in the watched folder, one intake after the other.
#pragma once

#include "desk/intake/mail_intake.h"
#include "desk/jobs/job.h"

#include <QFileSystemWatcher>
#include <QPointer>

#include <deque>
#include <functional>

namespace jg::ui {

class IntakeDialog;

/// What the doors need of the window.
struct MailSurroundings {
    QWidget& window;
    Library& library;
    std::function<IntakeDialog*()> openIntake;
    std::function<void(const QString&)> tell;
    std::function<void()> changed; ///< something may have come in, or was settled
};

/// Lives in the window's thread; mails are read in a job.
class MailDoors : public QObject {
    Q_OBJECT
public:
    explicit MailDoors(MailSurroundings around, QObject* parent = nullptr);
    /// Opens these mails, one intake after the other.
    void take(const std::vector<std::filesystem::path>& mails);
    /// The same for all that wait in the watched folder.
    void takeWaiting();
    /// Asks for the folder that is watched.
    void askFolder();
    bool busy() const { return job_ != nullptr; }

private:
    void watch();
    void next();
    void opened(Result<MailIntake>& mail, const std::filesystem::path& source);
    void settle(const std::filesystem::path& source, const std::string& key = {});

    MailSurroundings around_;
    QFileSystemWatcher watcher_;
    std::deque<std::filesystem::path> queue_;
    QPointer<Job> job_;
    QPointer<IntakeDialog> dialog_;
};

} // namespace jg::ui
