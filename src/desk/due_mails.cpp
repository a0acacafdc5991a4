#include "desk/due_mails.h"

#include "base/letters.h"

#include <QDateTime>

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>

namespace jg {

using nlohmann::json;

namespace {

constexpr const char* kSetting = "mail.due";

Status keep(Store& store, const std::map<std::string, DueMail>& all) {
    json document = json::object();
    for (const auto& [id, due] : all) document[id] = {{"at", due.at}, {"tries", due.tries}};
    return store.setSetting(kSetting, document.dump());
}

} // namespace

std::map<std::string, DueMail> dueMails(Store& store) {
    const json document = json::parse(store.setting(kSetting, "{}"), nullptr, false);
    std::map<std::string, DueMail> all;
    if (!document.is_object()) return all;
    for (const auto& [id, row] : document.items())
        if (row.is_object() && row.contains("at") && row["at"].is_number_integer())
            all[id] = {row["at"], row.contains("tries") && row["tries"].is_number_integer()
                                      ? std::max(0, row["tries"].get<int>())
                                      : 0};
    return all;
}

Status setDue(Store& store, const std::string& item, const DueMail& due) {
    auto all = dueMails(store);
    all[item] = due;
    return keep(store, all);
}

Status clearDue(Store& store, const std::string& item) {
    auto all = dueMails(store);
    return all.erase(item) == 0 ? Status(Done{}) : keep(store, all);
}

Result<std::vector<OutboxItem>> mailsDueAt(Store& store, std::int64_t nowUnix) {
    const auto all = dueMails(store);
    std::vector<OutboxItem> due;
    if (all.empty()) return due;
    auto outbox = store.outbox();
    if (!outbox) return outbox.error();
    for (OutboxItem& item : *outbox) {
        const auto it = all.find(item.id);
        if (it != all.end() && it->second.at <= nowUnix && waits(item)) due.push_back(std::move(item));
    }
    std::sort(due.begin(), due.end(), [&](const OutboxItem& a, const OutboxItem& b) {
        return std::pair(all.at(a.id).at, a.id) < std::pair(all.at(b.id).at, b.id);
    });
    return due;
}

std::int64_t pauseAfter(int tries) {
    constexpr std::array<int, 5> kMinutes = {1, 5, 15, 60, 240};
    constexpr std::int64_t kMinute = 60;
    const auto at = static_cast<std::size_t>(std::max(1, tries)) - 1;
    return kMinute * kMinutes[std::min(at, kMinutes.size() - 1)];
}

Result<OutboxItem> sendLater(Library& library, const DispatchRecipe& recipe, std::int64_t atUnix,
                             const Clock& clock, IdSource& ids, std::stop_token stop,
                             const SendProgress& progress) {
    auto item = layReady(library, recipe, clock, ids, stop, progress);
    if (!item) return item;
    if (auto due = setDue(library, item->id, {atUnix, 0}); !due) return due.error();
    return item;
}

Status sendDue(Library& library, const Playbook& playbook, OutboxItem item, const SendOrder& order,
               const Clock& clock, std::stop_token stop, const SendProgress& progress) {
    const auto all = dueMails(library);
    const auto was = all.find(item.id);
    const int tries = was == all.end() ? 0 : was->second.tries;
    SendOrder atOnce = order;
    atOnce.takeBackS = 0;
    const Status sent = sendAgain(library, playbook, item, atOnce, clock, stop, progress);
    if (!sent && sent.error().code == ErrorCode::Cancelled) return sent; // it stays due
    const bool nobody = !sent && sent.error().code == ErrorCode::Network;
    const Status kept = nobody
                            ? setDue(library, item.id, {clock.nowUnix() + pauseAfter(tries + 1), tries + 1})
                            : clearDue(library, item.id);
    return sent ? kept : sent;
}

std::optional<std::int64_t> timeFromWords(const std::string& words, std::int64_t nowUnix) {
    std::string rest(trimmed(lowered(words)));
    const QDateTime now = QDateTime::fromSecsSinceEpoch(nowUnix);
    QDate day = now.date();
    const auto space = rest.find(' ');
    bool dayGiven = false;
    if (space != rest.npos) {
        const std::string first = rest.substr(0, space);
        const QDate named = QDate::fromString(QString::fromStdString(first), Qt::ISODate);
        if (first != "today" && first != "tomorrow" && !named.isValid()) return std::nullopt;
        day = first == "today" ? day : first == "tomorrow" ? day.addDays(1) : named;
        dayGiven = true;
        rest = std::string(trimmed(rest.substr(space)));
    }
    const QTime time = QTime::fromString(QString::fromStdString(rest), "H:mm");
    if (!time.isValid()) return std::nullopt;
    QDateTime at(day, time);
    if (at <= now && !dayGiven) at = QDateTime(day.addDays(1), time);
    return at > now ? std::optional<std::int64_t>(at.toSecsSinceEpoch()) : std::nullopt;
}

} // namespace jg
