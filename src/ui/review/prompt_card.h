// What may be said at a stop, beside the picture while the coach talks.
#pragma once

#include "review/prompt.h"

#include <QFrame>

class QLabel;

namespace jg::ui {

/// Number, reason and cue in the reader's language, and what comes next in the window's.
class PromptCard : public QFrame {
public:
    explicit PromptCard(QWidget* parent = nullptr);
    void showPrompt(const Stop& stop, const Prompt& prompt, const Words& reader);

private:
    QLabel* words_;
};

} // namespace jg::ui
