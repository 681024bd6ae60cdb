// SPDX-License-Identifier: GPL-3.0-or-later
#include "booklet/booklet.hpp"

#include "booklet/glossary.hpp"
#include "editing/draft.hpp"
#include "library/library.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/told.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace tectonis {
namespace {

/// Writes one booklet.
class Writing {
public:
    Writing(const Design& design, const std::vector<const Pattern*>& patterns, Unit unit, const Language& language,
        const BookletManner& manner)
        : m_design(design),
          m_edition(design, patterns),
          m_unit(unit),
          m_language(manner.beside ? language.beside(*manner.beside) : language),
          m_terse(manner.terse)
    {}

    Booklet booklet()
    {
        Booklet out;
        out.title = m_design.name, out.studio = m_design.studio, out.notes = m_design.notes;
        const Pattern& first = *m_edition.patterns().front();
        std::vector<AllSizes<Step>> group; // told as one
        for (const auto& row : m_edition.steps())
            if (const StepId id = row.any().id; !first.hidden.contains(id)) {
                if (!group.empty() && first.joined.contains({group.back().any().id, id})) {
                    group.push_back(row);
                    tellAsOne(out.steps.back(), step(row), row);
                } else {
                    group = {row};
                    out.steps.push_back(step(row));
                }
                out.steps.back().facts = factsOfSteps(group);
            }
        out.facts = facts();
        out.bag = bag();
        out.before = {materials(), notions(), cutList()};
        if (BookletTable table = layers(); table.rows.size() > 1)
            out.before.push_back(std::move(table));
        if (m_edition.patterns().size() > 1)
            out.aboutFigures = said(
                say("Figures show size {}, or the first size that has the step; lengths in the text "
                    "are those of every size.",
                    m_edition.patterns().front()->size));
        out.after = {seams(), terms()};
        std::erase_if(out.after, [](const BookletTable& t) { return t.rows.size() < 2; });
        if (BookletList list = corrections(); !list.lines.empty())
            out.closing.push_back(std::move(list));
        if (BookletList list = care(); !list.lines.empty())
            out.closing.push_back(std::move(list));
        out.closing.push_back({said(say("Before you sell or load it")),
            {said(say("Local safety rules and product-safety law go first. Load ratings need testing by someone "
                      "qualified."))}});
        return out;
    }

private:
    std::string said(const Message& m) const { return words(m, m_unit, m_language); }
    std::vector<std::string> head(std::initializer_list<Message> cells) const
    {
        std::vector<std::string> out;
        for (const auto& cell : cells)
            out.push_back(said(cell));
        return out;
    }

    std::vector<std::string> facts() const
    {
        std::vector<std::string> finished, minutes;
        for (const auto* p : m_edition.patterns()) {
            finished.push_back(m_language.lengthBare(p->width, m_unit) + " × "
                + m_language.lengthBare(p->height, m_unit) + " × " + m_language.length(p->depth, m_unit));
            minutes.push_back(said(say("{} h", Num(minutesOf(*p) / 60, 1))));
        }
        std::vector<std::string> out{said(say("Finished width × height × depth: {}", m_edition.bySize(finished))),
            said(say("Time for one bag, cutting not counted: about {}", m_edition.bySize(minutes)))};
        if (!m_toolNames.empty())
            out.push_back(said(say("Tools: {}", toolList())));
        if (!m_needles.empty()) {
            std::string list;
            for (const int needle : m_needles)
                list += (list.empty() ? "" : ", ") + std::to_string(needle);
            out.push_back(said(say("Needles: {}", list)));
        }
        return out;
    }

    std::string toolList() const
    {
        std::string out;
        for (const auto& tool : m_toolNames)
            out += (out.empty() ? "" : ", ") + tool;
        return out;
    }

    Scene bag() const
    {
        const Pattern& p = *m_edition.patterns().front();
        std::set<PieceId> all;
        for (const auto& piece : p.pieces)
            all.insert(piece.key);
        return soFar(p, mockupOf(m_design, p), all);
    }

