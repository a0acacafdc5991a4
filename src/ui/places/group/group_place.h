// SPDX-License-Identifier: GPL-3.0-or-later
// The group: a table of athletes, filtered, the most urgent first.
#pragma once

#include "desk/keeping/library_reader.h"
#include "desk/pages/group.h"
#include "library/library.h"

#include <QWidget>

#include <vector>

class QCheckBox;
class QComboBox;
class QLabel;
class QTableWidget;

namespace jg::ui {

class GroupPlace : public QWidget {
    Q_OBJECT
public:
    GroupPlace(LibraryReader& reader, Library& library, const Playbook& playbook, QWidget* parent = nullptr);
    /// Reads again, once it is looked at: thousands of athletes take a while.
    void show(Date today);
    void moveSelection(int by);
    /// The chosen athlete's page.
    void openSelected();
    std::optional<AthleteId> athleteOfSelected() const;

Q_SIGNALS:
    void open(const jg::AthleteId& athlete);
    void tell(const QString& sentence);

protected:
    void showEvent(QShowEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void read();
    void showRows();
    void spreadColumns();
    void fillChoices();
    GroupFilter filter() const;
    void save();

    LibraryReader& reader_;
    Library& library_;
    const Playbook& playbook_;
    std::optional<Date> unread_; ///< of which day, until it is looked at
    std::vector<GroupRow> all_, shown_;
    std::vector<int> wanted_; ///< widths of the columns that cut nothing
    QComboBox *ages_, *approaches_, *findings_;
    QCheckBox* protect_;
    QLabel* summary_;
    QTableWidget* table_;
};

} // namespace jg::ui
