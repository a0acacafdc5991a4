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

/// The key and its words in one box.
void fill(QWidget* box, const KeyHint& hint) {
    auto* row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 4, 0);
    row->setSpacing(kGap);
    for (QLabel* label : {cap(hint.key), wordsOf(hint)}) {
        label->setAttribute(Qt::WA_TransparentForMouseEvents);
        row->addWidget(label);
    }
}

QPushButton* capButton(const KeyHint& hint) {
    auto* button = new QPushButton;
    button->setObjectName("hint");
    button->setAccessibleName(hint.what + " (" + hint.key + ")");
    button->setFocusPolicy(Qt::NoFocus); // every one has its key
    button->setCursor(Qt::PointingHandCursor);
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
    hints_->setSpacing(3 * kGap);
    hintBox_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred); // keys never hold a window wide
    row->addWidget(hintBox_, 1);
    message_ = plain({}, 12.5, true);
    message_->setWordWrap(false);
    message_->setObjectName("foot-message");
    row->addWidget(message_, 1);
    kept_ = quiet({}, 12);
    kept_->setWordWrap(false);
    row->addWidget(kept_);
    message_->hide();
}

Foot::Hint Foot::add(const KeyHint& hint) {
    QWidget* box = nullptr;
    if (hint.action.isEmpty()) {
        box = new QWidget;
    } else {
        auto* button = capButton(hint);
        connect(button, &QPushButton::clicked, this, [this, id = hint.action] { Q_EMIT asked(id); });
        box = button;
    }
    fill(box, hint);
    const Hint added{box, box->layout()->sizeHint().width()};
    box->setFixedSize(added.width, em(24));
    hints_->addWidget(box);
    return added;
}

void Foot::setHints(const KeyHints& hints) {
    shown_.clear();
    clearLayout(*hints_);
    for (const KeyHint& hint : hints) shown_.push_back(add(hint));
    more_ = add({"F1", say("foot.more-keys"), "shortcuts"});
    hints_->addStretch(1);
    fit();
}

void Foot::fit() {
    const int room = width() - layout()->contentsMargins().left() - layout()->contentsMargins().right() -
                     kept_->sizeHint().width() - kGap;
    const int gap = hints_->spacing();
    int all = 0;
    for (const Hint& h : shown_) all += h.width + gap;
    const bool enough = all <= room;
    int left = room - (enough ? 0 : more_.width + gap);
    for (const Hint& h : shown_) {
        left -= h.width + gap;
        h.box->setVisible(left >= 0);
    }
    if (more_.box) more_.box->setVisible(!enough);
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
