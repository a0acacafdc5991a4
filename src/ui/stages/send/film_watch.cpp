// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/send/film_watch.h"

#include "film/true_time.h"
#include "letter/film_plan.h"
#include "letter/narrated_film.h"
#include "letter/still.h"
#include "ui/kit/row_list.h"
#include "ui/kit/theme.h"
#include "voice/microphone.h"

#include <QKeyEvent>
#include <QPainter>
#include <QSlider>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

namespace {

constexpr double kJumpSeconds = 5;
constexpr int kWatchTickMs = 15;

} // namespace

WatchScreen::WatchScreen(QWidget* parent)
    : QWidget(parent) {
    setMinimumSize(em(360), em(300));
    setAccessibleName(say("film-watch.picture"));
}

void WatchScreen::setPicture(const Picture& picture) {
    picture_ = picture;
    update();
}

void WatchScreen::setCaption(const QString& words) {
    if (words == caption_) return;
    caption_ = words;
    update();
}

void WatchScreen::setPhone(bool on) {
    phone_ = on;
    update();
}

void WatchScreen::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), palette::stage);
    if (picture_.empty()) return;
    QSizeF size(picture_.width, picture_.height);
    size.scale(phone_ ? QSizeF(kPhoneWidth, height()) : QSizeF(this->size()), Qt::KeepAspectRatio);
    const QRectF box(QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size);
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.drawImage(box, toImage(picture_));
    if (caption_.isEmpty()) return;
    p.setFont(labelFont(15));
    const QRectF room = box.adjusted(12, 12, -12, -12);
    const QRectF words =
        p.boundingRect(room, Qt::AlignHCenter | Qt::AlignBottom | Qt::TextWordWrap, caption_);
    p.fillRect(words.adjusted(-8, -4, 8, 4), palette::casing);
    p.setPen(palette::chalk);
    p.drawText(words, Qt::AlignCenter | Qt::TextWordWrap, caption_);
}

FilmWatch::FilmWatch(WatchedFilm film, Loudspeaker& loudspeaker, QWidget* parent)
    : QDialog(parent)
    , film_(std::move(film))
    , sound_(std::make_shared<const std::vector<float>>(std::move(film_.sound)))
    , loudspeaker_(loudspeaker)
    , frames_(std::make_unique<FilmThread>(film_.folder->path() / "film.mp4")) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName("film-watch");
    setWindowTitle(say("film-watch.title"));
    setFocusPolicy(Qt::StrongFocus);
    resizeForText(*this, 1080, 680);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(20, 16, 20, 16);
    column->addWidget(heading(say("film-watch.title"), 20));
    column->addWidget(quiet(
        say("film-watch.facts", {{"to", film_.to.toStdString()},
                                 {"width", film_.made.width},
                                 {"height", film_.made.height},
                                 {"size", Decimal{static_cast<double>(film_.made.bytes) / kMegabyte, 1}},
                                 {"length", clockText(length()).toStdString()}})));
    auto* row = new QHBoxLayout;
    screen_ = new WatchScreen;
    row->addWidget(screen_, 1);
    chapters_ = new RowList;
    chapters_->setObjectName("chapters");
    chapters_->setAccessibleName(say("film-watch.chapters"));
    chapters_->setFixedWidth(em(280));
    chapters_->setFocusPolicy(Qt::NoFocus); // the keys are the window's
    std::vector<ListRow> rows;
    for (const Chapter& c : film_.made.chapters) {
        ListRow r;
        r.title = text(c.title);
        r.right = clockText(static_cast<double>(c.startMs) / 1000);
        rows.push_back(std::move(r));
    }
    chapters_->setRows(std::move(rows));
    connect(chapters_, &RowList::selected, this, [this](int chosen) {
        goTo(static_cast<double>(film_.made.chapters[static_cast<std::size_t>(chosen)].startMs) / 1000);
    });
    row->addWidget(chapters_);
    column->addLayout(row, 1);
    auto* below = new QHBoxLayout;
    play_ = mainButton(say("film-watch.play"));
    play_->setObjectName("play");
    play_->setFocusPolicy(Qt::NoFocus);
    connect(play_, &QPushButton::clicked, this, [this] { play(!playing()); });
    below->addWidget(play_);
    slider_ = new QSlider(Qt::Horizontal);
    slider_->setAccessibleName(say("film-watch.where"));
    slider_->setFocusPolicy(Qt::NoFocus);
    slider_->setRange(0, static_cast<int>(length() * 10));
    connect(slider_, &QSlider::sliderMoved, this, [this](int tenths) { goTo(tenths / 10.0); });
    below->addWidget(slider_, 1);
    time_ = plain();
    below->addWidget(time_);
    column->addLayout(below);
    column->addWidget(quiet(say("film-watch.keys"), 12));
    clock_.setInterval(kWatchTickMs);
    connect(&clock_, &QTimer::timeout, this, &FilmWatch::tick);
    connect(frames_.get(), &FilmThread::opened, this, [this](const FilmInfo& info) {
        times_ = trueSeconds(info, 0);
        showAt(at_);
    });
    connect(frames_.get(), &FilmThread::frameReady, this,
            [this](qint64, const Picture& picture) { screen_->setPicture(picture); });
    showAt(0);
}

