#include "ui/actions.h"

#include <QWidget>

namespace jg::ui {

const std::vector<ActionRow>& actionTable() {
    using K = QKeySequence;
    static const std::vector<ActionRow> table = {
        {"shortcuts", "All keys on one sheet", {K(Qt::Key_F1)}, Everywhere, false},
        {"take-in", "Take in films", {K("T")}, AtHome, false},
        {"open", "Open the selected submission", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtHome, false},
        {"row-up",
         "Previous row",
         {K(Qt::Key_Up)},
         AtHome | AtPositions | AtMeasure | AtJudge | AtSay | AtPrescribe,
         false},
        {"row-down",
         "Next row",
         {K(Qt::Key_Down)},
         AtHome | AtPositions | AtMeasure | AtJudge | AtSay | AtPrescribe,
         false},
        {"place-desk", "Go to the desk", {K("Alt+D")}, AtHome, false},
        {"place-athletes", "Go to the athletes", {K("Alt+A")}, AtHome, false},
        {"place-playbook", "Go to the playbook", {K("Alt+B")}, AtHome, false},
        {"place-post", "Go to the post", {K("Alt+P")}, AtHome, false},

        {"to-desk", "Back to the desk", {K(Qt::Key_Backspace)}, InReview, false},
        {"stage-next", "Next stage", {K(Qt::Key_PageDown)}, InReview, false},
        {"stage-previous", "Previous stage", {K(Qt::Key_PageUp)}, InReview, false},
        {"step-back", "One frame back", {K(Qt::Key_Left)}, InReview, false},
        {"step-on", "One frame on", {K(Qt::Key_Right)}, InReview, false},
        {"step-back-10", "Ten frames back", {K(Qt::CTRL | Qt::Key_Left)}, InReview, false},
        {"step-on-10", "Ten frames on", {K(Qt::CTRL | Qt::Key_Right)}, InReview, false},
        {"pin-previous", "To the previous position", {K(",")}, InReview, false},
        {"pin-next", "To the next position", {K(".")}, InReview, false},
        {"first-frame", "To the first frame", {K(Qt::Key_Home)}, InReview, false},
        {"last-frame", "To the last frame", {K(Qt::Key_End)}, InReview, false},
        {"play", "Play or pause", {K("V")}, InReview, false},
        {"slower", "Slower: true, half, quarter, tenth speed", {K("B")}, InReview, false},
        {"fit", "Fit the picture", {K("O")}, InReview, false},
        {"undo", "Undo", {K("Z"), K(Qt::CTRL | Qt::Key_Z)}, InReview, false},
        {"redo", "Redo", {K("Shift+Z"), K("Ctrl+Shift+Z")}, InReview, false},

        {"look-play", "Play or pause", {K(Qt::Key_Space)}, AtLook, true},
        {"look-done", "Seen; on to the positions", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtLook, true},

        {"set-here", "Set this position here", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtPositions, true},
        {"position-hidden", "Not visible here", {K("H")}, AtPositions, true},
        {"position-clear", "Take the position away", {K(Qt::Key_Delete)}, AtPositions, false},

        {"measure-next", "Next open measure", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtMeasure, true},
        {"point-hidden", "This point is hidden", {K("H")}, AtMeasure, true},
        {"hand-up", "Hand is above the shoulder here", {K("U")}, AtMeasure, false},
        {"measure-skip", "Set this measure aside", {K("X")}, AtMeasure, false},
        {"point-delete", "Delete the point or line", {K(Qt::Key_Delete)}, AtMeasure, false},
        {"nudge-left", "Nudge half a pixel left", {K("Shift+Left")}, AtMeasure, false},
        {"nudge-right", "Nudge half a pixel right", {K("Shift+Right")}, AtMeasure, false},
        {"nudge-up", "Nudge half a pixel up", {K("Shift+Up")}, AtMeasure, false},
        {"nudge-down", "Nudge half a pixel down", {K("Shift+Down")}, AtMeasure, false},
        {"tool-plumb", "Draw a plumb line", {K("1")}, AtMeasure, false},
        {"tool-level", "Draw a level line", {K("2")}, AtMeasure, false},
        {"tool-line", "Draw a line", {K("3")}, AtMeasure, false},
        {"tool-head-box", "Draw a box round the head", {K("4")}, AtMeasure, false},
        {"tool-angle", "Draw an angle of three points", {K("5")}, AtMeasure, false},
        {"tool-none", "Back to the guided points", {K(Qt::Key_Escape)}, AtMeasure, false},

        {"grade-1", "Change", {K("1")}, AtJudge, false},
        {"grade-2", "More than a small thing", {K("2")}, AtJudge, false},
        {"grade-3", "Adjust", {K("3")}, AtJudge, false},
        {"grade-4", "Nearly", {K("4")}, AtJudge, false},
        {"grade-5", "Keep", {K("5")}, AtJudge, false},
        {"grade-cannot-tell", "Cannot tell", {K("0")}, AtJudge, false},
        {"grade-hidden", "Not visible here", {K("H")}, AtJudge, true},
        {"grade-not-applicable", "Does not apply", {K("N")}, AtJudge, false},
        {"grade-fault-absent", "Looked for the fault: absent", {K("F")}, AtJudge, false},
        {"grade-skip", "Set this item aside", {K("X")}, AtJudge, false},
        {"grade-clear", "Take the grade away", {K(Qt::Key_Delete)}, AtJudge, false},

        {"say-next", "Say the next stop", {K(Qt::Key_Space)}, AtSay, true},
        {"say-again", "Say this one again", {K("R")}, AtSay, true},
        {"say-stop", "Stop recording", {K(Qt::Key_Escape)}, AtSay, true},
        {"say-add", "Add the first finding not in any stop", {K("A")}, AtSay, false},
        {"say-recap", "Add the recap", {K("E")}, AtSay, false},
        {"say-up", "Move the stop up", {K("Shift+Up")}, AtSay, false},
        {"say-down", "Move the stop down", {K("Shift+Down")}, AtSay, false},
        {"say-remove", "Take the stop out", {K(Qt::Key_Delete)}, AtSay, false},
        {"say-marks", "Marks on or off", {K("M")}, AtSay, false},
        {"say-clear", "Wipe the drawing", {K("C")}, AtSay, false},

        {"plan-toggle", "Work on this, or not", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtPrescribe, true},

        {"send", "Send the letter", {K("Ctrl+Return"), K("Ctrl+Enter")}, AtSend, true},
    };
    return table;
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
        auto* action = new QAction(row.text, window);
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
