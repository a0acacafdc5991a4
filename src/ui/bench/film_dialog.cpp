// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/film_dialog.h"

#include "base/number.h"
#include "ui/kit/rate_box.h"
#include "ui/kit/theme.h"

#include <QDialog>
#include <QFormLayout>
#include <QLineEdit>

namespace jg::ui {

namespace {

class FilmDialog final : public QDialog {
public:
    FilmDialog(QWidget* parent, ReviewSession& session, std::function<void(const QString&)> tell)
        : QDialog(parent)
        , session_(session)
        , tell_(std::move(tell)) {
        setObjectName("film-dialog");
        setAttribute(Qt::WA_DeleteOnClose);
        setWindowTitle(say("film-dialog.the-film-and-its-delivery"));
        setMinimumWidth(em(520));
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(26, 20, 26, 18);
        column->setSpacing(10);
        column->addWidget(heading(say("film-dialog.the-film-and-its-delivery"), 22));
        auto* form = new QFormLayout;
        form->setLabelAlignment(Qt::AlignLeft);
        form->setHorizontalSpacing(18);
        addFilm(*form);
        addDelivery(*form);
        column->addLayout(form);
        addFoot(*column);
    }

private:
    template <class All>
    QComboBox* choice(QFormLayout& form, const QString& label, const char* name, const All& all, int now) {
        auto* box = new QComboBox;
        box->setObjectName(name);
        box->setAccessibleName(label);
        for (const auto value : all) box->addItem(say(nameOf(value)));
        box->setCurrentIndex(now);
        form.addRow(label, box);
        return box;
    }
    QLineEdit* line(QFormLayout& form, const QString& label, const char* name, const QString& now,
                    const QString& hint) {
        auto* edit = new QLineEdit(now);
        edit->setObjectName(name);
        edit->setAccessibleName(label);
        edit->setPlaceholderText(hint);
        form.addRow(label, edit);
        return edit;
    }

    void addFilm(QFormLayout& form) {
        const Clip& clip = session_.clip();
        const std::vector<View> views = {View::Open, View::Closed, View::Front, View::Rear};
        view_ = choice(form, say("film-dialog.seen-from-the"), "view", views, static_cast<int>(clip.view));
        rate_ = new RateBox(clip.captureFps > 0 ? say("film-dialog.capture-fps-a-second-as-found",
                                                      {{"captureFps", significant(clip.captureFps, 6)}})
                                                : say("film-dialog.not-known"));
        rate_->setObjectName("rate");
        form.addRow(say("film-dialog.taken-at"), rate_);
    }

    void addDelivery(QFormLayout& form) {
        const Conditions& c = session_.delivery().conditions;
        start_ = choice(form, say("intake-dialog.thrown-from-the"), "start", allStarts(),
                        static_cast<int>(c.start));
        surface_ = choice(form, say("intake-dialog.thrown-on-the"), "surface", allSurfaces(),
                          static_cast<int>(c.surface));
        pitch_ = choice(form, say("film-dialog.pitch"), "pitch", allPitchTypes(), static_cast<int>(c.pitch));
        number_ = line(form, say("film-dialog.number-in-the-outing"), "number",
                       c.numberInOuting ? QString::number(*c.numberInOuting) : QString(),
                       say("film-dialog.1-is-the-first-pitch"));
        speed_ = line(form, say("film-dialog.speed-by-radar"), "speed",
                      c.speedMps ? say(speedInWords(*c.speedMps)) : QString(),
                      say("film-dialog.62-mph-or-100-km-h"));
        went_ = choice(form, say("film-dialog.the-ball-went"), "went", allWents(), static_cast<int>(c.went));
        tried_ = line(form, say("film-dialog.what-was-tried"), "tried", text(c.tried),
                      say("film-dialog.worked-on"));
    }

    void addFoot(QVBoxLayout& column) {
        wrong_ = problemLabel("film-problem");
        column.addWidget(wrong_);
        auto* row = new QHBoxLayout;
        row->addWidget(quiet(say("film-dialog.side-and-rate-count-for-every"), 12), 1);
        auto* cancel = plainButton(say("athlete-dialog.cancel"));
        connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
        auto* keep = mainButton(say("athlete-dialog.keep"));
        keep->setDefault(true);
        connect(keep, &QPushButton::clicked, this, [this] { keepIt(); });
        row->addWidget(cancel);
        row->addWidget(keep);
        column.addLayout(row);
    }

    Result<Conditions> typed() const {
        Conditions c;
        c.start = allStarts()[static_cast<std::size_t>(start_->currentIndex())];
        c.surface = allSurfaces()[static_cast<std::size_t>(surface_->currentIndex())];
        c.pitch = allPitchTypes()[static_cast<std::size_t>(pitch_->currentIndex())];
        c.went = allWents()[static_cast<std::size_t>(went_->currentIndex())];
        c.tried = tried_->text().trimmed().toStdString();
        if (const QString n = number_->text().trimmed(); !n.isEmpty()) {
            bool whole = false;
            const int value = n.toInt(&whole);
            if (!whole || value < 1 || value > 999)
                return fail(ErrorCode::BadInput, msg("film-dialog.number-whole"));
            c.numberInOuting = value;
        }
        if (const auto s = speed_->text().trimmed().toStdString(); !s.empty()) {
            // What stands there unchanged is not rounded again.
            const auto& now = session_.delivery().conditions.speedMps;
            c.speedMps = now && s == say(speedInWords(*now)).toStdString() ? now : speedFromWords(s);
            if (!c.speedMps) return fail(ErrorCode::BadInput, msg("film-dialog.no-speed", {{"s", s}}));
        }
        return c;
    }

    Status kept() {
        auto conditions = typed();
        if (!conditions) return conditions.error();
        auto fps = rate_->rate();
        if (!fps) return fps.error();
        if (const Status film = session_.setFilm(static_cast<View>(view_->currentIndex()), *fps); !film)
            return film;
        if (*conditions == session_.delivery().conditions) return Done{};
        return session_.perform(msg("film-dialog.say-the-conditions"), {SetConditions{*conditions}});
    }

    void keepIt() {
        if (const Status done = kept(); !done) {
            wrong_->setText(say(done.error().text));
            wrong_->show();
            return;
        }
        tell_(say("film-dialog.kept"));
        accept();
    }

    ReviewSession& session_;
    std::function<void(const QString&)> tell_;
    QComboBox *view_, *start_, *surface_, *pitch_, *went_;
    RateBox* rate_;
    QLineEdit *number_, *speed_, *tried_;
    QLabel* wrong_;
};

} // namespace

void showFilmDialog(QWidget* parent, ReviewSession& session,
                    const std::function<void(const QString&)>& tell) {
    (new FilmDialog(parent, session, tell))->open();
}

} // namespace jg::ui
