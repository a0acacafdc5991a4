#include "desk/film_thread.h"

#include <QMetaObject>
#include <QString>

namespace jg {

FilmThread::FilmThread(std::filesystem::path path, QObject* parent)
    : QObject(parent)
    , path_(std::move(path)) {
    thread_ = std::jthread([this](std::stop_token stop) { run(stop); });
}

FilmThread::~FilmThread() {
    thread_.request_stop();
}

void FilmThread::request(FrameNumber n) {
    const std::lock_guard lock(mutex_);
    wanted_ = n;
    wake_.notify_one();
}

void FilmThread::run(std::stop_token stop) {
    auto reader = Reader::open(path_, {}, stop);
    if (!reader) {
        if (reader.error().code != ErrorCode::Cancelled)
            QMetaObject::invokeMethod(
                this, [this, text = QString::fromStdString(reader.error().text)] { Q_EMIT failed(text); },
                Qt::QueuedConnection);
        return;
    }
    QMetaObject::invokeMethod(
        this, [this, info = (*reader)->info()] { Q_EMIT opened(info); }, Qt::QueuedConnection);
    serve(**reader, stop);
}

void FilmThread::serve(Reader& reader, std::stop_token stop) {
    for (;;) {
        FrameNumber n;
        {
            std::unique_lock lock(mutex_);
            if (!wake_.wait(lock, stop, [this] { return wanted_.has_value(); })) return;
            n = *wanted_;
            wanted_.reset();
        }
        auto picture = reader.picture(n, stop);
        if (stop.stop_requested()) return;
        if (picture)
            QMetaObject::invokeMethod(
                this, [this, n, p = *picture] { Q_EMIT frameReady(n.value, p); }, Qt::QueuedConnection);
        else
            QMetaObject::invokeMethod(
                this, [this, text = QString::fromStdString(picture.error().text)] { Q_EMIT failed(text); },
                Qt::QueuedConnection);
    }
}

} // namespace jg
