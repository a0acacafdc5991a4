// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/juxta/juxta_place.h"

#include "base/caught.h"
#include "desk/jobs/job.h"
#include "desk/session/beside.h"
#include "letter/juxta_tables.h"
#include "ui/forms/kept_words.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"
#include "ui/places/juxta/sheet_view.h"

#include <QCheckBox>
#include <QLineEdit>
#include <QResizeEvent>
#include <QScrollArea>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

JuxtaPlace::JuxtaPlace(std::vector<JuxtaKey> rows, AthleteId athlete, const JuxtaSurroundings& surroundings)
    : s_(surroundings)
    , athlete_(std::move(athlete))
    , rows_(std::move(rows)) {
    setObjectName("juxta");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* bar = new QWidget;
    bar->setAutoFillBackground(true);
    QPalette colours = bar->palette();
    colours.setColor(QPalette::Window, palette::sheet);
    bar->setPalette(colours);
    auto* head = new QHBoxLayout(bar);
    head->setContentsMargins(20, 8, 20, 8);
    title_ = heading("", 21);
    title_->setWordWrap(false);
    head->addWidget(title_);
    how_ = quiet(say("juxta-dialog.making"), 13);
    how_->setObjectName("juxta-state");
    how_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    head->addWidget(how_, 1);
    column->addWidget(bar);
    column->addWidget(rule());
    stack_ = new QStackedWidget;
    scroll_ = new QScrollArea;
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOn); // its width never comes and goes
    sheet_ = new SheetView(s_.playbook);
    scroll_->setWidget(sheet_);
    stack_->addWidget(scroll_);
    column->addWidget(stack_, 1);
    foot_ = new Foot;
    foot_->setKept(keptWords(s_.library));
    connect(foot_, &Foot::asked, this, [this](const QString& id) { s_.runAction(id); });
    column->addWidget(foot_);
    connect(sheet_, &SheetView::opened, this, &JuxtaPlace::openTwo);
    connect(sheet_, &SheetView::chosenMoved, this, [this] {
        const QRect area = sheet_->areaOf(sheet_->chosen());
        constexpr int kAbout = 60;
        scroll_->ensureVisible(area.center().x(), area.center().y(), area.width() / 2 + kAbout,
                               area.height() / 2 + kAbout);
        setHints();
    });
    s_.setWhere(AtJuxta);
    setHints();
    read();
}

/// Jobs end before what they hand their results to.
JuxtaPlace::~JuxtaPlace() {
    qDeleteAll(findChildren<Job*>(Qt::FindDirectChildrenOnly));
}

/// Reads the rows and lays them out, beside the window.
void JuxtaPlace::read() {
    auto other = s_.library.again();
    if (!other) return how_->setText(say(other.error().text));
    ++reading_;
    JuxtaWish wish;
    wish.columns = columns_;
    wish.asGiven = ordered_;
    const auto athlete = s_.library.athlete(athlete_);
    overruled_ = athlete ? overruledOf(*athlete) : std::set<std::string>();
    wish.overruled = overruled_;
    new Job(this,
            [this, own = std::shared_ptr<Library>(std::move(*other)), playbook = s_.playbook, rows = rows_,
             wish](std::stop_token, const Job::Progress&) -> Job::Continuation {
                auto sheet = std::make_shared<Result<JuxtaSheet>>(caught([&]() -> Result<JuxtaSheet> {
                    auto entries = juxtaEntries(*own, playbook, rows);
                    if (!entries) return entries.error();
                    return layOutJuxta(std::move(*entries), playbook, wish);
                }));
                return [this, sheet] {
                    --reading_;
                    if (*sheet) return show(std::move(**sheet));
                    how_->setText(say(sheet->error().text));
                    inClay(how_);
                };
            });
}

