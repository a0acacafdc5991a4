#include "ui/review/letter_view.h"

#include "letter/palette.h"
#include "ui/text_scale.h"
#include "ui/words.h"

namespace jg::ui {

namespace {
constexpr double kGap = 18;
}

LetterView::LetterView(QWidget* parent)
    : QWidget(parent) {
    setAccessibleName(say("letter-view.the-letter"));
}

void LetterView::setPages(std::shared_ptr<LetterPages> pages) {
    pages_ = std::move(pages);
    message_.clear();
    fitHeight();
    update();
}

void LetterView::setMessage(const QString& text) {
    message_ = text;
    update();
}

double LetterView::scale() const {
    return std::min(1.25, (width() - 2 * kGap) / kPageWidth);
}

void LetterView::fitHeight() {
    const int pages = pages_ ? pages_->count() : 1;
    setMinimumHeight(static_cast<int>(pages * (kPageHeight * scale() + kGap) + kGap));
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
    for (int i = 0; i < pages_->count(); ++i) {
        p.save();
        p.translate((width() - kPageWidth * scale()) / 2, kGap + i * (kPageHeight * scale() + kGap));
        p.scale(scale(), scale());
        p.setRenderHint(QPainter::Antialiasing);
        pages_->paint(p, i);
        p.restore();
    }
}

} // namespace jg::ui
