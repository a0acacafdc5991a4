#include "demo/raster.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace jg {

namespace {

constexpr Vec3f kLight = {0.30f, 0.86f, 0.42f}; // toward the lamp; unit length within 1 %

Vec3f operator+(Vec3f a, Vec3f b) {
    return {a.x + b.x, a.y + b.y, a.z + b.z};
}
Vec3f operator-(Vec3f a, Vec3f b) {
    return {a.x - b.x, a.y - b.y, a.z - b.z};
}
Vec3f operator*(float s, Vec3f a) {
    return {s * a.x, s * a.y, s * a.z};
}
float dot(Vec3f a, Vec3f b) {
    return a.x * b.x + a.y * b.y + a.z * b.z;
}
Vec3f unit(Vec3f a) {
    return (1.0f / std::sqrt(std::max(1e-20f, dot(a, a)))) * a;
}

struct Hit {
    float t = -1;
    Vec3f across; ///< along the surface's normal, of any length
};

/// A cone with round ends seen from one point, with what all rays from there share.
struct Seen {
    Vec3f a, b, ba, oa, ob;
    float ra, rb, rr, m0, m1, m5, m7, d2;

    Seen(const RoundCone& s, Vec3f ro)
        : a(s.a)
        , b(s.b)
        , ba(s.b - s.a)
        , oa(ro - s.a)
        , ob(ro - s.b)
        , ra(s.ra)
        , rb(s.rb)
        , rr(s.ra - s.rb)
        , m0(dot(ba, ba))
        , m1(dot(ba, oa))
        , m5(dot(oa, oa))
        , m7(dot(ob, ob))
        , d2(m0 - rr * rr) {}

    /// First hit of a ray (quadratic in t; the caps are spheres).
    Hit hit(Vec3f rd) const {
        const float m2 = dot(ba, rd), m3 = dot(rd, oa);
        if (d2 > 0) {
            const float k2 = d2 - m2 * m2;
            const float k1 = d2 * m3 - m1 * m2 + m2 * rr * ra;
            const float k0 = d2 * m5 - m1 * m1 + m1 * rr * ra * 2 - m0 * ra * ra;
            const float h = k1 * k1 - k0 * k2;
            if (h < 0) return {};
            const float t = (-std::sqrt(h) - k1) / k2;
            const float y = m1 - ra * rr + t * m2;
            if (y > 0 && y < d2) return {t, d2 * (oa + t * rd) - y * ba};
        }
        Hit best;
        const float m6 = dot(ob, rd);
        const float h1 = m3 * m3 - m5 + ra * ra, h2 = m6 * m6 - m7 + rb * rb;
        if (h1 > 0) {
            const float t = -m3 - std::sqrt(h1);
            best = {t, oa + t * rd};
        }
        if (h2 > 0) {
            const float t = -m6 - std::sqrt(h2);
            if (best.t < 0 || t < best.t) best = {t, ob + t * rd};
        }
        return best;
    }
};

Vec3f vec(const Eigen::Vector3d& v) {
    return {static_cast<float>(v(0)), static_cast<float>(v(1)), static_cast<float>(v(2))};
}

/// Reproduces Camera::ray in floats, row by row.
struct RayMaker {
    Vec3f origin, corner, dx, dy;
    RayMaker(const Camera& camera, double jx, double jy)
        : origin(vec(camera.eye())) {
        // Rays on the plane one unit ahead are affine in the pixel.
        const auto onPlane = [&](double x, double y) {
            const Eigen::Vector3d centre =
                camera.ray(camera.settings().width / 2.0, camera.settings().height / 2.0);
            const Eigen::Vector3d r = camera.ray(x, y);
            return Eigen::Vector3d(r / r.dot(centre));
        };
        const Eigen::Vector3d o = onPlane(jx, jy);
        corner = vec(o);
        dx = vec((onPlane(jx + 1000, jy) - o) / 1000);
        dy = vec((onPlane(jx, jy + 1000) - o) / 1000);
    }
    Vec3f at(int x, int y) const {
        return unit(corner + static_cast<float>(x) * dx + static_cast<float>(y) * dy);
    }
};

/// The picture of a solid or of its shadow, roughly: a segment with a thickness that surely holds it.
struct Swath {
    float ax = 0, ay = 0, bx = 0, by = 0, r = 0;
    Box box;

