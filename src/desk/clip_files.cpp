#include "desk/clip_files.h"

namespace jg {

ClipFiles filesOf(const Library& library, const Clip& clip) {
    return {library.mediaPath(clip), library.scrubPath(clip)};
}

Result<OpenClip> OpenClip::open(const ClipFiles& files, std::stop_token stop) {
    const auto budget = std::make_shared<FrameBudget>(std::size_t{256} << 20);
    OpenClip clip;
    auto film = Reader::open(files.film, {budget}, stop);
    if (!film) return film.error();
    clip.film_ = std::move(*film);
    std::error_code ec;
    if (std::filesystem::exists(files.scrub, ec))
        if (auto scrub = Reader::open(files.scrub, {budget}, stop)) clip.scrub_ = std::move(*scrub);
    return clip;
}

} // namespace jg
