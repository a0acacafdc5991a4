// SPDX-License-Identifier: GPL-3.0-or-later
// All letters that are ready: one look at who gets what, and one key that sends them.
#pragma once

#include "base/clock.h"
#include "desk/jobs/job.h"
#include "desk/sending/ready_letters.h"
#include "ui/forms/mail_password.h"

#include <QDialog>
#include <QPointer>

#include <vector>

class QCheckBox;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace jg::ui {

/// Reads what is ready beside the window, lets the coach tick who gets their letter, sends them one after the
/// other and says of each how it ended. Deletes itself when closed; closing it while letters go out stops
/// before the next one.
class SendAllDialog : public QDialog {
    Q_OBJECT
public:
    SendAllDialog(Library& library, const Playbook& playbook, const Clock& clock, MailPassword& password,
                  QWidget* parent);
    ~SendAllDialog() override;

Q_SIGNALS:
    /// Something lies in the outbox now, or went out.
    void outboxChanged();

protected:
    void reject() override;

private:
    void sendThese(const std::vector<ReadyLetter>& chosen, const SendOrder& order);
    void look();
    void show(const Result<std::vector<ReadyLetter>>& letters);
    QWidget* rowOf(const ReadyLetter& letter);
    void countTicked();
    void send();
    void tellStep(std::size_t which, SendStep step, double part);
    void ended(const std::vector<SentLetter>& sent);

    Library& library_;
    const Playbook& playbook_;
    const Clock& clock_;
    MailPassword& password_;
    std::vector<ReadyLetter> letters_;
    std::vector<QCheckBox*> ticks_; ///< one a letter; null where it can't go out
    QVBoxLayout* rows_;
    QLabel* state_;
    QPushButton* send_;
    QPointer<Job> job_;
    Inbox inbox_;
};

} // namespace jg::ui
