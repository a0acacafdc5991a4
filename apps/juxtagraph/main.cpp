// juxtagraph: the window.
#include "desk/places.h"
#include "ui/main_window.h"
#include "ui/theme.h"

#include <QApplication>
#include <QSettings>
#include <QStandardPaths>

#include <filesystem>
#include <iostream>

namespace {

/// The library named, else the last one, else one in the user's documents (made when missing).
std::filesystem::path libraryFolder(const QStringList& words) {
    if (!words.isEmpty()) return std::filesystem::absolute(words.first().toStdString());
    const QString last = QSettings("Juxtagraph", "Juxtagraph").value("library").toString();
    if (!last.isEmpty() && std::filesystem::exists(last.toStdString() + "/library.sqlite"))
        return last.toStdString();
    return (QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation) + "/Juxtagraph")
        .toStdString();
}

} // namespace

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QStringList words;
    bool standInMicrophone = false, standInPost = false;
    for (const QString& word : app.arguments().mid(1)) {
        if (word == "--stand-in-microphone")
            standInMicrophone = true;
        else if (word == "--stand-in-post-office")
            standInPost = true;
        else if (word.startsWith("--")) {
            std::cerr << "Wrong use: " << word.toStdString()
                      << "\n  juxtagraph [--stand-in-microphone] [--stand-in-post-office] [LIBRARY]\n";
            return 2;
        } else
            words << word;
    }
    if (!jg::ui::dress(app)) std::cerr << "The shipped fonts are missing; the system's are used.\n";
    auto playbook = jg::loadPlaybook(jg::dataFolder() / "playbook");
    const auto folder = libraryFolder(words);
    auto library = jg::Library::open(folder, true, std::make_shared<jg::FileStore>());
    if (!playbook || !library) {
        std::cerr << (!playbook ? playbook.error().text : library.error().text) << "\n";
        return 1;
    }
    QSettings("Juxtagraph", "Juxtagraph").setValue("library", QString::fromStdString(folder.string()));
    auto microphone = standInMicrophone ? jg::makeStandInMicrophone(jg::demoVoices()) : jg::makeMicrophone();
    jg::ui::MainWindow window({std::move(*library), std::move(*playbook), std::make_shared<jg::SystemClock>(),
                               std::move(microphone), jg::makeLoudspeaker()});
    window.show();
    if (standInPost) window.startPostOffice();
    return app.exec();
}
