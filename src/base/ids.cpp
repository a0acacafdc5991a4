#include "base/ids.h"

#include <cstdio>

namespace jg {

std::string IdSource::text(const char* prefix) {
    char buffer[64];
    std::snprintf(buffer, sizeof buffer, "%s-%012llx", prefix,
                  static_cast<unsigned long long>(engine_() & 0xffffffffffffULL));
    return buffer;
}

} // namespace jg
