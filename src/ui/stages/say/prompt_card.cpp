// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/prompt_card.h"

#include "ui/kit/readers_words.h"
#include "ui/kit/theme.h"

#include <QVBoxLayout>

namespace jg::ui {

namespace {

QString paragraph(const QString& lead, const QString& words) {
    if (words.isEmpty()) return {};
    const QString head = lead.isEmpty() ? QString() : "<i>" + lead.toHtmlEscaped() + "</i> ";
    return "<p style=\"margin:5px 0 0 0\">" + head + words.toHtmlEscaped() + "</p>";
}

} // namespace

PromptCard::PromptCard(QWidget* parent)
    : QFrame(parent) {
    setObjectName("card");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(14, 10, 12, 10);
    words_ = plain("", 13.5);
    words_->setObjectName("prompt");
    words_->setTextFormat(Qt::RichText);
    words_->setProperty(kReadersWords, true);
    column->addWidget(words_);
}

void PromptCard::showPrompt(const Stop& stop, const Prompt& prompt, const Words& reader) {
    QString html = "<b>" + text(stop.title).toHtmlEscaped() + "</b>";
    if (!stop.words.empty())
        html += paragraph({}, text(stop.words));
    else
        html += paragraph({}, say(prompt.number)) + paragraph(say("prompt-card.change"), say(prompt.change)) +
                paragraph(say("prompt-card.why"), say(prompt.why)) +
                paragraph(say("prompt-card.feel"), say(prompt.feel));
    // The cue as the reader will have it, where that is another language.
    if (const QString feel = text(reader(prompt.feel)); stop.words.empty() && feel != say(prompt.feel))
        html += paragraph(say("prompt-card.as-read"), feel);
    html += paragraph(say("prompt-card.then"), say(prompt.next));
    words_->setText(html);
}

} // namespace jg::ui
