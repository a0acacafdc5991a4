// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/films/light.h"
#include "demo/films/raster.h"

#include <limits>

namespace jg {

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

constexpr float kFloor = -0.254f; // 10 in below the rubber (Official Baseball Rules 2.01, from memory)

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
