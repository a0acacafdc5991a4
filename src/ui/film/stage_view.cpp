// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/stage_view.h"

#include "letter/palette.h"
#include "letter/veils.h"
#include "ui/film/loupe.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {
constexpr double kCaptionHeight = 40;
constexpr double kMostZoom = 16;
} // namespace

StageView::StageView(QWidget* parent)
    : QWidget(parent) {
    setMouseTracking(true);
    setMinimumSize(400, 260);
    setObjectName("stage");
    setAccessibleName(say("stage-view.picture-of-the-delivery"));
}

void StageView::setPicture(qint64 frame, const Picture& picture) {
    setNear(frame, picture, QSize(picture.width, picture.height));
    exact_ = true;
}

void StageView::setNear(qint64 frame, const Picture& picture, QSize native) {
    frame_ = frame;
    picture_ = picture;
    native_ = native;
    exact_ = false;
    veilPicture();
    message_.clear();
    update();
}

void StageView::setDetails(const QString& text) {
    if (text == details_) return;
    details_ = text;
    update();
}

void StageView::setScene(const MarkScene& scene) {
    scene_ = scene;
    update();
}

void StageView::setTool(StageTool* tool) {
    tool_ = tool;
    toolHolds_ = false;
    setCursor(tool && tool->wantsLoupe() ? Qt::CrossCursor : Qt::ArrowCursor);
    update();
}

void StageView::setCaption(const QString& left, const QString& right, bool recording) {
    left_ = left;
    right_ = right;
    recording_ = recording;
    update();
}

void StageView::setMessage(const QString& text) {
    message_ = text;
    update();
}

void StageView::fit() {
    zoom_ = 1;
    pan_ = {};
    update();
    Q_EMIT looked();
}

void StageView::veilPicture() {
    image_ = shownImage(picture_, veils_, frame_, native_);
}

void StageView::setVeils(const Veils& veils) {
    if (veils == veils_) return;
    veils_ = veils;
    veilPicture();
    update();
}

std::optional<QRectF> StageView::seen() const {
    if (zoom_ <= 1 || picture_.empty()) return std::nullopt;
    const ViewTransform t = transform();
    const ImagePoint from = t.toImage(pictureArea().topLeft()), to = t.toImage(pictureArea().bottomRight());
    const QRectF part = QRectF(QPointF(from.x, from.y), QPointF(to.x, to.y)) & QRectF(QPointF(), native_);
    return part.isEmpty() ? std::nullopt : std::optional(part);
}

void StageView::look(const std::optional<QRectF>& part) {
    if (!part || part->isEmpty() || picture_.empty()) return zoom_ == 1 ? void() : fit();
    zoom_ = 1;
    pan_ = {};
    const ViewTransform fitted = transform();
    const QRectF area = pictureArea();
    const double scale = std::min(area.width() / part->width(), area.height() / part->height());
    zoom_ = std::clamp(scale / fitted.scale, 1.0, kMostZoom);
    const QPointF middle = part->center();
    pan_ = area.center() - transform().toView({middle.x(), middle.y()});
    // A picture that is larger than its room leaves no room beside it; a smaller one stays in the middle.
    const QRectF lies(transform().offset, native_ * transform().scale);
    const auto back = [](double from, double to, double least, double most) {
        return to - from < most - least ? (least + most - from - to) / 2
                                        : std::clamp(0.0, most - to, least - from);
    };
    pan_ += QPointF(back(lies.left(), lies.right(), area.left(), area.right()),
                    back(lies.top(), lies.bottom(), area.top(), area.bottom()));
    update();
    Q_EMIT looked();
}

QRectF StageView::pictureArea() const {
    return QRectF(0, kCaptionHeight, width(), height() - kCaptionHeight);
}

void StageView::setPart(const std::optional<QRectF>& part) {
    if (part == part_) return;
    part_ = part;
    fit();
}

ViewTransform StageView::transform() const {
    ViewTransform t = ViewTransform::fit(part_ ? part_->size() : native_, pictureArea());
    if (part_) t.offset -= part_->topLeft() * t.scale;
    const QPointF centre = pictureArea().center();
    t.offset = centre + (t.offset - centre) * zoom_ + pan_;
    t.scale *= zoom_;
    return t;
}

