// SPDX-License-Identifier: GPL-3.0-or-later
// The bench beside the picture: what the stage at hand needs.
#pragma once

#include "desk/session/review_session.h"
#include "kinematics/own_measure.h"
#include "ui/film/playhead.h"
#include "ui/film/ribbon.h"
#include "ui/film/stage_view.h"
#include "ui/forms/row_editors.h"
#include "ui/kit/actions.h"
#include "ui/kit/key_cap.h"
#include "ui/kit/words.h"

#include <QVBoxLayout>
#include <QWidget>

#include <functional>
#include <optional>

namespace jg::ui {

/// Performs an edit of the review; false when it was refused, which is said then.
using PerformEdit = std::function<bool(const Message& label, std::vector<Change> changes)>;

/// What every bench works with.
struct ReviewContext {
    ReviewSession& session;
    Playhead& playhead;
    StageView& stage;
    Ribbon& ribbon;
    std::function<void(const QString&)> say;       ///< a sentence in the foot
    std::function<void(Stage)> goTo;               ///< another stage
    std::function<void(const QString&)> runAction; ///< an action of the table
    std::function<void()> redraw;                  ///< the marks on the picture
    /// Keeps a measure of the coach's own; returns its id.
    std::function<Result<std::string>(const OwnMeasureOrder&)> keepMeasure;
    std::function<Status(LengthUnit)> keepLengths; ///< for all reviews of the library
    /// Opens the form of a drill of the coach's own; what is kept stands in the playbook then.
    std::function<void(const Drill&, const RowKept&)> writeDrill;
    /// Shows what stands beside a stop next to the picture; null = the picture alone.
    std::function<void(const Stop*)> showBeside;
    std::function<void()> showMiddle; ///< what the bench has for the middle has changed
    std::function<void()> showHints;  ///< other keys matter now
};

/// One bench. Reads the session and performs edits; the review place calls refresh() after each change.
class Bench : public QWidget {
    Q_OBJECT
public:
    explicit Bench(ReviewContext& context);
    virtual void refresh() = 0;
    /// Comes to the front / leaves it.
    virtual void enter() {}
    virtual void leave() {}
    virtual void frameChanged() {}
    /// What this bench's actions do.
    virtual Handlers handlers() = 0;
    /// Takes back what is not an edit of the review yet; false when there is nothing of the kind.
    virtual bool takeBack() { return false; }
    /// Takes away what is chosen on the picture; false when nothing is.
    virtual bool removeChosen() { return false; }
    /// True when the action was this bench's.
    bool act(const QString& id);
    bool knows(const QString& id);
    /// What stands in the place of the picture; null = the picture.
    virtual QWidget* middle() const { return nullptr; }
    virtual StageTool* tool() { return nullptr; }
    virtual KeyHints hints() const = 0;
    /// What the marks on the picture are about; nothing = all.
    virtual std::optional<std::string> focus() const { return std::nullopt; }
    /// The measure whose target is drawn as a ghost; nothing = none.
    virtual std::optional<std::string> ghostOfMeasure() const { return std::nullopt; }
    virtual QString stageCaption() const { return {}; }

protected:
    /// Performs an edit and says why when it is refused.
    bool perform(const Message& label, std::vector<Change> changes);
    const Review& review() const { return c_.session.review(); }
    /// The delivery in hand.
    const DeliveryMarks& delivery() const { return c_.session.delivery(); }
    const Playbook& playbook() const { return c_.session.playbook(); }
    ReviewContext& c_;
    QVBoxLayout* column_;

private:
    Handlers handlers_; ///< asked for once
};

} // namespace jg::ui
