#include "desk/places.h"

#include <QCoreApplication>

#include <algorithm>

namespace jg {

namespace fs = std::filesystem;

fs::path dataFolder() {
    return fs::path(QCoreApplication::applicationDirPath().toStdString()).parent_path() / "share";
}

std::vector<fs::path> demoVoices() {
    std::vector<fs::path> files;
    std::error_code ec;
    for (const auto& entry : fs::directory_iterator(dataFolder() / "voice", ec))
        if (entry.path().extension() == ".opus") files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    return files;
}

} // namespace jg
