// Taking films in: whose they are, what was asked, whether anything hurts.
#pragma once

#include "desk/intake.h"
#include "desk/job.h"

#include <QDialog>
#include <QPointer>

class QComboBox;
class QDateEdit;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QVBoxLayout;

namespace jg::ui {

class IntakeDialog : public QDialog {
    Q_OBJECT
public:
    IntakeDialog(Library& library, const Clock& clock, IdSource& ids, const QStringList& files,
                 QWidget* parent = nullptr);
    ~IntakeDialog() override;

Q_SIGNALS:
    void taken(const jg::SubmissionId& submission);

private:
    struct FilmRow {
        QString path;
        QComboBox* view;
        QComboBox* rate;
        QLabel* check;
    };
    void build();
    void addFiles(const QStringList& files);
    void chooseFiles();
    void newAthleteShown(bool shown);
    Result<AthleteId> athlete();
    IntakeForm form(const AthleteId& athlete) const;
    void takeInNow();
    void store(const IntakeForm& form, const std::vector<LookedAt>& looked);
    void refuse(const QString& sentence);

    Library& library_;
    const Clock& clock_;
    IdSource& ids_;
    std::vector<Athlete> athletes_;
    std::vector<FilmRow> films_;
    QVBoxLayout* filmBox_;
    QComboBox* who_;
    QWidget* newBox_;
    QLineEdit *first_, *last_, *email_, *guardianName_, *guardianEmail_;
    QDateEdit* born_;
    QComboBox* hand_;
    QComboBox* delivery_;
    QComboBox* surface_;
    QLineEdit *asked_, *pain_;
    QComboBox* promised_;
    QLabel* problem_;
    QProgressBar* progress_;
    QPushButton* ok_;
    QPointer<Job> job_;
};

} // namespace jg::ui
