// SPDX-License-Identifier: GPL-3.0-or-later
// The places at the left.
#pragma once

#include <QWidget>

#include <vector>

namespace jg::ui {

class HotSpot;

class Sidebar : public QWidget {
    Q_OBJECT
public:
    explicit Sidebar(QWidget* parent = nullptr);
    void setHouse(const QString& place);
    /// Small print under a place's name.
    void setCount(int place, const QString& text);
    void setCurrent(int place);
    QRect placeRect(int place) const;

Q_SIGNALS:
    void chosen(int place);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    struct Entry {
        QString name;
        QString count;
        QIcon icon;
        QIcon iconChosen;
        HotSpot* spot;
    };
    std::vector<Entry> entries_;
    QString house_;
    int current_ = 0;
};

} // namespace jg::ui
