# Names, meanings and labels of forms, parts, dimensions and options, from `tectonis-cli forms --json`, as entries of a catalogue.
import json
import sys

found = {"error", "warning", "note"}
told = json.load(sys.stdin)
for owner in told["forms"] + told["parts"]:
    found.update((owner["name"], owner.get("meaning", "")))
    for d in owner["dimensions"]:
        found.update((d.get("label", ""), d.get("meaning", "")))
    for choice in owner.get("choices", []):
        found.update((choice.get("label", ""), choice.get("meaning", "")))
        found.update(option["label"] for option in choice["options"])
print('\nmsgid ""\nmsgstr ""\n"Content-Type: text/plain; charset=UTF-8\\n"\n')
for label in sorted(found - {""}):
    print('msgid %s\nmsgstr ""\n' % json.dumps(label, ensure_ascii=False))
