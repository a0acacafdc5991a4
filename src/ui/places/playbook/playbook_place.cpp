// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/playbook/playbook_place.h"

#include "base/clock.h"
#include "coaching/approach_rows.h"
#include "coaching/claims.h"
#include "coaching/compare.h"
#include "coaching/teaching.h"
#include "coaching/typed_target.h"
#include "desk/own/own_approaches.h"
#include "desk/session/begin_judging.h"
#include "kinematics/answers.h"
#include "ui/forms/row_editors.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/row_list.h"
#include "ui/kit/theme.h"
#include "ui/places/playbook/approach_table.h"
#include "ui/places/playbook/row_picker.h"

#include <QFileDialog>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace jg::ui {

PlaybookPlace::PlaybookPlace(Library& library, Playbook& playbook, const Clock& clock, IdSource& ids,
                             QWidget* parent)
    : QWidget(parent)
    , library_(library)
    , playbook_(playbook)
    , clock_(clock)
    , ids_(ids) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(34, 26, 34, 12);
    column->addWidget(heading(say("playbook-place.playbook"), 28));
    column->addWidget(quiet(say("playbook-place.what-it-is"), 13));
    auto* halves = new QHBoxLayout;
    halves->setSpacing(26);
    list_ = new RowList;
    list_->setObjectName("approaches");
    list_->setAccessibleName(say("playbook-place.approaches"));
    constexpr int kList = 230, kMostList = 260;
    list_->setFixedWidth(std::min(em(kList), kMostList));
    connect(list_, &RowList::selected, this, [this](int row) {
        if (row >= 0 && row < static_cast<int>(playbook_.approaches.size()))
            choose(playbook_.approaches[static_cast<std::size_t>(row)].id);
    });
    halves->addWidget(list_);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    page_ = new QVBoxLayout(inner);
    page_->setContentsMargins(0, 8, 10, 12);
    page_->setSpacing(6);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    halves->addWidget(scroll, 1);
    column->addLayout(halves, 1);
    refresh();
}

const Approach* PlaybookPlace::chosen() const {
    return playbook_.approach(chosen_);
}

void PlaybookPlace::refresh() {
    if (!chosen()) chosen_ = kUsualApproach;
    if (!chosen() && !playbook_.approaches.empty()) chosen_ = playbook_.approaches.front().id;
    std::vector<ListRow> rows;
    int at = 0;
    for (const Approach& a : playbook_.approaches) {
        ListRow row;
        row.title = text(a.name);
        row.sub = say(isOwnApproach(a) ? "playbook-place.own-ages" : "playbook-place.ages",
                      {{"from", a.ageFrom}, {"to", a.ageTo}});
        if (a.id == chosen_) at = static_cast<int>(rows.size());
        rows.push_back(std::move(row));
    }
    list_->setRows(std::move(rows));
    list_->setCurrent(at);
    showChosen();
}

void PlaybookPlace::choose(const std::string& id) {
    if (id == chosen_) return;
    chosen_ = id;
    showChosen();
}

void PlaybookPlace::moveSelection(int by) {
    list_->move(by);
}

void PlaybookPlace::showChosen() {
    clearLayout(*page_);
    const Approach* a = chosen();
    if (!a) return;
    addHead(*a);
    addDoors(*a);
    addTargets(*a);
    addItems(*a);
    addCauses(*a);
    addEditions(*a);
    addDrills();
    addRowEditions();
    page_->addStretch(1);
}

void PlaybookPlace::addHead(const Approach& a) {
    page_->addWidget(heading(text(a.name), 20));
    page_->addWidget(
        quiet(say("playbook-place.edition-and-ages",
                  {{"version", a.version}, {"from", a.ageFrom}, {"to", a.ageTo}, {"about", a.about}}),
              13));
    std::vector<Message> school;
    if (!a.power.empty()) school.push_back(msg("playbook-place.power-from", {{"power", a.power}}));
    if (a.teaching != Teaching::ByWeight)
        school.push_back(msg("playbook-place.taught", {{"order", nameOf(a.teaching)}}));
    if (!school.empty()) page_->addWidget(quiet(say(joined(ListStyle::Sentences, std::move(school))), 13));
    if (!a.basedOn.empty())
        page_->addWidget(quiet(say("playbook-place.based-on", {{"what", a.basedOn}}), 12.5));
}

