// SPDX-License-Identifier: GPL-3.0-or-later
#include "banner.hpp"

#include <QHBoxLayout>
#include <QPushButton>

#include <algorithm>

namespace tectonis {

Banner::Banner(QWidget* parent) : QWidget(parent)
{
    setObjectName("banner");
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(10, 4, 10, 4);
    m_text = new QLabel;
    m_text->setObjectName("bannerText");
    m_text->setWordWrap(true);
    m_text->setTextFormat(Qt::PlainText);
    row->addWidget(m_text, 1);
    m_buttons = new QHBoxLayout;
    row->addLayout(m_buttons);
    hide();
}

void Banner::tell(Notice notice)
{
    m_notices.remove_if([&](const Notice& n) { return n.text == notice.text; });
    m_notices.push_front(std::move(notice));
    show();
}

void Banner::tellLater(Notice notice)
{
    m_notices.push_back(std::move(notice));
    show();
}

void Banner::clearTold()
{
    m_notices.remove_if([](const Notice& n) { return n.ways.size() == 1; });
    show();
}

void Banner::show()
{
    while (QLayoutItem* item = m_buttons->takeAt(0)) {
        item->widget()->hide();
        item->widget()->deleteLater(); // the one that was pressed is still at work
        delete item;
    }
    setVisible(!m_notices.empty());
    if (m_notices.empty())
        return;
    const Notice& now = m_notices.front();
    m_text->setText(m_notices.size() > 1 ? spoken("{}  ({} more)", now.text, m_notices.size() - 1) : now.text);
    for (const auto& way : now.ways) {
        auto* button = new QPushButton(way.label);
        button->setObjectName("banner." + way.label);
        m_buttons->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, text = now.text, take = way.take] {
            if (take && !take())
                return;
            m_notices.remove_if([&](const Notice& n) { return n.text == text; });
            show();
        });
    }
}

} // namespace tectonis
