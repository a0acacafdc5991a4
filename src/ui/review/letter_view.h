// The letter as it will look.
#pragma once

#include "letter/letter_pages.h"

#include <QWidget>

#include <memory>

namespace jg::ui {

/// All pages below each other, fitted to the width; scrolls with its area.
class LetterView : public QWidget {
public:
    explicit LetterView(QWidget* parent = nullptr);
    void setPages(std::shared_ptr<LetterPages> pages);
    void setMessage(const QString& text);

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { fitHeight(); }

private:
    double scale() const;
    void fitHeight();
    std::shared_ptr<LetterPages> pages_;
    QString message_;
};

} // namespace jg::ui
