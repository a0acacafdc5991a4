// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/look/look_bench.h"

#include "base/caught.h"
#include "desk/intake/intake.h"
#include "desk/jobs/job.h"
#include "review/record/deliveries.h"
#include "ui/bench/film_dialog.h"
#include "ui/bench/refilm_dialog.h"
#include "ui/kit/theme.h"

#include <algorithm>
#include <cmath>

namespace jg::ui {

LookBench::LookBench(ReviewContext& context)
    : Bench(context)
    , veils_(this, context) {
    const Submission& s = c_.session.submission();
    column_->addWidget(heading(say("film-cards.look")));
    column_->addWidget(quiet(say("look-bench.watch-it-at-full-speed-once")));
    if (c_.session.pain()) {
        auto* note = new QFrame;
        note->setObjectName("pain");
        auto* box = new QVBoxLayout(note);
        box->addWidget(plain(say("desk-place.pain-reported"), 13.5, true));
        for (const Submission& report : c_.session.openPain())
            box->addWidget(plain(
                say("look-bench.pain-report", {{"date", report.received}, {"words", report.painWords()}})));
        box->addWidget(quiet(say("look-bench.pain-rule")));
        box->addWidget(quiet(say("look-bench.pain-closed-where")));
        column_->addWidget(note);
    }
    column_->addWidget(quiet(say("look-bench.asked")));
    column_->addWidget(plain(s.asked.empty() ? say("look-bench.nothing-in-particular")
                                             : QString("\u201c%1\u201d").arg(text(s.asked)),
                             14));
    column_->addSpacing(6);
    filmsBox_ = new QVBoxLayout;
    column_->addLayout(filmsBox_);
    refresh();
    column_->addStretch(1);
    auto* again = plainButton(say("look-bench.ask-for-another-film"));
    connect(again, &QPushButton::clicked, this, [this] { c_.runAction("look-refilm"); });
    column_->addWidget(again);
    auto* on = mainButton(say("look-bench.seen-on-to-the-positions"));
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
    column.addWidget(quiet(c_.session.submission().clips.size() == 1 ? say("look-bench.the-film")
                                                                     : say("look-bench.the-films")));
    for (const Clip& clip : c_.session.submission().clips) column.addWidget(filmCard(clip));
}

QWidget* LookBench::filmCard(const Clip& clip) {
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    box->setSpacing(4);
    const QString rate = clip.captureFps > 0 ? say("look-bench.capture-fps-a-second",
                                                   {{"captureFps", std::lround(clip.captureFps)}})
                                             : say("look-bench.rate-unknown");
    const bool current = clip.id == c_.session.clip().id;
    box->addWidget(plain(say(current ? "look-bench.film-on-stage" : "look-bench.film",
                             {{"view", nameOf(clip.view)}, {"rate", rate}}),
                         13, true));
    if (current) addConditions(*box);
    for (const Message& line : clip.check) box->addWidget(quiet(say(line), 12));
    if (clip.unseen())
        box->addWidget(plain(say("look-bench.look-again-needed"), 12.5, true));
    else if (clip.check.empty())
        box->addWidget(quiet(say("look-bench.nothing-stands-in-its-way"), 12));
    addDeliveries(clip, *box);
    if (current) addPitch(*box);
    if (current) addOthers(*box);
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
    if (c.start != Start::Unknown) told << say(nameOf(c.start));
    if (c.surface != Surface::Unknown) told << say(nameOf(c.surface));
    if (c.pitch != PitchType::Unknown) told << say(nameOf(c.pitch));
    if (c.numberInOuting) told << say("look-bench.pitch-of-outing", {{"numberInOuting", *c.numberInOuting}});
    if (c.speedMps) told << say(speedInWords(*c.speedMps));
    if (c.went != Went::Unknown) told << say("look-bench.ball-went", {{"went", nameOf(c.went)}});
    auto* change =
        plainButton(told.isEmpty() ? say("look-bench.say-the-conditions") : told.join(", ") + "\u2026");
    change->setObjectName("link");
    change->setToolTip(say("look-bench.change-the-films-side-and-rate"));
    connect(change, &QPushButton::clicked, this, [this] { c_.runAction("look-film"); });
    box.addWidget(change, 0, Qt::AlignLeft);
}

void LookBench::addOthers(QVBoxLayout& box) {
    const Veils& veils = delivery().veils;
    const auto asks =
        std::find_if(veils.begin(), veils.end(), [](const auto& v) { return !v.second.asks.empty(); });
    auto* hide = plainButton(veils.empty() ? say("look-bench.hide-others")
                                           : say("look-bench.hidden", {{"people", veils.size()}}));
    hide->setObjectName("link");
    hide->setToolTip(say("look-bench.hide-others-how"));
    connect(hide, &QPushButton::clicked, this, [this] { c_.runAction("look-hide"); });
    box.addWidget(hide, 0, Qt::AlignLeft);
    if (asks == veils.end()) return;
    auto* go = plainButton(say("look-bench.lost-at", {{"frame", asks->second.asks.front()}}));
    go->setObjectName("link");
    connect(go, &QPushButton::clicked, this, [this, frame = asks->second.asks.front()] {
        c_.playhead.step(frame - c_.playhead.frame());
        c_.runAction("look-hide");
    });
    box.addWidget(go, 0, Qt::AlignLeft);
}

QString LookBench::filmButton(const Clip& clip) const {
    if (const auto* d = marked(clip.id, std::nullopt)) return takeAgain(*d);
    return delivery().blank() ? say("look-bench.review-this-film-instead")
                              : say("look-bench.review-this-film-too");
}

const DeliveryMarks* LookBench::marked(const ClipId& clip, std::optional<FrameSpan> cut) const {
    for (const DeliveryMarks& d : review().deliveries)
        if (d.number != delivery().number && d.clip == clip && d.cut == cut && !d.blank()) return &d;
    return nullptr;
}

QString LookBench::takeAgain(const DeliveryMarks& d) {
    return say("look-bench.pitch-pitch-take-in-hand", {{"pitch", d.pitch}});
}

/// More than one delivery: each can be looked at round and round, and each taken for the review.
void LookBench::addDeliveries(const Clip& clip, QVBoxLayout& box) {
    if (clip.deliveries.size() < 2) return;
    box.addWidget(quiet(say("look-bench.deliveries-deliveries-found-by-motion-review",
                            {{"deliveries", clip.deliveries.size()}}),
                        12));
    const bool onStage = clip.id == delivery().clip;
    for (const FoundDelivery& d : clip.deliveries) {
        const FrameSpan span{d.first, d.last};
        const bool inHand = onStage && delivery().cut == span;
        auto* row = new QHBoxLayout;
        auto* play = plainButton(say("look-bench.play-f-d-to-last", {{"d", d.first}, {"last", d.last}}));
        play->setObjectName("link");
        play->setEnabled(onStage);
        connect(play, &QPushButton::clicked, this, [this, span] {
            c_.playhead.jump(span.first);
            c_.playhead.setLoop(std::pair(qint64{span.first}, qint64{span.last}));
            c_.playhead.play();
        });
        const DeliveryMarks* other = marked(clip.id, span);
        auto* take = plainButton(inHand               ? say("look-bench.in-hand-take-all-instead")
                                 : other              ? takeAgain(*other)
                                 : delivery().blank() ? say("look-bench.review-this-one")
                                                      : say("look-bench.review-this-one-too"));
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
    box.addWidget(quiet(say(shares ? "look-bench.in-hand-shared" : "look-bench.in-hand",
                            {{"delivery", nameOf(delivery(), clips)}}),
                        12));
    addLead(box);
    if (!shares && !choice.shared) return;
    const int to = shares ? choice.own : *choice.shared;
    auto* change =
        plainButton(shares ? say("look-bench.own-pitch") : say("look-bench.it-shows-pitch-to", {{"to", to}}));
    change->setObjectName("link");
    connect(change, &QPushButton::clicked, this, [this, to] {
        if (const Status said = c_.session.setPitch(to); !said) c_.say(say(said.error().text));
    });
    box.addWidget(change, 0, Qt::AlignLeft);
}

/// Which delivery's numbers the letter tells.
void LookBench::addLead(QVBoxLayout& box) {
    if (review().leading() == delivery().number) {
        box.addWidget(quiet(say("look-bench.the-letter-tells-this-ones-numbers"), 12));
        return;
    }
    auto* lead = plainButton(say("look-bench.let-the-letter-tell-this-ones"));
    lead->setObjectName("link");
    connect(lead, &QPushButton::clicked, this,
            [this] { perform(msg("look-bench.choose-the-letters-delivery"), {SetLead{delivery().number}}); });
    box.addWidget(lead, 0, Qt::AlignLeft);
}

void LookBench::lookAt(const ClipId& clip, std::optional<FrameSpan> cut) {
    if (const Status taken = c_.session.lookAt(clip, cut); !taken) return c_.say(say(taken.error().text));
    c_.say(cut ? say("look-bench.held") : say("look-bench.film-in-hand"));
}

void LookBench::takeWhole() {
    const Status taken = c_.session.setCut(std::nullopt);
    c_.say(taken ? say("look-bench.the-review-takes-the-whole-film") : say(taken.error().text));
}

void LookBench::toggleCut() {
    if (delivery().cut) return takeWhole();
    const qint64 here = c_.playhead.frame();
    const auto& found = c_.session.clip().deliveries;
    for (const FoundDelivery& d : found)
        if (found.size() > 1 && FrameSpan{d.first, d.last}.holds(here))
            return lookAt(c_.session.clip().id, FrameSpan{d.first, d.last});
    c_.say(found.size() < 2 ? say("look-bench.one-delivery") : say("look-bench.none-here"));
}

void LookBench::lookAgain() {
    if (again_) return c_.say(say("look-bench.looking-again-already"));
    const Clip& clip = c_.session.clip();
    const auto path = c_.session.library().mediaPath(clip);
    const double stated = clip.captureSource == idOf(RateSource::Stated) ? clip.captureFps : 0;
    const CheckQuestion question = questionFor(clip.view, c_.session.athlete().hand, stated);
    again_ = new Job(
        this, [this, path, question, id = clip.id](std::stop_token stop, const Job::Progress& progress) {
            auto looked = std::make_shared<Result<LookedAt>>(
                caught([&] { return lookAtFilm(path, question, stop, progress); }));
            return Job::Continuation([this, looked, id] {
                if (!*looked) return c_.say(say(looked->error().text));
                const Status kept = c_.session.lookedAgain(id, **looked);
                c_.say(kept ? say("look-bench.looked-again") : say(kept.error().text));
                refresh();
            });
        });
    connect(again_, &Job::progressed, this, [this](double part) {
        c_.say(say("look-bench.looking-again", {{"part", std::lround(part * 100)}}));
    });
}

KeyHints LookBench::hints() const {
    KeyHints hints{{"Space", say("hint.play"), "look-play"},
                   {"\u2190 \u2192", say("look-bench.one-frame"), "step-on"},
                   {"B", say("hint.slower"), "slower"},
                   {"F", say("look-bench.film-and-conditions"), "look-film"},
                   {"H", say("look-bench.hide-somebody"), "look-hide"}};
    if (c_.session.deliveries().size() > 1)
        hints.push_back({"N", say("look-bench.next-delivery"), "delivery-next"});
    hints.push_back({"Enter", say("look-bench.seen-on-to-the-positions-2"), "look-done"});
    return hints;
}

Handlers LookBench::handlers() {
    return {
        {"look-play", [this] { c_.playhead.toggle(); }},
        {"look-cut", [this] { toggleCut(); }},
        {"look-film", [this] { showFilmDialog(this, c_.session, c_.say); }},
        {"look-refilm", [this] { showRefilmRequest(this, c_.session); }},
        {"look-again", [this] { lookAgain(); }},
        {"look-hide", [this] { veils_.hide(); }},
        {"look-show-again", [this] { veils_.showAgain(); }},
        {"look-done", [this] { c_.goTo(Stage::Positions); }},
    };
}

} // namespace jg::ui
