// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/post/post_place.h"

#include "base/caught.h"
#include "base/clock.h"
#include "base/time_zone.h"
#include "desk/keeping/house_settings.h"
#include "ui/kit/ask_first.h"
#include "ui/kit/theme.h"
#include "ui/places/post/mark_field.h"
#include "ui/places/post/send_all_dialog.h"

#include <QDateTime>
#include <QDialog>
#include <QFormLayout>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

#include <cmath>

namespace jg::ui {

namespace {
constexpr const char* kShown = "shown"; ///< of a field: what the library said when it was filled
} // namespace

PostPlace::PostPlace(const Playbook& playbook, const Clock& clock, MailPassword& password, QWidget* parent)
    : QWidget(parent)
    , playbook_(playbook)
    , clock_(clock)
    , password_(password) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(34, 26, 34, 12);
    column->setSpacing(12);
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* row = new QHBoxLayout(card);
    server_ = plain("", 13);
    row->addWidget(server_, 1);
    auto* edit = plainButton(say("post-place.mail-server"));
    connect(edit, &QPushButton::clicked, this, &PostPlace::editServer);
    auto* office = plainButton(say("post-place.start-the-stand-in-post-office"));
    office->setToolTip(say("post-place.stand-in"));
    connect(office, &QPushButton::clicked, this, &PostPlace::startPostOffice);
    auto* attempt = plainButton(say("post-place.try-the-server"));
    attempt->setObjectName("try-server");
    connect(attempt, &QPushButton::clicked, this, &PostPlace::tryServer);
    auto* all = mainButton(say("post-place.send-all"));
    all->setObjectName("send-all-ready");
    connect(all, &QPushButton::clicked, this, &PostPlace::sendAllReady);
    auto* top = new QHBoxLayout;
    top->addWidget(heading(say("post-place.post"), 28), 1);
    top->addWidget(all);
    column->addLayout(top);
    row->addWidget(office);
    row->addWidget(attempt);
    row->addWidget(edit);
    column->addWidget(card);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    rows_ = new QVBoxLayout(inner);
    rows_->setContentsMargins(0, 0, 6, 0);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
}

void PostPlace::show(Library& library) {
    library_ = &library;
    const std::string url = library.setting("mail.url", "smtp://127.0.0.1:2525");
    const std::string from = library.setting("mail.from");
    server_->setText(say(isLoopback(url) ? "post-place.through-this-machine" : "post-place.through-encrypted",
                         {{"server", url}, {"from", from.empty() ? msg("post-place.nobody") : asIs(from)}}));
    clearLayout(*rows_);
    auto items = library.outbox();
    if (!items) {
        rows_->addWidget(plain(say(items.error().text), 13));
    } else if (items->empty()) {
        rows_->addWidget(quiet(say("post-place.empty"), 14));
    } else {
        const auto due = dueMails(library);
        constexpr int kMostSent = 60; // what went out long ago is on its athlete's page
        int sent = 0;
        for (const OutboxItem& i : *items) {
            if (i.state == MailState::Sent && ++sent > kMostSent) continue;
            const auto at = waits(i) ? due.find(i.id) : due.end();
            rows_->addWidget(itemRow(i, at == due.end() ? std::nullopt : std::optional(at->second)));
        }
        if (sent > kMostSent)
            rows_->addWidget(quiet(say("post-place.older", {{"count", sent - kMostSent}}), 13));
    }
    rows_->addStretch(1);
}

namespace {

/// When it goes out by itself.
QString inWords(const DueMail& due) {
    const Message when = momentInWords(due.at);
    return due.tries == 0 ? say("post-place.due", {{"when", when}})
                          : say("post-place.due-again", {{"when", when}, {"tries", due.tries}});
}

} // namespace

