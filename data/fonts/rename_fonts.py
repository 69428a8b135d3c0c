"""Copies four faces of B612 under family names of our own and writes an assembler file that embeds them.

usage: rename_fonts.py SOURCE_DIR OUT_DIR
B612 is under the SIL Open Font License 1.1, which allows modified copies under another name (see LICENCE.md here).
"""
import pathlib
import sys

from fontTools.pens.boundsPen import BoundsPen
from fontTools.ttLib import TTFont

FACES = [  # source file, our file, family, style
    ("B612-Regular.otf", "GorvetSans-Regular", "Gorvet Sans", "Regular"),
    ("B612-Bold.otf", "GorvetSans-Bold", "Gorvet Sans", "Bold"),
    ("B612Mono-Regular.otf", "GorvetMono-Regular", "Gorvet Mono", "Regular"),
    ("B612Mono-Bold.otf", "GorvetMono-Bold", "Gorvet Mono", "Bold"),
]


def rename(source: pathlib.Path, target: pathlib.Path, family: str, style: str) -> None:
    font = TTFont(source, recalcTimestamp=False)
    names = font["name"]
    for record in list(names.names):
        if record.nameID in (16, 17, 18, 21, 22):  # typographic names would win over ours
            names.removeNames(nameID=record.nameID)
    postscript = f"{family.replace(' ', '')}-{style}"
    for name_id, text in ((1, family), (2, style), (3, postscript), (4, f"{family} {style}"), (6, postscript)):
        names.setName(text, name_id, 3, 1, 0x409)
        names.setName(text, name_id, 1, 0, 0)
    if "CFF " in font:
        cff = font["CFF "].cff
        cff.fontNames[0] = postscript
        cff.topDictIndex[0].FamilyName = family
        cff.topDictIndex[0].FullName = f"{family} {style}"
    if family == "Gorvet Mono":
        narrow_points(font)
    font.save(target)


def narrow_points(font: TTFont) -> None:
    """Points, commas and colons no wider than they are drawn: 3.0 does not read as 3. 0. Digits keep their columns."""
    glyphs = font.getGlyphSet()
    for sign in ".,:":
        name = font.getBestCmap()[ord(sign)]
        pen = BoundsPen(glyphs)
        glyphs[name].draw(pen)
        left, _, right, _ = pen.bounds
        font["hmtx"][name] = (round(left + right), round(left))  # as much beside it on either side
    font["post"].isFixedPitch = 0
    font["CFF "].cff.topDictIndex[0].isFixedPitch = 0


def main() -> None:
    source_dir, out_dir = map(pathlib.Path, sys.argv[1:3])
    lines = ['.section .note.GNU-stack,"",@progbits', ".section .rodata"]
    for source, ours, family, style in FACES:
        target = out_dir / f"{ours}.otf"
        rename(source_dir / source, target, family, style)
        symbol = "gorvet_font_" + ours.replace("-", "_").lower()
        lines += [f".global {symbol}_begin", f".global {symbol}_end", ".balign 16",
                  f"{symbol}_begin:", f'.incbin "{target}"', f"{symbol}_end:", ".byte 0"]
    (out_dir / "fonts.S").write_text("\n".join(lines) + "\n")


main()
