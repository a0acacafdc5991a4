// Frames for the window, decoded in a thread of their own.
#pragma once

#include "film/reader.h"

#include <QObject>

#include <condition_variable>
#include <filesystem>
#include <mutex>
#include <optional>
#include <thread>

namespace jg {

/// Opens a film and gives frames on request; only the newest request is served. All signals come in the
/// thread that made the object. Ends its decoding when destroyed.
class FilmThread : public QObject {
    Q_OBJECT
public:
    explicit FilmThread(std::filesystem::path path, QObject* parent = nullptr);
    ~FilmThread() override;
    /// Asks for a frame; an older request not yet served is dropped.
    void request(FrameNumber n);

Q_SIGNALS:
    void opened(const jg::FilmInfo& info);
    void failed(const QString& sentence);
    void frameReady(qint64 frame, const jg::Picture& picture);

private:
    void run(std::stop_token stop);
    void serve(Reader& reader, std::stop_token stop);

    std::filesystem::path path_;
    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<FrameNumber> wanted_;
    std::jthread thread_;
};

} // namespace jg
