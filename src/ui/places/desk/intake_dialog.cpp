// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/desk/intake_dialog.h"

#include "base/caught.h"
#include "base/clock.h"
#include "desk/intake/intake.h"
#include "ui/forms/athlete_form.h"
#include "ui/kit/ask_first.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/theme.h"
#include "ui/places/desk/film_cards.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QLineEdit>
#include <QProgressBar>
#include <QScrollArea>

namespace jg::ui {

namespace {
constexpr const char* kFilmFiles = "Films (*.mp4 *.mov *.m4v *.mkv *.webm *.avi *.mts *.m2ts *.3gp *.mpg "
                                   "*.mpeg *.MP4 *.MOV *.M4V *.MKV *.WEBM "
                                   "*.AVI *.MTS *.M2TS *.3GP *.MPG *.MPEG)";

QLineEdit* line(const char* name, const QString& label, const QString& hint) {
    auto* edit = new QLineEdit;
    edit->setObjectName(name);
    edit->setAccessibleName(label);
    edit->setPlaceholderText(hint);
    return edit;
}

template <class All, class Name>
QComboBox* choice(const QString& label, const All& all, Name name) {
    auto* box = new QComboBox;
    box->setAccessibleName(label);
    for (const auto value : all) box->addItem(say(name(value)));
    return box;
}
} // namespace

IntakeDialog::IntakeDialog(Library& library, const Clock& clock, const QStringList& files, QWidget* parent)
    : QDialog(parent)
    , library_(library)
    , clock_(clock) {
    setObjectName("intake");
    setWindowTitle(say("intake-dialog.take-in-films"));
    setAttribute(Qt::WA_DeleteOnClose);
    resizeForText(*this, 700, 740);
    if (auto all = library_.athletes()) athletes_ = std::move(*all);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(26, 20, 26, 18);
    column->setSpacing(10);
    column->addWidget(heading(say("intake-dialog.take-in-films"), 24));
    column->addWidget(buildBody(), 1);
    column->addWidget(buildFoot());
    connect(who_, &QComboBox::currentIndexChanged, this, &IntakeDialog::whoChanged);
    whoChanged(0);
    films_->add(files);
}

IntakeDialog::~IntakeDialog() {
    if (job_) job_->cancel();
}

void IntakeDialog::fillFrom(const MailIntake& mail) {
    mailFolder_ = mail.folder;
    mailKey_ = mail.key;
    QStringList files;
    for (const auto& film : mail.films) files << jg::text(film.string());
    films_->add(files);
    for (std::size_t i = 0; i < athletes_.size(); ++i)
        if (mail.athlete == athletes_[i].id) who_->setCurrentIndex(static_cast<int>(i) + 1);
    asked_->setText(text(mail.asked));
    pain_->setText(text(painOf(mail)));
    const char* who = mail.athlete     ? "intake-dialog.mail-of-one"
                      : mail.known > 1 ? "intake-dialog.mail-of-several"
                                       : "intake-dialog.mail-of-nobody";
    QStringList left;
    for (const std::string& name : mail.leftOut) left << text(name);
    std::vector<Message> doubts = mail.doubts;
    if (!doubts.empty()) doubts.push_back(msg("intake-dialog.mail-ask"));
    mail_->setText(say(joined(
        ListStyle::Sentences,
        {msg(who, {{"sender", mail.senderAddress}, {"subject", mail.subject}}),
         joined(ListStyle::Sentences, std::move(doubts)),
         mail.pain.empty() ? Message{} : msg("intake-dialog.mail-pain"),
         mail.olderPain.empty() ? Message{} : msg("intake-dialog.mail-older-pain"),
         left.isEmpty() ? Message{}
                        : msg("intake-dialog.mail-left-out", {{"files", left.join(", ").toStdString()}})})));
    mail_->show();
    aside_->show();
}

QWidget* IntakeDialog::buildBody() {
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* inner = new QWidget;
    auto* body = new QVBoxLayout(inner);
    body->setContentsMargins(0, 0, 8, 0);
    body->setSpacing(10);
    mail_ = quiet();
    mail_->setObjectName("mail");
    mail_->hide();
    body->addWidget(mail_);
    films_ = new FilmCards;
    body->addWidget(films_);
    auto* more = plainButton(say("intake-dialog.add-films"));
    more->setObjectName("add-films");
    connect(more, &QPushButton::clicked, this, &IntakeDialog::chooseFiles);
    body->addWidget(more, 0, Qt::AlignLeft);
    body->addWidget(rule());
    auto* form = new QFormLayout;
    form->setLabelAlignment(Qt::AlignLeft);
    form->setHorizontalSpacing(18);
    buildQuestions(*form);
    body->addLayout(form);
    body->addStretch(1);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    return scroll;
}

void IntakeDialog::buildQuestions(QFormLayout& form) {
    // First and always in sight: it changes what may be asked of the athlete.
    pain_ = line("pain", say("intake-dialog.any-pain"), say("intake-dialog.pain-hint"));
    form.addRow(say("intake-dialog.any-pain"), pain_);
    who_ = new QComboBox;
    who_->setObjectName("who");
    who_->setAccessibleName(say("intake-dialog.athlete"));
    who_->addItem(say("intake-dialog.choose-the-athlete"));
    for (const Athlete& a : athletes_)
        who_->addItem(text(a.fullName()) + QString(", %1").arg(a.ageOn(clock_.today())));
    who_->addItem(say("intake-dialog.someone-new"));
    form.addRow(say("intake-dialog.athlete"), who_);
    fresh_ = new AthleteForm(clock_.today());
    form.addRow(fresh_);
    asked_ = line("asked", say("intake-dialog.what-was-asked"), say("intake-dialog.asked-hint"));
    form.addRow(say("intake-dialog.what-was-asked"), asked_);
    start_ = choice(say("intake-dialog.thrown-from"), allStarts(), [](Start s) { return nameOf(s); });
    start_->setObjectName("start");
    start_->setCurrentIndex(start_->findText(say(nameOf(Start::Stretch))));
    form.addRow(say("intake-dialog.thrown-from-the"), start_);
    surface_ = choice(say("intake-dialog.thrown-on"), allSurfaces(), [](Surface s) { return nameOf(s); });
    surface_->setObjectName("surface");
    surface_->setCurrentIndex(surface_->findText(say(nameOf(Surface::Mound))));
    form.addRow(say("intake-dialog.thrown-on-the"), surface_);
    promised_ = new QComboBox;
    promised_->setAccessibleName(say("intake-dialog.answer-promised-for"));
    promised_->addItem(say("intake-dialog.no-date"));
    for (const PromiseChoice& c : promiseChoices()) promised_->addItem(say(c.words), c.days);
    form.addRow(say("intake-dialog.answer-promised"), promised_);
    alignLabels(form);
}

QWidget* IntakeDialog::buildFoot() {
    auto* foot = new QWidget;
    auto* column = new QVBoxLayout(foot);
    column->setContentsMargins(0, 0, 0, 0);
    problem_ = problemLabel("intake-problem");
    column->addWidget(problem_);
    progress_ = new QProgressBar;
    progress_->setAccessibleName(say("intake-dialog.how-far-taking-in-has-come"));
    progress_->hide();
    column->addWidget(progress_);
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(quiet(say("intake-dialog.the-originals-are-copied-and-never"), 12), 1);
    auto* cancel = plainButton(say("athlete-dialog.cancel"));
    connect(cancel, &QPushButton::clicked, this, &IntakeDialog::reject);
    ok_ = mainButton(say("intake-dialog.take-in"));
    ok_->setDefault(true);
    connect(ok_, &QPushButton::clicked, this, &IntakeDialog::takeInNow);
    aside_ = plainButton(say("intake-dialog.put-aside"));
    aside_->setObjectName("put-aside");
    aside_->hide();
    connect(aside_, &QPushButton::clicked, this, [this] {
        if (job_) return;
        Q_EMIT putAside();
        done(QDialog::Rejected);
    });
    buttons->addWidget(aside_);
    buttons->addWidget(cancel);
    buttons->addWidget(ok_);
    column->addLayout(buttons);
    return foot;
}

void IntakeDialog::whoChanged(int row) {
    const bool isNew = row == who_->count() - 1;
    fresh_->setVisible(isNew);
}

void IntakeDialog::chooseFiles() {
    if (!mayShowFiles(this)) return;
    auto* dialog = new QFileDialog(this, say("intake-dialog.choose-films"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::ExistingFiles);
    dialog->setNameFilters({kFilmFiles, say("intake-dialog.all-files")});
    connect(dialog, &QFileDialog::filesSelected, films_, &FilmCards::add);
    dialog->open();
}

bool IntakeDialog::touched() const {
    return films_->count() > 0 || fresh_->touched() || !asked_->text().isEmpty() || !pain_->text().isEmpty();
}

void IntakeDialog::reject() {
    if (job_) {
        job_->cancel(); // the job's end says so
        return;
    }
    if (!touched() || nobodyIsAsked()) return QDialog::reject();
    askFirst(this, "leave-intake", say("intake-dialog.leave-hint"),
             say("intake-dialog.leave-without-taking-in"), [this] { QDialog::reject(); });
}

Status IntakeDialog::nameAthlete(IntakeForm& form) {
    const int i = who_->currentIndex();
    if (i == 0) return fail(ErrorCode::BadInput, msg("intake-dialog.whose"));
    if (i <= static_cast<int>(athletes_.size())) {
        form.athlete = athletes_[static_cast<std::size_t>(i - 1)].id;
        return Done{};
    }
    Athlete a;
    a.id = IdSource().next<AthleteTag>("ath");
    auto read = fresh_->read(a);
    if (!read) return read.error();
    form.athlete = read->id;
    form.newAthlete = std::move(*read);
    return Done{};
}

Result<IntakeForm> IntakeDialog::form() {
    IntakeForm f;
    auto films = films_->films();
    if (!films) return films.error();
    f.films = std::move(*films);
    if (const Status named = nameAthlete(f); !named) return named.error();
    f.start = allStarts()[static_cast<std::size_t>(start_->currentIndex())];
    f.surface = allSurfaces()[static_cast<std::size_t>(surface_->currentIndex())];
    f.asked = asked_->text().trimmed().toStdString();
    f.pain = pain_->text().trimmed().toStdString();
    f.mail = mailKey_;
    if (const QVariant days = promised_->currentData(); days.isValid())
        f.promised = addDays(clock_.today(), days.toInt());
    return f;
}

void IntakeDialog::refuse(const QString& sentence) {
    problem_->setText(sentence);
    problem_->show();
    showRunning(false);
}

void IntakeDialog::showRunning(bool runs) {
    progress_->setVisible(runs);
    ok_->setEnabled(!runs);
    if (runs) progress_->setValue(0), problem_->hide();
}

void IntakeDialog::takeInNow() {
    if (job_) return;
    auto f = form();
    if (!f) return refuse(say(f.error().text));
    takeIn(*std::move(f));
}

void IntakeDialog::takeIn(IntakeForm f) {
    auto again = library_.again();
    if (!again) return refuse(say(again.error().text));
    Hand hand = f.newAthlete ? f.newAthlete->hand : Hand::Right;
    for (const Athlete& a : athletes_)
        if (a.id == f.athlete) hand = a.hand;
    showRunning(true);
    std::shared_ptr<Library> own = std::move(*again);
    job_ =
        new Job(this,
                [this, own, hand, form = std::move(f),
                 &clock = clock_](std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
                    IdSource ids;
                    auto kept =
                        caught([&] { return lookAndTakeIn(*own, form, hand, clock, ids, stop, progress); });
                    if (!kept) return [this, form, why = kept.error()] { notTaken(form, why); };
                    return [this, id = kept->id] {
                        job_.clear();
                        Q_EMIT taken(id);
                        accept();
                    };
                });
    connect(job_, &Job::progressed, progress_,
            [this](double part) { progress_->setValue(static_cast<int>(part * 100)); });
}

/// What only needs a yes is asked; all else stands in the form.
void IntakeDialog::notTaken(const IntakeForm& form, const Error& why) {
    job_.clear();
    refuse(say(why.text));
    if (why.code != ErrorCode::NeedsYes) return;
    askFirst(this, "once-more", say(why.text), say("intake-dialog.once-more"), [this, form] {
        IntakeForm again = form;
        again.onceMore = true;
        takeIn(std::move(again));
    });
}

} // namespace jg::ui
