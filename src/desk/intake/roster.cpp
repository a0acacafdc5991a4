// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/intake/roster.h"

#include "base/letters.h"
#include "desk/intake/guardian_check.h"
#include "kinematics/scale.h"
#include "review/record/people_check.h"

#include <QStringDecoder>
#include <csv.h>

#include <algorithm>
#include <array>
#include <map>

namespace jg {

namespace fs = std::filesystem;

namespace {

constexpr std::uintmax_t kMostBytes = 4 << 20;
constexpr std::size_t kMostRows = 10000;

using TableRow = std::vector<std::string>;

/// The columns that are known, each with the names it may have.
enum class Column { First, Last, Born, Hand, Height, Level, Mail, Guardian, GuardianMail, Language };
const std::pair<Column, std::array<const char*, 4>> kColumns[] = {
    {Column::First, {"first name", "first", "name", "given name"}},
    {Column::Last, {"last name", "last", "surname", "family name"}},
    {Column::Born, {"born", "date of birth", "birth date", "birthday"}},
    {Column::Hand, {"throws", "hand", "throwing hand", "throws with"}},
    {Column::Height, {"height", "tall", "height (cm)", "body height"}},
    {Column::Level, {"level", "team", "group", "class"}},
    {Column::Mail, {"mail", "email", "e-mail", "address"}},
    {Column::Guardian, {"guardian", "guardian name", "parent", "parent name"}},
    {Column::GuardianMail, {"guardian mail", "guardian email", "parent mail", "parent email"}},
    {Column::Language, {"language", "letters in", "reads", "speaks"}}};

std::optional<Column> columnCalled(const std::string& name) {
    for (const auto& [column, names] : kColumns)
        for (const char* known : names)
            if (lowered(name) == known) return column;
    return std::nullopt;
}

struct Table {
    std::vector<TableRow> rows;
    TableRow row;
};

void addField(void* text, std::size_t length, void* table) {
    static_cast<Table*>(table)->row.emplace_back(trimmed({static_cast<const char*>(text), length}));
}

void addRow(int, void* table) {
    auto* t = static_cast<Table*>(table);
    t->rows.push_back(std::move(t->row));
    t->row.clear();
}

/// A table that a spreadsheet of a country with decimal commas writes has semicolons.
char separatorOf(const std::string& text) {
    const std::string head = text.substr(0, text.find('\n'));
    return std::count(head.begin(), head.end(), ';') > std::count(head.begin(), head.end(), ',') ? ';' : ',';
}

Result<std::vector<TableRow>> parse(const std::string& text) {
    Table table;
    csv_parser parser{};
    if (csv_init(&parser, CSV_STRICT | CSV_STRICT_FINI) != 0)
        return fail(ErrorCode::Internal, msg("scrub-copy.there-is-no-memory-left"));
    csv_set_delim(&parser, static_cast<unsigned char>(separatorOf(text)));
    const bool whole =
        csv_parse(&parser, text.data(), text.size(), addField, addRow, &table) == text.size() &&
        csv_fini(&parser, addField, addRow, &table) == 0;
    csv_free(&parser);
    if (!whole) return fail(ErrorCode::BadInput, msg("roster.broken", {{"line", table.rows.size() + 1}}));
    return std::move(table.rows);
}

Result<std::string> readTable(const fs::path& file) {
    std::error_code ec;
    if (!fs::is_regular_file(file, ec))
        return fail(ErrorCode::NotFound, msg("roster.no-file", {{"file", file.string()}}));
    if (fs::file_size(file, ec) > kMostBytes)
        return fail(ErrorCode::BadInput, msg("roster.too-large", {{"file", file.filename().string()}}));
    auto bytes = readFile(file);
    if (!bytes) return bytes.error();
    std::string text = std::move(*bytes);
    if (text.starts_with("\xEF\xBB\xBF")) text.erase(0, 3);
    QStringDecoder decoder(QStringDecoder::Utf8);
    const QString read = decoder(QByteArrayView(text.data(), static_cast<qsizetype>(text.size())));
    if (decoder.hasError() || read.contains(QChar(0)))
        return fail(ErrorCode::BadInput, msg("roster.no-text", {{"file", file.filename().string()}}));
    return text;
}

std::optional<Hand> handFromWords(const std::string& words) {
    const std::string word = lowered(words);
    if (word == "r" || word == "right" || word == "right-handed") return Hand::Right;
    if (word == "l" || word == "left" || word == "left-handed") return Hand::Left;
    return std::nullopt;
}

/// Own names of the languages count, too.
std::optional<Language> languageFromWords(const std::string& words) {
    const std::string word = lowered(words);
    if (word == "english") return Language::English;
    if (word == "spanish" || word == "espanol" || words == "Español" || words == "español")
        return Language::Spanish;
    return languageFromId(word);
}

/// One row put onto an athlete; what is empty stays.
class RowReader {
public:
    RowReader(const TableRow& row, const std::map<Column, std::size_t>& places)
        : row_(row)
        , places_(places) {}

