#include "ui/review/film_dialog.h"

#include "base/number.h"
#include "ui/rate_box.h"
#include "ui/theme.h"

#include <QDialog>
#include <QFormLayout>
#include <QLineEdit>

namespace jg::ui {

namespace {

class FilmDialog final : public QDialog {
public:
    FilmDialog(QWidget* parent, ReviewSession& session, std::function<void(const QString&)> say)
        : QDialog(parent)
        , session_(session)
        , say_(std::move(say)) {
        setObjectName("film-dialog");
        setAttribute(Qt::WA_DeleteOnClose);
        setWindowTitle("The film and its delivery");
        setMinimumWidth(520);
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(26, 20, 26, 18);
        column->setSpacing(10);
        column->addWidget(heading("The film and its delivery", 22));
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
        for (const auto value : all) box->addItem(text(nameOf(value)));
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
        view_ = choice(form, "Seen from the", "view", views, static_cast<int>(clip.view));
        rate_ =
            new RateBox(clip.captureFps > 0 ? text(significant(clip.captureFps, 6)) + " a second, as found"
                                            : "not known");
        rate_->setObjectName("rate");
        form.addRow("Taken at", rate_);
    }

    void addDelivery(QFormLayout& form) {
        const Conditions& c = session_.delivery().conditions;
        start_ = choice(form, "Thrown from the", "start", allStarts(), static_cast<int>(c.start));
        surface_ = choice(form, "Thrown on the", "surface", allSurfaces(), static_cast<int>(c.surface));
        pitch_ = choice(form, "Pitch", "pitch", allPitchTypes(), static_cast<int>(c.pitch));
        number_ =
            line(form, "Number in the outing", "number",
                 c.numberInOuting ? QString::number(*c.numberInOuting) : QString(), "1 is the first pitch");
        speed_ =
            line(form, "Speed by radar", "speed", c.speedMps ? text(speedInWords(*c.speedMps)) : QString(),
                 "62 mph or 100 km/h; may stay empty");
        went_ = choice(form, "The ball went", "went", allWents(), static_cast<int>(c.went));
        tried_ =
            line(form, "What was tried", "tried", text(c.tried), "what the athlete worked on in this pitch");
    }

    void addFoot(QVBoxLayout& column) {
        wrong_ = problemLabel("film-problem");
        column.addWidget(wrong_);
        auto* row = new QHBoxLayout;
        row->addWidget(quiet("Side and rate count for every review of this film.", 12), 1);
        auto* cancel = plainButton("Cancel");
        connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
        auto* keep = mainButton("Keep");
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
                return fail(ErrorCode::BadInput, "The number in the outing is a whole number from 1.");
            c.numberInOuting = value;
        }
        if (const auto s = speed_->text().trimmed().toStdString(); !s.empty()) {
            // What stands there unchanged is not rounded again.
            const auto& now = session_.delivery().conditions.speedMps;
            c.speedMps = now && s == speedInWords(*now) ? now : speedFromWords(s);
            if (!c.speedMps)
                return fail(ErrorCode::BadInput,
                            "\"" + s + "\" is no speed. Write it as 62 mph or 100 km/h.");
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
        return session_.perform("Say the conditions", {SetConditions{*conditions}});
    }

    void keepIt() {
        if (const Status done = kept(); !done) {
            wrong_->setText(text(done.error().text));
            wrong_->show();
            return;
        }
        say_("Kept.");
        accept();
    }

    ReviewSession& session_;
    std::function<void(const QString&)> say_;
    QComboBox *view_, *start_, *surface_, *pitch_, *went_;
    RateBox* rate_;
    QLineEdit *number_, *speed_, *tried_;
    QLabel* wrong_;
};

} // namespace

void showFilmDialog(QWidget* parent, ReviewSession& session, const std::function<void(const QString&)>& say) {
    (new FilmDialog(parent, session, say))->open();
}

} // namespace jg::ui
