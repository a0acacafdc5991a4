// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/group/group_place.h"

#include "ui/kit/file_choice.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <array>
#include <numeric>
#include <set>

namespace jg::ui {

namespace {

struct Ages {
    const char* id;
    std::optional<int> from, to;
};
const std::array<Ages, 5> kAges = {{{"group-place.all-ages", {}, {}},
                                    {"group-place.under-12", {}, 11},
                                    {"group-place.12-to-14", 12, 14},
                                    {"group-place.15-to-17", 15, 17},
                                    {"group-place.grown", 18, {}}}};

constexpr std::array<const char*, 7> kColumns = {
    "group-place.athlete", "group-place.last-look", "group-place.owed",   "group-place.approach",
    "group-place.worst",   "group-place.by",        "group-place.protect"};

QComboBox* chooser(const char* name, const QString& label) {
    auto* box = new QComboBox;
    box->setObjectName(name);
    box->setAccessibleName(label);
    box->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    box->setMaximumWidth(em(260));
    return box;
}

} // namespace

GroupPlace::GroupPlace(LibraryReader& reader, Library& library, const Playbook& playbook, QWidget* parent)
    : QWidget(parent)
    , reader_(reader)
    , library_(library)
    , playbook_(playbook) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(34, 26, 34, 12);
    column->setSpacing(12);
    auto* head = new QHBoxLayout;
    head->addWidget(heading(say("place.group"), 28), 1);
    auto* save = plainButton(say("group-place.save"));
    save->setObjectName("group-save");
    connect(save, &QPushButton::clicked, this, &GroupPlace::save);
    head->addWidget(save);
    column->addLayout(head);
    auto* filters = new QHBoxLayout;
    filters->setSpacing(10);
    ages_ = chooser("group-ages", say("group-place.ages"));
    for (const Ages& a : kAges) ages_->addItem(say(a.id));
    approaches_ = chooser("group-approaches", say("group-place.approach"));
    findings_ = chooser("group-findings", say("group-place.finding"));
    protect_ = new QCheckBox(say("group-place.protect-only"));
    for (QComboBox* box : {ages_, approaches_, findings_}) {
        filters->addWidget(box);
        connect(box, &QComboBox::currentIndexChanged, this, &GroupPlace::showRows);
    }
    filters->addWidget(protect_);
    connect(protect_, &QCheckBox::toggled, this, &GroupPlace::showRows);
    filters->addStretch(1);
    column->addLayout(filters);
    summary_ = quiet("", 13);
    column->addWidget(summary_);
    table_ = new QTableWidget(0, static_cast<int>(kColumns.size()));
    table_->setObjectName("group-table");
    table_->setAccessibleName(say("place.group"));
    QStringList heads;
    for (const char* id : kColumns) heads << say(id);
    table_->setHorizontalHeaderLabels(heads);
    table_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Interactive);
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(em(34));
    table_->setShowGrid(false);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setFrameShape(QFrame::NoFrame);
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(table_, &QTableWidget::cellDoubleClicked, this, &GroupPlace::openSelected);
    column->addWidget(table_, 1);
    setFocusProxy(table_);
}

void GroupPlace::show(Date today) {
    unread_ = today;
    if (isVisible()) read();
}

void GroupPlace::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    if (unread_) read();
}

void GroupPlace::read() {
    const Date today = *unread_;
    unread_.reset();
    using Rows = Result<std::vector<GroupRow>>;
    reader_.ask<Rows>(
        "group", [book = playbook_, today](Store& store) { return readGroup(store, book, today); },
        [this](Rows rows) {
            if (!rows) return summary_->setText(say(rows.error().text));
            all_ = std::move(*rows);
            fillChoices();
            showRows();
        });
}

/// What can be filtered by is what is there; a choice that is still there stays.
void GroupPlace::fillChoices() {
    const auto fill = [&](QComboBox* box, const QString& everything, const std::set<std::string>& ids,
                          auto nameOf) {
        const QSignalBlocker quietly(box);
        const QVariant was = box->currentData();
        box->clear();
        box->addItem(everything, QString());
        for (const std::string& id : ids) box->addItem(text(nameOf(id)), text(id));
        box->setCurrentIndex(std::max(0, box->findData(was)));
    };
    std::set<std::string> approaches, findings;
    for (const GroupRow& r : all_) {
        if (!r.approach.empty()) approaches.insert(r.approach);
        findings.insert(r.findings.begin(), r.findings.end());
    }
    fill(approaches_, say("group-place.all-approaches"), approaches, [&](const std::string& id) {
        const Approach* a = playbook_.approach(id);
        return a ? a->name : id;
    });
    fill(findings_, say("group-place.all-findings"), findings,
         [&](const std::string& id) { return playbook_.nameOfFinding(id); });
}

