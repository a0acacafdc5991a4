#include "ui/review/look_bench.h"

#include "ui/review/refilm_dialog.h"
#include "ui/theme.h"

#include <cmath>

namespace jg::ui {

LookBench::LookBench(ReviewContext& context)
    : Bench(context) {
    const Submission& s = c_.session.submission();
    column_->addWidget(heading("Look"));
    column_->addWidget(quiet("Watch it at full speed once or twice before you stop anywhere, then slowly."));
    if (!s.pain.empty()) {
        auto* note = new QFrame;
        note->setObjectName("pain");
        auto* box = new QVBoxLayout(note);
        box->addWidget(plain("Pain reported", 13.5, true));
        box->addWidget(plain(QString::fromStdString(s.pain)));
        box->addWidget(quiet("No throwing drills; the letter opens with the advice to stop throwing and see "
                             "a licensed professional."));
        column_->addWidget(note);
    }
    column_->addWidget(quiet("Asked"));
    column_->addWidget(plain(s.asked.empty() ? "Nothing in particular."
                                             : QString("\u201c%1\u201d").arg(QString::fromStdString(s.asked)),
                             14));
    column_->addSpacing(6);
    addFilms();
    column_->addStretch(1);
    auto* again = plainButton("Ask for another film\u2026");
    connect(again, &QPushButton::clicked, this, [this] { c_.runAction("look-refilm"); });
    column_->addWidget(again);
    auto* on = mainButton("Seen: on to the positions");
    connect(on, &QPushButton::clicked, this, [this] { c_.runAction("look-done"); });
    column_->addWidget(on);
}

void LookBench::addFilms() {
    column_->addWidget(quiet(c_.session.submission().clips.size() == 1 ? "The film" : "The films"));
    for (const Clip& clip : c_.session.submission().clips) {
        auto* card = new QFrame;
        card->setObjectName("card");
        auto* box = new QVBoxLayout(card);
        box->setSpacing(4);
        const QString rate =
            clip.captureFps > 0 ? QString("%1 a second").arg(std::lround(clip.captureFps)) : "rate unknown";
        const bool current = clip.id == c_.session.clip().id;
        box->addWidget(plain(
            QString("%1, %2%3")
                .arg(QString::fromUtf8(nameOf(clip.view).data()), rate, current ? "  (on the stage)" : ""),
            13, true));
        for (const std::string& line : clip.check) box->addWidget(quiet(QString::fromStdString(line), 12));
        if (clip.check.empty()) box->addWidget(quiet("Nothing stands in its way.", 12));
        if (current) addDeliveries(clip, *box);
        if (!current) {
            auto* use = plainButton("Review this film instead");
            connect(use, &QPushButton::clicked, this, [this, id = clip.id] {
                const Status used = c_.session.useClip(id);
                if (!used) c_.say(QString::fromStdString(used.error().text));
            });
            box->addWidget(use, 0, Qt::AlignLeft);
        }
        column_->addWidget(card);
    }
}

/// More than one delivery: each can be looked at round and round.
void LookBench::addDeliveries(const Clip& clip, QVBoxLayout& box) {
    if (clip.deliveries.size() < 2) return;
    box.addWidget(quiet(QString("%1 deliveries found by motion:").arg(clip.deliveries.size()), 12));
    int number = 0;
    for (const FoundDelivery& d : clip.deliveries) {
        auto* button =
            plainButton(QString("Play number %1 round, f %2 to %3").arg(++number).arg(d.first).arg(d.last));
        button->setObjectName("link");
        connect(button, &QPushButton::clicked, this, [this, d] {
            c_.playhead.jump(d.first);
            c_.playhead.setLoop(std::pair(qint64{d.first}, qint64{d.last}));
            c_.playhead.play();
        });
        box.addWidget(button, 0, Qt::AlignLeft);
    }
}

bool LookBench::act(const QString& id) {
    if (id == "look-play") return c_.playhead.toggle(), true;
    if (id == "look-refilm") return showRefilmRequest(this, c_.session), true;
    if (id == "look-done") return c_.goTo(Stage::Positions), true;
    return false;
}

} // namespace jg::ui
