"""No function of the program is longer than a person reads in one go: 100 lines."""
import pathlib
import re
import sys
import unittest

MOST = 100
SOURCE = pathlib.Path(__file__).resolve().parent.parent / "src"


def bare(text):
    """The code without comments and texts, line for line."""
    def blank(match):
        return re.sub(r"[^\n]", " ", match.group(0))
    raw = r'R"(?P<d>[^(\s]*)\(.*?\)(?P=d)"'
    return re.sub(raw + r'|//[^\n]*|/\*.*?\*/|"(?:\\.|[^"\\\n])*"|\'(?:\\.|[^\'\\\n])+\'', blank, text, flags=re.S)


def functions(text):
    """(first line, length, head) of every function body that does not stand in another."""
    code = bare(text)
    found, stack, head = [], [], ""
    line = 1
    start = None  # of the outermost function that is open
    for c in code:
        if c == "\n":
            line += 1
        if c == "{":
            words = " ".join(head.split())
            scope = re.search(r"\b(namespace|class|struct|union|enum)\b[^()]*$", words) or re.search(r'extern\s*$', words)
            is_function = start is None and not scope and re.search(r"\)\s*(const|noexcept|override|final|mutable|->[^;]*|:[^;]*|\s)*$", words)
            stack.append("function" if is_function else "scope")
            if is_function:
                start = (line, len(stack), words)
            head = ""
        elif c == "}":
            if start and len(stack) == start[1]:
                found.append((start[0], line - start[0] + 1, start[2]))
                start = None
            if stack:
                stack.pop()
            head = ""
        elif c == ";" and not head.count("(") > head.count(")"):
            head = ""
        else:
            head += c
    return found


class Functions(unittest.TestCase):
    def test_what_is_found(self):
        code = "namespace a {\nstruct S { int x = 0; };\nint f(int i) {\n  if (i) { return 1; }\n  return 0;\n}\n}\n"
        self.assertEqual([(f[0], f[1]) for f in functions(code)], [(3, 4)])

    def test_none_is_too_long(self):
        long, seen = [], 0
        for path in sorted(SOURCE.rglob("*.[ch]pp")):
            for first, length, head in functions(path.read_text(encoding="utf-8")):
                seen += 1
                if length > MOST:
                    long.append(f"{path.relative_to(SOURCE)}:{first}: {length} lines: {head[-90:]}")
        self.assertGreater(seen, 2000)
        self.assertEqual(long, [], "functions above %d lines:\n%s" % (MOST, "\n".join(long)))


if __name__ == "__main__":
    sys.exit(unittest.main())
