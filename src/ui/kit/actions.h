// SPDX-License-Identifier: GPL-3.0-or-later
// The one table of actions: menus, buttons, foot hints and the shortcut sheet come from it.
#pragma once

#include <QAction>
#include <QKeySequence>
#include <QList>
#include <QObject>
#include <QString>

#include <functional>
#include <map>
#include <vector>

namespace jg::ui {

/// Where an action lives. A row may live in several places.
enum Where : unsigned {
    AtHome = 1,
    AtLook = 2,
    AtPositions = 4,
    AtMeasure = 8,
    AtJudge = 16,
    AtSay = 32,
    AtPrescribe = 64,
    AtSend = 128,
    AtJuxta = 256,
    AtPair = 512,
    AtCurves = 1024,
    InReview = AtLook | AtPositions | AtMeasure | AtJudge | AtSay | AtPrescribe | AtSend,
    Everywhere = AtHome | InReview | AtJuxta | AtPair | AtCurves,
};

/// One row: what it is called, its keys, where it works.
struct ActionRow {
    QString id;
    QList<QKeySequence> keys;
    unsigned where = 0;

    QString text() const; ///< in the window's language
};

/// What the actions of one place do, by id.
using Handlers = std::map<QString, std::function<void()>>;
/// Those that move a point by half a pixel, or by ten, each way.
Handlers nudges(const std::function<void(double dx, double dy)>& nudge);
/// Does one; false when the place has no such action.
bool runIn(const Handlers& handlers, const QString& id);

/// The whole table, in the order of the shortcut sheet.
const std::vector<ActionRow>& actionTable();

/// Pairs of ids whose keys clash in some place; empty when all is well.
QStringList clashes(const std::vector<ActionRow>& table);

/// Turns the table into shortcuts of a window; only those of the current place are enabled.
class Actions : public QObject {
    Q_OBJECT
public:
    Actions(QWidget* window, std::function<void(const QString&)> run);
    void setWhere(unsigned where);
    unsigned where() const { return where_; }
    QAction* find(const QString& id) const;

private:
    unsigned where_ = AtHome;
    QList<QAction*> actions_;
};

} // namespace jg::ui
