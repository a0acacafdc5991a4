// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/house_settings.h"

#include <QByteArray>

namespace jg {

namespace {
constexpr const char* kMark = "house.mark"; // settings are text: base64
constexpr const char *kGuidance = "house.guidance", *kLookedUp = "looked up";
} // namespace

std::string houseMark(Store& store) {
    return QByteArray::fromBase64(QByteArray::fromStdString(store.setting(kMark))).toStdString();
}

bool guidanceConfirmed(Store& store) {
    return store.setting(kGuidance) == kLookedUp;
}

Status confirmGuidance(Store& store, bool confirmed) {
    return store.setSetting(kGuidance, confirmed ? kLookedUp : "");
}

Status keepHouseMark(Store& store, const std::string& png) {
    return store.setSetting(kMark, QByteArray::fromStdString(png).toBase64().toStdString());
}

} // namespace jg
