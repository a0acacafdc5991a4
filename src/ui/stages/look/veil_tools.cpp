// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/look/veil_tools.h"

#include "base/caught.h"
#include "desk/jobs/job.h"
#include "desk/session/hide_person.h"
#include "letter/veils.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/theme.h"

#include <QPainter>

#include <cmath>

namespace jg::ui {

void VeilTools::hide() {
    if (following_) return following_->cancel();
    if (drawing_) return stopDrawing(), c_.say(say("veil-tools.not-drawn"));
    if (c_.session.review().sent) return c_.say(say("veil-tools.sent"));
    drawing_ = true;
    box_.reset();
    c_.playhead.pause();
    c_.say(say("veil-tools.draw"));
}

void VeilTools::stopDrawing() {
    drawing_ = false;
    box_.reset();
    c_.stage.update();
}

void VeilTools::showAgain() {
    const Veils& veils = c_.session.delivery().veils;
    if (veils.empty()) return c_.say(say("veil-tools.nobody"));
    QStringList options;
    std::vector<std::string> ids;
    for (const auto& [id, veil] : veils) {
        ids.push_back(id);
        options << say("veil-tools.person", {{"number", ids.size()},
                                             {"first", veil.boxes.begin()->first},
                                             {"last", veil.boxes.rbegin()->first}});
    }
    askChoice(parent_, {"show-again", say("veil-tools.whom"), {}, options, ""},
              [this, ids, number = c_.session.delivery().number](const ChoiceAnswer& answer) {
                  const Status shown = c_.session.perform({msg("veil-tools.show-again"),
                                                           {SetVeil{ids.at(*answer.option), std::nullopt}},
                                                           number});
                  c_.say(shown ? say("veil-tools.shown") : say(shown.error().text));
              });
}

bool VeilTools::press(ImagePoint at, double) {
    if (!drawing_) return false;
    box_ = PictureBox{at, at};
    return true;
}

void VeilTools::drag(ImagePoint at) {
    if (box_) box_->to = at;
}

void VeilTools::release(ImagePoint at) {
    if (!box_) return;
    const PictureBox box{box_->from, at};
    stopDrawing();
    follow(box);
}

void VeilTools::follow(PictureBox box) {
    auto plan = hidePlan(c_.session, c_.stage.shownFrame(), box);
    if (!plan) return c_.say(say(plan.error().text));
    c_.say(say("veil-tools.following", {{"part", 0}}));
    following_ = new Job(parent_, [this, plan = *std::move(plan), to = c_.session.delivery().number](
                                      std::stop_token stop, const Job::Progress& progress) {
        auto veil = caught([&] { return followVeil(plan, stop, progress); });
        return Job::Continuation([this, veil = std::move(veil), id = plan.id, to] {
            following_ = nullptr;
            if (!veil) return c_.say(say(veil.error().text));
            const Status done =
                c_.session.perform({msg("veil-tools.hide-somebody"), {SetVeil{id, *veil}}, to});
            c_.say(done ? say(wordsOf(*veil)) : say(done.error().text));
            if (done && !veil->asks.empty() && c_.session.delivery().number == to)
                c_.playhead.step(veil->asks.front() - c_.playhead.frame());
        });
    });
    QObject::connect(following_, &Job::progressed, parent_, [this](double part) {
        c_.say(say("veil-tools.following", {{"part", std::lround(part * 100)}}));
    });
}

void VeilTools::paintOver(QPainter& p, const ViewTransform& view) {
    p.setBrush(Qt::NoBrush);
    const auto outline = [&](const PictureBox& b, Qt::PenStyle style) {
        const QRectF box = QRectF(view.toView(b.from), view.toView(b.to)).normalized();
        for (const bool casing : {true, false}) {
            p.setPen(QPen(casing ? palette::casing : palette::chalk, casing ? 3.6 : 1.6, style));
            p.drawRect(box);
        }
    };
    for (const auto& [id, veil] : c_.session.delivery().veils)
        outline(boxOn(veil, c_.stage.shownFrame()), Qt::DashLine);
    if (box_) outline(*box_, Qt::SolidLine);
}

} // namespace jg::ui
