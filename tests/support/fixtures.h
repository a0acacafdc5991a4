// SPDX-License-Identifier: GPL-3.0-or-later
// What tests of films and of the library need, beyond what those of the computing rooms do.
#pragma once

#include "demo/films/film_maker.h"
#include "film/reader.h"
#include "library/library.h"
#include "tests/support/core.h"
#include "words/words.h"

#include <memory>

namespace jg::test {

/// A film of a generated delivery, made in a folder of its own and open.
class MadeFilm {
public:
    explicit MadeFilm(const FilmOrder& order);
    Reader& reader() { return *reader_; }
    const TempFolder& folder() const { return folder_; }

private:
    TempFolder folder_;
    std::unique_ptr<Reader> reader_;
};

/// Puts something into a library as it is here, were it there or not: tests begin with what they need.
Status put(Store& store, const Athlete& athlete);
Status put(Store& store, const Submission& submission, const Athlete* newAthlete = nullptr);
Status put(Store& store, const Promise& promise);
Status put(Store& store, const OutboxItem& item);

/// A small, quick film of a delivery: 320 x 180.
FilmOrder smallOrder(int fps = 60, Hand hand = Hand::Right, View view = View::Open);

/// Folder with the built executables.
std::filesystem::path binFolder();

} // namespace jg::test
