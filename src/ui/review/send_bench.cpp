#include "ui/review/send_bench.h"

#include "review/send_check.h"
#include "ui/theme.h"

#include <QCheckBox>
#include <QProgressBar>
#include <QScrollArea>

#include <filesystem>

namespace jg::ui {

SendBench::SendBench(ReviewContext& context, LetterView& letter,
                     std::function<std::optional<QString>()> askPassword)
    : Bench(context)
    , letter_(letter)
    , askPassword_(std::move(askPassword)) {
    column_->addWidget(heading("Send"));
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    who_ = plain("", 13.5, true);
    what_ = quiet("", 12.5);
    box->addWidget(who_);
    box->addWidget(what_);
    column_->addWidget(card);
    pain_ = new QCheckBox("I have read the caution at the top of the letter.");
    pain_->setObjectName("confirm-pain");
    connect(pain_, &QCheckBox::toggled, this, [this](bool on) {
        if (on == review().plan.painConfirmed) return;
        Plan plan = review().plan;
        plan.painConfirmed = on;
        perform("Confirm the caution", {SetPlan{plan}});
    });
    column_->addWidget(pain_);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    problems_ = new QVBoxLayout(inner);
    problems_->setContentsMargins(0, 0, 4, 0);
    problems_->setSpacing(6);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column_->addWidget(scroll, 1);
    state_ = plain("", 13);
    state_->setObjectName("send-state");
    column_->addWidget(state_);
    progress_ = new QProgressBar;
    progress_->setRange(0, 100);
    column_->addWidget(progress_);
    auto* row = new QHBoxLayout;
    send_ = mainButton("Send the letter");
    send_->setObjectName("main");
    cancel_ = plainButton("Cancel");
    connect(send_, &QPushButton::clicked, this, [this] { c_.runAction("send"); });
    connect(cancel_, &QPushButton::clicked, this, [this] {
        if (job_) job_->cancel();
    });
    row->addWidget(send_, 1);
    row->addWidget(cancel_);
    column_->addLayout(row);
    progress_->hide();
    cancel_->hide();
    refresh();
}

void SendBench::enter() {
    refresh();
    preview();
}

void SendBench::leave() {
    if (previewJob_) previewJob_->cancel();
}

void SendBench::refresh() {
    const Athlete& athlete = c_.session.athlete();
    const Date today = c_.session.clock().today();
    if (auto to = recipientFor(athlete, today)) {
        who_->setText(QString("To %1, %2").arg(text(to->name), text(to->email)));
        what_->setText(
            QString("%1The letter as PDF%2. Nobody else gets anything.")
                .arg(to->guardian ? text(athlete.firstName) + " is under 18: the guardian gets it. "
                                  : QString(),
                     review().takes.empty()
                         ? QString()
                         : QString(" and the narrated film, %1 stops").arg(review().takes.size())));
    } else {
        who_->setText("No recipient yet");
        what_->setText(text(to.error().text));
    }
    pain_->setVisible(c_.session.pain());
    pain_->setChecked(review().plan.painConfirmed);
    rebuildProblems();
}

void SendBench::rebuildProblems() {
    while (QLayoutItem* item = problems_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    if (review().sent) {
        problems_->addWidget(quiet(
            QString("Sent on %1 to %2.").arg(text(longDate(review().sent->on)), text(review().sent->to)),
            13));
        problems_->addStretch(1);
        send_->setEnabled(false);
        return;
    }
    const auto all = checkBeforeSending(review(), playbook(), c_.session.assessment(), c_.session.athlete(),
                                        c_.session.submission(), c_.session.clock().today());
    if (forbids(all)) problems_->addWidget(plain("Before it can go out", 13.5, true));
    bool said = false;
    for (const SendProblem& p : all) {
        if (!p.stop && !said) {
            problems_->addWidget(quiet("Worth a thought"));
            said = true;
        }
        auto* note = new QFrame;
        note->setObjectName(p.stop ? "pain" : "note");
        auto* box = new QVBoxLayout(note);
        box->setContentsMargins(12, 7, 10, 7);
        box->addWidget(plain(text(p.text), 12.5));
        problems_->addWidget(note);
    }
    if (all.empty())
        problems_->addWidget(quiet(
            "Nothing is open: every item is looked at, every stop is said, every drill has its dose.", 13));
    problems_->addStretch(1);
    send_->setEnabled(!forbids(all) && !busy());
}

void SendBench::preview() {
    if (previewJob_) previewJob_->cancel();
    letter_.setMessage("Laying the letter out \u2026");
    const DispatchRecipe recipe = previewRecipe(c_.session);
    previewJob_ =
        new Job(this, [this, recipe](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
            auto stills = correctionStills(recipe.film);
            if (stop.stop_requested()) return {};
            return [this, stills = std::move(stills), letter = recipe.film.letter]() mutable {
                if (stills)
                    letter_.setPages(std::make_shared<LetterPages>(letter, std::move(*stills)));
                else
                    letter_.setMessage(text(stills.error().text));
            };
        });
}

void SendBench::setBusy(const QString& what) {
    state_->setText(what);
    const bool working = !what.isEmpty() && job_;
    progress_->setVisible(working);
    cancel_->setVisible(working);
    send_->setEnabled(!working);
}

void SendBench::send() {
    if (busy()) return;
    auto recipe = dispatchRecipe(c_.session);
    if (!recipe) {
        c_.say(text(recipe.error().text));
        return;
    }
    const auto work = c_.session.library().folder() / "sent" / ("work-" + review().id.value);
    progress_->setValue(0);
    job_ = new Job(this,
                   [this, recipe = *recipe, work](std::stop_token stop,
                                                  const Job::Progress& progress) -> Job::Continuation {
                       FileStore files;
                       auto parcel = packParcel(recipe, work, files, stop, progress);
                       std::error_code ec;
                       std::filesystem::remove_all(work, ec);
                       return [this, recipe, parcel = std::move(parcel)] {
                           job_ = nullptr;
                           if (parcel) return mail(recipe, *parcel);
                           setBusy({});
                           state_->setText(text(parcel.error().text));
                           refresh();
                       };
                   });
    connect(job_, &Job::progressed, progress_,
            [this](double part) { progress_->setValue(static_cast<int>(part * 100)); });
    setBusy("Making the film \u2026");
}

void SendBench::mail(const DispatchRecipe& recipe, const Parcel& parcel) {
    auto item =
        putInOutbox(c_.session.library(), review().id, recipe, parcel, c_.session.clock(), c_.session.ids());
    if (!item) {
        setBusy({});
        state_->setText(text(item.error().text));
        return;
    }
    Q_EMIT outboxChanged();
    MailServer server = mailServerOf(c_.session.library(), "");
    if (!server.user.empty()) {
        const auto password = askPassword_();
        if (!password) {
            setBusy({});
            state_->setText("Without the password nothing was sent. The letter waits in the outbox.");
            return;
        }
        server.password = password->toStdString();
    }
    const std::string from = recipe.house.coachEmail;
    job_ = new Job(this,
                   [this, server, from, item = *item, bytes = parcel.bytes](
                       std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
                       const Status sent = sendMail(server, from, item.recipient, bytes, stop, progress);
                       return [this, item, sent] {
                           job_ = nullptr;
                           settled(item, sent);
                       };
                   });
    connect(job_, &Job::progressed, progress_,
            [this](double part) { progress_->setValue(static_cast<int>(part * 100)); });
    setBusy("Handing it to the mail server \u2026");
}

void SendBench::settled(const OutboxItem& item, const Status& result) {
    const Status stored = c_.session.settle(item, result);
    setBusy({});
    state_->setText(result ? "Sent to " + text(item.recipient) + "."
                           : text(result.error().text) + " It waits in the outbox; nothing is lost.");
    if (!stored) state_->setText(text(stored.error().text));
    refresh();
    Q_EMIT outboxChanged();
}

bool SendBench::act(const QString& id) {
    if (id != "send") return false;
    if (send_->isEnabled())
        send();
    else
        c_.say(review().sent ? "It is sent already."
               : busy()      ? "It is being sent."
                             : "Something stands in the way: see the list beside the letter.");
    return true;
}

} // namespace jg::ui
