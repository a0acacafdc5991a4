// SPDX-License-Identifier: GPL-3.0-or-later
// The window in the made-up language: no sentence goes round the catalogue, and nothing is cut.
#include "tests/ui/tour.h"

#include "coaching/playbook_reader.h"
#include "ui/kit/readers_words.h"
#include "ui/kit/words.h"

#include <nlohmann/json.hpp>

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QRegularExpression>

#include <set>

namespace jg {
namespace {

using nlohmann::json;
using test::cutIn;
using test::Driver;
using test::textsOf;
using test::waitFor;
using test::Walk;

/// Accents what people read in a playbook's file; ids, and gaps in braces, stay.
void accentRows(json& value) {
    static const std::set<std::string> read = {
        "name",    "shortName",    "hint",  "formula", "source", "unreliable", "about",
        "coach",   "player",       "why",   "says",    "how",    "equipment",  "distance",
        "plainly", "plainlyOther", "fault", "goal",    "young",  "parent",     "notFor",
        "goalUp",  "goalDown",     "pass",  "fail",    "what",   "until",      "power"};
    static const std::set<std::string> answers = {"options", "wanted", "nearly"};
    const auto accented = [](const std::string& text) {
        std::string out;
        for (std::size_t at = 0; at < text.size();) {
            const std::size_t gap = std::min(text.find('{', at), text.size());
            const std::size_t end = gap == text.size() ? gap : text.find('}', gap) + 1;
            out += accent(text.substr(at, gap - at)) + text.substr(gap, end - gap);
            at = end;
        }
        return out;
    };
    if (value.is_array())
        for (json& v : value) accentRows(v);
    if (!value.is_object()) return;
    for (auto& [key, v] : value.items()) {
        if (v.is_string() && read.contains(key) && !value.contains("landmark"))
            v = accented(v.get<std::string>());
        else if (answers.contains(key))
            for (json& answer : v) answer = accented(answer.get<std::string>());
        else
            accentRows(v);
    }
}

const Playbook& accentedPlaybook() {
    static const Playbook book = [] {
        json files = json::parse(*test::playbook().text);
        for (auto& [name, text] : files.items()) {
            json document = json::parse(text.get<std::string>());
            accentRows(document);
            text = document.dump();
        }
        auto made = thawPlaybook(test::playbook(), files.dump());
        EXPECT_TRUE(made) << said(made.error().text);
        return std::move(*made);
    }();
    return book;
}

/// The window speaks the made-up language while it lives.
struct Accented {
    Accented() { ui::setWindowWords(accented()); }
    ~Accented() { ui::setWindowWords(english()); }
};

class InTheTestLanguage : public testing::Test {
protected:
    Accented before; ///< any widget is made
    Walk walk{Stage::Send, Hand::Right, 15, "", accentedPlaybook()};
    Driver d{walk.library->folder(), 12, demoVoices(), accentedPlaybook()};

    /// What is left of a text when keys and what people wrote is taken away: plain letters are English.
    QString plainWords(QString text) const {
        static const QRegularExpression tags("<[^>]*>"),
            keys("\\b(Ctrl|Shift|Alt|Enter|Return|Esc|Space|PgDn|PgDown|PgUp|Page|"
                 "Up|Down|Del|Home|End|Left|Right|Backspace|Tab|F\\d+)\\b"),
            letters("[A-Za-z]{2,}");
        text.remove(tags);
        for (const std::string& own :
             {walk.athlete.fullName(), walk.athlete.guardianName, walk.athlete.guardianEmail,
              walk.athlete.firstName, walk.athlete.lastName, std::string("The Tram Shed, Larkmoor"),
              std::string("Ilse Varnholt"), std::string("ilse@example.org"), std::string("Why short?"),
              std::string("Once more, in short"), std::string("Juxtagraph"),
              std::string("smtp://127.0.0.1:2525"), std::string("name@example.org"),
              walk.folder.path().string(), std::string("film.mp4"), std::string("ilse-take-1")})
            text.replace(QString::fromStdString(own), "");
        text.replace(keys, "");
        const auto found = letters.match(text);
        return found.hasMatch() ? found.captured() + " in \"" + text + "\"" : QString();
    }

    /// English that went round the catalogue, in all that `root` shows.
    std::string englishIn(QWidget* root) const {
        QStringList found;
        QList<QWidget*> all = root->findChildren<QWidget*>();
        all << root;
        for (QWidget* w : all) {
            if (!w->isVisibleTo(root) || w->property(ui::kReadersWords).toBool()) continue;
            for (const QString& text : textsOf(w))
                if (const QString left = plainWords(text); !left.isEmpty())
                    found << QString("%1 %2: %3").arg(w->metaObject()->className(), w->objectName(), left);
        }
        found.removeDuplicates();
        return found.join("\n").toStdString();
    }

    test::Look look = [this](QWidget& shown, const std::string& where) {
        EXPECT_EQ(englishIn(&shown), "") << where;
        EXPECT_EQ(cutIn(&shown), "") << where;
    };
};

TEST_F(InTheTestLanguage, NoSentenceOfAPlaceGoesRoundTheCatalogue) {
    test::tourPlaces(d, look);
}

TEST_F(InTheTestLanguage, NoSentenceOfAStageGoesRoundTheCatalogue) {
    test::tourStages(d, walk, look);
}

TEST_F(InTheTestLanguage, NoSentenceOfADialogGoesRoundTheCatalogue) {
    test::tourDialogs(d, walk, look);
}

TEST_F(InTheTestLanguage, TheLetterKeepsItsOwnLanguage) {
    const auto recipe = previewRecipe(*walk.session());
    const std::string greeting = recipe.film.words(recipe.film.letter.greeting);
    EXPECT_NE(greeting.find("to try"), std::string::npos) // a wording of "to work on"

        << greeting; // the window's words are another value
    EXPECT_EQ(ui::say(recipe.film.letter.closing).contains("league"), false);
}

} // namespace
} // namespace jg
