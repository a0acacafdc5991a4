// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/measure/measure_picker.h"

#include "letter/qt_text.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <memory>
#include <set>
#include <utility>

namespace jg::ui {

namespace {

struct Tick {
    std::string id;
    QCheckBox* box;
    QWidget* row;
    QString words; ///< what the filter looks in
    bool own;      ///< the approach's: always taken
};
using Ticks = std::vector<Tick>;

QString viewsOf(const MeasureDefinition& m) {
    QStringList names;
    for (const View v : m.views) names << say(nameOf(v));
    return names.join(", ");
}

Tick tickFor(const MeasureDefinition& m, const Review& review, View view) {
    const bool own = review.approach().targetOf(m.id) != nullptr;
    const bool taken = std::find(review.extras.begin(), review.extras.end(), m.id) != review.extras.end();
    auto* row = new QWidget;
    auto* column = new QVBoxLayout(row);
    column->setContentsMargins(0, 2, 0, 4);
    column->setSpacing(0);
    auto* box = new QCheckBox(text(m.name));
    box->setObjectName(text(m.id));
    box->setChecked(own || taken);
    const bool seen = m.seenFrom(view);
    box->setEnabled(!own && (seen || taken));
    column->addWidget(box);
    QString note = text(m.formula) + (m.hint.empty() ? "" : "; " + text(m.hint));
    if (!seen) note = say("measure-picker.from-elsewhere", {{"m", viewsOf(m)}, {"note", note}});
    if (own) note = say("measure-picker.set-by-the-approach-note", {{"note", note}});
    auto* small = quiet(note, 12);
    small->setContentsMargins(26, 0, 0, 0);
    column->addWidget(small);
    return {m.id, box, row, (text(m.name) + " " + text(m.id) + " " + note).toLower(), own};
}

std::vector<std::string> chosen(const Ticks& ticks) {
    std::vector<std::string> ids;
    for (const Tick& t : ticks)
        if (!t.own && t.box->isChecked()) ids.push_back(t.id);
    return ids;
}

using Ids = std::set<std::string>;

Ids asIds(const std::vector<std::string>& ids) {
    return {ids.begin(), ids.end()};
}

/// Measures whose number tells the same as a graded item of the approach.
Ids askedByCard(const MeasureChoice& choice) {
    Ids ids;
    for (const std::string& id : choice.review.approach().graded)
        if (const GradedItem* item = choice.playbook.item(id); item && !item->measure.empty())
            ids.insert(item->measure);
    return ids;
}

/// Taken measures that nothing is known of yet: neither a number nor why there is none.
Ids withoutNumber(const MeasureChoice& choice) {
    Ids ids;
    for (const MeasureRow& row : choice.assessment.measures)
        if (row.value.state == MeasureState::NotLookedAt) ids.insert(row.id);
    return ids;
}

void tick(const Ticks& ticks, const Ids& ids) {
    for (const Tick& t : ticks)
        if (t.box->isEnabled() && ids.contains(t.id)) t.box->setChecked(true);
}

/// An approach's own row stays.
void untick(const Ticks& ticks, const Ids& ids) {
    for (const Tick& t : ticks)
        if (!t.own && ids.contains(t.id)) t.box->setChecked(false);
}

/// A filter, and below it a row of presses that tick and one of those that untick.
class Picker : public QDialog {
public:
    Picker(QWidget* parent, const MeasureChoice& choice, MeasureChoiceDone done)
        : QDialog(parent)
        , done_(std::move(done)) {
        setAttribute(Qt::WA_DeleteOnClose);
        setObjectName("measure-picker");
        setWindowTitle(say("measure-picker.measures-of-this-review"));
        resizeForText(*this, 680, 680);
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(24, 20, 24, 18);
        column->addWidget(heading(say("measure-picker.measures-of-this-review"), 20));
        column->addWidget(quiet(say("measure-picker.ticked-ones-join-the-guided-walk")));
        auto* filter = new QLineEdit;
        filter->setPlaceholderText(say("measure-picker.find-knee-glove-release"));
        column->addWidget(filter);
        addTogether(column, choice);
        addList(column, choice);
        connect(filter, &QLineEdit::textChanged, this, [this](const QString& words) {
            for (const Tick& t : ticks_) t.row->setVisible(t.words.contains(words.trimmed().toLower()));
        });
        count_ = plain("", 13, true);
        count_->setObjectName("count");
        column->addWidget(count_);
        addFoot(column);
        sayCount();
        filter->setFocus();
    }

private:
    QPushButton* press(const char* words, std::function<void()> does) {
        auto* button = plainButton(say(words));
        button->setAutoDefault(false);
        connect(button, &QPushButton::clicked, this, std::move(does));
        return button;
    }

