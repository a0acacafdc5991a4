#include "review/people.h"

namespace jg {

int Athlete::ageOn(Date date) const {
    int age = static_cast<int>(date.year()) - static_cast<int>(born.year());
    if (date.month() < born.month() || (date.month() == born.month() && date.day() < born.day())) --age;
    return age;
}

} // namespace jg