void PlaybookPlace::door(QHBoxLayout& row, const QString& text, const char* name,
                         const std::function<void()>& then) {
    auto* b = plainButton(text);
    b->setObjectName(name);
    connect(b, &QPushButton::clicked, this, then);
    row.addWidget(b);
}

void PlaybookPlace::addDoors(const Approach& a) {
    QHBoxLayout* row = doorRow();
    door(*row, say("playbook-place.copy"), "copy", [this] { copy(); });
    door(*row, say("playbook-place.new-focus"), "new-focus", [this] { newFocus(); });
    door(*row, say("playbook-place.compare"), "compare", [this] { compareWith(); });
    row = doorRow();
    door(*row, say("playbook-place.to-a-file"), "export", [this] { exportFile(); });
    door(*row, say("playbook-place.from-a-file"), "import", [this] { importFile(); });
    if (!isOwnApproach(a)) return;
    row = doorRow();
    door(*row, say("playbook-place.rename"), "rename", [this] { rename(say("playbook-place.rename")); });
    door(*row, say("playbook-place.change-ages"), "ages", [this] { askAges(); });
    door(*row, say("playbook-place.teaching"), "teaching", [this] { askTeaching(); });
    door(*row, say("playbook-place.remove"), "remove", [this] { removeChosen(); });
    row = doorRow();
    door(*row, say("playbook-place.add-a-row"), "add-row", [this] { addRow(); });
    door(*row, say("playbook-place.lenient"), "lenient", [this] { chooseLenient(); });
}

/// A line of doors on the page, from the left.
QHBoxLayout* PlaybookPlace::doorRow() {
    auto* holder = new QWidget;
    auto* row = new QHBoxLayout;
    row->setContentsMargins(0, 4, 0, 4);
    row->setSpacing(8);
    auto* line = new QHBoxLayout(holder);
    line->setContentsMargins(0, 0, 0, 0);
    line->addLayout(row);
    line->addStretch(1);
    page_->addWidget(holder);
    return row;
}

void PlaybookPlace::addTitle(QWidget* title, const QString& newRow, const char* name,
                             const std::function<void()>& then) {
    page_->addSpacing(8);
    auto* holder = new QWidget;
    auto* row = new QHBoxLayout(holder);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(title, 1);
    auto* b = plainButton(newRow);
    b->setObjectName(name);
    connect(b, &QPushButton::clicked, this, then);
    row->addWidget(b);
    page_->addWidget(holder);
    page_->addWidget(rule());
}

template <typename Row>
void PlaybookPlace::edit(const Row& row, const std::function<void(const std::string&)>& then) {
    editRow(this, {library_, playbook_, ids_, clock_.today()}, PlaybookRow(row),
            [this, then](const Status& done, const std::string& key) {
                if (!done) return Q_EMIT tell(say(done.error().text));
                if (then) then(key);
                refresh();
                Q_EMIT changed();
            });
}

/// Kept and, in an approach of the coach's own, asked at once.
void PlaybookPlace::newItem() {
    edit(GradedItem{}, [this](const std::string& key) {
        if (chosen() && isOwnApproach(*chosen())) change([&](Approach& a) { a.graded.push_back(key); });
    });
}

void PlaybookPlace::addTargets(const Approach& a) {
    if (a.targets.empty()) return;
    page_->addSpacing(4);
    page_->addWidget(plain(say("playbook-place.targets"), 13.5, true));
    page_->addWidget(rule());
    for (const Target& t : a.targets) {
        const MeasureDefinition* m = playbook_.measure(t.measure);
        ApproachRow row{
            text(m->name), text(t.why.empty() ? m->formula : t.why), say(askedInWords(&t)), {}, {}};
        if (isOwnApproach(a)) {
            row.change = [this, id = t.measure] { askTarget(id); };
            row.leaveOut = [this, id = t.measure] { leaveOut(id); };
        }
        page_->addWidget(approachRow(row));
    }
}

namespace {

/// A sentence of the playbook, marked where it claims what no video can show.
QString withClaim(const std::string& sentence) {
    const std::string claim = claimIn(sentence);
    return claim.empty() ? text(sentence)
                         : say("playbook-place.claim", {{"sentence", sentence}, {"claim", claim}});
}

} // namespace

