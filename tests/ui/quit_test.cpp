// SPDX-License-Identifier: GPL-3.0-or-later
// The window as a program of its own: what the system asks of it by signals.
#include "tests/ui/driver.h"

#include <QProcess>
#include <QTemporaryDir>

#include <csignal>
#include <fstream>
#include <regex>

namespace jg {
namespace {

TEST(Quit, TheSystemsRequestEndsTheWindowCleanly) {
    const test::Walk walk{Stage::Measure, Hand::Right};
    for (const int signal : {SIGTERM, SIGINT}) {
        const QTemporaryDir home; // its settings are not ours
        QProcess window;
        auto environment = QProcessEnvironment::systemEnvironment();
        environment.insert("QT_QPA_PLATFORM", "offscreen");
        environment.insert("XDG_CONFIG_HOME", home.path());
        window.setProcessEnvironment(environment);
        window.start(QString::fromStdString((test::binFolder() / "juxtagraph").string()),
                     {QString::fromStdString(walk.library->folder().string())});
        ASSERT_TRUE(window.waitForStarted());
        // It keeps its settings once the library is open.
        ASSERT_TRUE(test::waitFor([&] {
            return std::filesystem::exists(home.path().toStdString() + "/Juxtagraph") ||
                   window.state() == QProcess::NotRunning;
        }));
        QTest::qWait(300);
        ASSERT_EQ(window.state(), QProcess::Running) << window.readAllStandardError().toStdString();
        // What is in its memory, a password say, comes to no disk when it crashes.
        std::ifstream limits("/proc/" + std::to_string(window.processId()) + "/limits");
        const std::string told((std::istreambuf_iterator<char>(limits)), {});
        EXPECT_TRUE(std::regex_search(told, std::regex("Max core file size +1 +1 "))) << told;
        ::kill(static_cast<pid_t>(window.processId()), signal);
        ASSERT_TRUE(window.waitForFinished(15000)) << "it did not end";
        EXPECT_EQ(window.exitStatus(), QProcess::NormalExit);
        EXPECT_EQ(window.exitCode(), 0);
    }
    EXPECT_TRUE(Library::open(walk.library->folder(), false, std::make_shared<FileStore>()));
}

} // namespace
} // namespace jg
