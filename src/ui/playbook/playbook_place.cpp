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
    constexpr int kNames = 300, kMost = 340; // larger text wraps sooner
    auto* l = plain(left, 13);
    l->setFixedWidth(std::min(em(kNames), kMost));
    row->setSpacing(14);
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
    column->addWidget(heading(say("playbook-place.playbook"), 28));
    column->addWidget(quiet(say("playbook-place.what-reviews-are-judged-by-a"), 13));
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
    page_->addWidget(quiet(say("playbook-place.edition-version-from-age-age-from",
                               {{"version", a.version}, {"ageFrom", a.ageFrom}, {"about", a.about}}),
                           13));
    page_->addSpacing(4);
    page_->addWidget(plain(say("playbook-place.targets"), 13.5, true));
    page_->addWidget(rule());
    for (const Target& t : a.targets) {
        const MeasureDefinition* m = playbook.measure(t.measure);
        page_->addWidget(line(text(m->name), text(m->formula) + " (" + text(m->source) + ")",
                              t.type == TargetType::Record ? say("verdict.recorded") : say(wordsOf(t))));
    }
    page_->addSpacing(8);
    page_->addWidget(plain(say("playbook-place.graded-items"), 13.5, true));
    page_->addWidget(rule());
    for (const std::string& id : a.graded) {
        const GradedItem* i = playbook.item(id);
        page_->addWidget(line(text(i->name), text(i->coach), say(info(i->position).shortly())));
    }
    page_->addSpacing(8);
}

void PlaybookPlace::addDrills(const Playbook& playbook) {
    page_->addWidget(heading(say("playbook-place.drills"), 20));
    page_->addWidget(rule());
    for (const Drill& d : playbook.drills)
        page_->addWidget(
            line(text(d.name),
                 say(d.ball ? "playbook-place.drill-ball" : "playbook-place.drill-no-ball",
                     {{"how", d.how}, {"age", d.ageFrom}}),
                 say("playbook-place.dose", {{"dose", wordsOf(d.dose)}, {"days", d.dose.days}})));
}

} // namespace jg::ui
