#include "ui/desk/intake_dialog.h"

#include "ui/theme.h"

#include <QComboBox>
#include <QDateEdit>
#include <QFileDialog>
#include <QFileInfo>
#include <QFormLayout>
#include <QLineEdit>
#include <QProgressBar>
#include <QScrollArea>

namespace jg::ui {

namespace {

Date fromQt(const QDate& d) {
    return Date{std::chrono::year{d.year()}, std::chrono::month{static_cast<unsigned>(d.month())},
                std::chrono::day{static_cast<unsigned>(d.day())}};
}

} // namespace

IntakeDialog::IntakeDialog(Library& library, const Clock& clock, IdSource& ids, const QStringList& files,
                           QWidget* parent)
    : QDialog(parent)
    , library_(library)
    , clock_(clock)
    , ids_(ids) {
    setObjectName("intake");
    setWindowTitle("Take in films");
    setAttribute(Qt::WA_DeleteOnClose);
    resize(640, 640);
    if (auto all = library_.athletes()) athletes_ = std::move(*all);
    build();
    addFiles(files);
}

IntakeDialog::~IntakeDialog() {
    if (job_) job_->cancel();
}

void IntakeDialog::build() {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(26, 20, 26, 18);
    column->setSpacing(10);
    column->addWidget(heading("Take in films", 24));
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    auto* body = new QVBoxLayout(inner);
    body->setContentsMargins(0, 0, 8, 0);
    body->setSpacing(10);
    filmBox_ = new QVBoxLayout;
    body->addLayout(filmBox_);
    auto* more = plainButton("Add a film\u2026");
    connect(more, &QPushButton::clicked, this, &IntakeDialog::chooseFiles);
    body->addWidget(more, 0, Qt::AlignLeft);
    body->addWidget(rule());

    auto* form = new QFormLayout;
    form->setLabelAlignment(Qt::AlignLeft);
    form->setHorizontalSpacing(18);
    who_ = new QComboBox;
    who_->setObjectName("who");
    who_->addItem("Choose the athlete\u2026");
    for (const Athlete& a : athletes_)
        who_->addItem(text(a.fullName()) + QString(", %1").arg(a.ageOn(clock_.today())));
    who_->addItem("Someone new\u2026");
    form->addRow("Athlete", who_);
    newBox_ = new QWidget;
    auto* fresh = new QFormLayout(newBox_);
    fresh->setContentsMargins(0, 0, 0, 0);
    const auto line = [](const char* name, const char* hint = "") {
        auto* edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setPlaceholderText(hint);
        return edit;
    };
    first_ = line("first-name");
    last_ = line("last-name");
    email_ = line("email", "name@example.org");
    guardianName_ = line("guardian-name", "needed under 18");
    guardianEmail_ = line("guardian-email", "name@example.org");
    born_ = new QDateEdit(QDate::currentDate().addYears(-14));
    born_->setObjectName("born");
    born_->setDisplayFormat("d MMMM yyyy");
    hand_ = new QComboBox;
    hand_->setObjectName("hand");
    hand_->addItems({"right", "left"});
    fresh->addRow("First name", first_);
    fresh->addRow("Last name", last_);
    fresh->addRow("Born on", born_);
    fresh->addRow("Throws", hand_);
    fresh->addRow("Mail", email_);
    fresh->addRow("Guardian", guardianName_);
    fresh->addRow("Guardian's mail", guardianEmail_);
    form->addRow(newBox_);
    delivery_ = new QComboBox;
    delivery_->addItems({"stretch", "wind-up"});
    surface_ = new QComboBox;
    surface_->addItems({"mound", "flat ground"});
    auto* conditions = new QHBoxLayout;
    conditions->addWidget(delivery_);
    conditions->addWidget(surface_);
    form->addRow("From the, on the", conditions);
    asked_ = line("asked", "what they want to know, in their words");
    form->addRow("What was asked", asked_);
    pain_ = line("pain", "leave empty when nothing hurts");
    form->addRow("Any pain", pain_);
    promised_ = new QComboBox;
    promised_->addItems({"no date", "tonight", "tomorrow", "in three days", "in a week"});
    form->addRow("Promised for", promised_);
    body->addLayout(form);
    body->addStretch(1);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);

    problem_ = plain("", 13, true);
    problem_->setObjectName("intake-problem");
    QPalette p = problem_->palette();
    p.setColor(QPalette::WindowText, palette::clay);
    problem_->setPalette(p);
    column->addWidget(problem_);
    progress_ = new QProgressBar;
    progress_->hide();
    column->addWidget(progress_);
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(quiet("The originals are copied and never changed.", 12), 1);
    auto* cancel = plainButton("Cancel");
    connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
    ok_ = mainButton("Take in");
    connect(ok_, &QPushButton::clicked, this, &IntakeDialog::takeInNow);
    buttons->addWidget(cancel);
    buttons->addWidget(ok_);
    column->addLayout(buttons);
    ok_->setDefault(true);
    connect(who_, &QComboBox::currentIndexChanged, this,
            [this](int i) { newAthleteShown(i == who_->count() - 1); });
    newAthleteShown(false);
}