    std::string at(Column column) const {
        const auto it = places_.find(column);
        return it == places_.end() || it->second >= row_.size() ? std::string() : row_[it->second];
    }
    std::string who() const {
        const std::string last = at(Column::Last);
        return last.empty() ? at(Column::First) : at(Column::First) + " " + last;
    }

    /// Errors: BadInput, in a sentence.
    Status put(Athlete& a, Date today) const {
        const auto keep = [&](Column column, std::string& field) {
            if (const std::string words = at(column); !words.empty()) field = words;
        };
        keep(Column::First, a.firstName);
        keep(Column::Last, a.lastName);
        keep(Column::Level, a.level);
        keep(Column::Mail, a.email);
        keep(Column::Guardian, a.guardianName);
        keep(Column::GuardianMail, a.guardianEmail);
        if (const std::string words = at(Column::Hand); !words.empty()) {
            const auto hand = handFromWords(words);
            if (!hand) return fail(ErrorCode::BadInput, msg("roster.hand", {{"words", words}}));
            a.hand = *hand;
        }
        if (const std::string words = at(Column::Language); !words.empty()) {
            const auto language = languageFromWords(words);
            if (!language) return fail(ErrorCode::BadInput, msg("roster.language", {{"words", words}}));
            a.language = *language;
        }
        if (auto read = putHeight(a, today); !read) return read;
        return checkAthlete(a, today);
    }

private:
    Status putHeight(Athlete& a, Date today) const {
        const std::string words = at(Column::Height);
        if (words.empty()) return Done{};
        auto height = metresFromWords(words);
        if (!height) height = metresFromWords(words + " cm"); // a column of bare numbers
        if (!height) return fail(ErrorCode::BadInput, msg("athlete-form.no-height", {{"height", words}}));
        if (a.heightM != height) a.heights.push_back({today, *height});
        a.heightM = height;
        return Done{};
    }

