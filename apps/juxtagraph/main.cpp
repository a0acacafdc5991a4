// juxtagraph: the window.
#include "desk/places.h"
#include "ui/main_window.h"
#include "ui/theme.h"

#include <QApplication>
#include <QMessageBox>
#include <QSettings>
#include <QStandardPaths>

#include <filesystem>
#include <iostream>
#include <string_view>

namespace {

constexpr const char* kUse = "juxtagraph [--stand-in-microphone] [--stand-in-post-office] [LIBRARY]\n";

constexpr const char* kHelp =
    "Opens the window on a library: the one named, else the last one, else one in your documents.\n"
    "  LIBRARY                 a folder that holds library.sqlite, or an empty or missing one to begin in\n"
    "  --stand-in-microphone   plays a shipped voice in place of the microphone\n"
    "  --stand-in-post-office  takes mail on this machine, sends nothing on, and ends with the window\n"
    "  --help                  this text; needs no display\n";

struct Words {
    std::string library;
    bool standInMicrophone = false, standInPost = false, help = false;
    std::string wrong;
};

Words read(int argc, char** argv) {
    Words w;
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

/// The library named, else the last one, else one in the user's documents (made when missing).
std::filesystem::path libraryFolder(const std::string& named, const QSettings& settings) {
    if (!named.empty()) return std::filesystem::absolute(named);
    const std::string last = settings.value("library").toString().toStdString();
    if (!last.empty() && std::filesystem::exists(last + "/library.sqlite")) return last;
    const QString documents = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    return documents.toStdString() + "/Juxtagraph";
}

int cannotStart(const jg::Error& why) {
    std::cerr << why.text << "\n";
    QMessageBox::critical(nullptr, "Juxtagraph can't start", QString::fromStdString(why.text));
    return 1;
}

} // namespace

int main(int argc, char** argv) {
    const Words words = read(argc, argv);
    if (words.help) {
        std::cout << kUse << kHelp;
        return 0;
    }
    if (!words.wrong.empty()) {
        std::cerr << "Wrong use: " << words.wrong << "\n  " << kUse;
        return 2;
    }
    QApplication app(argc, argv);
    if (!jg::ui::dress(app)) std::cerr << "The shipped fonts are missing; the system's are used.\n";
    auto settings = std::make_shared<QSettings>("Juxtagraph", "Juxtagraph");
    auto playbook = jg::loadPlaybook(jg::dataFolder() / "playbook");
    if (!playbook) return cannotStart(playbook.error());
    const auto folder = libraryFolder(words.library, *settings);
    auto library = jg::Library::open(folder, true, std::make_shared<jg::FileStore>());
    if (!library) return cannotStart(library.error());
    settings->setValue("library", QString::fromStdString(folder.string()));
    auto microphone =
        words.standInMicrophone ? jg::makeStandInMicrophone(jg::demoVoices()) : jg::makeMicrophone();
    jg::ui::MainWindow window({std::move(*library), std::move(*playbook), std::make_shared<jg::SystemClock>(),
                               std::move(microphone), jg::makeLoudspeaker(), settings});
    window.show();
    if (words.standInPost) window.startPostOffice();
    return app.exec();
}
