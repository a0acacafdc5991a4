// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/refilm_dialog.h"

#include "base/file_store.h"
#include "letter/encoded.h"
#include "letter/refilm_request.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/theme.h"

#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QGuiApplication>
#include <QPlainTextEdit>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

constexpr int kDaysForAFilm = 7; // own choice

} // namespace

void showRefilmRequest(QWidget* parent, const ReviewSession& session) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName("refilm");
    dialog->setWindowTitle(say("refilm-dialog.ask-for-another-film"));
    resizeForText(*dialog, 860, 560);
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(24, 18, 24, 18);
    column->setSpacing(10);
    auto* top = new QHBoxLayout;
    top->addWidget(heading(say("refilm-dialog.ask-for-another-film"), 20), 1);
    auto* view = new QComboBox;
    view->setObjectName("refilm-view");
    view->setAccessibleName(say("refilm-dialog.side-to-film-from"));
    for (const View v : {View::Open, View::Closed, View::Front, View::Rear}) view->addItem(say(nameOf(v)));
    view->setCurrentIndex(static_cast<int>(session.clip().view));
    top->addWidget(view);
    column->addLayout(top);
    auto* middle = new QHBoxLayout;
    auto* words = new QPlainTextEdit;
    words->setObjectName("refilm-text");
    words->setAccessibleName(say("refilm-dialog.the-request"));
    auto* picture = new QLabel;
    picture->setObjectName("refilm-drawing");
    picture->setAccessibleName(say("refilm-dialog.drawing-of-where-to-stand"));
    picture->setAlignment(Qt::AlignTop);
    middle->addWidget(words, 1);
    middle->addWidget(picture);
    column->addLayout(middle, 1);
    const auto request = [&session](int index) {
        return refilmRequest(session.athlete(), static_cast<View>(index), session.house().coach,
                             session.readersWords());
    };
    const auto fill = [=](int index) {
        const RefilmRequest r = request(index);
        words->setPlainText(text(r.text));
        picture->setPixmap(QPixmap::fromImage(r.drawing.scaledToWidth(400, Qt::SmoothTransformation)));
    };
    QObject::connect(view, &QComboBox::currentIndexChanged, dialog, fill);
    fill(view->currentIndex());
    auto* row = new QHBoxLayout;
    row->addWidget(quiet(say("refilm-dialog.copy-hint"), 12.5), 1);
    auto* problem = problemLabel("refilm-problem");
    auto* save = plainButton(say("refilm-dialog.save-the-drawing"));
    auto* copyPicture = plainButton(say("refilm-dialog.copy-the-drawing"));
    auto* copy = mainButton(say("refilm-dialog.copy-the-text"));
    QObject::connect(copy, &QPushButton::clicked, dialog,
                     [=] { QGuiApplication::clipboard()->setText(words->toPlainText()); });
    QObject::connect(copyPicture, &QPushButton::clicked, dialog,
                     [=] { QGuiApplication::clipboard()->setImage(request(view->currentIndex()).drawing); });
    QObject::connect(save, &QPushButton::clicked, dialog, [=] {
        const QString path = fileToSave(dialog, say("refilm-dialog.save-the-drawing-2"), "where-to-stand.png",
                                        say("refilm-dialog.png-png"));
        if (path.isEmpty()) return;
        const Status kept =
            FileStore().write(path.toStdString(), encoded(request(view->currentIndex()).drawing));
        problem->setText(kept ? QString() : say(kept.error().text));
        problem->setVisible(!kept);
    });
    auto* promise = plainButton(say("refilm-dialog.note-the-promise"));
    promise->setObjectName("refilm-promise");
    QObject::connect(promise, &QPushButton::clicked, dialog, [=, &session] {
        const Date today = session.clock().today();
        Promise p{session.athlete().id,
                  msg("promise.film-from", {{"firstName", session.athlete().firstName},
                                            {"view", nameOf(static_cast<View>(view->currentIndex()))}}),
                  addDays(today, kDaysForAFilm), Owes::Athlete};
        p.made = today;
        p.review = session.review().id;
        const Status kept = session.library().add(p);
        problem->setText(kept ? QString() : say(kept.error().text));
        problem->setVisible(!kept);
        promise->setText(kept ? say("refilm-dialog.noted", {{"due", *p.due}}) : promise->text());
        promise->setEnabled(!kept);
    });
    for (QPushButton* b : {promise, save, copyPicture, copy}) row->addWidget(b);
    column->addWidget(problem);
    column->addLayout(row);
    dialog->open();
}

} // namespace jg::ui
