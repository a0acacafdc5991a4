// SPDX-License-Identifier: GPL-3.0-or-later
// Say: the running order, and recording stop by stop.
#pragma once

#include "desk/sending/letter_choice.h"
#include "review/tell/prompt.h"
#include "ui/stages/say/narration.h"
#include "ui/stages/say/running_order.h"
#include "ui/stages/say/take_tools.h"

#include <map>

class QLabel;

namespace jg::ui {

class PenRow;
class PromptCard;
class UnsaidBox;

class SayBench : public Bench {
    Q_OBJECT
public:
    SayBench(ReviewContext& context, Microphone& microphone, Loudspeaker& loudspeaker);
    void refresh() override;
    void enter() override;
    void leave() override;
    void frameChanged() override;
    Handlers handlers() override;
    StageTool* tool() override { return &narration_; }
    KeyHints hints() const override;
    std::optional<std::string> focus() const override;
    std::optional<std::string> ghostOfMeasure() const override;
    bool takeBack() override;
    bool recording() const { return narration_.recording(); }

private:
    PerformEdit editor();
    const Stop* current() const { return order_.current(); }
    void showStop();
    void start(int row, const std::optional<TakeHead>& head = {});
    /// From the beginning, or from where it is listened to.
    void sayAgain();
    void finish();
    int nextUnsaid(int row) const;
    void next();
    /// Plays the chosen stop back: its sound with the frames and strokes as recorded.
    void listen();
    void heard();
    void showTools();
    void rebuildUnsaid();
    void rebuildPrompt();
    void chooseLength();
    QImage stillOf(const Stop& stop);

    Narration narration_;
    Microphone& microphone_;
    RowList* list_;
    RunningOrder order_;
    TakeTools takes_;
    QLabel* summary_;
    PromptCard* prompt_;
    UnsaidBox* unsaid_;
    PenRow* pens_;
    QLabel* mic_;
    QLabel* trouble_;                                 ///< of the sound, while somebody talks
    std::map<std::pair<int, qint64>, QImage> stills_; ///< by delivery and frame
};

} // namespace jg::ui
