// SPDX-License-Identifier: GPL-3.0-or-later
// What a finished review becomes: letter, film, captions, week, stills, each as a file.
#pragma once

#include "base/file_store.h"
#include "desk/sending/dispatch_recipe.h"

#include <QImage>

#include <filesystem>
#include <functional>
#include <map>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// Stills of the corrections, by finding id, and of what is compared, by a LetterThen's keys. Opens the
/// film; may run in any thread. Errors: those of Reader.
Result<std::map<std::string, QImage>> correctionStills(const FilmRecipe& recipe);

/// Writes the letter as PDF. Errors: those of Reader and writing.
Status exportLetter(const DispatchRecipe& recipe, const std::filesystem::path& path, FileStore& files);
/// The letter as one HTML file. Errors: those of Reader and writing.
Status exportLetterHtml(const DispatchRecipe& recipe, const std::filesystem::path& path, FileStore& files);

/// The week of drills as a calendar and as a sheet of paper. Errors: Refused without drills, those of
/// writing.
Status exportCalendar(const DispatchRecipe& recipe, const std::filesystem::path& path, FileStore& files);
Status exportWeekSheet(const DispatchRecipe& recipe, Paper paper, const std::filesystem::path& path,
                       FileStore& files);

/// All numbers for the coach, in the program's own language. Errors: those of writing.
Status exportCoachSheet(const DispatchRecipe& recipe, const std::filesystem::path& path, FileStore& files);

/// The film's captions as WebVTT. Errors: those of filmCaptions() and writing.
Status exportCaptions(const DispatchRecipe& recipe, const std::filesystem::path& path, FileStore& files);

/// "Ludo-2026-11-28": what the files of a letter are called, without their ending.
std::string stemOf(const DispatchRecipe& recipe);

/// One file that a review becomes.
struct LetterFile {
    std::string ending; ///< behind stemOf()
    std::string type;   ///< "application/pdf"
    Message what;       ///< what it is and how it is opened, in a mail; empty = it goes into none
    std::function<Status(const std::filesystem::path&)> write;
};

/// All of them, the letter first and the film last; its stills are read here, once. They hold on to what they
/// are made from: recipe, files and progress must outlive them. Errors: those of Reader.
Result<std::vector<LetterFile>> letterFiles(const DispatchRecipe& recipe, FileStore& files,
                                            std::stop_token stop,
                                            const std::function<void(double)>& progress);

/// Everything into a folder: letter as PDF and HTML, stills, the week when there is one, film and captions
/// when something was said. Gives the files that were written; those of a call that fails stay. Errors: those
/// above, Cancelled.
Result<std::vector<std::filesystem::path>> exportAll(const DispatchRecipe& recipe,
                                                     const std::filesystem::path& folder, FileStore& files,
                                                     std::stop_token stop = {},
                                                     const std::function<void(double)>& progress = {});

} // namespace jg