    BookletTable materials() const
    {
        BookletTable out{said(say("Materials")), "", {0.46, 0.16, 0.38},
            {head({say("Material"), say("Cloth width"), say("Length to buy")})}};
        for (const auto& row : m_edition.markers()) {
            const Marker& m = row.any();
            out.rows.push_back({m_edition.material(m.material).name,
                m.clothWidth > 0 ? m_language.length(m.clothWidth, m_unit) : said(say("by the metre")),
                m_edition.bySize<Marker>(
                    row, [&](const Marker& each) { return m_language.number(each.soldLength / 1000, 1) + " m"; })});
        }
        return out;
    }

    BookletTable notions() const
    {
        BookletTable out{said(say("Notions")), "", {0.3, 0.14, 0.56}, {head({say("Part"), say("Count"), say("Size")})}};
        for (const auto& row : m_edition.notions())
            out.rows.push_back({said(labelled(called(row.any().kind))),
                m_edition.bySize<Hardware>(row, [](const Hardware& h) { return std::to_string(h.count); }),
                m_edition.bySize<Hardware>(row, [&](const Hardware& h) { return said(h.sizeText); })});
        return out;
    }

    BookletTable cutList() const
    {
        BookletTable out{said(say("Cut list")),
            said(say("Width × height of the cut piece in {}. Interlinings carry the code of their piece.",
                m_language.sign(m_unit))),
            {0.09, 0.2, 0.28, 0.15, 0.28},
            {head({say("Code"), say("Piece"), say("Material"), say("Cut"), say("Width × height")})}};
        for (const auto& row : m_edition.cutList()) {
            const auto each = [&](const std::function<std::string(const CutItem&)>& value) {
                return m_edition.bySize<CutItem>(row, value);
            };
            out.rows.push_back({each([](const CutItem& i) { return i.code; }),
                m_edition.words<CutItem>(
                    row, [](const CutItem& i) { return i.name; }, m_unit, m_language),
                each([&](const CutItem& i) { return m_edition.material(i.material).name; }),
                each([&](const CutItem& i) {
                    return words(i.mirrored ? say("{} ({} mirrored)", i.count, i.mirrored) : say("{}", i.count),
                        Unit::Mm, m_language);
                }),
                each([&](const CutItem& i) {
                    const Box b = boundsOf(i.outline);
                    return m_language.lengthBare(b.width(), m_unit) + " × " + m_language.lengthBare(b.height(), m_unit);
                })});
        }
        return out;
    }

    /// What lies behind each piece, and how it is held.
    BookletTable layers() const
    {
        BookletTable out{said(say("Layers behind the pieces")), "", {0.12, 0.3, 0.33, 0.25},
            {head({say("Code"), say("Piece"), say("Layer"), say("Held by")})}};
        std::vector<std::vector<const Piece*>> lists;
        for (const auto* p : m_edition.patterns()) {
            lists.emplace_back();
            for (const auto& piece : p->pieces)
                if (!piece.layers.empty())
                    lists.back().push_back(&piece);
        }
        for (const auto& row : mergedById<Piece>(lists, [](const Piece& piece) { return SubjectId(piece.key); })) {
            const Piece& piece = row.any();
            for (const auto& layer : piece.layers)
                out.rows.push_back({layer.code, said(piece.name), m_edition.material(layer.material).name,
                    said(labelled(Label{layer.fixing}))});
        }
        return out;
    }

    /// Every seam of the body with both runs in all sizes: what was walked, so that a maker need not.
    BookletTable seams() const
    {
        BookletTable out{said(say("Seams, walked")),
            said(say("Stitch lengths in {}, from mark to mark on both pieces; a difference that is not stated as ease "
                     "would pucker.",
                m_language.sign(m_unit))),
            {0.34, 0.24, 0.24, 0.18}, {head({say("Seam"), say("One run"), say("Other run"), say("Ease")})}};
        for (const auto& row : m_edition.seams()) {
            if (row.any().stitch != "construction")
                continue;
            const auto each = [&](const std::function<std::string(const Seam&)>& value) {
                return m_edition.bySize<Seam>(row, value);
            };
            out.rows.push_back({m_edition.words<Seam>(
                                    row, [](const Seam& s) { return s.name; }, m_unit, m_language),
                each([&](const Seam& s) { return m_language.exactLengthBare(s.lengthA, m_unit); }),
                each([&](const Seam& s) { return m_language.exactLengthBare(s.lengthB, m_unit); }),
                each([&](const Seam& s) {
                    return std::abs(s.ease) < 0.005
                        ? said(say("none"))
                        : m_language.exactLength(s.ease, m_unit) + (s.easeNote.empty() ? "" : ", " + said(s.easeNote));
                })});
        }
        return out;
    }

