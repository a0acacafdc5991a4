// SPDX-License-Identifier: GPL-3.0-or-later
// What the store's queries share. Inside the library room only.
#pragma once

#include "base/date.h"
#include "base/result.h"
#include "base/unfit.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <SQLiteCpp/VariadicBind.h>

#include <cstdint>
#include <string>
#include <utility>
#include <vector>

namespace jg {

/// A row that can't be read; its reason goes on as Damaged.
struct UnreadableRow : Unfit {
    using Unfit::Unfit;
};

/// What a change is refused for; goes on as it is.
struct Rejected {
    Error why;
};

/// Whether any mail is being handed over. (sqlite_outbox.cpp)
bool isHandedOver(SQLite::Database& db, std::int64_t nowUnix);

inline void orReject(const Status& status) {
    if (!status) throw Rejected{status.error()};
}

template <typename T>
T orUnreadable(Result<T> result) {
    if (!result) throw UnreadableRow(result.error().text);
    return std::move(*result);
}

/// Steps through a query and makes a value of each row. With `leftOut` a row that can't be read is left out
/// and its reason told, so that it hides no other; without, it throws.
template <typename Make, typename... Values>
auto readableRowsOf(SQLite::Database& db, const char* sql, std::vector<Message>* leftOut, Make make,
                    const Values&... values) {
    SQLite::Statement query(db, sql);
    if constexpr (sizeof...(values) > 0) SQLite::bind(query, values...);
    std::vector<decltype(make(query))> rows;
    while (query.executeStep()) {
        try {
            rows.push_back(make(query));
        } catch (const UnreadableRow& e) {
            if (!leftOut) throw;
            leftOut->push_back(e.why);
        }
    }
    return rows;
}

template <typename Make, typename... Values>
auto rowsOf(SQLite::Database& db, const char* sql, Make make, const Values&... values) {
    return readableRowsOf(db, sql, nullptr, make, values...);
}

template <typename... Values>
int run(SQLite::Database& db, const char* sql, const Values&... values) {
    SQLite::Statement statement(db, sql);
    if constexpr (sizeof...(values) > 0) SQLite::bind(statement, values...);
    return statement.exec();
}

inline std::string textAt(SQLite::Statement& row, int column) {
    return row.getColumn(column).getString();
}

inline std::optional<Date> dateAt(SQLite::Statement& row, int column) {
    return row.isColumnNull(column) ? std::nullopt : parseIsoDate(textAt(row, column));
}

} // namespace jg
