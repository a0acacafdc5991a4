#include "ui/athletes/athletes_place.h"

#include "review/assess.h"
#include "ui/athletes/measure_trend.h"
#include "ui/row_list.h"
#include "ui/theme.h"

#include <QScrollArea>
#include <QVBoxLayout>

namespace jg::ui {

namespace {
QString unitText(const std::string& unit) {
    return unit == "deg" ? "\u00b0" : unit == "%" ? " %" : " " + text(unit);
}
} // namespace

AthletesPlace::AthletesPlace(QWidget* parent)
    : QWidget(parent) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(34, 26, 34, 12);
    row->setSpacing(28);
    auto* left = new QVBoxLayout;
    left->addWidget(heading("Athletes", 28));
    list_ = new RowList;
    list_->setObjectName("athletes");
    list_->setFixedWidth(220);
    list_->setEmptyText("Nobody yet. Take in films, and their athletes appear here.");
    connect(list_, &RowList::selected, this, &AthletesPlace::showAthlete);
    left->addWidget(list_, 1);
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

void AthletesPlace::show(Library& library, const Playbook& playbook, Date today) {
    playbook_ = &playbook;
    today_ = today;
    seen_.clear();
    if (auto all = library.athletes()) athletes_ = std::move(*all);
    if (auto all = library.promises()) promises_ = std::move(*all);
    if (auto all = library.reviews())
        for (Review& r : *all) {
            auto submission = library.submission(r.submission);
            auto athlete = library.athlete(r.athlete);
            if (!submission || !athlete) continue;
            for (const Clip& c : submission->clips)
                if (c.id == r.clip) {
                    Assessment a = assess(r, playbook, submission->clips, athlete->hand);
                    seen_[r.athlete].push_back({std::move(r), *submission, std::move(a)});
                    break;
                }
        }
    std::vector<ListRow> rows;
    for (const Athlete& a : athletes_) {
        ListRow row;
        row.title = text(a.fullName());
        const auto count = seen_.contains(a.id) ? seen_[a.id].size() : 0;
        row.sub = QString("%1, %2 \u00b7 %3")
                      .arg(a.ageOn(today))
                      .arg(text(nameOf(a.hand)))
                      .arg(count == 0   ? "no review yet"
                           : count == 1 ? "one review"
                                        : QString("%1 reviews").arg(count));
        rows.push_back(std::move(row));
    }
    const int keep = list_->current();
    list_->setRows(std::move(rows));
    list_->setCurrent(keep < 0 && !athletes_.empty() ? 0 : keep);
    showAthlete(list_->current());
}

void AthletesPlace::choose(const AthleteId& athlete) {
    for (std::size_t i = 0; i < athletes_.size(); ++i)
        if (athletes_[i].id == athlete) list_->setCurrent(static_cast<int>(i));
    showAthlete(list_->current());
}

void AthletesPlace::moveSelection(int by) {
    list_->move(by);
}

void AthletesPlace::showAthlete(int row) {
    while (QLayoutItem* item = page_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    if (row < 0 || row >= static_cast<int>(athletes_.size())) return;
    const Athlete& a = athletes_[static_cast<std::size_t>(row)];
    page_->addWidget(heading(text(a.fullName()), 24));
    QString facts = QString("%1 years, throws %2").arg(a.ageOn(today_)).arg(text(nameOf(a.hand)));
    if (!a.level.empty()) facts += " \u00b7 " + text(a.level);
    facts += a.isMinorOn(today_)
                 ? " \u00b7 letters go to " + text(a.guardianName) + ", " + text(a.guardianEmail)
                 : " \u00b7 " + text(a.email);
    page_->addWidget(quiet(facts, 13));
    page_->addSpacing(10);
    const auto it = seen_.find(a.id);
    if (it == seen_.end()) {
        page_->addWidget(
            quiet("No review yet. Open a waiting submission on the desk; its measures will stand here.", 14));
    } else {
        addMeasures(it->second);
        page_->addSpacing(12);
        addReviews(it->second);
    }
    page_->addSpacing(12);
    page_->addWidget(heading("Promised", 18));
    page_->addWidget(rule());
    bool any = false;
    for (const Promise& p : promises_) {
        if (p.athlete != a.id) continue;
        any = true;
        page_->addWidget(plain(text(p.text) + (p.due ? ", " + text(longDate(*p.due)) : QString()) +
                                   (p.settled ? " (settled)" : ""),
                               13));
    }
    if (!any) page_->addWidget(quiet("Nothing is promised.", 13));
    page_->addStretch(1);
}

void AthletesPlace::addMeasures(const std::vector<Seen>& seen) {
    page_->addWidget(heading("Measures over time", 18));
    QString dates;
    for (const Seen& s : seen) dates += (dates.isEmpty() ? "" : "  \u00b7  ") + text(longDate(s.review.date));
    page_->addWidget(
        quiet("From left to right: " + dates +
                  ". Bars are the 95 % error; the shaded side is wanted. Same view and approach only.",
              12));
    page_->addWidget(rule());
    const Seen& newest = seen.back();
    for (const Target& target : newest.review.approach.targets) {
        std::vector<TrendPoint> points;
        std::string unit;
        for (const Seen& s : seen) {
            // Like is compared with like: the same measure in the same unit, from an allowed view.
            const MeasureRow* m = s.assessment.measure(target.measure);
            if (!m || !m->value.value || (!unit.empty() && m->value.unit != unit)) continue;
            unit = m->value.unit;
            points.push_back({s.review.date, *m->value.value, m->value.half95()});
        }
        if (points.empty()) continue;
        page_->addWidget(new MeasureTrend(text(playbook_->measure(target.measure)->shortName), unitText(unit),
                                          std::move(points), target, seen.front().review.date,
                                          newest.review.date));
    }
}

void AthletesPlace::addReviews(const std::vector<Seen>& seen) {
    page_->addWidget(heading("Reviews", 18));
    page_->addWidget(rule());
    for (auto it = seen.rbegin(); it != seen.rend(); ++it) {
        auto* line = new QWidget;
        auto* row = new QHBoxLayout(line);
        row->setContentsMargins(0, 2, 0, 2);
        QString words = text(longDate(it->review.date)) + ": ";
        words += it->review.sent ? "sent to " + text(it->review.sent->to)
                                 : "at " + text(nameOf(it->review.stage)).toLower();
        QString keeps, work;
        for (const Judged& j : it->assessment.findings)
            if (j.strength && keeps.size() < 60)
                keeps += (keeps.isEmpty() ? "" : ", ") + text(playbook_->nameOfFinding(j.finding.id));
        for (const std::string& id : it->review.plan.corrections)
            work += (work.isEmpty() ? "" : ", ") + text(playbook_->nameOfFinding(id));
        if (!work.isEmpty()) words += ". Worked on: " + work;
        if (!keeps.isEmpty()) words += ". Kept: " + keeps;
        row->addWidget(plain(words + ".", 13), 1);
        auto* open = plainButton("Open");
        open->setObjectName("link");
        connect(open, &QPushButton::clicked, this, [this, id = it->submission.id] { Q_EMIT this->open(id); });
        row->addWidget(open, 0, Qt::AlignTop);
        page_->addWidget(line);
    }
}

} // namespace jg::ui
