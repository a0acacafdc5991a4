// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/athletes_place.h"

#include "review/record/allowed.h"
#include "ui/forms/promise_line.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/row_list.h"
#include "ui/kit/theme.h"
#include "ui/places/athletes/athlete_dialog.h"
#include "ui/places/athletes/consent_dialog.h"
#include "ui/places/athletes/history_grid.h"
#include "ui/places/athletes/log_sections.h"
#include "ui/places/athletes/measure_trend.h"
#include "ui/places/athletes/outing_chart.h"
#include "ui/places/athletes/outings_told.h"

#include <QDateTime>
#include <QGridLayout>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

namespace jg::ui {

AthletesPlace::AthletesPlace(LibraryReader& reader, const Playbook& playbook,
                             std::function<Status(const AthleteEdit&)> keep, QWidget* parent)
    : QWidget(parent)
    , reader_(reader)
    , playbook_(playbook)
    , keep_(std::move(keep)) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(34, 26, 34, 12);
    row->setSpacing(28);
    auto* left = new QVBoxLayout;
    left->addWidget(heading(say("athletes-place.athletes"), 28));
    search_ = new QLineEdit;
    search_->setObjectName("athlete-search");
    search_->setAccessibleName(say("athletes-place.search-the-athletes-by-name"));
    search_->setPlaceholderText(say("athletes-place.search-by-name"));
    search_->setFixedWidth(em(220));
    search_->setClearButtonEnabled(true);
    connect(search_, &QLineEdit::textChanged, this, &AthletesPlace::readRows);
    connect(search_, &QLineEdit::returnPressed, this, [this] { setFocus(); });
    left->addWidget(search_);
    list_ = new RowList;
    list_->setObjectName("athletes");
    list_->setAccessibleName(say("athletes-place.athletes"));
    list_->setFixedWidth(em(220));
    connect(list_, &RowList::selected, this, [this](int i) {
        if (i >= 0 && i < static_cast<int>(rows_.size()))
            choose(rows_[static_cast<std::size_t>(i)].athlete.id);
    });
    left->addWidget(list_, 1);
    auto* roster = plainButton(say("athletes-place.roster"));
    roster->setObjectName("roster-open");
    connect(roster, &QPushButton::clicked, this, &AthletesPlace::rosterAsked);
    left->addWidget(roster, 0, Qt::AlignLeft);
    unread_ = problemLabel("athletes-left-out");
    unread_->setMaximumWidth(em(220));
    left->addWidget(unread_);
    row->addLayout(left);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    page_ = new QVBoxLayout(inner);
    page_->setContentsMargins(0, 4, 8, 12);
    page_->setSpacing(6);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    row->addWidget(scroll, 1);
}

void AthletesPlace::show(Date today) {
    today_ = today;
    readRows();
    if (chosen_) readPage();
}

void AthletesPlace::startSearch() {
    search_->setFocus();
    search_->selectAll();
}

void AthletesPlace::readRows() {
    using Found = std::pair<Result<std::vector<AthleteRow>>, std::vector<Message>>;
    reader_.ask<Found>(
        "athletes",
        [words = search_->text().toStdString()](Store& store) {
            auto rows = store.athleteRows(words);
            return Found{std::move(rows), store.takeLeftOut()};
        },
        [this](const Found& found) {
            unread_->setText(say(joined(ListStyle::Sentences, found.second)));
            unread_->setVisible(!found.second.empty());
            showRows(found.first);
        });
}

void AthletesPlace::showRows(const Result<std::vector<AthleteRow>>& rows) {
    rows_ = rows ? *rows : std::vector<AthleteRow>{};
    list_->setEmptyText(!rows                       ? say(rows.error().text)
                        : search_->text().isEmpty() ? say("athletes-place.nobody")
                                                    : say("athletes-place.nobody-of-that-name"));
    std::vector<ListRow> shown;
    int current = -1;
    for (const AthleteRow& r : rows_) {
        if (chosen_ == r.athlete.id) current = static_cast<int>(shown.size());
        ListRow row;
        row.title = text(r.athlete.fullName());
        row.sub =
            QString("%1, %2 \u00b7 %3")
                .arg(r.athlete.ageOn(today_))
                .arg(say(nameOf(r.athlete.hand)))
                .arg(r.reviews == 0   ? say("athletes-place.no-review-yet")
                     : r.reviews == 1 ? say("athletes-place.one-review")
                                      : say("athletes-place.reviews-reviews", {{"reviews", r.reviews}}));
        shown.push_back(std::move(row));
    }
    list_->setRows(std::move(shown));
    if (current < 0 && !rows_.empty()) choose(rows_[0].athlete.id), current = 0;
    list_->setCurrent(current);
    if (rows_.empty()) clearPage();
}

