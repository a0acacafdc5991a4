#include "ui/review/prescribe_bench.h"

#include "coaching/throwing_guidance.h"
#include "desk/dispatch.h"
#include "desk/file_names.h"
#include "desk/suggest.h"
#include "ui/review/plan_questions.h"
#include "ui/theme.h"

#include <QDateEdit>
#include <QFileDialog>
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

bool holds(const std::vector<std::string>& all, const std::string& one) {
    return std::find(all.begin(), all.end(), one) != all.end();
}

const Proposed* proposedIn(const std::vector<Proposed>& all, const std::string& id) {
    const auto it = std::find_if(all.begin(), all.end(), [&](const Proposed& p) { return p.finding == id; });
    return it == all.end() ? nullptr : &*it;
}

QScrollArea* scrolled(QWidget* inner) {
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(inner);
    scroll->hide(); // until the place takes it in
    return scroll;
}

} // namespace

PrescribeBench::PrescribeBench(ReviewContext& context)
    : Bench(context)
    , map_(new CauseMap)
    , mapScroll_(scrolled(map_))
    , week_(new WeekView)
    , weekScroll_(scrolled(week_)) {
    column_->addWidget(heading(say("prescribe-bench.prescribe")));
    column_->addWidget(buildDoors());
    findings_ = new RowList;
    findings_->setObjectName("faults");
    findings_->setAccessibleName(say("prescribe-bench.findings"));
    findings_->setEmptyText(say("prescribe-bench.no-finding-asks-for-work-yet"));
    findings_->setMinimumHeight(150);
    connect(findings_, &RowList::selected, this, [this] { refresh(); });
    connect(findings_, &RowList::activated, this, &PrescribeBench::toggle);
    column_->addWidget(findings_, 2);
    column_->addWidget(buildPlan(), 3);
    connect(map_, &CauseMap::chosen, this, [this](const QString& finding) {
        const auto at = std::find(order_.begin(), order_.end(), finding.toStdString());
        if (at != order_.end()) findings_->setCurrent(static_cast<int>(at - order_.begin()));
        refresh();
    });
    connect(week_, &WeekView::saveCalendar, this, [this] { exportWeek(true); });
    connect(week_, &WeekView::saveSheet, this, [this] { exportWeek(false); });
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

KeyHints PrescribeBench::hints() const {
    return {{"\u2191 \u2193", say("hint.finding"), "row-down"},
            {"Enter", say("prescribe-bench.work-on-this-or-not"), "plan-toggle"},
            {"P", say("prescribe-bench.take-the-proposal-2"), "plan-propose"},
            {"K", say("prescribe-bench.hint-causes"), "plan-causes"},
            {"Y", say("prescribe-bench.hint-why-not"), "plan-why-not"},
            {"D", say("prescribe-bench.hint-drills"), "plan-drills"},
            {"PgDn", say("prescribe-bench.on-to-the-letter"), "stage-next"}};
}

/// What can stand in the middle, each by a key too.
QWidget* PrescribeBench::buildDoors() {
    auto* doors = new QWidget;
    auto* row = new QHBoxLayout(doors);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(6);
    const auto door = [&](const char* label, Middle what) {
        auto* b = plainButton(say(label));
        connect(b, &QPushButton::clicked, this, [this, what] { show(what); });
        row->addWidget(b, 1);
        doors_[what] = b;
    };
    door("prescribe-bench.causes", Middle::Causes);
    door("prescribe-bench.week", Middle::Week);
    door("prescribe-bench.picture", Middle::Picture);
    return doors;
}

/// Why, strengths, drills, next look and words, to be scrolled.
QWidget* PrescribeBench::buildPlan() {
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    auto* rest = new QVBoxLayout(inner);
    rest->setContentsMargins(0, 0, 6, 0);
    rest->setSpacing(6);
    why_ = quiet("", 12.5);
    why_->setObjectName("why");
    rest->addWidget(why_);
    const auto link = [&](QBoxLayout* to, const char* label, const char* name, auto then) {
        auto* b = plainButton(say(label));
        b->setObjectName(name);
        connect(b, &QPushButton::clicked, this, then);
        to->addWidget(b);
    };
    auto* asks = new QHBoxLayout;
    asks->setSpacing(6);
    link(asks, "prescribe-bench.ask-causes", "ask-causes", [this] { askCausesHere(); });
    link(asks, "prescribe-bench.ask-why-not", "ask-why-not", [this] { askWhyNotHere(); });
    rest->addLayout(asks);
    rest->addWidget(plain(say("prescribe-bench.drills-sets-repetitions-days-a-week"), 12.5, true));
    drills_ = new QVBoxLayout;
    drills_->setSpacing(4);
    rest->addLayout(drills_);
    auto* more = new QHBoxLayout;
    more->setSpacing(6);
    link(more, "prescribe-bench.choose-drills", "choose-drills", [this] { chooseDrillsHere(); });
    link(more, "prescribe-bench.days-and-gear", "days-and-gear", [this] { askWeek(); });
    rest->addLayout(more);
    terms_ = quiet("", 12);
    rest->addWidget(terms_);
    keeps_ = plain("", 12.5);
    keeps_->setObjectName("kept-strengths");
    rest->addWidget(keeps_);
    auto* last = new QHBoxLayout;
    last->setSpacing(6);
    link(last, "prescribe-bench.choose-keeps", "choose-keeps", [this] { chooseKeepsHere(); });
    link(last, "prescribe-bench.promise", "promise", [this] { promise(); });
    rest->addLayout(last);
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

QWidget* PrescribeBench::middle() const {
    return shown_ == Middle::Causes ? mapScroll_ : shown_ == Middle::Week ? weekScroll_ : nullptr;
}

std::vector<QWidget*> PrescribeBench::middles() const {
    return {mapScroll_, weekScroll_};
}

void PrescribeBench::show(Middle what) {
    shown_ = what;
    for (const auto& [middle, door] : doors_) setAsMain(door, middle == what);
    c_.showMiddle();
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
    show(shown_);
    refresh();
}

DrillGates PrescribeBench::gates() const {
    return gatesFor(review().plan, c_.session.athlete(), c_.session.submission(), c_.session.clock().today(),
                    c_.session.pain());
}

QString PrescribeBench::goal(const std::string& finding) const {
    return text(goalOf(playbook(), c_.session.told(), finding));
}

std::optional<std::string> PrescribeBench::currentFinding() const {
    const int row = findings_->current();
    if (row < 0 || row >= static_cast<int>(order_.size())) return std::nullopt;
    return order_[static_cast<std::size_t>(row)];
}

std::optional<std::string> PrescribeBench::findingInHand() {
    const auto id = currentFinding();
    if (!id) c_.say(say("prescribe-bench.no-finding-asks-for-work-yet"));
    return id;
}

void PrescribeBench::setCorrections(const Message& label, const std::vector<std::string>& corrections) {
    saveWords();
    setPlan(label, proposePlan({playbook(), review(), c_.session.told(), c_.session.athlete(),
                                c_.session.submission(), c_.session.clip(), c_.session.clock().today(),
                                c_.session.pain()},
                               corrections));
}

/// Taken only when asked for: corrections, their drills, and strengths to keep.
void PrescribeBench::propose() {
    if (proposal_.work.empty()) return c_.say(say("prescribe-bench.no-finding-asks-for-work-so"));
    saveWords();
    std::vector<std::string> work;
    for (const Proposed& p : proposal_.work) work.push_back(p.finding);
    Plan plan =
        proposePlan({playbook(), review(), c_.session.told(), c_.session.athlete(), c_.session.submission(),
                     c_.session.clip(), c_.session.clock().today(), c_.session.pain()},
                    work);
    plan.keeps.clear();
    for (const Proposed& p : proposal_.keep) plan.keeps.push_back(p.finding);
    setPlan(msg("prescribe-bench.take-the-proposal"), plan);
}

void PrescribeBench::toggle(int row) {
    if (row < 0 || row >= static_cast<int>(order_.size())) return;
    const std::string id = order_[static_cast<std::size_t>(row)];
    std::vector<std::string> chosen = review().plan.corrections;
    const auto it = std::find(chosen.begin(), chosen.end(), id);
    const std::size_t most = mostCorrections(c_.session.age());
    if (it != chosen.end())
        chosen.erase(it);
    else if (chosen.size() >= most)
        return c_.say(say("prescribe-bench.enough-corrections", {{"most", most}}));
    else
        chosen.push_back(id);
    setCorrections(msg("prescribe-bench.choose-corrections"), chosen);
}

void PrescribeBench::askCausesHere() {
    const auto id = findingInHand();
    if (!id) return;
    askCauses(window(), playbook(), *id, goal(*id), c_.session.told().faults(), knownOf(c_.session.told()),
              review().plan.causes, [this](const std::vector<CauseChoice>& choices) {
                  Plan plan = review().plan;
                  plan.causes = choices;
                  setPlan(msg("prescribe-bench.weigh-causes"), plan);
              });
}

void PrescribeBench::askWhyNotHere() {
    const auto id = findingInHand();
    if (!id) return;
    const WhyNot* known = review().plan.whyNotOf(*id);
    askWhyNot(window(), playbook(), known ? *known : WhyNot{*id, std::nullopt, {}}, goal(*id),
              [this, id = *id](const WhyNot& now) {
                  Plan plan = review().plan;
                  std::erase_if(plan.whyNot, [&](const WhyNot& w) { return w.finding == id; });
                  plan.whyNot.push_back(now);
                  // Its drills are proposed anew for what is needed; those of the others stay.
                  if (holds(plan.corrections, id))
                      std::erase_if(plan.drills, [&](const PlannedDrill& d) { return d.finding == id; });
                  Review asked = review();
                  asked.plan = plan;
                  setPlan(msg("prescribe-bench.say-why-not"),
                          proposePlan({playbook(), asked, c_.session.told(), c_.session.athlete(),
                                       c_.session.submission(), c_.session.clip(), c_.session.clock().today(),
                                       c_.session.pain()},
                                      plan.corrections));
              });
}

void PrescribeBench::chooseDrillsHere() {
    const auto id = findingInHand();
    if (!id) return;
    if (!holds(review().plan.corrections, *id)) return c_.say(say("prescribe-bench.choose-it-first"));
    const WhyNot* whyNot = review().plan.whyNotOf(*id);
    const auto offers =
        offersFor(playbook(), *id, gates(), whyNot ? needOf(playbook(), *whyNot) : std::nullopt);
    std::vector<std::string> chosen, offered;
    for (const PlannedDrill& d : review().plan.drills) chosen.push_back(d.drill); // one may serve two
    for (const DrillOffer& o : offers) offered.push_back(o.drill->id);
    chooseDrills(
        window(), offers, chosen, goal(*id), [this, id = *id] { writeDrill(id); },
        [this, id = *id, offered](const std::vector<std::string>& now) {
            Plan plan = review().plan;
            std::erase_if(plan.drills, [&](const PlannedDrill& d) {
                return holds(offered, d.drill) && !holds(now, d.drill);
            });
            for (const std::string& drill : now) {
                const bool there = std::any_of(plan.drills.begin(), plan.drills.end(),
                                               [&](const PlannedDrill& d) { return d.drill == drill; });
                if (!there) plan.drills.push_back({drill, id, playbook().drill(drill)->dose, false});
            }
            setPlan(msg("prescribe-bench.choose-its-drills"), plan);
        });
}

/// A drill of the coach's own for a finding: kept in the playbook, and in this plan at once.
void PrescribeBench::writeDrill(const std::string& finding) {
    Drill drill;
    drill.body = playbook().groupOfFinding(finding) == "lower" ? "lower" : "upper";
    drill.serves = {finding};
    drill.dose = {3, 8, 2};
    c_.writeDrill(drill, [this, finding](const Status& done, const std::string& key) {
        if (!done) return c_.say(say(done.error().text));
        c_.session.playbookChanged();
        const Drill* written = playbook().drill(key);
        if (!written) return;
        Plan plan = review().plan;
        plan.drills.push_back({key, finding, written->dose, false});
        setPlan(msg("prescribe-bench.choose-its-drills"), plan);
    });
}

void PrescribeBench::askWeek() {
    askCircumstances(window(), playbook(), review().plan.circumstances, [this](const Circumstances& at) {
        Plan plan = review().plan;
        plan.circumstances = at;
        setPlan(msg("prescribe-bench.set-days-and-gear"), plan);
    });
}

void PrescribeBench::chooseKeepsHere() {
    std::vector<std::string> strengths;
    for (const Judged& j : c_.session.told().findings)
        if (j.strength && !j.cannotTell) strengths.push_back(j.finding.id);
    if (strengths.empty()) return c_.say(say("prescribe-bench.no-strength-yet"));
    chooseKeeps(window(), playbook(), strengths, review().plan.keeps,
                [this](const std::vector<std::string>& keeps) {
                    Plan plan = review().plan;
                    plan.keeps = keeps;
                    setPlan(msg("prescribe-bench.choose-strengths"), plan);
                });
}

void PrescribeBench::promise() {
    Promise begun{c_.session.athlete().id, {}, std::nullopt};
    begun.review = review().id;
    askPromise(window(), begun, c_.session.clock().today(), [this](const Promise& made) {
        const Status kept = c_.session.library().save(made);
        c_.say(kept ? say("prescribe-bench.promised", {{"what", made.text}, {"due", *made.due}})
                    : say(kept.error().text));
    });
}

void PrescribeBench::exportWeek(bool calendar) {
    const QString name =
        text(asFileName(c_.session.athlete().firstName) + "-week") + (calendar ? ".ics" : ".pdf");
    const QString path = QFileDialog::getSaveFileName(
        window(), say(calendar ? "week-view.save-the-calendar" : "week-view.save-the-sheet"), name);
    if (path.isEmpty()) return;
    const DispatchRecipe recipe = previewRecipe(c_.session);
    FileStore& files = c_.session.library().files();
    const Status done = calendar ? exportCalendar(recipe, path.toStdString(), files)
                                 : exportWeekSheet(recipe, Paper::A4, path.toStdString(), files);
    c_.say(done ? say("week-view.saved", {{"path", path.toStdString()}}) : say(done.error().text));
}

void PrescribeBench::refresh() {
    causes_ = causesOf(playbook(), c_.session.told(), review().plan);
    order_ = causes_.order;
    proposal_ = proposePriorities(playbook(), review(), c_.session.told(), causes_, c_.session.age());
    refreshList();
    refreshWhy();
    refreshMap();
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

void PrescribeBench::refreshList() {
    const auto& chosen = review().plan.corrections;
    std::vector<ListRow> rows;
    for (const std::string& id : order_) {
        ListRow row;
        row.title = goal(id);
        const Root* root = causes_.root(id);
        row.sub = !root ? say("prescribe-bench.follows-from-another")
                  : root->explains.empty()
                      ? say("prescribe-bench.stands-alone")
                      : say("prescribe-bench.root-of", {{"count", root->explains.size()}});
        row.mark = holds(chosen, id) ? RowMark::Done : RowMark::Open;
        const bool proposed = proposedIn(proposal_.work, id) != nullptr;
        row.right = holds(chosen, id) ? say("prescribe-bench.work-on-it")
                    : proposed        ? say("prescribe-bench.proposed")
                                      : say("prescribe-bench.log-only");
        row.rightAccent = proposed && !holds(chosen, id);
        rows.push_back(std::move(row));
    }
    const int keep = findings_->current();
    findings_->setRows(std::move(rows));
    findings_->setCurrent(keep < 0 ? 0 : keep);
}

/// Why the finding in hand is proposed or can wait, what speaks for and against it, and what is not known.
void PrescribeBench::refreshWhy() {
    QStringList why;
    if (const auto id = currentFinding()) {
        for (const auto* list : {&proposal_.work, &proposal_.later})
            if (const Proposed* p = proposedIn(*list, *id))
                why << say(joined(ListStyle::Sentences, p->reasons));
        const auto some = [&](const std::vector<Message>& all, std::size_t most, const char* pattern) {
            for (std::size_t i = 0; i < std::min(most, all.size()); ++i) why << say(pattern, {{"e", all[i]}});
        };
        if (const Root* root = causes_.root(*id)) {
            some(root->evidence, 2, "prescribe-bench.for-e");
            some(root->against, 2, "prescribe-bench.against-e");
            some(root->unknown, 1, "prescribe-bench.not-known-e");
        }
        if (const WhyNot* whyNot = review().plan.whyNotOf(*id))
            if (const auto need = needOf(playbook(), *whyNot))
                why << say("prescribe-bench.not-yet", {{"need", nameOf(*need)}, {"remedy", remedyOf(*need)}});
    }
    why_->setText(why.join('\n'));
    why_->setVisible(!why.isEmpty());
    std::vector<Message> kept;
    for (const std::string& id : review().plan.keeps) kept.push_back(asIs(playbook().nameOfFinding(id)));
    keeps_->setText(kept.empty() ? say("prescribe-bench.keeps-as-spoken")
                                 : say("prescribe-bench.keeps", {{"what", joined(ListStyle::And, kept)}}));
    terms_->setText(say(guidanceInWords(c_.session.age())));
}

void PrescribeBench::refreshMap() {
    std::vector<CauseCard> cards;
    for (const std::string& id : order_) {
        const Root* root = causes_.root(id);
        const bool chosen = holds(review().plan.corrections, id);
        std::vector<Message> note;
        if (root && !root->explains.empty())
            note.push_back(msg("prescribe-bench.root-of", {{"count", root->explains.size()}}));
        if (chosen) note.push_back(msg("prescribe-bench.worked-on"));
        cards.push_back(
            {id, goal(id), say(joined(ListStyle::Commas, note)), chosen, root && !root->explains.empty()});
    }
    map_->show(causes_, cards, currentFinding().value_or(""));
    week_->show({playbook(), review().plan.drills, layOutWeek(playbook(), review().plan.drills, gates()),
                 review().plan.circumstances});
}

void PrescribeBench::rebuildDrills() {
    const Plan& plan = review().plan;
    std::string key;
    for (const PlannedDrill& d : plan.drills) {
        const Drill* drill = playbook().drill(d.drill);
        const bool blocked = drill && !blockedBy(*drill, gates()).empty();
        key += d.drill + (d.doseWaived ? " waived" : "") + (blocked ? " blocked," : ",");
    }
    if (key == built_) return;
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
    auto* away = plainButton(say("prescribe-bench.take-out"));
    away->setObjectName("link");
    away->setAccessibleName(away->text() + ": " + called);
    connect(away, &QPushButton::clicked, this, [this, i] { removeDrill(i); });
    top->addWidget(away);
    box->addLayout(top);
    if (Message why = drill ? blockedBy(*drill, gates()) : Message{}; !why.empty())
        box->addWidget(quiet(say(why), 12));
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

void PrescribeBench::removeDrill(std::size_t drill) {
    Plan plan = review().plan;
    if (drill >= plan.drills.size()) return;
    plan.drills.erase(plan.drills.begin() + static_cast<std::ptrdiff_t>(drill));
    setPlan(msg("prescribe-bench.take-a-drill-out"), plan);
}

void PrescribeBench::setDose(std::size_t drill, int part, int value) {
    Plan plan = review().plan;
    if (drill >= plan.drills.size()) return;
    Dose& dose = plan.drills[drill].dose;
    (part == 0 ? dose.sets : part == 1 ? dose.reps : dose.days) = value;
    setPlan(msg("prescribe-bench.set-a-dose"), plan);
}

Handlers PrescribeBench::handlers() {
    return {
        {"plan-propose", [this] { propose(); }},
        {"plan-toggle", [this] { toggle(findings_->current()); }},
        {"plan-causes", [this] { askCausesHere(); }},
        {"plan-why-not", [this] { askWhyNotHere(); }},
        {"plan-drills", [this] { chooseDrillsHere(); }},
        {"plan-week", [this] { askWeek(); }},
        {"plan-keeps", [this] { chooseKeepsHere(); }},
        {"plan-promise", [this] { promise(); }},
        {"plan-show-causes", [this] { show(Middle::Causes); }},
        {"plan-show-week", [this] { show(Middle::Week); }},
        {"plan-show-picture", [this] { show(Middle::Picture); }},
        {"row-up", [this] { findings_->move(-1); }},
        {"row-down", [this] { findings_->move(1); }},
    };
}

} // namespace jg::ui
