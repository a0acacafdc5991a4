// SPDX-License-Identifier: GPL-3.0-or-later
// The command line's grammar: words, options, refusals.
#pragma once

#include "base/result.h"
#include "coaching/playbook.h"
#include "words/words.h"

#include <nlohmann/json.hpp>

#include <map>
#include <optional>
#include <ostream>
#include <set>
#include <stdexcept>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// The command line speaks English, on the terminal and in JSON.
inline void to_json(nlohmann::json& value, const Message& message) {
    value = english()(message);
}
inline std::ostream& operator<<(std::ostream& out, const Message& message) {
    return out << english()(message);
}

} // namespace jg

namespace jg::cli {

/// Ends a command with exit 1 and one sentence on stderr.
struct Refusal : std::runtime_error {
    explicit Refusal(const Message& why)
        : std::runtime_error(english()(why)) {}
};

/// Ends a command whose output stands and says itself what is wrong.
struct Told {
    int exitCode = 1;
};

/// Ends a command with exit 2 and the right use on stderr.
struct WrongUse : std::runtime_error {
    explicit WrongUse(const Message& why)
        : std::runtime_error(english()(why)) {}
};

/// Words and options of one call.
struct Arguments {
    std::vector<std::string> words;
    std::map<std::string, std::string> values; ///< --name value
    std::set<std::string> flags;               ///< --name

    bool has(const std::string& flag) const { return flags.contains(flag); }
    std::optional<std::string> value(const std::string& name) const;
    std::string need(const std::string& name) const;
    /// A finite number. WrongUse otherwise.
    std::optional<double> number(const std::string& name) const;
    const std::string& word(std::size_t i, const char* what) const;
};

/// One command: its name, how it is used, its options, and what it does.
struct Command {
    std::string name; ///< "film probe"
    std::string use;
    std::set<std::string> valueOptions;
    std::set<std::string> flagOptions;
    std::size_t words = 0; ///< how many words it takes at least
    std::size_t mostWords = 0;
    void (*run)(const Arguments&, std::stop_token) = nullptr;
};

/// Value, or a Refusal with its sentence.
template <typename T>
T orRefuse(Result<T> result) {
    if (!result) throw Refusal(result.error().text);
    return std::move(result).value();
}

/// The shipped playbook.
Playbook playbook();

std::vector<std::string> split(const std::string& text, char separator);

/// Shows progress on stderr when it is a terminal. 0..1.
void showProgress(double part, const Message& what);

std::vector<Command> filmCommands();
std::vector<Command> measureCommands();
std::vector<Command> libraryCommands();
std::vector<Command> planCommands();
std::vector<Command> tellCommands();
std::vector<Command> logCommands();
std::vector<Command> keepCommands();
std::vector<Command> intakeCommands();

} // namespace jg::cli
