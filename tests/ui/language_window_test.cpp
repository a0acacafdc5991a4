// The window in the made-up language: no sentence goes round the catalogue, and nothing is cut.
#include "tests/ui/driver.h"

#include "ui/row_list.h"
#include "ui/spoken.h"
#include "ui/words.h"

#include <nlohmann/json.hpp>

#include <QAbstractButton>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QRegularExpression>
#include <QTextEdit>

#include <set>

namespace jg {
namespace {

using nlohmann::json;
using test::Driver;
using test::waitFor;
using test::Walk;

/// Accents what people read in a playbook's file; ids, and gaps in braces, stay.
void accentRows(json& value) {
    static const std::set<std::string> read = {"name",       "shortName", "hint",      "formula",  "source",
                                               "unreliable", "about",     "coach",     "player",   "why",
                                               "says",       "how",       "equipment", "distance", "plainly"};
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

    static QStringList textsOf(QWidget* w) {
        QStringList texts{w->toolTip(), w->accessibleName(), w->accessibleDescription()};
        if (auto* label = qobject_cast<QLabel*>(w)) texts << label->text();
        if (auto* button = qobject_cast<QAbstractButton*>(w)) texts << button->text();
        if (auto* edit = qobject_cast<QLineEdit*>(w)) texts << edit->placeholderText();
        if (auto* box = qobject_cast<QComboBox*>(w))
            for (int i = 0; i < box->count(); ++i) texts << box->itemText(i);
        if (auto* list = qobject_cast<QAbstractItemView*>(w); list && list->model())
            for (int i = 0; i < list->model()->rowCount(); ++i)
                texts << list->model()->index(i, 0).data(Qt::AccessibleTextRole).toString();
        if (auto* spoken = dynamic_cast<ui::Spoken*>(w)) texts << spoken->spokenValue();
        if (w->isWindow()) texts << w->windowTitle();
        return texts;
    }

    /// English that went round the catalogue, in all that `root` shows.
    std::string englishIn(QWidget* root) const {
        QStringList found;
        QList<QWidget*> all = root->findChildren<QWidget*>();
        all << root;
        for (QWidget* w : all) {
            if (!w->isVisibleTo(root)) continue;
            for (const QString& text : textsOf(w))
                if (const QString left = plainWords(text); !left.isEmpty())
                    found << QString("%1 %2: %3").arg(w->metaObject()->className(), w->objectName(), left);
        }
        found.removeDuplicates();
        return found.join("\n").toStdString();
    }

    /// Labels and buttons that have less room than their text needs.
    static std::string cutIn(QWidget* root) {
        QStringList found;
        for (QWidget* w : root->findChildren<QWidget*>()) {
            if (!w->isVisible() || w->width() < 2) continue;
            QString text;
            bool cut = false;
            if (auto* label = qobject_cast<QLabel*>(w); label && !label->text().isEmpty()) {
                text = label->text();
                cut = label->wordWrap() ? label->heightForWidth(label->width()) > label->height() + 2
                                        : label->sizeHint().width() > label->width() + 2;
            } else if (auto* button = qobject_cast<QAbstractButton*>(w);
                       button && !button->text().isEmpty()) {
                text = button->text();
                cut = button->fontMetrics().horizontalAdvance(text) > button->width();
            }
            if (cut)
                found << QString("%1 %2: %3 (%4 x %5)")
                             .arg(w->metaObject()->className(), w->objectName(), text)
                             .arg(w->width())
                             .arg(w->height());
        }
        found.removeDuplicates();
        return found.join("\n").toStdString();
    }
};

TEST_F(InTheTestLanguage, NoSentenceOfAPlaceGoesRoundTheCatalogue) {
    d.window().resize(1280, 800);
    for (const char* place : {"desk", "athletes", "playbook", "post", "hand"}) {
        d.window().showPlace(place);
        d.settle();
        EXPECT_EQ(englishIn(&d.window()), "") << place;
        EXPECT_EQ(cutIn(&d.window()), "") << place;
    }
}

TEST_F(InTheTestLanguage, NoSentenceOfAStageGoesRoundTheCatalogue) {
    d.window().resize(1280, 800);
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    while (d.review().stageOfWalk() != Stage::Look) d.key(Qt::Key_PageUp);
    for (int i = 0; i < 7; ++i, d.key(Qt::Key_PageDown)) {
        QTest::qWait(10);
        for (const int key : {Qt::Key_Down, Qt::Key_Up}) {
            EXPECT_EQ(englishIn(&d.window()), "") << "stage " << i;
            EXPECT_EQ(cutIn(&d.window()), "") << "stage " << i;
            d.key(key); // another row says other things
        }
    }
}

TEST_F(InTheTestLanguage, NoSentenceOfADialogGoesRoundTheCatalogue) {
    const auto check = [&](const char* name) {
        d.withDialog(name, [&](QDialog& dialog) {
            EXPECT_EQ(englishIn(&dialog), "") << name;
            EXPECT_EQ(cutIn(&dialog), "") << name;
        });
    };
    d.key(Qt::Key_F1);
    check("shortcuts");
    d.drop(QString::fromStdString((walk.folder / "film.mp4").string()));
    check("intake");
    d.window().showPlace("athletes");
    d.settle();
    d.key(Qt::Key_E);
    check("athlete-dialog");
    d.window().openReview(walk.submission.id);
    d.waitForPicture();
    while (d.review().stageOfWalk() != Stage::Look) d.key(Qt::Key_PageUp);
    d.key(Qt::Key_F);
    check("film-dialog");
    d.key(Qt::Key_R);
    check("refilm");
    while (d.review().stageOfWalk() != Stage::Measure) d.key(Qt::Key_PageDown);
    d.key(Qt::Key_Y);
    check("turn");
    d.key(Qt::Key_S);
    check("scale");
    d.key(Qt::Key_Q);
    check("sequence");
}

TEST_F(InTheTestLanguage, TheLetterKeepsItsOwnLanguage) {
    const auto recipe = previewRecipe(*walk.session());
    const std::string greeting = recipe.film.words(recipe.film.letter.greeting);
    EXPECT_NE(greeting.find("to work on"), std::string::npos)
        << greeting; // the window's words are another value
    EXPECT_EQ(ui::say(recipe.film.letter.closing).contains("league"), false);
}

} // namespace
} // namespace jg
