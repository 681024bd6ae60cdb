# Makes the test language from tectonis.pot: every letter accented, a third longer, the arguments in another order,
# decimal comma. What stays English in it was never collected.
import re
import sys

ACCENTS = str.maketrans("aceinorsuyzACEINORSUYZ", "àçèîñôřšûýžÀÇÈÎÑÔŘŠÛÝŽ")


def accented(source):
    """The text of a source string as the .po file writes it, quoted lines joined."""
    parts = re.split(r"(\{\d*\})", source)
    count = 0
    out = []
    for part in parts:
        if re.fullmatch(r"\{\d*\}", part):
            out.append("{%s}" % (part[1:-1] or count))
            count += 1
        else:
            out.append(re.sub(r"(\\.)|([^\\]+)", lambda m: m.group(1) or m.group(2).translate(ACCENTS), part))
    places = [i for i, p in enumerate(out) if re.fullmatch(r"\{\d+\}", p)]
    for i, p in zip(places, [out[i] for i in reversed(places)]):
        out[i] = p
    words = "".join(out)
    return "⟦" + words + " " + "ëñ" * max(1, len(words) // 6) + "⟧"


def main():
    text = sys.stdin.read()
    print('msgid ""\nmsgstr ""\n"Content-Type: text/plain; charset=UTF-8\\n"\n"X-Decimal: ,\\n"\n'
          '"Plural-Forms: nplurals=2; plural=(n != 1);\\n"\n')
    for block in re.split(r"\n\s*\n", text):
        entry = {}
        field = None
        for line in block.splitlines():
            m = re.match(r'(msgid_plural|msgid|msgstr(?:\[\d\])?)\s+"(.*)"$', line)
            if m:
                field = m.group(1)
                entry[field] = m.group(2)
            elif line.startswith('"') and field:
                entry[field] += line[1:-1]
        if not entry.get("msgid"):
            continue
        print('msgid "%s"' % entry["msgid"])
        if "msgid_plural" in entry:
            print('msgid_plural "%s"' % entry["msgid_plural"])
            print('msgstr[0] "%s"' % accented(entry["msgid"]))
            print('msgstr[1] "%s"\n' % accented(entry["msgid_plural"]))
        else:
            print('msgstr "%s"\n' % accented(entry["msgid"]))


main()
