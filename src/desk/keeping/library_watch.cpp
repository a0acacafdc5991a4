// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/library_watch.h"

namespace jg {

namespace {
constexpr int kEveryMs = 1000; // own choice: a change is seen within two seconds
}

LibraryWatch::LibraryWatch(Store& store, QObject* parent)
    : QObject(parent)
    , store_(store)
    , others_(store.writesOfOthers()) {
    if (auto pulse = store.pulse()) seen_ = std::move(*pulse);
    connect(&timer_, &QTimer::timeout, this, &LibraryWatch::look);
    timer_.start(kEveryMs);
}

void LibraryWatch::look() {
    const std::int64_t others = store_.writesOfOthers();
    if (others == others_) return;
    auto pulse = store_.pulse();
    if (!pulse) return; // asked again in a second
    others_ = others;
    std::set<std::string> tables;
    for (const auto& [table, n] : *pulse)
        if (seen_[table] != n) tables.insert(table);
    seen_ = std::move(*pulse);
    if (!tables.empty()) Q_EMIT changed(tables);
}

} // namespace jg
