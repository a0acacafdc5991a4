// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/film_maker.h"

#include "base/file_store.h"
#include "demo/films/raster.h"
#include "demo/films/truth.h"
#include "film/encoder.h"

#include <opencv2/core/hal/intrin.hpp>

#include <algorithm>
#include <cerrno>
#include <cmath>
#include <fstream>
#include <future>
#include <random>

namespace jg {

namespace {

constexpr int kSamplesPerFrame = 4;
constexpr int kNumberBits = 16;
constexpr int kSoundRate = 48000;

using Bytes = std::vector<std::uint8_t>;

constexpr int kDisplaySteps = 4096;

/// sRGB transfer over linear light 0..1, in kDisplaySteps steps.
const std::uint8_t* displayTable() {
    static const std::vector<std::uint8_t> table = [] {
        std::vector<std::uint8_t> t;
        for (int i = 0; i <= kDisplaySteps; ++i) {
            const double v = i / static_cast<double>(kDisplaySteps);
            const double s = v <= 0.0031308 ? 12.92 * v : 1.055 * std::pow(v, 1 / 2.4) - 0.055;
            t.push_back(static_cast<std::uint8_t>(std::lround(255 * std::clamp(s, 0.0, 1.0))));
        }
        return t;
    }();
    return table.data();
}

/// Adds the sensor's grain, equal in the three colours of a pixel; another one in each frame `n`.
void addGrain(Bytes& picture, double noise, std::uint64_t seed, std::int64_t n) {
    const int spread = static_cast<int>(std::lround(noise * 255 * 3.46)); // of a uniform noise with this sd
    if (spread == 0) return;
    std::uint64_t state =
        seed * 0x9E3779B97F4A7C15ULL + static_cast<std::uint64_t>(n) * 0xD1B54A32D192ED03ULL + 1;
    std::uint32_t brighter[4], darker[4]; // of four pixels; one of the two is nothing
    for (std::size_t i = 0; i + 16 <= picture.size(); i += 16) {
        for (int k = 0; k < 4; ++k) {
            state ^= state << 13, state ^= state >> 7, state ^= state << 17;
            const int grain =
                static_cast<int>((state & 0xffff) * static_cast<std::uint64_t>(spread + 1) >> 16) -
                spread / 2;
            brighter[k] = static_cast<std::uint32_t>(std::max(grain, 0)) * 0x010101;
            darker[k] = static_cast<std::uint32_t>(std::max(-grain, 0)) * 0x010101;
        }
        const auto bytesOf = [](const std::uint32_t* four) {
            return cv::v_reinterpret_as_u8(cv::v_load(four));
        };
        cv::v_store(&picture[i],
                    cv::v_load(&picture[i]) + bytesOf(brighter) - bytesOf(darker)); // both saturate
    }
}

void burnNumber(Bytes& out, int width, std::int64_t n) {
    const int block = width / kNumberBits;
    for (int y = 0; y < 8; ++y)
        for (int x = 0; x < block * kNumberBits; ++x) {
            const bool one = (n >> (kNumberBits - 1 - x / block)) & 1;
            auto* p = &out[(static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                            static_cast<std::size_t>(x)) *
                           4];
            p[0] = p[1] = p[2] = one ? 235 : 16;
        }
}

/// Paints one frame: a few moments while the shutter is open, each with its own sub-pixel offset. Only the
/// part that moves is painted anew; the rest is the empty shed.
class FramePainter {
public:
    explicit FramePainter(const FilmOrder& order)
        : order_(order)
        , delivery_(order.knobs)
        , camera_(order.camera)
        , shed_(paintShed(camera_, delivery_))
        , gain_(static_cast<float>(order.brightness))
        , plain_(shed_.rgb.size() / 3 * 4) {
        develop(shed_, plain_);
    }

    const Delivery& delivery() const { return delivery_; }

    /// What one frame is painted on, kept for the next.
    struct Sheet {
        Canvas moving, behind;
        Exposure exposure;
        Bytes picture;
    };

