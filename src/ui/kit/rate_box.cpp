// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/rate_box.h"

#include "base/number.h"
#include "ui/kit/words.h"

namespace jg::ui {

namespace {
constexpr double kRates[] = {30, 60, 120, 240, 480, 960}; // what phones and cameras offer; any other is typed
constexpr double kLeast = 10, kMost = 2000;               // own choice: beyond them it is a slip of the hand

QString words(double fps) {
    return say("rate-box.fps-a-second", {{"fps", significant(fps, 6)}});
}
} // namespace

RateBox::RateBox(const QString& fromFile, QWidget* parent)
    : QComboBox(parent) {
    setEditable(true);
    setInsertPolicy(QComboBox::NoInsert);
    setAccessibleName(say("rate-box.pictures-a-second"));
    setToolTip(say("rate-box.hint"));
    addItem(fromFile);
    for (const double r : kRates) addItem(words(r));
}

void RateBox::setRate(double fps) {
    if (fps <= 0) return setCurrentIndex(0);
    const int known = findText(words(fps));
    if (known >= 0) return setCurrentIndex(known);
    setCurrentText(words(fps));
}

Result<double> RateBox::rate() const {
    QString typed = currentText().trimmed();
    if (typed.isEmpty() || typed == itemText(0)) return 0.0;
    if (typed.endsWith("a second")) typed.chop(8);
    const auto fps = typedNumber(typed.toStdString());
    if (!fps || *fps < kLeast || *fps > kMost)
        return fail(ErrorCode::BadInput,
                    msg("rate-box.no-rate", {{"currentText", currentText().toStdString()}}));
    return *fps;
}

} // namespace jg::ui
