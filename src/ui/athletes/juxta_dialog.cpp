#include "ui/athletes/juxta_dialog.h"

#include "desk/job.h"
#include "desk/juxta.h"
#include "ui/theme.h"

#include <QDialog>
#include <QFileDialog>
#include <QProgressBar>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

namespace {

class JuxtaDialog : public QDialog {
public:
    JuxtaDialog(QWidget* parent, Library& library, const Playbook& playbook,
                const std::vector<ReviewId>& reviews)
        : QDialog(parent)
        , library_(library) {
        setObjectName("juxta");
        setAttribute(Qt::WA_DeleteOnClose);
        setWindowTitle(say("juxta-dialog.title"));
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(20, 16, 20, 14);
        column->setSpacing(10);
        state_ = quiet(say("juxta-dialog.making"), 13);
        state_->setObjectName("juxta-state");
        column->addWidget(state_);
        bar_ = new QProgressBar;
        bar_->setRange(0, 100);
        bar_->setTextVisible(false);
        bar_->setAccessibleName(say("juxta-dialog.title"));
        column->addWidget(bar_);
        sheet_ = new QLabel;
        sheet_->setObjectName("juxta-sheet");
        sheet_->setAccessibleName(say("juxta-dialog.title"));
        auto* scroll = new QScrollArea;
        scroll->setFrameShape(QFrame::NoFrame);
        scroll->setWidget(sheet_);
        column->addWidget(scroll, 1);
        auto* buttons = new QHBoxLayout;
        buttons->addStretch(1);
        save_ = plainButton(say("juxta-dialog.save"));
        save_->setObjectName("juxta-save");
        save_->setEnabled(false);
        connect(save_, &QPushButton::clicked, this, [this] { save(); });
        auto* close = mainButton(say("sequence-dialog.close"));
        connect(close, &QPushButton::clicked, this, &QDialog::accept);
        buttons->addWidget(save_);
        buttons->addWidget(close);
        column->addLayout(buttons);
        resizeForText(*this, 1240, 740);
        make(playbook, reviews);
    }

private:
    void make(const Playbook& playbook, const std::vector<ReviewId>& reviews) {
        auto other = library_.again();
        if (!other) return tell(other.error());
        auto* job = new Job(this,
                            [this, own = std::shared_ptr<Library>(std::move(*other)), playbook, reviews](
                                std::stop_token stop, const Job::Progress& progress) -> Job::Continuation {
                                auto made = std::make_shared<Result<QImage>>(
                                    sheetOf(*own, playbook, reviews, stop, progress));
                                return [this, made] { *made ? show(**made) : tell(made->error()); };
                            });
        connect(job, &Job::progressed, bar_,
                [this](double part) { bar_->setValue(static_cast<int>(part * 100)); });
    }

    static Result<QImage> sheetOf(Library& library, const Playbook& playbook,
                                  const std::vector<ReviewId>& reviews, std::stop_token stop,
                                  const Job::Progress& progress) {
        auto entries = juxtaEntries(library, playbook, reviews);
        if (!entries) return entries.error();
        auto sheet = layOutJuxta(std::move(*entries), playbook);
        if (!sheet) return sheet.error();
        return juxtaPicture(library, *sheet, playbook, windowWords(), stop, progress);
    }

    void show(const QImage& image) {
        image_ = image;
        bar_->hide();
        state_->hide();
        QPixmap shown = QPixmap::fromImage(image);
        // It is made twice as sharp as a design pixel; many columns are shown smaller rather than cut.
        constexpr int kBeside = 70; // margins and the scroll bar
        shown.setDevicePixelRatio(std::max(2.0, static_cast<double>(image.width()) / (width() - kBeside)));
        sheet_->setPixmap(shown);
        sheet_->adjustSize();
        save_->setEnabled(true);
    }

    void tell(const Error& why) {
        bar_->hide();
        state_->setText(say(why.text));
    }

    void save() {
        const QString path = QFileDialog::getSaveFileName(this, say("juxta-dialog.save"), "juxta.pdf",
                                                          "PDF, PNG (*.pdf *.png)");
        if (path.isEmpty()) return;
        const Status written = writeJuxta(image_, path.toStdString(), library_.files());
        state_->show();
        state_->setText(written ? say("juxta-dialog.saved", {{"file", path}}) : say(written.error().text));
    }

    Library& library_;
    QImage image_;
    QLabel *state_, *sheet_;
    QProgressBar* bar_;
    QPushButton* save_;
};

} // namespace

void showJuxta(QWidget* parent, Library& library, const Playbook& playbook,
               const std::vector<ReviewId>& reviews) {
    (new JuxtaDialog(parent, library, playbook, reviews))->open();
}

} // namespace jg::ui
