// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/film_painter.h"

#include "letter/fonts.h"
#include "letter/house_mark.h"
#include "letter/mark_scene.h"
#include "letter/palette.h"
#include "letter/qt_text.h"
#include "review/assess/number_words.h"
#include "review/compare/lockstep.h"
#include "review/tell/letter_model.h"
#include "review/tell/told_number.h"

#include <QFontMetricsF>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <utility>

namespace jg {

namespace {

constexpr double kWordsMargin = 0.045; ///< of the canvas' width, on each side of words
constexpr double kLeastEm = 0.9;       ///< to which words shrink before they are cut at a word

/// What decides how a picture of a stop looks.
std::string signatureOf(const Stop& s, const StageState& state, const std::string& caption) {
    const auto placed = [](ImagePoint at) {
        return "/" + std::to_string(std::lround(at.x * 4)) + "," + std::to_string(std::lround(at.y * 4));
    };
    std::string sig = s.id.value + "/" + std::to_string(state.frame) + "/" + (state.marks ? "m" : "-") +
                      (state.goal ? "g" : "-") + caption;
    for (const Drawn& d : state.drawn)
        sig += "/" + std::to_string(d.points.size()) + placed(d.points.back()) +
               std::to_string(std::lround(d.clear * 100));
    if (state.part) sig += placed(state.part->from) + placed(state.part->to);
    if (state.pointer) sig += placed(*state.pointer);
    return sig;
}

} // namespace

FilmPainter::FilmPainter(const FilmRecipe& recipe)
    : r_(recipe)
    , layout_(layOutFilm(QSize(recipe.width, recipe.height)))
    , frames_(recipe)
    , canvas_(recipe.width, recipe.height, QImage::Format_RGB32) {}

QString FilmPainter::said(const Message& message) const {
    return text(r_.words(message));
}

Result<FrameTimes> FilmPainter::timesOf(int delivery) {
    return frames_.timesOf(toldIn(r_, delivery));
}

QFont FilmPainter::fontOf(const Line& line, double em) const {
    return line.heading ? headFont(line.ems * em) : textFont(line.ems * em, line.bold);
}

double FilmPainter::heightOf(const std::vector<Line>& lines, double em, double width) const {
    double height = 0;
    for (const Line& line : lines) {
        const QFontMetricsF metrics(fontOf(line, em));
        height += metrics.boundingRect(QRectF(0, 0, width, 1e5), Qt::TextWordWrap, line.text).height();
        if (&line != &lines.front()) height += line.before * em;
    }
    return height;
}

/// Below each other in the middle of the box; smaller, down to `least` of their size, where they need it, and
/// never beyond the box: what is left over has no line at all.
void FilmPainter::paintLines(QPainter& p, const std::vector<Line>& lines, QRectF box, double least) {
    double em = layout_.em;
    while (em > least * layout_.em && heightOf(lines, em, box.width()) > box.height()) em *= 0.96;
    double y = box.top() + std::max(0.0, (box.height() - heightOf(lines, em, box.width())) / 2);
    for (const Line& line : lines) {
        if (&line != &lines.front()) y += line.before * em;
        p.setFont(fontOf(line, em));
        const QRectF room(box.left(), y, box.width(), box.bottom() - y);
        const QRectF needed = QFontMetricsF(p.font()).boundingRect(room, Qt::TextWordWrap, line.text);
        if (needed.height() > room.height() + 1) return;
        QColor colour = palette::chalk;
        if (line.faint) colour.setAlphaF(0.8f);
        p.setPen(colour);
        p.drawText(room, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, line.text);
        y += needed.height();
    }
}

void FilmPainter::card(const std::vector<std::vector<Line>>& columns) {
    constexpr double kSmallestOnCard = 0.8;
    last_.clear();
    words_.clear();
    over_.clear();
    changedRows_ = r_.height;
    QPainter p(&canvas_);
    p.setRenderHint(QPainter::Antialiasing);
    canvas_.fill(palette::moss);
    const double margin = 1.6 * kWordsMargin * r_.width, stripe = 0.012 * r_.height;
    p.fillRect(QRectF(0, r_.height - stripe, r_.width, stripe), palette::clay);
    const auto count = static_cast<double>(columns.size());
    const double width = (r_.width - (count + 1) * margin) / count;
    double x = margin;
    for (const auto& lines : columns) {
        paintLines(p, lines, QRectF(x, margin, width, r_.height - stripe - 2 * margin), kSmallestOnCard);
        x += width + margin;
    }
}

void FilmPainter::title() {
    card({{{said(r_.letter.greeting), 1.6, false, true},
           {said(msg("film.place-and-date", {{"place", r_.letter.from}, {"date", r_.review.date}})), 1},
           {said(r_.letter.about), 0.9, false, false, true, 0.2}}});
    paintMark();
}

/// On a light ground, as marks are drawn for paper.
void FilmPainter::paintMark() {
    const QImage mark = markImage(r_.letter.mark);
    if (mark.isNull()) return;
    const double air = 0.5 * layout_.em, margin = 1.6 * kWordsMargin * r_.width;
    const QSizeF size = markSize(mark, 2.6 * layout_.em);
    QPainter p(&canvas_);
    p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    p.setPen(Qt::NoPen);
    p.setBrush(palette::sheet);
    const QRectF plate(margin, margin / 2, size.width() + 2 * air, size.height() + 2 * air);
    p.drawRoundedRect(plate, air, air);
    p.drawImage(plate.adjusted(air, air, -air, -air), mark);
}

void FilmPainter::closing() {
    std::vector<Line> work, week;
    if (!r_.letter.corrections.empty()) work.push_back({said(msg("film.to-work-on")), 1.4, false, true});
    for (const LetterCorrection& c : r_.letter.corrections)
        work.push_back({said(c.title), 1, true, false, false, 0.25});
    if (!r_.letter.week.empty()) week.push_back({said(msg("letter.week")), 1.4, false, true, false, 0.8});
    for (const LetterWeekRow& row : r_.letter.week)
        week.push_back({said(msg("film.week-row", {{"days", row.days}, {"drill", row.what}})), 0.9, false,
                        false, false, 0.25});
    std::vector<Line>& last = week.empty() ? work : week;
    if (r_.letter.nextLookOn)
        last.push_back(
            {said(msg("film.next-look", {{"date", *r_.letter.nextLookOn}})), 0.9, false, false, true, 0.8});
    last.push_back({text(r_.letter.signature), 1, false, true, false, 0.6});
    if (layout_.upright || work.empty() || week.empty()) {
        work.insert(work.end(), week.begin(), week.end());
        week.clear();
    }
    week.empty() ? card({work}) : card({work, week});
}

void FilmPainter::paintMarks(QPainter& p, const ToldDelivery& told, std::int64_t frame,
                             const std::string& about, const MeasureGhost* ghost, const ViewTransform& view,
                             QRectF area) {
    paintScene(p,
               onlyTheMatter(sceneFor(told.marks, r_.playbook, told.assessment, frame, about, ghost, true)),
               view, area, r_.words, layout_.markUnit);
}

FilmPainter::Sign FilmPainter::signOf(const Message& when, QRectF area) const {
    const double air = 0.3 * layout_.em;
    const QFont font = textFont(0.9 * layout_.em, true);
    const QFontMetricsF metrics(font);
    const QString words = said(when);
    const QSizeF size = metrics.size(Qt::TextSingleLine, words);
    const auto even = [](double length) { return 2 * static_cast<int>(std::ceil(length / 2)); };
    const QPoint at(even(area.left() + air), even(area.top() + air));
    const int most = even(area.right() - air - at.x()) - 2; // never beyond the picture
    QImage image(std::max(2, std::min(even(size.width() + 2 * air), most)), even(size.height()),
                 QImage::Format_RGB32);
    image.fill(palette::casing);
    QPainter p(&image);
    p.setFont(font);
    p.setPen(palette::chalk);
    p.drawText(QRectF(image.rect()).adjusted(air, 0, -air, 0), Qt::AlignVCenter | Qt::AlignLeft,
               metrics.elidedText(words, Qt::ElideRight, image.width() - 2 * air));
    return {
        image,
        {planesOf(image.constBits(), static_cast<int>(image.bytesPerLine()), image.width(), image.height()),
         at}};
}

Result<std::int64_t> FilmPainter::otherFrame(const FilmSegment& segment, const ToldBeside& beside,
                                             std::int64_t frame) {
    const Stop& s = *segment.stop;
    auto together = together_.find(s.id);
    if (together == together_.end()) {
        auto own = timesOf(segment.delivery);
        if (!own) return own.error();
        auto other = frames_.timesOf(beside);
        if (!other) return other.error();
        together = together_
                       .emplace(s.id, Lockstep({std::move(*own), std::move(*other)},
                                               {s.beside->with, s.beside->frame}))
                       .first;
    }
    together->second.goToFrame(0, frame);
    return together->second.frame(1);
}

Status FilmPainter::paintOther(QPainter& p, const FilmSegment& segment, const ToldBeside& beside,
                               std::int64_t frame, bool marks) {
    auto other = otherFrame(segment, beside, frame);
    if (!other) return other.error();
    const QRectF area = layout_.halves[0];
    auto view = frames_.paint(p, beside, *other, area, false, {});
    if (!view) return view.error();
    if (marks)
        paintMarks(p, beside, *other, picturedMeasure(r_, beside, segment.stop->finding), nullptr, *view,
                   area);
    const Sign& then = signsOf(*segment.stop, beside)[0];
    p.drawImage(then.laid.at, then.image);
    return Done{};
}

Status FilmPainter::paintStop(QPainter& p, const FilmSegment& segment, std::int64_t frame,
                              const StageState* state) {
    const Stop& s = *segment.stop;
    const ToldDelivery& told = toldIn(r_, segment.delivery);
    const ToldBeside* beside = besideIn(r_, s);
    const QRectF area = beside ? layout_.halves[1] : layout_.picture;
    if (beside)
        if (auto painted = paintOther(p, segment, *beside, frame, state && state->marks); !painted)
            return painted;
    auto view = frames_.paint(p, told, frame, area, true, state ? state->part : std::nullopt);
    if (!view) return view.error();
    const std::string about = picturedMeasure(r_, told, s.finding);
    if (state && state->marks)
        paintMarks(p, told, frame, about, state->goal ? ghostIn(told, about) : nullptr, *view, area);
    if (state)
        for (const Drawn& drawn : state->drawn) paintDrawn(p, drawn, *view, layout_.markUnit);
    if (state && state->pointer) paintPointer(p, *state->pointer, *view, layout_.markUnit);
    if (beside) {
        const Sign& now = signsOf(s, *beside)[1];
        p.drawImage(now.laid.at, now.image);
    }
    return Done{};
}

void FilmPainter::paintWords(QPainter& p, const std::vector<Line>& lines) {
    p.setClipping(false);
    const double margin = kWordsMargin * r_.width, air = 0.25 * layout_.em;
    paintLines(p, lines, layout_.words.adjusted(margin, air, -margin, -air), kLeastEm);
}

std::vector<FilmPainter::Line> FilmPainter::movingWords(const FilmSegment& s) const {
    if (!s.stop) return {{said(wholeTitle(r_)), 1, true}};
    return {{said(asIs(s.stop->title)), 1, true}, {said(msg("film.slowed")), 0.9, false, false, true, 0.1}};
}

const FilmPainter::Signs& FilmPainter::signsOf(const Stop& stop, const ToldBeside& beside) {
    const auto [known, isNew] = signs_.try_emplace(stop.id);
    if (isNew)
        known->second = {signOf(beside.then, layout_.halves[0]), signOf(beside.now, layout_.halves[1])};
    return known->second;
}

/// Lays what moves over the canvas: the frame alone, or beside another day's with what each is; false where
/// it has to be painted.
Result<bool> FilmPainter::layMoving(const FilmSegment& s, std::int64_t frame) {
    std::vector<Laid> over;
    const ToldBeside* beside = s.stop ? besideIn(r_, *s.stop) : nullptr;
    if (beside) {
        auto other = otherFrame(s, *beside, frame);
        if (!other) return other.error();
        if (auto laid = frames_.lay(over, *beside, *other, layout_.halves[0], false); !laid || !*laid)
            return laid;
    }
    if (auto laid = frames_.lay(over, toldIn(r_, s.delivery), frame,
                                beside ? layout_.halves[1] : layout_.picture, true);
        !laid || !*laid)
        return laid;
    if (beside)
        for (const Sign& sign : signsOf(*s.stop, *beside)) {
            if (!sign.laid.planes) return false;
            over.push_back(sign.laid);
        }
    over_ = std::move(over);
    return true;
}

Status FilmPainter::moving(const FilmSegment& s, std::int64_t frame) {
    const std::string words = s.stop ? s.stop->id.value + "/moves" : "whole";
    const std::string signature = words + "/" + std::to_string(frame);
    if (signature == last_) return Done{};
    auto laid = layMoving(s, frame);
    if (!laid) return laid.error();
    last_ = signature;
    if (*laid && words == words_) return Done{};
    const bool standing = beginAbove(words);
    QPainter p(&canvas_);
    if (!*laid) {
        over_.clear();
        if (s.stop) {
            if (auto painted = paintStop(p, s, frame, nullptr); !painted) return painted;
        } else if (auto view = frames_.paint(p, toldIn(r_, s.delivery), frame, layout_.picture, true, {});
                   !view) {
            return view.error();
        }
    }
    if (!standing) paintWords(p, movingWords(s));
    return Done{};
}

bool FilmPainter::beginAbove(const std::string& words) {
    constexpr int kSeam = 4; // rows of ground under a picture, which its colour reaches into
    const bool standing = std::exchange(words_, words) == words;
    changedRows_ = standing
                       ? std::min(r_.height, 2 * ((static_cast<int>(layout_.picture.height()) + kSeam) / 2))
                       : r_.height;
    QPainter p(&canvas_);
    p.fillRect(QRectF(0, 0, r_.width, standing ? layout_.picture.height() : r_.height), palette::stage);
    return standing;
}

/// The stop's title, and its number: as a sentence where there is room for one.
std::vector<FilmPainter::Line> FilmPainter::linesOf(const Stop& s, const Assessment& a) const {
    const Message title =
        s.kind == StopKind::Strength ? msg("film.keep", {{"what", s.title}}) : asIs(s.title);
    std::vector<Line> lines = {{said(title), 1, true}};
    const auto prompt = r_.prompts.find(s.id);
    const MeasureRow* row = a.measure(s.finding);
    if (const ToldBeside* beside = besideIn(r_, s)) {
        if (layout_.upright)
            for (const Message& change : beside->changes)
                lines.push_back({said(change), 0.9, false, false, false, 0.3});
        else if (!beside->shortly.empty())
            lines.push_back({said(beside->shortly), 0.9, false, false, false, 0.1});
    } else if (layout_.upright && prompt != r_.prompts.end() && !prompt->second.number.empty()) {
        lines.push_back({said(prompt->second.number), 0.9, false, false, false, 0.3});
    } else if (row && row->value.value) {
        const MeasureRow seen = asFamilySees(*row);
        const Message target = wordsOf(seen.target), number = labelOf(seen.value);
        lines.push_back(
            {said(target.empty() ? number
                                 : msg("film.number-target", {{"number", number}, {"target", target}})),
             0.9, false, false, false, 0.1});
    }
    return lines;
}

Status FilmPainter::said(const FilmSegment& segment, std::int64_t sample, const std::string& caption) {
    const Stop& s = *segment.stop;
    const StageState state = replay_.at(s, *segment.take, sample, toldIn(r_, s.delivery).marks);
    const std::string signature = signatureOf(s, state, caption);
    if (signature == last_) return Done{};
    over_.clear();
    const bool standing = beginAbove(caption.empty() ? s.id.value : "caption/" + caption);
    QPainter p(&canvas_);
    if (auto painted = paintStop(p, segment, state.frame, &state); !painted) return painted;
    if (!standing && caption.empty())
        paintWords(p, linesOf(s, toldIn(r_, s.delivery).assessment));
    else if (!standing)
        paintWords(p, {{text(caption), 1}});
    last_ = signature;
    return Done{};
}

} // namespace jg