void PlaybookPlace::addItems(const Approach& a) {
    addTitle(plain(say("playbook-place.graded-items"), 13.5, true), say("playbook-place.new-item"),
             "new-item", [this] { newItem(); });
    for (const std::string& id : a.graded) {
        const GradedItem* i = playbook_.item(id);
        ApproachRow row{
            text(i->name),
            say("playbook-place.item", {{"coach", withClaim(i->coach).toStdString()}, {"fault", i->fault}}),
            say(info(i->position).shortly()),
            {},
            {}};
        row.change = [this, item = *i] { edit(item); };
        if (isOwnApproach(a)) row.leaveOut = [this, id] { leaveOut(id); };
        page_->addWidget(approachRow(row));
    }
}

/// The opinions that join two rows of this approach.
void PlaybookPlace::addCauses(const Approach& a) {
    addTitle(plain(say("playbook-place.causes"), 13.5, true), say("playbook-place.new-cause"), "new-cause",
             [this] { edit(Cause{}); });
    for (const Cause& c : playbook_.causes) {
        if (!asksFor(a, c.from) || !asksFor(a, c.to)) continue;
        page_->addWidget(approachRow({say("playbook-place.cause", {{"from", playbook_.nameOfFinding(c.from)},
                                                                   {"to", playbook_.nameOfFinding(c.to)}}),
                                      withClaim(c.why),
                                      text(c.says),
                                      [this, c] { edit(c); },
                                      {}}));
    }
}

void PlaybookPlace::addEditions(const Approach& a) {
    const auto editions = editionsOf(library_, a.id);
    if (!editions || editions->size() < 2) return;
    page_->addSpacing(8);
    page_->addWidget(plain(say("playbook-place.editions"), 13.5, true));
    page_->addWidget(rule());
    for (std::size_t i = editions->size() - 1; i > 0; --i) {
        const auto changes = changesOf(playbook_, (*editions)[i - 1], (*editions)[i]);
        page_->addWidget(approachRow({say("playbook-place.edition", {{"version", (*editions)[i].version}}),
                                      say(joined(ListStyle::Sentences, changes)),
                                      {},
                                      {},
                                      {}}));
    }
}

namespace {

QString nameInWords(const Playbook& playbook, const PlaybookRow& row) {
    if (const auto* c = std::get_if<Cause>(&row))
        return say("playbook-place.cause",
                   {{"from", playbook.nameOfFinding(c->from)}, {"to", playbook.nameOfFinding(c->to)}});
    return text(nameOf(row));
}

} // namespace

/// Items, causes and drills that the coach wrote or changed, the newest edition first, and what it changed.
void PlaybookPlace::addRowEditions() {
    const auto own = ownRows(library_);
    if (!own || own->empty()) return;
    page_->addSpacing(8);
    page_->addWidget(heading(say("playbook-place.your-own-rows"), 20));
    page_->addWidget(rule());
    for (auto e = own->rbegin(); e != own->rend(); ++e) {
        const auto before =
            std::find_if(std::next(e), own->rend(), [&](const RowEdition& b) { return b.key == e->key; });
        std::vector<Message> fields;
        if (before != own->rend())
            for (const std::string& field : changedFields(before->row, e->row))
                fields.push_back(msg("row-field." + field));
        const Message what = fields.empty() ? msg("playbook-place.first-written")
                                            : msg("playbook-place.changed-fields",
                                                  {{"fields", joined(ListStyle::And, std::move(fields))}});
        page_->addWidget(
            approachRow({nameInWords(playbook_, e->row),
                         say(what),
                         say("playbook-place.row-edition", {{"edition", e->edition}, {"date", e->on}}),
                         {},
                         {}}));
    }
}

void PlaybookPlace::addDrills() {
    addTitle(heading(say("playbook-place.drills"), 20), say("playbook-place.new-drill"), "new-drill",
             [this] { edit(Drill{}); });
    for (const Drill& d : playbook_.drills) {
        std::vector<Message> words{msg(d.ball ? "playbook-place.drill-ball" : "playbook-place.drill-no-ball",
                                       {{"how", d.how}, {"age", d.ageFrom}})};
        if (!d.notFor.empty()) words.push_back(msg("playbook-place.not-for", {{"whom", d.notFor}}));
        page_->addWidget(
            approachRow({text(d.name),
                         say(joined(ListStyle::Sentences, std::move(words))),
                         say("playbook-place.dose", {{"dose", wordsOf(d.dose)}, {"days", d.dose.days}}),
                         [this, d] { edit(d); },
                         {}}));
    }
}

