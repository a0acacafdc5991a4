// SIGTERM and SIGINT end the window as its own close button does.
#pragma once

class QApplication;

/// Call once, after the application was made.
void quitOnSignal(QApplication& app);

/// True once a signal asked for it: nothing is asked of a person any more.
bool quitWasAsked();
