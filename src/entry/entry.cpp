#include "entry/entry.hpp"

#include "build/gate.hpp"
#include "entry/reader.hpp"
#include "units/text.hpp"

#include <map>

namespace gorvet::entry {

Understood Reader::read() {
    if (line_.atEnd()) throw Failure{0, "Nothing was typed.", ""};
    static const std::map<std::string_view, void (Reader::*)()> commands = {{"point", &Reader::point},
                                                                            {"role", &Reader::role},
                                                                            {"hold", &Reader::hold},
                                                                            {"session", &Reader::session},
                                                                            {"remove", &Reader::remove},
                                                                            {"setup", &Reader::setup},
                                                                            {"want", &Reader::want},
                                                                            {"gauge", &Reader::gauge},
                                                                            {"reach", &Reader::reach},
                                                                            {"gap", &Reader::gap},
                                                                            {"toe", &Reader::toe},
                                                                            {"camber", &Reader::camber},
                                                                            {"sweep", &Reader::sweep},
                                                                            {"ride", &Reader::ride},
                                                                            {"weight", &Reader::weight},
                                                                            {"run-out", &Reader::runOut},
                                                                            {"instrument", &Reader::instrument},
                                                                            {"blocked", &Reader::blocked},
                                                                            {"scan", &Reader::scan},
                                                                            {"zone", &Reader::zone},
                                                                            {"clearance", &Reader::clearance},
                                                                            {"datum", &Reader::datum},
                                                                            {"drawing", &Reader::drawing},
                                                                            {"assume", &Reader::assume},
                                                                            {"found", &Reader::found},
                                                                            {"rate", &Reader::rate},
                                                                            {"answer", &Reader::answer},
                                                                            {"hand-in", &Reader::handIn},
                                                                            {"rail", &Reader::rail},
                                                                            {"tyre", &Reader::axleHeight},
                                                                            {"axle", &Reader::axleHeight},
                                                                            {"pin", &Reader::pin},
                                                                            {"hinge", &Reader::hinge},
                                                                            {"sill", &Reader::sill},
                                                                            {"arch", &Reader::arch},
                                                                            {"centred", &Reader::centred},
                                                                            {"travel", &Reader::travel},
                                                                            {"seating", &Reader::seating},
                                                                            {"leads", &Reader::school},
                                                                            {"lower", &Reader::lower},
                                                                            {"swing", &Reader::swing},
                                                                            {"cutline", &Reader::cutLine},
                                                                            {"cut", &Reader::cut},
                                                                            {"change", &Reader::change},
                                                                            {"kerf", &Reader::stretchFigure},
                                                                            {"root-gap", &Reader::stretchFigure},
                                                                            {"sleeve-fit", &Reader::stretchFigure},
                                                                            {"overlap", &Reader::stretchFigure},
                                                                            {"sleeve-wall", &Reader::joint},
                                                                            {"plug", &Reader::joint},
                                                                            {"fish-plate", &Reader::joint},
                                                                            {"butt", &Reader::joint},
                                                                            {"crossing", &Reader::crossing},
                                                                            {"mount", &Reader::mount},
                                                                            {"biscuit", &Reader::biscuit},
                                                                            {"washer", &Reader::mountFigure},
                                                                            {"floor", &Reader::mountFigure},
                                                                            {"standoff-step", &Reader::mountFigure},
                                                                            {"mount-bolt", &Reader::mountFigure},
                                                                            {"grip", &Reader::grip},
                                                                            {"crossmember", &Reader::crossmember},
                                                                            {"isolator", &Reader::crossmemberFigure},
                                                                            {"pad", &Reader::crossmemberFigure},
                                                                            {"flange", &Reader::crossmemberFigure},
                                                                            {"end-clearance", &Reader::crossmemberFigure},
                                                                            {"flange-bolt", &Reader::crossmemberFigure},
                                                                            {"pad-holes", &Reader::padHoles},
                                                                            {"box", &Reader::box},
                                                                            {"pan-clearance", &Reader::panClearance},
                                                                            {"done", &Reader::done},
                                                                            {"undone", &Reader::undone},
                                                                            {"check", &Reader::check},
                                                                            {"brace", &Reader::brace},
                                                                            {"present", &Reader::presence},
                                                                            {"absent", &Reader::presence},
                                                                            {"standing", &Reader::standing},
                                                                            {"name", &Reader::name},
                                                                            {"frame", &Reader::frame},
                                                                            {"show", &Reader::show},
                                                                            {"tolerance", &Reader::tolerance},
                                                                            {"subject", &Reader::subject}};
    const Word& first = line_.peek();
    // a command wins over a point of its name, which is typed in quotes: no name is forbidden, and none takes a command away
    const bool is_point = first.quoted;
    const auto command = commands.find(first.text);
    if (!is_point && command != commands.end()) {
        command_ = line_.next("a word").text;
        (this->*command->second)();
    } else if (const auto kind = is_point ? std::nullopt : fromWord<ReadingKind>(first.text)) {
        line_.next("a word");
        reading(*kind, false);
    } else if (!is_point && line_.take("retape")) {
        reading(ReadingKind::Tape, true);
    } else {
        reading(ReadingKind::Tape, false);
    }
    line_.mustEnd();
    return std::move(out_);
}

bool isAboutWork(std::string_view line) {
    const Line words(line.substr(0, 64)); // its first word tells
    return words.peekIs("done") || words.peekIs("check");
}

Result<Understood> understand(const Build& b, const Context& context, std::string_view line) {
    const std::string seen(line.substr(0, 200));
    if (line.size() > most_line_bytes)
        return Error{Error::Code::BadInput, seen,
                     fmt::format("The line is too long: {} bytes, {} at most.", line.size(), most_line_bytes),
                     "Type one thing after the other.", -1};
    if (const auto bad = units::badSign(line, units::TextIs::Note))
        return Error{Error::Code::BadInput, std::string(line), fmt::format("Character {}: {}.", bad->column + 1, bad->what),
                     "Type it again; a file is saved as UTF-8.", bad->column};
    try {
        Understood understood = Reader(b, context, line).read();
        if (auto ok = wouldAdmit(b, understood.edit); !ok) return ok.error();
        return understood;
    } catch (const Failure& f) {
        return Error{Error::Code::BadInput, std::string(line), f.message, f.remedy, f.column};
    }
}

const std::vector<Form>& forms() {
    static const std::vector<Form> list = {
        {"Tape", "NAME NAME length", "A3 B7 2164", "a tape reading between two points"},
        {"Tape", "plan|level NAME NAME length", "plan A3 B7 2161",
         "distance between plumb marks; how much higher the second stands"},
        {"Tape", "height NAME length", "height A3 412", "height over the datum plane"},
        {"Tape", "offset|station NAME [NAME] length", "offset A3 -412", "from the centre string, left negative; along the rail"},
        {"Tape", "slope NAME NAME angle", "slope A3 B7 2°30'", "how far the line goes down, rearward"},
        {"Tape", "cross-level|rail-angle NAME NAME angle", "cross-level Al Ar 0.4°",
         "how far the right end stands up; the angle in plan to the centreline, rearward"},
        {"Tape", "coordinates NAME x y z [sigma s|sx sy sz] [cov xx xy xz yy yz zz]",
         "coordinates A3 812.3 -410.2 305.1 sigma 0.3",
         "station, offset and height in one, from a scan, arm or fixture; the covariance in mm²"},
        {"Tape", "assume [kind] NAME NAME length, assume symmetry NAME|all", "assume A3 B7 2164",
         "a data sheet's figure, or that two sides mirror: places only what nothing else fixes, never a check"},
        {"Tape", "setup NAME plane|string|tape [sigma length] [note text]", "setup floor plane",
         "what readings are read from: heights and levels from a plane, offsets from a string, distances with a tape; its place is solved for"},
        {"Tape", "… by NAME, … by datum", "height A3 412 by floor",
         "the set-up it was read from; without, the newest one that fits"},
        {"Tape", "instrument NAME kind [sigma n] [per-m n] [checked text]",
         "instrument big tape sigma 0.8 per-m 0.2 checked in spring",
         "what readings are taken with: tape, trammel, laser-meter, height-gauge, water-level, laser-level, rule, digital-level, square-gauge, scanner, dial, scales"},
        {"Tape", "… with NAME, … with none", "A3 B7 2164 with big", "the instrument; without, the newest one that fits"},
        {"Tape", "datum plane NAME NAME NAME [length]", "datum plane Al Ar Dl 0",
         "three pads make the plane; the shape stays, the axes move. datum held: back to the held coordinates; datum free: none"},
        {"Tape", "datum centred NAME NAME…, datum station NAME [NAME] length", "datum centred Al Ar Dl Dr",
         "the centreline through the middle of pairs; the station of a hole, or of an axle's middle"},
        {"Tape", "datum upright|level NAME NAME, datum height NAME length", "datum upright Hlo Hup",
         "a pillar stands upright, two points stand level, one point's height: a datum from what is left of a body"},
        {"Tape", "drawing NAME x y z [from text], drawing flat", "drawing Al 0 -420 310 from works drawing",
         "where the drawing has a point, - for what it does not say; flat: rails at one height. The frame is compared with it, and sag is judged"},
        {"Tape", "blocked NAME x x y y z z", "blocked engine 200 900 -300 300 100 700",
         "no tape goes through: stations, offsets, heights between"},
        {"Tape", "found kind NAME|part [length] [of length] [layers n] [way text] [note text]", "found thin Bl 1.9 of 4",
         "rust, thin, crack, seized, play, repair or layers, at a point or part"},
        {"Tape", "rate hour|other-frame|patch-hours|… number", "rate hour 60",
         "what work costs; rate money NAME names the money"},
        {"Tape", "answer figure length|straight, answer reading NAME NAME, hand-in", "answer diamond 8",
         "on a practice frame: what is wrong with it, and that you have said all"},
        {"Tape", "want figures|twist|wheelbase|…|point NAME", "want twist", "what the next readings are to tell"},
        {"Tape", "gauge yes|no, reach length", "reach 5 m", "what there is to measure with"},
        {"Tape", "toe front|rear AHEAD BEHIND [rim length]", "toe front 1398 1401 rim 400",
         "between the rims at hub height, ahead of the hubs and behind them"},
        {"Tape", "camber WHEEL angle out|in", "camber front-left 0.4° out", "how the wheel leans, steered straight ahead"},
        {"Tape", "sweep WHEEL angle, camber turned out, camber turned in", "sweep front-left 20° 1.2° out 0.8° in",
         "for the caster: the wheel turned so far each way"},
        {"Tape", "weight WHEEL mass, run-out WHEEL length", "weight front-left 312 kg",
         "on the scales at a wheel; by a dial at its rim"},
        {"Tape", "ride WHEEL length", "ride rear-left 412", "height at the wheel, standing on its tyres"},
        {"Tape", "gap PLACE length [at event] [tol length]", "gap door-left 4.5 at brace in",
         "a door or panel gap, and when it was measured"},
        {"Tape", "… ± length, … note text", "A3 B7 2164 ± 3 note sagging tape", "how well it was read, and what to remember"},
        {"Tape", "point NAME [role] [x y z]", "point Al rail 0 -420 310",
         "marks a point, roughly placed: station, offset, height"},
        {"Tape", "role NAME role", "role Hl hinge-pillar", "what a point is"},
        {"Tape", "hold NAME x|y|z length", "hold Al z 0", "holds a coordinate: the datum"},
        {"Tape", "session NAME attitude support", "session monday right-way-up stands at 300 and 2700",
         "how it stood when it was measured"},
        {"Tape", "retape NAME NAME length", "retape A3 B7 2154", "replaces a reading; the old one stays in the log"},
        {"Tape", "remove NAME [NAME]", "remove A3 B7", "takes a reading, point, hold, pin or mount away"},
        {"Tape", "subject body|chassis", "subject body", "turns to the other subject"},
        {"Scan", "scan NAME pose x y z [yaw pitch roll], scan NAME move x y z", "scan shell move 0 0 -20",
         "where a scan stands on its subject's axes; rearward, right and up"},
        {"Scan", "scan NAME part|on|unit|note …", "scan shell part body",
         "body, chassis, engine, axle, wheel, exhaust, fuel-tank, prop-shaft, bonnet, door, radiator, steering-shaft, lines, other; on body or chassis; mm, cm, m, in"},
        {"Scan", "remove scan NAME, remove zone NAME", "remove scan shell", "takes it out of the build"},
        {"Scan", "zone NAME never|brace|named x x y y z z", "zone plate never 300 420 -80 80 900 960",
         "a box of the body that is never cut, is braced before, or is only named: stations, offsets, heights between"},
        {"Scan", "clearance least|finish|margin|flange|sheet length", "clearance least 12",
         "what must be clear; what finish takes up; how far beyond to cut; what to leave for re-joining; thickness of the sheet"},
        {"Scan", "clearance between PART PART length [finish length], remove clearance PART PART",
         "clearance between exhaust body 40", "what two kinds of part must clear each other by, where it is not the usual"},
        {"Scan", "swing NAME angle [back angle] about x y z x y z, remove swing NAME",
         "swing bonnet 60° about 500 -400 900 500 400 900",
         "a scanned bonnet, door or other part that turns about an axis, right-handed from the first place to the second"},
        {"Scan", "cutline NAME move|add N x y z, cutline NAME drop N, remove cutline NAME", "cutline cut-1 move 3 812 -410 305",
         "draws a kept cut over by hand, along the body's axes"},
        {"Scan", "cutline NAME as-cut x y z|none", "cutline cut-1 as-cut 812 -410 305",
         "where the edge came out: compared with the plan"},
        {"Sit", "tyre front|rear length", "tyre front 340", "loaded radius of the tyre; axle front 338 for a typed height"},
        {"Sit", "hinge length [tol length]", "hinge 1210 tol 1", "the hinge pillar stands at this station"},
        {"Sit", "centred [tol length]", "centred", "the body stands on the centreline"},
        {"Sit", "sill front|rear length", "sill front 310", "height of the sill over the ground; sill level, sill rake 0.5°"},
        {"Sit", "arch front|rear [tol length]", "arch rear", "the wheel stands in the middle of its arch"},
        {"Sit", "pin kind NAME… figure", "pin height Sfl Sfr 310 tol 2", "any pin, by points"},
        {"Sit", "pin along|across|up|straight NAME… to NAME… length", "pin up Floor to chassis:Al 40",
         "any dimension between two features, of body or chassis; a bare name is looked for on the body first"},
        {"Sit", "pin line NAME… to NAME NAME length, pin under NAME… to NAME NAME NAME length",
         "pin under chassis:Pan to B1l B1r B2l least 20",
         "distance from a line (steering column, shaft); how far points lie under a plane (engine under the bonnet)"},
        {"Sit", "pin tyre|bump NAME… least length, pin clear NAME… to BOX least length", "pin bump Aul Aur least 20",
         "gap to the tyre at rest or at full bump; to a box marked by blocked: booster, pedals, climate unit, loom"},
        {"Sit", "pin … least|most figure [tol length] [must|want|like]", "pin height Sfl Sfr least 220 must",
         "a bound; a must is kept whatever it costs the others, a like counts a quarter"},
        {"Sit", "travel front|rear bump|droop|radius length, travel width length, travel lock|rock angle", "travel front bump 70",
         "how far the wheels go, how big the tyres are, how far the engine rocks"},
        {"Sit", "seating keep|use NAME [note text], remove seating NAME", "seating keep low",
         "keeps this way to seat the body, to be compared with others"},
        {"Sit", "leads driveline|body|neither", "leads driveline",
         "what counts more when body and driveline ask for different places"},
        {"Sit", "lower channel|raise-floor length, lower kick length from length to length, lower none", "lower channel 40",
         "the floor channelled over the rails or set up, or the rails let down; lower floor ZONE says which zone is the floor"},
        {"Stretch", "rail height x width x wall shape face", "rail 100 x 60 x 4 box top",
         "section of the rail, and the face its points were marked on"},
        {"Stretch", "cut length", "cut 1480", "where the rails are cut"},
        {"Stretch", "change length|free", "change -75", "decides the change of wheelbase, or leaves it to the pins"},
        {"Stretch", "kerf|root-gap|sleeve-fit length, overlap n", "sleeve-fit 1", "how it is cut, fitted and lapped"},
        {"Stretch", "sleeve-wall|fish-plate|plug length", "fish-plate 5", "what joins the rails; free: as the rules say"},
        {"Stretch", "butt counts|not", "butt counts", "whether the butt weld, fully penetrated and licensed, is counted"},
        {"Stretch", "crossing kind [none] [slack length] [from length to length]",
         "crossing brake-line slack 30 from 400 to 2600",
         "what runs along the frame; kinds: prop-shaft, brake-line, fuel-line, park-brake-cable, exhaust, loom, shift-rod, cooling-line"},
        {"Make", "mount all|NAME… [at length]", "mount all", "body mounts, at points of role body-mount"},
        {"Make", "biscuit length [squash n%]", "biscuit 25 squash 15%",
         "the mounting rubber; also washer, floor, standoff-step, mount-bolt"},
        {"Make", "grip wall|through", "grip through", "whether mount bolts go through the whole rail"},
        {"Make", "crossmember [NAME]", "crossmember", "a bridge under the gearbox mount"},
        {"Make", "crossmember form straight|dropped", "crossmember form dropped",
         "a straight bridge, or one that dips under the pan"},
        {"Make", "crossmember fixing through|captive", "crossmember fixing captive",
         "bolts through the rail, or into nuts inside it"},
        {"Make", "pan-clearance length", "pan-clearance 12",
         "least between gearbox pan and steel; mark the pan by points of role gearbox-pan"},
        {"Make", "box width x height x wall", "box 60 x 40 x 3",
         "its section; also isolator, pad, flange, flange-bolt, end-clearance, pad-holes"},
        {"Work", "done [STEP] [by NAME] [note text]", "done battery-out note earth first", "ticks a step; without one, the next"},
        {"Work", "undone STEP", "undone battery-out", "takes a tick back"},
        {"Work", "check [STEP] [level] NAME NAME length", "check Bl Dr 2154",
         "a fresh reading at a hold point, as is the pair alone while one asks for it; check level Al Br -3; check gap BRACE 4.5"},
        {"Work", "brace NAME [for text] [blocks text] [until STEP] [gap length]", "brace door-left for door opening gap 4.5",
         "temporary steel: what it is for, what it blocks, when it comes out, the gap it keeps"},
        {"Work", "present|absent hazard", "absent refrigerant", "fuel-tank, battery, restraints, refrigerant"},
        {"Work", "standing body-on|body-off support attitude", "standing body-on wheels right-way-up",
         "how it stands before the work begins"},
        {"Build", "name text", "name Petrel on Tern", "names the build; name body …, name chassis …"},
        {"Build", "frame kind", "frame ladder", "ladder, perimeter, spine-platform, bolted-subframe, monocoque or space-frame"},
        {"Build", "show mm|inch step", "show inch 1/16", "how lengths are shown, and what a bare number means"},
        {"Build", "tolerance length", "tolerance 3", "what the frame may be out by"},
    };
    return list;
}

} // namespace gorvet::entry
