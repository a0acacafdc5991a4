#include "desk/letter_files.h"

#include "desk/file_names.h"
#include "film/open_films.h"
#include "letter/calendar.h"
#include "letter/letter_html.h"
#include "letter/letter_pages.h"
#include "letter/still.h"
#include "letter/week_sheet.h"

#include <QBuffer>

namespace jg {

namespace fs = std::filesystem;

namespace {

constexpr int kStillPixels = 960; ///< across, sharp in print at the size it has in the letter

}

Result<std::map<std::string, QImage>> correctionStills(const FilmRecipe& recipe) {
    std::map<std::string, QImage> stills;
    if (recipe.letter.corrections.empty()) return stills;
    OpenFilms films;
    for (const LetterCorrection& c : recipe.letter.corrections) {
        const ToldDelivery& told = toldIn(recipe, c.delivery);
        auto reader = films.of(told.clip);
        if (!reader) return reader.error();
        auto picture = (*reader)->picture(FrameNumber{c.frame});
        if (!picture) return picture.error();
        const std::string about = picturedMeasure(recipe, told, c.finding);
        const QSizeF size(picture->width, picture->height);
        const MarkScene scene = onlyTheMatter(
            sceneFor(told.marks, recipe.playbook, told.assessment, c.frame, about, ghostIn(told, about)));
        stills[c.finding] =
            renderStill(*picture, scene, recipe.words, kStillPixels, stillPart(told.marks, c.frame, size));
    }
    return stills;
}

Status exportLetter(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    auto stills = correctionStills(recipe.film);
    if (!stills) return stills.error();
    const LetterPages pages(recipe.film.letter, std::move(*stills), recipe.film.words, recipe.paper);
    return writePdf(pages, recipe.film.words(recipe.film.letter.greeting), path, files);
}

Status exportLetterHtml(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    auto stills = correctionStills(recipe.film);
    if (!stills) return stills.error();
    return files.write(path, letterAsHtml(recipe.film.letter, *stills, recipe.film.words));
}

std::string calendarOf(const DispatchRecipe& recipe) {
    return writeCalendar(
        {recipe.film.letter, recipe.athleteFirstName, recipe.film.review.id.value, recipe.dateUnix},
        recipe.film.words);
}

Status exportCalendar(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    const std::string calendar = calendarOf(recipe);
    if (calendar.empty()) return fail(ErrorCode::Refused, msg("dispatch.no-calendar"));
    return files.write(path, calendar);
}

Status exportWeekSheet(const DispatchRecipe& recipe, Paper paper, const fs::path& path, FileStore& files) {
    return writeWeekSheet(recipe.film.letter, recipe.athleteFirstName, paper, recipe.film.words, path, files);
}

Status exportCaptions(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    auto captions = filmCaptions(recipe.film);
    return captions ? files.write(path, *captions) : Status(captions.error());
}

std::string stemOf(const DispatchRecipe& recipe) {
    return asFileName(recipe.athleteFirstName) + "-" + isoDate(recipe.film.review.date);
}

namespace {

Status exportStills(const DispatchRecipe& recipe, const fs::path& folder, FileStore& files,
                    std::vector<fs::path>& written) {
    auto stills = correctionStills(recipe.film);
    if (!stills) return stills.error();
    int serial = 0;
    for (const LetterCorrection& c : recipe.film.letter.corrections) {
        const auto still = stills->find(c.finding);
        if (still == stills->end()) continue;
        QByteArray bytes;
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        still->second.save(&buffer, "PNG");
        const fs::path path = folder / (stemOf(recipe) + "-" + std::to_string(++serial) + ".png");
        const std::string_view png(bytes.constData(), static_cast<std::size_t>(bytes.size()));
        if (auto done = files.write(path, png); !done) return done;
        written.push_back(path);
    }
    return Done{};
}

} // namespace

Result<std::vector<fs::path>> exportAll(const DispatchRecipe& recipe, const fs::path& folder,
                                        FileStore& files, std::stop_token stop,
                                        const std::function<void(double)>& progress) {
    std::vector<fs::path> written;
    const auto write = [&](const std::string& ending, const auto& make) -> Status {
        const fs::path path = folder / (stemOf(recipe) + ending);
        if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("film.stopped"));
        Status done = make(path);
        if (done) written.push_back(path);
        return done;
    };
    if (auto done = write(".pdf", [&](const fs::path& p) { return exportLetter(recipe, p, files); }); !done)
        return done.error();
    if (auto done = write(".html", [&](const fs::path& p) { return exportLetterHtml(recipe, p, files); });
        !done)
        return done.error();
    if (auto done = exportStills(recipe, folder, files, written); !done) return done.error();
    if (!recipe.film.letter.week.empty()) {
        if (auto done =
                write("-week.pdf",
                      [&](const fs::path& p) { return exportWeekSheet(recipe, recipe.paper, p, files); });
            !done)
            return done.error();
        if (auto done =
                write("-week.ics", [&](const fs::path& p) { return exportCalendar(recipe, p, files); });
            !done)
            return done.error();
    }
    if (recipe.film.review.takes.empty()) return written;
    if (auto done = write(".vtt", [&](const fs::path& p) { return exportCaptions(recipe, p, files); }); !done)
        return done.error();
    if (auto done = write(".mp4",
                          [&](const fs::path& p) -> Status {
                              auto made = renderNarratedFilm(recipe.film, p, files, stop, progress);
                              return made ? Status(Done{}) : Status(made.error());
                          });
        !done)
        return done.error();
    return written;
}

} // namespace jg
