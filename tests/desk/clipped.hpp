#pragma once

#include <QAbstractButton>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QStringList>
#include <QStyle>
#include <QStyleOptionButton>
#include <QToolButton>
#include <QWidget>

#include <algorithm>

/// Whether every word fits where it stands, and everything that is used has a name.
namespace gorvet::test {

inline QString called(const QWidget* w) {
    return QString("%1 \"%2\"")
        .arg(w->objectName().isEmpty() ? w->metaObject()->className() : w->objectName(), w->accessibleName());
}

/// Inside something that scrolls it may be larger than what is seen.
inline bool scrolls(const QWidget* w) {
    for (const QWidget* p = w->parentWidget(); p; p = p->parentWidget())
        if (qobject_cast<const QAbstractScrollArea*>(p)) return true;
    return false;
}

/// What of a window's words does not fit, one line each.
inline QStringList clipped(QWidget& window) {
    QStringList list;
    for (QWidget* w : window.findChildren<QWidget*>()) {
        if (!w->isVisible() || w->width() == 0 || w->height() == 0) continue;
        const auto wrong = [&](const QString& what) { list << called(w) + ": " + what; };
        if (const auto* button = qobject_cast<QAbstractButton*>(w)) {
            if (button->text().isEmpty() || w->property("elided").toBool()) continue;
            int wide = 0;
            for (const QString& line : button->text().split('\n'))
                wide = std::max(wide, button->fontMetrics().horizontalAdvance(QString(line).remove('&')));
            if (wide > button->width())
                wrong(QString("\"%1\" needs %2, has %3").arg(button->text()).arg(wide).arg(button->width()));
            if (button->fontMetrics().height() > button->height()) wrong(QString("\"%1\" is too low").arg(button->text()));
        } else if (const auto* label = qobject_cast<QLabel*>(w)) {
            if (label->text().isEmpty() || label->buddy()) continue;
            if (label->wordWrap()) {
                const int need = label->heightForWidth(label->width());
                if (need > label->height() + 2)
                    wrong(QString("\"%1\" needs %2 high, has %3").arg(label->text().left(60)).arg(need).arg(label->height()));
                // a word that is wider than its label is cut, too
                for (const QString& word : label->text().split(' '))
                    if (!label->text().startsWith('<') && label->fontMetrics().horizontalAdvance(word) > label->width())
                        wrong("the word \"" + word + "\"");
            } else if (label->sizeHint().width() > label->width() + 2 && !scrolls(label)) {
                wrong(QString("\"%1\" needs %2, has %3")
                          .arg(label->text().left(60))
                          .arg(label->sizeHint().width())
                          .arg(label->width()));
            }
        }
        // of a row of words only whole ones are shown, if more than one is
        if (auto* scroll = qobject_cast<QScrollArea*>(w); scroll && w->parentWidget()->objectName() == "wordRow") {
            int shown = 0;
            QStringList cut;
            for (const auto* button : scroll->widget()->findChildren<QAbstractButton*>()) {
                const QRect all(button->mapTo(scroll->viewport(), QPoint()), button->size());
                const QRect seen = all & scroll->viewport()->rect();
                if (!button->isVisible() || seen.isEmpty()) continue;
                ++shown;
                if (seen != all) cut << button->text();
            }
            if (shown > 1 && !cut.isEmpty()) wrong("cut by the edge: " + cut.join(", "));
        }
        // what is neither scrolled nor shown whole is lost
        if ((qobject_cast<QAbstractButton*>(w) || qobject_cast<QLineEdit*>(w)) && !scrolls(w)) {
            const QRect seen(w->mapTo(&window, QPoint()), w->size());
            if (!window.rect().adjusted(-1, -1, 1, 1).contains(seen)) wrong("stands outside the window");
        }
    }
    return list;
}

/// What can be used and has no name.
inline QStringList nameless(QWidget& window) {
    QStringList list;
    for (QWidget* w : window.findChildren<QWidget*>()) {
        if (!w->isVisible() || w->objectName().startsWith("qt_")) continue;
        const auto* button = qobject_cast<QAbstractButton*>(w);
        if (button && button->text().isEmpty() && button->accessibleName().isEmpty() && button->focusPolicy() != Qt::NoFocus)
            list << called(w);
        if (qobject_cast<QLineEdit*>(w) && w->accessibleName().isEmpty() &&
            qobject_cast<QLineEdit*>(w)->placeholderText().isEmpty())
            list << called(w);
        if (w->inherits("QAbstractSlider") && !w->inherits("QScrollBar") && w->accessibleName().isEmpty()) list << called(w);
    }
    return list;
}

} // namespace gorvet::test
