// SPDX-License-Identifier: GPL-3.0-or-later
// The playbook: approaches to choose among, copy, change, compare and hand on; drills.
#pragma once

#include "base/clock.h"

#include <QWidget>

#include <functional>
#include <string>

class QVBoxLayout;
class QHBoxLayout;

namespace jg {
class Clock;
class IdSource;
class Library;
struct Approach;
struct Cause;
struct Drill;
struct GradedItem;
struct Playbook;
struct Target;
} // namespace jg

namespace jg::ui {

class RowList;

/// Approaches at the left, the chosen one at the right. An approach that came with the program is read; a
/// copy is the coach's own and changes edition by edition, as every item, cause and drill can. Lives in the
/// window's thread; the playbook outlives it.
class PlaybookPlace : public QWidget {
    Q_OBJECT
public:
    PlaybookPlace(Library& library, Playbook& playbook, const Clock& clock, IdSource& ids,
                  QWidget* parent = nullptr);
    /// Reads the playbook again.
    void refresh();
    void moveSelection(int by);
    /// Reads an approach from a file and keeps it as one of the coach's own, or says why not.
    void readIn(const QString& path);

Q_SIGNALS:
    void tell(const QString& sentence);
    void changed();

private:
    const Approach* chosen() const;
    void choose(const std::string& id);
    void showChosen();
    void addHead(const Approach& approach);
    void addDoors(const Approach& approach);
    QHBoxLayout* doorRow();
    void addTargets(const Approach& approach);
    void addItems(const Approach& approach);
    void addCauses(const Approach& approach);
    void addEditions(const Approach& approach);
    /// Some rows of the chosen approach for one question, as a way of judging of the coach's own.
    void newFocus();
    /// Which rows of an own approach may stay open, and whose misses are small ones.
    void chooseLenient();
    void addRowEditions();
    void addDrills();
    /// A section's title with a door to a new row of it.
    void addTitle(QWidget* title, const QString& newRow, const char* name, const std::function<void()>& then);
    /// Opens the form of a row; once it is kept the page shows it, and `then` is told its key.
    template <typename Row>
    void edit(const Row& row, const std::function<void(const std::string& key)>& then = {});
    void newItem();
    void door(QHBoxLayout& row, const QString& text, const char* name, const std::function<void()>& then);
    /// Keeps a change of the chosen approach as its next edition, or says why not.
    void change(const std::function<void(Approach&)>& how);
    void copy();
    void askTeaching();
    void rename(const QString& title);
    void askAges();
    void addRow();
    void askTarget(const std::string& measure);
    void setTarget(const Target& target);
    void leaveOut(const std::string& row);
    void compareWith();
    void exportFile();
    void importFile();
    void removeChosen();

    Library& library_;
    Playbook& playbook_;
    const Clock& clock_;
    IdSource& ids_;
    RowList* list_;
    QVBoxLayout* page_;
    std::string chosen_;
};

} // namespace jg::ui
