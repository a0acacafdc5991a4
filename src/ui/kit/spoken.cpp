// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/spoken.h"

#include <QAccessibleWidget>

namespace jg::ui {

namespace {

class SpokenInterface final : public QAccessibleWidget, public QAccessibleValueInterface {
public:
    SpokenInterface(QWidget* widget, Spoken& spoken)
        : QAccessibleWidget(widget, spoken.spokenRole())
        , spoken_(spoken) {}

    void* interface_cast(QAccessible::InterfaceType type) override {
        if (type == QAccessible::ValueInterface && spoken_.spokenRange())
            return static_cast<QAccessibleValueInterface*>(this);
        return QAccessibleWidget::interface_cast(type);
    }
    QString text(QAccessible::Text what) const override {
        return what == QAccessible::Value ? spoken_.spokenValue() : QAccessibleWidget::text(what);
    }
    QVariant currentValue() const override { return range().now; }
    QVariant minimumValue() const override { return range().least; }
    QVariant maximumValue() const override { return range().most; }
    QVariant minimumStepSize() const override { return 1; }
    void setCurrentValue(const QVariant& value) override { spoken_.setSpoken(value.toLongLong()); }

private:
    SpokenRange range() const { return spoken_.spokenRange().value_or(SpokenRange{}); }
    Spoken& spoken_;
};

QAccessibleInterface* interfaceOf(const QString&, QObject* object) {
    auto* spoken = dynamic_cast<Spoken*>(object);
    auto* widget = qobject_cast<QWidget*>(object);
    return spoken && widget ? new SpokenInterface(widget, *spoken) : nullptr;
}

} // namespace

void letReadersHear() {
    static const bool once = (QAccessible::installFactory(interfaceOf), true);
    (void)once;
}

} // namespace jg::ui
