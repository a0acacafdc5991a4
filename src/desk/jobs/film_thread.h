// SPDX-License-Identifier: GPL-3.0-or-later
// Frames for the window: one thread decodes, one makes pictures of what is decoded.
#pragma once

#include "base/mutex.h"
#include "desk/jobs/inbox.h"
#include "film/reader.h"

#include <QObject>

#include <condition_variable>
#include <filesystem>
#include <optional>
#include <thread>

namespace jg {

/// Opens a film and gives frames on request; only the newest request is served. Until the exact frame is
/// decoded a picture from the scrub copy stands in, when there is one. Decodes ahead in the direction of
/// travel while nothing is asked. All signals come in the thread that made the object. Ends its decoding when
/// destroyed.
class FilmThread : public QObject {
    Q_OBJECT
public:
    /// `scrub` may be empty or not exist.
    explicit FilmThread(std::filesystem::path film, std::filesystem::path scrub = {},
                        QObject* parent = nullptr);
    ~FilmThread() override;
    /// Asks for a frame; an older request not yet served is dropped.
    void request(FrameNumber n);
    /// True when the exact frame is decoded.
    bool holds(FrameNumber n) const;
    /// Bytes of decoded frames held now.
    std::size_t cacheBytes() const;

Q_SIGNALS:
    /// The first picture, before the film is indexed.
    void firstPicture(const jg::Picture& picture);
    void opened(const jg::FilmInfo& info);
    void failed(const Message& why);
    /// A frame that can't be decoded; the film goes on.
    void frameDamaged(qint64 frame, const Message& why);
    void frameReady(qint64 frame, const jg::Picture& picture);
    /// The same frame from the scrub copy, smaller and only near; the exact one follows.
    void frameNear(qint64 frame, const jg::Picture& picture);

private:
    void guarded(const std::function<void()>& work);
    void decode(std::stop_token stop);
    void serveWishes(Reader& reader, std::stop_token stop);
    void show(std::stop_token stop);
    /// Shows the wish from the scrub copy unless it was shown so already.
    void showNear(Reader& scrub, FrameNumber n);
    FrameHandle heldNow(FrameNumber n) const JG_NEEDS(mutex_);
    bool servedElsewhere(Reader& reader, FrameNumber target);

    Inbox inbox_; ///< what the threads tell, on its way to the signals
    std::filesystem::path film_, scrub_;
    mutable Mutex mutex_;
    std::condition_variable_any changed_;
    std::unique_ptr<Reader>
        reader_ JG_GUARDED_BY(mutex_); ///< set once opened; the decoder's, apart from cached()
    std::optional<FrameNumber> wanted_ JG_GUARDED_BY(mutex_);   ///< the newest wish, until it is shown
    std::optional<FrameNumber> toDecode_ JG_GUARDED_BY(mutex_); ///< the newest wish, until it is decoded
    FrameNumber last_ JG_GUARDED_BY(mutex_);
    std::pair<FrameNumber, FrameHandle>
        ready_ JG_GUARDED_BY(mutex_); ///< the last wish decoded, held past any eviction
    std::jthread decoder_, shower_;
};

} // namespace jg
