#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Checks the catalogue of words against the code: every id that is said is there with the arguments it gets, and none
is left over. Exits 1 on a difference."""
import json
import pathlib
import re
import sys

STRING = r'"((?:[^"\\\n]|\\.)*)"'
CALL = re.compile(r"\b(?:say|msg)\(\s*" + STRING)
FAMILY = re.compile(r'"([\w.-]+\.)"')
ARGUMENT = re.compile(r'\{\s*"(\w+)"\s*,')


SPANISH_PLAYBOOK = "playbook.json"


def catalogue(root, language="en"):
    words = {}
    for path in sorted((root / "data/words" / language).glob("*.json")):
        if path.name == SPANISH_PLAYBOOK:
            continue
        for name, pattern in json.loads(path.read_text(encoding="utf-8")).items():
            if name in words:
                raise SystemExit(f"{path.name}: \"{name}\" stands in two files")
            words[name] = pattern
    return words


def arguments_of(pattern):
    """Names of the arguments of an ICU pattern; the texts within choices are looked through too, their keys are none."""
    names, at = set(), 0
    while (match := re.compile(r"(?<!')\{\s*(\w+)\s*([,}])").search(pattern, at)) is not None:
        names.add(match[1])
        at = match.end()
        if match[2] == "}":
            continue
        end = closing(pattern, match.start())
        body = pattern[at:end]
        choice = re.match(r"\s*(plural|select|selectordinal)\s*,", body)
        if choice:  # of "key {text}" only the text is a pattern
            inner = choice.end()
            while (key := re.compile(r"\s*(?:=\d+|[\w-]+)\s*\{").match(body, inner)) is not None:
                stop = closing(body, key.end() - 1)
                names |= arguments_of(body[key.end():stop])
                inner = stop + 1
        at = end + 1
    return names


def closing(text, opening):
    depth = 0
    in_string = False
    i = opening
    while i < len(text):
        c = text[i]
        if in_string:
            if c == "\\":
                i += 1
            elif c == '"':
                in_string = False
        elif c == '"':
            in_string = True
        elif c in "([{":
            depth += 1
        elif c in ")]}":
            depth -= 1
            if depth == 0:
                return i
        i += 1
    return len(text)


def own_arguments(call):
    """The names given at the outermost level of {{"a", x}, {"b", y}}."""
    start = call.find("{")
    if start < 0:
        return set()
    names, depth, i = set(), 0, start
    while i < len(call):
        if call[i] == "{":
            depth += 1
            found = ARGUMENT.match(call, i)
            if depth == 2 and found:
                names.add(found[1])
        elif call[i] == "}":
            depth -= 1
        elif call[i] == '"':
            i = re.compile(STRING).match(call, i).end() - 1
        i += 1
    return names


def playbook_texts(root):
    """Every text of the playbook, whatever it is."""
    texts = set()

    def gather(value):
        if isinstance(value, str):
            texts.add(value)
        elif isinstance(value, dict):
            for part in value.values():
                gather(part)
        elif isinstance(value, list):
            for part in value:
                gather(part)

    for path in (root / "data/playbook").glob("*.json"):
        gather(json.loads(path.read_text(encoding="utf-8")))
    return texts


def wrong_in_spanish(root, english):
    """Patterns and sentences that English no longer has, or that ask for other arguments."""
    spanish = catalogue(root, "es")
    wrong = [f"data/words/es: \"{name}\" is not in English" for name in spanish if name not in english]
    for name, pattern in spanish.items():
        extra = arguments_of(pattern) - arguments_of(english.get(name, pattern))
        if extra:
            wrong.append(f"data/words/es: \"{name}\" asks for {', '.join(sorted(extra))}")
    texts = playbook_texts(root)
    sentences = json.loads((root / "data/words/es" / SPANISH_PLAYBOOK).read_text(encoding="utf-8"))
    for sentence, said in sentences.items():
        if sentence not in texts:
            wrong.append(f"data/words/es/{SPANISH_PLAYBOOK}: the playbook no longer says \"{sentence}\"")
        if arguments_of(sentence) != arguments_of(said):
            wrong.append(f"data/words/es/{SPANISH_PLAYBOOK}: other gaps in \"{sentence}\"")
    return wrong


def differences(root):
    words = catalogue(root)
    used, families, wrong = set(), set(), wrong_in_spanish(root, words)
    for path in sorted(p for folder in ("src", "apps") for p in (root / folder).rglob("*")):
        if path.suffix not in (".h", ".cpp"):
            continue
        text = path.read_text(encoding="utf-8")
        used.update(s for s in re.findall(STRING, text) if s in words)
        families.update(FAMILY.findall(text))
        for call in CALL.finditer(text):
            line = f"{path.relative_to(root)}:{text.count(chr(10), 0, call.start()) + 1}"
            name = call[1]
            if name.endswith("."):
                continue
            if name not in words:
                wrong.append(f"{line}: \"{name}\" is not in the catalogue")
                continue
            body = text[call.start():closing(text, text.index("(", call.start())) + 1]
            after = body[body.index(name) + len(name) + 1:]
            if not re.match(r"\s*(,|\))", after):
                continue  # one of two ids: both take the same arguments
            missing = arguments_of(words[name]) - own_arguments(after)
            if missing:
                wrong.append(f"{line}: \"{name}\" lacks {', '.join(sorted(missing))}")
    for name in words:
        if name not in used and not any(name.startswith(f) for f in families):
            wrong.append(f"data/words/en: nobody says \"{name}\"")
    return wrong


if __name__ == "__main__":
    found = differences(pathlib.Path(sys.argv[1] if len(sys.argv) > 1 else "."))
    print("\n".join(found) if found else "words: the catalogue and the code agree")
    sys.exit(1 if found else 0)
