#include "ui/key_cap.h"

#include "ui/theme.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QTimer>

namespace jg::ui {

namespace {
QLabel* cap(const QString& key) {
    auto* l = new QLabel(key);
    l->setFont(textFont(12, true));
    l->setStyleSheet(QString("background:%1;border:1px solid %2;border-radius:4px;padding:0 6px;")
                         .arg(palette::sheet.name(), palette::rule.name()));
    return l;
}
} // namespace

Foot::Foot(QWidget* parent)
    : QWidget(parent) {
    setFixedHeight(30);
    setAutoFillBackground(true);
    QPalette p = palette();
    p.setColor(QPalette::Window, palette::shade);
    setPalette(p);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(20, 3, 20, 3);
    hintBox_ = new QWidget;
    hints_ = new QHBoxLayout(hintBox_);
    hints_->setContentsMargins(0, 0, 0, 0);
    hints_->setSpacing(6);
    row->addWidget(hintBox_);
    message_ = plain({}, 12.5, true);
    message_->setWordWrap(false);
    message_->setObjectName("foot-message");
    row->addWidget(message_, 1);
    kept_ = quiet({}, 12);
    kept_->setWordWrap(false);
    row->addWidget(kept_);
    message_->hide();
    row->insertStretch(1);
}

void Foot::setHints(const KeyHints& hints) {
    while (QLayoutItem* item = hints_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    for (const auto& [key, what] : hints) {
        hints_->addWidget(cap(key));
        auto* words = quiet(what, 12.5);
        words->setWordWrap(false);
        hints_->addWidget(words);
        hints_->addSpacing(8);
    }
}

void Foot::say(const QString& sentence, int seconds) {
    message_->setText(sentence);
    message_->setToolTip(sentence);
    message_->setVisible(!sentence.isEmpty());
    hintBox_->setVisible(sentence.isEmpty());
    const int serial = ++serial_;
    if (seconds <= 0 || sentence.isEmpty()) return;
    QTimer::singleShot(seconds * 1000, this, [this, serial] {
        if (serial == serial_) say({}, 0);
    });
}

void Foot::setKept(const QString& text) {
    kept_->setText(text);
}

QString Foot::sentence() const {
    return message_->text();
}

} // namespace jg::ui