    const TableRow& row_;
    const std::map<Column, std::size_t>& places_;
};

Result<std::map<Column, std::size_t>> placesIn(const TableRow& head) {
    std::map<Column, std::size_t> places;
    for (std::size_t i = 0; i < head.size(); ++i)
        if (const auto column = columnCalled(head[i])) {
            if (places.contains(*column))
                return fail(ErrorCode::BadInput, msg("roster.column-twice", {{"column", head[i]}}));
            places[*column] = i;
        }
    for (const auto& [column, words] : {std::pair{Column::First, "first name"}, {Column::Born, "born"}})
        if (!places.contains(column))
            return fail(ErrorCode::BadInput, msg("roster.no-column", {{"column", words}}));
    return places;
}

/// A name by what it looks like: composed or not, in any case, its spaces alike.
QString lookOf(const std::string& name) {
    return QString::fromStdString(name).normalized(QString::NormalizationForm_KC).simplified().toCaseFolded();
}

bool sameName(const Athlete& a, const std::string& first, const std::string& last) {
    return lookOf(a.firstName) == lookOf(first) && lookOf(a.lastName) == lookOf(last);
}

/// What differs between two states of one athlete, by the fields a roster has.
Message changesBetween(const Athlete& was, const Athlete& is) {
    std::vector<Message> changes;
    const auto differ = [&](const char* field, const std::string& before, const std::string& now) {
        if (before != now) changes.push_back(msg(field, {{"now", now}}));
    };
    differ("roster.level", was.level, is.level);
    differ("roster.mail", was.email, is.email);
    differ("roster.guardian", was.guardianName, is.guardianName);
    differ("roster.guardian-mail", was.guardianEmail, is.guardianEmail);
    if (was.hand != is.hand) changes.push_back(msg("roster.throws", {{"hand", nameOf(is.hand)}}));
    if (was.language != is.language)
        changes.push_back(msg("roster.letters-in", {{"language", nameOf(is.language)}}));
    if (was.heightM != is.heightM)
        changes.push_back(msg("roster.height", {{"cm", std::lround(is.heightM.value_or(0) * 100)}}));
    return joined(ListStyle::Commas, std::move(changes));
}

RosterRow compared(const RowReader& read, const std::vector<Athlete>& known, Date today, IdSource& ids) {
    RosterRow row;
    row.who = read.who();
    const auto refuse = [&](Message why) {
        row.kind = RosterKind::Refused;
        row.words = std::move(why);
        return row;
    };
    const auto born = dateFromWords(read.at(Column::Born));
    if (!born) return refuse(msg("athlete-form.born-unclear", {{"born", read.at(Column::Born)}}));
    const auto named = [&](const Athlete& a) {
        return sameName(a, read.at(Column::First), read.at(Column::Last));
    };
    const auto same = std::find_if(known.begin(), known.end(),
                                   [&](const Athlete& a) { return named(a) && a.born == *born; });
    if (same == known.end())
        if (const auto other = std::find_if(known.begin(), known.end(), named); other != known.end())
            return refuse(msg("roster.other-birth", {{"name", other->fullName()},
                                                     {"born", WrittenDate{other->born, DateStyle::Year}}}));
    if (same != known.end()) row.athlete = row.shown = *same;
    row.athlete.born = *born;
    if (auto put = read.put(row.athlete, today); !put) return refuse(put.error().text);
    if (same == known.end()) {
        row.athlete.id = ids.next<AthleteTag>("ath");
        return row;
    }
    row.words = changesBetween(*same, row.athlete);
    row.kind = row.words.empty() ? RosterKind::Same : RosterKind::Changed;
    if (row.kind == RosterKind::Same) row.athlete = *same;
    return row;
}

void refuse(RosterRow& row, Message why) {
    row.kind = RosterKind::Refused;
    row.words = std::move(why);
}

/// An address that one row gives to a child is no guardian's in another.
void refuseChildrenAsGuardians(std::vector<RosterRow>& rows, Date today) {
    std::map<std::string, std::string> children;
    for (const RosterRow& r : rows)
        if (r.kind != RosterKind::Refused && r.athlete.isMinorOn(today) && !r.athlete.email.empty())
            children.emplace(lowered(r.athlete.email), r.who);
    for (RosterRow& r : rows) {
        const auto child = children.find(lowered(r.athlete.guardianEmail));
        if (r.kind != RosterKind::Refused && child != children.end() && child->second != r.who)
            refuse(r, msg("guardian-check.another-child",
                          {{"address", r.athlete.guardianEmail}, {"name", child->second}}));
    }
}

} // namespace

std::string_view idOf(RosterKind kind) {
    constexpr std::string_view ids[] = {"new", "changed", "same", "refused"};
    return ids[static_cast<std::size_t>(kind)];
}

Result<std::vector<RosterRow>> readRoster(Store& store, const fs::path& file, Date today) {
    auto text = readTable(file);
    if (!text) return text.error();
    auto table = parse(*text);
    if (!table) return table.error();
    std::erase_if(*table, [](const TableRow& r) {
        return std::all_of(r.begin(), r.end(), [](const std::string& f) { return f.empty(); });
    });
    if (table->size() < 2) return fail(ErrorCode::BadInput, msg("roster.empty"));
    if (table->size() > kMostRows)
        return fail(ErrorCode::BadInput, msg("roster.too-large", {{"file", file.filename().string()}}));
    auto places = placesIn(table->front());
    if (!places) return places.error();
    auto known = store.athletes();
    if (!known) return known.error();
    std::vector<RosterRow> rows;
    IdSource ids;
    for (std::size_t i = 1; i < table->size(); ++i) {
        const RowReader read((*table)[i], *places);
        RosterRow row = compared(read, *known, today, ids);
        row.line = static_cast<int>(i) + 1;
        const auto before = std::find_if(rows.begin(), rows.end(), [&](const RosterRow& r) {
            return r.kind != RosterKind::Refused &&
                   sameName(r.athlete, read.at(Column::First), read.at(Column::Last));
        });
        if (row.kind != RosterKind::Refused && before != rows.end()) {
            const bool other = before->athlete.born != row.athlete.born; // one of both days may be a slip
            row.words = other ? msg("roster.two-births", {{"line", before->line}})
                              : msg("roster.twice", {{"line", before->line}});
            row.kind = RosterKind::Refused;
            if (other) refuse(*before, msg("roster.two-births", {{"line", row.line}}));
        }
        if (row.kind == RosterKind::New || row.kind == RosterKind::Changed)
            if (auto guardian = checkGuardian(store, row.athlete, today); !guardian) {
                if (guardian.error().code != ErrorCode::BadInput) return guardian.error();
                refuse(row, guardian.error().text);
            }
        rows.push_back(std::move(row));
    }
    refuseChildrenAsGuardians(rows, today);
    return rows;
}

Result<int> keepRoster(Store& store, const std::vector<RosterRow>& rows) {
    std::vector<Athlete> fresh;
    std::vector<AthleteEdit> edits;
    for (const RosterRow& row : rows) {
        if (row.kind == RosterKind::New) fresh.push_back(row.athlete);
        if (row.kind == RosterKind::Changed) edits.push_back({row.shown, row.athlete});
    }
    if (auto kept = store.add(fresh, edits); !kept) return kept.error();
    return static_cast<int>(fresh.size() + edits.size());
}

} // namespace jg
