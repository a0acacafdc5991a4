// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/send/send_bench.h"

#include "base/caught.h"
#include "desk/own/phrases.h"
#include "desk/sending/due_mails.h"
#include "desk/sending/letter_choice.h"
#include "desk/sending/letter_files.h"
#include "desk/session/suggest.h"
#include "letter/narrated_film.h"
#include "review/tell/letter_sentences.h"
#include "ui/bench/plan_asker.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"
#include "ui/stages/send/film_watch.h"
#include "ui/stages/send/reader_choice.h"
#include "voice/audio_file.h"

#include <QCheckBox>
#include <QComboBox>
#include <QProgressBar>
#include <QScrollArea>
#include <QSpinBox>

#include <atomic>
#include <cmath>

namespace jg::ui {

SendBench::SendBench(ReviewContext& context, LetterView& letter, MailPassword& password,
                     Loudspeaker& loudspeaker)
    : Bench(context)
    , letter_(letter)
    , password_(password)
    , loudspeaker_(loudspeaker) {
    connect(&letter_, &LetterView::editAsked, this, &SendBench::editSentence);
    connect(&letter_, &LetterView::written, this, &SendBench::keepSentence);
    column_->addWidget(heading(say("send-bench.send")));
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    who_ = plain("", 13.5, true);
    what_ = quiet("", 12.5);
    auto* reader = plainButton(say("reader-choice.title"));
    reader->setObjectName("reader");
    connect(reader, &QPushButton::clicked, this, [this] { c_.runAction("send-reader"); });
    auto* top = new QHBoxLayout;
    top->addWidget(who_, 1);
    top->addWidget(reader, 0, Qt::AlignTop);
    box->addLayout(top);
    box->addWidget(what_);
    column_->addWidget(card);
    pain_ = new QCheckBox(say("send-bench.caution-read"));
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
    auto* doors = new QHBoxLayout;
    watch_ = plainButton(say("send-bench.watch"));
    watch_->setObjectName("watch");
    connect(watch_, &QPushButton::clicked, this, [this] { c_.runAction("send-watch"); });
    auto* save = plainButton(say("send-bench.save"));
    save->setObjectName("save-all");
    connect(save, &QPushButton::clicked, this, [this] { c_.runAction("send-save"); });
    auto* look = plainButton(say("send-bench.look"));
    look->setObjectName("look");
    connect(look, &QPushButton::clicked, this, [this] { c_.runAction("send-look"); });
    for (QPushButton* door : {watch_, save, look}) doors->addWidget(door);
    column_->addLayout(doors);
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
    const LetterModel& letter = c_.session.letter();
    if (auto to = recipientFor(athlete, today)) {
        who_->setText(say("send-bench.to-to-email", {{"to", to->name}, {"email", to->email}}));
        what_->setText(say(joined(
            ListStyle::Sentences,
            {review().plan.drills.empty() ? Message{} : msg("send-bench.with-week"),
             to->guardian ? msg("send-bench.guardian", {{"name", athlete.firstName}}) : Message{},
             review().takes.empty() ? msg("send-bench.letter-only")
                                    : msg("send-bench.letter-and-film", {{"stops", review().takes.size()}}),
             readerInWords(c_.session, letter)})));
    } else {
        who_->setText(say("send-bench.no-recipient-yet"));
        what_->setText(say(to.error().text));
    }
    watch_->setEnabled(!review().takes.empty() && !busy());
    letter_.setChangeable(!review().sent);
    pain_->setVisible(c_.session.pain());
    pain_->setChecked(review().plan.painConfirmed);
    rebuildProblems();
    // An undo, or a sentence written anew.
    if (isVisible() && letter != shown_) preview();
}

/// Goes where something is mended; the lines are made anew on the way, so not before the press is over.
QPushButton* SendBench::doorTo(Stage stage) {
    auto* door = plainButton(say("send-bench.to-stage", {{"stage", nameOf(stage)}}));
    door->setAccessibleName(say("send-bench.go-to-stage", {{"stage", nameOf(stage)}}));
    connect(
        door, &QPushButton::clicked, this, [this, stage] { c_.goTo(stage); }, Qt::QueuedConnection);
    return door;
}

void SendBench::rebuildProblems() {
    while (QLayoutItem* item = problems_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    if (review().sent) {
        problems_->addWidget(
            quiet(say("send-bench.sent", {{"on", review().sent->on}, {"to", review().sent->to}}), 13));
        problems_->addWidget(quiet(say("send-bench.it-stays-as-it-was-sent"), 12.5));
        auto* anew = plainButton(say("send-bench.begin-another"));
        connect(anew, &QPushButton::clicked, this, [this] { c_.runAction("begin-another"); });
        problems_->addWidget(anew, 0, Qt::AlignLeft);
        problems_->addStretch(1);
        send_->setEnabled(false);
        return;
    }
    const auto all = problemsOf(c_.session);
    if (forbids(all)) problems_->addWidget(plain(say("send-bench.before-it-can-go-out"), 13.5, true));
    bool said = false;
    for (const SendProblem& p : all) {
        if (!p.stop && !said) {
            problems_->addWidget(quiet(say("send-bench.worth-a-thought")));
            said = true;
        }
        auto* note = new QFrame;
        note->setObjectName(p.stop ? "pain" : "note");
        auto* box = new QHBoxLayout(note);
        box->setContentsMargins(12, 7, 10, 7);
        box->addWidget(plain(say(p.text), 12.5), 1);
        if (p.mendAt) box->addWidget(doorTo(*p.mendAt), 0, Qt::AlignTop);
        problems_->addWidget(note);
    }
    if (all.empty()) problems_->addWidget(quiet(say("send-bench.nothing-open"), 13));
    problems_->addStretch(1);
    send_->setEnabled(!forbids(all) && !busy());
}

void SendBench::preview() {
    if (previewJob_) previewJob_->cancel();
    letter_.setMessage(say("send-bench.laying-the-letter-out"));
    DispatchRecipe recipe = previewRecipe(c_.session);
    recipe.film.words = asShown(recipe.film.words);
    shown_ = c_.session.letter();
    previewJob_ =
        new Job(this, [this, recipe](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
            auto stills = caught([&] { return correctionStills(recipe.film); });
            if (stop.stop_requested()) return {};
            return [this, stills = std::move(stills), letter = recipe.film.letter, words = recipe.film.words,
                    paper = recipe.paper]() mutable {
                if (stills)
                    letter_.setPages(std::make_shared<LetterPages>(letter, std::move(*stills), words, paper));
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
    if (auto recipe = dispatchRecipe(c_.session); !recipe) return c_.say(say(recipe.error().text));
    password_.fill(sendOrderOf(c_.session.library(), ""), this,
                   [this](const std::optional<SendOrder>& order) {
                       if (!order)
                           return state_->setText(say("send-bench.without-the-password-nothing-is-sent"));
                       if (!busy()) sendWith(*order);
                   });
}

/// The letter as it is now: while the password was asked for it may have changed.
void SendBench::sendWith(const SendOrder& order) {
    c_.session.settle();
    if (c_.session.keepState() != KeepState::Kept) return state_->setText(say("send-bench.not-kept"));
    auto recipe = dispatchRecipe(c_.session);
    if (!recipe) return c_.say(say(recipe.error().text));
    auto library = c_.session.library().again();
    if (!library) return c_.say(say(library.error().text));
    progress_->setValue(0);
    auto anew = std::make_shared<Message>();
    c_.session.hold(true);
    auto step = std::make_shared<std::atomic<SendStep>>(SendStep::Making);
    job_ = new Job(
        this,
        [this, recipe = *recipe, order, step, anew, clock = &c_.session.clock(),
         own = std::shared_ptr<Library>(std::move(*library))](
            std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
            IdSource ids;
            SendOrder told = order;
            told.madeAnew = [&](const Message& what) { *anew = what; };
            auto sent = caught([&] {
                return sendLetter(*own, recipe, told, *clock, ids, stop, [&](SendStep now, double part) {
                    *step = now;
                    progress(part);
                });
            });
            return [this, anew, sent = std::move(sent)] {
                job_ = nullptr;
                settled(sent);
                if (sent && !anew->empty())
                    state_->setText(state_->text() + " " + say("outgoing.made-anew", {{"what", *anew}}));
            };
        });
    connect(job_, &Job::progressed, progress_, [this, step](double part) {
        if (*step == SendStep::Waiting)
            return state_->setText(
                say("send-bench.goes-out-in", {{"seconds", std::lround(std::ceil(part))}}));
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

KeyHints SendBench::hints() const {
    return {{"Ctrl+Enter", say("send-bench.send-the-letter-2"), "send"},
            {"\u2191 \u2193", say("send-bench.choose-a-sentence")},
            {"Enter", say("send-bench.change-it"), "letter-edit"},
            {"W", say("hint.watch"), "send-watch"},
            {"S", say("hint.save"), "send-save"},
            {"F", say("hint.files"), "send-look"},
            {"R", say("hint.reader"), "send-reader"},
            {"T", say("hint.later"), "send-later"},
            {"PgUp", say("hint.back"), "stage-previous"}};
}

Handlers SendBench::handlers() {
    return {{"send", [this] { sendByKey(); }},
            {"row-up", [this] { letter_.chooseNext(-1); }},
            {"row-down", [this] { letter_.chooseNext(1); }},
            {"letter-edit", [this] { editSentence(); }},
            {"send-watch", [this] { watch(); }},
            {"send-save", [this] { saveAll(); }},
            {"send-look", [this] { choose(); }},
            {"send-reader", [this] { chooseReader(); }},
            {"send-later", [this] { sendLater(); }}};
}

void SendBench::editSentence() {
    if (review().sent) return c_.say(say("send-bench.it-stays-as-it-was-sent"));
    const std::string key = letter_.chosen();
    if (key.empty()) return c_.say(say("send-bench.no-sentence-is-chosen"));
    const LetterModel letter = c_.session.letter();
    if (key == "opening") {
        const QString words = text(review().plan.opening);
        return letter_.edit(words, words, phrasesFor(c_.session.library(), key));
    }
    const auto generated = generatedSentence(letter, key);
    if (!generated) return;
    const Words& reader = c_.session.readersWords();
    const auto own = review().plan.sentences.find(key);
    const QString now = text(reader(*generated));
    letter_.edit(own == review().plan.sentences.end() ? now : text(own->second.text), now,
                 phrasesFor(c_.session.library(), key));
}

void SendBench::keepSentence(const std::string& key, const QString& words) {
    Plan plan = review().plan;
    if (key == "opening") {
        if (words.isEmpty()) return; // as it was
        plan.opening = words.toStdString();
    } else if (words.isEmpty()) {
        plan.sentences.erase(key);
    } else if (const auto generated = generatedSentence(c_.session.letter(), key)) {
        plan.sentences[key] = {words.toStdString(), *generated, c_.session.athlete().language};
    }
    if (!perform(msg("send-bench.change-a-sentence"), {SetPlan{plan}})) return;
    if (!words.isEmpty())
        if (const Status kept = rememberPhrase(c_.session.library(), key, words.toStdString()); !kept)
            c_.say(say(kept.error().text));
}

template <typename Work, typename Then>
void SendBench::work(const QString& what, Work work, Then then) {
    progress_->setValue(0);
    job_ = new Job(this,
                   [this, work = std::move(work), then = std::move(then)](
                       std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
                       auto result = std::make_shared<decltype(work(stop, progress))>(
                           caught([&] { return work(stop, progress); }));
                       return [this, result, then] {
                           job_ = nullptr;
                           setBusy({});
                           refresh();
                           then(*result);
                       };
                   });
    connect(job_, &Job::progressed, progress_,
            [this](double part) { progress_->setValue(static_cast<int>(part * 100)); });
    setBusy(what);
}

void SendBench::watch() {
    if (busy()) return;
    if (review().takes.empty()) return c_.say(say("send-bench.nothing-to-watch"));
    DispatchRecipe recipe = previewRecipe(c_.session);
    recipe.film.words = asShown(recipe.film.words);
    const auto folder = c_.session.library().workFolder();
    if (!folder) return state_->setText(say(folder.error().text));
    work(
        say("send-bench.making-the-film"),
        [recipe, folder = *folder, to = who_->text()](std::stop_token stop,
                                                      const Job::Progress& progress) -> Result<WatchedFilm> {
            FileStore files;
            auto made = renderNarratedFilm(recipe.film, folder->path() / "film.mp4", files, stop, progress);
            if (!made) return made.error();
            auto sound = readSound(folder->path() / "film.mp4");
            if (!sound) return sound.error();
            return WatchedFilm{folder, std::move(*made), std::move(*sound), to};
        },
        [this](Result<WatchedFilm>& film) {
            if (!film) return state_->setText(say(film.error().text));
            state_->setText({});
            (new FilmWatch(std::move(*film), loudspeaker_, window()))->open();
        });
}

void SendBench::saveAll() {
    if (busy()) return;
    const QString folder = folderToUse(this, say("send-bench.save-where"));
    if (folder.isEmpty()) return;
    const DispatchRecipe recipe = previewRecipe(c_.session);
    work(
        say("send-bench.making-the-letter-and-the-film"),
        [recipe, folder](std::stop_token stop, const Job::Progress& progress) {
            FileStore files;
            return exportAll(recipe, folder.toStdString(), files, stop, progress);
        },
        [this, folder](Result<std::vector<std::filesystem::path>>& written) {
            state_->setText(written ? say("send-bench.saved",
                                          {{"count", written->size()}, {"folder", folder.toStdString()}})
                                    : say(written.error().text));
        });
}

void SendBench::choose() {
    const LetterChoice now = letterChoiceOf(c_.session.library());
    auto* form = new FormDialog(this, "letter-choice", say("send-bench.look"), say("letter-choice.hint"));
    auto* paper = form->choice("paper", say("letter-choice.paper"),
                               {say("letter-choice.a4"), say("letter-choice.letter")},
                               now.paper == Paper::Letter ? 1 : 0);
    auto* phone = form->tick("phone-page", say("letter-choice.phone-page"), now.phonePage);
    auto* shape =
        form->choice("shape", say("letter-choice.shape"),
                     {say("letter-choice.wide"), say("letter-choice.upright")}, now.upright ? 1 : 0);
    auto* burnt = form->tick("burnt", say("letter-choice.burnt"), now.burntCaptions);
    auto* most = form->number("most", say("letter-choice.most"), now.mostMb, kLeastFilmMb, kMostFilmMb);
    form->openWith([=, this]() -> std::optional<QString> {
        LetterChoice choice;
        choice.paper = paper->currentIndex() == 1 ? Paper::Letter : Paper::A4;
        choice.phonePage = phone->isChecked();
        choice.upright = shape->currentIndex() == 1;
        choice.burntCaptions = burnt->isChecked();
        choice.mostMb = most->value();
        if (const Status kept = keepLetterChoice(c_.session.library(), choice); !kept)
            return say(kept.error().text);
        preview();
        return std::nullopt;
    });
}

void SendBench::chooseReader() {
    if (review().sent) return c_.say(say("send-bench.it-stays-as-it-was-sent"));
    askReader(this, c_.session, [this](Audience reader, Language language) -> Status {
        const Words& before = c_.session.readersWords();
        if (language != c_.session.athlete().language)
            if (Status kept = c_.session.setLanguage(language); !kept) return kept;
        Plan plan = inLanguage(planFor(c_.session, review()), before, c_.session.readersWords());
        plan.reader = reader;
        if (plan != review().plan) perform(msg("send-bench.change-the-reader"), {SetPlan{plan}});
        refresh();
        preview();
        return Done{};
    });
}

void SendBench::sendLater() {
    if (busy()) return;
    const auto recipe = dispatchRecipe(c_.session);
    if (!recipe) return c_.say(say(recipe.error().text));
    auto* form = new FormDialog(this, "send-later", say("send-later.title"), say("send-later.hint"));
    auto* when = form->line("when", say("send-later.when"), {}, say("send-later.when-hint"));
    form->does(say("send-later.title"));
    form->openWith([=, this, recipe = *recipe]() -> std::optional<QString> {
        const auto at = timeFromWords(when->text().toStdString(), c_.session.clock().nowUnix());
        if (!at) return say("send-later.no-time");
        auto library = c_.session.library().again();
        if (!library) return say(library.error().text);
        work(
            say("send-bench.making-the-letter-and-the-film"),
            [own = std::shared_ptr<Library>(std::move(*library)), recipe, at = *at,
             clock = &c_.session.clock()](std::stop_token stop, const Job::Progress& progress) {
                IdSource ids;
                return jg::sendLater(*own, recipe, at, *clock, ids, stop,
                                     [&](SendStep, double part) { progress(part); });
            },
            [this, at = *at](const Result<OutboxItem>& laid) {
                state_->setText(
                    laid ? say("send-later.laid", {{"to", laid->recipient}, {"when", momentInWords(at)}})
                         : say(laid.error().text));
                Q_EMIT outboxChanged();
            });
        return std::nullopt;
    });
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
