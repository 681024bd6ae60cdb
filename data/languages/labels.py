# Labels of dimensions and options, from `tectonis-cli forms --json`, as entries of a catalogue.
import json
import sys

found = {"error", "warning", "note"}
told = json.load(sys.stdin)
for owner in told["forms"] + told["parts"]:
    for d in owner["dimensions"]:
        found.add(d.get("label", ""))
    for choice in owner.get("choices", []):
        found.add(choice.get("label", ""))
print('\nmsgid ""\nmsgstr ""\n"Content-Type: text/plain; charset=UTF-8\\n"\n')
for label in sorted(found - {""}):
    print('msgid %s\nmsgstr ""\n' % json.dumps(label, ensure_ascii=False))
