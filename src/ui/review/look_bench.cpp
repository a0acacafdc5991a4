#include "ui/review/look_bench.h"

#include "review/deliveries.h"
#include "ui/review/film_dialog.h"
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
    filmsBox_ = new QVBoxLayout;
    column_->addLayout(filmsBox_);
    refresh();
    column_->addStretch(1);
    auto* again = plainButton("Ask for another film\u2026");
    connect(again, &QPushButton::clicked, this, [this] { c_.runAction("look-refilm"); });
    column_->addWidget(again);
    auto* on = mainButton("Seen: on to the positions");
    connect(on, &QPushButton::clicked, this, [this] { c_.runAction("look-done"); });
    column_->addWidget(on);
}

void LookBench::refresh() {
    // All benches hear of each change, and a dragged point makes many: this one is made anew when it is in
    // sight.
    if (films_ && isHidden()) return;
    // The button that was pressed lies in the old one.
    if (films_) films_->hide(), films_->deleteLater();
    films_ = new QWidget;
    auto* column = new QVBoxLayout(films_);
    column->setContentsMargins(0, 0, 0, 0);
    addFilms(*column);
    filmsBox_->addWidget(films_);
}

void LookBench::addFilms(QVBoxLayout& column) {
    column.addWidget(quiet(c_.session.submission().clips.size() == 1 ? "The film" : "The films"));
    for (const Clip& clip : c_.session.submission().clips) column.addWidget(filmCard(clip));
}

QWidget* LookBench::filmCard(const Clip& clip) {
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    box->setSpacing(4);
    const QString rate =
        clip.captureFps > 0 ? QString("%1 a second").arg(std::lround(clip.captureFps)) : "rate unknown";
    const bool current = clip.id == c_.session.clip().id;
    box->addWidget(plain(
        QString("%1, %2%3").arg(text(nameOf(clip.view)), rate, current ? "  (on the stage)" : ""), 13, true));
    if (current) addConditions(*box);
    for (const std::string& line : clip.check) box->addWidget(quiet(text(line), 12));
    if (clip.check.empty()) box->addWidget(quiet("Nothing stands in its way.", 12));
    addDeliveries(clip, *box);
    if (current) addPitch(*box);
    if (!current && clip.deliveries.size() < 2) {
        auto* use = plainButton(filmButton(clip));
        connect(use, &QPushButton::clicked, this, [this, id = clip.id] { lookAt(id, std::nullopt); });
        box->addWidget(use, 0, Qt::AlignLeft);
    }
    return card;
}

/// The conditions of the delivery in hand in one line, with the way to change them.
void LookBench::addConditions(QVBoxLayout& box) {
    const Conditions& c = delivery().conditions;
    QStringList told;
    if (c.start != Start::Unknown) told << text(nameOf(c.start));
    if (c.surface != Surface::Unknown) told << text(nameOf(c.surface));
    if (c.pitch != PitchType::Unknown) told << text(nameOf(c.pitch));
    if (c.numberInOuting) told << QString("pitch %1 of the outing").arg(*c.numberInOuting);
    if (c.speedMps) told << text(speedInWords(*c.speedMps));
    if (c.went != Went::Unknown) told << "ball: " + text(nameOf(c.went));
    auto* change = plainButton(told.isEmpty() ? "Say the conditions\u2026" : told.join(", ") + "\u2026");
    change->setObjectName("link");
    change->setToolTip("Change the film's side and rate and the delivery's conditions");
    connect(change, &QPushButton::clicked, this, [this] { c_.runAction("look-film"); });
    box.addWidget(change, 0, Qt::AlignLeft);
}

QString LookBench::filmButton(const Clip& clip) const {
    if (const auto* d = marked(clip.id, std::nullopt)) return takeAgain(*d);
    return delivery().blank() ? "Review this film instead" : "Review this film too";
}

const DeliveryMarks* LookBench::marked(const ClipId& clip, std::optional<FrameSpan> cut) const {
    for (const DeliveryMarks& d : review().deliveries)
        if (d.number != delivery().number && d.clip == clip && d.cut == cut && !d.blank()) return &d;
    return nullptr;
}

QString LookBench::takeAgain(const DeliveryMarks& d) {
    return QString("Pitch %1: take in hand").arg(d.pitch);
}