FilmWatch::~FilmWatch() {
    loudspeaker_.stop();
    frames_.reset();
}

double FilmWatch::length() const {
    return film_.made.chapters.empty() ? 0 : static_cast<double>(film_.made.chapters.back().endMs) / 1000;
}

void FilmWatch::play(bool on) {
    if (on) {
        if (at_ >= length() - 0.1) at_ = 0;
        loudspeaker_.play(sound_, at_);
        clock_.start();
    } else {
        loudspeaker_.stop();
        clock_.stop();
    }
    play_->setText(say(on ? "film-watch.pause" : "film-watch.play"));
}

void FilmWatch::goTo(double seconds) {
    at_ = std::clamp(seconds, 0.0, length());
    if (playing()) loudspeaker_.play(sound_, at_);
    showAt(at_);
}

void FilmWatch::tick() {
    // A machine without a loudspeaker plays on in silence.
    const auto heard =
        loudspeaker_.problem() ? std::optional(at_ + kWatchTickMs / 1000.0) : loudspeaker_.position();
    if (!heard || *heard >= length()) return play(false);
    at_ = *heard;
    showAt(at_);
}

void FilmWatch::showAt(double seconds) {
    const auto ms = static_cast<std::int64_t>(seconds * 1000);
    time_->setText(say("film-watch.time", {{"now", clockText(seconds).toStdString()},
                                           {"all", clockText(length()).toStdString()}}));
    if (!slider_->isSliderDown()) slider_->setValue(static_cast<int>(seconds * 10));
    QString words;
    for (const Caption& c : film_.made.captions)
        if (captionsOn_ && c.startMs <= ms && ms < c.endMs) words = text(c.text);
    screen_->setCaption(words);
    int now = -1;
    for (std::size_t i = 0; i < film_.made.chapters.size(); ++i)
        if (film_.made.chapters[i].startMs <= ms) now = static_cast<int>(i);
    if (now >= 0 && now != chapters_->current()) chapters_->setCurrent(now);
    if (!times_.empty()) frames_->request(FrameNumber{frameAt(FilmSegment{}, times_, seconds)});
}

void FilmWatch::chapter(int by) {
    const int to = std::clamp(chapters_->current() + by, 0, static_cast<int>(film_.made.chapters.size()) - 1);
    goTo(static_cast<double>(film_.made.chapters[static_cast<std::size_t>(to)].startMs) / 1000);
}

void FilmWatch::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Space:
        return play(!playing());
    case Qt::Key_Left:
        return goTo(at_ - kJumpSeconds);
    case Qt::Key_Right:
        return goTo(at_ + kJumpSeconds);
    case Qt::Key_Up:
        return chapter(-1);
    case Qt::Key_Down:
        return chapter(1);
    case Qt::Key_C:
        captionsOn_ = !captionsOn_;
        return showAt(at_);
    case Qt::Key_F:
        return screen_->setPhone(!screen_->phone());
    default:
        QDialog::keyPressEvent(event);
    }
}

} // namespace jg::ui
