// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/core.h"

#include "coaching/playbook_reader.h"
#include "words/words.h"

#include <array>
#include <cctype>
#include <cerrno>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <stdexcept>
#include <sys/wait.h>
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

fs::path playbookFolder() {
    return fs::path(JG_SOURCE_DIR) / "data" / "playbook";
}

const Playbook& playbook() {
    static const Playbook book = [] {
        auto loaded = loadPlaybook(playbookFolder());
        if (!loaded) ADD_FAILURE() << said(loaded.error().text);
        return std::move(*loaded);
    }();
    return book;
}

Date today() {
    return *parseIsoDate("2026-11-25");
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
