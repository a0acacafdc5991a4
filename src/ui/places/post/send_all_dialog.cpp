// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/post/send_all_dialog.h"

#include "base/caught.h"
#include "base/clock.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QScrollArea>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace jg::ui {

SendAllDialog::SendAllDialog(Library& library, const Playbook& playbook, const Clock& clock,
                             MailPassword& password, QWidget* parent)
    : QDialog(parent)
    , library_(library)
    , playbook_(playbook)
    , clock_(clock)
    , password_(password) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName("send-all");
    setWindowTitle(say("send-all.title"));
    resize(em(620), em(480));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 18, 24, 18);
    column->setSpacing(8);
    column->addWidget(heading(say("send-all.title"), 20));
    column->addWidget(quiet(say("send-all.hint"), 13));
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    rows_ = new QVBoxLayout(inner);
    rows_->setContentsMargins(0, 0, 8, 0);
    rows_->setSpacing(8);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    state_ = plain(say("send-all.looking"), 13);
    state_->setObjectName("send-all-state");
    column->addWidget(state_);
    send_ = mainButton(say("send-all.send", {{"count", 0}}));
    send_->setObjectName("send-all-go");
    send_->setEnabled(false);
    connect(send_, &QPushButton::clicked, this, &SendAllDialog::send);
    column->addWidget(send_, 0, Qt::AlignRight);
    auto* key = new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_Return), this);
    connect(key, &QShortcut::activated, this, [this] {
        if (send_->isEnabled()) send();
    });
    look();
}

/// Jobs end before what they hand their results to.
SendAllDialog::~SendAllDialog() {
    qDeleteAll(findChildren<Job*>(Qt::FindDirectChildrenOnly));
}

void SendAllDialog::look() {
    auto other = library_.again();
    if (!other) return state_->setText(say(other.error().text));
    new Job(this,
            [this, own = std::shared_ptr<Library>(std::move(*other)),
             book = playbook_](std::stop_token, const Job::Progress&) -> Job::Continuation {
                return [this, letters = caught([&] { return readyLetters(*own, book, clock_); })] {
                    show(letters);
                };
            });
}

void SendAllDialog::show(const Result<std::vector<ReadyLetter>>& letters) {
    if (!letters) return state_->setText(say(letters.error().text));
    letters_ = *letters;
    for (const ReadyLetter& letter : letters_) rows_->addWidget(rowOf(letter));
    rows_->addStretch(1);
    state_->setText(letters_.empty() ? say("send-all.none") : QString());
    countTicked();
}

QWidget* SendAllDialog::rowOf(const ReadyLetter& letter) {
    const bool can = letter.notYet.empty();
    auto* frame = new QFrame;
    frame->setObjectName(can ? "card" : "note");
    auto* row = new QHBoxLayout(frame);
    row->setContentsMargins(14, 8, 14, 8);
    auto* tick = can ? new QCheckBox : nullptr;
    ticks_.push_back(tick);
    if (tick) {
        tick->setChecked(true);
        tick->setAccessibleName(text(letter.athlete));
        connect(tick, &QCheckBox::toggled, this, &SendAllDialog::countTicked);
        row->addWidget(tick, 0, Qt::AlignTop);
    }
    auto* words = new QVBoxLayout;
    words->setSpacing(2);
    words->addWidget(plain(
        say("send-all.who", {{"name", letter.athlete.empty() ? msg("send-all.unread") : asIs(letter.athlete)},
                             {"date", letter.date}}),
        14, true));
    if (!letter.toAddress.empty())
        words->addWidget(quiet(say(letter.toGuardian ? "send-all.to-guardian" : "send-all.to",
                                   {{"name", letter.toName}, {"address", letter.toAddress}}),
                               12.5));
    std::vector<Message> what = {msg("send-all.corrections", {{"count", letter.corrections}})};
    if (letter.saidSeconds > 0)
        what.push_back(msg("send-all.film", {{"length", clockText(letter.saidSeconds).toStdString()}}));
    words->addWidget(quiet(say(joined(ListStyle::Dots, std::move(what))), 12.5));
    for (const Message& think : letter.think) words->addWidget(plain(say(think), 12.5));
    if (!can) {
        auto* why = plain(say(letter.notYet), 12.5, true);
        inClay(why);
        words->addWidget(why);
    }
    row->addLayout(words, 1);
    return frame;
}

