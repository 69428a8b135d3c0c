#include "build/part_kinds.hpp"

#include <algorithm>

namespace gorvet::build {

namespace {

PartFigureKind length(const char* word, double least, double most, const char* about) {
    return {word, PartUnit::Length, least, most, std::nullopt, false, about};
}
PartFigureKind needed(const char* word, double least, double most, double shown, const char* about) {
    return {word, PartUnit::Length, least, most, std::nullopt, true, about, shown};
}
PartFigureKind usual(const char* word, double least, double most, double taken, const char* about) {
    return {word, PartUnit::Length, least, most, taken, false, about};
}
/// Of what is bolted on: what else its bolts go through, and how their nuts are held.
PartFigureKind grip() {
    return length("grip", 1, 400,
                  "of its bolts: all that they hold together; left out: the rail that it lies on, else as much again");
}
PartFigureKind captive() {
    return {"captive", PartUnit::Count, 0, 1, std::nullopt, false, "1: its nuts are fixed beforehand", 1};
}
PartFigureKind load(const char* about) { return {"load", PartUnit::Newton, 1, 500'000, std::nullopt, false, about}; }

std::vector<PartKind> allKinds() {
    std::vector<PartKind> all;
    all.push_back({"brace",
                   "a tube or box from place to place, its ends sawn to the faces of the rails that they meet, else square",
                   {"where its middle meets the one side", "where it meets the other"},
                   false,
                   {needed("across", 8, 300, 42, "outside diameter; of a box its height"),
                    length("wide", 8, 300, "of a box its width; left out: it is a round tube"),
                    needed("wall", 0.8, 25, 3, "its wall"), load("pushed along it at the most, N")}});
    all.push_back({"coped-tube",
                   "a round tube whose ends are coped onto two others",
                   {"its middle on the one tube's middle", "its middle on the other's", "another place on the one tube's middle",
                    "another place on the other's"},
                   false,
                   {needed("across", 8, 200, 42, "outside diameter"), needed("wall", 0.8, 12, 3, "its wall"),
                    needed("onto", 8, 300, 48.3, "outside diameter of the tube that its first end meets"),
                    needed("onto-far", 8, 300, 60.3, "outside diameter of the one that its other end meets"),
                    load("pushed along it at the most, N")}});
    all.push_back(
        {"outrigger",
         "a box from the rail's outer face out to the sill or a mount, tapered",
         {"the middle of its top on the rail", "the middle of its top at its end"},
         false,
         {needed("deep", 20, 300, 80, "height at the rail"),
          length("deep-end", 15, 300, "height at its end; left out: as at the rail"),
          needed("wide", 20, 300, 50, "outside width"), usual("sheet", 1.2, 12, 3, "thickness"),
          usual("inside", 0.5, 40, 3, "inside radius where its sheet is bent"), load("pressed down on its end at the most, N")}});
    all.push_back({"gusset",
                   "a flat plate in a corner, its inner corner cut back for the weld that is there",
                   {"the corner", "the end of its one leg", "the end of the other"},
                   false,
                   {usual("sheet", 1.5, 25, 4, "thickness"), usual("cut-back", 0, 100, 15, "of the inner corner, along each leg"),
                    usual("nose", 0, 100, 12, "left standing square at the end of each leg")}});
    all.push_back({"ears",
                   "two plates with a bolt through both, as a link is hung: their feet on a face",
                   {"the middle of the bolt", "the middle of their feet on the face"},
                   false,
                   {needed("apart", 10, 200, 46, "between them, inside"), usual("sheet", 2, 25, 6, "thickness of each"),
                    needed("hole", 5, 60, 12, "diameter of the bolt's hole"),
                    length("edge", 8, 120, "from the hole's middle to the edge; left out: one and three quarter holes"),
                    needed("foot", 20, 400, 90, "length of each foot along the face"), captive(),
                    load("pulled at the bolt at the most, N")}});
    all.push_back({"drilled-plate",
                   "a flat plate with a hole at each of its places",
                   {"a hole's middle", "another", "another"},
                   true,
                   {usual("sheet", 1.5, 40, 6, "thickness"), needed("hole", 3, 80, 12, "diameter of the holes"),
                    length("edge", 5, 150, "from a hole's middle to the edge; left out: two holes"), grip(), captive()}});
    all.push_back({"bent-tube",
                   "a round tube bent through corners, as on a hand bender",
                   {"its first end", "its first corner", "the next corner, or its other end"},
                   true,
                   {needed("across", 8, 120, 42, "outside diameter"), needed("wall", 0.8, 8, 3, "its wall"),
                    length("radius", 10, 1000, "of its bends, to its middle; left out: three diameters")}});
    all.push_back(
        {"angle-bracket",
         "a bent angle that is bolted on: an upright and a foot",
         {"the upright's hole, on its side away from the foot", "the foot's hole, on the face that it lies on"},
         false,
         {usual("sheet", 1, 12, 4, "thickness"), usual("inside", 0.5, 40, 4, "inside radius of its bend"),
          needed("wide", 15, 400, 50, "width along its bend"), needed("hole", 4, 40, 11, "diameter of its holes"),
          length("edge", 6, 100, "from a hole's middle to the edge; left out: one and three quarter holes"), grip(), captive()}});
    all.push_back(
        {"standoff",
         "a tube that stands on a rail, a drilled plate on its top: a body mount's",
         {"the middle of its foot", "the middle of its plate's top"},
         false,
         {needed("across", 15, 150, 50, "outside diameter of the tube"), needed("wall", 1.5, 12, 3, "its wall"),
          usual("plate", 2, 20, 5, "thickness of its plate"), length("side", 20, 250, "of its square plate; left out: 1.6 tubes"),
          needed("hole", 4, 40, 13, "diameter of the plate's hole"), grip(), captive(), load("pressed on it at the most, N")}});
    all.push_back(
        {"tab",
         "a strip that stands on its foot, round about one hole: a pipe's, a loom's, a captive nut's, an anti-spin tab",
         {"the hole's middle", "the middle of its foot on the face"},
         false,
         {usual("sheet", 1, 20, 3, "thickness"), needed("wide", 10, 200, 30, "width of the strip"),
          needed("hole", 3, 40, 9, "diameter of its hole"), grip(), captive(), load("pulled at its hole at the most, N")}});
    all.push_back({"u-bolt-plate",
                   "the plate that two U-bolts pull against a spring's seat",
                   {"the middle of the seat", "a place along the spring"},
                   false,
                   {usual("sheet", 4, 40, 8, "thickness"), needed("tube", 20, 200, 70, "diameter of the axle's tube"),
                    needed("wide", 20, 150, 50, "width of the spring"), needed("bolt", 6, 30, 12, "thread of the U-bolts"),
                    length("centre", 4, 40, "hole for the spring's centre bolt; left out: none"),
                    length("edge", 5, 100, "from a hole to the edge; left out: one and a half bolts"),
                    load("pull of one leg of a U-bolt at the most, N")}});
    return all;
}

} // namespace

const PartFigureKind* PartKind::figure(std::string_view wanted) const {
    const auto at = std::find_if(figures.begin(), figures.end(), [&](const PartFigureKind& f) { return f.word == wanted; });
    return at == figures.end() ? nullptr : &*at;
}

std::span<const PartKind> partKinds() {
    static const std::vector<PartKind> all = allKinds();
    return all;
}

const PartKind* partKindNamed(std::string_view wanted) {
    for (const PartKind& k : partKinds())
        if (k.word == wanted) return &k;
    return nullptr;
}

} // namespace gorvet::build
