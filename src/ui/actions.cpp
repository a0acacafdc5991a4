#include "ui/actions.h"

#include <QWidget>

namespace jg::ui {

const std::vector<ActionRow>& actionTable() {
    using K = QKeySequence;
    static const std::vector<ActionRow> table = {
        {"shortcuts", "All keys on one sheet", {K(Qt::Key_F1)}, Everywhere},
        {"take-in", "Take in films", {K("T")}, AtHome},
        {"open", "Open what is selected", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtHome},
        {"row-up",
         "Previous row",
         {K(Qt::Key_Up)},
         AtHome | AtPositions | AtMeasure | AtJudge | AtSay | AtPrescribe},
        {"row-down",
         "Next row",
         {K(Qt::Key_Down)},
         AtHome | AtPositions | AtMeasure | AtJudge | AtSay | AtPrescribe},
        {"place-desk", "Go to the desk", {K("Alt+D")}, AtHome},
        {"place-athletes", "Go to the athletes", {K("Alt+A")}, AtHome},
        {"place-playbook", "Go to the playbook", {K("Alt+B")}, AtHome},
        {"place-post", "Go to the post", {K("Alt+P")}, AtHome},
        {"athlete-edit", "Edit the chosen athlete", {K("E")}, AtHome},
        {"athlete-search", "Search the athletes", {K("/")}, AtHome},
        {"place-hand", "Go to your own error", {K("Alt+H")}, AtHome},

        {"to-desk", "Back to the desk", {K(Qt::Key_Backspace)}, InReview},
        {"stage-next", "Next stage", {K(Qt::Key_PageDown)}, InReview},
        {"stage-previous", "Previous stage", {K(Qt::Key_PageUp)}, InReview},
        {"step-back", "One frame back", {K(Qt::Key_Left)}, InReview},
        {"step-on", "One frame on", {K(Qt::Key_Right)}, InReview},
        {"step-back-10", "Ten frames back", {K(Qt::CTRL | Qt::Key_Left)}, InReview},
        {"step-on-10", "Ten frames on", {K(Qt::CTRL | Qt::Key_Right)}, InReview},
        {"pin-previous", "To the previous position", {K(",")}, InReview},
        {"pin-next", "To the next position", {K(".")}, InReview},
        {"first-frame", "To the first frame", {K(Qt::Key_Home)}, InReview},
        {"last-frame", "To the last frame", {K(Qt::Key_End)}, InReview},
        {"play", "Play or pause", {K("V")}, InReview},
        {"play-back", "Play backward or pause", {K("Shift+V")}, InReview},
        {"loop", "Play round between two positions, or to the end again", {K("L")}, InReview},
        {"details", "Figures of the film on or off", {K("I")}, InReview},
        {"slower", "Slower: true, half, quarter, tenth speed", {K("B")}, InReview},
        {"fit", "Fit the picture", {K("O")}, InReview},
        {"delivery-next",
         "The next delivery or film that is marked",
         {K("N")},
         AtLook | AtPositions | AtMeasure},
        {"begin-another", "Begin a new review of films whose review was sent", {K("Ctrl+Shift+N")}, InReview},
        {"undo", "Undo", {K("Z"), K(Qt::CTRL | Qt::Key_Z)}, InReview},
        {"redo", "Redo", {K("Shift+Z"), K("Ctrl+Shift+Z")}, InReview},

        {"look-play", "Play or pause", {K(Qt::Key_Space)}, AtLook},
        {"look-cut", "Review the delivery at the playhead, or the whole film again", {K("D")}, AtLook},
        {"look-film", "Say the film's side, its rate and the conditions of the delivery", {K("F")}, AtLook},
        {"look-refilm", "Ask for another film", {K("R")}, AtLook},
        {"look-done", "Seen; on to the positions", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtLook},

        {"set-here", "Set this position here", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtPositions},
        {"position-hidden", "Not visible here", {K("H")}, AtPositions},
        {"position-suggested", "Go to the suggested frame", {K("G")}, AtPositions},
        {"position-clear", "Take the position away", {K(Qt::Key_Delete)}, AtPositions},

        {"measure-next", "Next open measure", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtMeasure},
        {"point-hidden", "This point is hidden", {K("H")}, AtMeasure},
        {"point-smeared", "This joint is smeared: click both ends of the smear", {K("M")}, AtMeasure},
        {"measure-answer", "Set the frame, choice or number this measure asks for", {K("U")}, AtMeasure},
        {"measure-add", "Choose the measures of this review", {K("A")}, AtMeasure},
        {"measure-ghost", "Draw the target on the athlete, or not", {K("G")}, AtMeasure},
        {"measure-scale", "Give a scale: height, rubber, ball", {K("S")}, AtMeasure},
        {"measure-follow", "Follow the clicked joints between their frames", {K("P")}, AtMeasure},
        {"point-guess", "Take the guessed point", {K("K")}, AtMeasure},
        {"measure-suggested", "Go to the frame the paths suggest", {K("J")}, AtMeasure},
        {"measure-sequence", "Show the order of events in time", {K("Q")}, AtMeasure},
        {"measure-steady", "Take the camera's shake out of the numbers, or not", {K("F")}, AtMeasure},
        {"measure-turn", "Say how far the camera was turned from square", {K("Y")}, AtMeasure},
        {"measure-order", "Walk by time, or by body: legs, trunk, arm", {K("W")}, AtMeasure},
        {"measure-skip", "Set this measure aside", {K("X")}, AtMeasure},
        {"point-delete", "Delete the point or line", {K(Qt::Key_Delete)}, AtMeasure},
        {"nudge-left", "Nudge half a pixel left", {K("Shift+Left")}, AtMeasure},
        {"nudge-right", "Nudge half a pixel right", {K("Shift+Right")}, AtMeasure},
        {"nudge-up", "Nudge half a pixel up", {K("Shift+Up")}, AtMeasure},
        {"nudge-down", "Nudge half a pixel down", {K("Shift+Down")}, AtMeasure},
        {"nudge-left-10", "Ten pixels left", {K("Ctrl+Shift+Left")}, AtMeasure},
        {"nudge-right-10", "Ten pixels right", {K("Ctrl+Shift+Right")}, AtMeasure},
        {"nudge-up-10", "Ten pixels up", {K("Ctrl+Shift+Up")}, AtMeasure},
        {"nudge-down-10", "Ten pixels down", {K("Ctrl+Shift+Down")}, AtMeasure},
        {"point-cursor", "Place the point by keys: nudge the ring, K takes it", {K("C")}, AtMeasure},
        {"tool-plumb", "Draw a plumb line", {K("1")}, AtMeasure},
        {"tool-level", "Draw a level line", {K("2")}, AtMeasure},
        {"tool-line", "Draw a line", {K("3")}, AtMeasure},
        {"tool-head-box", "Draw a box round the head", {K("4")}, AtMeasure},
        {"tool-angle", "Draw an angle of three points", {K("5")}, AtMeasure},
        {"tool-mound", "Draw a line down the mound: it gives the level", {K("6")}, AtMeasure},
        {"tool-none", "Back to the guided points", {K(Qt::Key_Escape)}, AtMeasure},

        {"grade-1", "Change", {K("1")}, AtJudge},
        {"grade-2", "More than a small thing", {K("2")}, AtJudge},
        {"grade-3", "Adjust", {K("3")}, AtJudge},
        {"grade-4", "Nearly", {K("4")}, AtJudge},
        {"grade-5", "Keep", {K("5")}, AtJudge},
        {"grade-cannot-tell", "Cannot tell", {K("0")}, AtJudge},
        {"grade-hidden", "Not visible here", {K("H")}, AtJudge},
        {"grade-not-applicable", "Does not apply", {K("N")}, AtJudge},
        {"grade-fault-absent", "Looked for the fault: absent", {K("F")}, AtJudge},
        {"grade-remark", "Write a remark to this item", {K("R")}, AtJudge},
        {"grade-skip", "Set this item aside", {K("X")}, AtJudge},
        {"grade-clear", "Take the grade away", {K(Qt::Key_Delete)}, AtJudge},

        {"say-next", "Say the next stop", {K(Qt::Key_Space)}, AtSay},
        {"say-again", "Say this one again", {K("R")}, AtSay},
        {"say-listen", "Listen to this stop", {K("P")}, AtSay},
        {"say-stop", "Stop recording", {K(Qt::Key_Escape)}, AtSay},
        {"say-add", "Add the first finding not in any stop", {K("A")}, AtSay},
        {"say-recap", "Add the recap", {K("E")}, AtSay},
        {"say-up", "Move the stop up", {K("Shift+Up")}, AtSay},
        {"say-down", "Move the stop down", {K("Shift+Down")}, AtSay},
        {"say-remove", "Take the stop out", {K(Qt::Key_Delete)}, AtSay},
        {"say-marks", "Marks on or off", {K("M")}, AtSay},
        {"say-clear", "Wipe the drawing", {K("C")}, AtSay},

        {"plan-propose", "Take the proposal", {K("P")}, AtPrescribe},
        {"plan-toggle", "Work on this, or not", {K(Qt::Key_Return), K(Qt::Key_Enter)}, AtPrescribe},

        {"send", "Send the letter", {K("Ctrl+Return"), K("Ctrl+Enter")}, AtSend},
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
