#include "ui/review/prescribe_bench.h"

#include "desk/suggest.h"
#include "ui/theme.h"

#include <QDateEdit>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QScrollArea>
#include <QSpinBox>

#include <algorithm>

namespace jg::ui {

namespace {

QDate toQt(Date d) {
    return QDate(static_cast<int>(d.year()), static_cast<int>(static_cast<unsigned>(d.month())),
                 static_cast<int>(static_cast<unsigned>(d.day())));
}

} // namespace

PrescribeBench::PrescribeBench(ReviewContext& context)
    : Bench(context) {
    column_->addWidget(heading(say("prescribe-bench.prescribe")));
    column_->addWidget(quiet(say("prescribe-bench.at-most-three-to-work-on"), 12.5));
    findings_ = new RowList;
    findings_->setObjectName("faults");
    findings_->setAccessibleName(say("prescribe-bench.findings"));
    findings_->setEmptyText(say("prescribe-bench.no-finding-asks-for-work-yet"));
    findings_->setMinimumHeight(184);
    connect(findings_, &RowList::selected, this, [this] { refresh(); });
    connect(findings_, &RowList::activated, this, &PrescribeBench::toggle);
    column_->addWidget(findings_, 2);
    why_ = quiet("", 12);
    column_->addWidget(why_);
    column_->addWidget(buildPlan(), 3);
    connect(nextLook_, &QDateEdit::dateChanged, this, [this](const QDate& d) {
        if (filling_) return;
        Plan plan = review().plan;
        plan.nextLook =
            Date{std::chrono::year{d.year()}, std::chrono::month{static_cast<unsigned>(d.month())},
                 std::chrono::day{static_cast<unsigned>(d.day())}};
        setPlan(msg("prescribe-bench.set-the-next-look"), plan);
    });
    connect(ask_, &QLineEdit::editingFinished, this, &PrescribeBench::saveWords);
    refresh();
}

/// Drills, week, next look and words, to be scrolled.
QWidget* PrescribeBench::buildPlan() {
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    auto* rest = new QVBoxLayout(inner);
    rest->setContentsMargins(0, 0, 6, 0);
    rest->setSpacing(6);
    rest->addWidget(plain(say("prescribe-bench.drills-sets-repetitions-days-a-week"), 12.5, true));
    drills_ = new QVBoxLayout;
    drills_->setSpacing(4);
    rest->addLayout(drills_);
    week_ = quiet("", 12);
    rest->addWidget(week_);
    auto* line = new QHBoxLayout;
    line->addWidget(plain(say("prescribe-bench.next-look"), 12.5, true));
    nextLook_ = new QDateEdit;
    nextLook_->setObjectName("next-look");
    nextLook_->setAccessibleName(say("prescribe-bench.next-look"));
    nextLook_->setDisplayFormat("d MMMM yyyy");
    nextLook_->setCalendarPopup(true);
    nextLook_->setFocusPolicy(Qt::ClickFocus);
    line->addWidget(nextLook_, 1);
    rest->addLayout(line);
    rest->addWidget(plain(say("prescribe-bench.what-to-film-for-it"), 12.5, true));
    ask_ = new QLineEdit;
    ask_->setAccessibleName(say("prescribe-bench.what-to-film-for-it"));
    ask_->setFocusPolicy(Qt::ClickFocus);
    rest->addWidget(ask_);
    rest->addWidget(plain(say("prescribe-bench.first-words-of-the-letter"), 12.5, true));
    opening_ = new QPlainTextEdit;
    opening_->setObjectName("opening");
    opening_->setAccessibleName(say("prescribe-bench.first-words-of-the-letter"));
    opening_->setFixedHeight(em(76));
    opening_->setFocusPolicy(Qt::ClickFocus);
    rest->addWidget(opening_);
    rest->addStretch(1);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    return scroll;
}

void PrescribeBench::setPlan(const Message& label, const Plan& plan) {
    if (plan == review().plan) return;
    perform(label, {SetPlan{plan}});
}

void PrescribeBench::saveWords() {
    Plan plan = review().plan;
    plan.ask = ask_->text().toStdString();
    plan.opening = opening_->toPlainText().toStdString();
    if (!review().sent) setPlan(msg("prescribe-bench.write-the-letters-words"), plan);
}

void PrescribeBench::enter() {
    findings_->setCurrent(0);
    refresh();
}

/// The roots, at most three: a proposal that is taken only when asked for.
void PrescribeBench::propose() {
    if (order_.empty()) return c_.say(say("prescribe-bench.no-finding-asks-for-work-so"));
    saveWords();
    const std::vector<std::string> first(
        order_.begin(),
        order_.begin() + static_cast<std::ptrdiff_t>(std::min(order_.size(), kMostCorrections)));
    setPlan(msg("prescribe-bench.take-the-proposal"),
            proposePlan(playbook(), review(), c_.session.athlete(), c_.session.submission(),
                        c_.session.clip(), first, c_.session.clock().today(), c_.session.pain()));
}

void PrescribeBench::refresh() {
    causes_ = rankedFaults(playbook(), c_.session.assessment());
    order_ = causes_.order;
    const auto& chosen = review().plan.corrections;
    std::vector<ListRow> rows;
    for (const std::string& id : order_) {
        ListRow row;
        row.title = text(goalOf(playbook(), c_.session.told(), id));
        const auto root = std::find_if(causes_.roots.begin(), causes_.roots.end(),
                                       [&](const Root& r) { return r.id == id; });
        row.sub = root == causes_.roots.end() ? say("prescribe-bench.follows-from-another")
                  : root->explains.empty()
                      ? say("prescribe-bench.stands-alone")
                      : say("prescribe-bench.root-of", {{"count", root->explains.size()}});
        row.mark =
            std::find(chosen.begin(), chosen.end(), id) != chosen.end() ? RowMark::Done : RowMark::Open;
        row.right =
            row.mark == RowMark::Done ? say("prescribe-bench.work-on-it") : say("prescribe-bench.log-only");
        rows.push_back(std::move(row));
    }
    const int keep = findings_->current();
    findings_->setRows(std::move(rows));
    findings_->setCurrent(keep < 0 ? 0 : keep);
    QStringList why;
    if (findings_->current() >= 0 && findings_->current() < static_cast<int>(order_.size())) {
        const std::string& id = order_[static_cast<std::size_t>(findings_->current())];
        for (const Root& r : causes_.roots)
            if (r.id == id) { // two of each are enough beside the list
                for (const auto& e :
                     std::vector(r.evidence.begin(),
                                 r.evidence.begin() + std::min<std::ptrdiff_t>(2, std::ssize(r.evidence))))
                    why << say("prescribe-bench.for-e", {{"e", e}});
                for (const auto& e :
                     std::vector(r.against.begin(),
                                 r.against.begin() + std::min<std::ptrdiff_t>(1, std::ssize(r.against))))
                    why << say("prescribe-bench.against-e", {{"e", e}});
            }
    }
    why_->setText(why.join('\n'));
    why_->setVisible(!why.isEmpty());
    rebuildDrills();
    filling_ = true;
    if (review().plan.nextLook)
        nextLook_->setDate(toQt(*review().plan.nextLook));
    else
        nextLook_->setDate(toQt(addDays(c_.session.clock().today(), 28)));
    if (!ask_->hasFocus()) ask_->setText(text(review().plan.ask)), ask_->setCursorPosition(0);
    if (!opening_->hasFocus() && opening_->toPlainText() != text(review().plan.opening))
        opening_->setPlainText(text(review().plan.opening));
    filling_ = false;
}

void PrescribeBench::rebuildDrills() {
    const Plan& plan = review().plan;
    std::string key;
    for (const PlannedDrill& d : plan.drills) key += d.drill + (d.doseWaived ? " waived," : ",");
    if (key != built_) {
        built_ = key;
        while (QLayoutItem* item = drills_->takeAt(0)) {
            // One of them may be the field that is typed in.
            if (item->widget()) item->widget()->hide(), item->widget()->deleteLater();
            delete item;
        }
        if (plan.drills.empty())
            drills_->addWidget(quiet(say("prescribe-bench.choose-what-to-work-on-its"), 12.5));
        for (std::size_t i = 0; i < plan.drills.size(); ++i) drills_->addWidget(drillCard(i));
    }
    showWeek();
}

QWidget* PrescribeBench::drillCard(std::size_t i) {
    const PlannedDrill& planned = review().plan.drills[i];
    const Drill* drill = playbook().drill(planned.drill);
    const QString called = drill ? text(drill->name) : say("prescribe-bench.unknown-drill");
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    box->setContentsMargins(10, 6, 10, 6);
    box->setSpacing(2);
    auto* top = new QHBoxLayout;
    auto* name = plain(called, 13);
    name->setWordWrap(true);
    name->setToolTip(drill ? text(drill->how) : QString());
    top->addWidget(name, 1);
    auto* waive = plainButton(planned.doseWaived ? say("prescribe-bench.give-a-dose")
                                                 : say("prescribe-bench.needs-no-dose"));
    waive->setObjectName("link");
    waive->setProperty("waives", true);
    waive->setAccessibleName(waive->text() + ": " + called);
    connect(waive, &QPushButton::clicked, this, [this, i] { waiveDose(i); });
    top->addWidget(waive);
    box->addLayout(top);
    if (!planned.doseWaived) box->addLayout(doseRow(i, called));
    return card;
}

QLayout* PrescribeBench::doseRow(std::size_t i, const QString& called) {
    auto* row = new QHBoxLayout;
    const Dose& dose = review().plan.drills[i].dose;
    const int values[] = {dose.sets, dose.reps, dose.days};
    const char* patterns[] = {"prescribe-bench.dose-sets", "prescribe-bench.dose-times",
                              "prescribe-bench.dose-days"};
    const QString said[] = {say("prescribe-bench.sets"), say("prescribe-bench.times-in-a-set"),
                            say("prescribe-bench.days-a-week")};
    for (int part = 0; part < 3; ++part) {
        auto* spin = new QSpinBox;
        spin->setAccessibleName(QString("%1: %2").arg(said[part], called));
        spin->setButtonSymbols(QAbstractSpinBox::NoButtons);
        spin->setAlignment(Qt::AlignCenter);
        spin->setRange(0, part == 2 ? 3 : 100);
        spin->setSuffix(say(patterns[part]));
        spin->setSpecialValueText(say("prescribe-bench.missing"));
        spin->setValue(values[part]);
        spin->setFocusPolicy(Qt::ClickFocus);
        connect(spin, &QSpinBox::valueChanged, this, [this, i, part](int v) { setDose(i, part, v); });
        row->addWidget(spin, 1);
    }
    return row;
}

/// A drill that is done by feel, or whose dose the athlete has elsewhere.
void PrescribeBench::waiveDose(std::size_t drill) {
    Plan plan = review().plan;
    if (drill >= plan.drills.size()) return;
    plan.drills[drill].doseWaived = !plan.drills[drill].doseWaived;
    setPlan(plan.drills[drill].doseWaived ? msg("prescribe-bench.waive-a-dose")
                                          : msg("prescribe-bench.give-a-dose"),
            plan);
}

void PrescribeBench::showWeek() {
    const Plan& plan = review().plan;
    const WeekPlan week = layOutWeek(playbook(), plan.drills, c_.session.age(), c_.session.pain());
    QStringList lines;
    for (const PlanDay& d : week.days) {
        std::vector<Message> drills;
        for (const std::string& id : d.drills) drills.push_back(asIs(playbook().drill(id)->name));
        lines << say("prescribe-bench.day",
                     {{"day", weekdayShort(d.weekday)}, {"drills", joined(ListStyle::Commas, drills)}});
    }
    for (const Message& b : week.blocked) lines << say(b);
    for (const auto& id : week.missingDose)
        lines << say("prescribe-bench.dose-missing-drill", {{"drill", playbook().drill(id)->name}});
    if (c_.session.pain()) lines << say("prescribe-bench.pain-is-reported-no-throwing-drills");
    week_->setText(lines.join('\n'));
}

void PrescribeBench::setDose(std::size_t drill, int part, int value) {
    Plan plan = review().plan;
    if (drill >= plan.drills.size()) return;
    Dose& dose = plan.drills[drill].dose;
    (part == 0 ? dose.sets : part == 1 ? dose.reps : dose.days) = value;
    setPlan(msg("prescribe-bench.set-a-dose"), plan);
}

void PrescribeBench::toggle(int row) {
    if (row < 0 || row >= static_cast<int>(order_.size())) return;
    saveWords();
    const std::string id = order_[static_cast<std::size_t>(row)];
    std::vector<std::string> chosen = review().plan.corrections;
    const auto it = std::find(chosen.begin(), chosen.end(), id);
    if (it != chosen.end())
        chosen.erase(it);
    else if (chosen.size() >= kMostCorrections) {
        c_.say(say("prescribe-bench.three-corrections-are-plenty-take-one"));
        return;
    } else
        chosen.push_back(id);
    setPlan(msg("prescribe-bench.choose-corrections"),
            proposePlan(playbook(), review(), c_.session.athlete(), c_.session.submission(),
                        c_.session.clip(), chosen, c_.session.clock().today(), c_.session.pain()));
}

Handlers PrescribeBench::handlers() {
    return {
        {"plan-propose", [this] { propose(); }},
        {"plan-toggle", [this] { toggle(findings_->current()); }},
        {"row-up", [this] { findings_->move(-1); }},
        {"row-down", [this] { findings_->move(1); }},
    };
}

} // namespace jg::ui
