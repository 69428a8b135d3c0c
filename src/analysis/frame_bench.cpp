// The frame as it carries, on Stretch: made apart, its sentence, its sheets and pages.
#include "analysis/bench_parts.hpp"
#include "analysis/frame_boxing.hpp"
#include "analysis/lead.hpp"
#include "analysis/pages.hpp"
#include "analysis/scans.hpp"
#include "frame/boxing_sheet.hpp"
#include "frame/forces_sheet.hpp"
#include "frame/frame_sheet.hpp"
#include "frame/plates.hpp"
#include "sheet/write.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Drawing;
using sheet::Format;
using sheet::Severity;

namespace {

const char* const left_out =
    "Left out: how plates buckle, welds and rivets that give, holes, brackets, sheet that is welded on, shocks beyond the cases, and "
    "rust that nobody measured.";

bool framePossible(const Build& b, const Results& r) { return frameBegun(b) && frameAsked(b, r).waits.empty(); }
bool frameCurrent(const Build& b, const Results& r) { return r.scans->frame.madeFrom(frameAsked(b, r)); }

bool makeFrame(const Build& b, Results& r, const ReadBlob&, const Progress& progress) {
    auto scans = std::make_shared<Scans>(*r.scans);
    bool stopped = false;
    scans->frame = decltype(scans->frame)::of(frameAsked(b, r), &r.scans->frame, [&](const FrameAsked& asked) {
        auto found = findFrame(asked, progress);
        stopped = !found;
        return found;
    });
    if (stopped) return false;
    r.scans = std::move(scans);
    return progress(1);
}

std::string range(const frame::Stiffness& s) {
    return s.held_nm_deg > 1.02 * s.free_nm_deg ? fmt::format("{:.0f} to {:.0f}", s.free_nm_deg, s.held_nm_deg)
                                                : fmt::format("{:.0f}", s.free_nm_deg);
}
/// The worst case that counts; nullptr: none does.
const frame::OfCase* worstCase(const frame::Outcome& o) {
    const frame::OfCase* worst = nullptr;
    for (const frame::OfCase& c : o.cases)
        if (!c.tips && c.margin > 0 && (!worst || c.margin < worst->margin)) worst = &c;
    return worst;
}
std::string hertz(const std::optional<double>& hz) { return hz ? fmt::format("{:.1f} Hz", *hz) : "not found"; }

std::string caseWords(const frame::OfCase& c) {
    std::string words = fmt::format("{:g} g down", c.asked.up_g);
    if (c.asked.braking_g != 0) words += fmt::format(", braked with {:g} g", c.asked.braking_g);
    if (c.asked.cornering_g != 0) words += fmt::format(", {:g} g in a bend", c.asked.cornering_g);
    if (c.lifted) {
        constexpr std::array<const char*, frame::wheels> names{"front left", "front right", "rear left", "rear right"};
        words += fmt::format(", the {} wheel in the air", names[*c.lifted]);
    }
    return words;
}

/// The one that is drawn: as planned where something is.
struct Shown {
    const frame::Structure* structure = nullptr;
    const frame::Outcome* outcome = nullptr;
    bool planned = false;
};
Shown shownOf(const Results& r) {
    const auto& node = r.scans->frame;
    if (!node.made() || !node->now) return {};
    if (node->planned && node.input().planned) return {&*node.input().planned, &*node->planned, true};
    return {&node.input().now, &*node->now, false};
}

/// Both ends of every plate and row of ribs that is planned, as handles on the left rail (the right one's own on the right).
void addGrips(const Build& b, const Results& r, frame::FrameView& v) {
    constexpr double least_mm = 50; // long
    for (const auto& row : b.members) {
        const Member& m = row.second;
        if ((m.kind != MemberKind::Plate && m.kind != MemberKind::Rib) || m.state != MemberState::Planned) continue;
        const auto line = std::find_if(v.structure->lines.begin(), v.structure->lines.end(), [&](const frame::Line& l) {
            return l.name == (m.side == RailSide::Right ? "right rail" : "left rail");
        });
        if (line == v.structure->lines.end()) continue;
        const double from = m.station->value, to = m.until->value, first = line->points.front().x_mm,
                     last = line->points.back().x_mm;
        const auto at = [&](double station) {
            return frame::placeAlong(*line, frame::alongTo(*line, r.planned_chassis.map(Vec3{station, 0, 0}).x_mm));
        };
        sheet::Grip grip;
        grip.name = m.name + " from";
        grip.value = from;
        grip.least = r.planned_chassis.stationNow(first);
        grip.most = to - least_mm;
        v.grips.emplace_back(at(from), grip);
        grip.name = m.name + " to";
        grip.value = to;
        grip.least = from + least_mm;
        grip.most = r.planned_chassis.stationNow(last);
        v.grips.emplace_back(at(to), grip);
    }
}

/// The member and the end of it that a handle moves; none: there is no such.
std::optional<std::pair<Member, bool>> gripped(const Build& b, const std::string& grip, double value) {
    const auto space = grip.rfind(' ');
    const Member* m = space == std::string::npos ? nullptr : memberNamed(b, grip.substr(0, space));
    if (!m || !m->station || !m->until) return {};
    Member moved = *m;
    const bool from = grip.substr(space + 1) == "from";
    (from ? moved.station : moved.until)->value = std::round(value);
    return std::pair(moved, from);
}

/// The same frame with a handle dragged: worked out in twist alone, at once.
std::optional<frame::Structure> draggedFrame(const Build& b, const Results& r, const ViewOptions& o, frame::FrameView& v) {
    const auto moved = gripped(b, o.grip, o.grip_value);
    if (!moved) return {};
    Build trial = b;
    trial.members[moved->first.id] = moved->first;
    FrameAsked asked = frameAsked(trial, r);
    if (!asked.planned) return {};
    static frame::SectionBook book; // the window's thread alone drags
    const auto twist = frame::twistOf(*asked.planned, book);
    v.dragged = o.grip;
    v.live = fmt::format("{}: {} N·m/deg", v.station(std::round(o.grip_value)), twist ? range(*twist) : "?");
    v.grips.clear();
    v.structure = &*asked.planned;
    addGrips(trial, r, v);
    return std::move(asked.planned);
}

std::string draggedLine(const Build& b, const Results&, const std::string& grip, double value) {
    const auto moved = gripped(b, grip, value);
    if (!moved) return {};
    return fmt::format("member {} {} {:.0f}mm", moved->first.name, moved->second ? "from" : "to", std::round(value));
}

frame::FrameView frameViewOf(const Build& b, const Results& r, const std::string& selected) {
    const Shown shown = shownOf(r);
    const FrameAsked& asked = r.scans->frame.input();
    const FrameFound& found = *r.scans->frame;
    frame::FrameView v;
    v.structure = shown.structure;
    v.outcome = shown.outcome;
    v.planned = shown.planned;
    v.selected = selected;
    const auto step = b.settings.length_step;
    v.station = [step](double x) { return units::formatLength(x, step, true); };
    for (const frame::Line& l : shown.structure->lines) {
        const Member* m = memberNamed(b, l.name);
        v.fresh.push_back(m ? m->state == MemberState::Planned : l.name == "new crossmember");
    }
    for (const frame::OfCase& c : shown.outcome->cases) {
        frame::SheetCase s;
        s.name = c.asked.name;
        s.words = caseWords(c);
        s.counts = !c.tips && c.margin > 0;
        s.severity = c.tips ? Severity::Warn : sheet::severityOf(verdictOf(asked, c));
        s.bears = fmt::format("{:.0f} MPa", c.stress_mpa);
        s.margin = fmt::format("{:.1f} ×", c.margin);
        s.where = c.tips         ? "the car would tip onto it"
                  : c.margin > 0 ? fmt::format("{} at {}", c.line, v.station(c.at.x_mm))
                                 : "";
        v.cases.push_back(std::move(s));
    }
    const auto add = [&](const char* name, const auto& words) {
        v.figures.push_back({name, words(*found.now), found.planned ? words(*found.planned) : ""});
    };
    using frame::Outcome;
    add("in twist, N·m/deg", [](const Outcome& o) { return range(o.twist); });
    if (found.now->with_body) add("with its body", [](const Outcome& o) { return o.with_body ? range(*o.with_body) : ""; });
    add("swings in twist", [](const Outcome& o) { return hertz(o.torsion_hz); });
    add("swings in bending", [](const Outcome& o) { return hertz(o.bending_hz); });
    add("its steel", [](const Outcome& o) { return fmt::format("{:.0f} kg", o.mass_kg); });
    add("with what it carries", [](const Outcome& o) { return fmt::format("{:.0f} kg", o.all_kg); });
    add("least margin", [](const Outcome& o) {
        const frame::OfCase* worst = worstCase(o);
        return worst ? fmt::format("{:.1f} ×", worst->margin) : std::string("none asked");
    });
    if (!asked.assumed.empty()) {
        std::string list;
        for (const std::string& a : asked.assumed) list += (list.empty() ? "" : ", ") + a;
        v.words.push_back("Taken as usual, not measured: " + list + ".");
    }
    v.words.push_back("Margin: yield over 1.5, over the worst stress. Indicative, no certificate.");
    v.words.emplace_back(left_out);
    return v;
}

Drawing saying(const std::string& text, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    double y = f.lead();
    for (const std::string& line : sheet::wrapped(text, width, f.lead())) {
        d.add(sheet::Text{{0, y}, line, f.lead(), sheet::Ink::Second});
        y += f.lead() * 1.4;
    }
    return d;
}
std::string waitingWords(const Build& b, const Results& r) {
    if (!frameBegun(b))
        return "What joins the rails is not said yet: a frame of two rails alone resists no twist. Name each crossmember with its station "
               "and section: member front crossmember at 300 box 60 40 3.";
    const FrameAsked asked = frameAsked(b, r);
    if (!asked.waits.empty()) return fmt::format("It waits for {}. {}", asked.waits, asked.remedy);
    if (r.scans->frame.made() && !r.scans->frame->now) return r.scans->frame->wrong + " " + r.scans->frame->remedy;
    return "Being worked out.";
}

Drawing boxing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height, const Format& f) {
    const auto& list = r.scans->frame->boxing;
    if (!shownOf(r).outcome) return saying(waitingWords(b, r), width, height, f);
    if (list.empty()) return saying("Its rails are closed already: there is nothing to box.", width, height, f);
    frame::BoxingView v;
    v.selected = o.selected;
    for (const BoxingChoice& c : list)
        v.rows.push_back({c.name, c.words, c.twist.free_nm_deg, c.twist.held_nm_deg, c.kg, c.seam_m, c.hours});
    v.tried = boxing_tried;
    if (const auto& wanted = r.scans->frame.input().wanted_nm_deg) v.wanted_nm_deg = *wanted;
    v.words = {
        "Before a rail is closed: nuts, sleeves and brackets inside, blown clean, coated, and drain holes at its lowest places. "
        "Closed steel that stays wet rots unseen. Ribs do not close a rail: they only keep its edges from warping against each other."};
    return frame::boxingSheet(v, width, height, f);
}

