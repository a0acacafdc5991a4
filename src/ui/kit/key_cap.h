// SPDX-License-Identifier: GPL-3.0-or-later
// Keys as little caps with words beside them: the foot of a place.
#pragma once

#include "ui/kit/words.h"

#include <QList>
#include <QString>
#include <QWidget>

#include <vector>

class QHBoxLayout;
class QLabel;
class QPushButton;

namespace jg::ui {

/// A key, what it does, and the action it stands for: a click on it does the same. Without an action it is
/// only said, as "click" or "mouse".
struct KeyHint {
    QString key;
    QString what;
    QString action = {};
};
using KeyHints = QList<KeyHint>;

/// The bottom line: the few keys that matter now, a message, and whether all is kept.
class Foot : public QWidget {
    Q_OBJECT
public:
    explicit Foot(QWidget* parent = nullptr);
    void setHints(const KeyHints& hints);
    /// A sentence in place of the hints for some seconds; it stays when `seconds` is 0.
    void tell(const QString& sentence, int seconds = 6);
    void setKept(const QString& text);
    QString sentence() const;

protected:
    void resizeEvent(QResizeEvent* event) override;

Q_SIGNALS:
    void asked(const QString& action); ///< a key's cap was clicked

private:
    /// A key with its words, in a box that is a button where the key can be pressed there.
    struct Hint {
        QWidget* box;
        int width;
    };
    Hint add(const KeyHint& hint);
    /// Keys that find no room go from the end, words and all, and one that leads to all of them stands in
    /// their place.
    void fit();

    std::vector<Hint> shown_;
    Hint more_{};
    QWidget* hintBox_;
    QHBoxLayout* hints_;
    QLabel* message_;
    QLabel* kept_;
    int serial_ = 0;
};

} // namespace jg::ui
