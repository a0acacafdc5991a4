// SPDX-License-Identifier: GPL-3.0-or-later
// What every written film needs: its container's handle and the sentence when writing fails. Inside the film
// room only.
#pragma once

#include "base/file_store.h"
#include "film/ffmpeg_handles.h"

#include <cerrno>
#include <filesystem>

namespace jg {

struct CloseOutput {
    void operator()(AVFormatContext* p) const {
        if (p->pb && !(p->oformat->flags & AVFMT_NOFILE)) avio_closep(&p->pb);
        avformat_free_context(p);
    }
};
using Output = std::unique_ptr<AVFormatContext, CloseOutput>;

inline Error outputError(const std::filesystem::path& path, int error) {
    return writeError(path, error == AVERROR(ENOSPC) ? ENOSPC : error < 0 ? AVUNERROR(error) : EIO);
}

} // namespace jg