    Swath(const Camera& camera, ImagePoint a, ImagePoint b, double px)
        : ax(static_cast<float>(a.x))
        , ay(static_cast<float>(a.y))
        , bx(static_cast<float>(b.x))
        , by(static_cast<float>(b.y))
        , r(static_cast<float>(px)) {
        const auto clampTo = [](double v, int most) {
            return static_cast<int>(std::clamp(v, 0.0, static_cast<double>(most)));
        };
        const int w = camera.settings().width, h = camera.settings().height;
        box = {clampTo(std::min(a.x, b.x) - px, w), clampTo(std::min(a.y, b.y) - px, h),
               clampTo(std::max(a.x, b.x) + px + 1, w), clampTo(std::max(a.y, b.y) + px + 1, h)};
    }
    bool holds(int x, int y) const {
        const float dx = bx - ax, dy = by - ay;
        const float px = static_cast<float>(x) - ax, py = static_cast<float>(y) - ay;
        const float t = std::clamp((px * dx + py * dy) / (dx * dx + dy * dy + 1e-6f), 0.0f, 1.0f);
        const float ex = px - t * dx, ey = py - t * dy;
        return ex * ex + ey * ey <= r * r;
    }
};

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

/// Calls `paint(x, y)` for every pixel of the canvas that the swath may hold: on each row one stretch, for
/// what it holds is convex.
template <typename Paint>
void forEachPixel(const Canvas& canvas, const Swath& swath, Paint paint) {
    const int left = std::max(swath.box.x0, canvas.box.x0), right = std::min(swath.box.x1, canvas.box.x1);
    for (int y = std::max(swath.box.y0, canvas.box.y0); y < std::min(swath.box.y1, canvas.box.y1); ++y) {
        int first = left, last = right;
        while (first < last && !swath.holds(first, y)) ++first;
        while (last > first && !swath.holds(last - 1, y)) --last;
        for (int x = first; x < last; ++x) paint(x, y);
    }
}

Vec3f shade(const Cloth& c, Vec3f n, Vec3f view) {
    const float lamp = std::max(0.0f, dot(n, kLight));
    const float sky = 0.5f + 0.5f * n.y;
    const float rim = 1.0f - std::max(0.0f, -dot(n, view));
    const float light = 0.16f + 0.26f * sky + 0.66f * lamp - 0.10f * rim * rim;
    const float gloss =
        c.shine > 0 ? c.shine * std::pow(std::max(0.0f, dot(n, unit(kLight - view))), 24.0f) : 0.0f;
    return {c.r * c.r * light + gloss, c.g * c.g * light + gloss, c.b * c.b * light * 0.97f + gloss};
}

/// Point of the ground seen along a ray.
Vec3f groundPoint(const RayMaker& rays, Vec3f rd, const Delivery& delivery) {
    float t = -rays.origin.y / rd.y;
    for (int i = 0; i < 2; ++i)
        t = (static_cast<float>(delivery.groundAt(rays.origin.x + t * rd.x)) - rays.origin.y) / rd.y;
    return rays.origin + t * rd;
}

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
    std::vector<std::uint8_t> dark(canvas.rgb.size() / 3);
    for (const RoundCone& s : solids)
        forEachPixel(canvas, shadowSwath(camera, s, delivery), [&](int x, int y) {
            if (dark[canvas.index(x, y)]) return;
            const Vec3f rd = rays.at(x, y);
            if (rd.y >= -0.01f || Seen(s, groundPoint(rays, rd, delivery)).hit(kLight).t <= 0) return;
            dark[canvas.index(x, y)] = 1;
            float* p = canvas.at(x, y);
            p[0] *= 0.42f, p[1] *= 0.42f, p[2] *= 0.45f;
        });
}

void paintSolids(Canvas& canvas, const Camera& camera, const std::vector<RoundCone>& solids, double jx,
                 double jy) {
    const RayMaker rays(camera, jx, jy);
    std::vector<float> depth(canvas.rgb.size() / 3, std::numeric_limits<float>::max());
    // Most pixels lie in the swath of several solids: their ray is made once.
    std::vector<Vec3f> made(depth.size(), Vec3f{0, 0, 0});
    for (const RoundCone& s : solids) {
        const Seen seen(s, rays.origin);
        forEachPixel(canvas, solidSwath(camera, s), [&](int x, int y) {
            const std::size_t i = canvas.index(x, y);
            Vec3f& rd = made[i];
            if (rd.x == 0 && rd.y == 0 && rd.z == 0) rd = rays.at(x, y);
            const Hit hit = seen.hit(rd);
            if (hit.t <= 0 || hit.t >= depth[i]) return;
            if (s.clipped && dot(rays.origin + hit.t * rd - s.clipAt, s.clipUp) < 0) return;
            depth[i] = hit.t;
            const Vec3f c = shade(s.cloth, unit(hit.across), rd);
            float* p = canvas.at(x, y);
            p[0] = c.x, p[1] = c.y, p[2] = c.z;
        });
    }
}

