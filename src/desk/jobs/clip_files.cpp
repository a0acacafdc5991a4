// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/jobs/clip_files.h"

namespace jg {

ClipFiles filesOf(const Library& library, const Clip& clip) {
    return {library.mediaPath(clip), library.scrubPath(clip)};
}

std::unique_ptr<Reader> openScrub(const std::filesystem::path& scrub, std::shared_ptr<FrameBudget> budget,
                                  std::stop_token stop) {
    std::error_code ec;
    if (!std::filesystem::exists(scrub, ec)) return nullptr;
    auto opened = Reader::open(scrub, {std::move(budget)}, stop);
    return opened ? std::move(*opened) : nullptr;
}

Result<OpenClip> OpenClip::open(const ClipFiles& files, std::stop_token stop) {
    const auto budget = std::make_shared<FrameBudget>(std::size_t{256} << 20);
    OpenClip clip;
    auto film = Reader::open(files.film, {budget}, stop);
    if (!film) return film.error();
    clip.film_ = std::move(*film);
    clip.scrub_ = openScrub(files.scrub, budget, stop);
    return clip;
}

} // namespace jg
