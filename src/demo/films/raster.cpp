// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/raster.h"

#include "demo/films/light.h"

#include <opencv2/core/hal/intrin.hpp>

#include <limits>

namespace jg {

namespace {

using Lanes = cv::v_float32x4;
constexpr int kLanes = Lanes::nlanes;
constexpr float kNever = std::numeric_limits<float>::max(); ///< as far as a ray goes

Lanes all(float v) {
    return cv::v_setall_f32(v);
}
Lanes either(const Lanes& test, const Lanes& a, const Lanes& b) {
    return cv::v_select(test, a, b);
}

/// Several vectors side by side.
struct Vectors {
    Lanes x, y, z;
};
Vectors all(Vec3f v) {
    return {all(v.x), all(v.y), all(v.z)};
}
Vectors operator-(const Vectors& a, const Vectors& b) {
    return {a.x - b.x, a.y - b.y, a.z - b.z};
}
Vectors operator+(const Vectors& a, const Vectors& b) {
    return {a.x + b.x, a.y + b.y, a.z + b.z};
}
Vectors operator*(const Lanes& s, const Vectors& a) {
    return {s * a.x, s * a.y, s * a.z};
}
Lanes dot(const Vectors& a, const Vectors& b) {
    return a.x * b.x + a.y * b.y + a.z * b.z;
}
Vectors unit(const Vectors& a) {
    return (all(1) / cv::v_sqrt(cv::v_max(all(1e-20f), dot(a, a)))) * a;
}
Vectors either(const Lanes& test, const Vectors& a, const Vectors& b) {
    return {either(test, a.x, b.x), either(test, a.y, b.y), either(test, a.z, b.z)};
}

/// A cone with round ends, with what is the same for all rays that meet it.
struct Cone {
    Vectors a, b, ba;
    Lanes ra, rb, m0, d2, slope, zero;
    Lanes missBelow; ///< of the side's discriminant: one ball within the other has no side to miss

    explicit Cone(const RoundCone& s)
        : a(all(s.a))
        , b(all(s.b))
        , ba(all(s.b - s.a))
        , ra(all(s.ra))
        , rb(all(s.rb))
        , m0(dot(ba, ba))
        , d2(m0 - all((s.ra - s.rb) * (s.ra - s.rb)))
        , slope(all((s.ra - s.rb) * s.ra))
        , zero(all(0))
        , missBelow(either(d2 > zero, zero, all(-kNever))) {}
};

/// Where rays first meet the cone.
struct Meeting {
    Lanes t;     ///< not above zero: nowhere
    Lanes along; ///< of the axis, above zero: there it meets the side; else kCapA or kCapB
};
constexpr float kCapA = -1, kCapB = -2;

/// `oa`, `ob`: from the ends of the axis to the ray's origin. Quadratic in t; the caps are spheres.
Meeting meet(const Cone& c, const Vectors& oa, const Vectors& ob, const Vectors& rd) {
    const Lanes nowhere = all(-1);
    const Lanes m1 = dot(c.ba, oa), m2 = dot(c.ba, rd), m3 = dot(rd, oa), m5 = dot(oa, oa), m6 = dot(rd, ob);
    const Lanes k2 = c.d2 - m2 * m2;
    const Lanes k1 = c.d2 * m3 - m1 * m2 + m2 * c.slope;
    const Lanes k0 = c.d2 * m5 - m1 * m1 + m1 * (c.slope + c.slope) - c.m0 * c.ra * c.ra;
    const Lanes h = k1 * k1 - k0 * k2;
    const Lanes ofSide = (c.zero - cv::v_sqrt(h) - k1) / k2;
    const Lanes along = m1 - c.slope + ofSide * m2;
    const Lanes ha = m3 * m3 - m5 + c.ra * c.ra, hb = m6 * m6 - dot(ob, ob) + c.rb * c.rb;
    const Lanes ofA = either(ha > c.zero, c.zero - m3 - cv::v_sqrt(ha), nowhere);
    const Lanes ofB = either(hb > c.zero, c.zero - m6 - cv::v_sqrt(hb), nowhere);
    // What a root of less than zero left is no number, and compares as false.
    const auto bIsFirst = (ofB > c.zero) & ((ofA < c.zero) | (ofB < ofA));
    const Lanes ofCap = either(h < c.missBelow, nowhere, either(bIsFirst, ofB, ofA));
    const auto onSide = (cv::v_min(along, c.d2 - along) > c.zero) & (h >= c.zero);
    return {either(onSide, ofSide, ofCap), either(onSide, along, either(bIsFirst, all(kCapB), all(kCapA)))};
}

/// The picture of a solid or of its shadow, roughly: a segment with a thickness that surely holds it.
struct Swath {
    float ax = 0, ay = 0, bx = 0, by = 0, r = 0;
    float nx = 0, ny = 0; ///< across the segment, as long as it is thick
    Box box;

