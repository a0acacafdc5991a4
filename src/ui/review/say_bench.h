// Say: the running order, and recording stop by stop.
#pragma once

#include "desk/letter_choice.h"
#include "desk/recorder.h"
#include "review/juxta.h"
#include "review/prompt.h"
#include "ui/review/bench.h"
#include "ui/row_list.h"
#include "voice/loudspeaker.h"

#include <functional>
#include <map>

class QLabel;

namespace jg::ui {

class PromptCard;
class UnsaidBox;

class SayBench : public Bench, public StageTool {
    Q_OBJECT
public:
    SayBench(ReviewContext& context, Microphone& microphone, Loudspeaker& loudspeaker);
    void refresh() override;
    void enter() override;
    void leave() override;
    void frameChanged() override;
    Handlers handlers() override;
    StageTool* tool() override { return this; }
    KeyHints hints() const override;
    std::optional<std::string> focus() const override;
    std::optional<std::string> ghostOfMeasure() const override;
    bool recording() const { return recorder_.recording(); }

    bool press(ImagePoint at, double reach) override;
    void drag(ImagePoint at) override;
    void hover(ImagePoint at) override;
    void paintOver(QPainter& p, const ViewTransform& view) override;

private:
    void offerUnfinished();
    const Stop* stopAt(int row) const;
    const Stop* current() const { return stopAt(list_->current()); }
    void showStop();
    void start(int row, const std::optional<TakeHead>& head = {});
    /// From the beginning, or from where it is listened to.
    void sayAgain();
    void finish();
    void next();
    /// Plays the chosen stop back: its sound with the frames and strokes as recorded.
    void listen();
    void stopListening();
    void followSound();
    void add(const std::string& finding);
    void addRecap();
    void addFirstUnsaid();
    void moveStop(int by);
    void removeStop();
    void toggleMarks();
    void wipe();
    void heard();
    void rebuildUnsaid();
    QString unsaidInWords(const Judged& judged) const;
    void rebuildPrompt();
    void addSeveral();
    void addHere();
    void writeWords();
    void toggleMotion();
    void chooseLength();
    void chooseBeside();
    void putBeside(const std::optional<JuxtaKey>& other);
    /// Puts a changed stop in the place of the chosen one.
    void changeStop(const Message& label, const std::function<void(Stop&)>& change);
    QImage stillOf(const Stop& stop);

    Recorder recorder_;
    Microphone& microphone_;
    Loudspeaker& loudspeaker_;
    QTimer listening_;
    QLabel* summary_;
    RowList* list_;
    PromptCard* prompt_;
    UnsaidBox* unsaid_;
    QLabel* mic_;
    QLabel* trouble_; ///< of the sound, while somebody talks
    bool marks_ = true;
    std::vector<std::vector<ImagePoint>> strokes_;
    std::map<std::pair<int, qint64>, QImage> stills_; ///< by delivery and frame
    int serial_ = 0;
};

} // namespace jg::ui