std::vector<frame::SectionShown> sectionsOf(const Results& r) {
    std::vector<frame::SectionShown> list;
    const Shown shown = shownOf(r);
    if (!shown.structure) return list;
    frame::SectionBook book;
    for (const frame::Line& l : shown.structure->lines)
        for (const frame::Piece& p : l.pieces) {
            if (l.name == "right rail") continue; // the left one's mirror image
            const auto worth = book.of(p.section);
            if (!worth) continue;
            std::string said = p.section.shape.empty() ? "built up" : p.section.shape;
            for (const double size : p.section.sizes) said += fmt::format(" {:g}", size);
            const auto known = std::find_if(list.begin(), list.end(), [&](const auto& s) { return s.walls == (*worth)->walls; });
            if (known != list.end()) {
                if (known->name.find(l.name) == std::string::npos) known->name += ", " + l.name;
                continue;
            }
            list.push_back({l.name, said, (*worth)->walls, (*worth)->section});
        }
    return list;
}

Drawing sections(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height, const Format& f) {
    const auto list = sectionsOf(r);
    if (list.empty()) return saying(waitingWords(b, r), width, height, f);
    return frame::sectionsSheet(list, width, height, f);
}

/// As it is: that is what is cut.
Drawing forces(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height, const Format& f) {
    if (!shownOf(r).outcome) return saying(waitingWords(b, r), width, height, f);
    frame::ForcesView v;
    v.structure = &r.scans->frame.input().now;
    v.outcome = &*r.scans->frame->now;
    const auto step = b.settings.length_step;
    v.station = [step](double x) { return units::formatLength(x, step, true); };
    if (b.stretch.cut_station) v.cuts.push_back(b.stretch.cut_station->value);
    constexpr std::size_t most_others = 3;
    for (const stretch::Candidate& c : r.stretch->candidates)
        if (v.better.size() < most_others && c.refused.empty() &&
            (!b.stretch.cut_station || std::abs(c.station_mm - b.stretch.cut_station->value) > 100))
            v.better.emplace_back(c.station_mm, c.score);
    return frame::forcesSheet(v, width, std::max(height, f.px(frame::forces_sheet_least_px)), f);
}
Headline forcesHeadline(const Build& b, const Results& r, SubjectId) {
    if (!shownOf(r).outcome) return {"What goes through the rails is not known yet.", waitingWords(b, r)};
    const auto& lines = r.scans->frame->now->lines;
    const char* const below =
        "At rest, by what it carries; the other cases multiply it. Numbers under the stations: how they score of 10.";
    if (!b.stretch.cut_station || lines.empty()) return {"What goes through the rails along the frame.", below};
    const auto at = frame::throughAt(lines.front(), b.stretch.cut_station->value);
    if (!at) return {"The cut stands beyond the rails.", below};
    const frame::Through most = frame::mostThrough(lines.front());
    return {fmt::format("At the cut the left rail is bent by {:.0f} N·m, {:.0f} % of the most anywhere.", at->bends_nm,
                        most.bends_nm > 0 ? 100 * at->bends_nm / most.bends_nm : 0.0),
            fmt::format("It shears by {:.0f} N and is twisted by {:.0f} N·m there. {}", at->shear_n, at->twist_nm, below)};
}