    void paint(std::int64_t n, Sheet& sheet) const {
        Camera camera = camera_;
        const auto [sx, sy] = shakeOf(order_, n);
        camera.shift(sx, sy);
        std::vector<std::vector<RoundCone>> moments;
        Box box;
        // A long shutter smears without steps only when it is sampled finely.
        const int samples = order_.shutter > 0.3 ? 5 * kSamplesPerFrame : kSamplesPerFrame;
        for (int i = 0; i < samples; ++i) {
            const double open = order_.shutter * ((i + 0.5) / samples - 0.5);
            const double t = timeOfPicture(order_, delivery_, static_cast<double>(n)) + open / order_.fps;
            moments.push_back(solidsOf(delivery_.poseAt(t), order_.knobs.heightM, order_.outfit));
            box = box.with(boundsOf(camera, moments.back(), delivery_));
        }
        static constexpr double jitter[kSamplesPerFrame][2] = {
            {0.375, 0.125}, {0.875, 0.375}, {0.125, 0.625}, {0.625, 0.875}};
        Exposure& exposure = sheet.exposure;
        exposure.begin(box);
        for (int i = 0; i < samples; ++i) {
            const auto& [jx, jy] = jitter[i % kSamplesPerFrame];
            exposure.add(camera, moments[static_cast<std::size_t>(i)], jx, jy);
        }
        Canvas& moving = sheet.moving;
        shakenShed(moving, box, sx, sy);
        paintShadow(moving, camera, moments[static_cast<std::size_t>(samples) / 2], delivery_);
        exposure.over(moving, samples);
        const Box all = shed_.box;
        Bytes& out = sheet.picture;
        out = plain_;
        if (sx != 0 || sy != 0) {
            shakenShed(sheet.behind, all, sx, sy);
            develop(sheet.behind, out);
        }
        develop(moving, out);
        addGrain(out, order_.noise, order_.seed, n);
        if (order_.frameNumbers) burnNumber(out, all.x1, n);
    }

private:
    /// The shed displaced by the hand's shake (bilinear), for a part of the picture.
    void shakenShed(Canvas& out, Box box, double sx, double sy) const {
        out.begin(box);
        const int ix = static_cast<int>(std::floor(sx)), iy = static_cast<int>(std::floor(sy));
        const float fx = static_cast<float>(sx - ix), fy = static_cast<float>(sy - iy);
        const int w = shed_.box.x1 - 1, h = shed_.box.y1 - 1;
        // Away from the edges the four neighbours of a row lie side by side.
        const int inner0 = std::clamp(ix + 1, box.x0, box.x1),
                  inner1 = std::clamp(ix + w + 1, inner0, box.x1);
        for (int y = box.y0; y < box.y1; ++y) {
            const int y1 = std::clamp(y - iy, 0, h), y0 = std::clamp(y - iy - 1, 0, h);
            const auto mix = [&](int from, int to, int x1, int x0) {
                if (to <= from) return;
                float* p = out.at(from, y);
                const float *a = shed_.at(x1, y1), *b = shed_.at(x0, y1), *c = shed_.at(x1, y0),
                            *d = shed_.at(x0, y0);
                for (int i = 0; i < 3 * (to - from); ++i)
                    p[i] = (1 - fy) * ((1 - fx) * a[i] + fx * b[i]) + fy * ((1 - fx) * c[i] + fx * d[i]);
            };
            const auto atEdge = [&](int x) {
                mix(x, x + 1, std::clamp(x - ix, 0, w), std::clamp(x - ix - 1, 0, w));
            };
            for (int x = box.x0; x < inner0; ++x) atEdge(x);
            mix(inner0, inner1, inner0 - ix, inner0 - ix - 1);
            for (int x = inner1; x < box.x1; ++x) atEdge(x);
        }
    }

    /// Linear light to display values; a left-hander is the mirror image.
    void develop(const Canvas& canvas, Bytes& out) const {
        const std::uint8_t* table = displayTable();
        const int w = shed_.box.x1;
        const float scale = gain_ * static_cast<float>(kDisplaySteps);
        const bool turned = (order_.hand == Hand::Left) != order_.mirrored;
        for (int y = canvas.box.y0; y < canvas.box.y1; ++y) {
            const float* p = canvas.at(canvas.box.x0, y);
            const int first = turned ? w - 1 - canvas.box.x0 : canvas.box.x0;
            auto* q = &out[(static_cast<std::size_t>(y) * static_cast<std::size_t>(w) +
                            static_cast<std::size_t>(first)) *
                           4];
            for (int x = canvas.box.x0; x < canvas.box.x1; ++x, p += 3, q += turned ? -4 : 4) {
                for (int c = 0; c < 3; ++c)
                    q[2 - c] = table[std::clamp(static_cast<int>(scale * p[c]), 0, kDisplaySteps)];
                q[3] = 255;
            }
        }
    }

