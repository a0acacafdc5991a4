// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/key_cap.h"

#include "ui/kit/theme.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QTimer>

namespace jg::ui {

namespace {

constexpr int kGap = 6;

QLabel* cap(const QString& key) {
    auto* l = new QLabel(key);
    l->setFont(labelFont(12, true));
    l->setStyleSheet(QString("background:%1;border:1px solid %2;border-radius:4px;padding:0 6px;")
                         .arg(palette::sheet.name(), palette::rule.name()));
    return l;
}

QLabel* wordsOf(const KeyHint& hint) {
    auto* words = quiet(hint.what, 12.5);
    words->setWordWrap(false);
    return words;
}

/// The key and its words as one button.
QPushButton* capButton(const KeyHint& hint, QLabel* key, QLabel* words) {
    auto* button = new QPushButton;
    button->setObjectName("hint");
    button->setAccessibleName(hint.what + " (" + hint.key + ")");
    button->setFocusPolicy(Qt::NoFocus); // every one has its key
    button->setCursor(Qt::PointingHandCursor);
    auto* row = new QHBoxLayout(button);
    row->setContentsMargins(0, 0, 4, 0);
    row->setSpacing(kGap);
    for (QLabel* label : {key, words}) {
        label->setAttribute(Qt::WA_TransparentForMouseEvents);
        row->addWidget(label);
    }
    return button;
}

} // namespace

Foot::Foot(QWidget* parent)
    : QWidget(parent) {
    setFixedHeight(em(30));
    setAutoFillBackground(true);
    QPalette p = palette();
    p.setColor(QPalette::Window, palette::shade);
    setPalette(p);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(20, 3, 20, 3);
    hintBox_ = new QWidget;
    hints_ = new QHBoxLayout(hintBox_);
    hints_->setContentsMargins(0, 0, 0, 0);
    hints_->setSpacing(kGap);
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
    shown_.clear();
    clearLayout(*hints_);
    for (const KeyHint& hint : hints) {
        Hint one{cap(hint.key), wordsOf(hint), nullptr};
        if (hint.action.isEmpty()) {
            hints_->addWidget(one.cap);
            hints_->addWidget(one.words);
        } else {
            one.button = capButton(hint, one.cap, one.words);
            connect(one.button, &QPushButton::clicked, this, [this, id = hint.action] { Q_EMIT asked(id); });
            hints_->addWidget(one.button);
        }
        hints_->addSpacing(kGap);
        shown_.push_back(one);
    }
    fit();
}

/// Where there is no room for all words the last keys stand alone, with their words as a tip.
void Foot::fit() {
    const auto widthOf = [](const Hint& h, bool words) {
        const int both = h.cap->sizeHint().width() + (words ? kGap + h.words->sizeHint().width() : 0);
        return both + (h.button ? 4 : 0) + 3 * kGap;
    };
    const int room = width() - layout()->contentsMargins().left() - layout()->contentsMargins().right() -
                     kept_->sizeHint().width() - kGap;
    int all = 0;
    for (const Hint& h : shown_) all += widthOf(h, true);
    for (auto h = shown_.rbegin(); h != shown_.rend(); ++h) {
        const bool words = all <= room;
        if (!words) all -= widthOf(*h, true) - widthOf(*h, false);
        h->words->setVisible(words);
        QWidget* tipped = h->button ? static_cast<QWidget*>(h->button) : h->cap;
        tipped->setToolTip(words ? QString() : h->words->text());
        if (h->button) h->button->setFixedSize(widthOf(*h, words) - 3 * kGap, em(24));
    }
}

void Foot::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fit();
}

void Foot::tell(const QString& sentence, int seconds) {
    message_->setText(sentence);
    message_->setToolTip(sentence);
    message_->setVisible(!sentence.isEmpty());
    hintBox_->setVisible(sentence.isEmpty());
    const int serial = ++serial_;
    if (seconds <= 0 || sentence.isEmpty()) return;
    QTimer::singleShot(seconds * 1000, this, [this, serial] {
        if (serial == serial_) tell({}, 0);
    });
}

void Foot::setKept(const QString& text) {
    kept_->setText(text);
    fit();
    layout()->activate(); // a longer word stood cut until the next event
}

QString Foot::sentence() const {
    return message_->text();
}

} // namespace jg::ui
