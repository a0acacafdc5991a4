// SPDX-License-Identifier: GPL-3.0-or-later
// The card for a second person: what is missing, and what was said last, large enough to read back.
#pragma once

#include "desk/session/review_session.h"
#include "ui/kit/row_list.h"

#include <QDialog>

class QLabel;

namespace jg::ui {

/// A window beside the review's that follows it: open rows left, judged rows right, the newest judgement
/// above. Nothing is changed in it. The session outlives it.
class CardReader : public QDialog {
    Q_OBJECT
public:
    CardReader(ReviewSession& session, QWidget* parent);

private:
    void refresh();
    void readBack(const std::vector<std::pair<QString, QString>>& judged);

    ReviewSession& session_;
    QLabel *last_, *openTitle_;
    RowList *open_, *judged_;
    std::vector<std::pair<QString, QString>> before_; ///< name and verdict word
};

} // namespace jg::ui
