// SPDX-License-Identifier: GPL-3.0-or-later
// Two deliveries large: beside each other, one over the other, or only their figures.
#pragma once

#include "film/convert.h"
#include "film/picture.h"
#include "letter/juxta_sheet.h"
#include "review/compare/figure.h"
#include "ui/kit/spoken.h"

#include <QWidget>

#include <array>
#include <memory>
#include <optional>

namespace jg::ui {

/// The three ways to look.
enum class PairLook { Beside, Over, Figures };

/// What is shown of one of the two.
struct PairSide {
    std::shared_ptr<const JuxtaRow> row; ///< never null once it is set
    Picture picture;                     ///< may be smaller than the film
    std::int64_t frame = -1;
    bool exact = false; ///< only then marks can be placed
    QString caption;    ///< whose, when
    QString time;       ///< where it is from the lock
    QString message;    ///< in place of a picture
};

/// Paints both at one body height on one ground line, where crown and ground were clicked at Set; else each
/// fitted. One zoom for both. Points can be taken hold of by the mouse.
class PairView : public QWidget, public Spoken {
    Q_OBJECT
public:
    explicit PairView(const Playbook& playbook, QWidget* parent = nullptr);
    void setSide(std::size_t side, PairSide shown);
    const PairSide& side(std::size_t side) const { return sides_[side]; }
    void setLook(PairLook look);
    PairLook look() const { return look_; }
    void setStacked(bool above);
    bool stacked() const { return stacked_; }
    /// How much of the second lies over the first, 0..1.
    void setFade(double part);
    double fade() const { return fade_; }
    /// Which of the two is unlocked; nothing = they go together.
    void setUnlocked(std::optional<std::size_t> side);
    /// Differences that are written at the figures' joints.
    void setAngles(std::vector<AngleChange> angles);
    /// What a click will place; empty = nothing. A loupe shows where, as while a point is held.
    void setAsking(const QString& landmark);
    void fit();
    /// The place of a picture point in widget pixels.
    QPointF toView(std::size_t side, ImagePoint at) const;

    QAccessible::Role spokenRole() const override { return QAccessible::Graphic; }
    QString spokenValue() const override;

Q_SIGNALS:
    /// In picture coordinates of the side's film; `reach` is ten view pixels there.
    void pressed(std::size_t side, ImagePoint at, double reach);
    void dragged(ImagePoint at);
    void released();

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void leaveEvent(QEvent*) override;

private:
    QRectF areaOf(std::size_t side) const;
    ViewTransform viewOf(std::size_t side) const;
    ImagePoint toPicture(std::size_t side, QPointF at) const;
    std::optional<std::size_t> sideAt(QPointF at) const;
    void paintPicture(QPainter& p, std::size_t side, double opacity);
    void paintGlass(QPainter& p);
    void paintMarks(QPainter& p, std::size_t side, const QRectF& area);
    void paintFigure(QPainter& p, std::size_t side);
    void paintAngles(QPainter& p);
    void paintCaption(QPainter& p, std::size_t side);
    void paintBeside(QPainter& p);
    void paintOver(QPainter& p);
    void paintFigures(QPainter& p);

    const Playbook& playbook_;
    std::array<PairSide, 2> sides_;
    std::array<QImage, 2> images_;    ///< of their pictures, mirrored where the row is
    std::array<double, 2> middles_{}; ///< of the bodies on these frames
    PairLook look_ = PairLook::Beside;
    bool stacked_ = false;
    double fade_ = 0.5;
    std::optional<std::size_t> unlocked_;
    std::vector<AngleChange> angles_;
    QString asking_;
    double zoom_ = 1;
    QPointF pan_;
    std::optional<std::size_t> held_; ///< the side whose point is dragged
    std::optional<QPointF> mouse_;    ///< where it is, in usual pixels
    QPointF panFrom_;
    bool panning_ = false;
};

} // namespace jg::ui
