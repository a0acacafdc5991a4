// The pictures of the narrated film. Inside the letter room only.
#pragma once

#include "film/open_films.h"
#include "letter/film_plan.h"
#include "letter/mark_painter.h"
#include "letter/narrated_film.h"
#include "review/replay.h"

#include <QImage>

#include <map>
#include <string>
#include <utility>

namespace jg {

/// Paints cards and frames onto one canvas. A picture that has not changed is painted once. One thread owns
/// it; the recipe must outlive it.
class FilmPainter {
public:
    explicit FilmPainter(const FilmRecipe& recipe);

    const QImage& canvas() const { return canvas_; }
    /// What lies over the canvas: a frame that needed no painting.
    struct Over {
        FrameHandle planes; ///< null = nothing
        QPoint at;
    };
    const Over& over() const { return over_; }
    /// True times of a delivery's film. Errors: those of opening it.
    Result<FrameTimes> timesOf(int delivery);

    void title();
    void closing();
    /// A frame without marks, with a line of words. Errors: those of Reader.
    Status moving(const FilmSegment& segment, std::int64_t frame);
    /// A stop at a sample of its take; `caption` is said there, empty = not shown. Errors: those of Reader.
    Status said(const FilmSegment& segment, std::int64_t sample, const std::string& caption);

private:
    /// Words of a card or under a picture.
    struct Line {
        QString text;
        double ems = 1;
        bool bold = false, heading = false, faint = false;
        double before = 0.4; ///< ems of room above it
    };
    QFont fontOf(const Line& line, double em) const;
    double heightOf(const std::vector<Line>& lines, double em, double width) const;
    void paintLines(QPainter& p, const std::vector<Line>& lines, QRectF box, double least);
    /// Lines in columns beside each other.
    void card(const std::vector<std::vector<Line>>& columns);
    /// A frame of a delivery into an area, cut to the athlete or to what is looked at; `own` = this review's.
    Result<ViewTransform> paintFrame(QPainter& p, const ToldDelivery& told, std::int64_t frame, QRectF area,
                                     bool own = true, const std::optional<PictureBox>& lookedAt = {});
    /// A stop's frame with what is told on it, alone or beside another day's; `state` null = without marks.
    Status paintStop(QPainter& p, const FilmSegment& segment, std::int64_t frame, const StageState* state);
    Status paintOther(QPainter& p, const FilmSegment& segment, const ToldBeside& beside, std::int64_t frame,
                      bool marks);
    /// Where a frame lies in an area, and what of it is seen there.
    struct Placed {
        ViewTransform view;
        QRect shown; ///< whole pixels, even in place and size as films need it
        PicturePart part;
    };
    Placed placed(const ToldDelivery& told, QSizeF size, QRectF area, bool own,
                  const std::optional<PictureBox>& lookedAt) const;
    /// A frame on which nothing is told, over the canvas; false where it has to be painted. Errors: those of
    /// Reader.
    Result<bool> layOver(const ToldDelivery& told, std::int64_t frame);
    void paintMarks(QPainter& p, const ToldDelivery& told, std::int64_t frame, const std::string& about,
                    const MeasureGhost* ghost, const ViewTransform& view, QRectF area);
    /// Whose or when, in a corner of one of two pictures.
    void paintWhen(QPainter& p, const Message& when, QRectF area);
    /// The frame of the other delivery that goes with one of the stop's own. Errors: those of opening films.
    Result<std::int64_t> otherFrame(const FilmSegment& segment, const ToldBeside& beside, std::int64_t frame);
    Result<FrameTimes> timesOf(const ToldDelivery& told);
    void paintMark();
    void paintWords(QPainter& p, const std::vector<Line>& lines);
    void uncover();
    std::vector<Line> movingWords(const FilmSegment& segment) const;
    std::vector<Line> linesOf(const Stop& stop, const Assessment& a) const;
    QString said(const Message& message) const;

    const FilmRecipe& r_;
    FilmLayout layout_;
    OpenFilms films_;
    std::map<std::pair<std::filesystem::path, double>, FrameTimes> times_; ///< by film and capture rate
    std::map<StopId, Lockstep> together_; ///< of stops with another day's delivery beside them
    QImage canvas_;
    Over over_;
    std::string under_; ///< which words stand on the canvas under what lies over it
    std::string last_;  ///< what is seen
};

} // namespace jg
