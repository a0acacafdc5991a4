// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/fixtures.h"

#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"

#include <QCoreApplication>

#include <array>
#include <cctype>
#include <cerrno>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <stdexcept>
#include <unistd.h>

namespace jg {

std::string said(const Message& message) {
    return english()(message);
}

bool operator==(const Message& message, const std::string& words) {
    return said(message) == words;
}

std::ostream& operator<<(std::ostream& out, const Message& message) {
    return out << said(message);
}

} // namespace jg

namespace jg::test {

namespace fs = std::filesystem;

// Never one that a killed test of the same process number left behind.
TempFolder::TempFolder() {
    std::string name = (fs::temp_directory_path() / "juxtagraph-test-XXXXXX").string();
    if (!::mkdtemp(name.data())) throw std::runtime_error("no folder could be made for a test: " + name);
    path_ = name;
}

TempFolder::~TempFolder() {
    std::error_code ec;
    fs::remove_all(path_, ec);
}

MadeFilm::MadeFilm(const FilmOrder& order) {
    const fs::path film = folder_ / "a.mp4";
    if (auto made = makeFilm(order, film); !made) throw std::runtime_error(said(made.error().text));
    auto opened = Reader::open(film);
    if (!opened) throw std::runtime_error(said(opened.error().text));
    reader_ = std::move(*opened);
}

const Playbook& playbook() {
    static const Playbook book = [] {
        auto loaded = loadPlaybook(dataFolder() / "playbook");
        if (!loaded) ADD_FAILURE() << said(loaded.error().text);
        return std::move(*loaded);
    }();
    return book;
}

Date today() {
    return *parseIsoDate("2026-11-25");
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

std::string shell(const std::string& command, int* code) {
    std::string out;
    FILE* pipe = ::popen(command.c_str(), "r");
    if (!pipe) return out;
    std::array<char, 65536> buffer{};
    while (const std::size_t n = std::fread(buffer.data(), 1, buffer.size(), pipe))
        out.append(buffer.data(), n);
    const int status = ::pclose(pipe);
    if (code) *code = WIFEXITED(status) ? WEXITSTATUS(status) : 128;
    return out;
}

std::string squeezed(std::string text) {
    std::erase_if(text, [](unsigned char c) { return std::isspace(c); });
    return text;
}

std::size_t statusBytes(const std::string& name) {
    std::ifstream in("/proc/self/status");
    for (std::string word; in >> word;)
        if (word == name + ":") {
            std::size_t kB = 0;
            in >> kB;
            return kB * 1024;
        }
    return 0;
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

Status FullDisk::publish(const fs::path& path, const std::function<Status(const fs::path&)>&) {
    return writeError(path, ENOSPC);
}

AsNobody::AsNobody()
    : before_(geteuid()) {
    if (before_ == 0 && seteuid(65534) != 0) std::abort();
}

AsNobody::~AsNobody() {
    if (before_ != geteuid() && seteuid(before_) != 0) std::abort();
}

} // namespace jg::test
