// SPDX-License-Identifier: GPL-3.0-or-later
// A film's container and its packet index. Inside the film room only.
#pragma once

#include "base/result.h"
#include "film/ffmpeg_handles.h"
#include "film/film_info.h"

#include <filesystem>
#include <memory>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// An open container with its picture stream chosen. Not thread-safe.
struct Demuxer {
    ff::Input input;
    int stream = -1;
    std::vector<std::int64_t> times; ///< pts of the shown packets in decode order; AV_NOPTS_VALUE = none
    std::vector<std::int64_t> keys;  ///< times of key packets, rising: pts, or dts where there is none
    AVRational shape{0, 1};          ///< of the pixels by the container; 0 = it does not say
    int codedWidth = 0;              ///< as stored, before pixels are made square
    std::int64_t readPackets = 0;    ///< also those an edit list hides
    bool readToEnd = true;           ///< false: reading ended in an error
    /// What FFmpeg's blocking calls ask; set for the length of a call by the reader.
    std::shared_ptr<std::stop_token> stop = std::make_shared<std::stop_token>();

    AVStream* video() const { return input->streams[stream]; }
    /// True when the container promises every packet (MP4, MOV): then no tail can be lost unseen.
    bool hasSampleTable() const;
};

/// Opens a container without reading its packets. Errors: NotFound, Unreadable, BadInput, Damaged.
Result<Demuxer> openDemuxer(const std::filesystem::path& path, std::stop_token stop);

/// Reads the next packet of the picture stream and notes it in the index; false at the end.
bool readPacket(Demuxer& demuxer, AVPacket& packet);

/// Reads all packets that are left. Errors: Damaged (none at all), BadInput (too many), Cancelled.
Status scanPackets(Demuxer& demuxer, const std::string& name, std::stop_token stop);

/// Facts from the container; `pts` and `complete` are filled from the index.
FilmInfo factsOf(const Demuxer& demuxer);
/// Adds what only a decoded picture tells: pixel format, transfer, shape of the pixels. Errors: BadInput when
/// the picture as it is shown lies outside of film/limits.h.
Status refine(FilmInfo& info, const Demuxer& demuxer, const AVFrame& first, const std::string& name);
/// Refuses what film/limits.h does. Errors: BadInput with the numbers.
Status withinLimits(const FilmInfo& info, const std::string& name);

} // namespace jg
