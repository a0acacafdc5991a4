#include "ui/playbook/playbook_place.h"

#include "ui/row_list.h"
#include "ui/theme.h"

#include <QScrollArea>
#include <QVBoxLayout>

namespace jg::ui {

namespace {
/// Two columns of words and a rule below.
QWidget* line(const QString& left, const QString& middle, const QString& right) {
    auto* w = new QWidget;
    auto* column = new QVBoxLayout(w);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    auto* row = new QHBoxLayout;
    auto* l = plain(left, 13);
    l->setFixedWidth(300);
    row->addWidget(l, 0, Qt::AlignTop);
    row->addWidget(quiet(middle, 12.5), 1);
    auto* r = plain(right, 13, true);
    r->setWordWrap(false);
    row->addWidget(r, 0, Qt::AlignTop);
    column->addLayout(row);
    column->addWidget(rule());
    return w;
}
} // namespace

PlaybookPlace::PlaybookPlace(const Playbook& playbook, QWidget* parent)
    : QWidget(parent) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(34, 26, 34, 12);
    column->addWidget(heading("Playbook", 28));
    column->addWidget(
        quiet("What reviews are judged by. A sent review keeps the edition it was judged by.", 13));
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    page_ = new QVBoxLayout(inner);
    page_->setContentsMargins(0, 8, 10, 12);
    page_->setSpacing(6);
    for (const Approach& a : playbook.approaches) addApproach(playbook, a);
    addDrills(playbook);
    page_->addStretch(1);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
}

void PlaybookPlace::addApproach(const Playbook& playbook, const Approach& a) {
    page_->addWidget(heading(text(a.name), 20));
    page_->addWidget(
        quiet(QString("Edition %1, from age %2. %3").arg(a.version).arg(a.ageFrom).arg(text(a.about)), 13));
    page_->addSpacing(4);
    page_->addWidget(plain("Targets", 13.5, true));
    page_->addWidget(rule());
    for (const Target& t : a.targets) {
        const MeasureDefinition* m = playbook.measure(t.measure);
        page_->addWidget(line(text(m->name), text(m->formula) + " (" + text(m->source) + ")",
                              t.type == TargetType::Record ? "recorded" : text(wordsOf(t))));
    }
    page_->addSpacing(8);
    page_->addWidget(plain("Graded items", 13.5, true));
    page_->addWidget(rule());
    for (const std::string& id : a.graded) {
        const GradedItem* i = playbook.item(id);
        page_->addWidget(line(text(i->name), text(i->coach), text(info(i->position).shortly)));
    }
    page_->addSpacing(8);
}

void PlaybookPlace::addDrills(const Playbook& playbook) {
    page_->addWidget(heading("Drills", 20));
    page_->addWidget(rule());
    for (const Drill& d : playbook.drills)
        page_->addWidget(
            line(text(d.name),
                 text(d.how) +
                     QString(" From age %1; %2.").arg(d.ageFrom).arg(d.ball ? "throws a ball" : "no ball"),
                 text(wordsOf(d.dose)) + QString(", %1 days").arg(d.dose.days)));
}

} // namespace jg::ui