    BookletTable terms() const
    {
        BookletTable out{said(say("Words used")), "", {0.22, 0.78}, {head({say("Word"), say("What it means")})}};
        for (const auto& term : glossaryOf(m_verbs))
            out.rows.push_back({said(labelled(term.word)), said(term.meaning)});
        return out;
    }

    /// For those who have an earlier one: what was changed, the latest first.
    BookletList corrections() const
    {
        BookletList out{said(say("Corrections of earlier revisions")), {}};
        for (auto at = m_design.revisions.rbegin(); at != m_design.revisions.rend(); ++at)
            if (!at->text.empty())
                out.lines.push_back(at->date.empty() ? at->text : said(say("{}: {}", at->date, at->text)));
        return out;
    }

    BookletList care() const
    {
        BookletList out{said(say("Care")), {}};
        std::set<MaterialId> used;
        for (const auto& row : m_edition.markers())
            used.insert(row.any().material);
        std::vector<const Material*> materials;
        for (const auto& id : used)
            materials.push_back(&m_edition.material(id));
        for (const auto& line : careOf(materials))
            out.lines.push_back(said(line));
        return out;
    }

    /// Sizes that have a step, where not all have it.
    std::string onlyIn(const AllSizes<Step>& row) const
    {
        std::string sizes;
        bool all = true;
        for (std::size_t i = 0; i < row.in.size(); ++i)
            if (row.in[i])
                sizes += (sizes.empty() ? "" : ", ") + m_edition.patterns()[i]->size;
            else
                all = false;
        return all ? std::string() : " " + said(say("({} only)", sizes));
    }

    /// What is told at a step in every size that has it.
    BookletStep step(const AllSizes<Step>& row)
    {
        const auto& patterns = m_edition.patterns();
        std::vector<StepWords> words(row.in.size());
        AllSizes<StepWords> all{row.id, {}};
        for (std::size_t i = 0; i < row.in.size(); ++i) {
            if (row.in[i])
                words[i] = told(*patterns[i], *row.in[i]);
            all.in.push_back(row.in[i] ? &words[i] : nullptr);
        }
        const auto part = [&](Message StepWords::*which) {
            return m_edition.words<StepWords>(
                all, [&](const StepWords& w) { return w.*which; }, m_unit, m_language);
        };
        const Step& s = row.any();
        BookletStep out{s.id, said(labelled(Label{s.phase})), "",
            part(m_terse && !words.front().own ? &StepWords::terse : &StepWords::text), "", m_terse ? "" : why(row),
            part(&StepWords::check),
            m_edition.sentences<StepWords>(
                all, [](const StepWords& w) { return w.cautions; }, m_unit, m_language),
            {}};
        out.title = m_edition.words<Step>(
                        row, [](const Step& each) { return each.title; }, m_unit, m_language)
            + onlyIn(row);
        remember(s, words);
        out.figures = {figure(row)};
        return out;
    }

