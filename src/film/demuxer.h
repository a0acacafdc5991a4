// A film's container and its packet index. Inside the film room only.
#pragma once

#include "base/result.h"
#include "film/ffmpeg_handles.h"
#include "film/film_info.h"

#include <filesystem>
#include <stop_token>
#include <vector>

namespace jg {

/// One coded picture, as met in the file.
struct PacketEntry {
    std::int64_t pts = AV_NOPTS_VALUE;
    bool key = false;
};

/// An open container with its picture stream chosen. Not thread-safe.
struct Demuxer {
    ff::Input input;
    int stream = -1;
    std::vector<PacketEntry> packets; ///< shown packets in decode order
    std::vector<std::int64_t> keys;   ///< pts of key packets, ascending
    bool readToEnd = true;            ///< false: reading ended in an error

    AVStream* video() const { return input->streams[stream]; }
};

/// Opens and scans all packets. Errors: NotFound, Unreadable, BadInput, Cancelled.
Result<Demuxer> openDemuxer(const std::filesystem::path& path, std::stop_token stop);

/// Facts from the container; `pts` and `complete` are filled from the index.
FilmInfo factsOf(const Demuxer& demuxer);

} // namespace jg
