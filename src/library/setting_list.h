// Settings that are lists, as JSON. Inside the library room only.
#pragma once

#include "library/store.h"

#include <nlohmann/json.hpp>

namespace jg {

inline constexpr const char* kBackupFolders = "backup.folders"; ///< where backups were made to
inline constexpr const char* kForgotten = "forgotten";          ///< records of deleted athletes

/// An empty one where there is none, or none that can be read.
inline nlohmann::json listInSetting(Store& store, const char* key) {
    nlohmann::json list = nlohmann::json::parse(store.setting(key, "[]"), nullptr, false);
    return list.is_array() ? list : nlohmann::json::array();
}

} // namespace jg