    /// Tools, stitches, allowances and minutes of steps that are told as one, by size.
    std::string factsOfSteps(const std::vector<AllSizes<Step>>& group) const
    {
        const auto& patterns = m_edition.patterns();
        std::vector<std::string> facts(patterns.size()), minutes(patterns.size());
        for (std::size_t i = 0; i < patterns.size(); ++i) {
            std::set<std::string> known;
            double sum = 0;
            for (const auto& row : group)
                if (const Step* step = row.in[i]) {
                    for (const auto& fact : factsOf(told(*patterns[i], *step)))
                        if (const std::string one = said(fact); known.insert(one).second)
                            facts[i] += (facts[i].empty() ? "" : "; ") + one;
                    sum += minutesOf(*patterns[i], *step).result;
                    minutes[i] = said(say("{} min", Num(sum, 1)));
                }
        }
        std::string out;
        if (std::any_of(facts.begin(), facts.end(), [](const std::string& each) { return !each.empty(); }))
            out = m_edition.bySize(facts) + "; "; // not "none" for each size
        return out + m_edition.bySize(minutes);
    }

    /// A step told under the number of the one before it.
    void tellAsOne(BookletStep& first, BookletStep then, const AllSizes<Step>& row) const
    {
        const auto goOn = [](std::string& a, const std::string& b, const char* between) {
            if (!b.empty() && a.find(b) == std::string::npos)
                a += (a.empty() ? "" : between) + b;
        };
        first.title = said(say("{}, then {}", first.title, within(row.any().title))) + onlyIn(row);
        goOn(first.text, then.text, " ");
        goOn(first.why, then.why, " ");
        goOn(first.check, then.check, " ");
        for (auto& caution : then.cautions)
            if (std::find(first.cautions.begin(), first.cautions.end(), caution) == first.cautions.end())
                first.cautions.push_back(std::move(caution));
        for (auto& figure : then.figures)
            first.figures.push_back(std::move(figure));
    }

    /// The reasons that hold a step before later ones, as in the first size that has it.
    std::string why(const AllSizes<Step>& row)
    {
        const auto [p, at] = foldedFor(row);
        std::string out;
        int told = 0;
        for (const auto& binding : bindingsOf(*p, at->order, std::size_t(p->step(row.any().id) - p->steps.data())))
            if (binding.before && told < 2) {
                const std::string reason = capitalised(said(binding.reason));
                if (out.find(reason) == std::string::npos)
                    out += (out.empty() ? "" : " ") + reason, ++told;
            }
        return out;
    }

    /// Tools and verbs, for the lists that stand before and after the steps.
    void remember(const Step& s, const std::vector<StepWords>& words)
    {
        for (const auto& act : s.acts)
            m_verbs.insert(act.verb);
        for (const auto& w : words) {
            if (w.needle > 0)
                m_needles.insert(w.needle);
            for (const auto& tool : w.tools)
                if (const std::string name = said(tool);
                    std::find(m_toolNames.begin(), m_toolNames.end(), name) == m_toolNames.end())
                    m_toolNames.push_back(name);
        }
    }

    StepFigure figure(const AllSizes<Step>& row)
    {
        const auto [p, folded] = foldedFor(row);
        return figureOf(*p, row.any(), &folded->mockup, folded->order);
    }

    struct Folded {
        Mockup mockup;
        std::vector<std::size_t> order;
    };

    /// The first size that has a step, folded once.
    std::pair<const Pattern*, const Folded*> foldedFor(const AllSizes<Step>& row)
    {
        const auto has = std::find_if(row.in.begin(), row.in.end(), [](const Step* s) { return s != nullptr; });
        const Pattern* p = m_edition.patterns()[std::size_t(has - row.in.begin())];
        auto at = m_folded.find(p);
        if (at == m_folded.end())
            at = m_folded.emplace(p, Folded{mockupOf(m_design, *p), orderOf(m_design, *p)}).first;
        return {p, &at->second};
    }

    const Design& m_design;
    Edition m_edition;
    Unit m_unit;
    Language m_language;
    bool m_terse;
    std::set<Act::Verb> m_verbs;
    std::vector<std::string> m_toolNames;
    std::set<int> m_needles; ///< numbers, by all steps
    std::map<const Pattern*, Folded> m_folded;
};

} // namespace

Booklet bookletOf(const Design& design, const std::vector<const Pattern*>& patterns, Unit unit,
    const Language& language, const BookletManner& manner)
{
    return Writing(design, patterns, unit, language, manner).booklet();
}

} // namespace tectonis