QWidget* PostPlace::itemRow(const OutboxItem& item, const std::optional<DueMail>& due) {
    auto* frame = new QFrame;
    frame->setObjectName(item.state == MailState::Sent ? "card" : "pain");
    auto* row = new QHBoxLayout(frame);
    auto* middle = new QVBoxLayout;
    middle->addWidget(plain(text(item.subject), 14, true));
    middle->addWidget(quiet(say("post-place.to-recipient-when",
                                {{"recipient", item.recipient}, {"when", momentInWords(item.at)}}),
                            12.5));
    if (!item.reason.empty()) middle->addWidget(plain(say(item.reason), 12.5));
    if (due) middle->addWidget(plain(inWords(*due), 12.5, true));
    row->addLayout(middle, 1);
    const MailState state = stateAt(item, clock_.nowUnix());
    if (due) {
        auto* hold = plainButton(say("post-place.hold"));
        hold->setObjectName("hold");
        hold->setAccessibleName(hold->text() + ": " + text(item.subject));
        connect(hold, &QPushButton::clicked, this, [this, id = item.id] {
            if (const Status held = clearDue(*library_, id); !held)
                return server_->setText(say(held.error().text));
            show(*library_);
        });
        row->addWidget(hold);
    }
    row->addWidget(quiet(say(nameOf(state)), 13));
    if (state != MailState::Sent && state != MailState::HandingOver) {
        auto* button = mainButton(state == MailState::Unsure ? say("post-place.send-it-again")
                                                             : say("post-place.send-now"));
        button->setAccessibleName(button->text() + ": " + text(item.subject));
        connect(button, &QPushButton::clicked, this, [this, item] { again(item); });
        row->addWidget(button);
    }
    return frame;
}

void PostPlace::sendWhatIsDue() {
    if (job_ || !library_ || library_->readOnly()) return;
    const auto due = mailsDueAt(*library_, clock_.nowUnix());
    if (!due || due->empty()) return;
    password_.fillQuietly(
        sendOrderOf(*library_, ""), this,
        [this, item = due->front(), count = due->size()](const std::optional<SendOrder>& order) {
            if (!order) return server_->setText(say("post-place.due-needs-password", {{"count", count}}));
            if (!job_) handOver(item, *order, sendDue);
        });
}

void PostPlace::again(const OutboxItem& item) {
    if (job_) return job_->cancel(); // taken back, or what runs is stopped
    if (!library_) return;
    const auto review = library_->review(item.review);
    if (stateAt(item, clock_.nowUnix()) != MailState::Unsure || !review || !review->sent)
        return againWith(item, Repeat::Never);
    askFirst(this, "sent-since",
             say("post-place.sent-since", {{"on", review->sent->on}, {"to", review->sent->to}}),
             say("post-place.send-it-again"), [this, item] { againWith(item, Repeat::Always); });
}

void PostPlace::againWith(const OutboxItem& item, Repeat repeat) {
    const HandOver send = [repeat](Library& library, const Playbook& book, OutboxItem mail,
                                   const SendOrder& order, const Clock& clock, std::stop_token stop,
                                   const SendProgress& progress) {
        return sendAgain(library, book, std::move(mail), order, clock, stop, progress, repeat);
    };
    password_.fill(sendOrderOf(*library_, ""), this, [=, this](const std::optional<SendOrder>& order) {
        if (!order) return server_->setText(say("send-bench.without-the-password-nothing-is-sent"));
        if (job_ || !handOver(item, *order, send)) return;
        server_->setText(say("post-place.making-the-letter-anew-and-handing"));
        connect(job_, &Job::progressed, server_, [this](double left) {
            server_->setText(say("post-place.goes-out-in", {{"seconds", std::lround(std::ceil(left))}}));
        });
    });
}

bool PostPlace::handOver(const OutboxItem& item, const SendOrder& order, const HandOver& send) {
    auto library = library_->again();
    if (!library) {
        server_->setText(say(library.error().text));
        return false;
    }
    job_ = new Job(
        this,
        [this, order, item, send, book = playbook_, own = std::shared_ptr<Library>(std::move(*library))](
            std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
            const Status sent = caught([&] {
                return send(*own, book, item, order, clock_, stop, [&](SendStep step, double left) {
                    if (step == SendStep::Waiting) progress(left);
                });
            });
            return [this, sent] {
                job_ = nullptr;
                password_.hear(sent);
                show(*library_);
                if (!sent) server_->setText(say(sent.error().text));
                Q_EMIT outboxChanged();
            };
        });
    return true;
}