GroupFilter GroupPlace::filter() const {
    const Ages& ages = kAges.at(static_cast<std::size_t>(std::max(0, ages_->currentIndex())));
    return {ages.from, ages.to, approaches_->currentData().toString().toStdString(),
            findings_->currentData().toString().toStdString(), protect_->isChecked()};
}

void GroupPlace::showRows() {
    shown_ = filtered(all_, filter());
    const int chosen = std::max(0, table_->currentRow());
    table_->setRowCount(static_cast<int>(shown_.size()));
    for (int i = 0; i < static_cast<int>(shown_.size()); ++i) {
        const GroupRow& r = shown_[static_cast<std::size_t>(i)];
        const Approach* approach = playbook_.approach(r.approach);
        std::vector<Message> protect;
        for (const std::string& id : r.protect) protect.push_back(asIs(playbook_.nameOfFinding(id)));
        const Message owed = r.owed == 0 ? msg("group-place.nothing")
                             : r.nextDue
                                 ? msg("group-place.owed-by", {{"count", r.owed}, {"date", *r.nextDue}})
                                 : msg("group-place.owed-no-day", {{"count", r.owed}});
        const std::array<Message, kColumns.size()> cells = {
            msg("group-place.who", {{"name", r.athlete.fullName()}, {"age", r.age}}),
            r.lastLook ? day(*r.lastLook, DateStyle::Year) : msg("group-place.never"),
            owed,
            asIs(approach ? approach->name : r.approach),
            r.worst.empty() ? msg("group-place.nothing") : asIs(playbook_.nameOfFinding(r.worst)),
            r.worstInErrors > 0 ? msg("group-place.times", {{"times", Decimal{r.worstInErrors, 1}}})
                                : msg("group-place.nothing"),
            protect.empty() ? msg("group-place.nothing") : joined(ListStyle::Commas, protect)};
        for (int c = 0; c < static_cast<int>(cells.size()); ++c) {
            auto* item = new QTableWidgetItem(say(cells[static_cast<std::size_t>(c)]));
            item->setToolTip(item->text());
            if (c == 0) item->setFont(labelFont(13, true));
            table_->setItem(i, c, item);
        }
    }
    table_->resizeColumnsToContents();
    wanted_.clear();
    for (int c = 0; c < table_->columnCount(); ++c) wanted_.push_back(table_->columnWidth(c) + em(18));
    spreadColumns();
    summary_->setText(say("group-place.summary", {{"shown", shown_.size()}, {"all", all_.size()}}));
    if (!shown_.empty()) table_->selectRow(std::min(chosen, static_cast<int>(shown_.size()) - 1));
}

/// Where there is room, words are not cut and what is left is shared out; else the widest column gives way.
void GroupPlace::spreadColumns() {
    if (wanted_.empty()) return;
    std::vector<int> widths = wanted_;
    const int room = table_->viewport()->width();
    int left = room - std::accumulate(widths.begin(), widths.end(), 0);
    for (; left < 0; ++left) --*std::max_element(widths.begin(), widths.end());
    const int each = left / static_cast<int>(widths.size());
    for (std::size_t c = 0; c < widths.size(); ++c)
        table_->setColumnWidth(static_cast<int>(c), widths[c] + each);
}

void GroupPlace::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    spreadColumns();
}

void GroupPlace::moveSelection(int by) {
    if (!shown_.empty())
        table_->selectRow(std::clamp(table_->currentRow() + by, 0, static_cast<int>(shown_.size()) - 1));
}

std::optional<AthleteId> GroupPlace::athleteOfSelected() const {
    const int row = table_->currentRow();
    if (row < 0 || row >= static_cast<int>(shown_.size())) return std::nullopt;
    return shown_[static_cast<std::size_t>(row)].athlete.id;
}

void GroupPlace::openSelected() {
    if (const auto athlete = athleteOfSelected()) Q_EMIT open(*athlete);
}

/// What leaves the house has no names unless they are asked for.
void GroupPlace::save() {
    auto* d =
        new FormDialog(this, "group-save-form", say("group-place.save-title"), say("group-place.save-hint"));
    auto* names = d->tick("group-names", say("group-place.with-names"), false);
    d->does(say("group-place.save"));
    d->openWith([this, names]() -> std::optional<QString> {
        const QString path = fileToSave(this, say("group-place.save"), "group.csv", "CSV (*.csv)");
        if (path.isEmpty()) return std::nullopt;
        const Status written =
            library_.files().write(path.toStdString(), groupAsCsv(shown_, playbook_, names->isChecked()));
        Q_EMIT tell(written ? say("juxta-dialog.saved", {{"file", path}}) : say(written.error().text));
        return std::nullopt;
    });
}

} // namespace jg::ui
