// SPDX-License-Identifier: GPL-3.0-or-later
// What may be said at a stop, beside the picture while the coach talks.
#pragma once

#include "review/tell/prompt.h"

#include <QFrame>

class QLabel;

namespace jg::ui {

/// Number, reason, cue and what comes next for who talks, in the window's language; the cue in the reader's,
/// too, where that is another.
class PromptCard : public QFrame {
public:
    explicit PromptCard(QWidget* parent = nullptr);
    void showPrompt(const Stop& stop, const Prompt& prompt, const Words& reader);

private:
    QLabel* words_;
};

} // namespace jg::ui
