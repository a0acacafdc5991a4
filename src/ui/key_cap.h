// Keys as little caps with words beside them: the foot of a place.
#pragma once

#include <QList>
#include <QPair>
#include <QWidget>

class QHBoxLayout;
class QLabel;

namespace jg::ui {

using KeyHints = QList<QPair<QString, QString>>; ///< key, what it does

/// The bottom line: the few keys that matter now, a message, and whether all is kept.
class Foot : public QWidget {
public:
    explicit Foot(QWidget* parent = nullptr);
    void setHints(const KeyHints& hints);
    /// A sentence in place of the hints for some seconds; it stays when `seconds` is 0.
    void say(const QString& sentence, int seconds = 6);
    void setKept(const QString& text);
    QString sentence() const;

private:
    QWidget* hintBox_;
    QHBoxLayout* hints_;
    QLabel* message_;
    QLabel* kept_;
    int serial_ = 0;
};

} // namespace jg::ui
