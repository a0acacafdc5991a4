// SPDX-License-Identifier: GPL-3.0-or-later
// One sentence of the letter, written anew where it stands.
#pragma once

#include <QFrame>

#include <string>
#include <vector>

class QPlainTextEdit;

namespace jg::ui {

/// Enter keeps, Escape leaves. What the letter would say, and the coach's earlier phrases, are a press away.
class SentenceEditor : public QFrame {
    Q_OBJECT
public:
    SentenceEditor(const QString& words, const QString& generated, const std::vector<std::string>& phrases,
                   QWidget* parent);
    /// Shows it over a place, within `bounds`, and takes the keys.
    void openOver(QRectF place, QRectF bounds);

Q_SIGNALS:
    void kept(const QString& words); ///< empty = as the letter would say it
    void left();

protected:
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    void keep();

    QPlainTextEdit* words_;
    QString generated_;
};

} // namespace jg::ui
