#include "desk/house_settings.h"

#include <QByteArray>

namespace jg {

namespace {
constexpr const char* kMark = "house.mark"; // settings are text: base64
}

std::string houseMark(Store& store) {
    return QByteArray::fromBase64(QByteArray::fromStdString(store.setting(kMark))).toStdString();
}

Status keepHouseMark(Store& store, const std::string& png) {
    return store.setSetting(kMark, QByteArray::fromStdString(png).toBase64().toStdString());
}

} // namespace jg