Headline sectionsHeadline(const Build& b, const Results& r, SubjectId) {
    if (!shownOf(r).structure) return {"What the sections are worth is not known yet.", waitingWords(b, r)};
    return {"What each section is worth.",
            "With corner radii (outside twice the wall unless read), and the thickness that was measured."};
}

Headline boxingHeadline(const Build& b, const Results& r, SubjectId) {
    const auto& list = r.scans->frame->boxing;
    if (!shownOf(r).outcome) return {"Open or closed rails: the frame is to be said first.", waitingWords(b, r)};
    if (list.size() < 2) return {"The rails are closed: there is nothing to box.", ""};
    const BoxingChoice& open = list.front();
    const auto best = std::max_element(list.begin() + 1, list.end(), [&](const BoxingChoice& a, const BoxingChoice& c) {
        return (a.twist.free_nm_deg - open.twist.free_nm_deg) / a.kg < (c.twist.free_nm_deg - open.twist.free_nm_deg) / c.kg;
    });
    const auto all = std::find_if(list.begin(), list.end(), [](const BoxingChoice& c) { return c.name == "all bays"; });
    if (all == list.end() || best == list.end()) return {"Its open rails can't be closed as they are said.", ""};
    std::string wanted;
    if (const auto& asked = r.scans->frame.input().wanted_nm_deg) {
        const auto least = std::find_if(list.begin(), list.end(), [](const BoxingChoice& c) { return c.name == "least"; });
        wanted = open.twist.free_nm_deg >= *asked ? fmt::format(" The {:.0f} that are wanted are there.", *asked)
                 : least == list.end() ? fmt::format(" No plates of 3 to 8 mm reach the {:.0f} that are wanted.", *asked)
                                       : fmt::format(" The {:.0f} that are wanted take {:.1f} kg.", *asked, least->kg);
    }
    return {
        fmt::format("Closed all along it resists {:.1f} times the twist, for {:.1f} kg.",
                    all->twist.free_nm_deg / open.twist.free_nm_deg, all->kg) +
            wanted,
        fmt::format("Most for its steel: {} ({}), {:+.0f} N·m/deg a kilogram. Figures are of beams: indicative, no certificate.",
                    best->name, best->words, (best->twist.free_nm_deg - open.twist.free_nm_deg) / best->kg)};
}

