#!/usr/bin/env python3
"""Writes docs/forms.md and docs/forms/*.svg from what the program itself says of its forms. Run after a form has changed."""
import json
import pathlib
import subprocess

root = pathlib.Path(__file__).resolve().parent.parent
cli = root / "build/cli/tectonis-cli"
drawings = root / "docs/forms"
told = json.loads(subprocess.run([cli, "forms", "--json", "--drawings", drawings], check=True, capture_output=True, text=True).stdout)

lines = ["# Forms", "", "Every body form with its drawing, its dimensions and its choices, as `tectonis-cli forms --json` tells them.",
         "Lengths are in mm; a default may be a formula over other dimensions. Written by `docs/make-forms.py`.", ""]
for form in told["forms"]:
    own = {f["id"] for f in form["features"]}
    lines += [f"## {form['name']} (`{form['id']}`)", "", f"![{form['name']}](forms/{form['id']}.svg)", "", form["meaning"], "",
              "| dimension | default | range now | size rule | meaning |", "|---|---|---|---|---|"]
    for d in form["dimensions"]:
        if d["name"].split(".")[0] not in own:
            lines.append(f"| `{d['name']}` | {d['default']} | {d['min_now']:g} to {d['max_now']:g} | {d['rule']} | {d['meaning']} |")
    choices = [c for c in form["choices"] if c["name"].split(".")[0] not in own]
    if choices:
        lines += ["", "| choice | options | meaning |", "|---|---|---|"]
        lines += [f"| `{c['name']}` | {', '.join(o['label'] for o in c['options'])} | {c['meaning']} |" for c in choices]
    if form["features"]:
        lines += ["", "Begins with: " + ", ".join(f["name"].lower() for f in form["features"]) + "."]
    lines.append("")
(root / "docs/forms.md").write_text("\n".join(lines))
