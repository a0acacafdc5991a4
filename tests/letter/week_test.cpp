// SPDX-License-Identifier: GPL-3.0-or-later
// The week as a calendar and as a sheet. The calendar is read by libical (its parser, not its writer) and by
// python3-icalendar; the sheet by poppler.
#include "letter/calendar.h"
#include "letter/week_sheet.h"
#include "tests/support/fixtures.h"
#include "tests/support/walk.h"

#include <libical/ical.h>

#include <fstream>
#include <map>
#include <set>

namespace jg {
namespace {

namespace fs = std::filesystem;

/// A letter of Wednesday 25 November 2026 with a lower drill on Monday and Thursday, an upper one on Friday.
LetterModel weekLetter() {
    LetterModel m;
    m.writtenOn = test::today();
    m.nextLookOn = addDays(m.writtenOn, 28);
    m.nextLook = asIs("On 23 December; film from the third-base side, \xe2\x80\x9csquare\xe2\x80\x9d; bring "
                      "a ball, please.");
    m.signature = "Ilse Varnholt";
    LetterWeekRow lower, upper;
    lower.what = asIs("Chair sit on the back leg"),
    lower.how = asIs("Sit; heel down, and ride.\nThen stand.");
    lower.dose = asIs("3 \xc3\x97 6"), lower.body = msg("letter-body.lower"), lower.lower = true;
    lower.weekdays = {0, 3};
    upper.what = asIs("Mirror work"), upper.how = asIs("Slowly."), upper.dose = asIs("3 \xc3\x97 10");
    upper.body = msg("letter-body.upper"), upper.weekdays = {4};
    m.week = {lower, upper};
    return m;
}

std::string calendarOf(const LetterModel& m) {
    return writeCalendar({m, "Ludo", "rev-1", 1795600000}, english());
}

TEST(Calendar, LibicalReadsEveryDayAsItWasMeant) {
    icalcomponent* read = icalparser_parse_string(calendarOf(weekLetter()).c_str());
    ASSERT_NE(read, nullptr);
    EXPECT_EQ(icalcomponent_count_errors(read), 0);
    EXPECT_TRUE(icalrestriction_check(read));
    std::map<std::string, std::vector<std::string>> days; // by summary: the first three dates
    for (icalcomponent* e = icalcomponent_get_first_component(read, ICAL_VEVENT_COMPONENT); e;
         e = icalcomponent_get_next_component(read, ICAL_VEVENT_COMPONENT)) {
        const icaltimetype start = icalcomponent_get_dtstart(e);
        EXPECT_TRUE(start.is_date);
        const std::string summary = icalcomponent_get_summary(e);
        icalproperty* rule = icalcomponent_get_first_property(e, ICAL_RRULE_PROPERTY);
        if (!rule) {
            days[summary].push_back(icaltime_as_ical_string(start));
            continue;
        }
        icalrecur_iterator* each = icalrecur_iterator_new(icalproperty_get_rrule(rule), start);
        for (icaltimetype t = icalrecur_iterator_next(each); !icaltime_is_null_time(t);
             t = icalrecur_iterator_next(each))
            days[summary].push_back(icaltime_as_ical_string(t));
        icalrecur_iterator_free(each);
    }
    icalcomponent_free(read);
    // Four weeks from the day after the letter up to the day before the next look (23 December).
    EXPECT_EQ(days["Ludo: Upper body"],
              (std::vector<std::string>{"20261127", "20261204", "20261211", "20261218"}));
    const auto& lower = days["Ludo: Lower body"];
    EXPECT_EQ(std::set<std::string>(lower.begin(), lower.end()),
              (std::set<std::string>{"20261126", "20261130", "20261203", "20261207", "20261210", "20261214",
                                     "20261217", "20261221"}));
    EXPECT_EQ(days["Ludo: film for the next look"], std::vector<std::string>{"20261223"});
}

TEST(Calendar, AnotherReaderReadsTheSame) {
    const test::TempFolder folder;
    std::ofstream(folder / "week.ics", std::ios::binary) << calendarOf(weekLetter());
    const std::string script =
        "import icalendar,sys\n"
        "c=icalendar.Calendar.from_ical(open(sys.argv[1],'rb').read())\n"
        "for e in c.walk('VEVENT'):\n"
        "  r=e.get('RRULE')\n"
        "  print(e['UID'],e['DTSTART'].dt,e['SUMMARY'],r['UNTIL'][0] if r else '-',sep='|')\n"
        "  print(repr(str(e['DESCRIPTION'])))\n";
    std::ofstream(folder / "read.py") << script;
    const std::string read = test::shell("/usr/bin/python3 '" + (folder / "read.py").string() + "' '" +
                                         (folder / "week.ics").string() + "'");
    EXPECT_NE(read.find("rev-1-day-0@juxtagraph.invalid|2026-11-30|Ludo: Lower body|2026-12-22"),
              std::string::npos)
        << read;
    EXPECT_NE(read.find("rev-1-look@juxtagraph.invalid|2026-12-23|Ludo: film for the next look|-"),
              std::string::npos)
        << read;
    // Commas, semicolons, quotes and line ends come back as they were.
    EXPECT_NE(read.find("Sit; heel down, and ride.\\nThen stand."), std::string::npos) << read;
    EXPECT_NE(read.find("square\xe2\x80\x9d; bring a ball, please."), std::string::npos) << read;
}

TEST(Calendar, TheCautionStandsFirstOnEveryDay) {
    LetterModel m = weekLetter();
    m.cautions = {msg("letter.coming-back")};
    icalcomponent* read = icalparser_parse_string(calendarOf(m).c_str());
    int days = 0;
    for (icalcomponent* e = icalcomponent_get_first_component(read, ICAL_VEVENT_COMPONENT); e;
         e = icalcomponent_get_next_component(read, ICAL_VEVENT_COMPONENT)) {
        if (!icalcomponent_get_first_property(e, ICAL_RRULE_PROPERTY)) continue;
        EXPECT_EQ(std::string(icalcomponent_get_description(e)).find("You are on your way back"), 0U);
        ++days;
    }
    icalcomponent_free(read);
    EXPECT_EQ(days, 3);
}

TEST(Calendar, WithoutDrillsAndNextLookThereIsNone) {
    EXPECT_TRUE(calendarOf(LetterModel{}).empty());
}

void expectOnePage(const LetterModel& m, Paper paper, const std::string& size, bool legible) {
    const test::TempFolder folder;
    FileStore files;
    const fs::path pdf = folder / "week.pdf";
    ASSERT_TRUE(writeWeekSheet(m, "Ludo", paper, english(), pdf, files));
    const std::string about = test::shell("pdfinfo '" + pdf.string() + "'");
    EXPECT_NE(about.find("Pages:           1"), std::string::npos) << about;
    EXPECT_NE(about.find(size), std::string::npos) << about;
    const std::string text = test::shell("pdftotext -layout '" + pdf.string() + "' -");
    for (const LetterWeekRow& row : m.week)
        EXPECT_NE(text.find(english()(row.what).substr(0, 8)), std::string::npos) << text;
    // The last line is on the page too: nothing ran over its edge.
    EXPECT_NE(text.find("licensed professional"), std::string::npos) << text;
    if (!legible) return;
    // pdftotext -bbox gives each word's box in points: the smallest is still print one can read.
    const std::string boxes = test::shell("pdftotext -bbox '" + pdf.string() + "' -");
    double smallest = 99;
    for (std::size_t at = boxes.find("<word "); at != boxes.npos; at = boxes.find("<word ", at + 1)) {
        const auto number = [&](const char* name) {
            return std::stod(boxes.substr(boxes.find(name, at) + std::string(name).size()));
        };
        smallest = std::min(smallest, number("yMax=\"") - number("yMin=\""));
    }
    EXPECT_GT(smallest, 7.5);
}

TEST(WeekSheet, PrintsOnOnePageOfA4AndOfLetter) {
    expectOnePage(weekLetter(), Paper::A4, "A4", true);
    expectOnePage(weekLetter(), Paper::Letter, "letter", true);
}

TEST(WeekSheet, AFullWeekStaysOnOnePage) {
    LetterModel m = weekLetter();
    for (int i = 0; i < 9; ++i) {
        LetterWeekRow row = m.week[static_cast<std::size_t>(i % 2)];
        row.what = asIs("Drill number " + std::to_string(i));
        row.how = asIs(std::string(300, 'x').replace(20, 1, " ").replace(90, 1, " ").replace(170, 1, " "));
        m.week.push_back(row);
    }
    m.nextLookOn = addDays(m.writtenOn, 56);
    m.cautions = {msg("letter.caution"), msg("letter.coming-back")};
    expectOnePage(m, Paper::A4, "A4", false);
    expectOnePage(m, Paper::Letter, "letter", false);
}

TEST(WeekSheet, WithoutDrillsItIsRefusedAndNothingIsWritten) {
    const test::TempFolder folder;
    FileStore files;
    const Status made = writeWeekSheet({}, "Ludo", Paper::A4, english(), folder / "week.pdf", files);
    ASSERT_FALSE(made);
    EXPECT_EQ(made.error().code, ErrorCode::Refused);
    EXPECT_FALSE(fs::exists(folder / "week.pdf"));
}

} // namespace
} // namespace jg