/// More than one delivery: each can be looked at round and round, and each taken for the review.
void LookBench::addDeliveries(const Clip& clip, QVBoxLayout& box) {
    if (clip.deliveries.size() < 2) return;
    box.addWidget(quiet(
        QString("%1 deliveries found by motion. Review one, or several:").arg(clip.deliveries.size()), 12));
    const bool onStage = clip.id == delivery().clip;
    for (const FoundDelivery& d : clip.deliveries) {
        const FrameSpan span{d.first, d.last};
        const bool inHand = onStage && delivery().cut == span;
        auto* row = new QHBoxLayout;
        auto* play = plainButton(QString("Play f %1 to %2").arg(d.first).arg(d.last));
        play->setObjectName("link");
        play->setEnabled(onStage);
        connect(play, &QPushButton::clicked, this, [this, span] {
            c_.playhead.jump(span.first);
            c_.playhead.setLoop(std::pair(qint64{span.first}, qint64{span.last}));
            c_.playhead.play();
        });
        const DeliveryMarks* other = marked(clip.id, span);
        auto* take = plainButton(inHand               ? "In hand: take all instead"
                                 : other              ? takeAgain(*other)
                                 : delivery().blank() ? "Review this one"
                                                      : "Review this one too");
        connect(take, &QPushButton::clicked, this,
                [this, span, inHand, id = clip.id] { inHand ? takeWhole() : lookAt(id, span); });
        row->addWidget(play);
        row->addStretch(1);
        row->addWidget(take);
        box.addLayout(row);
    }
}

/// Which pitch the delivery in hand shows; asked only where it could be another.
void LookBench::addPitch(QVBoxLayout& box) {
    const auto& clips = c_.session.submission().clips;
    if (c_.session.deliveries().size() < 2) return;
    const PitchChoice choice = pitchChoice(review(), delivery().number, clips);
    const auto& all = review().deliveries;
    const bool shares = std::any_of(all.begin(), all.end(), [&](const DeliveryMarks& d) {
        return d.number != delivery().number && !d.blank() && d.pitch == delivery().pitch;
    });
    box.addWidget(quiet(QString("In hand: %1%2. N goes round.")
                            .arg(text(nameOf(delivery(), clips)), shares ? ", also seen from elsewhere" : ""),
                        12));
    addLead(box);
    if (!shares && !choice.shared) return;
    const int to = shares ? choice.own : *choice.shared;
    auto* change = plainButton(shares ? "It shows a pitch of its own" : QString("It shows pitch %1").arg(to));
    change->setObjectName("link");
    connect(change, &QPushButton::clicked, this, [this, to] {
        if (const Status said = c_.session.setPitch(to); !said) c_.say(text(said.error().text));
    });
    box.addWidget(change, 0, Qt::AlignLeft);
}

/// Which delivery's numbers the letter tells.
void LookBench::addLead(QVBoxLayout& box) {
    if (review().lead == delivery().number) {
        box.addWidget(quiet("The letter tells this one's numbers.", 12));
        return;
    }
    auto* lead = plainButton("Let the letter tell this one's numbers");
    lead->setObjectName("link");
    connect(lead, &QPushButton::clicked, this,
            [this] { perform("Choose the letter's delivery", {SetLead{delivery().number}}); });
    box.addWidget(lead, 0, Qt::AlignLeft);
}

void LookBench::lookAt(const ClipId& clip, std::optional<FrameSpan> cut) {
    if (const Status taken = c_.session.lookAt(clip, cut); !taken) return c_.say(text(taken.error().text));
    c_.say(cut ? "The review is held to this delivery; the rest of the ribbon is shaded."
               : "This film is in hand. What was marked on the others stays.");
}

void LookBench::takeWhole() {
    const Status taken = c_.session.setCut(std::nullopt);
    c_.say(taken ? "The review takes the whole film." : text(taken.error().text));
}

void LookBench::toggleCut() {
    if (delivery().cut) return takeWhole();
    const qint64 here = c_.playhead.frame();
    const auto& found = c_.session.clip().deliveries;
    for (const FoundDelivery& d : found)
        if (found.size() > 1 && FrameSpan{d.first, d.last}.holds(here))
            return lookAt(c_.session.clip().id, FrameSpan{d.first, d.last});
    c_.say(found.size() < 2 ? "Motion shows one delivery in this film: nothing to choose."
                            : "No delivery was found at this frame.");
}

KeyHints LookBench::hints() const {
    KeyHints hints{{"Space", "play", "look-play"},
                   {"\u2190 \u2192", "one frame", "step-on"},
                   {"B", "slower", "slower"},
                   {"F", "film and conditions", "look-film"}};
    if (c_.session.deliveries().size() > 1) hints.push_back({"N", "next delivery", "delivery-next"});
    hints.push_back({"Enter", "seen, on to the positions", "look-done"});
    return hints;
}

bool LookBench::act(const QString& id) {
    if (id == "look-play") return c_.playhead.toggle(), true;
    if (id == "look-cut") return toggleCut(), true;
    if (id == "look-film") return showFilmDialog(this, c_.session, c_.say), true;
    if (id == "look-refilm") return showRefilmRequest(this, c_.session), true;
    if (id == "look-done") return c_.goTo(Stage::Positions), true;
    return false;
}

} // namespace jg::ui
