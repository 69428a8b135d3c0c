#include "build/job_lists.hpp"

#include <algorithm>

namespace gorvet::build {

namespace {

using Names = std::vector<std::string>;
using K = JobKind;
using R = ReleaseKind;

/// Makes the jobs of one list.
class Maker {
public:
    Maker(const Build& b, std::string_view key) : b_(b), key_(key) {}

    Job& job(const char* name, const char* title, const char* area, JobKind kind, const Names& after = {},
             const Names& before = {}) {
        Job j;
        j.name = name;
        j.title = title;
        j.area = area;
        j.kind = kind;
        j.after = after;
        j.before = before;
        j.list = key_;
        out_.jobs.push_back(std::move(j));
        return out_.jobs.back();
    }
    Job& off(Job& j) const {
        if (b_.settings.frame_kind != FrameKind::Monocoque) j.body = BodyPlace::Off;
        return j;
    }
    static Job& on(Job& j) {
        j.body = BodyPlace::On;
        return j;
    }
    static Job& two(Job& j) {
        j.people = 2;
        return j;
    }
    Release& tie(const char* name, ReleaseKind kind, const char* area, const char* joins, const char* how, const char* cap = "") {
        Release r;
        r.name = name;
        r.kind = kind;
        r.area = area;
        r.joins = joins;
        r.how = how;
        r.cap = cap;
        r.note = "usual: remove it where this car has none";
        out_.releases.push_back(std::move(r));
        return out_.releases.back();
    }
    /// Whether it may be there: not said to be absent.
    bool mayHave(CrossingKind kind) const {
        const Crossing* c = crossingOf(b_, kind);
        return !c || c->presence != Presence::Absent;
    }
    bool mayHave(Hazard h) const { return presenceOf(b_.work, h) != Presence::Absent; }
    bool hasFrame() const { return b_.settings.frame_kind != FrameKind::Monocoque; }

