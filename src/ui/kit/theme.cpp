// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/theme.h"

#include "ui/kit/spoken.h"

#include "desk/keeping/places.h"

#include <QFile>
#include <QFormLayout>
#include <QPainter>
#include <QProxyStyle>
#include <QStyle>
#include <QStyleOption>
#include <QSvgRenderer>

namespace jg::ui {

namespace {

/// Fusion with our focus ring: a line in the accent, drawn where keys go.
class OwnStyle final : public QProxyStyle {
public:
    OwnStyle()
        : QProxyStyle("Fusion") {}
    int styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget,
                  QStyleHintReturn* data) const override {
        if (hint == SH_ToolTip_WakeUpDelay) return 500;
        if (hint == SH_DialogButtonBox_ButtonsHaveIcons) return 0;
        return QProxyStyle::styleHint(hint, option, widget, data);
    }
};

QPalette colours() {
    QPalette p;
    p.setColor(QPalette::Window, palette::paper);
    p.setColor(QPalette::Base, palette::sheet);
    p.setColor(QPalette::AlternateBase, palette::paper);
    p.setColor(QPalette::Button, palette::sheet);
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(role, palette::ink);
    p.setColor(QPalette::PlaceholderText, palette::quiet);
    p.setColor(QPalette::Highlight, palette::clay);
    p.setColor(QPalette::HighlightedText, Qt::white);
    p.setColor(QPalette::ToolTipBase, palette::ink);
    p.setColor(QPalette::ToolTipText, palette::chalk);
    p.setColor(QPalette::Link, palette::clay);
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, palette::quiet);
    return p;
}

QString sheetText() {
    QString s = R"(
QPushButton { border: 1px solid %ink; border-radius: 6px; padding: 6px 14px; background: %sheet; color: %ink; font-weight: 600; }
QPushButton:hover { background: %shade; }
QPushButton:pressed { background: %rule; }
QPushButton:focus { border: 2px solid %clay; padding: 5px 13px; }
QPushButton:disabled { color: %quiet; border-color: %rule; background: %paper; }
QPushButton#main { background: %clay; border-color: %clay; color: white; }
QPushButton#main:hover { background: %deep; }
QPushButton#main:focus { border: 2px solid %ink; }
QPushButton#main:disabled { background: %rule; border-color: %rule; color: %quiet; }
QPushButton#link, QPushButton#reader { border: none; background: transparent; padding: 4px 8px; color: %ink; }
QPushButton#link:hover, QPushButton#reader:hover { text-decoration: underline; }
QPushButton#link:focus, QPushButton#reader:focus { border: 1px solid %clay; padding: 3px 7px; }
QPushButton#hint { border: none; background: transparent; padding: 0; }
QPushButton#hint:hover { background: %paper; }
QPushButton#choice { padding: 5px 10px; font-weight: 400; }
QPushButton#choice:checked { background: %moss; border-color: %moss; color: %chalk; }
QLineEdit, QPlainTextEdit, QComboBox, QSpinBox, QDateEdit, QListWidget { border: 1px solid %rule; border-radius: 5px; padding: 5px 8px; background: %sheet; selection-background-color: %clay; }
QLineEdit:focus, QPlainTextEdit:focus, QComboBox:focus, QSpinBox:focus, QDateEdit:focus { border-color: %clay; }
QSpinBox { padding-right: 4px; }
QComboBox::drop-down, QDateEdit::drop-down { border: none; width: 24px; }
QComboBox::down-arrow, QDateEdit::down-arrow { image: url(%down); width: 14px; height: 14px; }
QComboBox QAbstractItemView { background: %sheet; border: 1px solid %rule; selection-background-color: %clay; selection-color: white; }
QScrollArea { border: none; background: transparent; }
QScrollBar:vertical { width: 10px; background: transparent; margin: 0; }
QScrollBar::handle:vertical { background: %rule; border-radius: 4px; min-height: 32px; }
QScrollBar::add-line, QScrollBar::sub-line { height: 0; }
QToolTip { background: %ink; color: %chalk; border: none; padding: 4px 6px; }
QTableWidget { background: transparent; alternate-background-color: %sheet; border: none; selection-background-color: %shade; selection-color: %ink; }
QTableWidget { outline: 0; }
QTableWidget::item { border: none; border-bottom: 1px solid %rule; padding: 2px 6px; }
QTableWidget::item:selected { background: %shade; color: %ink; }
QHeaderView { background: transparent; }
QHeaderView::section { background: transparent; border: none; border-bottom: 1px solid %rule; padding: 4px 6px; color: %quiet; font-weight: 600; }
QFrame#card { background: %sheet; border: 1px solid %rule; border-radius: 8px; }
QFrame#pain { background: %sheet; border: 1px solid %rule; border-left: 4px solid %clay; border-radius: 8px; }
QFrame#note { background: %shade; border-radius: 6px; }
QFrame#rule { background: %rule; max-height: 1px; min-height: 1px; border: none; }
QProgressBar { border: 1px solid %rule; border-radius: 5px; background: %sheet; text-align: center; height: %barpx; }
QProgressBar::chunk { background: %moss; border-radius: 4px; }
)";
    const std::pair<const char*, QColor> tokens[] = {{"%ink", palette::ink},     {"%sheet", palette::sheet},
                                                     {"%shade", palette::shade}, {"%rule", palette::rule},
                                                     {"%clay", palette::clay},   {"%quiet", palette::quiet},
                                                     {"%paper", palette::paper}, {"%deep", palette::clayDeep},
                                                     {"%moss", palette::moss},   {"%chalk", palette::chalk}};
    for (const auto& [token, color] : tokens) s.replace(token, color.name());
    s.replace("%bar", QString::number(em(18)));
    s.replace("%down", QString::fromStdString((dataFolder() / "icons" / "down.svg").string()));
    return s;
}

} // namespace

