// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/house_zone.h"

#include "base/time_zone.h"

#include <QDateTime>
#include <QTimeZone>

#include <filesystem>

namespace jg {

namespace {

class NamedZone final : public TimeZone {
public:
    explicit NamedZone(QTimeZone zone)
        : zone_(std::move(zone)) {}
    int offsetAt(std::int64_t unix) const override { return zone_.offsetFromUtc(momentOf(unix)); }
    std::string shortNameAt(std::int64_t unix) const override {
        return zone_.abbreviation(momentOf(unix)).toStdString();
    }

private:
    static QDateTime momentOf(std::int64_t unix) { return QDateTime::fromSecsSinceEpoch(unix, Qt::UTC); }
    QTimeZone zone_;
};

QTimeZone zoneCalled(const std::string& name) {
    return QTimeZone(QByteArray::fromStdString(name));
}

/// A zone's name is a path below the system's zones; nothing else is.
bool isKnown(const std::string& zone) {
    constexpr const char* kLetters = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_+-/";
    if (zone.find_first_not_of(kLetters) != std::string::npos || zone.front() == '/') return false;
    std::error_code ec;
    return std::filesystem::is_regular_file("/usr/share/zoneinfo/" + zone, ec);
}

} // namespace

Status knowTimeZone(const std::string& zone) {
    if (zone.empty() || (isKnown(zone) && zoneCalled(zone).isValid())) return Done{};
    return fail(ErrorCode::BadInput, msg("time-zone.unknown", {{"zone", zone}}));
}

Status useTimeZone(const std::string& zone) {
    if (auto known = knowTimeZone(zone); !known) return known;
    useTimeZone(zone.empty()
                    ? nullptr
                    : std::shared_ptr<const TimeZone>(std::make_shared<NamedZone>(zoneCalled(zone))));
    return Done{};
}

} // namespace jg
