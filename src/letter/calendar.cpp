// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/calendar.h"

#include <libical/ical.h>

#include <memory>

namespace jg {

namespace {

struct Freed {
    void operator()(icalcomponent* c) const { icalcomponent_free(c); }
};
using Component = std::unique_ptr<icalcomponent, Freed>;

icaltimetype wholeDay(Date date) {
    icaltimetype t = icaltime_null_date();
    t.year = static_cast<int>(date.year());
    t.month = static_cast<int>(static_cast<unsigned>(date.month()));
    t.day = static_cast<int>(static_cast<unsigned>(date.day()));
    return t;
}

void add(icalcomponent* to, icalproperty* property) {
    icalcomponent_add_property(to, property);
}

/// An entry of one whole day.
icalcomponent* entry(const CalendarOrder& order, const std::string& uid, Date on, const std::string& summary,
                     const std::string& description) {
    icalcomponent* event = icalcomponent_new_vevent();
    add(event, icalproperty_new_uid((uid + "@juxtagraph.invalid").c_str()));
    add(event, icalproperty_new_dtstamp(
                   icaltime_from_timet_with_zone(order.writtenUnix, 0, icaltimezone_get_utc_timezone())));
    add(event, icalproperty_new_dtstart(wholeDay(on)));
    add(event, icalproperty_new_dtend(wholeDay(addDays(on, 1))));
    add(event, icalproperty_new_summary(summary.c_str()));
    if (!description.empty()) add(event, icalproperty_new_description(description.c_str()));
    add(event, icalproperty_new_transp(ICAL_TRANSP_TRANSPARENT));
    return event;
}

void comeBackUntil(icalcomponent* event, Date last) {
    icalrecurrencetype rule;
    icalrecurrencetype_clear(&rule);
    rule.freq = ICAL_WEEKLY_RECURRENCE;
    rule.until = wholeDay(last);
    add(event, icalproperty_new_rrule(rule));
}

/// The first day after `from` on that weekday, 0 = Monday.
Date nextWeekday(Date from, int weekday) {
    const std::chrono::weekday wanted{static_cast<unsigned>((weekday + 1) % 7)};
    Date date = addDays(from, 1);
    while (std::chrono::weekday{std::chrono::sys_days{date}} != wanted) date = addDays(date, 1);
    return date;
}

/// What is done on a day: cautions first, then each drill with its dose and how.
std::string describe(const LetterModel& letter, int weekday, const Words& words) {
    std::string text;
    for (const Message& caution : letter.cautions) text += words(caution) + "\n\n";
    for (const LetterWeekRow& row : letter.week)
        if (row.on(weekday)) text += words(row.what) + " (" + words(row.dose) + "): " + words(row.how) + "\n";
    return text;
}

} // namespace

std::string writeCalendar(const CalendarOrder& order, const Words& words) {
    const LetterModel& letter = order.letter;
    if (letter.week.empty() && !letter.nextLookOn) return {};
    const Component calendar(icalcomponent_new_vcalendar());
    add(calendar.get(), icalproperty_new_version("2.0"));
    add(calendar.get(), icalproperty_new_prodid("-//Juxtagraph//Week of drills//EN"));
    for (int weekday = 0; weekday < 7; ++weekday) {
        const Message body = letter.bodyOn(weekday);
        if (body.empty()) continue;
        const Date first = nextWeekday(letter.writtenOn, weekday);
        const Date last = letter.nextLookOn ? addDays(*letter.nextLookOn, -1) : addDays(first, 27);
        if (last < first) continue;
        icalcomponent* event = entry(order, order.id + "-day-" + std::to_string(weekday), first,
                                     words(msg("calendar.drills", {{"name", order.athlete}, {"body", body}})),
                                     describe(letter, weekday, words));
        comeBackUntil(event, last);
        icalcomponent_add_component(calendar.get(), event);
    }
    if (letter.nextLookOn)
        icalcomponent_add_component(calendar.get(),
                                    entry(order, order.id + "-look", *letter.nextLookOn,
                                          words(msg("calendar.next-look", {{"name", order.athlete}})),
                                          words(letter.nextLook)));
    char* text = icalcomponent_as_ical_string_r(calendar.get());
    std::string written = text;
    free(text);
    return written;
}

} // namespace jg
