// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/actions.h"

#include "ui/kit/words.h"

#include <QWidget>

namespace jg::ui {

const std::vector<ActionRow>& actionTable() {
    using K = QKeySequence;
    static const std::vector<ActionRow> table = {
        {"shortcuts", {K(Qt::Key_F1)}, Everywhere},
        {"report-fault", {K("Ctrl+F1")}, Everywhere},
        {"take-in", {K("T")}, AtHome},
        {"mail-in", {K("Ctrl+I")}, AtHome},
        {"mail-watch", {K("Ctrl+Shift+I")}, AtHome},
        {"open", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtHome},
        {"row-up",
         {K(Qt::Key_Up)},
         AtHome | AtPositions | AtMeasure | AtJudge | AtSay | AtPrescribe | AtSend},
        {"row-down",
         {K(Qt::Key_Down)},
         AtHome | AtPositions | AtMeasure | AtJudge | AtSay | AtPrescribe | AtSend},
        {"place-desk", {K("Alt+D")}, AtHome},
        {"place-athletes", {K("Alt+A")}, AtHome},
        {"place-group", {K("Alt+G")}, AtHome},
        {"place-playbook", {K("Alt+B")}, AtHome},
        {"place-post", {K("Alt+P")}, AtHome},
        {"athlete-edit", {K("E")}, AtHome},
        {"athlete-juxta", {K("J")}, AtHome},
        {"athlete-search", {K("/")}, AtHome},
        {"place-hand", {K("Alt+H")}, AtHome},
        {"look-over", {K("Y")}, AtHome},
        {"hide-names", {K("Alt+N")}, AtHome},

        {"back", {K(Qt::Key_Backspace)}, InReview},
        {"to-desk", {K("Alt+D")}, InReview},
        {"stage-next", {K(Qt::Key_PageDown)}, InReview},
        {"stage-previous", {K(Qt::Key_PageUp)}, InReview},
        {"step-back", {K(Qt::Key_Left)}, InReview},
        {"step-on", {K(Qt::Key_Right)}, InReview},
        {"step-back-10", {K(Qt::CTRL | Qt::Key_Left)}, InReview},
        {"step-on-10", {K(Qt::CTRL | Qt::Key_Right)}, InReview},
        {"pin-previous", {K(",")}, InReview},
        {"pin-next", {K(".")}, InReview},
        {"first-frame", {K(Qt::Key_Home)}, InReview},
        {"last-frame", {K(Qt::Key_End)}, InReview},
        {"play", {K("V")}, InReview},
        {"play-back", {K("Shift+V")}, InReview},
        {"loop", {K("L")}, InReview},
        {"loop-between", {K("Shift+L")}, InReview},
        {"details", {K("I")}, InReview},
        {"slower", {K("B")}, InReview},
        {"fit", {K("O")}, InReview},
        {"delivery-next", {K("N")}, AtLook | AtPositions | AtMeasure},
        {"begin-another", {K("Ctrl+Shift+N")}, InReview},
        {"promise", {K("Ctrl+M")}, InReview},
        {"undo", {K("Z"), K(Qt::CTRL | Qt::Key_Z)}, InReview},
        {"redo", {K("Shift+Z"), K("Ctrl+Shift+Z")}, InReview},

        {"look-play", {K(Qt::Key_Space)}, AtLook},
        {"look-cut", {K("D")}, AtLook},
        {"look-film", {K("F")}, AtLook},
        {"look-refilm", {K("R")}, AtLook},
        {"look-again", {K("K")}, AtLook},
        {"look-hide", {K("H")}, AtLook},
        {"look-show-again", {K("Shift+H")}, AtLook},
        {"look-done", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtLook},

        {"set-here", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtPositions},
        {"position-hidden", {K("H")}, AtPositions},
        {"position-suggested", {K("G")}, AtPositions},
        {"position-again", {K("A")}, AtPositions},
        {"position-clear", {K(Qt::Key_Delete)}, AtPositions},

        {"measure-next", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtMeasure},
        {"point-hidden", {K("H")}, AtMeasure},
        {"point-smeared", {K("M")}, AtMeasure},
        {"measure-answer", {K("U")}, AtMeasure},
        {"measure-again", {K("Shift+U")}, AtMeasure},
        {"measure-add", {K("A")}, AtMeasure},
        {"measure-ghost", {K("G")}, AtMeasure},
        {"measure-goal-by-hand", {K("D")}, AtMeasure},
        {"measure-scale", {K("S")}, AtMeasure},
        {"measure-follow", {K("P")}, AtMeasure},
        {"point-guess", {K("K")}, AtMeasure},
        {"measure-suggested", {K("J")}, AtMeasure},
        {"measure-sequence", {K("Q")}, AtMeasure},
        {"measure-steady", {K("F")}, AtMeasure},
        {"measure-turn", {K("Y")}, AtMeasure},
        {"measure-order", {K("W")}, AtMeasure},
        {"measure-skip", {K("X")}, AtMeasure},
        {"point-delete", {K(Qt::Key_Delete)}, AtMeasure},
        {"nudge-left", {K("Shift+Left")}, AtMeasure | AtPair},
        {"nudge-right", {K("Shift+Right")}, AtMeasure | AtPair},
        {"nudge-up", {K("Shift+Up")}, AtMeasure | AtPair},
        {"nudge-down", {K("Shift+Down")}, AtMeasure | AtPair},
        {"nudge-left-10", {K("Ctrl+Shift+Left")}, AtMeasure | AtPair},
        {"nudge-right-10", {K("Ctrl+Shift+Right")}, AtMeasure | AtPair},
        {"nudge-up-10", {K("Ctrl+Shift+Up")}, AtMeasure | AtPair},
        {"nudge-down-10", {K("Ctrl+Shift+Down")}, AtMeasure | AtPair},
        {"point-cursor", {K("C")}, AtMeasure},
        {"tool-plumb", {K("1")}, AtMeasure},
        {"tool-level", {K("2")}, AtMeasure},
        {"tool-line", {K("3")}, AtMeasure},
        {"tool-head-box", {K("4")}, AtMeasure},
        {"tool-angle", {K("5")}, AtMeasure},
        {"tool-mound", {K("6")}, AtMeasure},
        {"tool-none", {K(Qt::Key_Escape)}, AtMeasure},

        {"grade-1", {K("1")}, AtJudge},
        {"grade-2", {K("2")}, AtJudge},
        {"grade-3", {K("3")}, AtJudge},
        {"grade-4", {K("4")}, AtJudge},
        {"grade-5", {K("5")}, AtJudge},
        {"grade-cannot-tell", {K("0")}, AtJudge},
        {"grade-hidden", {K("H")}, AtJudge},
        {"grade-not-applicable", {K("N")}, AtJudge},
        {"grade-fault-absent", {K("F")}, AtJudge},
        {"grade-remark", {K("R")}, AtJudge},
        {"grade-skip", {K("X")}, AtJudge},
        {"grade-clear", {K(Qt::Key_Delete)}, AtJudge},
        {"judge-open", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtJudge},
        {"judge-order", {K("W")}, AtJudge},
        {"judge-approach", {K("A")}, AtJudge},
        {"judge-target", {K("T")}, AtJudge},
        {"judge-own", {K("E")}, AtJudge},
        {"judge-compare", {K("Y")}, AtJudge},
        {"judge-reader", {K("M")}, AtJudge},

        {"say-next", {K(Qt::Key_Space)}, AtSay},
        {"say-again", {K("R")}, AtSay},
        {"say-listen", {K("P")}, AtSay},
        {"say-stop", {K(Qt::Key_Escape)}, AtSay},
        {"say-add", {K("A")}, AtSay},
        {"say-recap", {K("E")}, AtSay},
        {"say-up", {K("Shift+Up")}, AtSay},
        {"say-down", {K("Shift+Down")}, AtSay},
        {"say-remove", {K(Qt::Key_Delete)}, AtSay},
        {"say-marks", {K("M")}, AtSay},
        {"say-clear", {K("C")}, AtSay},
        {"say-all", {K("Shift+A")}, AtSay},
        {"say-here", {K("N")}, AtSay},
        {"say-words", {K("T")}, AtSay},
        {"say-motion", {K("F")}, AtSay},
        {"say-goal", {K("G")}, AtSay},
        {"say-closer", {K("K")}, AtSay},
        {"say-pen-1", {K("1")}, AtSay},
        {"say-pen-2", {K("2")}, AtSay},
        {"say-pen-3", {K("3")}, AtSay},
        {"say-pen-4", {K("4")}, AtSay},
        {"say-pen-5", {K("5")}, AtSay},
        {"say-fades", {K("D")}, AtSay},
        {"say-takes", {K("U")}, AtSay},
        {"say-shorten", {K("S")}, AtSay},
        {"say-length", {K("Q")}, AtSay},
        {"say-beside", {K("J")}, AtSay},

        {"plan-propose", {K("P")}, AtPrescribe},
        {"plan-toggle", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtPrescribe},
        {"plan-causes", {K("K")}, AtPrescribe},
        {"plan-why-not", {K("Y")}, AtPrescribe},
        {"plan-drills", {K("D")}, AtPrescribe},
        {"plan-size", {K("G")}, AtPrescribe},
        {"plan-week", {K("T")}, AtPrescribe},
        {"plan-keeps", {K("S")}, AtPrescribe},
        {"plan-promise", {K("M")}, AtPrescribe},
        {"plan-show-causes", {K("C")}, AtPrescribe},
        {"plan-show-week", {K("W")}, AtPrescribe},
        {"plan-show-picture", {K("X")}, AtPrescribe},

        {"send", {K("Ctrl+Return"), K("Ctrl+Enter")}, AtSend},
        {"letter-edit", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtSend},
        {"send-watch", {K("W")}, AtSend},
        {"send-save", {K("S")}, AtSend},
        {"send-look", {K("F")}, AtSend},
        {"send-reader", {K("R")}, AtSend},
        {"send-later", {K("T")}, AtSend},

        {"juxta-up", {K(Qt::Key_Up)}, AtJuxta},
        {"juxta-down", {K(Qt::Key_Down)}, AtJuxta},
        {"juxta-left", {K(Qt::Key_Left)}, AtJuxta},
        {"juxta-right", {K(Qt::Key_Right)}, AtJuxta},
        {"juxta-open", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtJuxta},
        {"juxta-mark", {K(Qt::Key_Space)}, AtJuxta},
        {"juxta-rows", {K("A")}, AtJuxta},
        {"juxta-columns", {K("C")}, AtJuxta},
        {"juxta-hide-row", {K("X"), K(Qt::Key_Delete)}, AtJuxta},
        {"juxta-hide-column", {K("Shift+X")}, AtJuxta},
        {"juxta-row-up", {K("Shift+Up")}, AtJuxta},
        {"juxta-row-down", {K("Shift+Down")}, AtJuxta},
        {"juxta-column-left", {K("Shift+Left")}, AtJuxta},
        {"juxta-column-right", {K("Shift+Right")}, AtJuxta},
        {"juxta-name", {K("B")}, AtJuxta},
        {"juxta-overrule", {K("O")}, AtJuxta},
        {"juxta-curves", {K("F")}, AtJuxta},
        {"juxta-save", {K("P")}, AtJuxta},
        {"juxta-leave", {K(Qt::Key_Escape), K(Qt::Key_Backspace)}, AtJuxta},

        {"curve-next", {K("F"), K(Qt::Key_Right)}, AtCurves},
        {"curve-previous", {K("Shift+F"), K(Qt::Key_Left)}, AtCurves},
        {"curve-second", {K("G")}, AtCurves},
        {"curve-second-back", {K("Shift+G")}, AtCurves},
        {"curve-back", {K(Qt::Key_Escape), K(Qt::Key_Backspace)}, AtCurves},

        {"pair-back-1", {K(Qt::Key_Left)}, AtPair},
        {"pair-on", {K(Qt::Key_Right)}, AtPair},
        {"pair-back-10", {K(Qt::CTRL | Qt::Key_Left)}, AtPair},
        {"pair-on-10", {K(Qt::CTRL | Qt::Key_Right)}, AtPair},
        {"pair-pin-previous", {K(",")}, AtPair},
        {"pair-pin-next", {K(".")}, AtPair},
        {"pair-play", {K("V"), K(Qt::Key_Space)}, AtPair},
        {"pair-play-back", {K("Shift+V")}, AtPair},
        {"pair-slower", {K("B")}, AtPair},
        {"pair-look", {K("W")}, AtPair},
        {"pair-more", {K(Qt::Key_Up)}, AtPair},
        {"pair-less", {K(Qt::Key_Down)}, AtPair},
        {"pair-stack", {K("D")}, AtPair},
        {"pair-fit", {K("O")}, AtPair},
        {"pair-lock", {K("L")}, AtPair},
        {"pair-unlock", {K("U")}, AtPair},
        {"pair-mark", {K("M")}, AtPair},
        {"pair-say", {K("S")}, AtPair},
        {"pair-undo", {K("Z"), K(Qt::CTRL | Qt::Key_Z)}, AtPair},
        {"pair-back", {K(Qt::Key_Escape), K(Qt::Key_Backspace)}, AtPair},
    };
    return table;
}

Handlers nudges(const std::function<void(double, double)>& nudge) {
    constexpr std::tuple<const char*, double, double> kWays[] = {
        {"left", -1, 0}, {"right", 1, 0}, {"up", 0, -1}, {"down", 0, 1}};
    Handlers all;
    for (const auto& [way, dx, dy] : kWays) {
        all[QString("nudge-%1").arg(way)] = [nudge, x = dx / 2, y = dy / 2] { nudge(x, y); };
        all[QString("nudge-%1-10").arg(way)] = [nudge, x = 10 * dx, y = 10 * dy] { nudge(x, y); };
    }
    return all;
}

bool runIn(const Handlers& handlers, const QString& id) {
    const auto handler = handlers.find(id);
    if (handler == handlers.end()) return false;
    handler->second();
    return true;
}

QString ActionRow::text() const {
    return say(msg("action." + id.toStdString()));
}

QStringList clashes(const std::vector<ActionRow>& table) {
    QStringList found;
    for (std::size_t i = 0; i < table.size(); ++i)
        for (std::size_t j = i + 1; j < table.size(); ++j) {
            if ((table[i].where & table[j].where) == 0) continue;
            for (const QKeySequence& key : table[i].keys)
                if (table[j].keys.contains(key))
                    found << table[i].id + " and " + table[j].id + ": " + key.toString();
        }
    return found;
}

Actions::Actions(QWidget* window, std::function<void(const QString&)> run)
    : QObject(window) {
    for (const ActionRow& row : actionTable()) {
        auto* action = new QAction(row.text(), window);
        action->setObjectName(row.id);
        action->setShortcuts(row.keys);
        action->setProperty("where", row.where);
        action->setEnabled(row.where & where_);
        connect(action, &QAction::triggered, this, [run, id = row.id] { run(id); });
        window->addAction(action);
        actions_ << action;
    }
}

void Actions::setWhere(unsigned where) {
    where_ = where;
    for (QAction* a : actions_) a->setEnabled(a->property("where").toUInt() & where);
}

QAction* Actions::find(const QString& id) const {
    for (QAction* a : actions_)
        if (a->objectName() == id) return a;
    return nullptr;
}

} // namespace jg::ui
