// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/unfinished_takes.h"

#include "base/file_store.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"

#include <algorithm>
#include <sys/stat.h>

namespace jg {

namespace fs = std::filesystem;

namespace {

constexpr const char* kPart = ".part-"; // as Recorder names it
constexpr std::uintmax_t kHeadBytes = 44;
constexpr std::int64_t kStillRecordedS = 10; ///< the recorder writes each second; own choice

std::int64_t writtenAt(const fs::path& path) {
    struct stat facts {};
    return ::stat(path.c_str(), &facts) == 0 ? facts.st_mtime : 0;
}

} // namespace

double UnfinishedTake::seconds() const {
    return static_cast<double>(samples) / kSampleRate;
}

std::vector<UnfinishedTake> unfinishedTakes(const Library& library, const Review& review,
                                            std::int64_t nowUnix) {
    std::vector<UnfinishedTake> all;
    std::error_code ec;
    for (const auto& entry : fs::directory_iterator(library.takesFolder(), ec)) {
        const std::string name = entry.path().filename().string();
        for (const Stop& stop : review.stops) {
            const std::string begins = kPart + review.id.value + "-" + stop.id.value + "-";
            if (!name.starts_with(begins) || !entry.is_regular_file(ec)) continue;
            const std::uintmax_t bytes = entry.file_size(ec);
            const std::int64_t at = writtenAt(entry.path());
            if (bytes <= kHeadBytes || nowUnix - at < kStillRecordedS) continue;
            all.push_back({name.substr(std::string(kPart).size()), stop.id,
                           static_cast<std::int64_t>((bytes - kHeadBytes) / sizeof(std::int16_t)), at});
        }
    }
    std::sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.endedUnix > b.endedUnix; });
    return all;
}

Result<Take> keepUnfinished(Library& library, const UnfinishedTake& unfinished, const Stop& stop) {
    const fs::path part = library.unfinishedTakePath(unfinished.file);
    const auto sound = readSound(part); // its head may be a second behind its sound: only what reads counts
    if (!sound) return sound.error();
    if (sound->empty()) return fail(ErrorCode::Damaged, msg("unfinished-takes.no-sound"));
    std::vector<std::int16_t> samples(sound->size());
    std::transform(sound->begin(), sound->end(), samples.begin(),
                   [](float v) { return static_cast<std::int16_t>(std::clamp(v, -1.0f, 1.0f) * 32767); });
    std::int64_t count = 0;
    const Status kept =
        library.files().publish(library.takePath(unfinished.file), [&](const fs::path& file) -> Status {
            auto writer = WavWriter::open(file);
            if (!writer) return writer.error();
            if (auto written = writer->write(samples); !written) return written;
            count = writer->samples();
            return writer->finish();
        });
    if (!kept) return kept.error();
    Take take;
    take.file = unfinished.file;
    take.sampleRate = kSampleRate;
    take.samples = count;
    take.events = {{0, TakeEventKind::Frame, stop.frame, {}}};
    if (auto gone = dropUnfinished(library, unfinished); !gone) return gone.error();
    return take;
}

Status dropUnfinished(Library& library, const UnfinishedTake& unfinished) {
    std::error_code ec;
    const fs::path part = library.unfinishedTakePath(unfinished.file);
    fs::remove(part, ec);
    return ec ? Status(writeError(part, ec.value())) : Status(Done{});
}

} // namespace jg