    const FilmOrder& order_;
    Delivery delivery_;
    Camera camera_;
    Canvas shed_;
    float gain_;
    Bytes plain_; ///< the empty shed, developed
};

/// The shed's hum, the foot's thump and the ball in the net.
std::vector<float> roomSound(const FilmOrder& order, const Delivery& d, double lengthS) {
    std::vector<float> sound(static_cast<std::size_t>(lengthS * kSoundRate));
    std::mt19937 engine(static_cast<unsigned>(order.seed));
    float hum = 0;
    for (std::size_t i = 0; i < sound.size(); ++i) {
        hum = 0.985f * hum + 0.015f * (static_cast<float>(engine() & 0xffff) / 32768.0f - 1);
        sound[i] = 0.05f * hum;
    }
    const auto knock = [&](double atS, double pitch, double loud, double decay) {
        const auto start = static_cast<std::int64_t>(atS * kSoundRate);
        for (std::int64_t i = 0; i < kSoundRate / 4; ++i) {
            if (start + i < 0 || start + i >= static_cast<std::int64_t>(sound.size())) continue;
            const double t = static_cast<double>(i) / kSoundRate;
            sound[static_cast<std::size_t>(start + i)] +=
                static_cast<float>(loud * std::exp(-decay * t) * std::sin(2 * M_PI * pitch * t));
        }
    };
    for (int k = 0; k < order.deliveries; ++k) {
        const double zero =
            static_cast<double>(k * picturesOfOne(order, d)) / order.fps - filmStartS(order, d);
        knock(zero + d.events().at(Moment::FootTouch), 70, 0.3, 30);
        knock(zero + d.events().at(Moment::Release) + 0.42, 160, 0.5, 45);
    }
    return sound;
}

/// Numbers of the painted pictures that the film holds, of `painted` in all.
std::vector<std::int64_t> heldPictures(const FilmOrder& order, std::int64_t painted) {
    std::vector<std::int64_t> held;
    std::int64_t lost = 0;
    for (std::int64_t n = 0; n < painted; ++n)
        if (lost < order.lost && n == painted * (order.lost + 2 * lost + 1) / (4 * order.lost))
            ++lost;
        else
            held.push_back(n);
    return held;
}

/// As a worn card leaves it: single bytes overwritten where the pictures lie.
Status damage(const std::filesystem::path& path, const FilmOrder& order) {
    auto bytes = readFile(path);
    if (!bytes) return bytes.error();
    std::mt19937_64 engine(order.seed + 1);
    const std::size_t third = bytes->size() / 3;
    for (int i = 0; i < order.damagedBytes; ++i)
        (*bytes)[third + engine() % third] = static_cast<char>(engine() & 0xff);
    std::ofstream out(path, std::ios::binary);
    out << *bytes;
    return out ? Status(Done{}) : Status(writeError(path, EIO));
}

} // namespace

int burnedNumber(const std::uint8_t* bgrx, int stride, int width) {
    const int block = width / kNumberBits;
    int n = 0;
    for (int bit = 0; bit < kNumberBits; ++bit) {
        const std::uint8_t v = bgrx[4 * stride + (bit * block + block / 2) * 4 + 1];
        if (v > 80 && v < 170) return -1;
        n = n * 2 + (v >= 170 ? 1 : 0);
    }
    return n;
}

Result<std::string> makeFilm(const FilmOrder& order, const std::filesystem::path& path, std::stop_token stop,
                             const std::function<void(double)>& progress) {
    const FramePainter painter(order);
    const Delivery& d = painter.delivery();
    const std::int64_t frames = picturesOfOne(order, d) * order.deliveries;
    const std::vector<std::int64_t> held = heldPictures(order, frames);
    FileStore files;
    const Status done = files.publish(path, [&](const std::filesystem::path& temporary) -> Status {
        EncodeSettings settings;
        settings.width = order.camera.width;
        settings.height = order.camera.height;
        const int copies = order.repeat * (order.mixed ? 2 : 1);
        settings.fps = {order.fps * copies, 1};
        settings.rotationDeg = order.rotationDeg;
        settings.quality = 21;
        settings.keyInterval = order.fps;
        settings.sampleRate = order.sound ? kSoundRate : 0;
        auto encoder = Encoder::open(temporary, settings);
        if (!encoder) return encoder.error();
        Bytes before; // for mixing
        const auto add = [&](std::int64_t n, const Bytes& picture) -> Status {
            if (!std::binary_search(held.begin(), held.end(), n)) {
                if (!order.lostClosed) (*encoder)->skipPicture();
                return Done{};
            }
            if (order.mixed && !before.empty()) {
                Bytes mean(picture.size());
                for (std::size_t i = 0; i < mean.size(); ++i)
                    mean[i] = static_cast<std::uint8_t>((before[i] + picture[i] + 1) / 2);
                if (auto added = (*encoder)->addPicture(mean.data(), order.camera.width * 4); !added)
                    return added;
            }
            for (int i = 0; i < order.repeat; ++i)
                if (auto added = (*encoder)->addPicture(picture.data(), order.camera.width * 4); !added)
                    return added;
            if (order.mixed) before = picture;
            return Done{};
        };
        // Two frames are painted side by side; the encoder takes them in order.
        FramePainter::Sheet first, second;
        for (std::int64_t n = 0; n < frames; n += 2) {
            if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("demo.stopped"));
            const bool two = n + 1 < frames;
            auto beside = std::async(std::launch::async, [&] {
                if (two) painter.paint(n + 1, second);
            });
            painter.paint(n, first);
            beside.get();
            if (auto added = add(n, first.picture); !added) return added;
            if (two)
                if (auto added = add(n + 1, second.picture); !added) return added;
            if (progress) progress(static_cast<double>(n) / static_cast<double>(frames));
        }
        if (order.sound) {
            const auto sound = roomSound(order, d, static_cast<double>(frames) / order.fps);
            if (auto added = (*encoder)->addSound(sound); !added) return added;
        }
        if (auto ended = (*encoder)->finish(); !ended) return ended;
        return order.damagedBytes > 0 ? damage(temporary, order) : Status(Done{});
    });
    if (!done) return done.error();
    return truthOf(order, d, held);
}

} // namespace jg
