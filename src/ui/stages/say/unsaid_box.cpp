// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/say/unsaid_box.h"

#include "ui/kit/theme.h"

#include <QVBoxLayout>

namespace jg::ui {

namespace {

constexpr std::size_t kUnsaidShown = 2; ///< the prompt needs the room; all stand in their list

}

UnsaidBox::UnsaidBox(QWidget* parent)
    : QFrame(parent) {
    setObjectName("note");
    rows_ = new QVBoxLayout(this);
    rows_->setContentsMargins(12, 8, 12, 8);
    rows_->setSpacing(2);
}

void UnsaidBox::show(const std::vector<std::pair<std::string, QString>>& findings) {
    clearLayout(*rows_);
    if (findings.empty()) return;
    rows_->addWidget(
        plain(say("say-bench.found-and-not-in-any-stop", {{"open", findings.size()}}), 12.5, true));
    for (std::size_t i = 0; i < findings.size() && i < kUnsaidShown; ++i) {
        auto* line = new QWidget;
        auto* row = new QHBoxLayout(line);
        row->setContentsMargins(0, 0, 0, 0);
        row->addWidget(plain(findings[i].second, 12.5), 1);
        auto* button = plainButton(say("say-bench.add"));
        button->setObjectName("link");
        connect(button, &QPushButton::clicked, this,
                [this, id = QString::fromStdString(findings[i].first)] { Q_EMIT add(id); });
        row->addWidget(button);
        rows_->addWidget(line);
    }
    if (findings.size() <= kUnsaidShown) return;
    auto* more = plainButton(say("say-bench.open-more", {{"open", findings.size() - kUnsaidShown}}));
    more->setObjectName("link");
    connect(more, &QPushButton::clicked, this, &UnsaidBox::choose);
    rows_->addWidget(more, 0, Qt::AlignLeft);
}

} // namespace jg::ui
