// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/own/usual_measures.h"

#include "base/ids.h"

#include <sstream>

namespace jg {

namespace {

constexpr const char* kUsual = "measures.usual";

} // namespace

std::vector<std::string> usualMeasures(Store& store) {
    std::vector<std::string> ids;
    std::istringstream kept(store.setting(kUsual));
    for (std::string id; kept >> id;)
        if (isId(id)) ids.push_back(id);
    return ids;
}

Status keepUsualMeasures(Store& store, const std::vector<std::string>& ids) {
    std::string kept;
    for (const std::string& id : ids) kept += (kept.empty() ? "" : " ") + id;
    return store.changeSettings({{kUsual, store.setting(kUsual), kept}});
}

} // namespace jg
