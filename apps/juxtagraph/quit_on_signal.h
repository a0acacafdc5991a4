// SPDX-License-Identifier: GPL-3.0-or-later
// SIGTERM and SIGINT end the window as its own close button does.
#pragma once

class QApplication;

/// Call once, after the application was made. From the signal on nobody is asked anything
/// (ui::nobodyIsAsked).
void quitOnSignal(QApplication& app);
