// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/desk/film_cards.h"

#include "ui/kit/rate_box.h"
#include "ui/kit/theme.h"
#include "ui/places/desk/film_preview.h"

#include <QFileInfo>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

namespace {
constexpr int kNameRoom = 380; // usual pixels beside the two buttons
}

FilmCards::FilmCards(QWidget* parent)
    : QWidget(parent)
    , column_(new QVBoxLayout(this)) {
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(8);
}

void FilmCards::add(const QStringList& files) {
    for (const QString& path : files)
        if (std::none_of(cards_.begin(), cards_.end(), [&](const Card& c) { return c.path == path; }))
            addOne(path);
    Q_EMIT changed();
}

void FilmCards::addOne(const QString& path) {
    const QString name = QFileInfo(path).fileName();
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* box = new QVBoxLayout(card);
    box->setContentsMargins(12, 8, 8, 10);
    box->setSpacing(4);
    auto* top = new QHBoxLayout;
    auto* title = plain("", 13, true);
    title->setWordWrap(false);
    title->setText(QFontMetrics(title->font()).elidedText(name, Qt::ElideMiddle, em(kNameRoom)));
    title->setToolTip(path);
    top->addWidget(title, 1);
    const auto link = [&](const QString& words, const char* object, auto does) {
        auto* button = plainButton(words);
        button->setObjectName(object);
        button->setAccessibleName(words + ": " + name);
        connect(button, &QPushButton::clicked, this, does);
        top->addWidget(button);
    };
    link(say("film-cards.look"), "film-look", [this, path] { previewFilm(window(), path); });
    link(say("film-cards.take-off"), "film-off", [this, card] { takeOff(card); });
    box->addLayout(top);
    auto* row = new QHBoxLayout;
    auto* view = new QComboBox;
    view->setObjectName("view");
    view->setAccessibleName(say("film-cards.seen-from-name", {{"name", name}}));
    for (const View v : {View::Open, View::Closed, View::Front, View::Rear})
        view->addItem(say("film-cards.seen-from-the-v", {{"v", nameOf(v)}}));
    auto* rate = new RateBox(say("film-cards.rate-from-the-file"));
    rate->setObjectName("rate");
    row->addWidget(view, 1);
    row->addWidget(rate, 1);
    box->addLayout(row);
    column_->addWidget(card);
    cards_.push_back({path, card, view, rate});
}

void FilmCards::takeOff(QWidget* box) {
    std::erase_if(cards_, [&](const Card& c) { return c.box == box; });
    box->hide();
    box->deleteLater(); // its own button was pressed
    Q_EMIT changed();
}

Result<std::vector<IntakeFilm>> FilmCards::films() const {
    std::vector<IntakeFilm> all;
    for (const Card& c : cards_) {
        const auto rate = c.rate->rate();
        if (!rate) return rate.error();
        all.push_back({c.path.toStdString(), static_cast<View>(c.view->currentIndex()), *rate});
    }
    if (all.empty()) return fail(ErrorCode::BadInput, msg("film-cards.add-a-film-first"));
    return all;
}

} // namespace jg::ui