void StageView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), palette::stage);
    if (!picture_.empty()) {
        const ViewTransform t = transform();
        p.save();
        p.setClipRect(pictureArea());
        p.setRenderHint(QPainter::SmoothPixmapTransform, zoom_ < 4);
        p.drawImage(QRectF(t.offset, native_ * t.scale), image_);
        if (tool_) tool_->paintUnder(p, t);
        paintScene(p, scene_, t, pictureArea().adjusted(4, 4, -4, -4), windowWords(), textScale());
        if (tool_) tool_->paintOver(p, t);
        p.restore();
        paintGlass(p);
    }
    paintCaption(p);
    paintDetails(p);
    if (!message_.isEmpty()) {
        p.setPen(palette::chalk);
        p.setFont(labelFont(15));
        p.drawText(pictureArea().adjusted(60, 0, -60, 0), Qt::AlignCenter | Qt::TextWordWrap, message_);
    }
}

void StageView::paintCaption(QPainter& p) {
    const QRectF bar(18, 0, width() - 36, kCaptionHeight);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(labelFont(13, recording_));
    if (recording_) {
        const double w = QFontMetricsF(p.font()).horizontalAdvance(left_) + 48;
        p.setPen(Qt::NoPen);
        p.setBrush(palette::clay);
        p.drawRoundedRect(QRectF(14, 7, w, 27), 13.5, 13.5);
        p.setBrush(Qt::white);
        p.drawEllipse(QPointF(32, 20.5), 5.5, 5.5);
        p.setPen(Qt::white);
        p.drawText(QRectF(46, 0, w, kCaptionHeight), Qt::AlignVCenter | Qt::AlignLeft, left_);
    } else {
        p.setPen(palette::chalk);
        p.drawText(bar, Qt::AlignVCenter | Qt::AlignLeft, left_);
    }
    p.setFont(labelFont(13));
    p.setPen(palette::chalk);
    p.drawText(bar, Qt::AlignVCenter | Qt::AlignRight, right_);
}

void StageView::paintDetails(QPainter& p) {
    if (details_.isEmpty()) return;
    p.setFont(labelFont(11.5));
    const QSizeF size = QFontMetricsF(p.font()).size(Qt::TextSingleLine, details_);
    const QRectF box(10, height() - size.height() - 16, size.width() + 16, size.height() + 6);
    paintPlate(p, box, details_);
}

void StageView::paintGlass(QPainter& p) {
    if (!tool_ || !tool_->wantsLoupe() || !mouse_ || !pictureArea().contains(*mouse_)) return;
    const ViewTransform t = transform();
    paintLoupe(p, pictureArea(), *mouse_, image_, QRectF(t.offset, native_ * t.scale), tool_->loupeText(),
               labelFont(11.5));
}

void StageView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const QPointF at = event->position();
    if (picture_.empty() || !pictureArea().contains(at)) return;
    const ViewTransform t = transform();
    if (!exact_ && tool_ && event->button() == Qt::LeftButton) {
        Q_EMIT tooEarly();
        return;
    }
    toolHolds_ = event->button() == Qt::LeftButton && tool_ && tool_->press(t.toImage(at), 10 / t.scale);
    if (!toolHolds_) {
        panning_ = true;
        panFrom_ = at - pan_;
    }
    update();
}

void StageView::mouseMoveEvent(QMouseEvent* event) {
    mouse_ = event->position();
    const ImagePoint at = transform().toImage(*mouse_);
    if (toolHolds_)
        tool_->drag(at);
    else if (panning_ && zoom_ > 1) {
        pan_ = *mouse_ - panFrom_;
        Q_EMIT looked();
    } else if (tool_)
        tool_->hover(at);
    update();
}

void StageView::mouseReleaseEvent(QMouseEvent* event) {
    if (toolHolds_ && tool_) tool_->release(transform().toImage(event->position()));
    toolHolds_ = false;
    panning_ = false;
    update();
}

void StageView::leaveEvent(QEvent*) {
    mouse_.reset();
    update();
}

void StageView::wheelEvent(QWheelEvent* event) {
    const QPointF at = event->position();
    const ImagePoint under = transform().toImage(at);
    zoom_ = std::clamp(zoom_ * std::pow(1.2, event->angleDelta().y() / 120.0), 1.0, kMostZoom);
    if (zoom_ == 1) pan_ = {};
    pan_ += at - transform().toView(under); // what was under the pointer stays there
    if (zoom_ == 1) pan_ = {};
    update();
    Q_EMIT looked();
}

QString StageView::spokenValue() const {
    if (!message_.isEmpty()) return message_;
    QStringList words;
    for (const QString& caption : {left_, right_})
        if (!caption.isEmpty()) words << caption;
    words << say("ribbon.frame-frame", {{"frame", frame_}});
    for (const SceneLabel& label : scene_.labels) words << say(label.text);
    return words.join(", ");
}

} // namespace jg::ui
