// SPDX-License-Identifier: GPL-3.0-or-later
// juxtagraph-cli: the core without a window.
#include "apps/cli/command.h"

#include "base/number.h"
#include "base/stop_on_signal.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "post/no_core.h"

#include <QGuiApplication>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <iostream>
#include <sstream>
#include <sys/stat.h>
#include <unistd.h>

namespace jg::cli {

std::optional<std::string> Arguments::value(const std::string& name) const {
    const auto it = values.find(name);
    return it == values.end() ? std::nullopt : std::optional(it->second);
}

std::string Arguments::need(const std::string& name) const {
    const auto found = value(name);
    if (!found) throw WrongUse(msg("main.name-is-missing", {{"name", name}}));
    return *found;
}

std::optional<double> Arguments::number(const std::string& name) const {
    const auto text = value(name);
    if (!text) return std::nullopt;
    const auto v = parseNumber(*text);
    if (!v) throw WrongUse(msg("main.wants-number", {{"name", name}, {"text", *text}}));
    return v;
}

const std::string& Arguments::word(std::size_t i, const char* what) const {
    if (i >= words.size()) throw WrongUse(msg("main.what-is-missing", {{"what", what}}));
    return words[i];
}

Playbook playbook() {
    return orRefuse(loadPlaybook(dataFolder() / "playbook"));
}

std::vector<std::string> split(const std::string& text, char separator) {
    std::vector<std::string> parts;
    std::istringstream in(text);
    for (std::string part; std::getline(in, part, separator);) parts.push_back(part);
    return parts;
}

void showProgress(double part, const Message& what) {
    if (!isatty(STDERR_FILENO)) return;
    std::fprintf(stderr, "\r%3d %%  %s   ", static_cast<int>(part * 100), english()(what).c_str());
    if (part >= 1) std::fprintf(stderr, "\n");
}

namespace {

std::vector<Command> allCommands() {
    std::vector<Command> all;
    for (auto group : {filmCommands(), measureCommands(), planCommands(), tellCommands(), libraryCommands(),
                       logCommands(), keepCommands(), intakeCommands()})
        for (auto& c : group) all.push_back(std::move(c));
    return all;
}

void printHelp(const std::vector<Command>& all, std::ostream& out) {
    out << msg("cli.help-head") << "\n\n";
    for (const Command& c : all) out << "  juxtagraph-cli " << c.use << "\n";
    out << "\n  juxtagraph-cli --version | --help | COMMAND --help\n" << msg("cli.help-exit") << "\n";
}

/// The command whose name stands at the front of the words; the longest name wins.
const Command* findCommand(const std::vector<Command>& all, const std::vector<std::string>& words,
                           std::size_t& used) {
    const Command* best = nullptr;
    for (const Command& c : all) {
        const auto space = c.name.find(' ');
        const std::string first = c.name.substr(0, space);
        const std::string second = space == std::string::npos ? "" : c.name.substr(space + 1);
        const std::size_t length = second.empty() ? 1 : 2;
        if (words.size() < length || words[0] != first || (length == 2 && words[1] != second)) continue;
        if (!best || length > used) best = &c, used = length;
    }
    return best;
}

Arguments parse(const Command& command, const std::vector<std::string>& rest) {
    Arguments a;
    for (std::size_t i = 0; i < rest.size(); ++i) {
        if (rest[i].rfind("--", 0) != 0) {
            a.words.push_back(rest[i]);
            continue;
        }
        const std::string name = rest[i].substr(2);
        if (command.flagOptions.contains(name)) {
            a.flags.insert(name);
        } else if (command.valueOptions.contains(name)) {
            if (i + 1 >= rest.size()) throw WrongUse(msg("main.name-wants-a-value", {{"name", name}}));
            a.values[name] = rest[++i];
        } else {
            throw WrongUse(msg("main.no-such-option", {{"name", name}}));
        }
    }
    if (a.words.size() < command.words) throw WrongUse(msg("main.something-is-missing"));
    if (a.words.size() > command.mostWords)
        throw WrongUse(msg("main.a-is-too-much", {{"a", a.words.back()}}));
    return a;
}

int run(const std::vector<std::string>& words, const std::stop_token& stop) {
    const auto all = allCommands();
    if (words.empty()) {
        printHelp(all, std::cerr);
        return 2;
    }
    if (words[0] == "--version") {
        std::cout << "juxtagraph-cli " << JG_VERSION << "\n";
        return 0;
    }
    if (words[0] == "--help" || words[0] == "help") {
        printHelp(all, std::cout);
        return 0;
    }
    std::size_t used = 0;
    const Command* command = findCommand(all, words, used);
    if (!command) {
        const bool two = words.size() > 1 && words[1].rfind("--", 0) != 0;
        std::cerr << msg("cli.no-command", {{"command", two ? words[0] + " " + words[1] : words[0]}}) << "\n";
        printHelp(all, std::cerr);
        return 2;
    }
    const std::vector<std::string> rest(words.begin() + static_cast<std::ptrdiff_t>(used), words.end());
    if (std::find(rest.begin(), rest.end(), "--help") != rest.end()) {
        std::cout << "juxtagraph-cli " << command->use << "\n";
        return 0;
    }
    try {
        command->run(parse(*command, rest), stop);
        if (std::cout.flush()) return 0;
        std::cerr << msg("cli.output-not-written") << "\n";
        return 1;
    } catch (const Told& e) {
        if (!std::cout.flush()) std::cerr << msg("cli.output-not-written") << "\n";
        return e.exitCode;
    } catch (const WrongUse& e) {
        std::cerr << msg("cli.wrong-use", {{"why", e.what()}}) << "\n  juxtagraph-cli " << command->use
                  << "\n";
        return 2;
    } catch (const std::exception& e) { // a Refusal, or a library's exception that no room caught
        std::cerr << e.what() << "\n";
        return 1;
    }
}

} // namespace
} // namespace jg::cli

int main(int argc, char** argv) {
    jg::leaveNoCore();
    const std::stop_token stop = jg::stopOnSignals();
    // Pictures and letters are painted without any screen.
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    std::vector<std::string> words(argv + 1, argv + argc);
    int count = 1;
    QGuiApplication app(count, argv);
    umask(077); // what a command writes is its user's
    return jg::cli::run(words, stop);
}
