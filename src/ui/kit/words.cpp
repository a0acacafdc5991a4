// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/words.h"

#include "base/time_zone.h"
#include "letter/qt_text.h"

#include <cmath>

namespace jg::ui {

namespace {
Words& current() {
    static Words words = english();
    return words;
}

std::shared_ptr<const NameVeil>& hidden() {
    static std::shared_ptr<const NameVeil> names;
    return names;
}
} // namespace

void hideNames(std::shared_ptr<const NameVeil> names) {
    hidden() = std::move(names);
    current() = current().hiding(hidden());
}

bool namesAreHidden() {
    return hidden() != nullptr;
}

Words asShown(const Words& reader) {
    return reader.hiding(hidden());
}

QString text(std::string_view utf8) {
    return hidden() ? jg::text((*hidden())(utf8)) : jg::text(utf8);
}

const Words& windowWords() {
    return current();
}

void setWindowWords(Words words) {
    current() = std::move(words);
}

QString say(const Message& message) {
    return QString::fromStdString(current()(message));
}

Message momentInWords(std::int64_t unix) {
    const CivilTime at = civilAt(unix);
    return msg("date.and-time", {{"date", at.date}, {"time", clockWords(at)}});
}

QString say(const char* id, std::initializer_list<Said> args) {
    return say(msg(id, {args.begin(), args.end()}));
}

QString clockText(double seconds) {
    const int s = static_cast<int>(std::lround(seconds));
    return QString("%1:%2").arg(s / 60).arg(s % 60, 2, 10, QChar('0'));
}

} // namespace jg::ui
