// SPDX-License-Identifier: GPL-3.0-or-later
// Handles tell the truth: when a dimension grows, its handle moves along its arrow by what the gain says, on pieces and
// on the mock-up.
#include "drawn.hpp"

#include "features/feature.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

using namespace tectonis;

namespace {

/// The design with a dimension @p mm larger in its middle size; nothing if its range does not allow that.
std::optional<Design> grownBy(const Design& d, const std::string& dimension, double mm)
{
    Design out = d;
    try {
        setDimensionMm(out, dimension, medium(d).values.at(dimension) + mm, d.sizes[1]);
    } catch (const InputError&) {
        return {};
    }
    return out;
}

struct Told {
    int handles = 0, skipped = 0;
};

/// Every handle of a design's middle size, on the pieces and on the mock-up.
void checkHandles(const Design& d, Told& told)
{
    const Pattern p = medium(d);
    for (std::size_t i = 0; i < p.handles.size(); ++i) {
        const Handle& h = p.handles[i];
        INFO(d.form << ": " << h.dimension << " on " << h.piece);
        REQUIRE(p.piece(h.piece));
        REQUIRE(p.values.contains(h.dimension));
        CHECK(norm(h.direction) == Approx(1));
        CHECK(h.gain != 0);
        const auto more = grownBy(d, h.dimension, 0.5);
        if (!more) {
            ++told.skipped;
            continue;
        }
        const Pattern q = medium(*more);
        if (q.handles.size() != p.handles.size()) {
            ++told.skipped;
            continue;
        }
        const Handle& k = q.handles[i];
        REQUIRE(k.dimension == h.dimension);
        const double moved = dot(k.at - h.at, h.direction), grew = q.values.at(h.dimension) - p.values.at(h.dimension);
        INFO("moved " << moved << " when it grew by " << grew << ", gain " << h.gain);
        CHECK(grew == Approx(0.5).margin(1e-6));
        if (std::abs(moved) > 1e-9) // else the piece is drawn about this point; the bench moves the piece instead
            CHECK(moved * h.gain == Approx(grew).margin(0.02));
        ++told.handles;
    }
    const Mockup m = mockupOf(d, p);
    for (std::size_t i = 0; i < m.handles.size(); ++i) {
        const MockupHandle& h = m.handles[i];
        INFO(d.form << ": " << h.dimension << " on the mock-up");
        REQUIRE(p.values.contains(h.dimension));
        CHECK(dot(h.direction, h.direction) == Approx(1));
        const auto more = grownBy(d, h.dimension, 0.5);
        if (!more) {
            ++told.skipped;
            continue;
        }
        const Mockup n = mockupOf(*more, medium(*more));
        REQUIRE(n.handles.size() == m.handles.size());
        const double moved = dot(n.handles[i].at - h.at, h.direction);
        INFO("moved " << moved << ", gain " << h.gain);
        CHECK(moved * h.gain == Approx(0.5).margin(0.05));
        ++told.handles;
    }
}

} // namespace

TEST_CASE("Every handle of every form moves along its arrow as its dimension grows")
{
    Told told;
    for (const Form* form : forms())
        checkHandles(newDesign(form->id()), told);
    CHECK(told.handles > 60);
    CHECK(told.skipped < told.handles / 10);
}

TEST_CASE("Every handle of every part moves along its arrow as its dimension grows")
{
    Told told;
    for (const char* form : {"boxed-corner", "roll-top", "gusseted-satchel", "polygon"})
        for (const FeatureKind* kind : featureKinds()) {
            Design d = newDesign(form);
            try {
                addFeature(d, kind->kind());
            } catch (const InputError&) {
                continue; // this form cannot carry it
            }
            checkHandles(d, told);
        }
    CHECK(told.handles > 200);
    CHECK(told.skipped < told.handles / 10);
}
