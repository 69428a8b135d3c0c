#include "build/part_kinds.hpp"

#include <algorithm>

#include <fmt/format.h>

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
/// 1: yes.
PartFigureKind flag(const char* word, const char* about) { return {word, PartUnit::Count, 0, 1, std::nullopt, false, about, 1}; }
PartFigureKind asked(PartFigureKind f) {
    f.asked = true;
    return f;
}
PartFigureKind load(const char* about) { return asked({"load", PartUnit::Newton, 1, 500'000, std::nullopt, false, about}); }

/// Tubes and boxes.
void addBars(std::vector<PartKind>& all) {
    all.push_back(
        {"brace",
         "a tube or box from place to place, its ends sawn to the faces of the rails that they meet, else square",
         {"where its middle meets the one side", "where it meets the other"},
         false,
         {needed("across", 8, 300, 42, "outside diameter; of a box its height"),
          length("wide", 8, 300, "of a box its width; left out: it is a round tube"), needed("wall", 0.8, 25, 3, "its wall"),
          load("pushed along it at the most, N")},
         "Keeps two rails apart, or a rail and what stands on it. A long thin one buckles before it tears: say what pushes along it."});
    all.push_back(
        {"coped-tube",
         "a round tube whose ends are coped onto two others",
         {"its middle on the one tube's middle", "its middle on the other's", "another place on the one tube's middle",
          "another place on the other's"},
         false,
         {needed("across", 8, 200, 42, "outside diameter"), needed("wall", 0.8, 12, 3, "its wall"),
          needed("onto", 8, 300, 48.3, "outside diameter of the tube that its first end meets"),
          needed("onto-far", 8, 300, 60.3, "outside diameter of the one that its other end meets"),
          length("onto-wall", 0.8, 25, "wall of the tube at its first end; left out: it is not looked at"),
          length("onto-far-wall", 0.8, 25, "wall of the tube at its other end; left out: it is not looked at"),
          load("pushed along it at the most, N")},
         "Lies all round on two other tubes, so that its weld has no gap to fill. Wrap the template round it before it is cut."});
    all.push_back(
        {"outrigger",
         "a box from the rail's outer face out to the sill or a mount, tapered",
         {"the middle of its top on the rail", "the middle of its top at its end"},
         false,
         {needed("deep", 20, 300, 80, "height at the rail"),
          length("deep-end", 15, 300, "height at its end; left out: as at the rail"),
          needed("wide", 20, 300, 50, "outside width"), usual("sheet", 1.2, 12, 3, "thickness"),
          usual("inside", 0.5, 40, 3, "inside radius where its sheet is bent"), load("pressed down on its end at the most, N")},
         "Carries a sill or a body mount outside of the rail. It is a box that closes: coat it inside before its end plate goes on, and leave its drain open."});
    all.push_back(
        {"x-member",
         "legs from the rails to two middle rails, the shaft's opening between them",
         {"where its front left leg's middle meets the rail", "where its front right leg's does",
          "where its rear left leg's does", "where its rear right leg's does", "the middle of the opening"},
         false,
         {needed("across", 15, 200, 60, "height of its bars"), needed("wide", 15, 200, 40, "their width"),
          needed("wall", 1.2, 12, 3, "their wall"), needed("opening", 40, 1200, 240, "clear width between its middle rails"),
          needed("middle", 80, 3000, 500, "length of its middle rails"),
          length("over", 1.5, 20, "thickness of a plate welded over its opening; left out: none"),
          usual("under", 0, 20, 5, "thickness of a plate under it that is bolted; 0: none"),
          length("hole", 4, 30, "in that plate, for its four bolts; left out: 9"),
          asked(length("front-legs", 100, 3000, "of the original front legs, along the longest edge: they are used again")),
          asked(length("rear-legs", 100, 3000, "of the original rear legs, the same way")),
          load("pressed on its middle at the most, N")},
         "Keeps a frame from twisting, with room for a shaft in its middle. A plate over and one under tie its halves: one alone is bent like a shelf. The original legs are used again where they are long enough; with a bolted plate below the shaft comes out downwards."});
    all.push_back(
        {"k-brace",
         "two legs from the rails to the middle of a crossmember",
         {"where its left leg's middle meets the rail", "where its right leg's does", "the middle on the crossmember's face"},
         false,
         {needed("across", 8, 200, 42, "outside diameter; of a box its height"),
          length("wide", 8, 200, "of a box its width; left out: it is a round tube"), needed("wall", 0.8, 12, 3, "its wall"),
          length("apart", 10, 2000, "its legs' middles on the crossmember; left out: side by side"),
          load("pushed along a leg at the most, N")},
         "Ties both rails to the middle of a crossmember where an X has no room. It bears along its legs, not across them."});
    all.push_back(
        {"lifting-beam",
         "a bar with an eye under each end and one for the hook: to lift a body by",
         {"its one lower eye", "its other", "a place under the hook"},
         false,
         {needed("across", 20, 300, 80, "height of the bar; of a round one its diameter"),
          length("wide", 20, 300, "its width; left out: it is a round tube"), needed("wall", 1.5, 25, 4, "its wall"),
          usual("sheet", 5, 40, 12, "thickness of the eyes"), needed("hole", 8, 60, 22, "of the eyes"),
          length("edge", 12, 120, "from a hole's middle to the edge; left out: one and three quarter holes"),
          load("hangs on it at the most, N")},
         "Lifts a body from two places, so that slings do not press its sides in. It is proved with one and a quarter times its load before anything hangs on it, and nobody stands under it."});
    all.push_back(
        {"skate",
         "a frame on castors that a body stands on",
         {"its front left support", "its front right", "its rear left", "its rear right"},
         false,
         {needed("across", 20, 150, 50, "side of its square bars"), needed("wall", 1.2, 10, 3, "their wall"),
          length("post", 0, 1000, "height of its lowest post; left out: none"),
          needed("castor", 30, 400, 125, "height of a castor"), usual("castor-plate", 40, 250, 100, "side of its plate"),
          usual("plate", 2, 20, 6, "thickness of the plates over them"), needed("hole", 4, 25, 11, "for a castor's bolts"),
          usual("high", 100, 2500, 1200, "of what stands on it"), load("stands on it at the most, N")},
         "Carries a body through the workshop while the chassis is elsewhere. It is not on the car, and nothing of the car is looked at for it."});
}

/// Plates, flat and bent, and tubes that are bent.
void addPlates(std::vector<PartKind>& all) {
    all.push_back(
        {"gusset",
         "a flat plate in a corner, its inner corner cut back for the weld that is there",
         {"the corner", "the end of its one leg", "the end of the other"},
         false,
         {usual("sheet", 1.5, 25, 4, "thickness"), usual("cut-back", 0, 100, 15, "of the inner corner, along each leg"),
          usual("nose", 0, 100, 12, "left standing square at the end of each leg")},
         "Stiffens a corner; its own inner corner is cut back for the weld that is there. Its thickness is that of the thinner of what it joins."});
    all.push_back(
        {"ears",
         "two plates with a bolt through both, as a link is hung: their feet on a face",
         {"the middle of the bolt", "the middle of their feet on the face"},
         false,
         {needed("apart", 10, 200, 46, "between them, inside"), usual("sheet", 2, 25, 6, "thickness of each"),
          needed("hole", 5, 60, 12, "diameter of the bolt's hole"),
          length("edge", 8, 120, "from the hole's middle to the edge; left out: one and three quarter holes"),
          needed("foot", 20, 400, 90, "length of each foot along the face"), captive(),
          load("pulled at the bolt at the most, N")},
         "Hang a link, a damper or a bar: two plates with a bolt through both. Pulled along the face their feet bear most."});
    all.push_back(
        {"drilled-plate",
         "a flat plate with a hole at each of its places",
         {"a hole's middle", "another", "another"},
         true,
         {usual("sheet", 1.5, 40, 6, "thickness"), needed("hole", 3, 80, 12, "diameter of the holes"),
          length("edge", 5, 150, "from a hole's middle to the edge; left out: two holes"), grip(), captive()},
         "Lies on holes as they were measured. Where they are known less well than a bolt's room, drill one, bolt it on, and spot the others through."});
    all.push_back(
        {"bent-tube",
         "a round tube bent through corners, as on a hand bender",
         {"its first end", "its first corner", "the next corner, or its other end"},
         true,
         {needed("across", 8, 120, 42, "outside diameter"), needed("wall", 0.8, 8, 3, "its wall"),
          length("radius", 10, 1000, "of its bends, to its middle; left out: three diameters")},
         "A tube through corners, as a hand bender makes it: its schedule says from where, how far and how much turned."});
    all.push_back(
        {"cage-tube",
         "a round tube of a cage: bent through corners, both ends coped onto other tubes",
         {"its first end, on the middle of the tube that it meets", "another place on that tube's middle",
          "its other end, on the middle of the tube that it meets there", "another place on that tube's middle",
          "its first corner"},
         true,
         {needed("across", 8, 120, 42, "outside diameter"), needed("wall", 0.8, 8, 2.6, "its wall"),
          length("radius", 10, 1000, "of its bends, to its middle; left out: three diameters"),
          needed("onto", 8, 300, 48.3, "outside diameter of the tube that its first end meets"),
          needed("onto-far", 8, 300, 48.3, "outside diameter of the one that its other end meets")},
         "Braces a shell from tube to tube. Bend it first, with its ends left long, then wrap the templates round and cut the copes; what guards people is licensed work, and a cage that is only nearly one hurts."});
    all.push_back(
        {"angle-bracket",
         "a bent angle that is bolted on: an upright and a foot",
         {"the upright's hole, on its side away from the foot", "the foot's hole, on the face that it lies on"},
         false,
         {usual("sheet", 1, 12, 4, "thickness"), usual("inside", 0.5, 40, 4, "inside radius of its bend"),
          needed("wide", 15, 400, 50, "width along its bend"), needed("hole", 4, 40, 11, "diameter of its holes"),
          length("edge", 6, 100, "from a hole's middle to the edge; left out: one and three quarter holes"), grip(), captive()},
         "Holds pipes, looms, tanks' straps: what weighs little. An angle gives in its bend, so nothing that steers, brakes or carries wheels hangs on it."});
    std::vector<PartFigureKind> bought{
        needed("hole", 4, 60, 13, "diameter of its holes"), needed("thick", 1, 60, 6, "of its flange"),
        length("edge", 5, 100, "from a hole's middle to its edge; left out: one and three quarter holes")};
    for (int k = 2; k <= 6; ++k) {
        PartFigureKind along = length(fmt::format("along-{}", k).c_str(), -2000, 2000,
                                      fmt::format("of its hole {} from its first, along its flange", k).c_str());
        along.must = k == 2;
        along.shown = 180;
        bought.push_back(along);
        bought.push_back(length(fmt::format("across-{}", k).c_str(), -2000, 2000, "the same hole, across; left out: 0"));
    }
    bought.push_back(flag("turned-over", "1: it may be bolted on turned over"));
    bought.push_back(grip());
    bought.push_back(captive());
    all.push_back(
        {"bought-mount",
         "a mount that was bought, laid over the holes that are there",
         {"a hole that is there", "another"},
         true,
         std::move(bought),
         "Says whether a mount from the shelf goes onto the holes that are there: which holes are enlarged and to what, and when that is too much. It is not cut; its flange is drawn as a pattern to drill after."});
}

/// What something stands on.
void addStands(std::vector<PartKind>& all) {
    all.push_back(
        {"standoff",
         "a tube that stands on a rail, a drilled plate on its top: a body mount's",
         {"the middle of its foot", "the middle of its plate's top"},
         false,
         {needed("across", 15, 150, 50, "outside diameter of the tube"), needed("wall", 1.5, 12, 3, "its wall"),
          usual("plate", 2, 20, 5, "thickness of its plate"), length("side", 20, 250, "of its square plate; left out: 1.6 tubes"),
          needed("hole", 4, 40, 13, "diameter of the plate's hole"), grip(), captive(), load("pressed on it at the most, N")},
         "Stands under a body mount. It is sawn to the rail below and square above; the wall under it may want a plate."});
    all.push_back(
        {"tab",
         "a strip that stands on its foot, round about one hole: a pipe's, a loom's, a captive nut's, an anti-spin tab",
         {"the hole's middle", "the middle of its foot on the face"},
         false,
         {usual("sheet", 1, 20, 3, "thickness"), needed("wide", 10, 200, 30, "width of the strip"),
          needed("hole", 3, 40, 9, "diameter of its hole"), grip(), captive(), load("pulled at its hole at the most, N")},
         "One hole on a strip: a pipe's, a captive nut's, or the tab that keeps a bolt's head from turning."});
    all.push_back(
        {"perch",
         "a top with a hole on two webs off a rail's side: a body mount's, an engine's, a biscuit's",
         {"the hole's middle, on its top", "a place on the rail's side, where it stands"},
         false,
         {usual("sheet", 2, 20, 5, "thickness"),
          needed("hole", 4, 60, 13, "diameter of its hole"),
          needed("wide", 20, 400, 80, "width along the rail"),
          needed("deep", 20, 400, 70, "height of its webs at the rail"),
          length("nose", 5, 200, "height of its webs at their end; left out: 15"),
          length("edge", 6, 150, "from its hole's middle to its outer edge; left out: one and three quarter holes"),
          {"tilt", PartUnit::Angle, -0.9, 0.9, std::nullopt, false, "its top slopes down outwards; left out: level"},
          asked({"torque", PartUnit::Count, 1, 30'000, std::nullopt, false,
                 "N·m that an engine's two mounts hold at the most: its own by the lowest gear where the gearbox hangs on it",
                 900}),
          asked(length("spread", 100, 2000, "from the one of these two mounts to the other")),
          grip(),
          captive(),
          load("pressed on it at the most, N")},
         "Carries a mount beside the rail: a body's, an engine's. Its webs are deepest at the rail, where it bends most."});
    all.push_back(
        {"axle-perch",
         "a leaf spring's seat on an axle's tube: a plate on two webs",
         {"the middle of the seat, on top", "a place along the spring"},
         false,
         {usual("sheet", 4, 20, 6, "thickness"), needed("tube", 30, 200, 70, "diameter of the axle's tube"),
          needed("wide", 30, 150, 60, "width of the seat"), needed("seat", 60, 400, 150, "its length along the spring"),
          needed("high", 30, 250, 60, "of the seat over the tube's middle"),
          needed("centre", 6, 40, 14, "hole for the spring's centre bolt"), load("pressed on it at the most, N")},
         "Seats a leaf spring on an axle. Tack it with the axle at ride height and the pinion's slope set; an axle's tube draws out of straight as it is welded."});
    all.push_back(
        {"shim-stack",
         "washers of plate that fill a gap, round a bolt, on a dowel if there is one",
         {"the hole's middle, on what it stands on", "the hole's middle, under what lies on it"},
         false,
         {needed("across", 15, 200, 50, "outside diameter"), needed("hole", 4, 60, 13, "diameter of its hole"),
          usual("thin", 0.5, 3, 0.5, "the thinnest sheet at hand"), length("dowel", 3, 25, "hole for a dowel; left out: none"),
          length("dowel-off", 8, 150, "its middle from the bolt's; left out: near the edge"), grip(), captive()},
         "Fills what is left between mount and body. Fit it with the body on: the last millimetre is felt, not worked out."});
    all.push_back({"u-bolt-plate",
                   "the plate that two U-bolts pull against a spring's seat",
                   {"the middle of the seat", "a place along the spring"},
                   false,
                   {usual("sheet", 4, 40, 8, "thickness"), needed("tube", 20, 200, 70, "diameter of the axle's tube"),
                    needed("wide", 20, 150, 50, "width of the spring"), needed("bolt", 6, 30, 12, "thread of the U-bolts"),
                    length("centre", 4, 40, "hole for the spring's centre bolt; left out: none"),
                    length("edge", 5, 100, "from a hole to the edge; left out: one and a half bolts"),
                    load("pull of one leg of a U-bolt at the most, N")},
                   "Goes under or over the axle, with the spring's centre bolt in its middle. U-bolts are new each time."});
    all.push_back(
        {"tank",
         "a fuel tank welded of flat sheet, with baffles and straps; it may be a wedge",
         {"its front left corner, below", "its front right, below", "its rear left, below"},
         false,
         {usual("sheet", 1, 4, 1.5, "thickness"),
          needed("deep", 40, 800, 220, "height at its front"),
          length("deep-end", 40, 800, "height at its rear; left out: as at its front"),
          asked({"litres", PartUnit::Count, 1, 500, std::nullopt, false, "that it must hold", 50}),
          {"baffles", PartUnit::Count, 0, 8, std::nullopt, false, "across it; left out: one every 300 mm", 1}},
         "A tank cut down, or put where there is room. Petrol's vapour burns long after a tank is empty: a used one goes to licensed hands, and every one is pressed before it is filled."});
}

/// A tank's pipes, and what people are held by.
void addLicensed(std::vector<PartKind>& all) {
    all.push_back(
        {"tank-pipe",
         "a tank's filler or vent: a bent tube that falls all along to the tank",
         {"its mouth", "its end on the tank, or its first corner", "the next corner, or its end on the tank"},
         true,
         {needed("across", 5, 90, 50, "outside diameter"), needed("wall", 0.6, 4, 1.5, "its wall"),
          length("radius", 10, 600, "of its bends, to its middle; left out: three diameters"),
          asked({"fall", PartUnit::Angle, 0, 0.8, 0.0872665, false, "the least that it falls anywhere, the car level"})},
         "Filler and vent run down to the tank all along, so that nothing stands in them. Mouth first, tank last; it never runs through the cabin unclosed."});
    all.push_back(
        {"seat-bar",
         "a box across the floor that a seat's two bolts go into",
         {"where its middle meets the one face", "where it meets the other"},
         false,
         {needed("across", 20, 120, 40, "height of the bar"), needed("wide", 20, 120, 40, "its width"),
          needed("wall", 1.5, 8, 3, "its wall"), needed("first", 10, 2000, 90, "from its first face to the first bolt"),
          needed("apart", 50, 1500, 380, "its two bolts"), needed("hole", 6, 20, 11, "for the bolts"),
          usual("strip", 3, 15, 5, "thickness of the strip on its top that holds their nuts"),
          usual("plate", 2, 10, 4, "thickness of its end plates"), usual("foot", 40, 250, 90, "side of these"),
          load("pulled at both bolts together at the most, N")},
         "Carries the two front or the two rear bolts of a seat from sill to tunnel. What people sit on is licensed work: the figures here are for the talk with who licenses it."});
    all.push_back(
        {"belt-plate",
         "a plate with a nut behind a sheet, for a belt's bolt",
         {"the hole's middle, on the belt's side", "a place along the plate",
          "one across it, to the left of that, seen from the belt"},
         false,
         {usual("sheet", 3, 15, 8, "thickness"), needed("wide", 40, 250, 70, "its size along"),
          needed("high", 40, 250, 60, "its size across"), usual("hole", 8, 16, 11.5, "for the belt's bolt"),
          usual("skin", 0.6, 6, 1, "thickness of the sheet that it lies behind"),
          asked({"load", PartUnit::Newton, 1, 500'000, 13'500, false,
                 "pulled at its bolt at the most, N; common rules say 13500"})},
         "Spreads a belt's pull over the shell. Where it may be and who welds it, rules say; this page draws the plate and says what gives first."});
}

std::vector<PartKind> allKinds() {
    std::vector<PartKind> all;
    addBars(all);
    addPlates(all);
    addStands(all);
    addLicensed(all);
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
