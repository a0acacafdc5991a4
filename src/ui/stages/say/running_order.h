// SPDX-License-Identifier: GPL-3.0-or-later
// What stands in the running order, and how it is changed.
#pragma once

#include "review/compare/juxta.h"
#include "ui/bench/bench.h"
#include "ui/kit/row_list.h"

#include <functional>
#include <optional>
#include <string>

namespace jg::ui {

/// Changes the stops of a review; each change is one edit. The chosen row of `list` is the stop at hand.
/// Lives beside its bench.
class RunningOrder {
public:
    RunningOrder(QWidget* parent, ReviewContext& context, RowList& list, PerformEdit perform)
        : parent_(parent)
        , c_(context)
        , list_(list)
        , perform_(std::move(perform)) {}

    const Stop* stopAt(int row) const;
    const Stop* current() const { return stopAt(list_.current()); }
    /// A finding that no stop speaks of, in words.
    QString unsaidInWords(const Judged& judged) const;

    void add(const std::string& finding);
    void addFirstUnsaid();
    /// All findings that no stop speaks of, to be ticked.
    void addSeveral();
    /// A stop on the frame that is shown, about what no finding names.
    void addHere();
    void addRecap();
    void move(int by);
    void remove();
    /// What stands in the captions, from the prompt until it is written.
    void writeWords();
    void toggleMotion();
    /// An earlier delivery beside the chosen stop, or none; `then` comes after it was changed.
    void chooseBeside(const std::function<void()>& then);

private:
    const Review& review() const { return c_.session.review(); }
    const DeliveryMarks& delivery() const { return c_.session.delivery(); }
    const Playbook& playbook() const { return c_.session.playbook(); }
    /// Puts a changed stop in the place of the chosen one; false when that is refused, which is said then.
    bool change(const Message& label, const std::function<void(Stop&)>& change);
    void putBeside(const std::optional<JuxtaKey>& other, const std::function<void()>& then);

    QWidget* parent_;
    ReviewContext& c_;
    RowList& list_;
    PerformEdit perform_;
};

} // namespace jg::ui
