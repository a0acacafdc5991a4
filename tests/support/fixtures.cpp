// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/fixtures.h"

#include <QCoreApplication>

#include <stdexcept>

namespace jg::test {

namespace fs = std::filesystem;

MadeFilm::MadeFilm(const FilmOrder& order) {
    const fs::path film = folder_ / "a.mp4";
    if (auto made = makeFilm(order, film); !made) throw std::runtime_error(said(made.error().text));
    auto opened = Reader::open(film);
    if (!opened) throw std::runtime_error(said(opened.error().text));
    reader_ = std::move(*opened);
}

FilmOrder smallOrder(int fps, Hand hand, View view) {
    FilmOrder o;
    o.fps = fps;
    o.hand = hand;
    o.camera.view = view;
    o.camera.width = 320;
    o.camera.height = 180;
    o.noise = 0.004;
    return o;
}

fs::path binFolder() {
    return fs::path(QCoreApplication::applicationDirPath().toStdString());
}

namespace {

template <typename T>
ChangeOf<T> to(const T& wanted) {
    return [wanted](T& now) -> Status {
        now = wanted;
        return Done{};
    };
}

template <typename T>
Status done(const Result<T>& result) {
    return result ? Status(Done{}) : Status(result.error());
}

} // namespace

Status put(Store& store, const Athlete& a) {
    return store.athlete(a.id) ? done(store.change(a.id, to(a))) : store.add(a);
}

Status put(Store& store, const Submission& s, const Athlete* newAthlete) {
    return store.submission(s.id) ? done(store.change(s.id, to(s))) : store.add(s, newAthlete);
}

Status put(Store& store, const Promise& p) {
    return p.row != 0 ? done(store.change(p.row, to(p))) : store.add(p);
}

Status put(Store& store, const OutboxItem& item) {
    return store.mail(item.id) ? done(store.changeMail(item.id, to(item))) : store.add(item);
}

} // namespace jg::test
