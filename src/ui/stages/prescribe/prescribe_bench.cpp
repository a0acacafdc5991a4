// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/prescribe/prescribe_bench.h"

#include "coaching/throwing_guidance.h"
#include "desk/keeping/house_settings.h"
#include "kinematics/answers.h"
#include "ui/kit/theme.h"

#include <QDateEdit>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>

#include <algorithm>

namespace jg::ui {

namespace {

QDate toQt(Date d) {
    return QDate(static_cast<int>(d.year()), static_cast<int>(static_cast<unsigned>(d.month())),
                 static_cast<int>(static_cast<unsigned>(d.day())));
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
    , asker_(this, context, [this](const Message& label, const Plan& plan) { setPlan(label, plan); })
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
    connect(week_, &WeekView::saveCalendar, this, [this] { asker_.save(true); });
    connect(week_, &WeekView::saveSheet, this, [this] { asker_.save(false); });
    connect(nextLook_, &QDateEdit::dateChanged, this, [this](const QDate& d) {
        if (filling_) return;
        Plan plan = review().plan;
        plan.nextLook =
            Date{std::chrono::year{d.year()}, std::chrono::month{static_cast<unsigned>(d.month())},
                 std::chrono::day{static_cast<unsigned>(d.day())}};
        setPlan(msg("prescribe-bench.set-the-next-look"), plan);
    });
    connect(ask_, &QLineEdit::editingFinished, this, &PrescribeBench::saveWords);
}

KeyHints PrescribeBench::hints() const {
    return {{"\u2191 \u2193", say("hint.finding"), "row-down"},
            {"Enter", say("prescribe-bench.work-on-this-or-not"), "plan-toggle"},
            {"P", say("prescribe-bench.take-the-proposal-2"), "plan-propose"},
            {"K", say("prescribe-bench.hint-causes"), "plan-causes"},
            {"Y", say("prescribe-bench.hint-why-not"), "plan-why-not"},
            {"D", say("prescribe-bench.hint-drills"), "plan-drills"},
            {"G", say("prescribe-bench.hint-size"), "plan-size"},
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
    setAsMain(doors_[shown_], true);
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
    link(asks, "prescribe-bench.ask-causes", "ask-causes", [this] { about(&PlanAsker::causes); });
    link(asks, "prescribe-bench.ask-why-not", "ask-why-not", [this] { about(&PlanAsker::whyNot); });
    rest->addLayout(asks);
    link(rest, "prescribe-bench.ask-size", "ask-size", [this] { about(&PlanAsker::size); });
    rest->addWidget(plain(say("prescribe-bench.drills-sets-repetitions-days-a-week"), 12.5, true));
    drills_ = new DrillCards(c_, [this](const Message& label, const Plan& plan) { setPlan(label, plan); });
    rest->addWidget(drills_);
    auto* more = new QHBoxLayout;
    more->setSpacing(6);
    link(more, "prescribe-bench.choose-drills", "choose-drills", [this] { about(&PlanAsker::drills); });
    link(more, "prescribe-bench.days-and-gear", "days-and-gear", [this] { asker_.week(); });
    rest->addLayout(more);
    terms_ = quiet("", 12);
    rest->addWidget(terms_);
    confirm_ = plainButton({});
    confirm_->setObjectName("confirm-guidance");
    connect(confirm_, &QPushButton::clicked, this, &PrescribeBench::confirmGuidance);
    rest->addWidget(confirm_, 0, Qt::AlignLeft);
    keeps_ = plain("", 12.5);
    keeps_->setObjectName("kept-strengths");
    rest->addWidget(keeps_);
    auto* last = new QHBoxLayout;
    last->setSpacing(6);
    link(last, "prescribe-bench.choose-keeps", "choose-keeps", [this] { asker_.keeps(); });
    link(last, "prescribe-bench.promise", "promise", [this] { askForPromise(this, c_.session, c_.say); });
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
    refreshMiddle();
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
    inFront_ = true;
    findings_->setCurrent(0);
    refresh();
}

void PrescribeBench::leave() {
    saveWords();
    inFront_ = false;
}

QString PrescribeBench::goal(const std::string& finding) const {
    return text(goalOf(playbook(), c_.session.told(), finding));
}

std::optional<std::string> PrescribeBench::currentFinding() const {
    const int row = findings_->current();
    if (row < 0 || row >= static_cast<int>(order_.size())) return std::nullopt;
    return order_[static_cast<std::size_t>(row)];
}

void PrescribeBench::about(void (PlanAsker::*ask)(const std::string&)) {
    if (const auto id = currentFinding())
        (asker_.*ask)(*id);
    else
        c_.say(say("prescribe-bench.no-finding-asks-for-work-yet"));
}

void PrescribeBench::setCorrections(const Message& label, const std::vector<std::string>& corrections) {
    saveWords();
    setPlan(label, proposePlan(planFor(c_.session, review()), corrections, c_.session.readersWords()));
}

/// Taken only when asked for: corrections, their drills, and strengths to keep.
void PrescribeBench::propose() {
    if (proposal_.work.empty()) return c_.say(say("prescribe-bench.nothing-to-propose"));
    saveWords();
    std::vector<std::string> work;
    for (const Proposed& p : proposal_.work) work.push_back(p.finding);
    Plan plan = proposePlan(planFor(c_.session, review()), work, c_.session.readersWords());
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
    else if (isStyle(review().plan, c_.session.told(), id))
        return c_.say(say("prescribe-bench.is-style"));
    else if (chosen.size() >= most)
        return c_.say(say("prescribe-bench.enough-corrections", {{"most", most}}));
    else
        chosen.push_back(id);
    setCorrections(msg("prescribe-bench.choose-corrections"), chosen);
}

/// Every edit of the review comes here, a drag on the picture too: what is not in front waits until it is.
void PrescribeBench::refresh() {
    if (!inFront_) return;
    causes_ = causesOf(playbook(), c_.session.told(), review().plan);
    order_ = causes_.order;
    for (const std::string& id : review().plan.corrections) // one that has become good can be taken out, too
        if (!isAmong(order_, id)) order_.push_back(id);
    proposal_ = proposePriorities(playbook(), review(), c_.session.told(), causes_, c_.session.age());
    refreshList();
    refreshWhy();
    refreshMiddle();
    drills_->show();
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
        const bool good = !isAmong(causes_.order, id);
        row.sub = good    ? say("prescribe-bench.good-by-now")
                  : !root ? say("prescribe-bench.follows-from-another")
                  : root->explains.empty()
                      ? say("prescribe-bench.stands-alone")
                      : say("prescribe-bench.root-of", {{"count", root->explains.size()}});
        row.mark = isAmong(chosen, id) ? RowMark::Done : RowMark::Open;
        const bool proposed = proposedIn(proposal_.work, id) != nullptr;
        row.right = isAmong(chosen, id)                             ? say("prescribe-bench.work-on-it")
                    : isStyle(review().plan, c_.session.told(), id) ? say("prescribe-bench.own-style")
                    : proposed                                      ? say("prescribe-bench.proposed")
                                                                    : say("prescribe-bench.log-only");
        row.rightAccent = proposed && !isAmong(chosen, id);
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
        if (const auto size = review().plan.sizes.find(*id); size != review().plan.sizes.end())
            why << say("prescribe-bench.size", {{"size", nameOf(size->second)}});
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
    confirm_->setText(say(guidanceConfirmed(c_.session.library()) ? "prescribe-bench.guidance-told"
                                                                  : "prescribe-bench.guidance-looked-up"));
}

/// Only what was looked up is told to a family; told once more, it is their league again that they ask.
void PrescribeBench::confirmGuidance() {
    Library& library = c_.session.library();
    if (const Status kept = jg::confirmGuidance(library, !guidanceConfirmed(library)); !kept)
        return c_.say(say(kept.error().text));
    c_.session.settingsChanged();
    refreshWhy();
}

void PrescribeBench::refreshMiddle() {
    if (shown_ == Middle::Causes) showCauses();
    if (shown_ == Middle::Week)
        week_->show({playbook(), review().plan.drills,
                     layOutWeek(playbook(), review().plan.drills, planFor(c_.session, review()).gates()),
                     review().plan.circumstances});
}

void PrescribeBench::showCauses() {
    std::vector<CauseCard> cards;
    for (const std::string& id : order_) {
        const Root* root = causes_.root(id);
        const bool isRoot = root && !root->explains.empty();
        const bool chosen = isAmong(review().plan.corrections, id);
        std::vector<Message> note;
        if (isRoot) note.push_back(msg("prescribe-bench.root-of", {{"count", root->explains.size()}}));
        if (chosen) note.push_back(msg("prescribe-bench.worked-on"));
        cards.push_back({id, goal(id), say(joined(ListStyle::Commas, note)), chosen, isRoot});
    }
    map_->show(causes_, cards, currentFinding().value_or(""));
}

Handlers PrescribeBench::handlers() {
    return {
        {"plan-propose", [this] { propose(); }},
        {"plan-toggle", [this] { toggle(findings_->current()); }},
        {"plan-causes", [this] { about(&PlanAsker::causes); }},
        {"plan-why-not", [this] { about(&PlanAsker::whyNot); }},
        {"plan-drills", [this] { about(&PlanAsker::drills); }},
        {"plan-size", [this] { about(&PlanAsker::size); }},
        {"plan-week", [this] { asker_.week(); }},
        {"plan-keeps", [this] { asker_.keeps(); }},
        {"plan-promise", [this] { askForPromise(this, c_.session, c_.say); }},
        {"plan-show-causes", [this] { show(Middle::Causes); }},
        {"plan-show-week", [this] { show(Middle::Week); }},
        {"plan-show-picture", [this] { show(Middle::Picture); }},
        {"row-up", [this] { findings_->move(-1); }},
        {"row-down", [this] { findings_->move(1); }},
    };
}

} // namespace jg::ui
