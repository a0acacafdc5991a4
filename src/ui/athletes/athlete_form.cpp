#include "ui/athletes/athlete_form.h"

#include "kinematics/scale.h"
#include "review/people_check.h"
#include "ui/theme.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLineEdit>

#include <cmath>

namespace jg::ui {

AthleteForm::AthleteForm(Date today, QWidget* parent)
    : QWidget(parent)
    , today_(today) {
    auto* form = new QFormLayout(this);
    form->setContentsMargins(0, 0, 0, 0);
    form->setLabelAlignment(Qt::AlignLeft);
    form->setHorizontalSpacing(18);
    const auto line = [&](const QString& label, const char* name, const char* hint = "") {
        auto* edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setAccessibleName(label);
        edit->setPlaceholderText(hint);
        form->addRow(label, edit);
        return edit;
    };
    first_ = line("First name", "first-name");
    last_ = line("Last name", "last-name");
    born_ = line("Born on", "born", "2011-03-09 or 9 March 2011");
    age_ = quiet("", 12);
    form->addRow("", age_);
    hand_ = new QComboBox;
    hand_->setObjectName("hand");
    hand_->setAccessibleName("Throws with the right or left hand");
    hand_->addItems({"right", "left"});
    form->addRow("Throws", hand_);
    height_ = line("Height", "height", "170 cm or 5 ft 7; may stay empty");
    level_ = line("Level", "level", "first season, school team \u2026");
    email_ = line("Mail", "email", "name@example.org");
    guardianName_ = line("Guardian", "guardian-name", "needed under 18");
    guardianEmail_ = line("Guardian's mail", "guardian-email", "name@example.org");
    connect(born_, &QLineEdit::textChanged, this, &AthleteForm::showAge);
    connect(guardianEmail_, &QLineEdit::textChanged, this, &AthleteForm::showAge);
    alignLabels(*form);
    showAge();
}

void AthleteForm::showAge() {
    const auto born = dateFromWords(born_->text().toStdString());
    QString words;
    if (born) {
        Athlete a;
        a.born = *born;
        words = QString("%1 years today.").arg(a.ageOn(today_));
        if (a.isMinorOn(today_) && guardianEmail_->text().trimmed().isEmpty())
            words += " Under 18: letters go to the guardian, so an address is needed below.";
    } else if (!born_->text().isEmpty()) {
        words = "Write the day as 2011-03-09 or 9 March 2011.";
    }
    age_->setText(words);
    age_->setVisible(!words.isEmpty());
}

void AthleteForm::fill(const Athlete& a) {
    first_->setText(text(a.firstName));
    last_->setText(text(a.lastName));
    born_->setText(text(isoDate(a.born)));
    hand_->setCurrentIndex(a.hand == Hand::Right ? 0 : 1);
    height_->setText(a.heightM ? QString("%1 cm").arg(std::lround(*a.heightM * 100)) : QString());
    level_->setText(text(a.level));
    email_->setText(text(a.email));
    guardianName_->setText(text(a.guardianName));
    guardianEmail_->setText(text(a.guardianEmail));
}

bool AthleteForm::touched() const {
    for (const QLineEdit* edit : findChildren<QLineEdit*>())
        if (!edit->text().trimmed().isEmpty()) return true;
    return false;
}

Result<Athlete> AthleteForm::read(Athlete a) const {
    const auto words = [](const QLineEdit* edit) { return edit->text().trimmed().toStdString(); };
    a.firstName = words(first_);
    a.lastName = words(last_);
    a.hand = hand_->currentIndex() == 0 ? Hand::Right : Hand::Left;
    a.level = words(level_);
    a.email = words(email_);
    a.guardianName = words(guardianName_);
    a.guardianEmail = words(guardianEmail_);
    if (a.firstName.empty()) return fail(ErrorCode::BadInput, "A first name is needed.");
    const auto born = dateFromWords(words(born_));
    if (!born)
        return fail(ErrorCode::BadInput,
                    words(born_).empty()
                        ? "The date of birth is needed, as 2011-03-09 or 9 March 2011."
                        : "\"" + words(born_) +
                              "\" is not one day for sure. Write it as 2011-03-09 or 9 March 2011.");
    a.born = *born;
    a.heightM.reset();
    if (const std::string height = words(height_); !height.empty()) {
        a.heightM = metresFromWords(height);
        if (!a.heightM)
            return fail(ErrorCode::BadInput,
                        "\"" + height + "\" is no height. Write it as 170 cm or 5 ft 7.");
    }
    if (auto fine = checkAthlete(a, today_); !fine) return fine.error();
    return a;
}

} // namespace jg::ui
