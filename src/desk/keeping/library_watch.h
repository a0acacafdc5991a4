// SPDX-License-Identifier: GPL-3.0-or-later
// What other programs and windows change in a library, as it arrives.
#pragma once

#include "library/store.h"

#include <QObject>
#include <QTimer>

#include <set>
#include <string>

namespace jg {

/// Looks every second whether somebody else has written, and tells which tables. Lives in the store's thread.
class LibraryWatch : public QObject {
    Q_OBJECT
public:
    explicit LibraryWatch(Store& store, QObject* parent = nullptr);
    /// Looks now.
    void look();

Q_SIGNALS:
    void changed(const std::set<std::string>& tables);

private:
    Store& store_;
    QTimer timer_;
    std::int64_t others_ = 0;
    Pulse seen_;
};

} // namespace jg
