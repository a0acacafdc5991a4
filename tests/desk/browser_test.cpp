// SPDX-License-Identifier: GPL-3.0-or-later
// The letter's HTML file laid out by a browser, as wide as a phone and as a desk. Reference: Chromium,
// headless and without a network.
#include "desk/sending/letter_files.h"

#include "desk/sending/dispatch.h"
#include "letter/letter_html.h"
#include "tests/support/walk.h"

#include <fstream>
#include <sstream>

namespace jg {
namespace {

using test::shell;
using test::Walk;

/// Tells from the frame round it, for the page lets no script run, what a reader would see of it: how far it
/// reaches beyond the window, pictures that did not come or hang over, the smallest letters, and its height.
const char* const kLook = R"(<script>
document.getElementById('page').addEventListener('load', event => {
  const page = event.target.contentDocument, view = event.target.contentWindow;
  const width = page.documentElement.clientWidth;
  let over = 0, small = 99;
  for (const e of page.body.querySelectorAll('*')) {
    over = Math.max(over, e.getBoundingClientRect().right - width);
    const own = [...e.childNodes].some(n => n.nodeType === 3 && n.data.trim());
    if (own) small = Math.min(small, parseFloat(view.getComputedStyle(e).fontSize));
  }
  const images = [...page.images], lost = images.filter(i => !i.naturalWidth).length;
  document.getElementById('said').textContent =
    ['seen', width, Math.ceil(over), small, images.length, lost,
     Math.round(page.documentElement.scrollHeight), page.title === 'run' ? 1 : 0].join(' ');
});
</script>)";

struct Seen {
    int width = 0, over = 0;
    double smallest = 0;
    int images = 0, lost = 0, height = 0;
    int ran = 0; ///< a script that stood in the page
};

std::string chromium(const Walk& walk, const std::string& arguments) {
    return shell("HOME='" + walk.folder.path().string() +
                 "' timeout 120 chromium --headless=new --no-sandbox --disable-gpu --disable-quic "
                 "--no-first-run --disable-background-networking --disable-component-update "
                 "--disable-sync --disable-dev-shm-usage --user-data-dir='" +
                 (walk.folder / "browser").string() + "' " + arguments + " 2>/dev/null");
}

std::string textOf(const std::filesystem::path& file) {
    std::ifstream in(file);
    return {std::istreambuf_iterator<char>(in), {}};
}

/// The page in a frame so wide (a headless window is never as narrow as a phone).
Seen lookedAt(const Walk& walk, const std::filesystem::path& page, int width) {
    std::string text = textOf(page);
    text.insert(text.find("</head>"), "<script>document.title = 'run'</script>");
    std::ofstream(walk.folder / "looked.html") << text;
    std::ofstream(walk.folder / "frame.html")
        << "<!doctype html><body style='margin:0'><p id=said></p><iframe id=page style='border:0;width:"
        << width << "px;height:740px'></iframe>" << kLook << "<script>page.src = 'looked.html'</script>";
    const std::string dom =
        chromium(walk, "--allow-file-access-from-files --virtual-time-budget=20000 --window-size=1400,900 "
                       "--dump-dom 'file://" +
                           (walk.folder / "frame.html").string() + "'");
    Seen seen;
    const auto at = dom.find(">seen ");
    if (at == std::string::npos) {
        ADD_FAILURE() << "the browser showed nothing: " << dom.substr(0, 300);
        return seen;
    }
    std::istringstream(dom.substr(at + 6)) >> seen.width >> seen.over >> seen.smallest >> seen.images >>
        seen.lost >> seen.height >> seen.ran;
    return seen;
}

/// Nothing hangs over, all pictures are there, the smallest letters can be read.
void expectLegible(const Seen& seen, int width) {
    constexpr double kSmallestPx = 12; // own choice: what phones take for the smallest of their own
    EXPECT_GE(seen.width, width - 20); // a bar to scroll by may take some
    EXPECT_LE(seen.over, 0) << width;
    EXPECT_GE(seen.smallest, kSmallestPx) << width;
    EXPECT_GT(seen.images, 0);
    EXPECT_EQ(seen.lost, 0);
    EXPECT_GT(seen.height, 740) << "a page of some length";
    EXPECT_EQ(seen.ran, 0) << "the page let a script run";
}

TEST(LetterInABrowser, FitsAPhoneAndADeskForEachReaderInBothLanguages) {
    Walk walk;
    for (const Language language : {Language::English, Language::Spanish})
        for (const Audience reader : allAudiences()) {
            SCOPED_TRACE(std::string(idOf(language)) + " " + std::string(idOf(reader)));
            const auto session = walk.session();
            ASSERT_TRUE(session->setLanguage(language));
            Plan plan = session->review().plan;
            plan.reader = reader;
            ASSERT_TRUE(session->perform(asIs("reader"), {SetPlan{plan}}));
            const auto page = walk.folder / "letter.html";
            ASSERT_TRUE(exportLetterHtml(previewRecipe(*session), page, walk.library->files()));
            for (const int width : {360, 1280}) expectLegible(lookedAt(walk, page, width), width);
        }
}

TEST(LetterInABrowser, WhatHangsOverOrIsTooSmallWouldBeSeen) {
    const Walk walk;
    const auto page = walk.folder / "bad.html";
    std::ofstream(page)
        << "<!doctype html><html><head></head><body style='margin:0;font-size:20px'>"
           "<img src='gone.png'><p style='width:700px;font-size:9px'>too wide</p></body></html>";
    const Seen seen = lookedAt(walk, page, 360);
    EXPECT_EQ(seen.over, 340);
    EXPECT_EQ(seen.smallest, 9);
    EXPECT_EQ(seen.lost, 1);
    EXPECT_EQ(seen.ran, 1);
    EXPECT_LE(lookedAt(walk, page, 1280).over, 0);
}

TEST(LetterInABrowser, IsPrintedWithAllItsWords) {
    Walk walk;
    const auto session = walk.session();
    const DispatchRecipe recipe = previewRecipe(*session);
    const auto page = walk.folder / "letter.html", print = walk.folder / "print.pdf";
    ASSERT_TRUE(exportLetterHtml(recipe, page, walk.library->files()));
    chromium(walk,
             "--no-pdf-header-footer --print-to-pdf='" + print.string() + "' 'file://" + page.string() + "'");
    const std::string text = test::squeezed(shell("pdftotext '" + print.string() + "' -"));
    for (const LetterCorrection& c : recipe.film.letter.corrections)
        EXPECT_NE(text.find(test::squeezed(said(c.title))), std::string::npos) << said(c.title);
    EXPECT_NE(text.find(test::squeezed(said(recipe.film.letter.closing))), std::string::npos);
}

} // namespace
} // namespace jg
