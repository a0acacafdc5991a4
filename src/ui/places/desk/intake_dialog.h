// SPDX-License-Identifier: GPL-3.0-or-later
// Taking films in: whose they are, what was asked, whether anything hurts.
#pragma once

#include "base/clock.h"
#include "desk/intake/intake.h"
#include "desk/intake/mail_intake.h"
#include "desk/jobs/job.h"

#include <QDialog>
#include <QPointer>

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QVBoxLayout;

namespace jg::ui {

class AthleteForm;
class FilmCards;

class IntakeDialog : public QDialog {
    Q_OBJECT
public:
    IntakeDialog(Library& library, const Clock& clock, const QStringList& files, QWidget* parent = nullptr);
    /// What a mail brought: its films, who it may be, what was asked, what hurts. All of it can be changed.
    void fillFrom(const MailIntake& mail);
    ~IntakeDialog() override;
    /// Stops what runs; else asks when something was filled in.
    void reject() override;

Q_SIGNALS:
    void taken(const jg::SubmissionId& submission);
    void putAside(); ///< the mail is not wanted

private:
    QWidget* buildBody();
    void buildQuestions(QFormLayout& form);
    QWidget* buildFoot();
    void chooseFiles();
    void whoChanged(int row);
    bool touched() const;
    Result<IntakeForm> form();
    Status nameAthlete(IntakeForm& form);
    void takeInNow();
    void takeIn(IntakeForm form);
    void notTaken(const IntakeForm& form, const Error& why);
    void refuse(const QString& sentence);
    void showRunning(bool runs);

    Library& library_;
    const Clock& clock_;
    std::vector<Athlete> athletes_;
    FilmCards* films_;
    QLabel* mail_;
    QPushButton* aside_;
    std::shared_ptr<WorkFolder> mailFolder_; ///< its films lie there until they are taken in
    std::string mailKey_;
    QComboBox* who_;
    AthleteForm* fresh_;
    QComboBox *start_, *surface_;
    QLineEdit *asked_, *pain_;
    QComboBox* promised_;
    QLabel* problem_;
    QProgressBar* progress_;
    QPushButton* ok_;
    QPointer<Job> job_;
};

} // namespace jg::ui
