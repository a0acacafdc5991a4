// SPDX-License-Identifier: GPL-3.0-or-later
#include "post/no_core.h"

#include <sys/resource.h>

namespace jg {

void leaveNoCore() {
    constexpr rlimit kOneByte{1, 1};
    ::setrlimit(RLIMIT_CORE, &kOneByte);
}

} // namespace jg