void AthletesPlace::choose(const AthleteId& athlete) {
    if (chosen_ == athlete && shown_) return;
    chosen_ = athlete;
    for (std::size_t i = 0; i < rows_.size(); ++i)
        if (rows_[i].athlete.id == athlete) list_->setCurrent(static_cast<int>(i));
    shown_.reset();
    readPage();
}

void AthletesPlace::readPage() {
    reader_.ask<Result<AthleteLog>>(
        "athlete", [id = *chosen_, book = playbook_](Store& store) { return readLog(store, book, id); },
        [this](Result<AthleteLog> log) { showPage(log); });
}

void AthletesPlace::moveSelection(int by) {
    list_->move(by);
}

void AthletesPlace::openNewest() {
    if (shown_ && !shown_->reviews.empty()) Q_EMIT open(shown_->reviews.back().submission.id);
}

std::function<std::optional<QString>(const Athlete&)> AthletesPlace::keeping() const {
    return [keep = keep_,
            edit = AthleteEdit{shown_->athlete, {}}](const Athlete& typed) mutable -> std::optional<QString> {
        edit.typed = typed;
        const Status kept = keep(edit);
        if (kept) return std::nullopt;
        edit.mineStands = kept.error().code == ErrorCode::Stale;
        return say(kept.error().text);
    };
}

void AthletesPlace::editCurrent() {
    if (!shown_) return;
    editAthlete(this, shown_->athlete, playbook_, today_, keeping());
}

void AthletesPlace::clearPage() {
    shown_.reset();
    clearLayout(*page_);
}

void AthletesPlace::showPage(const Result<AthleteLog>& log) {
    if (log && log->page.athlete.id != chosen_) return; // another was chosen meanwhile
    clearPage();
    if (!log) {
        page_->addWidget(plain(say(log.error().text), 13));
        page_->addStretch(1);
        return;
    }
    const AthletePage& page = log->page;
    shown_ = page;
    addFacts(page.athlete);
    addConsent(page.athlete);
    addComingBack(page.athlete);
    addPain(page);
    if (!page.leftOut.empty()) {
        auto* unread = problemLabel("reviews-left-out");
        unread->setText(say(joined(ListStyle::Sentences, page.leftOut)));
        unread->show();
        page_->addWidget(unread);
    }
    page_->addSpacing(10);
    if (page.reviews.empty()) page_->addWidget(quiet(say("athletes-place.no-review-yet-open-a-waiting"), 14));
    for (QWidget* part : {beforeTheLesson(*log, playbook_, today_), sinceThen(*log, playbook_)})
        if (part) {
            page_->addWidget(part);
            page_->addSpacing(12);
        }
    if (!page.reviews.empty()) {
        addHistory(*log);
        page_->addSpacing(12);
        addMeasures(*log);
        page_->addSpacing(12);
        addOutings(*log);
    }
    addOutingsTold(page.athlete);
    if (!page.reviews.empty()) addReviews(*log);
    page_->addSpacing(12);
    addWaiting(page);
    addPromises(page);
    addKeeping(page.athlete.id);
    page_->addStretch(1);
}

/// Finding by finding; the line above it filters by name.
void AthletesPlace::addHistory(const AthleteLog& log) {
    if (log.lines.empty()) return;
    page_->addWidget(heading(say("athletes-place.finding-by-finding"), 18));
    auto* filter = new QLineEdit(filter_);
    filter->setObjectName("history-filter");
    filter->setAccessibleName(say("athletes-place.filter"));
    filter->setPlaceholderText(say("athletes-place.filter"));
    filter->setClearButtonEnabled(true);
    page_->addWidget(filter);
    auto* holder = new QWidget; // goes with the page, and what is in it
    auto* box = new QVBoxLayout(holder);
    box->setContentsMargins(0, 0, 0, 0);
    page_->addWidget(holder);
    const auto fill = [this, box, lines = log.lines](const QString& words) {
        filter_ = words;
        clearLayout(*box);
        constexpr std::size_t kUsual = 12; // without a filter: what asks for attention comes first
        std::vector<LogLine> shown;
        for (const LogLine& l : lines)
            if (words.isEmpty()
                    ? shown.size() < kUsual
                    : text(playbook_.nameOfFinding(l.finding)).contains(words, Qt::CaseInsensitive))
                shown.push_back(l);
        if (shown.empty()) return box->addWidget(quiet(say("athletes-place.no-such-finding"), 13));
        auto* grid = new HistoryGrid(shown, playbook_);
        connect(grid, &HistoryGrid::openAt, this, &AthletesPlace::openAt);
        box->addWidget(grid);
        if (words.isEmpty() && lines.size() > kUsual)
            box->addWidget(
                quiet(say("athletes-place.more-findings", {{"count", lines.size() - kUsual}}), 12));
    };
    connect(filter, &QLineEdit::textChanged, this, fill);
    fill(filter_);
}