void JuxtaPlace::show(JuxtaSheet sheet) {
    rows_.clear();
    for (const JuxtaRow& r : sheet.rows) rows_.push_back(r.entry.key);
    ordered_ = true;
    columns_.clear();
    for (const JuxtaColumn& c : sheet.columns) columns_.push_back(c.at);
    title_->setText(say(titleOf(sheet)));
    how_->setText(say(mannerOf(sheet)));
    sheet_->setSheet(std::move(sheet));
    sheet_->fitInto(scroll_->viewport()->size());
    readStills();
    setHints();
}

void JuxtaPlace::readStills() {
    ++serial_;
    for (const QPointer<Job>& job : stillJobs_)
        if (job) job->cancel(); // of another size
    stillJobs_.clear();
    const QSize size = sheet_->stillSize();
    const auto sheet = std::make_shared<const JuxtaSheet>(sheet_->sheet());
    for (std::size_t r = 0; r < sheet->rows.size(); ++r) readRow(sheet, r, size);
}

/// A row's stills come one by one, those of several rows beside each other.
void JuxtaPlace::readRow(const std::shared_ptr<const JuxtaSheet>& sheet, std::size_t row, QSize size) {
    auto other = s_.library.again();
    if (!other) return foot_->tell(say(other.error().text));
    ++reading_;
    stillJobs_.emplace_back(
        new Job(this,
                [this, own = std::shared_ptr<Library>(std::move(*other)), sheet, row, size,
                 serial = serial_](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
                    JuxtaFilms films(*own, *sheet, Stills::Near, stop);
                    Message wrong;
                    for (std::size_t c = 0; c < sheet->columns.size() && !stop.stop_requested(); ++c) {
                        const auto frame = sheet->columns[c].cells[row].frame;
                        if (!frame) continue;
                        auto picture = caught([&] { return films.picture(row, *frame); });
                        if (!picture) {
                            wrong = picture.error().text;
                            continue;
                        }
                        const CellKey key{row, c};
                        inbox_.put([this, key, serial, still = juxtaStill(*sheet, key, *picture, size)] {
                            if (serial == serial_) sheet_->setStill(key, still);
                        });
                    }
                    return [this, wrong] {
                        --reading_;
                        if (!wrong.empty()) foot_->tell(say(wrong), 0);
                    };
                }));
}

void JuxtaPlace::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    QTimer::singleShot(0, this, [this] {
        const QSize was = sheet_->stillSize();
        sheet_->fitInto(scroll_->viewport()->size());
        if (sheet_->stillSize() != was && !sheet_->sheet().rows.empty()) readStills();
    });
}

bool JuxtaPlace::aCellIsChosen() const {
    return sheet_->chosen().first < sheet_->sheet().rows.size();
}

void JuxtaPlace::setHints() {
    if (pair_) return foot_->setHints(pair_->hints());
    if (curves_) return foot_->setHints(curves_->hints());
    if (!aCellIsChosen() && !sheet_->sheet().rows.empty())
        return foot_->setHints({{"O", say("juxta-place.compare-all-the-same"), "juxta-overrule"},
                                {"\u2191", say("juxta-place.back-to-the-pictures"), "juxta-up"},
                                {"P", say("juxta-place.save"), "juxta-save"},
                                {"Esc", say("juxta-place.leave"), "juxta-leave"}});
    foot_->setHints({{"Enter", say("juxta-place.open-two"), "juxta-open"},
                     {say("hint.space"), say("juxta-place.mark"), "juxta-mark"},
                     {"A", say("juxta-place.rows"), "juxta-rows"},
                     {"C", say("juxta-place.columns"), "juxta-columns"},
                     {"X", say("juxta-place.hide"), "juxta-hide-row"},
                     {"B", say("juxta-place.name"), "juxta-name"},
                     {"F", say("juxta-place.curves"), "juxta-curves"},
                     {"P", say("juxta-place.save"), "juxta-save"},
                     {"Esc", say("juxta-place.leave"), "juxta-leave"}});
}