void SendAllDialog::countTicked() {
    const auto ticked =
        std::count_if(ticks_.begin(), ticks_.end(), [](const QCheckBox* t) { return t && t->isChecked(); });
    send_->setText(say("send-all.send", {{"count", ticked}}));
    send_->setEnabled(ticked > 0 && !job_);
}

void SendAllDialog::send() {
    if (job_) return job_->cancel();
    std::vector<ReadyLetter> chosen;
    for (std::size_t i = 0; i < letters_.size(); ++i)
        if (ticks_[i] && ticks_[i]->isChecked()) chosen.push_back(letters_[i]);
    password_.fill(sendOrderOf(library_, ""), this, [this, chosen](const std::optional<SendOrder>& order) {
        if (!order) return state_->setText(say("send-bench.without-the-password-nothing-is-sent"));
        if (!job_) sendThese(chosen, *order);
    });
}

void SendAllDialog::sendThese(const std::vector<ReadyLetter>& chosen, const SendOrder& order) {
    auto other = library_.again();
    if (!other) return state_->setText(say(other.error().text));
    for (QCheckBox* tick : ticks_)
        if (tick) tick->setEnabled(false);
    job_ = new Job(this,
                   [this, order, chosen, book = playbook_, own = std::shared_ptr<Library>(std::move(*other))](
                       std::stop_token stop, const Job::Progress&) -> Job::Continuation {
                       IdSource ids;
                       const auto tell = [this](std::size_t which, SendStep step, double part) {
                           inbox_.put([this, which, step, part] { tellStep(which, step, part); });
                       };
                       const auto sent = sendAll(*own, book, chosen, order, clock_, ids, stop, tell);
                       return [this, sent] { ended(sent); };
                   });
    send_->setText(say("send-all.take-back"));
    send_->setEnabled(true);
}

void SendAllDialog::tellStep(std::size_t which, SendStep step, double part) {
    if (!job_) return;
    const Message place = msg("send-all.place", {{"number", which + 1}});
    const Message what =
        step == SendStep::Making    ? msg("send-all.making", {{"percent", std::lround(100 * part)}})
        : step == SendStep::Waiting ? msg("send-all.waiting", {{"seconds", std::lround(std::ceil(part))}})
                                    : msg("send-all.handing-over");
    state_->setText(say(joined(ListStyle::Dots, {place, what})));
    if (step == SendStep::HandingOver || which > 0) send_->setText(say("send-all.stop-after"));
}

void SendAllDialog::ended(const std::vector<SentLetter>& sent) {
    job_ = nullptr;
    clearLayout(*rows_);
    ticks_.clear();
    letters_.clear();
    std::size_t gone = 0;
    for (const SentLetter& s : sent) {
        auto* frame = new QFrame;
        frame->setObjectName(s.result ? "card" : "pain");
        auto* box = new QVBoxLayout(frame);
        box->setContentsMargins(14, 8, 14, 8);
        box->addWidget(
            plain(say(s.result ? "send-all.gone" : "send-all.not-gone", {{"name", s.athlete}}), 14, true));
        if (!s.result) box->addWidget(plain(say(s.result.error().text), 12.5));
        rows_->addWidget(frame);
        if (s.result)
            ++gone;
        else
            password_.hear(s.result);
    }
    rows_->addStretch(1);
    state_->setText(say("send-all.ended", {{"gone", gone}, {"all", sent.size()}}));
    send_->setText(say("send-all.send", {{"count", 0}}));
    send_->setEnabled(false);
    Q_EMIT outboxChanged();
}

/// Escape takes back what is on its way first.
void SendAllDialog::reject() {
    if (job_) return job_->cancel();
    QDialog::reject();
}

} // namespace jg::ui