bool dress(QApplication& app) {
    letReadersHear();
    QApplication::setStyle(new OwnStyle);
    const bool fonts = loadFonts(dataFolder() / "fonts");
    QApplication::setFont(labelFont(13));
    QApplication::setPalette(colours());
    app.setStyleSheet(sheetText());
    return fonts;
}

QIcon icon(const QString& name, const QColor& color) {
    QFile file(QString::fromStdString((dataFolder() / "icons" / (name.toStdString() + ".svg")).string()));
    if (!file.open(QIODevice::ReadOnly)) return {};
    QByteArray svg = file.readAll();
    svg.replace("#23201C", color.name().toUtf8());
    QSvgRenderer renderer(svg);
    QIcon result;
    for (const int size : {20, 40, 60}) {
        QPixmap pixmap(size, size);
        pixmap.fill(Qt::transparent);
        QPainter painter(&pixmap);
        renderer.render(&painter);
        result.addPixmap(pixmap);
    }
    return result;
}

namespace {
QLabel* label(const QString& text, const QFont& font, const QColor& color) {
    auto* l = new QLabel(text);
    l->setFont(font);
    l->setWordWrap(true);
    l->setTextFormat(Qt::PlainText);
    QPalette p = l->palette();
    p.setColor(QPalette::WindowText, color);
    l->setPalette(p);
    return l;
}
} // namespace

QLabel* heading(const QString& text, double px) {
    return label(text, headingFont(px), palette::ink);
}
QLabel* plain(const QString& text, double px, bool bold) {
    return label(text, labelFont(px, bold), palette::ink);
}
QLabel* quiet(const QString& text, double px) {
    return label(text, labelFont(px), palette::quiet);
}

QPushButton* mainButton(const QString& text) {
    auto* b = new QPushButton(text);
    b->setObjectName("main");
    b->setCursor(Qt::PointingHandCursor);
    return b;
}

QLabel* problemLabel(const char* name) {
    auto* label = plain("", 13, true);
    label->setObjectName(name);
    label->setWordWrap(true);
    inClay(label);
    label->hide();
    return label;
}

void inClay(QLabel* label) {
    QPalette p = label->palette();
    p.setColor(QPalette::WindowText, palette::clay);
    label->setPalette(p);
}

void clearLayout(QLayout& layout) {
    while (QLayoutItem* item = layout.takeAt(0)) {
        if (QWidget* w = item->widget()) w->hide(), w->deleteLater();
        if (QLayout* within = item->layout()) clearLayout(*within);
        delete item;
    }
}

void alignLabels(QFormLayout& form) {
    const int width = em(128);
    for (int row = 0; row < form.rowCount(); ++row)
        if (QLayoutItem* label = form.itemAt(row, QFormLayout::LabelRole); label && label->widget())
            label->widget()->setMinimumWidth(width);
}

void setAsMain(QPushButton* button, bool on) {
    const QString name = on ? "main" : "";
    if (button->objectName() == name) return;
    button->setObjectName(name);
    button->style()->unpolish(button);
    button->style()->polish(button);
}

QPushButton* plainButton(const QString& text) {
    auto* b = new QPushButton(text);
    b->setCursor(Qt::PointingHandCursor);
    return b;
}

QFrame* rule() {
    auto* f = new QFrame;
    f->setObjectName("rule");
    return f;
}

} // namespace jg::ui
