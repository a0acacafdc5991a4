// SPDX-License-Identifier: GPL-3.0-or-later
// Backup, bundles and deleting an athlete from the window: each asks, works beside it, and tells how it
// ended.
#pragma once

#include "library/library.h"

#include <QString>

#include <functional>
#include <optional>

class QWidget;

namespace jg::ui {

/// Says how it stands and how it ended; `keep` = the sentence stays.
using TellKeep = std::function<void(const QString& sentence, bool keep)>;

/// Copies what is new to a folder, and reads the copy again.
void backUpTo(QWidget* parent, Library& library, const QString& folder, std::int64_t nowUnix,
              const TellKeep& tell);

/// Asks where to and writes an athlete's bundle.
void saveBundle(QWidget* parent, Library& library, const AthleteId& athlete, const TellKeep& tell);
void saveBundleTo(QWidget* parent, Library& library, const AthleteId& athlete, const QString& path,
                  const TellKeep& tell);

/// Asks where to and writes all of an athlete's numbers as one long table.
void saveNumbers(QWidget* parent, Library& library, const Playbook& playbook, const AthleteId& athlete,
                 const TellKeep& tell);
void saveNumbersTo(QWidget* parent, Library& library, const Playbook& playbook, const AthleteId& athlete,
                   const QString& path, const TellKeep& tell);

/// Asks where to and writes an athlete's season page.
void saveSeason(QWidget* parent, Library& library, const Playbook& playbook, const AthleteId& athlete,
                Date today, const TellKeep& tell);
void saveSeasonTo(QWidget* parent, Library& library, const Playbook& playbook, const AthleteId& athlete,
                  Date today, const QString& path, const TellKeep& tell);

/// Takes a bundle in; `then` once it is done.
void takeInBundle(QWidget* parent, Library& library, const QString& path, Date today, const TellKeep& tell,
                  const std::function<void()>& then);

/// Says what would go, asks for the name to be typed, and deletes the athlete whole.
void askToForget(QWidget* parent, Library& library, const AthleteId& athlete, Date today,
                 const TellKeep& tell, const std::function<void()>& then);

} // namespace jg::ui
