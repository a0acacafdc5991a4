// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/say_questions.h"

#include "desk/session/beside.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/theme.h"

#include <QLineEdit>
#include <QPlainTextEdit>
#include <QSpinBox>

namespace jg::ui {

void askFindings(QWidget* parent, const std::vector<Tickable>& rows,
                 const std::function<void(const std::vector<std::string>&)>& then) {
    auto* form = new FormDialog(parent, "say-all", say("say-questions.all-findings"),
                                say("say-questions.all-findings-hint"));
    const auto ticked = form->list("findings", say("say-questions.findings"), rows);
    form->openWith([ticked, then]() -> std::optional<QString> {
        then(ticked());
        return std::nullopt;
    });
}

void askOwnStop(QWidget* parent, const std::function<void(const QString&)>& then) {
    auto* form =
        new FormDialog(parent, "say-here", say("say-bench.stop-here"), say("say-questions.stop-here-hint"));
    auto* title = form->line("title", say("say-questions.what-about"), {});
    form->openWith([title, then]() -> std::optional<QString> {
        const QString words = title->text().simplified();
        if (words.isEmpty()) return say("say-questions.a-stop-needs-a-name");
        then(words);
        return std::nullopt;
    });
}

void askCaptions(QWidget* parent, const QString& title, const QString& written, const QString& prompted,
                 const std::function<void(const QString&)>& then) {
    auto* form =
        new FormDialog(parent, "say-words", say("say-bench.its-words"), say("say-questions.captions-hint"));
    auto* words = form->words("words", title, written.isEmpty() ? prompted : written);
    form->openWith([=]() -> std::optional<QString> {
        const QString now = words->toPlainText().simplified();
        then(now == prompted ? QString() : now);
        return std::nullopt;
    });
}

void askLength(QWidget* parent, const SayingLength& now, int mostMinutes,
               const std::function<Status(const SayingLength&)>& keep) {
    constexpr int kMinute = 60;
    auto* form =
        new FormDialog(parent, "say-length", say("say-questions.length"), say("say-questions.length-hint"));
    auto* least = form->number("least", say("say-questions.least"), now.leastS / kMinute, 1, mostMinutes);
    auto* most = form->number("most", say("say-questions.most"), now.mostS / kMinute, 1, mostMinutes);
    form->openWith([=]() -> std::optional<QString> {
        if (least->value() > most->value()) return say("say-questions.length-turned-round");
        const Status kept = keep({least->value() * kMinute, most->value() * kMinute});
        return kept ? std::nullopt : std::optional(say(kept.error().text));
    });
}

void askBeside(QWidget* parent, const ReviewSession& session, const Stop& stop,
               const std::function<void(const QString&)>& tell,
               const std::function<void(const std::optional<JuxtaKey>&)>& then) {
    const ReviewId& review = session.review().id;
    auto offers = besideOffers(session.library(), session.review());
    if (!offers) return tell(say(offers.error().text));
    std::erase_if(*offers, [&](const JuxtaOffer& o) {
        return o.key.review == review && o.key.delivery == stop.delivery;
    });
    if (offers->empty()) return tell(say("say-bench.no-other", {{"name", session.athlete().firstName}}));
    QStringList options;
    std::vector<std::optional<JuxtaKey>> keys;
    for (const JuxtaOffer& o : *offers) {
        const Message when = o.key.review == review
                                 ? msg("say-bench.beside-own", {{"number", o.key.delivery}})
                                 : joined(ListStyle::Dots, {asIs(o.baseline), day(o.when, DateStyle::Year)});
        options << say("say-bench.beside-offer",
                       {{"when", when}, {"view", nameOf(o.view)}, {"positions", o.positions}});
        keys.emplace_back(o.key);
    }
    if (stop.beside) {
        options << say("say-bench.beside-none");
        keys.emplace_back(std::nullopt);
    }
    askChoice(parent,
              {"stop-beside", say("say-bench.beside-title"), say("say-bench.beside-hint"), options, {}},
              [then, keys](const ChoiceAnswer& answer) { then(keys.at(*answer.option)); });
}

} // namespace jg::ui