void JuxtaPlace::markCell() {
    if (!aCellIsChosen()) return;
    const CellKey cell = sheet_->chosen();
    sheet_->setMarked(sheet_->marked() == cell ? std::nullopt : std::optional(cell));
}

/// Two large ones are locked at the column's position; at a feature at first touch, and they stand where the
/// chosen one has its moment.
PairStart JuxtaPlace::startOf(CellKey cell) const {
    const JuxtaColumn& column = sheet_->sheet().columns[cell.second];
    if (const auto* moment = std::get_if<Moment>(&column.at)) return {*moment, 0};
    const JuxtaEntry& entry = sheet_->sheet().rows[cell.first].entry;
    const auto touch = entry.marks.frameOf(Moment::FootTouch), at = column.cells[cell.first].frame;
    if (!touch || !at || entry.clip.captureFps <= 0) return {Moment::FootTouch, 0};
    return {Moment::FootTouch, 1000.0 * static_cast<double>(*at - *touch) / entry.clip.captureFps};
}

/// The chosen cell beside the marked one; without a mark beside the same position of another row.
void JuxtaPlace::openTwo() {
    if (!aCellIsChosen() || sheet_->sheet().rows.size() < 2) return;
    const CellKey chosen = sheet_->chosen();
    const std::size_t last = sheet_->sheet().rows.size() - 1;
    std::size_t other = chosen.first == last ? 0 : last;
    if (const auto marked = sheet_->marked(); marked && marked->first != chosen.first) other = marked->first;
    const std::size_t upper = std::min(chosen.first, other), lower = std::max(chosen.first, other);
    const auto& rows = sheet_->sheet().rows;
    pair_ = new PairPlace(rows[upper].entry, rows[lower].entry, startOf(chosen),
                          {s_.library, s_.playbook, s_.clock, s_.ids,
                           [this](const QString& words) { foot_->tell(words); }, [this] { closeTwo(); },
                           s_.keeperOf, [this](const ReviewSession& session) { showKept(session, *foot_); },
                           s_.park, overruled_});
    connect(pair_, &PairPlace::hintsChanged, this, &JuxtaPlace::setHints);
    stack_->addWidget(pair_);
    stack_->setCurrentWidget(pair_);
    pair_->view().setFocus();
    s_.setWhere(AtPair);
    setHints();
}

void JuxtaPlace::closeTwo() {
    if (!pair_) return;
    const bool changed = pair_->edited();
    pair_->settle(); // the sheet is read from the disk
    stack_->removeWidget(pair_);
    pair_->deleteLater();
    pair_ = nullptr;
    s_.setWhere(AtJuxta);
    sheet_->setFocus();
    setHints();
    if (changed) read();
}

void JuxtaPlace::openCurves() {
    if (sheet_->sheet().rows.empty()) return;
    curves_ = new CurvePlace(s_.library, sheet_->sheet(), [this] { closeCurves(); });
    stack_->addWidget(curves_);
    stack_->setCurrentWidget(curves_);
    s_.setWhere(AtCurves);
    setHints();
}

void JuxtaPlace::closeCurves() {
    stack_->removeWidget(curves_);
    curves_->deleteLater();
    curves_ = nullptr;
    s_.setWhere(AtJuxta);
    sheet_->setFocus();
    setHints();
}

void JuxtaPlace::hideRow() {
    if (!aCellIsChosen()) return;
    if (rows_.size() <= 2) return foot_->tell(say("juxta-place.two-at-least"));
    rows_.erase(rows_.begin() + static_cast<std::ptrdiff_t>(sheet_->chosen().first));
    sheet_->setMarked({});
    read();
}

void JuxtaPlace::hideColumn() {
    if (columns_.size() <= 1) return foot_->tell(say("juxta-place.one-at-least"));
    columns_.erase(columns_.begin() + static_cast<std::ptrdiff_t>(sheet_->chosen().second));
    sheet_->setMarked({});
    read();
}

