// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/post/mark_field.h"

#include "letter/house_mark.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/theme.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace jg::ui {

namespace {
constexpr int kHeight = 40;
}

MarkField::MarkField(std::string png, QWidget* parent)
    : QWidget(parent)
    , shown_(png) {
    setObjectName("house-mark");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* row = new QHBoxLayout;
    picture_ = quiet();
    picture_->setMinimumHeight(em(kHeight));
    picture_->setToolTip(say("mark-field.hint"));
    auto* choose = plainButton(say("mark-field.choose"));
    away_ = plainButton(say("mark-field.take-away"));
    away_->setObjectName("mark-away");
    for (QPushButton* button : {choose, away_}) button->setAutoDefault(false);
    connect(choose, &QPushButton::clicked, this, &MarkField::choose);
    connect(away_, &QPushButton::clicked, this, [this] { show({}); });
    row->addWidget(picture_, 1);
    row->addWidget(choose);
    row->addWidget(away_);
    column->addLayout(row);
    problem_ = problemLabel("mark-problem");
    column->addWidget(problem_);
    show(std::move(png));
}

void MarkField::choose() {
    const QString file = fileToOpen(this, say("mark-field.label"), "PNG, JPEG (*.png *.jpg *.jpeg)");
    if (!file.isEmpty()) take(file.toStdString());
}

void MarkField::take(const std::filesystem::path& file) {
    const auto png = readHouseMark(file);
    if (png) return show(*png);
    problem_->setText(say(png.error().text));
    problem_->show();
}

void MarkField::show(const std::string& png) {
    png_ = png;
    const QImage mark = markImage(png_);
    away_->setVisible(!mark.isNull());
    const bool pale = !mark.isNull() && !isSeenOnPaper(mark);
    problem_->setText(pale ? say("mark-field.pale") : QString());
    problem_->setVisible(pale);
    if (mark.isNull()) return picture_->setText(say("mark-field.none"));
    const double sharp = devicePixelRatioF();
    QPixmap shown = QPixmap::fromImage(mark.scaled((sharp * markSize(mark, em(kHeight))).toSize(),
                                                   Qt::KeepAspectRatio, Qt::SmoothTransformation));
    shown.setDevicePixelRatio(sharp);
    picture_->setPixmap(shown);
}

} // namespace jg::ui
