// SPDX-License-Identifier: GPL-3.0-or-later
// What was found and stands in no stop: the first of it, and the way to all of it.
#pragma once

#include <QFrame>
#include <QString>

#include <string>
#include <utility>
#include <vector>

class QVBoxLayout;

namespace jg::ui {

class UnsaidBox : public QFrame {
    Q_OBJECT
public:
    explicit UnsaidBox(QWidget* parent = nullptr);
    /// Findings by id, each in words.
    void show(const std::vector<std::pair<std::string, QString>>& findings);
    using QFrame::show;

Q_SIGNALS:
    void add(const QString& finding);
    void choose(); ///< from all of them

private:
    QVBoxLayout* rows_;
};

} // namespace jg::ui