void JuxtaPlace::moveRow(int by) {
    const auto from = static_cast<std::ptrdiff_t>(sheet_->chosen().first), to = from + by;
    const auto count = static_cast<std::ptrdiff_t>(rows_.size());
    if (from >= count || to < 0 || to >= count) return;
    std::swap(rows_[static_cast<std::size_t>(from)], rows_[static_cast<std::size_t>(to)]);
    sheet_->choose({static_cast<std::size_t>(to), sheet_->chosen().second});
    sheet_->setMarked({});
    read();
}

void JuxtaPlace::moveColumn(int by) {
    const auto from = static_cast<std::ptrdiff_t>(sheet_->chosen().second), to = from + by;
    if (to < 0 || to >= static_cast<std::ptrdiff_t>(columns_.size())) return;
    std::swap(columns_[static_cast<std::size_t>(from)], columns_[static_cast<std::size_t>(to)]);
    if (aCellIsChosen()) sheet_->choose({sheet_->chosen().first, static_cast<std::size_t>(to)});
    sheet_->setMarked({});
    read();
}

/// A library of years has thousands: they are read beside the window.
void JuxtaPlace::chooseRows() {
    auto other = s_.library.again();
    if (!other) return foot_->tell(say(other.error().text));
    ++reading_;
    new Job(this,
            [this, own = std::shared_ptr<Library>(std::move(*other)),
             athlete = athlete_](std::stop_token, const Job::Progress&) -> Job::Continuation {
                auto offers = std::make_shared<const Result<std::vector<JuxtaOffer>>>(
                    caught([&] { return juxtaOffers(*own, athlete); }));
                return [this, offers] {
                    --reading_;
                    if (*offers) return askForRows(**offers);
                    foot_->tell(say(offers->error().text));
                };
            });
}

void JuxtaPlace::askForRows(const std::vector<JuxtaOffer>& offers) {
    std::vector<Tickable> boxes;
    const auto idOfKey = [](const JuxtaKey& key) {
        return key.review.value + ":" + std::to_string(key.delivery);
    };
    for (const JuxtaOffer& o : offers) {
        std::vector<Message> facts = {asIs(o.athlete.fullName()), day(o.when, DateStyle::Year),
                                      nameOf(o.view), msg("juxta-place.positions", {{"count", o.positions}})};
        if (o.key.delivery != 1) facts.push_back(msg("juxta.delivery", {{"number", o.key.delivery}}));
        if (o.conditions.start != Start::Unknown) facts.push_back(nameOf(o.conditions.start));
        if (!o.baseline.empty()) facts.push_back(asIs(o.baseline));
        if (!o.athlete.model.empty())
            facts.push_back(
                msg("juxta-place.model", {{"age", o.athlete.ageOn(o.when)}, {"level", o.athlete.level}}));
        const bool on = std::find(rows_.begin(), rows_.end(), o.key) != rows_.end();
        boxes.push_back({idOfKey(o.key), say(joined(ListStyle::Dots, std::move(facts))), on});
    }
    auto* d = new FormDialog(this, "juxta-rows", say("juxta-place.rows-title"), say("juxta-place.rows-hint"));
    const auto ticked = d->list("juxta-deliveries", say("juxta-place.deliveries"), boxes);
    d->openWith([this, ticked, offers, idOfKey]() -> std::optional<QString> {
        const std::vector<std::string> ids = ticked();
        if (ids.size() < 2 || ids.size() > kMostJuxtaRows) return say(msg("juxta.two-to-twelve"));
        // Rows that stay keep their order; new ones come below.
        const auto isOn = [&](const JuxtaKey& key) {
            return std::find(ids.begin(), ids.end(), idOfKey(key)) != ids.end();
        };
        std::vector<JuxtaKey> rows;
        for (const JuxtaKey& key : rows_)
            if (isOn(key)) rows.push_back(key);
        for (const JuxtaOffer& o : offers)
            if (isOn(o.key) && std::find(rows.begin(), rows.end(), o.key) == rows.end())
                rows.push_back(o.key);
        rows_ = std::move(rows);
        sheet_->setMarked({});
        read();
        return std::nullopt;
    });
}

