// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/send/letter_view.h"

#include "letter/palette.h"
#include "letter/qt_text.h"
#include "ui/kit/readers_words.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"
#include "ui/stages/send/sentence_editor.h"

#include <QMouseEvent>
#include <QPainter>
#include <QScrollArea>

#include <algorithm>

namespace jg::ui {

namespace {

constexpr double kPageGap = 18;
constexpr double kAirRound = 4; ///< round a sentence, in the page's units

/// The scroll area that shows a widget; null when none does.
QScrollArea* areaOf(QWidget* widget) {
    for (QWidget* w = widget->parentWidget(); w; w = w->parentWidget())
        if (auto* area = qobject_cast<QScrollArea*>(w)) return area;
    return nullptr;
}

} // namespace

LetterView::LetterView(QWidget* parent)
    : QWidget(parent) {
    setAccessibleName(say("letter-view.the-letter"));
    setMouseTracking(true);
    setProperty(kReadersWords, true);
}

void LetterView::setPages(std::shared_ptr<LetterPages> pages) {
    pages_ = std::move(pages);
    places_ = pages_->places();
    message_.clear();
    if (!placeOf(chosen_)) chosen_.clear();
    under_.clear();
    fitHeight();
    update();
}

void LetterView::setMessage(const QString& text) {
    message_ = text;
    update();
}

void LetterView::setChangeable(bool on) {
    changeable_ = on;
    if (!on) closeEditor();
    update();
}

double LetterView::scale() const {
    return std::min(1.25, (width() - 2 * kPageGap) / kPageWidth);
}

void LetterView::fitHeight() {
    const int pages = pages_ ? pages_->count() : 1;
    const double height = pages_ ? pages_->size().height() : pageSizeOf(Paper::A4).height();
    setMinimumHeight(static_cast<int>(pages * (height * scale() + kPageGap) + kPageGap));
}

QPointF LetterView::cornerOf(int page) const {
    return {(width() - kPageWidth * scale()) / 2,
            kPageGap + page * (pages_->size().height() * scale() + kPageGap)};
}

QRectF LetterView::inView(const LetterPages::Place& place) const {
    const QRectF r = place.rect.adjusted(-kAirRound, -kAirRound, kAirRound, kAirRound);
    return {cornerOf(place.page) + r.topLeft() * scale(), r.size() * scale()};
}

std::optional<QRectF> LetterView::placeOf(const std::string& key) const {
    for (const LetterPages::Place& place : places_)
        if (place.key == key) return inView(place);
    return std::nullopt;
}

const LetterPages::Place* LetterView::placeAt(QPointF at) const {
    if (!changeable_) return nullptr;
    const auto it = std::find_if(places_.begin(), places_.end(),
                                 [&](const LetterPages::Place& p) { return inView(p).contains(at); });
    return it == places_.end() ? nullptr : &*it;
}

std::string LetterView::chosen() const {
    return chosen_;
}

void LetterView::choose(const std::string& key) {
    chosen_ = key;
    if (const auto at = placeOf(key))
        if (QScrollArea* area = areaOf(this))
            area->ensureVisible(static_cast<int>(at->center().x()), static_cast<int>(at->center().y()), 0,
                                static_cast<int>(at->height() / 2) + 60);
    update();
}

void LetterView::chooseNext(int by) {
    if (places_.empty() || !changeable_ || editor_) return;
    const auto at = std::find_if(places_.begin(), places_.end(),
                                 [&](const LetterPages::Place& p) { return p.key == chosen_; });
    const auto count = static_cast<std::ptrdiff_t>(places_.size());
    const std::ptrdiff_t now =
        at == places_.end() ? (by > 0 ? -1 : count) : std::distance(places_.begin(), at);
    choose(places_[static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(now + by, 0, count - 1))].key);
}

void LetterView::edit(const QString& words, const QString& generated,
                      const std::vector<std::string>& phrases) {
    const auto at = placeOf(chosen_);
    if (!at || !changeable_) return;
    closeEditor();
    editor_ = new SentenceEditor(words, generated, phrases, this);
    connect(editor_, &SentenceEditor::left, this, &LetterView::closeEditor);
    connect(editor_, &SentenceEditor::kept, this, [this](const QString& kept) {
        const std::string key = chosen_;
        closeEditor();
        Q_EMIT written(key, kept);
    });
    editor_->openOver(*at, QRectF(rect()));
    if (QScrollArea* area = areaOf(this)) area->ensureWidgetVisible(editor_, 0, em(12));
}

void LetterView::closeEditor() {
    if (!editor_) return;
    editor_->hide();
    editor_->deleteLater();
    editor_ = nullptr;
    setFocus();
    update();
}

QString LetterView::spokenValue() const {
    if (!pages_) return message_;
    if (chosen_ == "opening") return text(pages_->model().opening);
    for (const LetterSentence& s : sentencesOf(pages_->model()))
        if (s.key == chosen_) return text(pages_->words()(s.text));
    return {};
}

void LetterView::mousePressEvent(QMouseEvent* event) {
    const LetterPages::Place* place = placeAt(event->position());
    if (!place || event->button() != Qt::LeftButton) return;
    chosen_ = place->key;
    update();
    Q_EMIT editAsked();
}

void LetterView::mouseMoveEvent(QMouseEvent* event) {
    const LetterPages::Place* place = placeAt(event->position());
    const std::string key = place ? place->key : "";
    if (key == under_) return;
    under_ = key;
    setCursor(place ? Qt::IBeamCursor : Qt::ArrowCursor);
    update();
}

void LetterView::leaveEvent(QEvent*) {
    under_.clear();
    update();
}

void LetterView::paintPlaces(QPainter& p) const {
    for (const LetterPages::Place& place : places_) {
        const QRectF r = inView(place);
        const auto own = pages_->model().own.find(place.key);
        if (own != pages_->model().own.end()) {
            const QColor& bar = own->second.stale ? palette::clay : palette::moss;
            p.fillRect(QRectF(r.left() - 5, r.top(), 3, r.height()), bar);
        }
        if (!changeable_ || (place.key != chosen_ && place.key != under_)) continue;
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(palette::clay, place.key == chosen_ ? 2 : 1));
        p.drawRoundedRect(r, 4, 4);
    }
}

void LetterView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), palette::stage);
    if (!pages_) {
        p.setPen(palette::chalk);
        p.setFont(labelFont(15));
        p.drawText(rect(), Qt::AlignHCenter | Qt::AlignTop, "\n\n\n" + message_);
        return;
    }
    p.setRenderHint(QPainter::Antialiasing);
    for (int i = 0; i < pages_->count(); ++i) {
        p.save();
        p.translate(cornerOf(i));
        p.scale(scale(), scale());
        pages_->paint(p, i);
        p.restore();
    }
    paintPlaces(p);
}

} // namespace jg::ui
