#include "base/ids.h"

#include <cstdio>

namespace jg {

std::uint64_t IdSource::bits() {
    if (engine_) return (*engine_)();
    return (std::uint64_t{system_()} << 32) | system_();
}

std::string IdSource::text(const char* prefix) {
    char buffer[64];
    const std::uint64_t high = bits();
    std::snprintf(buffer, sizeof buffer, "%s-%016llx%016llx", prefix, static_cast<unsigned long long>(high),
                  static_cast<unsigned long long>(bits()));
    return buffer;
}

} // namespace jg
