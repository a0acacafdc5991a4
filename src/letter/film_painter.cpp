#include "letter/film_painter.h"

#include "film/true_time.h"
#include "letter/fonts.h"
#include "letter/house_mark.h"
#include "letter/mark_scene.h"
#include "letter/palette.h"
#include "letter/qt_text.h"
#include "letter/still.h"
#include "letter/veils.h"
#include "review/letter_model.h"
#include "review/lockstep.h"
#include "review/told_number.h"

#include <QFontMetricsF>
#include <QPainter>

#include <cmath>

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

/// The whole pixels that lie in a rectangle, from an even place on and even in number.
QRect evenPixelsWithin(QRectF r) {
    constexpr double kRounding = 1e-6;
    const auto first = [](double v) { return 2 * static_cast<int>(std::ceil(v / 2 - kRounding)); };
    const auto end = [](double v) { return 2 * static_cast<int>(std::floor(v / 2 + kRounding)); };
    const QPoint from(first(r.left()), first(r.top()));
    return {from, QSize(end(r.right()) - from.x(), end(r.bottom()) - from.y())};
}

} // namespace

FilmPainter::FilmPainter(const FilmRecipe& recipe)
    : r_(recipe)
    , layout_(layOutFilm(QSize(recipe.width, recipe.height)))
    , canvas_(recipe.width, recipe.height, QImage::Format_RGB32) {}

QString FilmPainter::said(const Message& message) const {
    return text(r_.words(message));
}

Result<FrameTimes> FilmPainter::timesOf(int delivery) {
    return timesOf(toldIn(r_, delivery));
}

