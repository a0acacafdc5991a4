// Look: the film, what was asked, what the film can't answer.
#pragma once

#include "ui/review/bench.h"

namespace jg::ui {

class LookBench : public Bench {
    Q_OBJECT
public:
    explicit LookBench(ReviewContext& context);
    void refresh() override;
    bool act(const QString& id) override;
    KeyHints hints() const override {
        return {{"Space", "play"},
                {"\u2190 \u2192", "one frame"},
                {"B", "slower"},
                {"Enter", "seen, on to the positions"}};
    }

private:
    void addFilms();
    void addDeliveries(const Clip& clip, QVBoxLayout& box);
    void takeCut(std::optional<FrameSpan> cut);
    void toggleCut();

    struct DeliveryRow {
        FrameSpan span;
        QPushButton* take;
    };
    std::vector<DeliveryRow> deliveries_;
};

} // namespace jg::ui