    ReadyJobs made() {
        std::erase_if(out_.jobs, [&](const Job& j) { return jobNamed(b_, j.name) != nullptr; });
        std::erase_if(out_.releases, [&](const Release& r) { return releaseNamed(b_, r.name) != nullptr; });
        return std::move(out_);
    }

private:
    const Build& b_;
    std::string key_;
    ReadyJobs out_;
};

/// What ties a body to its frame on nearly every car.
void usualTies(Maker& m) {
    m.tie("earth-strap", R::Cable, "engine bay", "engine to bulkhead", "unbolt it at the body");
    m.tie("loom-bulkhead", R::Connector, "bulkhead", "body loom to frame and engine loom",
          "press the tab, pull the plug, never the wires");
    m.tie("loom-tail", R::Connector, "tail", "tail lamps to frame loom", "pull the plug");
    m.tie("steering-shaft", R::Linkage, "engine bay", "column to steering box", "mark both halves, take the pinch bolt out");
    m.tie("brake-pipe", R::Line, "bulkhead", "master cylinder to frame", "hold the hose's nut, undo the pipe's", "cap both ends");
    m.tie("gear-lever", R::Linkage, "tunnel", "lever to gearbox", "take the lever off, cover the hole", "cover the hole");
    m.tie("throttle-cable", R::Cable, "engine bay", "pedal to engine", "unhook it at the engine");
    m.tie("speedometer-cable", R::Cable, "bulkhead", "gearbox to instrument", "unscrew the collar");
    m.tie("heater-hoses", R::Hose, "bulkhead", "engine to heater", "drain first; cut old hoses lengthwise", "plug both stubs");
    if (m.mayHave(Hazard::FuelTank))
        m.tie("filler-neck", R::Hose, "tail", "filler to tank", "loosen the clips, turn, pull", "plug the tank");
    if (m.mayHave(CrossingKind::ParkBrakeCable))
        m.tie("park-brake-cable", R::Cable, "tunnel", "lever to equaliser", "slacken it fully, unhook it");
    if (m.mayHave(Hazard::Refrigerant))
        m.tie("refrigerant-lines", R::Line, "engine bay", "compressor to body", "licensed people take the refrigerant out first",
              "cap at once");
}

void cabOff(Maker& m) {
    m.job("coolant-out", "Drain the coolant into a marked can, away from animals", "engine bay", K::General, {"record"},
          {"disconnect"});
    m.on(m.job("seats-out", "Take seats and carpet out: body bolts hide under them", "cabin", K::TakeApart, {"record"},
               {"unbolt-body"}));
    m.on(m.job("steering-free", "Mark the steering shaft and free it at its coupling", "engine bay", K::Brakes, {"record"},
               {"disconnect"}));
    m.on(m.job("bumpers-off", "Take the bumpers and their irons off where they bolt to the frame", "ends", K::TakeApart,
               {"record"}, {"unbolt-body"}));
    m.job("bolts-soak", "Soak every body bolt, and once more each evening", "mounts", K::General, {"record"}, {"unbolt-body"});
    m.job("cart-ready", "Have a cart or trestles ready that the body can stand on, and the way to it clear", "floor", K::General,
          {}, {"unbolt-body"});
    m.off(m.job("frame-clean", "Clean the bare frame, and look at every weld and hanger", "frame", K::Clean));
    m.off(m.job("mounts-renew", "Renew the body mounts and their bolts", "mounts", K::Fit, {"frame-clean"}, {"bolt-body"}));
    if (m.mayHave(CrossingKind::BrakeLine))
        m.off(m.job("pipes-look", "Look over brake and fuel pipes along the frame while they can be reached", "frame", K::Brakes,
                    {"frame-clean"}));
    usualTies(m);
}

void engineOut(Maker& m) {
    m.job("coolant-out", "Drain the coolant into a marked can, away from animals", "engine bay", K::General, {"record"});
    m.job("oil-out", "Drain engine and gearbox oil", "engine bay", K::General, {"record"});
    m.two(m.job("bonnet-off", "Mark the bonnet's hinges and take it off", "engine bay", K::TakeApart, {"record"}));
    m.job("radiator-out", "Take the radiator out, and its shroud", "engine bay", K::TakeApart, {"coolant-out", "bonnet-off"});
    m.job("engine-fuel-off", "Free the fuel pipes at the engine, cap both ends", "engine bay", K::Fuel, {"record"});
    m.job("engine-loom-off", "Free the engine's loom, every plug tagged", "engine bay", K::Electrical, {"record"});
    if (m.mayHave(CrossingKind::Exhaust))
        m.job("exhaust-free", "Free the exhaust at the manifolds", "underneath", K::TakeApart, {"record"});
    if (m.mayHave(CrossingKind::PropShaft))
        m.job("shaft-out", "Mark the flanges and take the propeller shaft out; plug the gearbox", "underneath", K::TakeApart,
              {"record"});
    m.two(m.job("engine-lift", "Lift engine and gearbox out, nobody under or beside", "engine bay", K::Lift,
                {"radiator-out", "oil-out", "engine-fuel-off", "engine-loom-off", "exhaust-free", "shaft-out"}));
    m.job("bay-clean", "Clean the engine bay, and look at what was hidden", "engine bay", K::Clean, {"engine-lift"});
    m.two(m.job("engine-back", "Put engine and gearbox back, mounts loose until it is in line", "engine bay", K::Lift,
                {"bay-clean"}, {"leak-test"}));
    m.tie("engine-earth", R::Cable, "engine bay", "engine to body", "unbolt it at the engine").frees = "engine-lift";
    m.tie("engine-hoses", R::Hose, "engine bay", "engine to radiator and heater", "drain first", "plug the stubs").frees =
        "engine-lift";
    m.tie("engine-throttle", R::Cable, "engine bay", "pedal to engine", "unhook it").frees = "engine-lift";
    m.tie("engine-mounts", R::Bolt, "engine bay", "engine to its mounts", "last of all, the hoist tight").frees = "engine-lift";
    m.tie("gearbox-mount", R::Bolt, "underneath", "gearbox to its crossmember", "the gearbox held by a jack").frees =
        "engine-lift";
}

void frameDrop(Maker& m) {
    m.job("height-find", "Measure how high the body must hang so that frame, engine and wheels roll out below it", "floor",
          K::Measure, {"record"}, {"unbolt-body"});
    m.two(m.job("gantry-ready", "Set two-post lift or gantry to carry the body by its sills, arms padded, wheels chocked",
                "floor", K::Lift, {}, {"unbolt-body"}));
    m.on(m.job("seats-out", "Take seats and carpet out: body bolts hide under them", "cabin", K::TakeApart, {"record"},
               {"unbolt-body"}));
    m.job("coolant-out", "Drain the coolant into a marked can, away from animals", "engine bay", K::General, {"record"},
          {"disconnect"});
    m.on(m.job("steering-free", "Mark the steering shaft and free it at its coupling", "engine bay", K::Brakes, {"record"},
               {"disconnect"}));
    Job& out = m.two(
        m.off(m.job("roll-out", "Roll the frame out from under, one at each end, nobody under the body", "floor", K::Lift)));
    out.support = Support::Wheels;
    m.off(m.job("body-stands", "Let the body down on stands of its own before anyone goes near its underside", "floor", K::Lift,
                {"roll-out"}));
    m.off(m.job("frame-clean", "Clean the bare frame, and look at every weld and hanger", "frame", K::Clean, {"roll-out"}));
    usualTies(m);
}

void rotisserie(Maker& m) {
    m.job("shell-empty", "Empty the shell: trim, wiring, everything that swings or falls", "body", K::TakeApart, {"record"});
    m.two(m.off(m.job("rotisserie-on",
                      "Bolt the shell to the rotisserie by strong places, and find its balance with a quarter turn first", "body",
                      K::Lift, {"shell-empty"})));
    m.off(m.job("underside-clean", "Take the underseal off, turned so that it falls away from you", "underside", K::Clean,
                {"rotisserie-on"}));
    m.off(m.job("underside-weld", "Weld the underside from above", "underside", K::Weld, {"underside-clean"}));
    m.off(m.job("underside-seal", "Seal the seams of the underside, both sides where they can be reached", "underside", K::Seal,
                {"underside-weld"}));
    m.off(m.job("underside-paint", "Prime and coat the underside, cavities too", "underside", K::Paint, {"underside-seal"}));
    m.two(m.off(m.job("rotisserie-off", "Take the shell off the rotisserie", "body", K::Lift, {"underside-paint"})));
    usualTies(m);
}

void frontClip(Maker& m) {
    m.two(m.job("bonnet-off", "Mark the bonnet's hinges and take it off", "front", K::TakeApart, {"record"}));
    m.job("coolant-out", "Drain the coolant into a marked can, away from animals", "front", K::General, {"record"});
    m.job("lamps-free", "Free lamps and horn, every plug tagged", "front", K::Electrical, {"record"});
    m.job("radiator-out", "Take the radiator out, and its shroud", "front", K::TakeApart, {"coolant-out", "bonnet-off"});
    m.job("shims-note", "Note and bag the shims of every wing bolt, each with its place", "front", K::Measure, {"record"});
    m.two(m.job("clip-off", "Take wings, grille and inner panels off in one piece", "front", K::Lift,
                {"bonnet-off", "lamps-free", "radiator-out", "shims-note"}));
    m.job("clip-clean", "Clean what was behind it", "front", K::Clean, {"clip-off"});
    m.two(m.job("clip-back", "Put it back on its shims, bolts loose, and set the gaps from the doors forward", "front", K::Fit,
                {"clip-clean"}));
    m.tie("lamp-plugs", R::Connector, "front", "lamps and horn to loom", "press the tab, pull the plug").frees = "clip-off";
    m.tie("wing-bolts", R::Bolt, "front", "wings to scuttle and sills", "note the shims").frees = "clip-off";
    m.tie("bonnet-cable", R::Cable, "front", "catch to handle", "unhook it at the catch").frees = "clip-off";
    m.tie("brace-rods", R::Linkage, "front", "radiator support to bulkhead", "count the turns").frees = "clip-off";
}

void repaint(Maker& m) {
    m.job("trim-off", "Take trim, lamps and handles off, each in its bag", "outside", K::TakeApart, {"record"});
    m.two(m.job("glass-out", "Take the glass out that is to come out", "outside", K::Glass, {"trim-off"}));
    m.job("paint-strip", "Strip the old paint; stop at what is sound", "outside", K::Clean, {"glass-out"});
    m.job("metal-right", "Weld and beat what the stripping showed", "outside", K::Weld, {"paint-strip"});
    m.job("primer", "Prime the bare metal the same day", "outside", K::Paint, {"metal-right"});
    m.job("seams", "Seal every seam on both sides", "outside", K::Seal, {"metal-right"}, {"topcoat"});
    m.job("fill-block", "Fill, and block it flat by long strokes", "outside", K::General, {"primer"}, {"topcoat"});
    m.job("topcoat", "Paint it, doors and lid off or open", "outside", K::Paint, {"primer", "fill-block", "seams"});
    m.job("polish", "Flat and polish once it is hard", "outside", K::General, {"topcoat"});
    m.two(m.job("glass-back", "Put the glass back on new seals", "outside", K::Glass, {"polish"}));
    m.job("trim-back", "Put the trim back, bag by bag", "outside", K::Fit, {"polish"});
}

struct Known {
    JobList list;
    void (*make)(Maker&);
};
const std::vector<Known>& known() {
    static const std::vector<Known> lists = {
        {{"cab-off", "the body comes off its frame and goes back on"}, cabOff},
        {{"engine-out", "engine and gearbox come out and go back"}, engineOut},
        {{"frame-drop", "the body hangs, and the frame rolls out below it"}, frameDrop},
        {{"rotisserie", "the bare shell is turned, worked on from below and coated"}, rotisserie},
        {{"front-clip", "wings, grille and inner panels come off in one piece"}, frontClip},
        {{"repaint", "it is stripped, made right and painted"}, repaint},
    };
    return lists;
}

} // namespace

const std::vector<JobList>& jobLists() {
    static const std::vector<JobList> lists = [] {
        std::vector<JobList> all;
        for (const Known& k : known()) all.push_back(k.list);
        return all;
    }();
    return lists;
}

ReadyJobs readyJobs(const Build& b, std::string_view key) {
    for (const Known& k : known())
        if (key == k.list.key) {
            Maker m(b, key);
            k.make(m);
            return m.made();
        }
    return {};
}

} // namespace gorvet::build