void PlaybookPlace::change(const std::function<void(Approach&)>& how) {
    if (!chosen()) return;
    Approach next = *chosen();
    how(next);
    if (next == *chosen()) return;
    if (const Status kept = keepApproach(library_, playbook_, std::move(next)); !kept)
        return Q_EMIT tell(say(kept.error().text));
    refresh();
    Q_EMIT changed();
}

void PlaybookPlace::copy() {
    const auto id = copyApproach(library_, playbook_, chosen_, ids_, windowWords());
    if (!id) return Q_EMIT tell(say(id.error().text));
    chosen_ = *id;
    refresh();
    Q_EMIT changed();
    rename(say("playbook-place.name-of-copy"));
}

namespace {

/// All rows of an approach to tick, those of `on` ticked.
std::vector<Tickable> rowsOf(const Playbook& playbook, const Approach& a,
                             const std::vector<std::string>& on) {
    std::vector<Tickable> rows;
    const auto add = [&](const std::string& id) {
        rows.push_back({id, text(playbook.nameOfFinding(id)), isAmong(on, id)});
    };
    for (const Target& t : a.targets) add(t.measure);
    for (const std::string& id : a.graded) add(id);
    return rows;
}

} // namespace

void PlaybookPlace::newFocus() {
    if (!chosen()) return;
    auto* form = new FormDialog(this, "new-focus", say("playbook-place.new-focus"),
                                say("playbook-place.new-focus-hint", {{"name", chosen()->name}}));
    auto* name = form->line("focus-name", say("playbook-place.focus-name"), {});
    const auto rows =
        form->list("focus-rows", say("playbook-place.focus-rows"), rowsOf(playbook_, *chosen(), {}));
    form->openWith([this, name, rows]() -> std::optional<QString> {
        const FocusCard focus{{}, name->text().trimmed().toStdString(), rows(), {}};
        const auto id = keepFocus(library_, playbook_, chosen_, focus, ids_);
        if (!id) return say(id.error().text);
        chosen_ = *id;
        refresh();
        Q_EMIT changed();
        return std::nullopt;
    });
}

void PlaybookPlace::chooseLenient() {
    if (!chosen()) return;
    auto* form = new FormDialog(this, "lenient-rows", say("playbook-place.lenient"),
                                say("playbook-place.lenient-hint"));
    const auto rows = form->list("lenient-list", say("playbook-place.lenient-rows"),
                                 rowsOf(playbook_, *chosen(), chosen()->lenient));
    form->openWith([this, rows]() -> std::optional<QString> {
        change([&](Approach& a) { a.lenient = rows(); });
        return std::nullopt;
    });
}

void PlaybookPlace::askTeaching() {
    if (!chosen()) return;
    auto* form = new FormDialog(this, "teaching-order", say("playbook-place.teaching"),
                                say("playbook-place.teaching-hint"));
    QStringList orders;
    for (const Teaching t : allTeachings()) orders << say(nameOf(t));
    auto* order =
        form->choice("order", say("playbook-place.order"), orders, static_cast<int>(chosen()->teaching));
    auto* power = form->line("power", say("playbook-place.power"), text(chosen()->power));
    form->openWith([this, order, power]() -> std::optional<QString> {
        change([&](Approach& a) {
            a.teaching = allTeachings()[static_cast<std::size_t>(order->currentIndex())];
            a.power = power->text().trimmed().toStdString();
        });
        return std::nullopt;
    });
}

void PlaybookPlace::rename(const QString& title) {
    askChoice(this, {"rename", title, text(chosen()->name), {}, say("playbook-place.a-name")},
              [this](const ChoiceAnswer& answer) {
                  change([&](Approach& a) { a.name = answer.words.toStdString(); });
              });
}

