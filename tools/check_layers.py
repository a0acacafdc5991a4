#!/usr/bin/env python3
"""Checks that every include follows the arrows of ARCHITECTURE.md. Exits 1 on a wrong arrow."""
import pathlib
import re
import sys

ARROWS = {
    "base": set(),
    "words": {"base"},
    "kinematics": {"base"},
    "coaching": {"base", "kinematics"},
    "review": {"base", "kinematics", "coaching"},
    "film": {"base"},
    "voice": {"base"},
    "library": {"base", "kinematics", "coaching", "review"},
    "letter": {"base", "words", "kinematics", "coaching", "review", "film", "voice"},
    "post": {"base", "words", "review"},
    "demo": {"base", "kinematics", "film"},
    "desk": {"base", "words", "kinematics", "coaching", "review", "film", "voice", "library", "letter", "post", "demo"},
}
ARROWS["ui"] = set(ARROWS) | {"ui"}
NO_QT = {"base", "words", "kinematics", "coaching", "review", "film", "post"}
NO_WIDGETS = set(ARROWS) - {"ui"}
WIDGETS = re.compile(r"<(QtWidgets|QWidget|QApplication|QMainWindow|QDialog|QLabel|QPushButton|Q\w*Layout|QLineEdit)\b")
INCLUDE = re.compile(r'^\s*#\s*include\s+(?:"([^"]+)"|<([^>]+)>)')


def wrong_arrows(root):
    wrong = []
    for path in sorted((root / "src").rglob("*")):
        if path.suffix not in (".h", ".cpp"):
            continue
        room = path.relative_to(root / "src").parts[0]
        for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
            found = INCLUDE.match(line)
            if not found:
                continue
            place = f"{path.relative_to(root)}:{number}"
            if found[1]:
                target = found[1].split("/")[0]
                if target not in ARROWS:
                    wrong.append(f"{place}: include \"{found[1]}\" by its room, as in \"film/reader.h\"")
                elif target != room and target not in ARROWS[room]:
                    wrong.append(f"{place}: {room} may not look at {target}")
            elif room in NO_QT and re.match(r"Q[A-Z]|Qt", found[2]):
                wrong.append(f"{place}: {room} knows no Qt")
            elif room in NO_WIDGETS and WIDGETS.match(f"<{found[2]}"):
                wrong.append(f"{place}: only ui knows widgets")
    return wrong


if __name__ == "__main__":
    found = wrong_arrows(pathlib.Path(sys.argv[1] if len(sys.argv) > 1 else "."))
    print("\n".join(found) if found else "layers: every include follows the arrows")
    sys.exit(1 if found else 0)