void AthletesPlace::addFacts(const Athlete& a) {
    auto* line = new QWidget;
    auto* row = new QHBoxLayout(line);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(heading(text(a.fullName()), 24), 1);
    auto* edit = plainButton(say("athletes-place.edit"));
    edit->setObjectName("edit-athlete");
    edit->setToolTip(say("athletes-place.name-date-of-birth-hand-height"));
    connect(edit, &QPushButton::clicked, this, &AthletesPlace::editCurrent);
    if (shown_->reviews.size() > 1) {
        auto* under = plainButton(say("athletes-place.juxta"));
        under->setObjectName("juxta-open");
        under->setToolTip(say("action.athlete-juxta"));
        connect(under, &QPushButton::clicked, this, &AthletesPlace::juxtaAsked);
        row->addWidget(under);
    }
    row->addWidget(edit);
    page_->addWidget(line);
    std::vector<Message> facts = {
        msg("athletes-place.age-and-hand", {{"age", a.ageOn(today_)}, {"hand", nameOf(a.hand)}}),
        asIs(a.level)};
    if (a.heightM) facts.push_back(msg("length.cm", {{"length", std::lround(*a.heightM * 100)}}));
    if (a.heights.size() > 1 && a.heights.front().metres < a.heights.back().metres)
        facts.push_back(msg("athletes-place.grown",
                            {{"cm", std::lround((a.heights.back().metres - a.heights.front().metres) * 100)},
                             {"since", WrittenDate{a.heights.front().on, DateStyle::Year}}}));
    if (a.isMinorOn(today_))
        facts.push_back(
            a.guardianEmail.empty()
                ? msg("athletes-place.guardian-needed")
                : msg("athletes-place.to-guardian", {{"name", a.guardianName}, {"email", a.guardianEmail}}));
    else
        facts.push_back(a.email.empty() ? msg("athletes-place.no-address") : asIs(a.email));
    page_->addWidget(quiet(say(joined(ListStyle::Dots, std::move(facts))), 13));
}

/// What was allowed, and the way to enter it.
void AthletesPlace::addConsent(const Athlete& a) {
    const bool holds = allowedOn(a, Use::Filming, today_) == Allowed::Yes;
    auto* note = new QFrame;
    note->setObjectName(a.consent && !holds ? "pain" : "note");
    auto* row = new QHBoxLayout(note);
    row->setContentsMargins(12, 6, 10, 6);
    row->addWidget(plain(a.consent ? say("athletes-place.consent", {{"what", consentInWords(a, today_)}})
                                   : say("athletes-place.no-consent"),
                         12.5),
                   1);
    auto* enter = plainButton(say("athletes-place.enter-consent"));
    enter->setObjectName("consent");
    connect(enter, &QPushButton::clicked, this,
            [this] { askConsent(this, shown_->athlete, today_, keeping()); });
    row->addWidget(enter);
    page_->addWidget(note);
}

/// On the way back from an injury: whether the clinician's plan was seen.
void AthletesPlace::addComingBack(const Athlete& a) {
    if (!a.comingBack) return;
    auto* note = new QFrame;
    note->setObjectName(a.comingBack->planSeen ? "note" : "pain");
    auto* row = new QHBoxLayout(note);
    row->setContentsMargins(12, 6, 10, 6);
    row->addWidget(plain(a.comingBack->planSeen
                             ? say("athletes-place.coming-back-seen",
                                   {{"from", a.comingBack->from}, {"date", *a.comingBack->planSeen}})
                             : say("athletes-place.coming-back-unseen", {{"from", a.comingBack->from}}),
                         13),
                   1);
    page_->addWidget(note);
}