Headline frameHeadline(const Build& b, const Results& r, SubjectId) {
    const Shown shown = shownOf(r);
    if (!shown.outcome) return {"How much the frame bears is not known yet.", waitingWords(b, r)};
    const frame::Outcome& o = *shown.outcome;
    Headline h;
    h.sentence = fmt::format("{} it resists {} N·m a degree of twist", shown.planned ? "As planned" : "As it is", range(o.twist));
    if (shown.planned) h.sentence += fmt::format(", {} before", range(r.scans->frame->now->twist));
    h.sentence += ".";
    if (const frame::OfCase* worst = worstCase(o)) {
        const auto v = verdictOf(r.scans->frame.input(), *worst);
        h.below = fmt::format(
            "{}: the case {} comes nearest to yield over 1.5, with {:.1f} times to spare. Indicative, no certificate.",
            verdictWord(v), worst->asked.name, worst->margin);
        if (worst->margin < 1)
            h.below = fmt::format(
                "Fails: in the case {} it bears more than yield over 1.5 ({:.2f} of what is wanted). Indicative, no certificate.",
                worst->asked.name, worst->margin);
    }
    if (!frameCurrent(b, r)) h.below += " Being worked out anew.";
    return h;
}

Drawing frameDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                     const Format& f) {
    if (!shownOf(r).outcome) return saying(waitingWords(b, r), width, height, f);
    frame::FrameView v = frameViewOf(b, r, o.selected);
    if (v.planned) addGrips(b, r, v);
    const auto dragged = o.grip.empty() ? std::nullopt : draggedFrame(b, r, o, v);
    if (dragged) v.structure = &*dragged;
    return frame::frameSheet(v, width, std::max(height, f.px(frame::frame_sheet_least_px)), f);
}

} // namespace

