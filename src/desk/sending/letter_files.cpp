// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/letter_files.h"

#include "desk/keeping/file_names.h"
#include "film/open_films.h"
#include "letter/calendar.h"
#include "letter/coach_sheet.h"
#include "letter/encoded.h"
#include "letter/letter_html.h"
#include "letter/letter_pages.h"
#include "letter/narrated_film.h"
#include "letter/still.h"
#include "letter/veils.h"
#include "letter/week_sheet.h"
#include "review/record/tried.h"

#include <memory>

namespace jg {

namespace fs = std::filesystem;

namespace {

constexpr int kStillPixels = 960; ///< across, sharp in print at the size it has in the letter

}

namespace {

/// A frame cut to the athlete, with the marks of one matter.
Result<QImage> stillOf(OpenFilms& films, const FilmRecipe& recipe, const ToldDelivery& told,
                       std::int64_t frame, const std::string& about, const MeasureGhost* ghost) {
    auto reader = films.of(told.clip);
    if (!reader) return reader.error();
    auto picture = (*reader)->picture(FrameNumber{frame});
    if (!picture) return picture.error();
    const QSizeF size(picture->width, picture->height);
    const MarkScene scene =
        onlyTheMatter(sceneFor(told.marks, recipe.playbook, told.assessment, frame, about, ghost, true));
    return renderStill(shownImage(*picture, told.marks.veils, frame), scene, recipe.words, kStillPixels,
                       stillPart(told.marks, frame, size));
}

} // namespace

Result<std::map<std::string, QImage>> correctionStills(const FilmRecipe& recipe) {
    std::map<std::string, QImage> stills;
    OpenFilms films;
    Status read = Done{};
    const auto add = [&](const std::string& key, const ToldDelivery& told, std::int64_t frame,
                         const std::string& about, const MeasureGhost* ghost) {
        if (!read) return;
        auto still = stillOf(films, recipe, told, frame, about, ghost);
        still ? void(stills[key] = std::move(*still)) : void(read = still.error());
    };
    for (const LetterCorrection& c : recipe.letter.corrections) {
        const ToldDelivery& told = toldIn(recipe, c.delivery);
        const std::string about = picturedMeasure(recipe, told, c.finding);
        add(c.finding, told, c.frame, about, ghostIn(told, about));
    }
    for (const LetterThen& t : recipe.letter.thens) {
        const Stop* stop = recipe.review.stop(t.stop);
        const ToldBeside* beside = stop ? besideIn(recipe, *stop) : nullptr;
        if (!beside) continue;
        const ToldDelivery& now = toldIn(recipe, t.delivery);
        const std::string about = picturedMeasure(recipe, now, stop->finding);
        add(t.thenKey(), *beside, t.thenFrame, about, nullptr);
        add(t.nowKey(), now, t.frame, about, nullptr);
    }
    if (!read) return read.error();
    return stills;
}

namespace {

using CorrectionStills = std::map<std::string, QImage>;

Status writeLetterPdf(const DispatchRecipe& recipe, const CorrectionStills& stills, const fs::path& path,
                      FileStore& files) {
    const LetterPages pages(recipe.film.letter, stills, recipe.film.words, recipe.paper);
    return writePdf(pages, recipe.film.words(recipe.film.letter.greeting), path, files);
}

Status writeLetterHtml(const DispatchRecipe& recipe, const CorrectionStills& stills, const fs::path& path,
                       FileStore& files) {
    return files.write(path, letterAsHtml(recipe.film.letter, stills, recipe.film.words));
}

} // namespace

Status exportLetter(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    auto stills = correctionStills(recipe.film);
    return stills ? writeLetterPdf(recipe, *stills, path, files) : Status(stills.error());
}

Status exportLetterHtml(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    auto stills = correctionStills(recipe.film);
    return stills ? writeLetterHtml(recipe, *stills, path, files) : Status(stills.error());
}

Status exportCalendar(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    const std::string calendar = writeCalendar(
        {recipe.film.letter, recipe.athleteFirstName, recipe.film.review.id.value, recipe.dateUnix},
        recipe.film.words);
    if (calendar.empty()) return fail(ErrorCode::Refused, msg("dispatch.no-calendar"));
    return files.write(path, calendar);
}

Status exportWeekSheet(const DispatchRecipe& recipe, Paper paper, const fs::path& path, FileStore& files) {
    return writeWeekSheet(recipe.film.letter, recipe.athleteFirstName, paper, recipe.film.words, path, files);
}

Status exportCoachSheet(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    CoachSheet sheet{
        recipe.athleteFirstName,
        recipe.film.review.date,
        recipe.film.assessment,
        recipe.film.playbook,
        weighedIn(recipe.film.review, recipe.film.playbook, recipe.film.assessment),
        cardOf(recipe.film.review, recipe.film.playbook, recipe.film.assessment, WalkOrder::Body),
        {}};
    for (const MeasureRow& row : sheet.told.measures) {
        if (!row.value.value) continue;
        const ToldDelivery& told = toldIn(recipe.film, row.delivery);
        // One that does not keep its promise is among the warnings already.
        if (const MeasureDefinition* m = sheet.playbook.measure(row.id))
            if (Message tried = triedInWords(sheet.playbook, *m, told.marks, told.captureFps); !tried.empty())
                sheet.tried[row.id] = std::move(tried);
    }
    return writeCoachSheet(sheet, recipe.paper, english(), path, files);
}

Status exportCaptions(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    auto captions = filmCaptions(recipe.film);
    return captions ? files.write(path, *captions) : Status(captions.error());
}

std::string stemOf(const DispatchRecipe& recipe) {
    return asFileName(recipe.athleteFirstName) + "-" + isoDate(recipe.film.review.date);
}

Result<std::vector<LetterFile>> letterFiles(const DispatchRecipe& recipe, FileStore& files,
                                            std::stop_token stop,
                                            const std::function<void(double)>& progress) {
    auto read = correctionStills(recipe.film);
    if (!read) return read.error();
    const auto stills = std::make_shared<const CorrectionStills>(std::move(*read));
    std::vector<LetterFile> all = {
        {".pdf", "application/pdf", msg("mail.what-letter"),
         [&recipe, &files, stills](const fs::path& p) { return writeLetterPdf(recipe, *stills, p, files); }},
        {".html", "text/html", msg("mail.what-html"), [&recipe, &files, stills](const fs::path& p) {
             return writeLetterHtml(recipe, *stills, p, files);
         }}};
    int serial = 0;
    for (const LetterCorrection& c : recipe.film.letter.corrections)
        if (const auto still = stills->find(c.finding); still != stills->end())
            all.push_back({"-" + std::to_string(++serial) + ".png", "image/png", Message{},
                           [&files, image = still->second](const fs::path& p) {
                               return files.write(p, encoded(image));
                           }});
    if (!recipe.film.letter.week.empty()) {
        all.push_back({"-week.pdf", "application/pdf", msg("mail.what-sheet"),
                       [&](const fs::path& p) { return exportWeekSheet(recipe, recipe.paper, p, files); }});
        all.push_back({"-week.ics", "text/calendar", msg("mail.what-calendar"),
                       [&](const fs::path& p) { return exportCalendar(recipe, p, files); }});
    }
    all.push_back({"-coach.pdf", "application/pdf", Message{},
                   [&](const fs::path& p) { return exportCoachSheet(recipe, p, files); }});
    if (recipe.film.review.takes.empty()) return all;
    all.push_back(
        {".vtt", "text/vtt", Message{}, [&](const fs::path& p) { return exportCaptions(recipe, p, files); }});
    all.push_back({".mp4", "video/mp4", msg("mail.what-film"),
                   [&recipe, &files, stop, &progress](const fs::path& p) -> Status {
                       auto made = renderNarratedFilm(recipe.film, p, files, stop, progress);
                       return made ? Status(Done{}) : Status(made.error());
                   }});
    return all;
}

Result<std::vector<fs::path>> exportAll(const DispatchRecipe& recipe, const fs::path& folder,
                                        FileStore& files, std::stop_token stop,
                                        const std::function<void(double)>& progress) {
    auto all = letterFiles(recipe, files, stop, progress);
    if (!all) return all.error();
    std::vector<fs::path> written;
    for (const LetterFile& file : *all) {
        if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("film.stopped"));
        const fs::path path = folder / (stemOf(recipe) + file.ending);
        if (auto done = file.write(path); !done) return done.error();
        written.push_back(path);
    }
    return written;
}

} // namespace jg