Result<FrameTimes> FilmPainter::timesOf(const ToldDelivery& told) {
    const std::pair key(told.clip, told.captureFps);
    if (const auto known = times_.find(key); known != times_.end()) return known->second;
    auto reader = films_.of(told.clip);
    if (!reader) return reader.error();
    return times_[key] = trueSeconds((*reader)->info(), told.captureFps);
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
    uncover();
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

FilmPainter::Placed FilmPainter::placed(const ToldDelivery& told, QSizeF size, QRectF area, bool own,
                                        const std::optional<PictureBox>& lookedAt) const {
    const QRectF part = lookedAt ? inShape(rectOf(*lookedAt), size, area.size())
                                 : athletePart(told.marks, own ? &r_.review : nullptr, size, area.size());
    const double scale = area.width() / part.width();
    const ViewTransform view{scale, area.topLeft() - part.topLeft() * scale};
    const QRect shown = evenPixelsWithin(QRectF(view.offset, size * scale) & area);
    const ImagePoint from = view.toImage(shown.topLeft());
    return {view, shown, {from.x, from.y, shown.width() / scale, shown.height() / scale}};
}

Result<ViewTransform> FilmPainter::paintFrame(QPainter& p, const ToldDelivery& told, std::int64_t frame,
                                              QRectF area, bool own,
                                              const std::optional<PictureBox>& lookedAt) {
    auto reader = films_.of(told.clip);
    if (!reader) return reader.error();
    const QSizeF size((*reader)->info().width, (*reader)->info().height);
    const auto [view, shown, part] = placed(told, size, area, own, lookedAt);
    p.setClipRect(area);
    if (shown.isEmpty()) return view;
    const int stride = static_cast<int>(canvas_.bytesPerLine());
    const PictureRoom room{canvas_.bits() + std::ptrdiff_t{shown.top()} * stride +
                               std::ptrdiff_t{4} * shown.left(),
                           stride, shown.width(), shown.height()};
    if (auto written = (*reader)->part(FrameNumber{frame}, part, room); !written) return written.error();
    if (!told.marks.veils.empty()) {
        QImage image(room.bgrx, room.width, room.height, stride, QImage::Format_RGB32);
        const QPointF offset = view.offset - shown.topLeft();
        paintVeils(image, told.marks.veils, frame,
                   QTransform(view.scale, 0, 0, view.scale, offset.x(), offset.y()));
    }
    return view;
}

Result<bool> FilmPainter::layOver(const ToldDelivery& told, std::int64_t frame) {
    if (!told.marks.veils.empty()) return false;
    auto reader = films_.of(told.clip);
    if (!reader) return reader.error();
    const QSizeF size((*reader)->info().width, (*reader)->info().height);
    const auto [view, shown, part] = placed(told, size, layout_.picture, true, {});
    if (shown.isEmpty()) return false;
    auto planes = (*reader)->planes(FrameNumber{frame}, part, shown.width(), shown.height());
    if (!planes) return planes.error();
    if (!*planes) return false;
    over_ = {std::move(*planes), shown.topLeft()};
    return true;
}

void FilmPainter::paintMarks(QPainter& p, const ToldDelivery& told, std::int64_t frame,
                             const std::string& about, const MeasureGhost* ghost, const ViewTransform& view,
                             QRectF area) {
    paintScene(p, onlyTheMatter(sceneFor(told.marks, r_.playbook, told.assessment, frame, about, ghost)),
               view, area, r_.words, layout_.markUnit);
}

void FilmPainter::paintWhen(QPainter& p, const Message& when, QRectF area) {
    const double air = 0.3 * layout_.em;
    p.setClipRect(area);
    p.setFont(textFont(0.9 * layout_.em, true));
    const QString words = said(when);
    const QSizeF size = QFontMetricsF(p.font()).size(Qt::TextSingleLine, words);
    const QRectF box(area.topLeft() + QPointF(air, air),
                     QSizeF(std::min(size.width() + 2 * air, area.width() - 2 * air), size.height()));
    QColor under = palette::casing;
    under.setAlphaF(0.8f);
    p.fillRect(box, under);
    p.setPen(palette::chalk);
    p.drawText(box.adjusted(air, 0, -air, 0), Qt::AlignVCenter | Qt::AlignLeft,
               QFontMetricsF(p.font()).elidedText(words, Qt::ElideRight, box.width() - 2 * air));
}

Result<std::int64_t> FilmPainter::otherFrame(const FilmSegment& segment, const ToldBeside& beside,
                                             std::int64_t frame) {
    const Stop& s = *segment.stop;
    auto together = together_.find(s.id);
    if (together == together_.end()) {
        auto own = timesOf(segment.delivery);
        if (!own) return own.error();
        auto other = timesOf(beside);
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
    auto view = paintFrame(p, beside, *other, area, false);
    if (!view) return view.error();
    if (marks)
        paintMarks(p, beside, *other, picturedMeasure(r_, beside, segment.stop->finding), nullptr, *view,
                   area);
    paintWhen(p, beside.then, area);
    return Done{};
}

Status FilmPainter::paintStop(QPainter& p, const FilmSegment& segment, std::int64_t frame,
                              const StageState* state) {
    const Stop& s = *segment.stop;
    const ToldDelivery& told = toldIn(r_, segment.delivery);
    const ToldBeside* beside = besideIn(r_, s);
    const QRectF area = beside ? layout_.halves[1] : layout_.picture;
    canvas_.fill(palette::stage);
    if (beside)
        if (auto painted = paintOther(p, segment, *beside, frame, state && state->marks); !painted)
            return painted;
    auto view = paintFrame(p, told, frame, area, true, state ? state->part : std::nullopt);
    if (!view) return view.error();
    const std::string about = picturedMeasure(r_, told, s.finding);
    if (state && state->marks)
        paintMarks(p, told, frame, about, state->goal ? ghostIn(told, about) : nullptr, *view, area);
    if (state)
        for (const Drawn& drawn : state->drawn) paintDrawn(p, drawn, *view, layout_.markUnit);
    if (state && state->pointer) paintPointer(p, *state->pointer, *view, layout_.markUnit);
    if (beside) paintWhen(p, beside->now, area);
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

Status FilmPainter::moving(const FilmSegment& s, std::int64_t frame) {
    const std::string under = s.stop ? s.stop->id.value + "/moves/" : "whole/";
    const std::string signature = under + std::to_string(frame);
    if (signature == last_) return Done{};
    const ToldDelivery& told = toldIn(r_, s.delivery);
    const bool alone = !s.stop || !besideIn(r_, *s.stop);
    auto laid = alone ? layOver(told, frame) : Result<bool>(false);
    if (!laid) return laid.error();
    last_ = signature;
    if (*laid && under == under_) return Done{};
    QPainter p(&canvas_);
    canvas_.fill(palette::stage);
    if (*laid) {
        under_ = under;
    } else {
        uncover();
        if (s.stop) {
            if (auto painted = paintStop(p, s, frame, nullptr); !painted) return painted;
        } else if (auto view = paintFrame(p, told, frame, layout_.picture); !view) {
            return view.error();
        }
    }
    paintWords(p, movingWords(s));
    return Done{};
}

void FilmPainter::uncover() {
    over_ = {};
    under_.clear();
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
        const Message target = wordsOf(asTold(row->target)), number = labelOf(asTold(row->value));
        lines.push_back(
            {said(target.empty() ? number
                                 : msg("film.number-target", {{"number", number}, {"target", target}})),
             0.9, false, false, false, 0.1});
    }
    return lines;
}

Status FilmPainter::said(const FilmSegment& segment, std::int64_t sample, const std::string& caption) {
    const Stop& s = *segment.stop;
    const StageState state = stateAt(s, *segment.take, sample, toldIn(r_, s.delivery).marks);
    const std::string signature = signatureOf(s, state, caption);
    if (signature == last_) return Done{};
    uncover();
    QPainter p(&canvas_);
    if (auto painted = paintStop(p, segment, state.frame, &state); !painted) return painted;
    if (caption.empty())
        paintWords(p, linesOf(s, toldIn(r_, s.delivery).assessment));
    else
        paintWords(p, {{text(caption), 1}});
    last_ = signature;
    return Done{};
}

} // namespace jg
