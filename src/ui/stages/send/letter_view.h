// SPDX-License-Identifier: GPL-3.0-or-later
// The letter as it will look, and its sentences changed where they stand.
#pragma once

#include "letter/letter_pages.h"
#include "review/tell/letter_sentences.h"

#include "ui/kit/spoken.h"

#include <QWidget>

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace jg::ui {

class SentenceEditor;

/// All pages below each other, fitted to the width; scrolls with its area. A sentence that may be changed is
/// chosen by mouse or keys; the coach's own ones have a bar beside them, those that no longer fit a clay one.
class LetterView : public QWidget, public Spoken {
    Q_OBJECT
public:
    explicit LetterView(QWidget* parent = nullptr);
    void setPages(std::shared_ptr<LetterPages> pages);
    void setMessage(const QString& text);
    /// False for a letter that was sent: it stays as it is.
    void setChangeable(bool on);

    /// Chooses the next sentence (1) or the one before (-1) and brings it into sight.
    void chooseNext(int by);
    /// The sentence that is chosen; empty = none.
    std::string chosen() const;
    void choose(const std::string& key);
    /// Opens the chosen sentence to be written anew, with what the coach wrote there before on offer.
    /// `generated` is what the letter would say; written() tells what came of it.
    void edit(const QString& words, const QString& generated, const std::vector<std::string>& phrases);
    bool editing() const { return editor_ != nullptr; }
    /// Where a sentence stands, in this widget's coordinates; nothing for one that is not there.
    std::optional<QRectF> placeOf(const std::string& key) const;

    QAccessible::Role spokenRole() const override { return QAccessible::Document; }
    /// The chosen sentence.
    QString spokenValue() const override;

Q_SIGNALS:
    /// Somebody wants to change the chosen sentence.
    void editAsked();
    /// A sentence was written; empty words = as the letter would say it.
    void written(const std::string& key, const QString& words);

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { fitHeight(); }
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;

private:
    double scale() const;
    QPointF cornerOf(int page) const;
    QRectF inView(const LetterPages::Place& place) const;
    const LetterPages::Place* placeAt(QPointF at) const;
    void fitHeight();
    void paintPlaces(QPainter& p) const;
    void closeEditor();

    std::shared_ptr<LetterPages> pages_;
    std::vector<LetterPages::Place> places_;
    QString message_;
    std::string chosen_, under_; ///< keys; under_ is below the pointer
    SentenceEditor* editor_ = nullptr;
    bool changeable_ = true;
};

} // namespace jg::ui
