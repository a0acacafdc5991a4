// SPDX-License-Identifier: GPL-3.0-or-later
// The stage: the picture with everything drawn on it.
#pragma once

#include "film/picture.h"
#include "letter/mark_painter.h"

#include "ui/kit/spoken.h"

#include <QWidget>

#include <optional>

namespace jg::ui {

/// What the mouse does on the stage. All points in picture coordinates.
class StageTool {
public:
    virtual ~StageTool() = default;
    /// True when the tool takes the press; `reach` is 10 view pixels in picture pixels.
    virtual bool press(ImagePoint at, double reach) = 0;
    virtual void drag(ImagePoint) {}
    virtual void release(ImagePoint) {}
    virtual void hover(ImagePoint) {}
    virtual bool wantsLoupe() const { return false; }
    virtual QString loupeText() const { return {}; }
    virtual void paintOver(QPainter&, const ViewTransform&) {}
    /// Beneath marks and their numbers.
    virtual void paintUnder(QPainter&, const ViewTransform&) {}
};

/// Shows one frame, fitted or zoomed about the pointer, with a scene, a tool's own drawing and a loupe.
class StageView : public QWidget, public Spoken {
    Q_OBJECT
public:
    explicit StageView(QWidget* parent = nullptr);
    /// The exact picture of a frame.
    void setPicture(qint64 frame, const Picture& picture);
    /// A smaller picture that only comes near; `native` is the exact one's size. Nothing can be marked on it.
    void setNear(qint64 frame, const Picture& picture, QSize native);
    qint64 shownFrame() const { return frame_; }
    bool exact() const { return exact_; }
    /// A line of figures over the picture; empty = none.
    void setDetails(const QString& text);
    const QString& details() const { return details_; }
    const Picture& picture() const { return picture_; }
    void setScene(const MarkScene& scene);
    const MarkScene& scene() const { return scene_; }
    void setTool(StageTool* tool);
    void setCaption(const QString& left, const QString& right, bool recording = false);
    void setMessage(const QString& text); ///< in place of a picture
    /// Fits a part of the picture instead of all of it; nothing = all.
    void setPart(const std::optional<QRectF>& part);
    void fit();
    /// What of the picture is looked at, in its coordinates; nothing while it is fitted.
    std::optional<QRectF> seen() const;
    /// Looks at a part of the picture; nothing = fits it.
    void look(const std::optional<QRectF>& part);
    /// Other people, who are made unrecognizable.
    void setVeils(const Veils& veils);
    ViewTransform transform() const;
    QAccessible::Role spokenRole() const override { return QAccessible::Graphic; }
    /// The caption, the frame, and each number drawn on the picture.
    QString spokenValue() const override;

Q_SIGNALS:
    /// Somebody tried to mark a picture that is not exact yet.
    void tooEarly();
    /// Another part of the picture is looked at.
    void looked();

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;
    void wheelEvent(QWheelEvent* event) override;

private:
    QRectF pictureArea() const;
    void veilPicture();
    void paintCaption(QPainter& p);
    void paintDetails(QPainter& p);
    void paintGlass(QPainter& p);

    qint64 frame_ = -1;
    Picture picture_;
    Veils veils_;
    QImage image_; ///< the picture with the veils over it
    QSizeF native_;
    bool exact_ = false;
    QString details_;
    MarkScene scene_;
    StageTool* tool_ = nullptr;
    QString left_, right_, message_;
    bool recording_ = false;
    std::optional<QRectF> part_; ///< of the picture that fit() shows
    double zoom_ = 1;
    QPointF pan_;
    std::optional<QPointF> mouse_;
    QPointF panFrom_;
    bool toolHolds_ = false;
    bool panning_ = false;
};

} // namespace jg::ui
