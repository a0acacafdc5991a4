// SPDX-License-Identifier: GPL-3.0-or-later
// juxtagraph: the window.
#include "apps/juxtagraph/quit_on_signal.h"
#include "base/clock.h"
#include "base/fault_log.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "post/no_core.h"
#include "ui/kit/ask_first.h"
#include "ui/kit/theme.h"
#include "ui/window/main_window.h"

#include <QApplication>
#include <QFileDialog>
#include <QMessageBox>
#include <QSettings>
#include <QStandardPaths>

#include <filesystem>
#include <iostream>
#include <optional>
#include <string_view>

#include <sys/stat.h>

namespace {

constexpr const char* kUse = "juxtagraph [--stand-in-microphone] [--stand-in-post-office] [LIBRARY]\n";

struct CommandLine {
    std::string library;
    bool standInMicrophone = false, standInPost = false, help = false;
    std::string wrong;
};

CommandLine read(int argc, char** argv) {
    CommandLine w;
    for (int i = 1; i < argc; ++i) {
        const std::string_view word = argv[i];
        if (word == "--help" || word == "-h")
            w.help = true;
        else if (word == "--stand-in-microphone")
            w.standInMicrophone = true;
        else if (word == "--stand-in-post-office")
            w.standInPost = true;
        else if (word.starts_with("-platform") || word.starts_with("-style"))
            ++i; // the toolkit's own, with its value
        else if (word.starts_with("-") || !w.library.empty())
            w.wrong = word;
        else
            w.library = word;
    }
    return w;
}

/// Faults of the last hours outlive the program in the user's own folder of this program.
void keepFaults() {
    const auto folder = std::filesystem::path(
        QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation).toStdString());
    std::error_code ec;
    std::filesystem::create_directories(folder, ec);
    jg::keepFaultsIn(folder / "faults.log", jg::SystemClock().nowUnix());
}

/// Asks until there is a folder; nothing when the coach gives up.
std::optional<std::filesystem::path> chooseLibrary(const std::string& named, const QSettings& settings) {
    const QString documents = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    const auto otherwise = std::filesystem::path(documents.toStdString()) / "Juxtagraph";
    for (;;) {
        const auto found =
            jg::libraryToOpen(named, settings.value("library").toString().toStdString(), otherwise);
        if (found) return *found;
        const auto answer =
            QMessageBox::question(nullptr, jg::ui::say("app.cannot-start"),
                                  jg::ui::say("app.library-gone", {{"why", found.error().text}}),
                                  QMessageBox::Retry | QMessageBox::Open | QMessageBox::Close);
        if (answer == QMessageBox::Close || jg::ui::nobodyIsAsked()) return std::nullopt;
        if (answer == QMessageBox::Retry) continue;
        const QString chosen =
            QFileDialog::getExistingDirectory(nullptr, jg::ui::say("app.choose-library"), documents);
        if (jg::ui::nobodyIsAsked()) return std::nullopt;
        if (!chosen.isEmpty()) return std::filesystem::path(chosen.toStdString());
    }
}

int cannotStart(const jg::Error& why) {
    std::cerr << jg::english()(why.text) << "\n";
    QMessageBox::critical(nullptr, jg::ui::say("app.cannot-start"), jg::ui::say(why.text));
    return 1;
}

} // namespace

int main(int argc, char** argv) {
    jg::leaveNoCore();
    const CommandLine words = read(argc, argv);
    if (words.help) {
        std::cout << kUse << jg::english()(jg::msg("app.help"));
        return 0;
    }
    if (!words.wrong.empty()) {
        std::cerr << jg::english()(jg::msg("cli.wrong-use", {{"why", words.wrong}})) << "\n  " << kUse;
        return 2;
    }
    QApplication app(argc, argv);
    quitOnSignal(app);
    umask(077); // what it keeps is its user's
    keepFaults();
    jg::ui::followSystemText();
    if (!jg::ui::dress(app)) std::cerr << jg::english()(jg::msg("app.no-fonts")) << "\n";
    auto settings = std::make_shared<QSettings>("Juxtagraph", "Juxtagraph");
    auto playbook = jg::loadPlaybook(jg::dataFolder() / "playbook");
    if (!playbook) return cannotStart(playbook.error());
    const auto folder = chooseLibrary(words.library, *settings);
    if (!folder) return 1;
    auto library = jg::Library::open(*folder, true, std::make_shared<jg::FileStore>());
    if (!library) return cannotStart(library.error());
    settings->setValue("library", QString::fromStdString(folder->string()));
    auto microphone =
        words.standInMicrophone ? jg::makeStandInMicrophone(jg::demoVoices()) : jg::makeMicrophone();
    jg::ui::MainWindow window({std::move(*library), std::move(*playbook), std::make_shared<jg::SystemClock>(),
                               std::move(microphone), jg::makeLoudspeaker(), settings});
    window.show();
    if (words.standInPost) window.startPostOffice();
    return app.exec();
}
