// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/desk/desk_place.h"

#include "desk/intake/intake.h"
#include "letter/veils.h"
#include "ui/forms/promise_line.h"
#include "ui/kit/theme.h"

#include <QDragEnterEvent>
#include <QMimeData>
#include <QPainter>
#include <QPainterPath>
#include <QScrollArea>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

/// With who is to be hidden hidden.
QImage stillOf(const Library& library, const DeskRow& row) {
    const Clip& clip = row.submission.clips.front();
    QImage still(QString::fromStdString(library.stillPath(clip).string()));
    if (still.isNull() || row.hidden.empty() || clip.width <= 0 || clip.height <= 0) return still;
    still = still.convertToFormat(QImage::Format_RGB32);
    paintVeils(still, row.hidden, stillFrameOf(clip),
               QTransform::fromScale(1.0 * still.width() / clip.width, 1.0 * still.height() / clip.height));
    return still;
}

QLabel* stillLabel(const Library& library, const DeskRow& row) {
    auto* label = new QLabel;
    label->setFixedSize(144, 81);
    QPixmap rounded(288, 162);
    rounded.fill(Qt::transparent);
    QPainter p(&rounded);
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath path;
    path.addRoundedRect(0, 0, 288, 162, 10, 10);
    p.setClipPath(path);
    p.fillRect(0, 0, 288, 162, palette::stage);
    const QImage still = stillOf(library, row);
    if (!still.isNull()) {
        const QImage scaled =
            still.scaled(288, 162, Qt::KeepAspectRatioByExpanding, Qt::SmoothTransformation);
        p.drawImage((288 - scaled.width()) / 2, (162 - scaled.height()) / 2, scaled);
    }
    p.end();
    rounded.setDevicePixelRatio(2);
    label->setPixmap(rounded);
    label->setAccessibleName(say("desk-place.still-of-the-film"));
    return label;
}

/// "open side 240, front 60 - what the check says."
Message filmWords(const Submission& s) {
    Message check = msg("desk-place.film-is-good");
    for (auto c = s.clips.rbegin(); c != s.clips.rend(); ++c)
        if (!c->check.empty()) check = c->check.front();
    return joined(ListStyle::Dots, {filmsInWords(s.clips), check});
}

} // namespace

DeskPlace::DeskPlace(QWidget* parent)
    : QWidget(parent) {
    setAcceptDrops(true);
    setObjectName("desk");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(34, 26, 34, 10);
    column->setSpacing(16);
    auto* head = new QHBoxLayout;
    title_ = heading(say("desk-place.tonight"), 28);
    title_->setWordWrap(false);
    summary_ = quiet("", 14);
    summary_->setContentsMargins(0, 0, 0, 5);
    auto* button = mainButton(say("desk-place.take-in-films"));
    connect(button, &QPushButton::clicked, this, &DeskPlace::takeIn);
    head->addWidget(title_);
    head->addSpacing(12);
    head->addWidget(summary_, 1, Qt::AlignBottom);
    head->addWidget(button);
    column->addLayout(head);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* inner = new QWidget;
    rows_ = new QVBoxLayout(inner);
    rows_->setContentsMargins(0, 0, 4, 12);
    rows_->setSpacing(11);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
}

QPushButton* DeskPlace::addLink(QHBoxLayout& row, const QString& text) {
    auto* link = plainButton(text);
    link->setObjectName("link");
    row.addWidget(link);
    return link;
}

/// What lies in the watched folder, with the way to it.
void DeskPlace::addMails(std::size_t count) {
    auto* note = new QFrame;
    note->setObjectName("note");
    auto* row = new QHBoxLayout(note);
    row->setContentsMargins(16, 8, 12, 8);
    row->addWidget(plain(say("desk-place.mails", {{"count", count}}), 14), 1);
    auto* door = plainButton(say("desk-place.open-mails"));
    door->setObjectName("open-mails");
    connect(door, &QPushButton::clicked, this, &DeskPlace::mailsAsked);
    row->addWidget(door);
    rows_->addWidget(note);
}

void DeskPlace::choose(const SubmissionId& submission) {
    wanted_ = submission;
    markSelected();
}

