// SPDX-License-Identifier: GPL-3.0-or-later
// The window's doors from a page to elsewhere: a film at a frame, the sheet, bundles, deleting an athlete.
#include "ui/places/athletes/athletes_place.h"

#include "desk/keeping/class_look.h"
#include "ui/forms/kept_words.h"
#include "ui/kit/file_choice.h"
#include "ui/places/athletes/roster_dialog.h"
#include "ui/places/juxta/juxta_place.h"
#include "ui/places/juxta/sheet_view.h"
#include "ui/places/keep/keep_jobs.h"
#include "ui/window/main_window.h"

namespace jg::ui {

void MainWindow::openReviewAt(const LogDot& dot) {
    openReview(dot.submission);
    if (!review_ || !dot.frame) return;
    review_->session().takeInHand(dot.delivery);
    review_->playhead().startAt(*dot.frame);
}

void MainWindow::openJuxta(const AthleteId& athlete) {
    const auto reviews = parts_.library->reviewsOf(athlete);
    if (!reviews) return foot_->tell(say(reviews.error().text), 0);
    std::vector<JuxtaKey> rows;
    for (const ReviewOfAthlete& r : *reviews)
        if (!r.submission.clips.empty()) rows.push_back({r.summary.id});
    if (rows.size() < 2) return foot_->tell(say("athletes-place.juxta-one"));
    if (rows.size() > kMostJuxtaRows) rows.erase(rows.begin(), rows.end() - kMostJuxtaRows); // the newest
    leaveJuxta();
    juxta_ = new JuxtaPlace(
        std::move(rows), athlete,
        {*parts_.library, parts_.playbook, *parts_.clock, ids_,
         [this](unsigned where) { actions_->setWhere(where); }, [this](const QString& id) { run(id); },
         [this] {
             leaveJuxta();
             refreshHome();
         },
         keeperOf, [this](std::unique_ptr<ReviewKeeper> keeper) { park(std::move(keeper)); }});
    whole_->addWidget(juxta_);
    whole_->setCurrentWidget(juxta_);
    juxta_->sheet().setFocus();
}

void MainWindow::leaveJuxta() {
    if (!juxta_) return;
    whole_->removeWidget(juxta_);
    juxta_->deleteLater();
    juxta_ = nullptr;
    whole_->setCurrentIndex(0);
    actions_->setWhere(AtHome);
    places_->currentWidget()->setFocus();
}

std::function<void(const QString&, bool)> MainWindow::tellKeep() {
    return [this](const QString& sentence, bool stays) { foot_->tell(sentence, stays ? 0 : 6); };
}

void MainWindow::takeInRoster(const QString& file) {
    if (const Status may = parts_.library->mayWrite(); !may) return foot_->tell(say(may.error().text), 0);
    askRoster(this, *parts_.library, file, parts_.clock->today(), [this](const QString& sentence) {
        foot_->tell(sentence, 0);
        refreshHome();
    });
}

void MainWindow::connectKeeping() {
    connect(athletes_, &AthletesPlace::rosterAsked, this, [this] {
        const QString file = fileToOpen(this, say("roster-dialog.title"), "CSV (*.csv)");
        if (!file.isEmpty()) takeInRoster(file);
    });
    connect(athletes_, &AthletesPlace::bundleAsked, this,
            [this](const AthleteId& athlete) { saveBundle(this, *parts_.library, athlete, tellKeep()); });
    connect(athletes_, &AthletesPlace::numbersAsked, this, [this](const AthleteId& athlete) {
        saveNumbers(this, *parts_.library, parts_.playbook, athlete, tellKeep());
    });
    connect(athletes_, &AthletesPlace::seasonAsked, this, [this](const AthleteId& athlete) {
        saveSeason(this, *parts_.library, parts_.playbook, athlete, parts_.clock->today(), tellKeep());
    });
    connect(athletes_, &AthletesPlace::forgetAsked, this, [this](const AthleteId& athlete) {
        if (const Status may = parts_.library->mayWrite(); !may) return foot_->tell(say(may.error().text), 0);
        askToForget(this, *parts_.library, athlete, parts_.clock->today(), tellKeep(),
                    [this] { refreshHome(); });
    });
}

void MainWindow::toggleNames() {
    if (!parked_.empty()) return foot_->tell(say("main-window.names-wait"));
    if (namesAreHidden()) {
        parts_.library->lookOnly(false).ok(); // ending it always succeeds
        hideNames(nullptr);
    } else {
        auto veil = veilOfLibrary(*parts_.library, windowWords());
        if (!veil) return foot_->tell(say(veil.error().text), 0);
        if (const Status only = parts_.library->lookOnly(true); !only)
            return foot_->tell(say(only.error().text), 0);
        hideNames(std::make_shared<const NameVeil>(*std::move(veil)));
    }
    refreshHome();
    foot_->setKept(keptWords(*parts_.library));
    foot_->tell(say(namesAreHidden() ? "main-window.names-out-of-sight" : "main-window.names-shown"), 8);
}

} // namespace jg::ui