void PlaybookPlace::askAges() {
    askChoice(this,
              {"ages",
               say("playbook-place.change-ages"),
               say("playbook-place.ages", {{"from", chosen()->ageFrom}, {"to", chosen()->ageTo}}),
               {},
               say("playbook-place.two-ages")},
              [this](const ChoiceAnswer& answer) {
                  const QStringList two = answer.words.split('-');
                  bool first = false, second = false;
                  const int from = two.value(0).trimmed().toInt(&first),
                            to = two.value(1).trimmed().toInt(&second);
                  if (two.size() != 2 || !first || !second || from < 0 || to > 99 || from > to)
                      return Q_EMIT tell(say("playbook-place.ages-how"));
                  change([&](Approach& a) { a.ageFrom = from, a.ageTo = to; });
              });
}

void PlaybookPlace::addRow() {
    pickRow(this, playbook_, *chosen(), [this](const std::string& id) {
        if (playbook_.measure(id)) return askTarget(id);
        change([&](Approach& a) { a.graded.push_back(id); });
    });
}

void PlaybookPlace::setTarget(const Target& t) {
    change([&](Approach& a) { exchangeTarget(a, t.measure, t); });
}

void PlaybookPlace::askTarget(const std::string& id) {
    const MeasureDefinition& m = *playbook_.measure(id);
    const Target* asked = chosen()->targetOf(id);
    editTarget(this, m, asked ? *asked : recordOf(m, playbook_.lengths),
               [this](const Target& t) { setTarget(t); });
}

void PlaybookPlace::leaveOut(const std::string& row) {
    change([&](Approach& a) {
        std::erase_if(a.targets, [&](const Target& t) { return t.measure == row; });
        std::erase(a.graded, row);
        std::erase(a.lenient, row);
    });
}

void PlaybookPlace::compareWith() {
    QStringList options;
    std::vector<std::string> ids;
    for (const Approach& a : playbook_.approaches)
        if (a.id != chosen_) {
            options << text(a.name);
            ids.push_back(a.id);
        }
    askChoice(this,
              {"compare-with", say("judge-questions.compare-with-which"), text(chosen()->name), options, ""},
              [this, ids](const ChoiceAnswer& answer) {
                  const Approach* other = playbook_.approach(ids[*answer.option]);
                  if (chosen() && other) showApproaches(this, playbook_, *chosen(), *other);
              });
}

void PlaybookPlace::exportFile() {
    if (!mayShowFiles(this)) return;
    auto* dialog = new QFileDialog(this, say("playbook-place.to-a-file"), {}, "JSON (*.json)");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setAcceptMode(QFileDialog::AcceptSave);
    dialog->selectFile(text(chosen_) + ".json");
    connect(dialog, &QFileDialog::fileSelected, this, [this](const QString& path) {
        if (!chosen()) return;
        const auto file = approachFile(library_, playbook_, *chosen());
        if (!file) return Q_EMIT tell(say(file.error().text));
        const Status written = library_.files().write(path.toStdString(), *file);
        Q_EMIT tell(written ? say("playbook-place.written", {{"file", path.toStdString()}})
                            : say(written.error().text));
    });
    dialog->open();
}

void PlaybookPlace::importFile() {
    if (!mayShowFiles(this)) return;
    auto* dialog = new QFileDialog(this, say("playbook-place.from-a-file"), {}, "JSON (*.json)");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::ExistingFile);
    connect(dialog, &QFileDialog::fileSelected, this, &PlaybookPlace::readIn);
    dialog->open();
}

void PlaybookPlace::readIn(const QString& path) {
    const auto bytes = readFile(path.toStdString());
    if (!bytes) return Q_EMIT tell(say(bytes.error().text));
    const auto id = importApproach(library_, playbook_, *bytes, clock_.today(), ids_);
    if (!id) return Q_EMIT tell(say(id.error().text));
    chosen_ = *id;
    refresh();
    Q_EMIT changed();
}

void PlaybookPlace::removeChosen() {
    askChoice(this,
              {"remove",
               say("playbook-place.remove-it", {{"name", chosen()->name}}),
               say("playbook-place.reviews-keep-theirs"),
               {say("playbook-place.keep-it"), say("playbook-place.yes-remove")},
               ""},
              [this](const ChoiceAnswer& answer) {
                  if (*answer.option != 1) return;
                  if (const Status gone = removeApproach(library_, playbook_, chosen_); !gone)
                      return Q_EMIT tell(say(gone.error().text));
                  chosen_.clear();
                  refresh();
                  Q_EMIT changed();
              });
}

} // namespace jg::ui