void DeskPlace::show(const DeskList& list, const Library& library, Date today) {
    clearLayout(*rows_);
    cards_.clear();
    ids_.clear();
    athletes_.clear();
    int minutes = 0;
    if (!list.leftOut.empty()) {
        auto* unread = problemLabel("desk-left-out");
        unread->setText(say(joined(ListStyle::Sentences, list.leftOut)));
        unread->show();
        rows_->addWidget(unread);
    }
    if (list.mails > 0) addMails(list.mails);
    for (const DeskRow& row : list.waiting) {
        minutes += row.minutes;
        QWidget* c = card(row, library, today);
        rows_->addWidget(c);
        cards_.push_back(c);
        ids_.push_back(row.submission.id);
        athletes_.push_back(row.athlete.id);
    }
    if (list.waiting.empty()) {
        auto* nothing = new QFrame;
        nothing->setObjectName("card");
        auto* box = new QVBoxLayout(nothing);
        box->setContentsMargins(24, 24, 24, 24);
        box->addWidget(heading(say("desk-place.nothing-is-waiting"), 20));
        box->addWidget(quiet(say("desk-place.drop-film-files-on-this-window"), 14));
        rows_->addWidget(nothing);
    }
    rows_->addWidget(owedAndSent(list, today));
    auto* links = new QHBoxLayout;
    connect(addLink(*links, say("desk-place.look-over")), &QPushButton::clicked, this, &DeskPlace::lookOver);
    connect(addLink(*links, say("desk-place.watch-mails")), &QPushButton::clicked, this,
            &DeskPlace::mailFolderAsked);
    links->addStretch(1);
    rows_->addLayout(links);
    rows_->addStretch(1);
    const auto owed = static_cast<int>(list.owed.size()) + list.owedLater;
    summary_->setText(list.waiting.empty()
                          ? say("desk-place.owed-count", {{"owed", owed}})
                          : say("desk-place.summary",
                                {{"waiting", list.waiting.size()}, {"minutes", minutes}, {"owed", owed}}));
    selected_ = std::clamp(selected_, 0, std::max(0, static_cast<int>(cards_.size()) - 1));
    markSelected();
    // A card's height was asked for before its labels had their fonts: a wrapped line was cut.
    QMetaObject::invokeMethod(
        this,
        [this] {
            for (QWidget* card : cards_) card->layout()->invalidate();
            rows_->invalidate();
            rows_->parentWidget()->updateGeometry();
        },
        Qt::QueuedConnection);
}

namespace {

/// Name, facts, question and film of a waiting submission.
QVBoxLayout* wordsOf(const DeskRow& row, Date today) {
    const bool pain = row.pain;
    auto* middle = new QVBoxLayout;
    middle->setSpacing(5);
    auto* name = new QHBoxLayout;
    auto* who = heading(text(row.athlete.fullName()), 18);
    who->setWordWrap(false);
    name->addWidget(who);
    name->addSpacing(8);
    auto* facts = quiet(say("desk-place.facts", {{"age", row.athlete.ageOn(today)},
                                                 {"hand", nameOf(row.athlete.hand)},
                                                 {"start", nameOf(row.submission.start)},
                                                 {"surface", nameOf(row.submission.surface)}}),
                        13);
    facts->setWordWrap(false);
    name->addWidget(facts, 1);
    middle->addLayout(name);
    auto* asked = new QHBoxLayout;
    asked->setSpacing(6);
    if (pain) {
        auto* shield = new QLabel;
        shield->setPixmap(icon("shield", palette::clay).pixmap(16, 16));
        asked->addWidget(shield);
        auto* words = plain(say("desk-place.pain-reported"), 13, true);
        inClay(words);
        words->setWordWrap(false);
        asked->addWidget(words);
    }
    asked->addWidget(plain(say(joined(ListStyle::Sentences,
                                      {row.submission.painWords(),
                                       msg("desk-place.quoted", {{"words", row.submission.asked}})})),
                           13),
                     1);
    middle->addLayout(asked);
    middle->addWidget(
        quiet(say(joined(ListStyle::Sentences, {row.progress, filmWords(row.submission)})), 12.5));
    middle->addStretch(1);
    return middle;
}

} // namespace

QWidget* DeskPlace::card(const DeskRow& row, const Library& library, Date today) {
    auto* frame = new QFrame;
    const bool pain = row.pain;
    frame->setObjectName(pain ? "pain" : "card");
    auto* line = new QHBoxLayout(frame);
    line->setContentsMargins(12, 10, 12, 10);
    line->setSpacing(16);
    line->addWidget(stillLabel(library, row));
    line->addLayout(wordsOf(row, today), 1);
    auto* side = new QVBoxLayout;
    side->setSpacing(4);
    const bool late = row.submission.promised && daysBetween(today, *row.submission.promised) < 0;
    auto* promised = plain(say(promisedInWords(row.submission.promised, today)), 13, true);
    promised->setWordWrap(false);
    promised->setAlignment(Qt::AlignRight);
    if (late) inClay(promised);
    side->addWidget(promised);
    auto* minutes = quiet(
        say(row.review ? "desk-place.minutes-left" : "desk-place.minutes", {{"minutes", row.minutes}}), 12);
    minutes->setWordWrap(false);
    minutes->setAlignment(Qt::AlignRight);
    side->addWidget(minutes);
    side->addStretch(1);
    auto* open = plainButton(row.review ? say("desk-place.go-on") : say("athletes-place.open"));
    open->setObjectName("open-" + QString::fromStdString(row.submission.id.value));
    open->setFocusPolicy(Qt::TabFocus);
    open->setAccessibleName(open->text() + ": " + text(row.athlete.fullName()));
    QStringList spoken{text(row.athlete.fullName())};
    if (pain) spoken << say("desk-place.pain-reported-2");
    spoken << promised->text() << minutes->text();
    frame->setAccessibleName(spoken.join(", "));
    connect(open, &QPushButton::clicked, this, [this, id = row.submission.id] { Q_EMIT this->open(id); });
    side->addWidget(open, 0, Qt::AlignRight);
    line->addLayout(side);
    return frame;
}

