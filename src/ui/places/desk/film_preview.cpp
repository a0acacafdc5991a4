// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/desk/film_preview.h"

#include "ui/film/film_deck.h"
#include "ui/kit/theme.h"

#include <QDialog>
#include <QFileInfo>
#include <QShortcut>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

class PreviewDialog final : public QDialog {
public:
    PreviewDialog(const QString& path, QWidget* parent)
        : QDialog(parent)
        , loudspeaker_(makeLoudspeaker()) {
        setObjectName("film-preview");
        setAttribute(Qt::WA_DeleteOnClose);
        setWindowTitle(QFileInfo(path).fileName());
        resizeForText(*this, 820, 520);
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(0, 0, 0, 10);
        stage_ = new StageView;
        column->addWidget(stage_, 1);
        words_ = quiet(say("film-preview.keys"), 12.5);
        words_->setContentsMargins(16, 0, 16, 0);
        column->addWidget(words_);
        deck_ = new FilmDeck(*stage_, playhead_, *loudspeaker_, this);
        connect(deck_, &FilmDeck::tell, this,
                [this](const QString& sentence, bool) { words_->setText(sentence); });
        const auto key = [this](int k, auto does) {
            connect(new QShortcut(QKeySequence(k), this), &QShortcut::activated, this, does);
        };
        key(Qt::Key_Space, [this] { playhead_.toggle(); });
        key(Qt::Key_Left, [this] { playhead_.step(-1); });
        key(Qt::Key_Right, [this] { playhead_.step(1); });
        key(Qt::Key_Home, [this] { playhead_.step(-playhead_.frame()); });
        deck_->open(path.toStdString(), {}, 0);
    }
    ~PreviewDialog() override { deck_->close(); }

private:
    std::unique_ptr<Loudspeaker> loudspeaker_;
    Playhead playhead_;
    StageView* stage_;
    QLabel* words_;
    FilmDeck* deck_;
};

} // namespace

void previewFilm(QWidget* parent, const QString& path) {
    (new PreviewDialog(path, parent))->open();
}

} // namespace jg::ui
