// SPDX-License-Identifier: GPL-3.0-or-later
// What a screen reader says of a widget that paints its contents.
#pragma once

#include <QAccessible>
#include <QString>

#include <optional>

namespace jg::ui {

/// Numbers of a widget whose value can be set, as a slider's.
struct SpokenRange {
    qint64 least = 0, most = 0, now = 0;
};

/// A painted widget that can be read aloud. Its name is its accessibleName().
class Spoken {
public:
    virtual ~Spoken() = default;
    virtual QAccessible::Role spokenRole() const = 0;
    virtual QString spokenValue() const = 0;
    virtual std::optional<SpokenRange> spokenRange() const { return std::nullopt; }
    virtual void setSpoken(qint64) {}
};

/// Once at the start: readers find every Spoken widget from then on.
void letReadersHear();

} // namespace jg::ui