/// Reports of pain, each with how it was closed or the way to close it.
void AthletesPlace::addPain(const AthletePage& page) {
    for (const Submission& s : page.pain) {
        auto* note = new QFrame;
        note->setObjectName(s.painOpen() ? "pain" : "note");
        auto* row = new QHBoxLayout(note);
        row->setContentsMargins(12, 6, 10, 6);
        row->addWidget(plain(s.painOpen() ? say("athletes-place.pain-open",
                                                {{"date", s.received}, {"words", s.painWords()}})
                                          : say("athletes-place.pain-closed", {{"date", s.received},
                                                                               {"words", s.painWords()},
                                                                               {"closed", s.painClosed->on},
                                                                               {"how", s.painClosed->words}}),
                             12.5),
                       1);
        if (s.painOpen()) {
            auto* close = plainButton(say("athletes-place.close-pain"));
            close->setObjectName("close-pain");
            connect(close, &QPushButton::clicked, this, [this, id = s.id] { askToClosePain(id); });
            row->addWidget(close, 0, Qt::AlignTop);
        }
        page_->addWidget(note);
    }
}

void AthletesPlace::askToClosePain(const SubmissionId& submission) {
    askChoice(this,
              {"close-pain",
               say("athletes-place.close-pain-title"),
               say("athletes-place.close-pain-hint"),
               {},
               say("athletes-place.close-pain-own")},
              [this, submission](const ChoiceAnswer& answer) { Q_EMIT closePain(submission, answer.words); });
}

void AthletesPlace::addMeasures(const AthleteLog& log) {
    const AthletePage& page = log.page;
    page_->addWidget(heading(say("athletes-place.measures-over-time"), 18));
    std::vector<Message> dates;
    for (const ReviewOfAthlete& r : page.reviews) dates.push_back(day(r.summary.date));
    page_->addWidget(quiet(say("athletes-place.from-left-to-right-dates-bars",
                               {{"dates", joined(ListStyle::Dots, std::move(dates))}}),
                           12));
    page_->addWidget(rule());
    const Date from = page.reviews.front().summary.date, to = page.reviews.back().summary.date;
    for (const MeasureLine& line : page.measures) {
        const MeasureDefinition* m = playbook_.measure(line.measure);
        auto* trend = new MeasureTrend(text(m ? m->shortName : line.measure), line, from, to);
        const auto robust = log.trends.find(line.measure);
        const auto sure = log.sureSince.find(line.measure);
        if (robust != log.trends.end()) trend->setLine(robust->second);
        if (sure != log.sureSince.end()) trend->setSureSince(sure->second);
        page_->addWidget(trend);
    }
}

/// What is done with an athlete as a whole: rarely, so at the end.
void AthletesPlace::addKeeping(const AthleteId& athlete) {
    page_->addSpacing(14);
    page_->addWidget(rule());
    auto* line = new QWidget;
    auto* grid = new QGridLayout(line);
    grid->setContentsMargins(0, 0, 0, 0);
    constexpr int kBeside = 2; // three are too wide in large text
    const auto door = [&](const char* name, const char* words, auto signal) {
        auto* button = plainButton(say(words));
        button->setObjectName(name);
        connect(button, &QPushButton::clicked, this, [this, athlete, signal] {
            Q_EMIT(this->*signal)(athlete);
        });
        grid->addWidget(button, grid->count() / kBeside, grid->count() % kBeside, Qt::AlignLeft);
    };
    door("athlete-bundle", "athletes-place.bundle", &AthletesPlace::bundleAsked);
    door("athlete-numbers", "athletes-place.numbers", &AthletesPlace::numbersAsked);
    door("athlete-season", "athletes-place.season", &AthletesPlace::seasonAsked);
    door("athlete-forget", "athletes-place.forget", &AthletesPlace::forgetAsked);
    grid->setColumnStretch(kBeside, 1);
    page_->addWidget(line);
}

/// Of the newest outing the measures that are off their target most often.
void AthletesPlace::addOutings(const AthleteLog& log) {
    if (log.outings.empty()) return;
    page_->addWidget(heading(say("athletes-place.outing"), 18));
    page_->addWidget(rule());
    for (const Outing& o : log.outings) page_->addWidget(outingSection(o, playbook_));
    page_->addSpacing(12);
}

