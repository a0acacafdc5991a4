// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/forms/athlete_form.h"

#include "kinematics/scale.h"
#include "review/record/people_check.h"
#include "ui/kit/theme.h"

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
    const auto line = [&](const QString& label, const char* name, const QString& hint = {}) {
        auto* edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setAccessibleName(label);
        edit->setPlaceholderText(hint);
        form->addRow(label, edit);
        return edit;
    };
    first_ = line(say("athlete-form.first-name"), "first-name");
    last_ = line(say("athlete-form.last-name"), "last-name");
    born_ = line(say("athlete-form.born-on"), "born", say("athlete-form.2011-03-09-or-9-march"));
    age_ = quiet("", 12);
    form->addRow("", age_);
    hand_ = new QComboBox;
    hand_->setObjectName("hand");
    hand_->setAccessibleName(say("athlete-form.throws-with-the-right-or-left"));
    hand_->addItems({say(nameOf(Hand::Right)), say(nameOf(Hand::Left))});
    language_ = new QComboBox;
    language_->setObjectName("language");
    language_->setAccessibleName(say("athlete-form.language-of-what-is-sent"));
    for (const Language language : allLanguages()) language_->addItem(say(nameOf(language)));
    auto* both = new QHBoxLayout;
    both->addWidget(hand_, 1);
    both->addWidget(quiet(say("athlete-form.language"), 13));
    both->addWidget(language_, 1);
    form->addRow(say("athlete-form.throws"), both);
    height_ = line(say("athlete-form.height"), "height", say("athlete-form.170-cm-or-5-ft-7"));
    level_ = line(say("athlete-form.level"), "level", say("athlete-form.first-season-school-team"));
    email_ = line(say("athlete-form.mail"), "email", "name@example.org");
    guardianName_ = line(say("athlete-form.guardian"), "guardian-name", say("athlete-form.needed-under-18"));
    guardianEmail_ = line(say("athlete-form.guardians-mail"), "guardian-email", "name@example.org");
    comingBack_ = line(say("athlete-form.coming-back"), "coming-back", say("athlete-form.coming-back-hint"));
    planSeen_ = line(say("athlete-form.plan-seen"), "plan-seen", say("athlete-form.plan-seen-hint"));
    model_ = line(say("athlete-form.model"), "model", say("athlete-form.model-hint"));
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
        std::vector<Message> told{msg("athlete-form.today-years-today", {{"today", a.ageOn(today_)}})};
        if (a.isMinorOn(today_) && guardianEmail_->text().trimmed().isEmpty())
            told.push_back(msg("athlete-form.guardian-wanted"));
        words = say(joined(ListStyle::Sentences, std::move(told)));
    } else if (!born_->text().isEmpty()) {
        words = say("athlete-form.write-the-day-as-2011-03");
    }
    age_->setText(words);
    age_->setVisible(!words.isEmpty());
}

void AthleteForm::fill(const Athlete& a) {
    first_->setText(text(a.firstName));
    last_->setText(text(a.lastName));
    born_->setText(text(isoDate(a.born)));
    hand_->setCurrentIndex(a.hand == Hand::Right ? 0 : 1);
    height_->setText(a.heightM ? say("athlete-form.height-m-cm", {{"heightM", std::lround(*a.heightM * 100)}})
                               : QString());
    level_->setText(text(a.level));
    email_->setText(text(a.email));
    guardianName_->setText(text(a.guardianName));
    guardianEmail_->setText(text(a.guardianEmail));
    language_->setCurrentIndex(static_cast<int>(a.language));
    comingBack_->setText(a.comingBack ? text(a.comingBack->from) : QString());
    model_->setText(text(a.model));
    planSeen_->setText(a.comingBack && a.comingBack->planSeen ? text(isoDate(*a.comingBack->planSeen))
                                                              : QString());
}

bool AthleteForm::touched() const {
    for (const QLineEdit* edit : findChildren<QLineEdit*>())
        if (!edit->text().trimmed().isEmpty()) return true;
    return false;
}

/// The injury and the day the clinician's plan was seen; both empty = none.
Status AthleteForm::readComingBack(Athlete& a) const {
    const std::string from = comingBack_->text().trimmed().toStdString();
    const std::string seen = planSeen_->text().trimmed().toStdString();
    a.comingBack.reset();
    if (from.empty() && seen.empty()) return Done{};
    if (from.empty()) return fail(ErrorCode::BadInput, msg("athlete-form.back-from-what"));
    a.comingBack = ComingBack{from, std::nullopt};
    if (seen.empty()) return Done{};
    const auto day = dateFromWords(seen);
    if (!day || *day > today_)
        return fail(ErrorCode::BadInput, msg("athlete-form.plan-seen-is-no-day", {{"seen", seen}}));
    a.comingBack->planSeen = *day;
    return Done{};
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
    a.language = allLanguages().at(static_cast<std::size_t>(language_->currentIndex()));
    if (a.firstName.empty()) return fail(ErrorCode::BadInput, msg("athlete-form.a-first-name-is-needed"));
    const auto born = dateFromWords(words(born_));
    if (!born)
        return fail(ErrorCode::BadInput, words(born_).empty()
                                             ? msg("athlete-form.the-date-of-birth-is-needed")
                                             : msg("athlete-form.born-unclear", {{"born", words(born_)}}));
    a.born = *born;
    a.model = words(model_);
    const auto was = a.heightM;
    a.heightM.reset();
    if (const std::string height = words(height_); !height.empty()) {
        a.heightM = metresFromWords(height);
        if (!a.heightM) return fail(ErrorCode::BadInput, msg("athlete-form.no-height", {{"height", height}}));
    }
    // Each new height stays with its day: growth is told apart from technique.
    if (a.heightM && a.heightM != was) a.heights.push_back({today_, *a.heightM});
    if (auto back = readComingBack(a); !back) return back.error();
    if (auto fine = checkAthlete(a, today_); !fine) return fine.error();
    return a;
}

} // namespace jg::ui
