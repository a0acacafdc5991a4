// The post: what waits, what went out, and the mail server.
#pragma once

#include "desk/job.h"
#include "desk/outgoing.h"
#include "ui/mail_password.h"

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
    QWidget* itemRow(const OutboxItem& item);
    void again(const OutboxItem& item);
    QString dueInWords(const OutboxItem& item) const;
    void editServer();
    void tryServer();
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