void AthletesPlace::addOutingsTold(const Athlete& athlete) {
    page_->addWidget(outingsTold(athlete, today_, keeping()));
    page_->addSpacing(12);
}

void AthletesPlace::addReviews(const AthleteLog& log) {
    const AthletePage& page = log.page;
    page_->addWidget(heading(say("athletes-place.reviews"), 18));
    page_->addWidget(rule());
    static const std::vector<KeptVersion> none;
    for (auto it = page.reviews.rbegin(); it != page.reviews.rend(); ++it) {
        const auto versions = page.versions.find(it->summary.id);
        addReview(log, *it, versions == page.versions.end() ? none : versions->second);
    }
}

void AthletesPlace::addReview(const AthleteLog& log, const ReviewOfAthlete& r,
                              const std::vector<KeptVersion>& versions) {
    auto* line = new QWidget;
    auto* row = new QHBoxLayout(line);
    row->setContentsMargins(0, 2, 0, 2);
    constexpr std::size_t kMostKept = 3;
    std::vector<Message> keeps, work;
    if (r.results)
        for (const Judged& j : r.results->findings)
            if (j.strength && keeps.size() < kMostKept)
                keeps.push_back(asIs(playbook_.nameOfFinding(j.finding.id)));
    for (const std::string& id : r.summary.corrections) work.push_back(asIs(playbook_.nameOfFinding(id)));
    std::vector<Message> words = {
        r.summary.sent
            ? msg("athletes-place.sent-to", {{"date", r.summary.date}, {"to", r.summary.sent->to}})
            : msg("athletes-place.at-stage", {{"date", r.summary.date}, {"stage", nameOf(r.summary.stage)}})};
    if (!work.empty())
        words.push_back(msg("athletes-place.worked-on", {{"what", joined(ListStyle::Commas, work)}}));
    for (const auto& [review, names] : log.drills)
        if (review == r.summary.id) {
            std::vector<Message> drills;
            for (const std::string& name : names) drills.push_back(asIs(name));
            words.push_back(msg("athletes-place.drills", {{"what", joined(ListStyle::Commas, drills)}}));
        }
    if (!keeps.empty())
        words.push_back(msg("athletes-place.kept", {{"what", joined(ListStyle::Commas, keeps)}}));
    row->addWidget(plain(say(joined(ListStyle::Sentences, std::move(words))), 13), 1);
    auto* open = plainButton(say("athletes-place.open"));
    open->setObjectName("link");
    connect(open, &QPushButton::clicked, this, [this, id = r.submission.id] { Q_EMIT this->open(id); });
    row->addWidget(open, 0, Qt::AlignTop);
    page_->addWidget(line);
    for (const KeptVersion& v : versions) {
        auto* note = new QFrame;
        note->setObjectName("note");
        auto* box = new QHBoxLayout(note);
        box->setContentsMargins(12, 4, 8, 4);
        box->addWidget(plain(say("athletes-place.other-version", {{"when", momentInWords(v.atUnix)}}), 12.5),
                       1);
        auto* take = plainButton(say("athletes-place.go-on-with-this-one"));
        take->setObjectName("link");
        take->setVisible(!r.summary.sent);
        connect(take, &QPushButton::clicked, this, [this, id = v.row] { Q_EMIT takeVersion(id); });
        box->addWidget(take);
        page_->addWidget(note);
    }
}

/// Findings of the last letter that were left for later.
void AthletesPlace::addWaiting(const AthletePage& page) {
    if (page.waiting.empty()) return;
    page_->addWidget(heading(say("athletes-place.can-wait"), 18));
    page_->addWidget(rule());
    std::vector<Message> goals;
    for (const std::string& goal : page.waiting) goals.push_back(asIs(goal));
    page_->addWidget(plain(say(joined(ListStyle::Dots, std::move(goals))), 13));
    page_->addSpacing(12);
}

void AthletesPlace::addPromises(const AthletePage& page) {
    page_->addWidget(heading(say("athletes-place.promised"), 18));
    page_->addWidget(rule());
    for (const Promise& p : page.promises)
        page_->addWidget(
            promiseLine(p, today_, [this, row = p.row](Kept how) { Q_EMIT closePromise(row, how); }));
    if (page.promises.empty()) page_->addWidget(quiet(say("athletes-place.nothing-is-promised"), 13));
}

} // namespace jg::ui
