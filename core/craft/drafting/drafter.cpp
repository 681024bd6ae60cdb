// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/drafter.hpp"

#include "drafting/turned.hpp"

#include "buildup/layers.hpp"
#include "design/formula.hpp"
#include "drafting/unlined.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

namespace tectonis {

Drafter::Drafter(const Design& givenDesign, Values values, std::size_t size) : design(givenDesign)
{
    pattern.size = design.sizes[size];
    pattern.sizeAt = size;
    pattern.values = std::move(values);
    pattern.choices = design.choices;
    pattern.materials = {design.materials.begin(), design.materials.end()};
    pattern.library = design.library;
    pattern.workshop = design.workshop;
    pattern.workings.reserve(64);
}

double Drafter::operator()(std::string_view dimension) const
{
    const auto it = pattern.values.find(dimension);
    if (it == pattern.values.end())
        throw InputError(std::string(dimension), say("the design has no such dimension"));
    return it->second;
}

const std::string& Drafter::choice(const std::string& name) const
{
    const auto it = pattern.choices.find(name);
    if (it == pattern.choices.end())
        throw InputError(name, say("the design makes no such choice"));
    return it->second;
}

std::string Drafter::firstOf(const std::string& kind) const
{
    const auto it = std::find_if(
        design.features.begin(), design.features.end(), [&](const Feature& f) { return f.kind == kind; });
    return it == design.features.end() ? "" : it->id;
}

std::string Drafter::freeCode(const std::string& letter)
{
    for (int& i = m_lastCode.try_emplace(letter, 1).first->second;; ++i)
        if (std::string code = letter + std::to_string(i); !pattern.pieceByCode(code))
            return code;
}

Site& Drafter::site(const SiteId& name)
{
    for (auto& s : pattern.sites)
        if (s.name == name)
            return s;
    throw InputError(name.text(),
        unlined(*this) ? say("a bag without a lining has no such face: put the part on another, or take it out")
                       : say("this form has no such face"));
}

Piece& Drafter::pieceAt(const Site& site, double y)
{
    for (const auto& key : site.pieces)
        if (const Box box = boundsOf(piece(key).stitch()); y <= box.y1 + 1e-9 && y >= box.y0 - 1e-9)
            return piece(key);
    return piece(site.pieces.front());
}

Working worked(Working w)
{
    w.result = evaluateFormula(w.formula, [&](const std::string& name) {
        for (const auto& in : w.inputs)
            if (in.name == name)
                return in.value;
        throw std::logic_error("working " + w.key.text() + " lacks the input " + name);
    });
    return w;
}

double Drafter::work(Working w)
{
    pattern.workings.push_back(worked(std::move(w)));
    return pattern.workings.back().result;
}

Piece& Drafter::add(Piece piece)
{
    if (pattern.piece(piece.key))
        throw std::logic_error("two pieces are called " + piece.key.text());
    return pattern.pieces.emplace_back(std::move(piece));
}

Piece& Drafter::piece(const PieceId& key)
{
    for (auto& p : pattern.pieces)
        if (p.key == key)
            return p;
    throw std::logic_error("no piece " + key.text());
}

Piece& Drafter::partOf(const PieceId& whole, Point at)
{
    // What lies beyond all of them is of the nearest: the checks tell it.
    Piece* nearest = nullptr;
    double least = 1e300;
    for (auto& p : pattern.pieces)
        if (p.whole == whole) {
            const Box box = boundsOf(p.stitch());
            if (const double off = std::max({at.y - box.y1, box.y0 - at.y, 0.0}); off < least - 1e-9)
                nearest = &p, least = off;
        }
    return nearest ? *nearest : piece(whole);
}

namespace {

template <class Item> void addOnce(std::vector<Item>& list, const Item& item)
{
    if (std::find(list.begin(), list.end(), item) == list.end())
        list.push_back(item);
}

/// Does an act put a row along its seams?
bool sewsItsSeams(const Pattern& p, const Act& act, const SeamId& key)
{
    using Verb = Act::Verb;
    switch (act.verb) {
    case Verb::Press:
    case Verb::Overcast:
    case Verb::Fell:
    case Verb::BagSeam:
    case Verb::FoldIn:
    case Verb::Grade:
    case Verb::Notch:
    case Verb::Turn:
    case Verb::TurnBag:
    case Verb::Clip: return false;
    case Verb::Lay: return p.seam(key) && p.seam(key)->stitch == "baste"; // not the one in which it is caught later
    default: return true;
    }
}

} // namespace

Step gathered(const Pattern& p, Step step)
{
    const bool namesPieces = !step.pieces.empty();
    for (const auto& act : step.acts) {
        for (const auto& key : act.seams) {
            if (sewsItsSeams(p, act, key))
                addOnce(step.seams, key);
            if (const Seam* seam = p.seam(key); seam && !namesPieces && act.verb != Act::Verb::Lay)
                for (const auto* side : {&seam->a, &seam->b})
                    for (const auto& use : *side)
                        addOnce(step.pieces, use.piece);
        }
        if (!namesPieces && act.verb != Act::Verb::HoldAway)
            for (const auto& piece : act.pieces)
                if (p.piece(piece))
                    addOnce(step.pieces, piece);
        for (const auto& fitting : act.fittings)
            addOnce(step.fittings, fitting);
        if (act.verb == Act::Verb::OpenZip)
            for (const auto& zip : act.zips)
                addOnce(step.opensZips, zip);
        step.turnsThrough |= act.verb == Act::Verb::TurnBag;
    }
    return step;
}

Seam& Drafter::add(Seam seam) { return pattern.seams.emplace_back(std::move(seam)); }
Step& Drafter::add(Step step) { return steps.emplace_back(gathered(pattern, std::move(step))); }

void Drafter::addFlatWork(Step step)
{
    const auto at = std::find_if(
        steps.begin(), steps.end(), [&](const Step& s) { return s.phase == step.phase && s.kind == StepKind::Seam; });
    steps.insert(at, gathered(pattern, std::move(step)));
}

void Drafter::addBeforeJoining(Step step)
{
    const WorkId part = step.consumes.front();
    const auto at = std::find_if(steps.begin(), steps.end(), [&](const Step& s) {
        return s.yields != part && std::find(s.consumes.begin(), s.consumes.end(), part) != s.consumes.end();
    });
    steps.insert(at, gathered(pattern, std::move(step)));
}

void Drafter::addBeforeUse(Step step, const std::vector<WorkId>& parts)
{
    const auto at = std::find_if(steps.begin(), steps.end(), [&](const Step& s) {
        return std::find_first_of(s.consumes.begin(), s.consumes.end(), parts.begin(), parts.end()) != s.consumes.end();
    });
    steps.insert(at, gathered(pattern, std::move(step)));
}

void Drafter::addOnTop(Step step, const WorkId& part)
{
    auto at = std::find_if(steps.begin(), steps.end(), [&](const Step& s) {
        const bool lines = std::any_of(
            s.acts.begin(), s.acts.end(), [](const Act& act) { return act.verb == Act::Verb::Line; });
        return (lines || s.yields != part) && std::find(s.consumes.begin(), s.consumes.end(), part) != s.consumes.end();
    });
    // What is caught in the part's seams later lies over all else and hangs about: it comes last.
    const auto catches = [](const Step& s) {
        return std::any_of(s.acts.begin(), s.acts.end(), [](const Act& act) { return act.verb == Act::Verb::Lay; });
    };
    const auto takes = [](const Step& s, const WorkId& what) {
        return std::find(s.consumes.begin(), s.consumes.end(), what) != s.consumes.end();
    };
    if (!catches(step))
        for (auto it = at; it != steps.begin();) {
            --it;
            const bool onPart = it->yields == part && takes(*it, part);
            if ((onPart && !catches(*it)) || takes(step, it->yields != part ? it->yields : WorkId()))
                break; // it lies on that, or is made there
            if (onPart)
                at = it;
        }
    steps.insert(at, gathered(pattern, std::move(step)));
}

double Drafter::stack(const std::string& role, const PieceId& key, const std::string& materialRole) const
{
    return stackThickness(design, {role, key}, materialRole);
}

double Drafter::stack(const Piece& piece) const { return stackThickness(design, piece, piece.material); }

std::vector<EdgeUse> Drafter::runWithout(const PieceId& pieceKey, const EdgeId& without)
{
    const Piece& p = piece(pieceKey);
    const auto from = std::find_if(p.edges.begin(), p.edges.end(), [&](const Edge& e) { return e.name == without; });
    std::vector<EdgeUse> out;
    for (std::size_t i = 1; i < p.edges.size(); ++i)
        out.push_back({pieceKey, p.edges[(std::size_t(from - p.edges.begin()) + i) % p.edges.size()].name});
    return out;
}

std::vector<EdgeUse> Drafter::runFromTo(const PieceId& pieceKey, const EdgeId& first, const EdgeId& last)
{
    const Piece& p = piece(pieceKey);
    const auto at = std::find_if(p.edges.begin(), p.edges.end(), [&](const Edge& e) { return e.name == first; });
    if (at == p.edges.end())
        throw std::logic_error(pieceKey.text() + " has no edge " + first.text());
    std::vector<EdgeUse> out;
    for (std::size_t i = 0; i < p.edges.size(); ++i) {
        const Edge& e = p.edges[(std::size_t(at - p.edges.begin()) + i) % p.edges.size()];
        out.push_back({pieceKey, e.name});
        if (e.name == last)
            return out;
    }
    throw std::logic_error(pieceKey.text() + " has no edge " + last.text());
}

std::vector<SeamRound> seamsRound(const Pattern& p, const Site& site)
{
    const auto ofFace = [&](const EdgeUse& u) {
        return std::find(site.pieces.begin(), site.pieces.end(), u.piece) != site.pieces.end();
    };
    const auto ofLining = [&](const EdgeUse& u) {
        const Piece* piece = p.piece(u.piece);
        return piece && piece->coat == Coat::Lining;
    };
    std::vector<SeamRound> out;
    for (const auto& seam : p.seams) {
        const bool a = std::all_of(seam.a.begin(), seam.a.end(), ofFace),
                   b = std::all_of(seam.b.begin(), seam.b.end(), ofFace);
        const bool lined = std::any_of(seam.a.begin(), seam.a.end(), ofLining)
            || std::any_of(seam.b.begin(), seam.b.end(), ofLining);
        if (a != b && !lined && !seam.mouth && seam.stitch == "construction")
            out.push_back({seam.key, a});
    }
    return out;
}

std::vector<EdgeUse> reversedRun(std::vector<EdgeUse> run)
{
    std::reverse(run.begin(), run.end());
    for (auto& use : run)
        use.reversed = !use.reversed;
    return run;
}

FeatureScope::FeatureScope(Drafter& drafter, const PartId& part) : d(drafter), id(part)
{
    const auto& all = d.design.features;
    if (const auto own = std::find_if(all.begin(), all.end(), [&](const Feature& f) { return id == f.id; });
        own != all.end())
        m_nth = int(std::count_if(all.begin(), own + 1, [&](const Feature& f) { return f.kind == own->kind; }));
}

Site& FeatureScope::site() const
{
    const std::string& chosen = choice("site");
    Site& out = d.site(SiteId(chosen));
    if (out.turn != 0 && !m_stood)
        m_stood = std::make_shared<StoodUp>(d.pattern, chosen);
    return out;
}

void FeatureScope::offer(std::string_view face, Message label, const PieceId& piece, Point at, double width,
    double height, const std::string& phase)
{
    const Site own = site(); // the list grows
    // Choices name it by its text.
    d.pattern.sites.push_back({SiteId(key(face).text()), std::move(label), {piece}, at.x, at.y, width, height,
        phase.empty() ? own.phase : phase, d.piece(piece).coat == Coat::Lining});
}

void FeatureScope::placeOn(Piece& face, const EdgeId& mark, const Run& outline)
{
    face.lines.push_back({mark, FaceLine::Kind::Placement, outline});
    const Box area = boundsOf(outline);
    d.pattern.places.push_back({id, face.key, area, {area.centre().x, area.y1}});
}

void FeatureScope::handle(std::string_view name, const PieceId& piece, Point at, Point direction, double gain,
    Handle::From from, const Box& grip)
{
    d.pattern.handles.push_back({dimension(name), piece, at, direction, gain, id, from, grip});
}

void FeatureScope::handleTo(
    std::string_view name, const PieceId& piece, Point at, Point there, double by, const Box& grip)
{
    if (const double far = distance(at, there); far > 1e-3)
        handle(
            name, piece, at, (there - at) * ((by < 0 ? -1 : 1) / far), std::abs(by) / far, Handle::From::Nowhere, grip);
}

Message FeatureScope::named(Message name) const { return m_nth > 1 ? say("{} {}", name, m_nth) : name; }

EdgeId FeatureScope::line(const std::string& name) const { return EdgeId(m_nth > 1 ? name + " " + id.text() : name); }

double FeatureScope::operator()(std::string_view dimension) const
{
    const auto own = d.pattern.values.find(key(dimension).text());
    return own != d.pattern.values.end() ? own->second : d(dimension);
}

} // namespace tectonis
