// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/measure/own_measure_dialog.h"

#include "ui/kit/theme.h"

#include <QComboBox>
#include <QDialog>
#include <QFormLayout>
#include <QLineEdit>
#include <QVBoxLayout>

#include <array>

namespace jg::ui {

namespace {

constexpr std::size_t kMostPoints = 4, kMostPositions = 2;

class OwnMeasureDialog : public QDialog {
public:
    OwnMeasureDialog(QWidget* parent, std::function<QString(const OwnMeasureOrder&)> keep)
        : QDialog(parent)
        , keep_(std::move(keep)) {
        setObjectName("own-measure");
        setAttribute(Qt::WA_DeleteOnClose);
        setWindowTitle(say("own-measure-dialog.a-measure-of-your-own"));
        resizeForText(*this, 520, 460);
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(28, 22, 28, 20);
        column->addWidget(heading(say("own-measure-dialog.a-measure-of-your-own"), 22));
        how_ = quiet("", 13);
        column->addWidget(how_);
        form_ = new QFormLayout;
        form_->setHorizontalSpacing(16);
        column->addLayout(form_);
        addFields();
        wrong_ = plain("", 13);
        wrong_->setObjectName("wrong");
        column->addWidget(wrong_);
        column->addStretch(1);
        auto* done = mainButton(say("own-measure-dialog.keep-this-measure"));
        done->setDefault(true);
        connect(done, &QPushButton::clicked, this, [this] { keepIt(); });
        column->addWidget(done, 0, Qt::AlignRight);
        showKind();
    }

private:
    QComboBox* box(const char* name) {
        auto* b = new QComboBox;
        b->setObjectName(name);
        return b;
    }

    void addFields() {
        name_ = new QLineEdit;
        name_->setObjectName("name");
        name_->setPlaceholderText(say("own-measure-dialog.what-you-will-call-it"));
        form_->addRow(say("post-place.name"), name_);
        kind_ = box("kind");
        for (const OwnMeasureKind& k : ownMeasureKinds()) kind_->addItem(say(k.name()), text(k.id));
        connect(kind_, &QComboBox::currentIndexChanged, this, [this] { showKind(); });
        form_->addRow(say("own-measure-dialog.kind"), kind_);
        for (std::size_t i = 0; i < kMostPoints; ++i) {
            points_[i] = box("point");
            for (const LandmarkInfo& l : allLandmarks())
                points_[i]->addItem(say(l.name()), static_cast<int>(l.landmark));
            pointLabels_[i] = new QLabel;
            form_->addRow(pointLabels_[i], points_[i]);
        }
        for (std::size_t i = 0; i < kMostPositions; ++i) {
            positions_[i] = box("position");
            for (const MomentInfo& m : allMoments())
                positions_[i]->addItem(say(m.name()), static_cast<int>(m.moment));
            positionLabels_[i] = new QLabel;
            form_->addRow(positionLabels_[i], positions_[i]);
        }
    }

    const OwnMeasureKind& kind() const {
        return ownMeasureKinds()[static_cast<std::size_t>(kind_->currentIndex())];
    }

    void showKind() {
        const OwnMeasureKind& k = kind();
        how_->setText(say("own-measure-dialog.it-gives-how", {{"how", k.how()}}));
        for (std::size_t i = 0; i < kMostPoints; ++i) {
            const bool used = i < k.points.size();
            points_[i]->setVisible(used);
            pointLabels_[i]->setVisible(used);
            if (used) pointLabels_[i]->setText(say(OwnMeasureKind::pointName(k.points[i])));
        }
        positions_[1]->setVisible(k.twoPositions);
        positionLabels_[1]->setVisible(k.twoPositions);
        positionLabels_[0]->setText(k.twoPositions ? say("own-measure-dialog.from")
                                                   : say("own-measure-dialog.at"));
        positionLabels_[1]->setText(say("own-measure-dialog.to"));
        wrong_->clear();
    }

    void keepIt() {
        OwnMeasureOrder order{name_->text().trimmed().toStdString(), std::string(kind().id), {}, {}};
        for (std::size_t i = 0; i < kind().points.size(); ++i)
            order.landmarks.push_back(static_cast<Landmark>(points_[i]->currentData().toInt()));
        for (std::size_t i = 0; i < (kind().twoPositions ? 2U : 1U); ++i)
            order.positions.push_back(static_cast<Moment>(positions_[i]->currentData().toInt()));
        const QString wrong = keep_(order);
        wrong_->setText(wrong);
        if (wrong.isEmpty()) accept();
    }

    std::function<QString(const OwnMeasureOrder&)> keep_;
    QFormLayout* form_;
    QLabel* how_;
    QLabel* wrong_;
    QLineEdit* name_ = nullptr;
    QComboBox* kind_ = nullptr;
    std::array<QComboBox*, kMostPoints> points_{};
    std::array<QLabel*, kMostPoints> pointLabels_{};
    std::array<QComboBox*, kMostPositions> positions_{};
    std::array<QLabel*, kMostPositions> positionLabels_{};
};

} // namespace

void askOwnMeasure(QWidget* parent, const std::function<QString(const OwnMeasureOrder&)>& keep) {
    auto* dialog = new OwnMeasureDialog(parent, keep);
    dialog->open();
}

} // namespace jg::ui
