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

/// More than one delivery: each can be looked at round and round, and one taken for the review.
void LookBench::addDeliveries(const Clip& clip, QVBoxLayout& box) {
    if (clip.deliveries.size() < 2) return;
    box.addWidget(quiet(
        QString("%1 deliveries found by motion. Take the one to review:").arg(clip.deliveries.size()), 12));
    for (const FoundDelivery& d : clip.deliveries) {
        const FrameSpan span{d.first, d.last};
        auto* row = new QHBoxLayout;
        auto* play = plainButton(QString("Play f %1 to %2").arg(d.first).arg(d.last));
        play->setObjectName("link");
        connect(play, &QPushButton::clicked, this, [this, span] {
            c_.playhead.jump(span.first);
            c_.playhead.setLoop(std::pair(qint64{span.first}, qint64{span.last}));
            c_.playhead.play();
        });
        auto* take = plainButton("");
        connect(take, &QPushButton::clicked, this,
                [this, span] { takeCut(review().cut == span ? std::nullopt : std::optional(span)); });
        row->addWidget(play);
        row->addStretch(1);
        row->addWidget(take);
        box.addLayout(row);
        deliveries_.push_back({span, take});
    }
    refresh();
}

void LookBench::refresh() {
    for (const DeliveryRow& row : deliveries_)
        row.take->setText(review().cut == row.span ? "Under review: take all instead" : "Review this one");
}

void LookBench::takeCut(std::optional<FrameSpan> cut) {
    const Status taken = c_.session.setCut(cut);
    c_.say(!taken ? QString::fromStdString(taken.error().text)
           : cut  ? "The review is held to this delivery; the rest of the ribbon is shaded."
                  : "The review takes the whole film.");
}

void LookBench::toggleCut() {
    if (review().cut) return takeCut(std::nullopt);
    const qint64 here = c_.playhead.frame();
    for (const DeliveryRow& row : deliveries_)
        if (row.span.holds(here)) return takeCut(row.span);
    c_.say(deliveries_.empty() ? "Motion shows one delivery in this film: nothing to choose."
                               : "No delivery was found at this frame.");
}

bool LookBench::act(const QString& id) {
    if (id == "look-play") return c_.playhead.toggle(), true;
    if (id == "look-cut") return toggleCut(), true;
    if (id == "look-refilm") return showRefilmRequest(this, c_.session), true;
    if (id == "look-done") return c_.goTo(Stage::Positions), true;
    return false;
}

} // namespace jg::ui
