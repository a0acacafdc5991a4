// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/fonts.h"

#include <QFontDatabase>

namespace jg {

bool loadFonts(const std::filesystem::path& folder) {
    bool all = true;
    for (const char* name : {"OpenSans-Regular.ttf", "OpenSans-Semibold.ttf", "OpenSans-Bold.ttf",
                             "Vollkorn-Regular.ttf", "Vollkorn-SemiBold.ttf", "Vollkorn-SemiBoldItalic.ttf"})
        all &= QFontDatabase::addApplicationFont(QString::fromStdString((folder / name).string())) >= 0;
    return all;
}

QFont textFont(double px, bool bold) {
    QFont font("Open Sans");
    font.setPixelSize(static_cast<int>(px + 0.5));
    font.setWeight(bold ? QFont::DemiBold : QFont::Normal);
    return font;
}

QFont headFont(double px, bool italic) {
    QFont font("Vollkorn");
    font.setPixelSize(static_cast<int>(px + 0.5));
    font.setWeight(QFont::DemiBold);
    font.setItalic(italic);
    return font;
}

QFont printFont(double px, bool bold) {
    QFont font = textFont(px, bold);
    font.setStyleStrategy(QFont::PreferNoShaping);
    return font;
}

} // namespace jg
