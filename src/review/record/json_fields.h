// SPDX-License-Identifier: GPL-3.0-or-later
// What the JSON of reviews and of people share. Inside the review room only.
#pragma once

#include "base/date.h"
#include "base/document.h"
#include "base/ids.h"
#include "base/result.h"
#include "base/unfit.h"

#include <nlohmann/json.hpp>

#include <optional>
#include <string>
#include <string_view>

namespace jg {

template <typename T>
T need(std::optional<T> value, const char* what) {
    if (!value) throw Unfit(msg("document.not-valid", {{"what", what}}));
    return *value;
}

/// An id, or none.
inline std::string idIn(const nlohmann::json& value) {
    auto id = value.get<std::string>();
    if (!id.empty() && !isId(id)) throw Unfit(msg("document.not-valid", {{"what", "id"}}));
    return id;
}

/// A file's name within a folder of the library, or none.
inline std::string fileNameIn(const nlohmann::json& value) {
    auto name = value.get<std::string>();
    if (!name.empty() && !isPlainName(name)) throw Unfit(msg("document.not-valid", {{"what", "file"}}));
    return name;
}

/// A whole number within its bounds.
template <typename Number>
Number within(const nlohmann::json& value, Number least, Number most, const char* what) {
    const double n = value.get<double>();
    if (!(n >= static_cast<double>(least) && n <= static_cast<double>(most)))
        throw Unfit(msg("document.not-valid", {{"what", what}}));
    return value.get<Number>();
}

inline nlohmann::json dateAsJson(const std::optional<Date>& date) {
    return date ? nlohmann::json(isoDate(*date)) : nlohmann::json(nullptr);
}

inline std::optional<Date> dateIn(const nlohmann::json& row, const char* field) {
    if (!row.contains(field) || row[field].is_null()) return std::nullopt;
    return need(parseIsoDate(row[field].get<std::string>()), field);
}

inline Date mustDate(const nlohmann::json& row, const char* field) {
    return need(dateIn(row, field), field);
}

/// Reads a document; what is wrong with it becomes one message. `what` is the end of an id in the catalogue.
template <typename T, typename Read>
Result<T> guarded(std::string_view text, const char* what, Read read) {
    try {
        return read(parseDocument(text));
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged,
                    msg("document.unreadable",
                        {{"what", msg(std::string("document.") + what)}, {"why", whyUnfit(e)}}));
    }
}

} // namespace jg
