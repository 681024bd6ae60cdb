// SPDX-License-Identifier: GPL-3.0-or-later
#include "run_sheet.hpp"

#include "checks/snags.hpp"
#include "fonts.hpp"
#include "stage_signs.hpp"
#include "theme.hpp"

#include <QPainter>
#include <QVBoxLayout>

namespace tectonis {
namespace {

class StageButton : public QAbstractButton {
public:
    explicit StageButton(int index, QWidget* parent) : QAbstractButton(parent), m_index(index)
    {
        setCheckable(true);
        setText(stageLabel(index));
        setToolTip(spoken("{}  (key {})", stageLabel(index), index + 1));
        setFixedWidth(88);
        setMinimumHeight(43);
    }
    int errors = 0, others = 0;

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        if (isChecked() || underMouse()) {
            p.setPen(Qt::NoPen);
            p.setBrush(isChecked() ? t.bench : t.surface);
            p.drawRoundedRect(QRectF(rect()).adjusted(4, 2, 0, -2), 6, 6);
        }
        if (isChecked()) {
            p.setBrush(t.accent);
            p.setPen(Qt::NoPen);
            p.drawRect(QRectF(0, 8, 3, height() - 16));
        }
        if (hasFocus()) {
            p.setPen(QPen(t.accent, 1, Qt::DotLine));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(QRectF(rect()).adjusted(5, 3, -2, -3), 6, 6);
        }
        const double middle = height() / 2.0;
        drawStageSign(p, m_index, QRectF(width() / 2.0 - 12, middle - 22, 24, 24), isChecked() ? t.accent : t.ink);
        p.setFont(pixelFont(12, isChecked() ? QFont::DemiBold : QFont::Normal));
        p.setPen(t.ink);
        p.drawText(QRectF(0, middle + 4, width(), 18), Qt::AlignCenter, text());
        if (const int n = errors + others; n > 0) {
            const QRectF badge(width() - 28, middle - 24, 22, 16);
            p.setPen(Qt::NoPen);
            p.setBrush(errors ? t.error : t.warning);
            p.drawRoundedRect(badge, 8, 8);
            p.setPen(t.dark ? QColor(0x1A, 0x1A, 0x1A) : QColor(Qt::white));
            p.setFont(pixelFont(11, QFont::DemiBold));
            p.drawText(badge, Qt::AlignCenter, QString::number(n));
        }
    }

private:
    int m_index;
};

} // namespace

RunSheet::RunSheet(Document& document, QWidget* parent) : QWidget(parent), m_document(document)
{
    setAccessibleName(spoken("Run sheet: the nine stages"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 4, 0, 4);
    column->setSpacing(2);
    for (int i = 0; i < stageNames().size(); ++i) {
        auto* b = new StageButton(i, this);
        m_buttons.addButton(b, i);
        column->addWidget(b, 1);
    }
    m_buttons.setExclusive(true);
    connect(&m_buttons, &QButtonGroup::idClicked, this, &RunSheet::chosen);
    connect(&document, &Document::judged, this, &RunSheet::count);
    count();
}

void RunSheet::choose(int stage)
{
    if (auto* b = m_buttons.button(stage))
        b->setChecked(true);
}

void RunSheet::count()
{
    for (auto* button : m_buttons.buttons()) {
        auto* b = static_cast<StageButton*>(button);
        const SnagCount n = countSnags(m_document.findings(), b->text().toStdString());
        b->errors = n.toMend, b->others = n.doubtful;
        b->setAccessibleName(spoken("{}, {} snags", b->text(), b->errors + b->others));
        b->update();
    }
}

} // namespace tectonis