namespace {

float smooth(float low, float high, float v) {
    const float t = std::clamp((v - low) / (high - low), 0.0f, 1.0f);
    return t * t * (3 - 2 * t);
}

float noise(int x, int y, unsigned seed) {
    unsigned h =
        static_cast<unsigned>(x) * 374761393u + static_cast<unsigned>(y) * 668265263u + seed * 2246822519u;
    h = (h ^ (h >> 13)) * 1274126177u;
    return static_cast<float>((h ^ (h >> 16)) & 0xffff) / 65535.0f;
}

/// Smooth noise over a plane.
float grain(float u, float v, unsigned seed) {
    const float fu = std::floor(u), fv = std::floor(v);
    const int x = static_cast<int>(fu), y = static_cast<int>(fv);
    const float a = smooth(0, 1, u - fu), b = smooth(0, 1, v - fv);
    const float top = noise(x, y, seed) * (1 - a) + noise(x + 1, y, seed) * a;
    const float low = noise(x, y + 1, seed) * (1 - a) + noise(x + 1, y + 1, seed) * a;
    return top * (1 - b) + low * b;
}

constexpr float kFloor = -0.254f; // 10 in below the rubber (Official Baseball Rules 2.04, from memory)

float terrain(float x, float z, const Delivery& d) {
    const float floorY = d.knobs().mound ? kFloor : 0.0f;
    if (!d.knobs().mound) return 0;
    const float profile = static_cast<float>(d.groundAt(x));
    const float side = 1 - smooth(0.75f, 2.1f, std::abs(z));
    const float back = smooth(-2.3f, -0.6f, x);
    return floorY + (std::max(profile, floorY) - floorY) * side * back;
}

struct Surface {
    Vec3f colour;
    float light = 1;
};

/// Boards of the shed wall with windows; u along the wall, v up.
Surface wallAt(float u, float v) {
    Surface s{{0.128f, 0.112f, 0.098f}, 1};
    const float board = u / 0.24f;
    const float within = board - std::floor(board);
    const float tone = 0.86f + 0.22f * noise(static_cast<int>(std::floor(board)), 0, 5) +
                       0.08f * (grain(u * 14, v * 1.6f, 3) - 0.5f);
    s.light = tone * (within < 0.05f ? 0.55f : 1.0f);
    const float bay = (u + 0.75f) / 2.6f;
    const float inBay = (bay - std::floor(bay)) * 2.6f;
    const bool window = v > 1.65f && v < 2.55f && inBay > 0.3f && inBay < 1.8f;
    if (window) {
        const float px = (inBay - 0.3f) / 0.5f, py = (v - 1.65f) / 0.45f;
        const float fx = px - std::floor(px), fy = py - std::floor(py);
        const bool bar = fx < 0.06f || fx > 0.94f || fy < 0.06f || fy > 0.94f;
        if (bar) return {{0.045f, 0.042f, 0.04f}, 1};
        return {{0.235f, 0.275f, 0.28f}, 0.8f + 0.35f * grain(u * 1.3f, v * 1.7f, 8)};
    }
    if (v > 0.86f && v < 0.93f) return {{0.075f, 0.062f, 0.052f}, 1}; // the rail along the wall
    if (v < 0.06f) return {{0.05f, 0.045f, 0.04f}, 1};
    return s;
}

Surface groundSurface(float x, float z, const Delivery& d) {
    // Clay near the rubber, worn boards elsewhere, and the old tram's rails along the hall.
    const float clay =
        (1 - smooth(1.1f, 1.5f, std::abs(z))) * smooth(-1.7f, -1.3f, x) * (1 - smooth(2.6f, 3.1f, x));
    const float dirt = 0.85f + 0.3f * grain(x * 22, z * 22, 2) * grain(x * 5, z * 5, 4);
    Surface s{{0.155f, 0.120f, 0.092f}, 0.9f + 0.18f * grain(x * 2.2f, z * 16, 6)};
    const float plank = z / 0.18f;
    if (plank - std::floor(plank) < 0.05f) s.light *= 0.7f;
    if (std::abs(std::abs(z) - 2.0f) < 0.035f) s = {{0.26f, 0.25f, 0.24f}, 1};
    if (clay > 0) {
        const Vec3f c = {0.295f, 0.155f, 0.085f};
        s.colour = (1 - clay) * s.colour + clay * c;
        s.light = (1 - clay) * s.light + clay * dirt;
    }
    // Rubber 24 x 6 in (Official Baseball Rules 2.04, from memory).
    if (x > -0.076f && x < 0.076f && std::abs(z) < 0.305f && d.groundAt(0) == 0)
        s = {{0.72f, 0.70f, 0.64f}, 1};
    return s;
}

Vec3f lit(const Surface& s, Vec3f n, Vec3f at) {
    const float lamp = std::max(0.0f, dot(n, kLight));
    const float dx = at.x - 0.7f, dz = at.z;
    const float pool = 0.55f + 0.65f / (1 + 0.09f * (dx * dx + dz * dz));
    const float light = s.light * pool * (0.55f + 0.62f * lamp);
    return light * s.colour;
}

Vec3f shedAt(Vec3f ro, Vec3f rd, const Camera& camera, const Delivery& d) {
    const View view = camera.settings().view;
    float wallT = std::numeric_limits<float>::max();
    Vec3f wallNormal{0, 0, 1};
    if (view == View::Open && rd.z < 0) wallT = (-2.9f - ro.z) / rd.z;
    if (view == View::Closed && rd.z > 0) wallT = (2.9f - ro.z) / rd.z, wallNormal = {0, 0, -1};
    if (view == View::Front && rd.x < 0) wallT = (-4.2f - ro.x) / rd.x, wallNormal = {1, 0, 0};
    if (view == View::Rear && rd.x > 0) wallT = (19.0f - ro.x) / rd.x, wallNormal = {-1, 0, 0};
    float groundT = std::numeric_limits<float>::max();
    if (rd.y < -0.001f) {
        // March down to the terrain, then halve.
        float near = (0.05f - ro.y) / rd.y, far = (kFloor - 0.01f - ro.y) / rd.y;
        near = std::max(near, 0.0f);
        float low = near, high = far;
        bool found = false;
        for (int i = 1; i <= 40 && !found; ++i) {
            const float t = near + (far - near) * static_cast<float>(i) / 40.0f;
            const Vec3f p = ro + t * rd;
            if (p.y <= terrain(p.x, p.z, d))
                high = t, found = true;
            else
                low = t;
        }
        for (int i = 0; i < 8; ++i) {
            const float mid = (low + high) / 2;
            const Vec3f p = ro + mid * rd;
            (p.y <= terrain(p.x, p.z, d) ? high : low) = mid;
        }
        groundT = high;
    }
    if (groundT < wallT) {
        const Vec3f p = ro + groundT * rd;
        const float e = 0.02f;
        const Vec3f n = unit({terrain(p.x - e, p.z, d) - terrain(p.x + e, p.z, d), 2 * e,
                              terrain(p.x, p.z - e, d) - terrain(p.x, p.z + e, d)});
        return lit(groundSurface(p.x, p.z, d), n, p);
    }
    if (wallT == std::numeric_limits<float>::max()) return {0.03f, 0.028f, 0.026f};
    const Vec3f p = ro + wallT * rd;
    const float u = std::abs(wallNormal.z) > 0 ? p.x : p.z;
    const float v = p.y - (d.knobs().mound ? kFloor : 0.0f);
    const Vec3f c = lit(wallAt(u, v), wallNormal, p);
    const float shadeUp = 0.75f + 0.25f * smooth(0, 0.5f, v);
    return shadeUp * 1.35f * c;
}

} // namespace

Canvas paintShed(const Camera& camera, const Delivery& delivery) {
    Canvas canvas(Box{0, 0, camera.settings().width, camera.settings().height});
    const RayMaker rays(camera, 0.5, 0.5);
    for (int y = 0; y < canvas.box.y1; ++y)
        for (int x = 0; x < canvas.box.x1; ++x) {
            const Vec3f c = shedAt(rays.origin, rays.at(x, y), camera, delivery);
            float* p = canvas.at(x, y);
            p[0] = c.x, p[1] = c.y, p[2] = c.z;
        }
    return canvas;
}

} // namespace jg
