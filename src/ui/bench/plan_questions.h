// SPDX-License-Identifier: GPL-3.0-or-later
// What is asked about a plan: causes, why not yet, drills, days and gear, strengths, a promise.
#pragma once

#include "coaching/hypotheses.h"
#include "coaching/week.h"
#include "review/record/people.h"
#include "review/tell/plan_rules.h"

#include <QString>

#include <functional>
#include <string>
#include <vector>

class QWidget;

namespace jg::ui {

/// What may have caused a finding, with what speaks for each and what would tell; each is agreed to, refused
/// or left open, and one of the coach's own can be added.
void askCauses(QWidget* parent, const Playbook& playbook, const std::string& finding, const QString& title,
               const std::vector<Finding>& findings, const Known& known,
               const std::vector<CauseChoice>& choices,
               const std::function<void(const std::vector<CauseChoice>&)>& then);

/// Why a correction is not there yet: the coach's word, or screens passed and failed.
void askWhyNot(QWidget* parent, const Playbook& playbook, const WhyNot& known, const QString& title,
               const std::function<void(const WhyNot&)>& then);

/// Which drills a correction gets, with what each is for and why one may not be given. `write` opens a new
/// drill of the coach's own.
void chooseDrills(QWidget* parent, const std::vector<DrillOffer>& offers,
                  const std::vector<std::string>& chosen, const QString& title,
                  const std::function<void()>& write,
                  const std::function<void(const std::vector<std::string>&)>& then);

/// Free days, days with a game, season, whether to throw, and what is not there.
void askCircumstances(QWidget* parent, const Playbook& playbook, const Circumstances& at,
                      const std::function<void(const Circumstances&)>& then);

/// Which strengths the letter names, at most `most`.
void chooseKeeps(QWidget* parent, const Playbook& playbook, const std::vector<std::string>& strengths,
                 const std::vector<std::string>& chosen, std::size_t most,
                 const std::function<void(const std::vector<std::string>&)>& then);

/// A promise: what, who owes it, and by when.
void askPromise(QWidget* parent, const Promise& begun, Date today,
                const std::function<void(const Promise&)>& then);

} // namespace jg::ui