void IntakeDialog::newAthleteShown(bool shown) {
    newBox_->setVisible(shown);
}

void IntakeDialog::chooseFiles() {
    auto* dialog = new QFileDialog(this, "Choose films");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::ExistingFiles);
    connect(dialog, &QFileDialog::filesSelected, this, &IntakeDialog::addFiles);
    dialog->open();
}

void IntakeDialog::addFiles(const QStringList& files) {
    for (const QString& path : files) {
        auto* card = new QFrame;
        card->setObjectName("card");
        auto* box = new QVBoxLayout(card);
        auto* row = new QHBoxLayout;
        row->addWidget(plain(QFileInfo(path).fileName(), 13, true), 1);
        auto* view = new QComboBox;
        view->setObjectName("view");
        for (const View v : {View::Open, View::Closed, View::Front, View::Rear})
            view->addItem(text(nameOf(v)));
        auto* rate = new QComboBox;
        rate->addItems({"rate from the file", "30 a second", "60 a second", "120 a second", "240 a second"});
        row->addWidget(view);
        row->addWidget(rate);
        box->addLayout(row);
        auto* check = quiet("Checked when it is taken in.", 12);
        box->addWidget(check);
        filmBox_->addWidget(card);
        films_.push_back({path, view, rate, check});
    }
    if (films_.empty())
        problem_->setText("Add a film first.");
    else
        problem_->clear();
}

Result<AthleteId> IntakeDialog::athlete() {
    const int i = who_->currentIndex();
    if (i == 0) return fail(ErrorCode::BadInput, "Whose film is it? Choose the athlete.");
    if (i <= static_cast<int>(athletes_.size())) return athletes_[static_cast<std::size_t>(i - 1)].id;
    Athlete a;
    a.id = ids_.next<AthleteTag>("ath");
    a.firstName = first_->text().trimmed().toStdString();
    a.lastName = last_->text().trimmed().toStdString();
    a.born = fromQt(born_->date());
    a.hand = hand_->currentIndex() == 0 ? Hand::Right : Hand::Left;
    a.email = email_->text().trimmed().toStdString();
    a.guardianName = guardianName_->text().trimmed().toStdString();
    a.guardianEmail = guardianEmail_->text().trimmed().toStdString();
    if (a.firstName.empty()) return fail(ErrorCode::BadInput, "A first name is needed.");
    const int age = a.ageOn(clock_.today());
    if (age < 5 || age > 99)
        return fail(ErrorCode::BadInput,
                    "Check the date of birth: that would be an age of " + std::to_string(age) + ".");
    if (auto saved = library_.save(a); !saved) return saved.error();
    return a.id;
}

IntakeForm IntakeDialog::form(const AthleteId& who) const {
    IntakeForm f;
    f.athlete = who;
    static constexpr double rates[] = {0, 30, 60, 120, 240};
    for (const FilmRow& film : films_)
        f.films.push_back({film.path.toStdString(), static_cast<View>(film.view->currentIndex()),
                           rates[film.rate->currentIndex()]});
    f.delivery = delivery_->currentText().toStdString();
    f.surface = surface_->currentText().toStdString();
    f.asked = asked_->text().trimmed().toStdString();
    f.pain = pain_->text().trimmed().toStdString();
    static constexpr int days[] = {0, 0, 1, 3, 7};
    if (promised_->currentIndex() > 0) f.promised = addDays(clock_.today(), days[promised_->currentIndex()]);
    return f;
}

void IntakeDialog::refuse(const QString& sentence) {
    problem_->setText(sentence);
    progress_->hide();
    ok_->setEnabled(true);
}

void IntakeDialog::takeInNow() {
    if (films_.empty()) return refuse("Add a film first.");
    auto who = athlete();
    if (!who) return refuse(text(who.error().text));
    const IntakeForm f = form(*who);
    problem_->clear();
    ok_->setEnabled(false);
    progress_->setValue(0);
    progress_->show();
    const auto stored = library_.athlete(*who);
    const Hand hand = stored ? stored->hand : Hand::Right;
    job_ = new Job(
        this, [this, f, hand](std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
            std::vector<LookedAt> looked;
            for (std::size_t i = 0; i < f.films.size(); ++i) {
                auto seen = lookAtFilm(
                    f.films[i].path, questionFor(f.films[i].view, hand, f.films[i].statedFps), stop,
                    [&](double part) {
                        progress((static_cast<double>(i) + part) / static_cast<double>(f.films.size()));
                    });
                if (!seen) return [this, why = text(seen.error().text)] { refuse(why); };
                looked.push_back(std::move(*seen));
            }
            return [this, f, looked = std::move(looked)] { store(f, looked); };
        });
    connect(job_, &Job::progressed, progress_,
            [this](double part) { progress_->setValue(static_cast<int>(part * 100)); });
}

void IntakeDialog::store(const IntakeForm& f, const std::vector<LookedAt>& looked) {
    auto submission = takeIn(library_, f, looked, clock_, ids_);
    if (!submission) return refuse(text(submission.error().text));
    Q_EMIT taken(submission->id);
    accept();
}

} // namespace jg::ui