void JuxtaPlace::chooseColumns() {
    const std::vector<JuxtaAt> all = allJuxtaColumns();
    const auto isAColumn = [](const std::vector<JuxtaAt>& columns, const JuxtaAt& at) {
        return std::find(columns.begin(), columns.end(), at) != columns.end();
    };
    std::vector<Tickable> boxes;
    for (const JuxtaAt& at : all)
        boxes.push_back({std::string(idOf(at)), say(nameOf(at)), isAColumn(columns_, at)});
    auto* d = new FormDialog(this, "juxta-columns", say("juxta-place.columns-title"),
                             say("juxta-place.columns-hint"));
    const auto ticks = d->ticks("juxta-positions", say("juxta-place.positions-label"), boxes, 3);
    d->openWith([=, this]() -> std::optional<QString> {
        std::vector<JuxtaAt> on, columns;
        for (std::size_t i = 0; i < all.size(); ++i)
            if (ticks[i]->isChecked()) on.push_back(all[i]);
        for (const JuxtaAt& at : columns_)
            if (isAColumn(on, at)) columns.push_back(at);
        for (const JuxtaAt& at : on)
            if (!isAColumn(columns, at)) columns.push_back(at);
        if (columns.empty()) return say("juxta-place.one-at-least");
        columns_ = std::move(columns);
        sheet_->setMarked({});
        read();
        return std::nullopt;
    });
}

/// Changes the athlete as it is now, and lays the sheet out again.
void JuxtaPlace::changeAthlete(const AthleteId& id, const std::function<void(Athlete&)>& change) {
    const auto kept = s_.library.change(id, [&](Athlete& now) -> Status {
        change(now);
        return Done{};
    });
    if (!kept) return foot_->tell(say(kept.error().text), 0);
    read();
}

void JuxtaPlace::nameRow() {
    if (!aCellIsChosen()) return foot_->tell(say("juxta-place.choose-a-cell"));
    const JuxtaEntry entry = sheet_->sheet().rows[sheet_->chosen().first].entry;
    auto* d = new FormDialog(this, "juxta-name", say("juxta-place.name-title"), say("juxta-place.name-hint"));
    auto* name = d->line("baseline-name", say("juxta-place.name-label"), text(entry.baseline),
                         say("juxta-place.name-example"));
    auto* usual = d->tick("baseline-usual", say("juxta-place.name-usual"), entry.baseline.empty());
    d->openWith([this, entry, name, usual]() -> std::optional<QString> {
        const std::string words = name->text().trimmed().toStdString();
        changeAthlete(entry.athlete, [&](Athlete& a) {
            std::erase_if(a.baselines, [&](const Baseline& b) {
                return (b.review == entry.key.review &&
                        (b.delivery == entry.key.delivery || b.delivery == 0)) ||
                       b.name == words;
            });
            if (words.empty()) return;
            const Baseline b{words, entry.key.review, entry.key.delivery};
            a.baselines.insert(usual->isChecked() ? a.baselines.begin() : a.baselines.end(), b);
        });
        return std::nullopt;
    });
}

