// SPDX-License-Identifier: GPL-3.0-or-later
// The house's own mark in a form: shown, chosen from a file, taken away.
#pragma once

#include <QWidget>

#include <filesystem>
#include <string>

class QLabel;
class QPushButton;

namespace jg::ui {

class MarkField : public QWidget {
    Q_OBJECT
public:
    explicit MarkField(std::string png, QWidget* parent = nullptr);
    /// As PNG; empty = none.
    const std::string& mark() const { return png_; }
    bool changed() const { return png_ != shown_; }
    /// The picture in a file; one that can't be used is told of below, and the mark stays.
    void take(const std::filesystem::path& file);

private:
    void choose();
    void show(const std::string& png);

    std::string png_, shown_; ///< as it is, as it was shown first
    QLabel* picture_;
    QPushButton* away_;
    QLabel* problem_;
};

} // namespace jg::ui
