#include "coaching/change.h"

#include "kinematics/propagation.h"

#include <cmath>

namespace jg {

double smallestRealChange(double sd1, double sd2) {
    return kSdsOf95 * std::hypot(sd1, sd2);
}

bool reallyChanged(double before, double sdBefore, double after, double sdAfter) {
    return std::abs(after - before) > smallestRealChange(sdBefore, sdAfter);
}

} // namespace jg