    Swath(const Camera& camera, ImagePoint a, ImagePoint b, double px)
        : ax(static_cast<float>(a.x))
        , ay(static_cast<float>(a.y))
        , bx(static_cast<float>(b.x))
        , by(static_cast<float>(b.y))
        , r(static_cast<float>(px)) {
        const float length = std::hypot(bx - ax, by - ay) + 1e-6f;
        nx = r * (ay - by) / length, ny = r * (bx - ax) / length;
        const auto clampTo = [](double v, int most) {
            return static_cast<int>(std::clamp(v, 0.0, static_cast<double>(most)));
        };
        const int w = camera.settings().width, h = camera.settings().height;
        box = {clampTo(std::min(a.x, b.x) - px, w), clampTo(std::min(a.y, b.y) - px, h),
               clampTo(std::max(a.x, b.x) + px + 1, w), clampTo(std::max(a.y, b.y) + px + 1, h)};
    }
};

/// Pixels first..last-1 of a row.
struct Stretch {
    int first = 0, last = 0;
    bool empty() const { return last <= first; }
};

/// The part of row `y` inside the swath and the canvas: two discs and the band between them, each convex.
Stretch stretchOf(const Swath& s, const Box& canvas, int y) {
    if (y < s.box.y0 || y >= s.box.y1) return {};
    const float row = static_cast<float>(y);
    float left = std::numeric_limits<float>::max(), right = -left;
    const auto take = [&](float from, float to) { left = std::min(left, from), right = std::max(right, to); };
    for (const auto& [cx, cy] : {std::pair{s.ax, s.ay}, std::pair{s.bx, s.by}}) {
        const float inside = s.r * s.r - (row - cy) * (row - cy);
        if (inside >= 0) take(cx - std::sqrt(inside), cx + std::sqrt(inside));
    }
    const float corners[5][2] = {{s.ax + s.nx, s.ay + s.ny},
                                 {s.bx + s.nx, s.by + s.ny},
                                 {s.bx - s.nx, s.by - s.ny},
                                 {s.ax - s.nx, s.ay - s.ny},
                                 {s.ax + s.nx, s.ay + s.ny}};
    for (int i = 0; i < 4; ++i) {
        const float y0 = corners[i][1], y1 = corners[i + 1][1];
        if ((row < y0) == (row < y1)) continue;
        const float x = corners[i][0] + (row - y0) / (y1 - y0) * (corners[i + 1][0] - corners[i][0]);
        take(x, x);
    }
    if (right < left) return {};
    return {std::max({static_cast<int>(std::ceil(std::max(left, -1.0f))), s.box.x0, canvas.x0}),
            std::min({static_cast<int>(std::floor(std::min(right, 1e6f))) + 1, s.box.x1, canvas.x1})};
}

Swath solidSwath(const Camera& camera, const RoundCone& s) {
    const Eigen::Vector3d a(s.a.x, s.a.y, s.a.z), b(s.b.x, s.b.y, s.b.z);
    const double px = std::max(camera.pxPerM(a) * s.ra, camera.pxPerM(b) * s.rb);
    return {camera, camera.project(a), camera.project(b), px * 1.08 + 2};
}

/// Where the solid's shadow may fall.
Swath shadowSwath(const Camera& camera, const RoundCone& s, const Delivery& delivery) {
    const auto foot = [&](Vec3f p) {
        const double ground = delivery.groundAt(p.x);
        const double t = (p.y - ground) / kLight.y;
        return Eigen::Vector3d(p.x - t * kLight.x, ground, p.z - t * kLight.z);
    };
    const Eigen::Vector3d a = foot(s.a), b = foot(s.b);
    const double px = std::max(camera.pxPerM(a) * s.ra, camera.pxPerM(b) * s.rb);
    return {camera, camera.project(a), camera.project(b), px * 1.5 + 2};
}

/// A row of vectors, each coordinate for itself, with room for whole Lanes at its end.
struct VectorRow {
    std::vector<float> x, y, z;
    explicit VectorRow(std::size_t n)
        : x(n + kLanes)
        , y(n + kLanes)
        , z(n + kLanes) {}
    Vectors lanesAt(std::size_t i) const { return {cv::v_load(&x[i]), cv::v_load(&y[i]), cv::v_load(&z[i])}; }
    void set(std::size_t i, Vec3f v) { x[i] = v.x, y[i] = v.y, z[i] = v.z; }
    void set(std::size_t i, const Vectors& v) {
        cv::v_store(&x[i], v.x), cv::v_store(&y[i], v.y), cv::v_store(&z[i], v.z);
    }
};

/// What a row of pixels sees first: how far away, where on the solid (as Meeting), and its number.
struct NearestRow {
    std::vector<float> depth, along, solid;
    explicit NearestRow(std::size_t n)
        : depth(n + kLanes)
        , along(n + kLanes)
        , solid(n + kLanes) {}
    void clear() {
        std::fill(depth.begin(), depth.end(), kNever);
        std::fill(solid.begin(), solid.end(), 0.0f);
    }
};

/// Lets one solid stand before what the pixels `from`..`to` saw so far.
void meetRow(const RoundCone& solid, std::size_t number, Vec3f origin, const VectorRow& rays,
             std::size_t from, std::size_t to, NearestRow& seen) {
    const Cone cone(solid);
    const auto oa = all(origin - solid.a), ob = all(origin - solid.b);
    const Vec3f up = solid.clipped ? solid.clipUp : Vec3f{};
    const auto clip = all(up);
    const Lanes clipOff = all(dot(origin - solid.clipAt, up)), name = all(static_cast<float>(number));
    for (std::size_t i = from; i < to; i += kLanes) {
        const Vectors rd = rays.lanesAt(i);
        const Meeting m = meet(cone, oa, ob, rd);
        const Lanes before = cv::v_load(&seen.depth[i]);
        const Lanes nearer =
            (m.t > cone.zero) & (m.t < before) & (clipOff + m.t * dot(clip, rd) >= cone.zero);
        cv::v_store(&seen.depth[i], either(nearer, m.t, before));
        cv::v_store(&seen.along[i], either(nearer, m.along, cv::v_load(&seen.along[i])));
        cv::v_store(&seen.solid[i], either(nearer, name, cv::v_load(&seen.solid[i])));
    }
}

/// Marks (above zero) the points `from`..`to` of the ground from which the lamp is hidden by the solid.
void hideRow(const RoundCone& solid, const VectorRow& ground, std::size_t from, std::size_t to,
             std::vector<float>& dark) {
    const Cone cone(solid);
    const auto lamp = all(kLight);
    for (std::size_t i = from; i < to; i += kLanes) {
        const Vectors p = ground.lanesAt(i);
        const Lanes t = meet(cone, p - cone.a, p - cone.b, lamp).t, before = cv::v_load(&dark[i]);
        cv::v_store(&dark[i], either(t > before, t, before));
    }
}

/// What the solids look like from one eye, by number, each quantity for itself.
class Looks {
public:
    Looks(const std::vector<RoundCone>& solids, Vec3f origin) {
        for (const RoundCone& s : solids) {
            const Vec3f oa = origin - s.a, ob = origin - s.b, ba = s.b - s.a;
            const float d2 = dot(ba, ba) - (s.ra - s.rb) * (s.ra - s.rb);
            const float values[] = {oa.x, oa.y, oa.z,      ob.x,      ob.y,      ob.z, ba.x,
                                    ba.y, ba.z, s.cloth.r, s.cloth.g, s.cloth.b, d2,   s.cloth.shine};
            for (std::size_t i = 0; i < kValues; ++i) table_[i].push_back(values[i]);
        }
    }
    /// Light that comes back along rays from where they met the solids (`t`, `along`: as Meeting).
    Vectors light(const Lanes& solid, const Vectors& rd, const Lanes& t, const Lanes& along) const {
        const cv::v_int32x4 number = cv::v_trunc(solid);
        const Lanes zero = all(0), half = all(0.5f);
        const Vectors onSide = of(12, number) * (three(0, number) + t * rd) - along * three(6, number);
        const Vectors onCap = either(along == all(kCapB), three(3, number), three(0, number)) + t * rd;
        const Vectors n = unit(either(along > zero, onSide, onCap));
        const Lanes lamp = cv::v_max(zero, dot(n, all(kLight)));
        const Lanes sky = half + half * n.y;
        const Lanes rim = all(1) - cv::v_max(zero, zero - dot(n, rd));
        const Lanes light = all(0.16f) + all(0.26f) * sky + all(0.66f) * lamp - all(0.10f) * rim * rim;
        const Lanes mirror = cv::v_max(zero, dot(n, unit(all(kLight) - rd)));
        const Lanes cube = mirror * mirror * mirror, sixth = cube * cube, twelfth = sixth * sixth;
        const Lanes gloss = of(13, number) * twelfth * twelfth;
        const Vectors c = three(9, number);
        return {c.x * c.x * light + gloss, c.y * c.y * light + gloss, c.z * c.z * light * all(0.97f) + gloss};
    }

private:
    static constexpr std::size_t kValues = 14;
    Lanes of(std::size_t value, const cv::v_int32x4& number) const {
        return cv::v_lut(table_[value].data(), number);
    }
    Vectors three(std::size_t first, const cv::v_int32x4& number) const {
        return {of(first, number), of(first + 1, number), of(first + 2, number)};
    }
    std::vector<float> table_[kValues]; ///< from the ends a and b to the eye, axis, colour, d2, shine
};

/// Point of the ground seen along a ray.
Vec3f groundPoint(Vec3f origin, Vec3f rd, const Delivery& delivery) {
    float t = -origin.y / rd.y;
    for (int i = 0; i < 2; ++i)
        t = (static_cast<float>(delivery.groundAt(origin.x + t * rd.x)) - origin.y) / rd.y;
    return origin + t * rd;
}

/// The stretches of all solids on one row, and the one that holds them all.
class RowOfStretches {
public:
    RowOfStretches(const std::vector<Swath>& swaths, const Box& canvas, int y) {
        for (const Swath& s : swaths) {
            each.push_back(stretchOf(s, canvas, y));
            const Stretch& one = each.back();
            if (one.empty()) continue;
            all = all.empty() ? one : Stretch{std::min(all.first, one.first), std::max(all.last, one.last)};
        }
    }
    std::vector<Stretch> each;
    Stretch all;
};

} // namespace

Box Box::with(Box o) const {
    if (empty()) return o;
    if (o.empty()) return *this;
    return {std::min(x0, o.x0), std::min(y0, o.y0), std::max(x1, o.x1), std::max(y1, o.y1)};
}

Box boundsOf(const Camera& camera, const std::vector<RoundCone>& solids, const Delivery& delivery) {
    Box all;
    for (const RoundCone& s : solids)
        all = all.with(solidSwath(camera, s).box).with(shadowSwath(camera, s, delivery).box);
    return all;
}

void paintShadow(Canvas& canvas, const Camera& camera, const std::vector<RoundCone>& solids,
                 const Delivery& delivery) {
    const RayMaker rays(camera, 0.5, 0.5);
    std::vector<Swath> swaths;
    for (const RoundCone& s : solids) swaths.push_back(shadowSwath(camera, s, delivery));
    const auto width = static_cast<std::size_t>(canvas.box.x1 - canvas.box.x0);
    VectorRow ground(width);
    std::vector<float> dark(width + kLanes);
    for (int y = canvas.box.y0; y < canvas.box.y1; ++y) {
        const RowOfStretches row(swaths, canvas.box, y);
        if (row.all.empty() || rays.at(row.all.first, y).y >= -0.01f || rays.at(row.all.last, y).y >= -0.01f)
            continue; // above the horizon
        const auto at = [&](int x) { return static_cast<std::size_t>(x - row.all.first); };
        for (int x = row.all.first; x < row.all.last; ++x)
            ground.set(at(x), groundPoint(rays.origin, rays.at(x, y), delivery));
        std::fill(dark.begin(), dark.end(), 0.0f);
        for (std::size_t i = 0; i < solids.size(); ++i)
            if (const Stretch& s = row.each[i]; !s.empty())
                hideRow(solids[i], ground, at(s.first), at(s.last), dark);
        for (int x = row.all.first; x < row.all.last; ++x) {
            if (dark[at(x)] <= 0) continue;
            float* p = canvas.at(x, y);
            p[0] *= 0.42f, p[1] *= 0.42f, p[2] *= 0.45f;
        }
    }
}

void Exposure::begin(Box box) {
    light_.begin(box);
    moments_.assign(light_.rgb.size() / 3 + kLanes, 0.0f);
    light_.rgb.resize(moments_.size() * 3);
}

void Exposure::add(const Camera& camera, const std::vector<RoundCone>& solids, double jx, double jy) {
    const RayMaker rays(camera, jx, jy);
    const Looks looks(solids, rays.origin);
    std::vector<Swath> swaths;
    for (const RoundCone& s : solids) swaths.push_back(solidSwath(camera, s));
    const Box& box = light_.box;
    const auto width = static_cast<std::size_t>(box.x1 - box.x0);
    VectorRow ray(width);
    NearestRow seen(width);
    for (int y = box.y0; y < box.y1; ++y) {
        const RowOfStretches row(swaths, box, y);
        if (row.all.empty()) continue;
        const auto at = [&](int x) { return static_cast<std::size_t>(x - row.all.first); };
        const std::size_t count = at(row.all.last);
        const Vectors corner = all(rays.corner + static_cast<float>(y) * rays.dy), step = all(rays.dx);
        for (std::size_t k = 0; k < count; k += kLanes) {
            const float x = static_cast<float>(row.all.first + static_cast<int>(k));
            ray.set(k, unit(corner + Lanes(x, x + 1, x + 2, x + 3) * step));
        }
        seen.clear();
        for (std::size_t i = 0; i < solids.size(); ++i)
            if (const Stretch& s = row.each[i]; !s.empty())
                meetRow(solids[i], i, rays.origin, ray, at(s.first), at(s.last), seen);
        for (std::size_t k = 0; k < count; k += kLanes) {
            const Lanes t = cv::v_load(&seen.depth[k]), hit = t < all(kNever);
            if (!cv::v_check_any(hit)) continue;
            const Vectors c =
                looks.light(cv::v_load(&seen.solid[k]), ray.lanesAt(k), t, cv::v_load(&seen.along[k]));
            const std::size_t pixel = light_.index(row.all.first + static_cast<int>(k), y);
            Vectors sum;
            cv::v_load_deinterleave(&light_.rgb[pixel * 3], sum.x, sum.y, sum.z);
            sum = either(hit, sum + c, sum);
            cv::v_store_interleave(&light_.rgb[pixel * 3], sum.x, sum.y, sum.z);
            cv::v_store(&moments_[pixel], cv::v_load(&moments_[pixel]) + (hit & all(1)));
        }
    }
}

void Exposure::over(Canvas& background, int all) const {
    for (std::size_t i = 0; i < background.rgb.size() / 3; ++i) {
        if (moments_[i] <= 0) continue;
        const float behind = static_cast<float>(all) - moments_[i];
        for (std::size_t c = i * 3; c < i * 3 + 3; ++c)
            background.rgb[c] = (light_.rgb[c] + behind * background.rgb[c]) / static_cast<float>(all);
    }
}

} // namespace jg
