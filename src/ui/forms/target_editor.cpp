// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/number.h"
#include "coaching/typed_target.h"
#include "kinematics/answers.h"
#include "ui/forms/row_editors.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QSpinBox>

#include <algorithm>

namespace jg::ui {

namespace {

QString asTyped(double value) {
    constexpr int kDigits = 6;
    return text(significant(value, kDigits));
}

constexpr TargetType kNumberTypes[] = {TargetType::AtLeast, TargetType::AtMost, TargetType::Band,
                                       TargetType::Record};

/// What the form's fields of a number say.
struct NumberFields {
    QComboBox* type;
    QLineEdit *x, *y, *good, *soft;
};

NumberFields numberFields(FormDialog& d, const Target& t) {
    const auto type = std::find(std::begin(kNumberTypes), std::end(kNumberTypes), t.type);
    const int chosen = type == std::end(kNumberTypes) ? 3 : static_cast<int>(type - std::begin(kNumberTypes));
    const bool asks = !t.asksNothing();
    return {d.choice("target-type", say("target-editor.asks"),
                     {say("target-editor.at-least"), say("target-editor.at-most"),
                      say("target-editor.between"), say("playbook-place.record-only")},
                     chosen),
            d.line("target-x", say("target-editor.number", {{"unit", t.unit}}), asks ? asTyped(t.x) : ""),
            d.line("target-y", say("target-editor.upper-number"),
                   t.type == TargetType::Band ? asTyped(t.y) : "", say("target-editor.of-a-band-only")),
            d.line("target-good", say("target-editor.good"), t.good ? asTyped(*t.good) : "",
                   say("target-editor.may-stay-empty")),
            d.line("target-soft", say("target-editor.soft"), asks ? asTyped(t.soft) : "",
                   say("target-editor.a-tenth"))};
}

/// Puts a number that was typed into `into`. False when it is none.
bool readNumber(const QLineEdit* field, double& into) {
    const auto value = typedNumber(field->text().trimmed().toStdString());
    if (value) into = *value;
    return value.has_value();
}

std::optional<QString> readNumbers(const NumberFields& f, const MeasureDefinition& m, Target& t) {
    t.type = kNumberTypes[f.type->currentIndex()];
    t.x = t.y = t.soft = 0;
    t.good.reset();
    if (t.type == TargetType::Record) return std::nullopt;
    if (!readNumber(f.x, t.x)) return say("target-editor.no-number");
    if (t.type == TargetType::Band && (!readNumber(f.y, t.y) || !(t.y > t.x)))
        return say("typed-target.band");
    t.soft = softMarginOf(t.x, m);
    if (!f.soft->text().trimmed().isEmpty() && (!readNumber(f.soft, t.soft) || t.soft < 0))
        return say("target-editor.no-soft");
    double good = 0;
    if (f.good->text().trimmed().isEmpty()) return std::nullopt;
    if (!readNumber(f.good, good)) return say("target-editor.no-good");
    const bool better = t.type == TargetType::AtLeast  ? good >= t.x
                        : t.type == TargetType::AtMost ? good <= t.x
                                                       : t.x <= good && good <= t.y;
    if (!better) return say("target-editor.good-outside");
    t.good = good;
    return std::nullopt;
}

std::vector<Tickable> answersOf(const MeasureDefinition& m, const std::vector<std::string>& on) {
    std::vector<Tickable> all;
    for (const std::string& answer : m.options) all.push_back({answer, text(answer), isAmong(on, answer)});
    return all;
}

} // namespace

void editTarget(QWidget* parent, const MeasureDefinition& m, const Target& target,
                const std::function<void(const Target&)>& then) {
    auto* d = new FormDialog(parent, "target", text(m.name), text(m.hint.empty() ? m.formula : m.hint));
    std::function<std::optional<QString>(Target&)> read;
    if (m.kind == MeasureKind::Seen) {
        const auto wanted =
            d->list("target-wanted", say("target-editor.wanted"), answersOf(m, target.wanted));
        const auto nearly =
            d->list("target-nearly", say("target-editor.nearly"), answersOf(m, target.nearly));
        read = [wanted, nearly](Target& t) -> std::optional<QString> {
            t.wanted = wanted();
            t.nearly = nearly();
            std::erase_if(t.nearly, [&](const std::string& answer) { return isAmong(t.wanted, answer); });
            t.type = t.wanted.empty() ? TargetType::Record : TargetType::Options;
            return std::nullopt;
        };
    } else {
        read = [f = numberFields(*d, target), m](Target& t) { return readNumbers(f, m, t); };
    }
    QStringList positions;
    int at = 0;
    for (std::size_t i = 0; i < m.moments.size(); ++i) {
        positions << say(info(m.moments[i]).name());
        if (m.moments[i] == target.position) at = static_cast<int>(i);
    }
    auto* position = d->choice("target-position", say("row-editors.position"), positions, at);
    auto* from = d->number("target-from", say("row-editors.from-age"), target.ageFrom, 0, 99);
    auto* to = d->number("target-to", say("target-editor.to-age"), target.ageTo, 0, 99);
    auto* why = d->words("target-why", say("target-editor.why"), text(target.why));
    d->openWith([=, moments = m.moments]() -> std::optional<QString> {
        Target t = target;
        if (const auto wrong = read(t)) return wrong;
        t.position = moments[static_cast<std::size_t>(position->currentIndex())];
        t.ageFrom = from->value(), t.ageTo = to->value();
        if (t.ageFrom > t.ageTo) return say("target-editor.ages-turned");
        t.why = why->toPlainText().trimmed().toStdString();
        QObject::connect(d, &QDialog::accepted, parent, [then, t] { then(t); });
        return std::nullopt;
    });
}

} // namespace jg::ui
