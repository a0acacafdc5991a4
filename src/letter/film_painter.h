// SPDX-License-Identifier: GPL-3.0-or-later
// The pictures of the narrated film. Inside the letter room only.
#pragma once

#include "letter/film_frames.h"
#include "letter/film_plan.h"
#include "review/record/replay.h"

#include <QImage>

#include <array>
#include <map>
#include <string>
#include <vector>

namespace jg {

/// Paints cards and frames onto one canvas. A picture that has not changed is painted once. One thread owns
/// it; the recipe must outlive it.
class FilmPainter {
public:
    explicit FilmPainter(const FilmRecipe& recipe);

    const QImage& canvas() const { return canvas_; }
    /// What lies over the canvas, the last one uppermost: frames that needed no painting.
    const std::vector<Laid>& over() const { return over_; }
    /// So many rows of the canvas differ at most from what it was before the last change.
    int changedRows() const { return changedRows_; }
    /// True times of a delivery's film. Errors: those of opening it.
    Result<FrameTimes> timesOf(int delivery);

    void title();
    void closing();
    /// A frame without marks, with a line of words. Errors: those of Reader.
    Status moving(const FilmSegment& segment, std::int64_t frame);
    /// A stop at a sample of its take; `caption` is said there, empty = not shown. Errors: those of Reader.
    Status said(const FilmSegment& segment, std::int64_t sample, const std::string& caption);

private:
    /// A small picture with words, to be painted or laid over the canvas.
    struct Sign {
        QImage image;
        Laid laid; ///< its planes are null where there is no memory
    };
    using Signs = std::array<Sign, 2>; ///< as FilmLayout::halves
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
    /// A stop's frame with what is told on it, alone or beside another day's; `state` null = without marks.
    Status paintStop(QPainter& p, const FilmSegment& segment, std::int64_t frame, const StageState* state);
    Status paintOther(QPainter& p, const FilmSegment& segment, const ToldBeside& beside, std::int64_t frame,
                      bool marks);
    void paintMarks(QPainter& p, const ToldDelivery& told, std::int64_t frame, const std::string& about,
                    const MeasureGhost* ghost, const ViewTransform& view, QRectF area);
    /// Whose or when, in a corner of one of two pictures.
    Sign signOf(const Message& when, QRectF area) const;
    /// Those of a stop, made once.
    const Signs& signsOf(const Stop& stop, const ToldBeside& beside);
    Result<bool> layMoving(const FilmSegment& segment, std::int64_t frame);
    /// The frame of the other delivery that goes with one of the stop's own. Errors: those of opening films.
    Result<std::int64_t> otherFrame(const FilmSegment& segment, const ToldBeside& beside, std::int64_t frame);
    void paintMark();
    void paintWords(QPainter& p, const std::vector<Line>& lines);
    /// Ground for a picture above words; true where these words stand there already.
    bool beginAbove(const std::string& words);
    std::vector<Line> movingWords(const FilmSegment& segment) const;
    std::vector<Line> linesOf(const Stop& stop, const Assessment& a) const;
    QString said(const Message& message) const;

    const FilmRecipe& r_;
    FilmLayout layout_;
    FilmFrames frames_;
    std::map<StopId, Lockstep> together_; ///< of stops with another day's delivery beside them
    std::map<StopId, Signs> signs_;
    QImage canvas_;
    std::vector<Laid> over_;
    int changedRows_ = 0;
    std::string words_; ///< which words stand on the canvas, with nothing painted above them
    TakeReplay replay_; ///< of the stop that is said
    std::string last_;  ///< what is seen
};

} // namespace jg
