// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/fault_log.h"

#include "base/mutex.h"

#include <charconv>
#include <cstdio>
#include <cstdlib>
#include <ctime>
#include <deque>
#include <fstream>

namespace jg {

namespace {

/// True when the environment asks to hear of this category.
bool isHeard(std::string_view category) {
    const char* wish = std::getenv("JUXTAGRAPH_LOG");
    if (!wish) return false;
    const std::string all = "," + std::string(wish) + ",";
    return all == ",all," || all.find("," + std::string(category) + ",") != std::string::npos;
}

/// A line of the file: seconds, category and what, by tabs. Nothing for another line.
bool readLine(const std::string& line, FaultNote& note) {
    const std::size_t first = line.find('\t'), second = line.find('\t', first + 1);
    if (first == std::string::npos || second == std::string::npos) return false;
    const auto read = std::from_chars(line.data(), line.data() + first, note.unix);
    note.category = line.substr(first + 1, second - first - 1);
    note.what = line.substr(second + 1);
    return read.ec == std::errc() && read.ptr == line.data() + first;
}

void writeLine(std::ostream& out, const FaultNote& note) {
    out << note.unix << '\t' << note.category << '\t' << note.what << '\n' << std::flush;
}

/// No line and no column of the file ends within a note.
std::string onOneLine(std::string_view text) {
    std::string line(text);
    for (char& c : line)
        if (static_cast<unsigned char>(c) < ' ') c = ' ';
    return line;
}

class FaultLog {
public:
    void note(FaultNote note) {
        const Holding lock(mutex_);
        if (isHeard(note.category)) std::fprintf(stderr, "%s\n", lineOf(note).c_str());
        if (!add(note)) return;
        if (file_.is_open()) writeLine(file_, note);
    }

    std::vector<FaultNote> all() {
        const Holding lock(mutex_);
        return {notes_.begin(), notes_.end()};
    }

    void keepIn(const std::filesystem::path& file, std::int64_t now) {
        const Holding lock(mutex_);
        std::ifstream before(file);
        std::deque<FaultNote> newer;
        newer.swap(notes_);
        FaultNote note;
        for (std::string line; std::getline(before, line);)
            if (readLine(line, note) && isRecent(note, now)) add(note);
        for (const FaultNote& n : newer) add(n);
        std::ofstream anew(file, std::ios::trunc);
        for (const FaultNote& n : notes_) writeLine(anew, n);
        file_.open(file, std::ios::app); // another window may write to it, too
    }

private:
    /// False when it is the one before once more.
    bool add(const FaultNote& note) JG_NEEDS(mutex_) {
        if (!notes_.empty() && notes_.back().category == note.category && notes_.back().what == note.what) {
            ++notes_.back().times;
            notes_.back().unix = note.unix;
            return false;
        }
        notes_.push_back(note);
        if (notes_.size() > kMostFaults) notes_.pop_front();
        return true;
    }

    Mutex mutex_;
    std::deque<FaultNote> notes_ JG_GUARDED_BY(mutex_);
    std::ofstream file_ JG_GUARDED_BY(mutex_);
};

FaultLog& faults() {
    static FaultLog log;
    return log;
}

} // namespace

bool isRecent(const FaultNote& note, std::int64_t nowUnix) {
    return nowUnix - note.unix < std::int64_t{kFaultHours} * 3600;
}

void noteFault(std::string_view category, std::string_view what) {
    faults().note({std::time(nullptr), onOneLine(category), onOneLine(what)});
}

std::vector<FaultNote> notedFaults() {
    return faults().all();
}

void keepFaultsIn(const std::filesystem::path& file, std::int64_t nowUnix) {
    faults().keepIn(file, nowUnix);
}

std::string lineOf(const FaultNote& note) {
    const auto when = static_cast<std::time_t>(note.unix);
    std::tm utc{};
    gmtime_r(&when, &utc);
    char time[32];
    std::strftime(time, sizeof time, "%Y-%m-%d %H:%M:%S", &utc);
    return std::string(time) + "  " + note.category + "  " + note.what +
           (note.times > 1 ? "  (" + std::to_string(note.times) + ")" : "");
}

} // namespace jg
