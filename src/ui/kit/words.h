// SPDX-License-Identifier: GPL-3.0-or-later
// The window's language: every sentence it shows is said here.
#pragma once

#include "words/words.h"

#include <QString>

#include <initializer_list>
#include <memory>
#include <string_view>

namespace jg::ui {

/// One argument of a sentence; text of the window may come as QString.
struct Said : MessageArg {
    template <typename T>
    Said(std::string name_, T&& value_)
        : MessageArg(std::move(name_), std::forward<T>(value_)) {}
    Said(std::string name_, const QString& text)
        : MessageArg(std::move(name_), text.toStdString()) {}
    Said(std::string name_, QString& text)
        : Said(std::move(name_), std::as_const(text)) {}
    Said(std::string name_, QString&& text)
        : Said(std::move(name_), std::as_const(text)) {}
};

/// The language the window speaks; one a program, set before the first widget is made. The letter's language
/// is another value.
const Words& windowWords();
void setWindowWords(Words words);

/// Puts names out of sight in all that the window shows; null = they are shown again.
void hideNames(std::shared_ptr<const NameVeil> names);
bool namesAreHidden();
/// A reader's words as the window may show them now.
Words asShown(const Words& reader);
/// UTF-8 text of the core as the window may show it now; in this room it stands in for jg::text(),
/// which is for paths and names that a program reads.
QString text(std::string_view utf8);

/// A message in the window's language.
QString say(const Message& message);
/// A moment in local time: "25 November, 19:42".
Message momentInWords(std::int64_t unix);

QString say(const char* id, std::initializer_list<Said> args = {});

/// Seconds as a clock shows them: "4:10".
QString clockText(double seconds);

} // namespace jg::ui
