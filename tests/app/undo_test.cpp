// SPDX-License-Identifier: GPL-3.0-or-later
// A long walk of edits over forms and parts, back and forth: every state comes back byte for byte.
#include "document.hpp"

#include "features/feature.hpp"
#include "files/files.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"

#include <catch2/catch.hpp>

#include <random>

using namespace tectonis;

namespace {

class Walker {
public:
    explicit Walker(unsigned seed) : m_random(seed) {}

    /// One edit of a random kind; false if it was refused or changed nothing.
    bool step(Document& doc)
    {
        const int before = doc.undoStack().index();
        const QString merge = one(6) == 0 ? "drag" : QString();
        doc.edit(
            "step", [&](Design& d) { change(d, doc); }, merge);
        return doc.undoStack().index() != before;
    }
    int one(int n) { return n < 1 ? 0 : int(m_random() % unsigned(n)); }

private:
    template <class Map> auto pick(Map& map) { return std::next(map.begin(), one(int(map.size()))); }

    void change(Design& d, const Document& doc)
    {
        switch (std::min(one(20), 11)) {
        case 0: change::addPart(d, featureKinds()[std::size_t(one(int(featureKinds().size())))]->kind()); break;
        case 1:
            if (!d.features.empty())
                change::removePart(d, d.features[std::size_t(one(int(d.features.size())))].id);
            break;
        case 2:
            if (one(6) == 0)
                d = reformed(d, forms()[std::size_t(one(int(forms().size())))]->id()).design;
            break;
        case 3: {
            const auto& spec = doc.spec().choices[std::size_t(one(int(doc.spec().choices.size())))];
            change::choice(d, spec.name, spec.options[std::size_t(one(int(spec.options.size())))].first);
            break;
        }
        case 4: {
            const auto role = pick(d.materials);
            const auto& all = d.library->materials();
            change::material(d, role->first, all[std::size_t(one(int(all.size())))].id);
            break;
        }
        case 5: {
            const auto dimension = pick(d.dimensions);
            static const char* rules[] = {"hold", "step 5", "step -3", "ratio 1.05", "follow"};
            change::rule(d, dimension->first, parseRule(rules[one(5)]));
            break;
        }
        case 6:
            if (d.carried.size() > 3)
                d.carried.pop_back();
            else
                d.carried.push_back({"thing", 50.0 + one(100), 50.0 + one(100), 5.0 + one(30), "main"});
            break;
        case 7: {
            static const std::vector<std::vector<std::string>> lists{{"M"}, {"S", "M"}, {"M", "L"}};
            change::sizes(d, lists[std::size_t(one(3))], "M");
            break;
        }
        default: {
            const auto& [name, value] = *pick(doc.pattern().values);
            if (d.dimensions.contains(name))
                change::dimensionMm(d, name, value * (0.8 + one(40) / 100.0), doc.pattern().size);
        }
        }
    }
    std::mt19937 m_random;
};

} // namespace

TEST_CASE("Thousands of edits over forms and parts, with undo and redo between them: every file comes back byte "
          "for byte",
    "[.long]")
{
    // 10,000 take minutes: with TECTONIS_EDITS=10000 they are tried.
    const int most = qEnvironmentVariableIntValue("TECTONIS_EDITS") > 0 ? qEnvironmentVariableIntValue("TECTONIS_EDITS")
                                                                        : 2500;
    Document doc;
    Design first = newDesign("gusseted-satchel");
    setSizes(first, {"M"}, "M");
    doc.takeOver(first, {});
    Walker walker(20261126);
    const auto file = [&] { return stampOfBytes(designText(doc.design())); };
    std::vector<std::string> files{file()}; // by place in the undo stack
    int edits = 0, wrong = 0;
    const auto here = [&] { return std::size_t(doc.undoStack().index()); };
    const auto look = [&] { wrong += file() != files[here()]; };
    while (edits < most) {
        if (walker.one(8) == 0) {
            for (int n = walker.one(5); n > 0 && doc.undoStack().canUndo(); --n)
                doc.undoStack().undo(), look();
            for (int n = walker.one(4); n > 0 && doc.undoStack().canRedo(); --n)
                doc.undoStack().redo(), look();
        }
        if (walker.step(doc))
            ++edits;
        // A drag may have gone on, or back to where it began; a refused edit leaves all as it was, also what can be
        // done again.
        files.resize(std::size_t(doc.undoStack().count()) + 1);
        files[here()] = file();
    }
    CHECK(wrong == 0);
    const std::size_t last = here();
    while (doc.undoStack().canUndo())
        doc.undoStack().undo(), look();
    CHECK(doc.design() == first);
    while (here() < last)
        doc.undoStack().redo(), look();
    CHECK(wrong == 0);
}
