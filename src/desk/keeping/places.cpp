// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/places.h"

#include <QCoreApplication>

#include <algorithm>

namespace jg {

namespace fs = std::filesystem;

fs::path dataFolder() {
    return fs::path(QCoreApplication::applicationDirPath().toStdString()).parent_path() / "share" /
           "juxtagraph";
}

std::vector<fs::path> demoVoices() {
    std::vector<fs::path> files;
    std::error_code ec;
    for (const auto& entry : fs::directory_iterator(dataFolder() / "voice", ec))
        if (entry.path().extension() == ".opus") files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    return files;
}

Result<std::filesystem::path> libraryToOpen(const std::string& named, const std::string& last,
                                            const std::filesystem::path& otherwise) {
    std::error_code ec;
    if (!named.empty()) return std::filesystem::absolute(named);
    if (last.empty()) return otherwise;
    if (std::filesystem::exists(std::filesystem::path(last) / "library.sqlite", ec))
        return std::filesystem::path(last);
    return fail(ErrorCode::NotFound, msg("places.library-gone", {{"folder", last}}));
}

} // namespace jg
