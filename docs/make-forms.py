#!/usr/bin/env python3
"""Writes docs/forms.md, docs/parts.md and docs/forms/*.svg from what the program itself says of its forms and parts. Run after one has changed."""
import json
import pathlib
import subprocess

root = pathlib.Path(__file__).resolve().parent.parent
cli = root / "build/cli/tectonis-cli"
drawings = root / "docs/forms"
told = json.loads(subprocess.run([cli, "forms", "--json", "--drawings", drawings], check=True, capture_output=True, text=True).stdout)



def tables(dimensions, choices):
    """Markdown tables of dimensions and choices."""
    out = ["| dimension | default | range now | size rule | meaning |", "|---|---|---|---|---|"]
    out += [f"| `{d['name']}` | {d['default']}{d['unit'] if d['unit'] == '°' else ''} | {d['min_now']:g} to {d['max_now']:g} | {d['rule']} | {d['meaning']} |" for d in dimensions]
    if choices:
        out += ["", "| choice | options | meaning |", "|---|---|---|"]
        out += [f"| `{c['name']}` | {', '.join(o['label'] for o in c['options'])} | {c['meaning']} |" for c in choices]
    return out


lines = ["# Forms", "", "Every body form with its drawing, its dimensions and its choices, as `tectonis-cli forms --json` tells them. What they can carry is in [parts](parts.md).",
         "Lengths are in mm; a default may be a formula over other dimensions. Written by `docs/make-forms.py`.", ""]
for form in told["forms"]:
    own = {f["id"] for f in form["features"]}
    body = lambda things: [t for t in things if t["name"].split(".")[0] not in own]
    lines += [f"## {form['name']} (`{form['id']}`)", "", f"![{form['name']}](forms/{form['id']}.svg)", "", form["meaning"], ""]
    lines += tables(body(form["dimensions"]), body(form["choices"]))
    if form["features"]:
        lines += ["", "Begins with: " + ", ".join(f["name"].lower() for f in form["features"]) + "."]
    lines.append("")
(root / "docs/forms.md").write_text("\n".join(lines))

names = {form["id"]: form["name"] for form in told["forms"]}
lines = ["# Parts", "", "What forms can carry, in any number; dimensions are shown as they come to the first form that takes the part. Written by `docs/make-forms.py`.", ""]
for part in told["parts"]:
    lines += [f"## {part['name']} (`{part['kind']}`)", "", f"![{part['name']}](forms/part-{part['kind']}.svg)", "",
              "Carried by: " + ", ".join(names[f].lower() for f in part["forms"]) + "." + (" Needs: " + ", ".join(part["needs"]) + "." if part["needs"] else ""), ""]
    lines += tables(part["dimensions"], part["choices"]) + [""]
(root / "docs/parts.md").write_text("\n".join(lines))