std::vector<frame::ClosingPlate> plannedPlates(const Build& b, const Results& r) {
    std::vector<frame::ClosingPlate> list;
    if (b.rail.shape != RailShape::Channel) return list;
    for (const auto& [id, m] : b.members) {
        if (m.state != MemberState::Planned) continue;
        const int sides = m.side == RailSide::Both ? 2 : 1;
        if (m.kind == MemberKind::Rib && m.form == SectionForm::Flat) {
            const int ribs = 1 + static_cast<int>(std::floor((m.until->value - m.station->value + 0.5) / m.pitch->value));
            list.push_back(frame::ribPlate(m.name, b.rail.height.value, b.rail.width.value, b.rail.thickness.value, m.wall.value,
                                           ribs * sides));
        }
        if (m.kind != MemberKind::Plate) continue;
        const RailLine& rail = m.side == RailSide::Right ? r.planned_right : r.planned_left;
        const auto station = [&](double x) { return r.planned_chassis.map(Vec3{x, 0, 0}).x_mm; };
        const auto from = rail.at(station(m.station->value)), to = rail.at(station(m.until->value));
        if (!from || !to) continue;
        const double dx = station(m.until->value) - station(m.station->value),
                     length = std::hypot(dx, to->y_mm - from->y_mm, to->top_mm - from->top_mm);
        frame::Windows windows;
        if (m.window_long) windows = {m.window_long->value, m.window_high->value, m.pitch->value};
        list.push_back(frame::closingPlate(m.name, length, b.rail.height.value, m.wall.value, sides, windows));
    }
    return list;
}

std::vector<Drawing> framePages(const Build& b, const Results& r) {
    std::vector<Drawing> pages;
    if (!shownOf(r).outcome) return pages;
    const std::vector<std::string> cautions{no_certificate, local_rules};
    const auto page = [&](const std::string& title, const Headline& head, const auto& draw) {
        sheet::Area area;
        Drawing p = sheet::blankPage(titled(b, r, title), cautions, area);
        addHeadline(p, area, head);
        placeFitted(p, area, draw);
        pages.push_back(std::move(p));
    };
    page("Stretch: what the frame bears", frameHeadline(b, r, the_chassis),
         [&](double w, double h, const Format& f) { return frameDrawing(b, r, the_chassis, {}, w, h, f); });
    page("Stretch: what goes through the rails", forcesHeadline(b, r, the_chassis),
         [&](double w, double h, const Format& f) { return forces(b, r, the_chassis, {}, w, h, f); });
    if (r.scans->frame->boxing.size() > 1)
        page("Stretch: open or closed rails", boxingHeadline(b, r, the_chassis),
             [&](double w, double h, const Format& f) { return boxing(b, r, the_chassis, {}, w, h, f); });
    page("Stretch: sections", sectionsHeadline(b, r, the_chassis),
         [&](double w, double h, const Format& f) { return frame::sectionsSheet(sectionsOf(r), w, h, f); });
    if (const auto plates = plannedPlates(b, r); !plates.empty())
        page("Stretch: plates and ribs of the rails",
             {fmt::format("{} to be cut, flat.", units::counted(plates.size(), "a shape")),
              "The same plate fits left and right: the row of holes goes down."},
             [&](double w, double h, const Format& f) { return frame::platesSheet(plates, w, h, f); });
    return pages;
}

void addFrameFiles(const Build& b, const Results& r, FileKeeper& out) {
    if (!r.file_damage.empty()) return; // nothing that a machine cuts from comes out of a damaged file
    for (const frame::ClosingPlate& p : plannedPlates(b, r))
        out.keep(fmt::format("plate-{}.dxf", p.name),
                 [&](const auto& to) { return sheet::writeDxf(frame::platePattern(p), to); });
}

const std::vector<BenchView>& frameViews() {
    static const std::vector<BenchView> views{
        {"strength", "Strength", frameDrawing, {slow::frame}, frameHeadline, nullptr, draggedLine},
        {"forces", "Forces", forces, {slow::frame}, forcesHeadline},
        {"sections", "Sections", sections, {slow::frame}, sectionsHeadline},
        {"boxing", "Open or closed", boxing, {slow::frame}, boxingHeadline}};
    return views;
}

const std::vector<SlowNode> frame_nodes{
    {slow::frame, "what the frame bears", {}, framePossible, frameCurrent, makeFrame, true, true, false}};

} // namespace gorvet::analysis
