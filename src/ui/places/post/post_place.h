// SPDX-License-Identifier: GPL-3.0-or-later
// The post: what waits, what went out, and the mail server.
#pragma once

#include "base/clock.h"
#include "desk/jobs/job.h"
#include "desk/sending/due_mails.h"
#include "ui/forms/mail_password.h"

#include <QPointer>
#include <QWidget>

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace jg::ui {

class PostPlace : public QWidget {
    Q_OBJECT
public:
    PostPlace(const Playbook& playbook, const Clock& clock, MailPassword& password,
              QWidget* parent = nullptr);
    void show(Library& library);
    /// Hands over what is due, one after the other; asked from time to time. Does nothing while something
    /// runs.
    void sendWhatIsDue();

Q_SIGNALS:
    void outboxChanged();
    void startPostOffice();

private:
    /// sendAgain() or sendDue().
    using HandOver = std::function<Status(Library&, const Playbook&, OutboxItem, const SendOrder&,
                                          const Clock&, std::stop_token, const SendProgress&)>;

    /// `due`: when it goes out by itself; nothing when it waits for a hand.
    QWidget* itemRow(const OutboxItem& item, const std::optional<DueMail>& due);
    void again(const OutboxItem& item);
    void againWith(const OutboxItem& item, Repeat repeat);
    /// Begins the job, with a library of its own; false when there is none.
    bool handOver(const OutboxItem& item, const SendOrder& order, const HandOver& send);
    void editServer();
    void tryServer();
    void tryServerWith(const SendOrder& order);
    void sendAllReady();

    const Playbook& playbook_; ///< the library's, which grows
    const Clock& clock_;
    MailPassword& password_;
    Library* library_ = nullptr;
    QLabel* server_;
    QVBoxLayout* rows_;
    QPointer<Job> job_;
};

} // namespace jg::ui