/// What is due soon; how much is due later is told.
void DeskPlace::addOwed(QVBoxLayout& owed, const DeskList& list, Date today) {
    for (const Promise& p : list.owed)
        owed.addWidget(
            promiseLine(p, today, [this, row = p.row](Kept how) { Q_EMIT closePromise(row, how); }));
    if (list.owed.empty())
        owed.addWidget(
            quiet(say(list.owedLater > 0 ? "desk-place.nothing-is-due" : "desk-place.nothing-is-owed"), 13));
    if (list.owedLater > 0)
        owed.addWidget(quiet(say("desk-place.owed-later", {{"count", list.owedLater}}), 12.5));
    owed.addStretch(1);
}

QWidget* DeskPlace::owedAndSent(const DeskList& list, Date today) {
    auto* both = new QWidget;
    auto* row = new QHBoxLayout(both);
    row->setContentsMargins(0, 4, 0, 0);
    row->setSpacing(26);
    const auto side = [&](const QString& title) {
        auto* column = new QVBoxLayout;
        column->setSpacing(6);
        column->addWidget(heading(title, 17));
        column->addWidget(rule());
        row->addLayout(column, 1);
        return column;
    };
    const auto nameOf = [&](const AthleteId& id) {
        const auto it = list.names.find(id);
        return it == list.names.end() ? say("desk-place.someone") : text(it->second);
    };
    auto* owed = side(say("desk-place.owed"));
    addOwed(*owed, list, today);
    auto* sent = side(say("desk-place.sent-this-week"));
    for (const ReviewSummary& r : list.sentLately) {
        auto* line = new QHBoxLayout;
        line->addWidget(plain(nameOf(r.athlete), 13), 1);
        auto* what = quiet(say(r.spoken ? "desk-place.sent-letter-and-film" : "desk-place.sent-letter",
                               {{"day", WrittenDate{r.sent->on, DateStyle::Weekday}}}),
                           13);
        what->setWordWrap(false);
        line->addWidget(what);
        sent->addLayout(line);
    }
    if (list.sentLately.empty()) sent->addWidget(quiet(say("desk-place.nothing-went-out-in-the-last"), 13));
    sent->addStretch(1);
    return both;
}

void DeskPlace::moveSelection(int by) {
    if (cards_.empty()) return;
    choose(ids_[static_cast<std::size_t>(std::clamp(selected_ + by, 0, static_cast<int>(ids_.size()) - 1))]);
}

/// What was chosen may stand elsewhere now, or not be here any more: then its place counts.
void DeskPlace::markSelected() {
    if (const auto at = std::find(ids_.begin(), ids_.end(), wanted_); at != ids_.end())
        selected_ = static_cast<int>(at - ids_.begin());
    for (std::size_t i = 0; i < cards_.size(); ++i) {
        const bool on = static_cast<int>(i) == selected_;
        cards_[i]->setStyleSheet(
            on ? QString("QFrame#card { background: white; border-color: %1; } QFrame#pain { background: "
                         "white; border-color: %1; border-left-color: %2; }")
                     .arg(palette::quiet.name(), palette::clay.name())
               : QString());
    }
}

void DeskPlace::openSelected() {
    if (selected_ < static_cast<int>(ids_.size())) Q_EMIT open(ids_[static_cast<std::size_t>(selected_)]);
}

std::optional<AthleteId> DeskPlace::athleteOfSelected() const {
    if (selected_ >= static_cast<int>(athletes_.size())) return std::nullopt;
    return athletes_[static_cast<std::size_t>(selected_)];
}

void DeskPlace::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void DeskPlace::dropEvent(QDropEvent* event) {
    QStringList files;
    for (const QUrl& url : event->mimeData()->urls())
        if (url.isLocalFile()) files << url.toLocalFile();
    event->acceptProposedAction();
    if (!files.isEmpty()) Q_EMIT dropped(files);
}

} // namespace jg::ui
