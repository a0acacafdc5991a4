// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/pen_row.h"

#include "letter/mark_painter.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QPainter>
#include <QToolButton>

#include <array>

namespace jg::ui {

namespace {

constexpr int kTile = 32;
constexpr std::array kPens = {Pen::Free, Pen::Line, Pen::Arrow, Pen::Ring, Pen::Box};

/// What the pen draws, in chalk on a piece of the stage.
QIcon iconOf(Pen pen, double scale) {
    QPixmap tile(QSize(kTile, kTile) * scale);
    tile.setDevicePixelRatio(scale);
    tile.fill(palette::stage);
    QPainter p(&tile);
    Drawn drawn{pen, {{8, 24}, {24, 8}}};
    if (pen == Pen::Free) drawn.points = {{6, 20}, {10, 12}, {14, 20}, {19, 10}, {22, 20}, {26, 12}};
    if (pen == Pen::Ring) drawn.points = {{16, 16}, {16, 6}};
    paintDrawn(p, drawn, {}, 0.7);
    return QIcon(tile);
}

} // namespace

PenRow::PenRow(QWidget* parent)
    : QWidget(parent) {
    setObjectName("pens");
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(6);
    for (std::size_t i = 0; i < kPens.size(); ++i) {
        const QString action = QString("say-pen-%1").arg(i + 1);
        auto* button = new QToolButton;
        button->setObjectName(action);
        button->setCheckable(true);
        button->setFocusPolicy(Qt::NoFocus);
        button->setIcon(iconOf(kPens[i], devicePixelRatioF()));
        button->setIconSize({kTile, kTile});
        button->setText(QString::number(i + 1));
        button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
        const QString name = say(msg("action." + action.toStdString()));
        button->setToolTip(name);
        button->setAccessibleName(name);
        connect(button, &QToolButton::clicked, this, [this, action] { Q_EMIT asked(action); });
        row->addWidget(button);
        pens_.push_back(button);
    }
    fades_ = new QCheckBox(say("pen-row.fades", {{"key", "D"}}));
    fades_->setObjectName("fades");
    fades_->setFocusPolicy(Qt::NoFocus);
    fades_->setToolTip(say("action.say-fades"));
    connect(fades_, &QCheckBox::clicked, this, [this] { Q_EMIT asked("say-fades"); });
    row->addStretch(1);
    row->addWidget(fades_);
}

void PenRow::show(Pen pen, bool fades) {
    for (std::size_t i = 0; i < pens_.size(); ++i) pens_[i]->setChecked(kPens[i] == pen);
    fades_->setChecked(fades);
}

} // namespace jg::ui
