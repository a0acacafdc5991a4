// SPDX-License-Identifier: GPL-3.0-or-later
// Look: the film, what was asked, what the film can't answer.
#pragma once

#include "ui/bench/bench.h"
#include "ui/stages/look/veil_tools.h"

#include <QPointer>

namespace jg {
class Job;
}

namespace jg::ui {

class LookBench : public Bench {
    Q_OBJECT
public:
    explicit LookBench(ReviewContext& context);
    void refresh() override;
    Handlers handlers() override;
    StageTool* tool() override { return &veils_; }
    void leave() override { veils_.stopDrawing(); }
    KeyHints hints() const override;

private:
    void addFilms(QVBoxLayout& column);
    QWidget* filmCard(const Clip& clip);
    void addDeliveries(const Clip& clip, QVBoxLayout& box);
    void addPitch(QVBoxLayout& box);
    void addLead(QVBoxLayout& box);
    void addConditions(QVBoxLayout& box);
    /// Who else is in the picture, and is hidden.
    void addOthers(QVBoxLayout& box);
    /// What the film's button is called.
    QString filmButton(const Clip& clip) const;
    void lookAt(const ClipId& clip, std::optional<FrameSpan> cut);
    void takeWhole();
    void toggleCut();
    /// Looks the film in hand over again, beside the work.
    void lookAgain();
    /// The delivery aside with something marked on it there; null without one.
    const DeliveryMarks* marked(const ClipId& clip, std::optional<FrameSpan> cut) const;
    static QString takeAgain(const DeliveryMarks& d);

    VeilTools veils_;
    QVBoxLayout* filmsBox_;
    QWidget* films_ = nullptr; ///< made anew at each change
    QPointer<Job> again_;      ///< the look at the film that is under way
};

} // namespace jg::ui
