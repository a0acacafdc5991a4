// SPDX-License-Identifier: GPL-3.0-or-later
// What a review becomes: the letter as one HTML file, read by Python's own parser, all files saved at once,
// and the words of the mail.
#include "desk/sending/letter_files.h"
#include "letter/csv.h"

#include "desk/sending/dispatch.h"
#include "desk/sending/mail_words.h"
#include "letter/letter_html.h"
#include "tests/support/walk.h"

#include <fstream>
#include <set>

namespace jg {
namespace {

using test::shell;
using test::Walk;

/// Tells a page's language, what it asks of elsewhere, pictures without words, its headings, tags that never
/// close, and its text.
const char* const kReadPage = R"(
import html.parser, re, sys
VOID = {'meta', 'img', 'input', 'br', 'link'}
class Page(html.parser.HTMLParser):
    def __init__(self):
        super().__init__()
        self.open, self.elsewhere, self.mute, self.headings, self.text, self.lang, self.bad = [], [], 0, [], [], '', []
    def handle_starttag(self, tag, attrs):
        a = dict(attrs)
        if tag == 'html': self.lang = a.get('lang', '')
        for key in ('src', 'href', 'action'):
            if key in a and not a[key].startswith('data:'): self.elsewhere.append(a[key])
        if tag in ('script', 'iframe', 'link', 'form'): self.elsewhere.append(tag)
        if tag == 'img' and not a.get('alt', '').strip(): self.mute += 1
        if re.fullmatch('h[1-6]', tag): self.headings.append(tag)
        if tag not in VOID: self.open.append(tag)
    def handle_endtag(self, tag):
        if not self.open or self.open.pop() != tag: self.bad.append(tag)
    def handle_data(self, data):
        self.text.append(data)
page = Page()
page.feed(open(sys.argv[1], encoding='utf-8').read())
print('lang', page.lang)
print('elsewhere', page.elsewhere)
print('mute', page.mute)
print('first', page.headings[0], page.headings.count('h1'))
print('bad', page.bad, page.open)
print(' '.join(''.join(page.text).split()))
)";

std::string readPage(const std::filesystem::path& page, const std::filesystem::path& folder) {
    std::ofstream(folder / "read.py") << kReadPage;
    return shell("/usr/bin/python3 '" + (folder / "read.py").string() + "' '" + page.string() + "'");
}

TEST(LetterHtml, IsOneFileThatReadsByItself) {
    Walk walk;
    const auto session = walk.session();
    const DispatchRecipe recipe = previewRecipe(*session);
    const auto page = walk.folder / "letter.html";
    ASSERT_TRUE(exportLetterHtml(recipe, page, walk.library->files()));
    const std::string read = readPage(page, walk.folder.path());
    EXPECT_NE(read.find("lang en"), std::string::npos) << read.substr(0, 300);
    EXPECT_NE(read.find("elsewhere []"), std::string::npos) << read.substr(0, 300);
    EXPECT_NE(read.find("mute 0"), std::string::npos);
    EXPECT_NE(read.find("first h1 1"), std::string::npos);
    EXPECT_NE(read.find("bad [] []"), std::string::npos) << read.substr(0, 300);
    const std::string text = test::squeezed(read);
    const auto says = [&](const Message& m) {
        EXPECT_NE(text.find(test::squeezed(said(m))), std::string::npos) << said(m);
    };
    const LetterModel& letter = recipe.film.letter;
    ASSERT_FALSE(letter.corrections.empty());
    says(letter.greeting);
    for (const Message& keep : letter.keeps) says(keep);
    for (const LetterCorrection& c : letter.corrections)
        for (const Message* m : {&c.title, &c.number, &c.why, &c.feel, &c.need, &c.caption}) says(*m);
    for (const LetterWeekRow& row : letter.week)
        for (const Message* m : {&row.what, &row.how, &row.dose}) says(*m);
    says(letter.closing);
}

TEST(LetterHtml, WhatPeopleWroteIsNoMarkup) {
    LetterModel letter;
    letter.greeting = asIs("Hello");
    letter.opening = "<script>alert(1)</script> & more";
    letter.closing = asIs("\"quoted\" <b>");
    const test::TempFolder folder;
    FileStore files;
    ASSERT_TRUE(files.write(folder / "page.html", letterAsHtml(letter, {}, english())));
    const std::string read = readPage(folder / "page.html", folder.path());
    EXPECT_NE(read.find("elsewhere []"), std::string::npos) << read;
    EXPECT_NE(read.find("<script>alert(1)</script> & more"), std::string::npos) << read;
    EXPECT_NE(read.find("bad [] []"), std::string::npos) << read;
}

TEST(MailWords, GreetTheReaderTellWhatLiesBesideAndHowItOpens) {
    Walk walk;
    DispatchRecipe recipe = previewRecipe(*walk.session());
    recipe.toName = "Ruth Brandt";
    recipe.toGuardian = true;
    const std::vector<Enclosure> enclosures = {{"Odalys.pdf", msg("mail.what-letter")},
                                               {"Odalys.mp4", msg("mail.what-film")}};
    const std::string text = mailText(recipe, enclosures);
    EXPECT_TRUE(text.starts_with("Hello Ruth Brandt,\n\n")) << text;
    EXPECT_NE(text.find("about Odalys's delivery"), std::string::npos) << text;
    EXPECT_NE(text.find("- Odalys.pdf: the letter"), std::string::npos) << text;
    EXPECT_NE(text.find("- Odalys.mp4: the film. Press play"), std::string::npos) << text;
    EXPECT_EQ(text.find("  "), std::string::npos) << text;
    recipe.toGuardian = false;
    EXPECT_NE(mailText(recipe, enclosures).find("about your delivery"), std::string::npos);
    const std::string html = mailAsHtml(text, "en");
    EXPECT_NE(html.find("<p>Hello Ruth Brandt,</p>"), std::string::npos) << html;
    EXPECT_NE(html.find("<li>Odalys.pdf: the letter"), std::string::npos) << html;
    EXPECT_EQ(html.find("\n- "), std::string::npos);
}

TEST(LetterFiles, AllOfThemAreSavedWithoutSending) {
    Walk walk;
    DispatchRecipe recipe = previewRecipe(*walk.session());
    recipe.film.width = 320;
    recipe.film.height = 180;
    recipe.film.review.stops.resize(1);
    const auto folder = walk.folder / "saved";
    const auto written = exportAll(recipe, folder, walk.library->files());
    ASSERT_TRUE(written) << said(written.error().text);
    std::set<std::string> endings;
    for (const auto& path : *written) {
        EXPECT_GT(std::filesystem::file_size(path), 20U) << path;
        endings.insert(path.extension().string());
    }
    EXPECT_EQ(endings, (std::set<std::string>{".html", ".ics", ".mp4", ".pdf", ".png", ".vtt"}));
    EXPECT_FALSE(walk.library->review(walk.review.id)->sent);
    std::stop_source stop;
    stop.request_stop();
    const auto none = exportAll(recipe, walk.folder / "none", walk.library->files(), stop.get_token());
    ASSERT_FALSE(none);
    EXPECT_EQ(none.error().code, ErrorCode::Cancelled);
}

TEST(LetterPages, UsLetterIsItsOwnPaperAndHoldsTheSameWords) {
    Walk walk;
    DispatchRecipe recipe = previewRecipe(*walk.session());
    recipe.paper = Paper::Letter;
    const auto pdf = walk.folder / "us.pdf";
    ASSERT_TRUE(exportLetter(recipe, pdf, walk.library->files()));
    const std::string info = shell("pdfinfo '" + pdf.string() + "'");
    EXPECT_NE(info.find("612 x 792 pts (letter)"), std::string::npos) << info;
    const std::string text = test::squeezed(shell("pdftotext -enc UTF-8 '" + pdf.string() + "' -"));
    for (const LetterCorrection& c : recipe.film.letter.corrections)
        EXPECT_NE(text.find(test::squeezed(said(c.title))), std::string::npos);
    EXPECT_NE(text.find(test::squeezed(said(recipe.film.letter.closing))), std::string::npos);
}

// A page that leaves neither runs nor fetches anything, whatever got into it: read by what browsers read.
TEST(LetterHtml, EveryPageThatLeavesForbidsToFetch) {
    LetterModel letter;
    letter.greeting = asIs("Hello");
    for (const std::string& page : {letterAsHtml(letter, {}, english()), mailAsHtml("Hello", "en")}) {
        const auto policy = page.find("http-equiv=\"Content-Security-Policy\"");
        ASSERT_NE(policy, page.npos);
        EXPECT_LT(policy, page.find("<body")); // it counts only in the head
        EXPECT_NE(page.find("default-src 'none'", policy), page.npos);
        EXPECT_NE(page.find("form-action 'none'", policy), page.npos);
    }
}

// What a spreadsheet would work out is shown as it was written.
TEST(Csv, NoFieldIsAFormula) {
    for (const char* field :
         {"=1+1", "+SUM(A1)", "-2+3", "@SUM(1)", "\t=1", "  =cmd|'/c calc'!A1", "\uFF1D1+1", "|x"})
        EXPECT_TRUE(csvField(field).starts_with("'") || csvField(field).starts_with("\"'")) << field;
    for (const char* field : {"-12", "-12.5", "+3", "Ludo", "", "3 x 6", "a=b"})
        EXPECT_EQ(csvField(field), field);
    EXPECT_EQ(csvField("=\"a\",1"), "\"'=\"\"a\"\",1\"");
}

} // namespace
} // namespace jg
