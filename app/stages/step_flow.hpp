// SPDX-License-Identifier: GPL-3.0-or-later
// The flow of the work: steps from left to right by what they wait for, sub-assemblies folded or told step by step.
#pragma once

#include "bench.hpp"
#include "figures/figure.hpp"

#include <functional>
#include <set>

namespace tectonis {

/// Links carry the parts. As long as it is not zoomed by hand it shows the step in hand with those that it hangs on, or
/// all. A step is dragged before or behind another one.
class StepFlow : public Bench {
    Q_OBJECT
public:
    explicit StepFlow(Document& document);

    void showWhole(bool on);
    /// Phases of which only the part that comes of them is shown.
    void fold(const std::set<std::string>& phases);
    const std::set<std::string>& folded() const { return m_folded; }
    /// Phases that the bag has, in order.
    std::vector<std::string> phasesThere() const;

    std::function<void(int from, int to)> moved; ///< places in the order; @c to before the step is taken out
    /// Why the step at a place must not go before each place, and behind the last; empty where it may.
    std::function<std::vector<QString>(int from)> forbidden;

    /// Where a step stands on the screen; empty while its phase is folded.
    QRectF boxOf(const StepId& step) const;

protected:
    Box extent() const override;
    void draw(QPainter& p, const View& v, Labels&) override;
    bool press(Point q, QPointF at) override;
    void drag(Point q, QPointF at) override;
    void release() override;
    void hover(Point q, QPointF at) override;
    void resizeEvent(QResizeEvent*) override { m_nodes.clear(); }

private:
    /// A step, or a folded phase.
    struct Node {
        std::vector<int> places; ///< of its steps in the order of work
        std::vector<std::size_t> steps;
        std::string phase; ///< of a folded one
        QString number;
        Box box;
        bool folded() const { return !phase.empty(); }
    };

    const std::vector<Node>& nodes() const;
    const Node* nodeOf(std::size_t step) const;
    bool isMine(const Node& node) const;
    /// Breaks the flow into as many rows as make its cards largest in the room there is.
    void wrap(std::vector<int> columns) const;
    void drawLink(QPainter& p, const View& v, const Box& a, const Box& b, bool mine) const;
    void drawNode(QPainter& p, const View& v, const Node& n);
    void drawForbidden(QPainter& p, const QRectF& box, const Node& n) const;
    const Scene& sceneOf(const Node& node);
    QString titleOf(const Node& node) const;

    bool m_whole = false;
    std::set<std::string> m_folded;
    mutable std::string m_size;
    mutable std::vector<Node> m_nodes;
    std::map<StepId, Scene> m_scenes; ///< by the first step, of a folded phase by its last
    // While a step is dragged:
    int m_from = -1, m_to = -1;
    bool m_dragged = false;
    QPointF m_pressed, m_at;
    std::vector<QString> m_why;
};

} // namespace tectonis
