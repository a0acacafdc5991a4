// Send: who gets what, what stands in the way, and the way out.
#pragma once

#include "desk/job.h"
#include "desk/outgoing.h"
#include "ui/mail_password.h"
#include "ui/review/bench.h"
#include "ui/review/letter_view.h"

#include <QPointer>
#include <QTimer>

class QPushButton;
class QCheckBox;
class QLabel;
class QProgressBar;

namespace jg::ui {

class SendBench : public Bench {
    Q_OBJECT
public:
    SendBench(ReviewContext& context, LetterView& letter, MailPassword& password);
    void refresh() override;
    void enter() override;
    void leave() override;
    Handlers handlers() override;
    KeyHints hints() const override {
        return {{"Ctrl+Enter", say("send-bench.send-the-letter-2"), "send"},
                {"PgUp", say("send-bench.back-to-the-week"), "stage-previous"}};
    }
    bool busy() const { return job_ != nullptr; }

Q_SIGNALS:
    void outboxChanged();

private:
    void preview();
    void askOnce();
    void sendByKey();
    void send();
    void settled(const Result<OutboxItem>& sent);
    void setBusy(const QString& what);
    void rebuildProblems();

    LetterView& letter_;
    MailPassword& password_;
    QLabel* who_;
    QLabel* what_;
    QCheckBox* pain_;
    QVBoxLayout* problems_;
    QPushButton* send_;
    QPushButton* cancel_;
    QProgressBar* progress_;
    QLabel* state_;
    QTimer asked_; ///< runs while a second press sends
    QPointer<Job> job_;
    QPointer<Job> previewJob_;
};

} // namespace jg::ui
