// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/window/library_dialog.h"

#include "base/caught.h"
#include "base/clock.h"
#include "desk/jobs/job.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/theme.h"
#include "ui/places/keep/keep_jobs.h"
#include "ui/window/fault_dialog.h"

#include <QDialog>
#include <QProgressBar>
#include <QScrollArea>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

class LibraryDialog : public QDialog {
public:
    LibraryDialog(QWidget* parent, Library& library, const Clock& clock, std::function<void()> changed)
        : QDialog(parent)
        , library_(library)
        , clock_(clock)
        , changed_(std::move(changed)) {
        setObjectName("library-dialog");
        setAttribute(Qt::WA_DeleteOnClose);
        setWindowTitle(say("library-dialog.title"));
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(26, 20, 26, 18);
        column->setSpacing(10);
        column->addWidget(heading(say("library-dialog.title"), 22));
        state_ = quiet("", 13);
        state_->setObjectName("library-state");
        column->addWidget(state_);
        bar_ = new QProgressBar;
        bar_->setRange(0, 100);
        bar_->setTextVisible(false);
        bar_->setAccessibleName(say("library-dialog.title"));
        column->addWidget(bar_);
        auto* scroll = new QScrollArea;
        scroll->setWidgetResizable(true);
        scroll->setFrameShape(QFrame::NoFrame);
        scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        auto* inner = new QWidget;
        page_ = new QVBoxLayout(inner);
        page_->setContentsMargins(0, 0, 10, 0);
        scroll->setWidget(inner);
        scroll->viewport()->setAutoFillBackground(false);
        inner->setAutoFillBackground(false);
        column->addWidget(scroll, 1);
        auto* buttons = new QHBoxLayout;
        auto* backup = plainButton(say("library-dialog.back-up"));
        backup->setObjectName("library-backup");
        connect(backup, &QPushButton::clicked, this, [this] { backUp(); });
        buttons->addWidget(backup);
        auto* fault = plainButton(say("action.report-fault"));
        fault->setObjectName("library-fault");
        connect(fault, &QPushButton::clicked, this,
                [this] { openFaultReport(this, library_, clock_.nowUnix(), namesAreHidden()); });
        buttons->addWidget(fault);
        buttons->addStretch(1);
        repair_ = plainButton(say("library-dialog.repair"));
        repair_->setObjectName("library-repair");
        connect(repair_, &QPushButton::clicked, this, [this] { repairAll(); });
        auto* close = mainButton(say("sequence-dialog.close"));
        connect(close, &QPushButton::clicked, this, &QDialog::accept);
        buttons->addWidget(repair_);
        buttons->addWidget(close);
        column->addLayout(buttons);
        resizeForText(*this, 720, 520);
        look({});
    }

private:
    /// Reads every film in a job; closing the dialog ends it. `before` is told first.
    void look(const QString& before) {
        repair_->hide();
        bar_->show();
        state_->setText(before + say("library-dialog.looking"));
        auto other = library_.again();
        if (!other) return show(other.error());
        auto* job = new Job(this,
                            [this, own = std::shared_ptr<Library>(std::move(*other))](
                                std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
                                return [this, found = caught([&] { return own->examine(stop, progress); })] {
                                    show(found);
                                };
                            });
        connect(job, &Job::progressed, bar_,
                [this](double part) { bar_->setValue(static_cast<int>(part * 100)); });
    }

    void show(const Result<std::vector<Problem>>& found) {
        bar_->hide();
        while (QLayoutItem* item = page_->takeAt(0)) {
            delete item->widget();
            delete item;
        }
        if (!found) return state_->setText(say(found.error().text));
        problems_ = *found;
        state_->setText(say("library-dialog.found", {{"count", problems_.size()}}));
        bool any = false;
        for (const Problem& p : problems_) {
            page_->addWidget(plain(say(p.text), 13, true));
            page_->addWidget(quiet(say(repairOf(p)), 12.5));
            page_->addWidget(rule());
            any = any || p.repair != Repair::None;
        }
        page_->addStretch(1);
        repair_->setVisible(any && !library_.readOnly());
    }

    void backUp() {
        const QString folder = folderToUse(this, say("library-dialog.back-up"));
        if (folder.isEmpty()) return;
        backUpTo(this, library_, folder, clock_.nowUnix(),
                 [this](const QString& sentence, bool) { state_->setText(sentence); });
    }

    void repairAll() {
        QString failed;
        for (const Problem& p : problems_)
            if (p.repair != Repair::None)
                if (const Status done = library_.repair(p); !done) failed += say(done.error().text) + ' ';
        changed_();
        look(failed);
    }

    Library& library_;
    const Clock& clock_;
    std::function<void()> changed_;
    std::vector<Problem> problems_;
    QLabel* state_;
    QProgressBar* bar_;
    QVBoxLayout* page_;
    QPushButton* repair_;
};

} // namespace

void lookOverLibrary(QWidget* parent, Library& library, const Clock& clock,
                     const std::function<void()>& changed) {
    (new LibraryDialog(parent, library, clock, changed))->open();
}

} // namespace jg::ui