void JuxtaPlace::overrule() {
    const JuxtaChange* change = sheet_->chosenChange();
    if (!change) return foot_->tell(say("juxta-place.choose-a-number"));
    const std::string measure = change->measure;
    const AthleteId athlete = athlete_;
    if (change->overruled)
        return changeAthlete(athlete, [&](Athlete& a) {
            std::erase_if(a.overruled, [&](const Overruled& o) { return o.measure == measure; });
        });
    if (change->notComparable.empty()) return foot_->tell(say("juxta-place.is-compared"));
    auto* d = new FormDialog(this, "juxta-overrule", say("juxta-place.overrule-title"),
                             say("juxta-place.overrule-hint", {{"why", change->notComparable}}));
    auto* why = d->line("overrule-why", say("juxta-place.overrule-why"), {});
    d->openWith([this, measure, athlete, why]() -> std::optional<QString> {
        const std::string words = why->text().trimmed().toStdString();
        if (words.empty()) return say("juxta-place.overrule-needs-why");
        changeAthlete(athlete, [&](Athlete& a) {
            std::erase_if(a.overruled, [&](const Overruled& o) { return o.measure == measure; });
            a.overruled.push_back({measure, words, s_.clock.today()});
        });
        return std::nullopt;
    });
}

void JuxtaPlace::save() {
    const QString path =
        fileToSave(this, say("juxta-dialog.save"), "juxta.pdf", "PDF, PNG, CSV (*.pdf *.png *.csv)");
    if (!path.isEmpty()) saveTo(path);
}

/// From the exact frames, beside the window.
void JuxtaPlace::saveTo(const QString& path) {
    const std::filesystem::path file = path.toStdString();
    const auto tell = [this, path](const Status& written) {
        foot_->tell(written ? say("juxta-dialog.saved", {{"file", path}}) : say(written.error().text), 10);
    };
    if (const Status may = mayLeave(s_.library, sheet_->sheet(), s_.clock.today()); !may) return tell(may);
    if (file.extension() == ".csv")
        return tell(s_.library.files().write(file, juxtaAsCsv(sheet_->sheet(), s_.playbook)));
    auto other = s_.library.again();
    if (!other) return foot_->tell(say(other.error().text));
    ++reading_;
    foot_->tell(say("juxta-place.saving"), 0);
    new Job(this,
            [this, tell, file, own = std::shared_ptr<Library>(std::move(*other)), sheet = sheet_->sheet(),
             playbook = s_.playbook](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
                const Status written = caught([&]() -> Status {
                    const auto picture = juxtaPicture(*own, sheet, playbook, windowWords(), stop);
                    return picture ? writeJuxta(*picture, file, own->files()) : Status(picture.error());
                });
                return [this, tell, written] {
                    --reading_;
                    tell(written);
                };
            });
}

const Handlers& JuxtaPlace::current() const {
    return pair_ ? pair_->handlers() : curves_ ? curves_->handlers() : handlers_;
}

bool JuxtaPlace::act(const QString& id) {
    return runIn(current(), id);
}

bool JuxtaPlace::knows(const QString& id) const {
    return current().contains(id);
}

Handlers JuxtaPlace::handlers() {
    return {
        {"juxta-up", [this] { sheet_->moveChosen(-1, 0); }},
        {"juxta-down", [this] { sheet_->moveChosen(1, 0); }},
        {"juxta-left", [this] { sheet_->moveChosen(0, -1); }},
        {"juxta-right", [this] { sheet_->moveChosen(0, 1); }},
        {"juxta-row-up", [this] { moveRow(-1); }},
        {"juxta-row-down", [this] { moveRow(1); }},
        {"juxta-column-left", [this] { moveColumn(-1); }},
        {"juxta-column-right", [this] { moveColumn(1); }},
        {"juxta-mark", [this] { markCell(); }},
        {"juxta-open", [this] { openTwo(); }},
        {"juxta-rows", [this] { chooseRows(); }},
        {"juxta-columns", [this] { chooseColumns(); }},
        {"juxta-hide-row", [this] { hideRow(); }},
        {"juxta-hide-column", [this] { hideColumn(); }},
        {"juxta-name", [this] { nameRow(); }},
        {"juxta-overrule", [this] { overrule(); }},
        {"juxta-curves", [this] { openCurves(); }},
        {"juxta-save", [this] { save(); }},
        {"juxta-leave", [this] { s_.home(); }},
    };
}

} // namespace jg::ui
