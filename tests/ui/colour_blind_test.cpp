// SPDX-License-Identifier: GPL-3.0-or-later
// Verdict marks, contrast and colours as eyes see them that tell few colours apart. The simulation is that of
// Machado, Oliveira and Fernandes 2009 at full severity, matrices from memory, on linear light.
#include "letter/palette.h"
#include "ui/forms/verdict_look.h"
#include "ui/kit/pips.h"
#include "ui/kit/theme.h"

#include <QImage>
#include <QPainter>
#include <gtest/gtest.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace jg {
namespace {

using Matrix = std::array<double, 9>;

struct Sight {
    const char* name;
    Matrix m;
};

const Sight kSights[] = {
    {"full", {1, 0, 0, 0, 1, 0, 0, 0, 1}},
    {"without red",
     {0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998}},
    {"without green",
     {0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.011820, 0.042940, 0.968881}},
    {"without blue",
     {1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.303900}},
    {"grey", {0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722}}};

double linear(int channel) {
    const double c = channel / 255.0;
    return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
}

/// How bright a colour is to that sight (WCAG's relative luminance).
double brightness(const QColor& c, const Sight& sight) {
    const double in[3] = {linear(c.red()), linear(c.green()), linear(c.blue())};
    double out[3];
    for (int i = 0; i < 3; ++i)
        out[i] = std::clamp(sight.m[static_cast<std::size_t>(3 * i)] * in[0] +
                                sight.m[static_cast<std::size_t>(3 * i + 1)] * in[1] +
                                sight.m[static_cast<std::size_t>(3 * i + 2)] * in[2],
                            0.0, 1.0);
    return 0.2126 * out[0] + 0.7152 * out[1] + 0.0722 * out[2];
}

double contrast(const QColor& a, const QColor& b, const Sight& sight) {
    const double x = brightness(a, sight), y = brightness(b, sight);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

Judgement judged(Verdict v) {
    Judgement j;
    j.state = JudgeState::Graded;
    j.verdict = v;
    return j;
}

Judgement state(JudgeState s) {
    Judgement j;
    j.state = s;
    return j;
}

QImage painted(const Judgement& judgement) {
    constexpr int kScale = 2;
    QImage image(50 * kScale, 16 * kScale, QImage::Format_RGB32);
    image.fill(palette::sheet);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    p.scale(kScale, kScale);
    ui::paintVerdict(p, {2, 8}, ui::lookOf(judgement), palette::ink);
    return image;
}

/// Pixels that this sight tells apart by brightness.
int apart(const QImage& a, const QImage& b, const Sight& sight) {
    int n = 0;
    for (int y = 0; y < a.height(); ++y)
        for (int x = 0; x < a.width(); ++x)
            if (std::abs(brightness(a.pixelColor(x, y), sight) - brightness(b.pixelColor(x, y), sight)) > 0.2)
                ++n;
    return n;
}

TEST(ColourBlind, EveryVerdictIsToldFromEveryOtherByItsShape) {
    const Judgement all[] = {judged(Verdict::Keep),        judged(Verdict::Nearly),
                             judged(Verdict::Adjust),      judged(Verdict::Change),
                             judged(Verdict::Protect),     state(JudgeState::CannotTell),
                             state(JudgeState::NotVisible)};
    for (const Sight& sight : kSights)
        for (std::size_t i = 0; i < std::size(all); ++i)
            for (std::size_t j = 0; j < i; ++j)
                EXPECT_GT(apart(painted(all[i]), painted(all[j]), sight), 20)
                    << sight.name << ": " << i << " and " << j;
}

TEST(ColourBlind, EveryVerdictHasAWordOfItsOwn) {
    std::set<QString> words;
    for (const Verdict v :
         {Verdict::Keep, Verdict::Nearly, Verdict::Adjust, Verdict::Change, Verdict::Protect})
        words.insert(ui::lookOf(judged(v)).word);
    for (const JudgeState s : {JudgeState::CannotTell, JudgeState::NotVisible, JudgeState::NotLookedAt})
        words.insert(ui::lookOf(state(s)).word);
    EXPECT_EQ(words.size(), 8U);
    EXPECT_FALSE(words.contains(QString()));
}

/// 4.5 to 1 for text, 3 to 1 for marks on the picture's dark surround (WCAG 2.1, 1.4.3 and 1.4.11, from
/// memory); for a simulated sight 4 to 1 (own choice).
TEST(ColourBlind, TextAndMarksStandOutForEverySight) {
    using namespace palette;
    for (const Sight& sight : kSights) {
        for (const QColor& text : {ink, quiet, clay, clayDeep, moss})
            for (const QColor& ground : {paper, sheet})
                EXPECT_GE(contrast(text, ground, sight), &sight == kSights ? 4.5 : 4)
                    << sight.name << " " << text.name().toStdString();
        for (const QColor& mark : {chalk, second, ghost})
            EXPECT_GE(contrast(mark, stage, sight), 3) << sight.name << " " << mark.name().toStdString();
    }
}

} // namespace
} // namespace jg
