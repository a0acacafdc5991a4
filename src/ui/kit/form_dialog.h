// SPDX-License-Identifier: GPL-3.0-or-later
// A form of labelled fields that is kept or left as it was.
#pragma once

#include <QDialog>

#include <functional>
#include <optional>
#include <string>
#include <vector>

class QCheckBox;
class QComboBox;
class QFormLayout;
class QHBoxLayout;
class QLabel;
class QLineEdit;
class QPlainTextEdit;
class QPushButton;
class QSpinBox;

namespace jg::ui {

/// One of several that can be ticked, with the name it is known by.
struct Tickable {
    std::string id;
    QString name;
    bool on = false;
};

/// Fields below each other, what is wrong in words, and *Keep*. Ctrl+Enter keeps, Escape leaves. Deletes
/// itself when closed; fields live as long as it does.
class FormDialog : public QDialog {
    Q_OBJECT
public:
    FormDialog(QWidget* parent, const char* name, const QString& title, const QString& hint);

    QLineEdit* line(const char* name, const QString& label, const QString& value, const QString& hint = {});
    QPlainTextEdit* words(const char* name, const QString& label, const QString& value);
    QComboBox* choice(const char* name, const QString& label, const QStringList& options, int current);
    QSpinBox* number(const char* name, const QString& label, int value, int least, int most);
    QCheckBox* tick(const char* name, const QString& label, bool on);
    /// Small print below the field before it.
    void remark(const QString& words);
    /// Boxes beside each other.
    std::vector<QCheckBox*> ticks(const char* name, const QString& label, const std::vector<Tickable>& boxes,
                                  int columns = 2);
    /// A list to tick in, with a line to find a row by.
    std::function<std::vector<std::string>()> list(const char* name, const QString& label,
                                                   const std::vector<Tickable>& rows);
    /// A button beside *Keep*; it closes the form.
    void door(const char* name, const QString& label, const std::function<void()>& then);
    /// What the button says that does it, where it does anything but keep the fields.
    void does(const QString& words);
    /// `keep` gives a sentence when the fields can't be kept; the form stays open then.
    void openWith(std::function<std::optional<QString>()> keep);

private:
    void add(const char* name, const QString& label, QWidget* field);
    void tryToKeep();

    QFormLayout* form_;
    QHBoxLayout* doors_;
    QPushButton* do_;
    QLabel* problem_;
    std::function<std::optional<QString>()> keep_;
};

} // namespace jg::ui