/// Whether the server answers and takes name and password; nothing is sent.
void PostPlace::tryServer() {
    if (job_ || !library_) return;
    password_.fill(sendOrderOf(*library_, ""), this, [this](const std::optional<SendOrder>& order) {
        if (!order) return server_->setText(say("post-place.without-the-password-no-try"));
        if (!job_) tryServerWith(*order);
    });
}

void PostPlace::tryServerWith(const SendOrder& order) {
    server_->setText(say("post-place.trying"));
    job_ = new Job(this, [this, order](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
        const Status tried = caught([&] { return checkServer(order.server, stop); });
        return [this, order, tried] {
            job_ = nullptr;
            password_.hear(tried);
            server_->setText(tried ? say("post-place.server-answers", {{"server", order.server.url}})
                                   : say(tried.error().text));
        };
    });
}

void PostPlace::sendAllReady() {
    if (job_ || !library_) return;
    auto* dialog = new SendAllDialog(*library_, playbook_, clock_, password_, this);
    connect(dialog, &SendAllDialog::outboxChanged, this, [this] {
        show(*library_);
        Q_EMIT outboxChanged();
    });
    dialog->open();
}

void PostPlace::editServer() {
    if (!library_) return;
    auto* dialog = new QDialog(this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName("mail-server");
    dialog->setWindowTitle(say("post-place.mail-server-2"));
    dialog->setMinimumWidth(em(460));
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(24, 18, 24, 18);
    column->addWidget(heading(say("post-place.mail-server-2"), 20));
    column->addWidget(quiet(say("post-place.own-server")));
    auto* form = new QFormLayout;
    std::vector<std::pair<std::string, QLineEdit*>> fields;
    for (const auto& [key, label, hint] :
         {std::tuple{"mail.url", say("post-place.server"), QString("smtp://mail.example.org:587")},
          {"mail.user", say("post-place.name"), say("post-place.empty-when-none-is-needed")},
          {"mail.from", say("post-place.from"), "you@example.org"},
          {"house.coach", say("post-place.your-name"), ""},
          {"house.place", say("post-place.your-place"), ""},
          {"house.timeZone", say("post-place.time-zone"),
           say("post-place.the-machines-own", {{"zone", timeZoneNow()}})}}) {
        auto* edit = new QLineEdit(text(library_->setting(key)));
        edit->setObjectName(key);
        edit->setProperty(kShown, edit->text());
        edit->setPlaceholderText(hint);
        form->addRow(label, edit);
        fields.emplace_back(key, edit);
    }
    auto* mark = new MarkField(houseMark(*library_));
    form->addRow(say("mark-field.label"), mark);
    column->addLayout(form);
    auto* save = mainButton(say("athlete-dialog.keep"));
    auto* problem = problemLabel("server-problem");
    column->addWidget(problem);
    connect(save, &QPushButton::clicked, dialog, [this, dialog, fields, problem, mark] {
        std::vector<SettingChange> typed;
        for (const auto& [key, edit] : fields) {
            const std::string was = edit->property(kShown).toString().toStdString(),
                              now = edit->text().trimmed().toStdString();
            if (was != now) typed.push_back({key, was, now});
        }
        Status kept = keepMailSettings(*library_, typed);
        if (kept && mark->changed()) kept = keepHouseMark(*library_, mark->mark());
        if (!kept) {
            // What another window wrote is shown beside; kept once more, this one stands.
            if (kept.error().code == ErrorCode::Stale)
                for (const auto& [key, edit] : fields)
                    edit->setProperty(kShown, text(library_->setting(key)));
            problem->setText(say(kept.error().text));
            return problem->show();
        }
        dialog->accept();
        show(*library_);
    });
    column->addWidget(save, 0, Qt::AlignRight);
    dialog->open();
}

} // namespace jg::ui
