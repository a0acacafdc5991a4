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

/// The key and its words as one button.
QPushButton* capButton(const KeyHint& hint) {
    auto* button = new QPushButton;
    button->setObjectName("hint");
    button->setAccessibleName(hint.what + " (" + hint.key + ")");
    button->setFocusPolicy(Qt::NoFocus); // every one has its key
    button->setCursor(Qt::PointingHandCursor);
    auto* row = new QHBoxLayout(button);
    row->setContentsMargins(0, 0, 4, 0);
    row->setSpacing(6);
    auto* key = cap(hint.key);
    auto* words = quiet(hint.what, 12.5);
    words->setWordWrap(false);
    for (QLabel* label : {key, words}) {
        label->setAttribute(Qt::WA_TransparentForMouseEvents);
        row->addWidget(label);
    }
    button->setFixedSize(row->sizeHint().width(), 24);
    return button;
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
        if (item->widget())
            item->widget()->hide(), item->widget()->deleteLater(); // it may be the one clicked
        delete item;
    }
    for (const KeyHint& hint : hints) {
        if (hint.action.isEmpty()) {
            hints_->addWidget(cap(hint.key));
            auto* words = quiet(hint.what, 12.5);
            words->setWordWrap(false);
            hints_->addWidget(words);
        } else {
            auto* button = capButton(hint);
            connect(button, &QPushButton::clicked, this, [this, id = hint.action] { Q_EMIT asked(id); });
            hints_->addWidget(button);
        }
        hints_->addSpacing(6);
    }
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
}

QString Foot::sentence() const {
    return message_->text();
}

} // namespace jg::ui
