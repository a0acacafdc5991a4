// SPDX-License-Identifier: GPL-3.0-or-later
// Edits a library's review without end until it is killed: edit_storm LIBRARY. The window is the real one.
#include "tests/ui/storm_driver.h"

#include <QApplication>

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    if (argc < 2) return 2;
    return jg::test::storm(argv[1]);
}