    void addTogether(QVBoxLayout* column, const MeasureChoice& choice) {
        mine_ = press("measure-picker.my-usual-ones", [this] { tick(ticks_, usual_); });
        setUsual(choice.usual);
        auto* ticked = new QHBoxLayout;
        ticked->addWidget(quiet(say("measure-picker.tick"), 13));
        ticked->addWidget(mine_);
        ticked->addWidget(press("measure-picker.what-the-card-asks",
                                [this, ids = askedByCard(choice)] { tick(ticks_, ids); }));
        ticked->addWidget(press("measure-picker.tick-all-this-view-shows", [this] {
            for (const Tick& t : ticks_)
                if (t.box->isEnabled()) t.box->setChecked(true);
        }));
        ticked->addStretch(1);
        column->addLayout(ticked);
        auto* unticked = new QHBoxLayout;
        unticked->addWidget(quiet(say("measure-picker.untick"), 13));
        unticked->addWidget(press("measure-picker.those-without-a-number",
                                  [this, ids = withoutNumber(choice)] { untick(ticks_, ids); }));
        unticked->addWidget(
            press("measure-picker.all-of-them", [this] { untick(ticks_, asIds(chosen(ticks_))); }));
        unticked->addStretch(1);
        column->addLayout(unticked);
    }

    void addList(QVBoxLayout* column, const MeasureChoice& choice) {
        auto* scroll = new QScrollArea;
        scroll->setWidgetResizable(true);
        auto* page = new QWidget;
        auto* list = new QVBoxLayout(page);
        for (const MeasureGroup& group : measureGroups()) {
            bool named = false;
            for (const MeasureDefinition& m : choice.playbook.measures) {
                if (m.group != group.id) continue;
                if (!std::exchange(named, true)) list->addWidget(plain(say(group.name()), 14, true));
                ticks_.push_back(tickFor(m, choice.review, choice.view));
                list->addWidget(ticks_.back().row);
                connect(ticks_.back().box, &QCheckBox::toggled, this, [this] { sayCount(); });
            }
            if (named) list->addSpacing(8);
        }
        list->addStretch(1);
        scroll->setWidget(page);
        column->addWidget(scroll, 1);
    }

    void addFoot(QVBoxLayout* column) {
        auto* keep = press("measure-picker.keep-as-usual", [this] {
            const auto now = chosen(ticks_);
            const QString wrong = done_.keepUsual(now);
            if (wrong.isEmpty()) setUsual(now);
            count_->setText(wrong.isEmpty() ? say("measure-picker.kept-as-usual", {{"count", now.size()}})
                                            : wrong);
        });
        auto* own = press("measure-picker.a-measure-of-your-own", [this] {
            accept();
            done_.take(chosen(ticks_)); // what was ticked stays ticked
            done_.makeOwn();
        });
        auto* take = mainButton(say("measure-picker.take-these"));
        take->setDefault(true);
        connect(take, &QPushButton::clicked, this, [this] {
            accept();
            done_.take(chosen(ticks_));
        });
        auto* foot = new QHBoxLayout;
        foot->addWidget(keep);
        foot->addWidget(own);
        foot->addStretch(1);
        foot->addWidget(take);
        column->addLayout(foot);
    }

    void setUsual(const std::vector<std::string>& ids) {
        usual_ = asIds(ids);
        mine_->setEnabled(!usual_.empty());
        mine_->setToolTip(usual_.empty() ? say("measure-picker.none-usual-yet") : QString());
    }

    void sayCount() {
        const auto set = std::count_if(ticks_.begin(), ticks_.end(), [](const Tick& t) { return t.own; });
        const auto more = chosen(ticks_).size();
        count_->setText(say("measure-picker.count", {{"set", set}, {"more", more}}));
    }

    MeasureChoiceDone done_;
    Ticks ticks_;
    Ids usual_; ///< as they are kept now
    QPushButton* mine_ = nullptr;
    QLabel* count_ = nullptr;
};

} // namespace

void pickMeasures(QWidget* parent, const MeasureChoice& choice, const MeasureChoiceDone& done) {
    (new Picker(parent, choice, done))->open();
}

} // namespace jg::ui
