#include "ui/review/send_bench.h"

#include "review/send_check.h"
#include "ui/theme.h"

#include <QCheckBox>
#include <QProgressBar>
#include <QScrollArea>

#include <atomic>

namespace jg::ui {

SendBench::SendBench(ReviewContext& context, LetterView& letter, MailPassword& password)
    : Bench(context)
    , letter_(letter)
    , password_(password) {
    column_->addWidget(heading(say("send-bench.send")));
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    who_ = plain("", 13.5, true);
    what_ = quiet("", 12.5);
    box->addWidget(who_);
    box->addWidget(what_);
    column_->addWidget(card);
    pain_ = new QCheckBox(say("send-bench.i-have-read-the-caution-at"));
    pain_->setObjectName("confirm-pain");
    connect(pain_, &QCheckBox::toggled, this, [this](bool on) {
        if (on == review().plan.painConfirmed) return;
        Plan plan = review().plan;
        plan.painConfirmed = on;
        perform(msg("send-bench.confirm-the-caution"), {SetPlan{plan}});
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
    send_ = mainButton(say("send-bench.send-the-letter"));
    send_->setObjectName("main");
    cancel_ = plainButton(say("athlete-dialog.cancel"));
    connect(send_, &QPushButton::clicked, this, &SendBench::send);
    connect(cancel_, &QPushButton::clicked, this, [this] {
        if (job_) job_->cancel();
    });
    row->addWidget(send_, 1);
    row->addWidget(cancel_);
    column_->addLayout(row);
    progress_->hide();
    cancel_->hide();
    asked_.setSingleShot(true);
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
        who_->setText(say("send-bench.to-to-email", {{"to", to->name}, {"email", to->email}}));
        what_->setText(
            say(joined(ListStyle::Sentences,
                       {review().plan.drills.empty() ? Message{} : msg("send-bench.with-week"),
                        to->guardian ? msg("send-bench.guardian", {{"name", athlete.firstName}}) : Message{},
                        review().takes.empty()
                            ? msg("send-bench.letter-only")
                            : msg("send-bench.letter-and-film", {{"stops", review().takes.size()}})})));
    } else {
        who_->setText(say("send-bench.no-recipient-yet"));
        what_->setText(say(to.error().text));
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
            say("send-bench.sent-on-on-to-to", {{"on", review().sent->on}, {"to", review().sent->to}}), 13));
        problems_->addWidget(quiet(say("send-bench.it-stays-as-it-was-sent"), 12.5));
        auto* anew = plainButton(say("send-bench.begin-a-new-review-of-these"));
        connect(anew, &QPushButton::clicked, this, [this] { c_.runAction("begin-another"); });
        problems_->addWidget(anew, 0, Qt::AlignLeft);
        problems_->addStretch(1);
        send_->setEnabled(false);
        return;
    }
    const auto all =
        checkBeforeSending(review(), playbook(), c_.session.told(), c_.session.athlete(),
                           c_.session.submission(), c_.session.clock().today(), c_.session.pain());
    if (forbids(all)) problems_->addWidget(plain(say("send-bench.before-it-can-go-out"), 13.5, true));
    bool said = false;
    for (const SendProblem& p : all) {
        if (!p.stop && !said) {
            problems_->addWidget(quiet(say("send-bench.worth-a-thought")));
            said = true;
        }
        auto* note = new QFrame;
        note->setObjectName(p.stop ? "pain" : "note");
        auto* box = new QVBoxLayout(note);
        box->setContentsMargins(12, 7, 10, 7);
        box->addWidget(plain(say(p.text), 12.5));
        problems_->addWidget(note);
    }
    if (all.empty()) problems_->addWidget(quiet(say("send-bench.nothing-is-open-every-item-is"), 13));
    problems_->addStretch(1);
    send_->setEnabled(!forbids(all) && !busy());
}

void SendBench::preview() {
    if (previewJob_) previewJob_->cancel();
    letter_.setMessage(say("send-bench.laying-the-letter-out"));
    const DispatchRecipe recipe = previewRecipe(c_.session);
    previewJob_ =
        new Job(this, [this, recipe](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
            auto stills = correctionStills(recipe.film);
            if (stop.stop_requested()) return {};
            return [this, stills = std::move(stills), letter = recipe.film.letter,
                    words = recipe.film.words]() mutable {
                if (stills)
                    letter_.setPages(std::make_shared<LetterPages>(letter, std::move(*stills), words));
                else
                    letter_.setMessage(say(stills.error().text));
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
    if (!recipe) return c_.say(say(recipe.error().text));
    auto library = c_.session.library().again();
    if (!library) return c_.say(say(library.error().text));
    SendOrder order = sendOrderOf(c_.session.library(), "");
    if (!password_.fill(order, this))
        return state_->setText(say("send-bench.without-the-password-nothing-is-sent"));
    progress_->setValue(0);
    c_.session.hold(true);
    auto step = std::make_shared<std::atomic<SendStep>>(SendStep::Making);
    job_ = new Job(this,
                   [this, recipe = *recipe, order, step, clock = &c_.session.clock(),
                    own = std::shared_ptr<Library>(std::move(*library))](
                       std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
                       IdSource ids;
                       auto sent =
                           sendLetter(*own, recipe, order, *clock, ids, stop, [&](SendStep now, double part) {
                               *step = now;
                               progress(part);
                           });
                       return [this, sent = std::move(sent)] {
                           job_ = nullptr;
                           settled(sent);
                       };
                   });
    connect(job_, &Job::progressed, progress_, [this, step](double part) {
        progress_->setValue(static_cast<int>(part * 100));
        if (*step == SendStep::HandingOver) state_->setText(say("send-bench.handing-it-to-the-mail-server"));
    });
    setBusy(say("send-bench.making-the-letter-and-the-film"));
}

void SendBench::settled(const Result<OutboxItem>& sent) {
    c_.session.hold(false);
    password_.hear(sent ? Status(Done{}) : Status(sent.error()));
    const Status read = c_.session.reload();
    setBusy({});
    state_->setText(sent ? say("send-bench.sent-to-recipient", {{"recipient", sent->recipient}})
                         : say(sent.error().text));
    if (!read) state_->setText(say(read.error().text));
    refresh();
    Q_EMIT outboxChanged();
}

/// A key is easily hit: it asks once, the second time it sends.
void SendBench::askOnce() {
    constexpr int kAskedMs = 10000;
    if (asked_.isActive()) {
        asked_.stop();
        return send();
    }
    asked_.start(kAskedMs);
    c_.say(say("send-bench.once-more", {{"to", who_->text()}}));
}

Handlers SendBench::handlers() {
    return {{"send", [this] { sendByKey(); }}};
}

void SendBench::sendByKey() {
    if (send_->isEnabled())
        askOnce();
    else
        c_.say(review().sent ? say("send-bench.it-is-sent-already")
               : busy()      ? say("send-bench.it-is-being-sent")
                             : say("send-bench.something-stands-in-the-way-see"));
}

} // namespace jg::ui
