// SPDX-License-Identifier: GPL-3.0-or-later
// The films of an intake: what they show, at which rate, with a look at each and a way to take it off.
#pragma once

#include "desk/intake/intake.h"

#include <QStringList>
#include <QWidget>

#include <vector>

class QComboBox;
class QVBoxLayout;

namespace jg::ui {

class RateBox;

class FilmCards : public QWidget {
    Q_OBJECT
public:
    explicit FilmCards(QWidget* parent = nullptr);
    /// A film that is on the list already is not added again.
    void add(const QStringList& files);
    int count() const { return static_cast<int>(cards_.size()); }
    /// Errors: BadInput when there is none, or a rate can't be read.
    Result<std::vector<IntakeFilm>> films() const;

Q_SIGNALS:
    void changed();

private:
    struct Card {
        QString path;
        QWidget* box;
        QComboBox* view;
        RateBox* rate;
    };
    void addOne(const QString& path);
    void takeOff(QWidget* box);

    QVBoxLayout* column_;
    std::vector<Card> cards_;
};

} // namespace jg::ui
