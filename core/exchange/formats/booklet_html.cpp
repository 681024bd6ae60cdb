// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/booklet_html.hpp"

#include "formats/scene_svg.hpp"
#include "formats/xml.hpp"

#include <fmt/format.h>

namespace tectonis {
namespace {

constexpr const char* kStyle = R"(
:root{color-scheme:light}
body{font:17px/1.5 Inter,system-ui,sans-serif;color:#332c25;background:#faf7f1;margin:0 auto;max-width:1080px;padding:24px 20px 80px}
h1{font-size:34px;margin:0}h2{font-size:22px;margin:40px 0 8px}h3{font-size:19px;margin:0 0 4px}
p{margin:0 0 8px}.quiet{color:#6a6157}
table{border-collapse:collapse;width:100%}th,td{text-align:left;vertical-align:top;padding:5px 12px 5px 0;border-bottom:1px solid #d9d1c3}
.scroll{overflow-x:auto}
article{display:grid;grid-template-columns:minmax(0,1fr) minmax(0,470px);gap:8px 24px;border-top:1px solid #d9d1c3;padding:16px 0}
article label{display:flex;gap:12px;cursor:pointer}article input{width:26px;height:26px;flex:none;margin:2px 0 0;accent-color:#b53b1e}
article svg{max-width:100%;height:auto}article.done .words{opacity:.45}.figure{display:flex;flex-direction:column;gap:6px;align-items:center}
.figure div{display:flex;gap:6px;align-items:center}
.check{font-weight:500}.caution{color:#9a2e12}
body.short .more{display:none}
nav{position:sticky;top:0;background:#faf7f1;border-bottom:1px solid #d9d1c3;padding:8px 0;display:flex;gap:16px;align-items:center;z-index:1}
button{font:inherit;padding:6px 14px;border:1px solid #b9ae9d;border-radius:6px;background:#fff;cursor:pointer}
@media(max-width:760px){article{grid-template-columns:1fr}}
@media print{nav,input{display:none}article{break-inside:avoid}}
)";

/// Ticks live in the reader's own browser, by the design's name and the step's id.
constexpr const char* kScript = R"(
const key='tectonis '+document.title,boxes=[...document.querySelectorAll('input[data-step]')],count=document.getElementById('count');
let ticked={};try{ticked=JSON.parse(localStorage.getItem(key))||{}}catch(e){}
function show(){let n=0;for(const b of boxes){b.checked=!!ticked[b.dataset.step];b.closest('article').classList.toggle('done',b.checked);n+=b.checked}count.textContent=n+' / '+boxes.length}
for(const b of boxes)b.addEventListener('change',()=>{ticked[b.dataset.step]=b.checked;try{localStorage.setItem(key,JSON.stringify(ticked))}catch(e){}show()});
document.getElementById('again').addEventListener('click',()=>{ticked={};try{localStorage.removeItem(key)}catch(e){}show()});
document.getElementById('short').addEventListener('click',()=>document.body.classList.toggle('short'));
show();
)";

class Page {
public:
    Page(const Booklet& b, Unit unit, const Language& language) : b(b), m_unit(unit), m_language(language) {}

    std::string html()
    {
        m_out = fmt::format(
            "<!DOCTYPE html>\n<html lang=\"{}\">\n<head>\n<meta charset=\"utf-8\">\n<meta name=\"viewport\" "
            "content=\"width=device-width, initial-scale=1\">\n<title>{}</title>\n<style>{}{}</style>\n"
            "</head>\n<body>\n<svg width=\"0\" height=\"0\" style=\"position:absolute\">{}</svg>\n",
            m_language.id(), escaped(b.title), kStyle, sceneStyle(), sceneTextures());
        cover();
        for (const auto& table : b.before)
            add(table);
        steps();
        for (const auto& table : b.after)
            add(table);
        for (const auto& list : b.closing) {
            tag("h2", list.heading);
            for (const auto& line : list.lines)
                tag("p", line);
        }
        m_out += fmt::format("<script>{}</script>\n</body>\n</html>\n", kScript);
        return std::move(m_out);
    }

private:
    std::string said(const Message& m) const { return words(m, m_unit, m_language); }
    void tag(const char* name, const std::string& text, const char* of = "")
    {
        if (!text.empty())
            m_out += *of ? fmt::format("<{} class=\"{}\">{}</{}>\n", name, of, escaped(text), name)
                         : fmt::format("<{}>{}</{}>\n", name, escaped(text), name);
    }

    void cover()
    {
        m_out += sceneSvg(b.bag, 420, 340, m_unit, m_language, false);
        tag("h1", b.title);
        tag("p", b.studio, "quiet");
        tag("p", b.notes);
        for (const auto& fact : b.facts)
            tag("p", fact);
    }

    void add(const BookletTable& table)
    {
        tag("h2", table.heading);
        tag("p", table.note, "quiet");
        m_out += "<div class=\"scroll\"><table>\n";
        for (std::size_t r = 0; r < table.rows.size(); ++r) {
            m_out += "<tr>";
            for (const auto& cell : table.rows[r])
                m_out += r == 0 ? "<th scope=\"col\">" + escaped(cell) + "</th>" : "<td>" + escaped(cell) + "</td>";
            m_out += "</tr>\n";
        }
        m_out += "</table></div>\n";
    }

    void steps()
    {
        tag("h2", said(say("Steps")));
        tag("p", b.aboutFigures, "quiet");
        m_out += fmt::format("<nav><span id=\"count\"></span> <button type=\"button\" id=\"short\">{}</button> <button "
                             "type=\"button\" id=\"again\">{}</button></nav>\n",
            escaped(said(say("Short or full"))), escaped(said(say("Begin again"))));
        std::string phase;
        int number = 0;
        for (const auto& s : b.steps) {
            if (s.phase != phase)
                tag("h2", phase = s.phase, "quiet");
            step(s, ++number);
        }
    }

    void step(const BookletStep& s, int number)
    {
        m_out += fmt::format("<article>\n<div class=\"words\">\n<label><input type=\"checkbox\" data-step=\"{}\"><span "
                             "class=\"name\"><b>{}. {}</b></span></label>\n",
            escaped(s.id.text()), number, escaped(s.title));
        tag("p", s.text, "more");
        tag("p", s.facts, "quiet");
        if (!s.why.empty())
            tag("p", said(say("Why now: {}", s.why)), "facts more");
        if (!s.check.empty())
            tag("p", said(say("Check: {}", s.check)), "check more");
        for (const auto& caution : s.cautions)
            tag("p", said(say("Caution: {}", caution)), "caution");
        m_out += "</div>\n<div class=\"figure\">\n";
        for (const auto& figure : s.figures) {
            const bool beside = !figure.section.empty() || !figure.soFar.empty();
            m_out += sceneSvg(figure.plan, 460, 300, m_unit, m_language, false);
            if (beside)
                m_out += "<div>" + sceneSvg(figure.section, 260, 130, m_unit, m_language, false)
                    + sceneSvg(figure.soFar, 190, 150, m_unit, m_language, false) + "</div>\n";
        }
        m_out += "</div>\n</article>\n";
    }

    const Booklet& b;
    Unit m_unit;
    const Language& m_language;
    std::string m_out;
};

} // namespace

std::string bookletHtml(const Booklet& booklet, Unit unit, const Language& language)
{
    return Page(booklet, unit, language).html();
}

} // namespace tectonis
