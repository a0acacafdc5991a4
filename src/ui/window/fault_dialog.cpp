// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/window/fault_dialog.h"

#include "base/file_store.h"
#include "desk/keeping/fault_report.h"
#include "ui/kit/file_choice.h"
#include "ui/kit/theme.h"

#include <QApplication>
#include <QClipboard>
#include <QDialog>
#include <QFontDatabase>
#include <QPlainTextEdit>
#include <QScreen>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

std::string screenOf(const QWidget& window) {
    const QScreen* screen = window.screen();
    if (!screen) return {};
    return QStringLiteral("%1 x %2, %3 dpi")
        .arg(screen->size().width())
        .arg(screen->size().height())
        .arg(screen->logicalDotsPerInch())
        .toStdString();
}

class FaultDialog : public QDialog {
public:
    FaultDialog(QWidget* parent, const std::string& report)
        : QDialog(parent) {
        setObjectName("fault-dialog");
        setAttribute(Qt::WA_DeleteOnClose);
        setWindowTitle(say("fault-dialog.title"));
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(26, 20, 26, 18);
        column->setSpacing(10);
        column->addWidget(heading(say("fault-dialog.title"), 22));
        column->addWidget(quiet(say("fault-dialog.what-it-is"), 13));
        report_ = new QPlainTextEdit(QString::fromStdString(report));
        report_->setObjectName("fault-report");
        report_->setAccessibleName(say("fault-dialog.title"));
        report_->setFont(QFontDatabase::systemFont(QFontDatabase::FixedFont));
        report_->setLineWrapMode(QPlainTextEdit::WidgetWidth);
        report_->setTabChangesFocus(true);
        column->addWidget(report_, 1);
        state_ = quiet("", 13);
        state_->setObjectName("fault-state");
        column->addWidget(state_);
        column->addLayout(buttons());
        resizeForText(*this, 760, 520);
    }

private:
    QHBoxLayout* buttons() {
        auto* row = new QHBoxLayout;
        auto* save = plainButton(say("fault-dialog.save"));
        save->setObjectName("fault-save");
        connect(save, &QPushButton::clicked, this, [this] { saveAs(); });
        auto* copy = plainButton(say("fault-dialog.copy"));
        copy->setObjectName("fault-copy");
        connect(copy, &QPushButton::clicked, this, [this] {
            QApplication::clipboard()->setText(report_->toPlainText());
            state_->setText(say("fault-dialog.copied"));
        });
        auto* close = mainButton(say("sequence-dialog.close"));
        connect(close, &QPushButton::clicked, this, &QDialog::accept);
        row->addWidget(copy);
        row->addWidget(save);
        row->addStretch(1);
        row->addWidget(close);
        return row;
    }

    void saveAs() {
        const QString file = fileToSave(this, say("fault-dialog.save"), "juxtagraph-fault.txt");
        if (file.isEmpty()) return;
        FileStore files;
        const Status written = files.write(file.toStdString(), report_->toPlainText().toStdString());
        state_->setText(written ? say("fault-dialog.saved", {{"file", file.toStdString()}})
                                : say(written.error().text));
    }

    QPlainTextEdit* report_;
    QLabel* state_;
};

} // namespace

void openFaultReport(QWidget* parent, Store& store, std::int64_t nowUnix, bool namesHidden) {
    const FaultSurroundings around{screenOf(*parent), namesHidden, nowUnix};
    (new FaultDialog(parent, faultReport(store, notedFaults(), around, windowWords())))->open();
}

} // namespace jg::ui
