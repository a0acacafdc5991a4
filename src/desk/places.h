// Where the shipped data lies.
#pragma once

#include <filesystem>
#include <vector>

namespace jg {

/// The data folder beside the running executable (share/). Needs a QCoreApplication.
std::filesystem::path dataFolder();
/// The shipped demo voice's takes, in order.
std::vector<std::filesystem::path> demoVoices();

} // namespace jg
