// SPDX-License-Identifier: GPL-3.0-or-later
// The stand-in post office's window: the mails it keeps, and the one chosen.
#pragma once

#include <QMainWindow>

class QLabel;

namespace jg {

namespace ui {
class RowList;
}

class PostOfficeWindow : public QMainWindow {
    Q_OBJECT
public:
    PostOfficeWindow(const QString& folder, quint16 port);
    /// Reads the folder again; the newest stands first.
    void refresh();

private:
    void showMail(int row);
    QString folder_;
    QStringList files_;
    ui::RowList* list_;
    QLabel* subject_;
    QLabel* head_;
    QLabel* body_;
    QLabel* attached_;
};

} // namespace jg
