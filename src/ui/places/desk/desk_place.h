// SPDX-License-Identifier: GPL-3.0-or-later
// The desk: what is waiting, what is owed, what went out.
#pragma once

#include "desk/pages/desk_list.h"

#include <QLabel>
#include <QWidget>

class QHBoxLayout;
class QPushButton;
class QVBoxLayout;

namespace jg::ui {

class DeskPlace : public QWidget {
    Q_OBJECT
public:
    explicit DeskPlace(QWidget* parent = nullptr);
    void show(const DeskList& list, const Library& library, Date today);
    /// Chooses what was just taken in, now or when it arrives in the list.
    void choose(const SubmissionId& submission);
    void moveSelection(int by);
    void openSelected();
    std::optional<AthleteId> athleteOfSelected() const;

Q_SIGNALS:
    void open(const jg::SubmissionId& submission);
    void takeIn();
    void lookOver();
    void mailsAsked();
    void mailFolderAsked();
    void dropped(const QStringList& files);
    void closePromise(qint64 promiseRow, jg::Kept how);

protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    QWidget* card(const DeskRow& row, const Library& library, Date today);
    void addOwed(QVBoxLayout& owed, const DeskList& list, Date today);
    QWidget* owedAndSent(const DeskList& list, Date today);
    void addMails(std::size_t count);
    QPushButton* addLink(QHBoxLayout& row, const QString& text);
    void markSelected();

    QLabel* title_;
    QLabel* summary_;
    QVBoxLayout* rows_;
    std::vector<QWidget*> cards_;
    std::vector<SubmissionId> ids_;
    std::vector<AthleteId> athletes_; ///< whose
    int selected_ = 0;
    SubmissionId wanted_; ///< what was chosen, wherever the list puts it
};

} // namespace jg::ui
