// SPDX-License-Identifier: GPL-3.0-or-later
// Send: who gets what, what stands in the way, and the way out.
#pragma once

#include "desk/jobs/job.h"
#include "desk/sending/outgoing.h"
#include "ui/bench/bench.h"
#include "ui/forms/mail_password.h"
#include "ui/stages/send/letter_view.h"
#include "voice/loudspeaker.h"

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
    SendBench(ReviewContext& context, LetterView& letter, MailPassword& password, Loudspeaker& loudspeaker);
    void refresh() override;
    void enter() override;
    void leave() override;
    Handlers handlers() override;
    KeyHints hints() const override;
    bool busy() const { return job_ != nullptr; }

Q_SIGNALS:
    void outboxChanged();

private:
    void preview();
    void askOnce();
    void sendByKey();
    void send();
    void sendWith(const SendOrder& order);
    void settled(const Result<OutboxItem>& sent);
    /// Lays the letter into the outbox until a time that is asked for.
    void sendLater();
    void setBusy(const QString& what);
    void rebuildProblems();
    QPushButton* doorTo(Stage stage);
    /// Changes a sentence of the letter where it stands.
    void editSentence();
    void keepSentence(const std::string& key, const QString& words);
    void watch();
    void saveAll();
    void choose();
    /// For whom the letter is written, and in which language.
    void chooseReader();
    /// Runs what has a cancel and a bar beside the window; `then` gets its result there.
    template <typename Work, typename Then>
    void work(const QString& what, Work work, Then then);

    LetterView& letter_;
    MailPassword& password_;
    Loudspeaker& loudspeaker_;
    QLabel* who_;
    QLabel* what_;
    QCheckBox* pain_;
    QVBoxLayout* problems_;
    QPushButton* send_;
    QPushButton* watch_;
    QPushButton* cancel_;
    QProgressBar* progress_;
    QLabel* state_;
    QTimer asked_; ///< runs while a second press sends
    QPointer<Job> job_;
    QPointer<Job> previewJob_;
    LetterModel shown_; ///< the letter that stands in the middle, or is being laid out
};

} // namespace jg::ui
