#include "ui/review/say_questions.h"

#include "ui/theme.h"

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

} // namespace jg::ui
