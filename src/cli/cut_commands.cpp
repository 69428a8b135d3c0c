#include "cli/cut_commands.hpp"

#include "analysis/cut_files.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/kept_cuts.hpp"
#include "analysis/overlay.hpp"
#include "analysis/seatings.hpp"
#include "analysis/way_in.hpp"
#include "cli/build_scans.hpp"
#include "cli/open_build.hpp"
#include "cli/read_scan.hpp"
#include "cli/tape_commands.hpp"
#include "store/store.hpp"

#include <iostream>
#include <numbers>
#include <sstream>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;
namespace {

Json place(const shape::Point3& p) {
    return {{"station_mm", number(p[0])}, {"offset_mm", number(p[1])}, {"height_mm", number(p[2])}};
}

Json lineJson(const sit::CutLine& l) {
    Json places = Json::array();
    for (const shape::Point3& p : l.line.places) places.push_back({number(p[0]), number(p[1]), number(p[2])});
    return {{"length_mm", number(l.length_mm)},
            {"closed", l.line.closed},
            {"stays_inside", l.hole},
            {"straightened_by_mm", number(l.off_mm)},
            {"places", places}};
}
Json cutsJson(const sit::CutMap& map) {
    Json cuts = Json::array();
    for (const sit::Cut& c : map.cuts) {
        Json lines = Json::array(), rough = Json::array();
        for (const sit::CutLine& l : c.lines) lines.push_back(lineJson(l));
        for (const sit::CutLine& l : c.rough) rough.push_back(lineJson(l));
        cuts.push_back({{"number", c.number},
                        {"allowed", c.allowed()},
                        {"area_mm2", number(c.area_mm2)},
                        {"mass_kg", number(c.mass_kg)},
                        {"deepest_mm", number(c.deepest_mm)},
                        {"at", place(c.at)},
                        {"from", place(c.least)},
                        {"to", place(c.most)},
                        {"flat", c.flat},
                        {"off_plane_mm", number(c.off_plane_mm)},
                        {"crosses", c.crosses},
                        {"never", c.never},
                        {"brace_first", c.brace},
                        {"lines", lines},
                        {"rough_lines", rough}});
    }
    return {{"cuts", cuts},
            {"ground_off", map.ground_off},
            {"area_mm2", number(map.area_mm2)},
            {"mass_kg", number(map.mass_kg)},
            {"remarks", map.remarks},
            {"caution",
             "Cutting a body changes its strength. Brace it first, follow local rules, and never cut plates with numbers."}};
}

int say(const sit::CutMap& map, Json j, const std::string& out, const build::Build& b, const analysis::Results& r) {
    if (!out.empty())
        if (const auto written = analysis::writeCutMap(b, r, map, out); !written) return fail(written.error());
    j.update(cutsJson(map));
    std::cout << text(j);
    for (const sit::Cut& c : map.cuts)
        if (!c.allowed()) return exit_open;
    return 0;
}

Result<sit::Zone> zoneFrom(const std::string& typed) {
    const Error wrong{Error::Code::BadInput, typed, fmt::format("\"{}\" is no zone.", typed),
                      "Give never, brace or named, a name and two corners: never:plate:300,-80,900:420,80,960.", -1};
    std::vector<std::string> parts;
    std::istringstream in(typed);
    for (std::string part; std::getline(in, part, ':');) parts.push_back(part);
    if (parts.size() != 4 || parts[1].empty()) return wrong;
    const auto rule = build::fromWord<build::ZoneRule>(parts[0]);
    const auto a = placeFrom(parts[2]);
    const auto b = placeFrom(parts[3]);
    if (!rule || !a || !b) return wrong;
    sit::Zone z;
    z.name = parts[1];
    z.kind = static_cast<sit::ZoneKind>(*rule);
    for (size_t axis = 0; axis < 3; ++axis) {
        z.least[axis] = std::min((*a)[axis], (*b)[axis]);
        z.most[axis] = std::max((*a)[axis], (*b)[axis]);
    }
    return z;
}

} // namespace

int cutMapOf(const CutRequest& request) {
    const auto pose = poseFrom(request.clearance.pose);
    if (!pose) return fail(pose.error());
    sit::CutOptions o;
    o.need.cap_mm = request.clearance.cap_mm;
    o.need.least_mm = request.clearance.least_mm;
    o.need.finish_mm = request.clearance.finish_mm;
    o.need.half_width_mm = request.clearance.half_width_mm;
    o.margin_mm = request.margin_mm;
    o.flange_mm = request.flange_mm;
    o.thickness_mm = request.thickness_mm;
    o.fineness_mm = request.fineness_mm;
    for (const std::string& typed : request.zones) {
        const auto zone = zoneFrom(typed);
        if (!zone) return fail(zone.error());
        o.zones.push_back(*zone);
    }
    auto body_file = readSaying(request.clearance.body, request.clearance.unit);
    if (!body_file) return fail(body_file.error());
    auto chassis_file = readSaying(request.clearance.chassis, request.clearance.unit);
    if (!chassis_file) return fail(chassis_file.error());
    if (body_file->mesh.triangles.empty())
        return fail(
            Error{Error::Code::BadInput, request.clearance.body, "A cloud has no sheet to cut.", "Give a mesh of the body.", -1});
    const auto body = sit::readyOf(std::make_shared<const shape::Mesh>(std::move(body_file->mesh)), request.clearance.threads);
    const auto chassis =
        sit::readyOf(std::make_shared<const shape::Mesh>(std::move(chassis_file->mesh)), request.clearance.threads);
    const auto map = sit::cutMap(body, chassis, *pose, o, request.clearance.threads);
    if (!map) return fail(map.error());
    build::Build b;
    b.settings.name = request.clearance.body + " on " + request.clearance.chassis;
    return say(
        *map,
        {{"pose", request.clearance.pose}, {"least_mm", o.need.least_mm}, {"margin_mm", o.margin_mm}, {"flange_mm", o.flange_mm}},
        request.out, b, {});
}

int scanKeep(const std::string& build, const std::string& file, const std::string& unit, const std::string& subject,
             const std::string& part, const std::string& name) {
    const auto read = readSaying(file, unit);
    if (!read) return fail(read.error());
    auto store = openToWrite(build);
    if (!store) return fail(store.error());
    const auto blob = (*store)->keepBlob(file);
    if (!blob) return fail(blob.error());
    const auto named = subjectIn((*store)->build(), subject, build);
    if (!named) return fail(named.error());
    const build::SubjectId on = *named;
    const auto shows = part.empty() ? (on == build::the_body ? build::ScanPart::Body : build::ScanPart::Chassis)
                                    : *build::fromWord<build::ScanPart>(part);
    const std::string called = name.empty() ? analysis::scanNameFor((*store)->build(), file) : name;
    const auto edit =
        analysis::keepScan((*store)->build(), called, on, shows, *build::fromWord<build::ScanUnit>(unit), blob->hash, blob->name);
    if (const auto kept = (*store)->keep(edit, author()); !kept) return fail(kept.error());
    std::cerr << fmt::format("kept {}: {} points, {} triangles\n", called, read->mesh.points.size(), read->mesh.triangles.size());
    return 0;
}

namespace {

Json wayDownJson(const sit::WayDown& w) {
    const auto step = [](const sit::DownStep& s) {
        return Json{{"rearward_mm", number(s.at.back_mm)},
                    {"up_mm", number(s.at.up_mm)},
                    {"nose_up_deg", number(units::degrees(s.at.tilt_rad))},
                    {"nearest_mm", s.far ? Json(nullptr) : number(s.least_mm)},
                    {"of", s.body_part},
                    {"to", s.chassis_part},
                    {"at", s.far ? Json(nullptr) : place(s.where)}};
    };
    Json steps = Json::array(), blocked = Json::array();
    for (const sit::DownStep& s : w.steps) steps.push_back(step(s));
    for (const auto& i : w.in_the_way)
        blocked.push_back({{"of", i.body_part},
                           {"to", i.chassis_part},
                           {"up_mm", number(i.up_mm)},
                           {"at", place(i.where)},
                           {"take_off", i.take_off.empty() ? Json(nullptr) : Json(i.take_off)},
                           {"or_cut_more_mm2", number(i.more_mm2)},
                           {"there_from", place(i.least)},
                           {"there_to", place(i.most)}});
    return {{"found", w.found},
            {"straight", w.straight},
            {"gave_up", w.gave_up},
            {"searched", w.searched},
            {"tightest", w.found ? step(w.steps[w.tightest]) : Json(nullptr)},
            {"between_steps_no_nearer_mm", w.found ? number(w.no_nearer_mm) : Json(nullptr)},
            {"turns_at", w.corners},
            {"steps", steps},
            {"straight_down_touches", blocked},
            {"left_out_mm2", number(w.left_out_mm2)},
            {"poses", w.looks}};
}

} // namespace

int overlayOfBuild(const std::string& build, const std::string& out, bool keep, const std::string& seating, bool for_way) {
    auto store = keep ? openToWrite(build) : openToRead(build);
    if (!store) return fail(store.error());
    build::Build b = (*store)->build();
    if (!seating.empty()) {
        const auto as =
            std::find_if(b.seatings.begin(), b.seatings.end(), [&](const auto& row) { return row.second.name == seating; });
        if (as == b.seatings.end())
            return fail(Error{Error::Code::NotFound, seating, fmt::format("There is no seating {}.", seating),
                              "Keep one first: seating keep NAME.", -1});
        b = analysis::seatedAs(b, as->second);
    }
    const analysis::Results results = analysed(b, (*store)->revision());
    const analysis::ScanMeshes meshes = meshesOf(*store->get());
    const analysis::Overlay o = analysis::overlayOf(b, results, meshes);
    Json j;
    const auto c = o.complete() ? analysis::clearanceOf(o, b) : std::nullopt;
    const analysis::Headline h = analysis::overlayHeadline(b, o, c ? &*c : nullptr);
    j["seating"] = seating.empty() ? "now" : seating;
    j["sentence"] = h.sentence;
    j["below"] = h.below;
    j["seated"] = o.seated;
    if (!c) {
        std::cout << text(j);
        return exit_open;
    }
    j["need"] = {{"least_mm", o.need.least_mm}, {"finish_mm", o.need.finish_mm}, {"half_width_mm", number(o.need.half_width_mm)}};
    j["least_mm"] = number(c->least_mm);
    j["signed"] = c->live.map.has_inside;
    j["pairs"] = Json::array();
    for (const analysis::OverlayPair& p : c->pairs) {
        const sit::Pair& q = p.pair;
        const bool far = q.least_mm >= q.need.cap_mm;
        j["pairs"].push_back({{"one", analysis::partName(o, p.moving, q.moving)},
                              {"other", analysis::partName(o, p.fixed, q.fixed)},
                              {"least_clearance_mm", number(q.need.least_mm)},
                              {"finish_mm", number(q.need.finish_mm)},
                              {"half_width_mm", number(q.need.half_width_mm)},
                              {"provenance", p.assumed ? "assumed" : "measured"},
                              {"verdict", q.band == sit::Band::Fouls   ? "Fouls"
                                          : q.band == sit::Band::Tight ? "Tight"
                                                                       : "Clear"},
                              {"nearest_mm", far ? Json(nullptr) : number(q.least_mm)},
                              {"looked_as_far_as_mm", number(q.need.cap_mm)},
                              {"surfaces_meet", q.meets},
                              {"depth_known", q.depth_known},
                              {"at", far ? Json(nullptr) : place(q.at)},
                              {"pose", q.pose},
                              {"poses", q.poses},
                              {"between_poses_mm", number(q.between_mm)},
                              {"places", q.contacts.size()}});
    }
    j["findings"] = findings(analysis::clearanceFindings(b, o, *c, 1000));
    const auto both = analysis::wayOf(o, b);
    if (!both) return fail(Error{Error::Code::NotFound, build, "No way in: a scan is missing.", "Add both scans.", -1});
    const sit::WayIn& way = both->in;
    const auto lift = [](const sit::Lift& l) {
        Json parts = Json::array();
        for (const auto& [name, mm] : l.by_part) parts.push_back({{"part", name}, {"lift_mm", number(mm)}});
        return Json{{"lift_mm", number(l.lift_mm)}, {"part", l.part}, {"at", place(l.at)}, {"by_part", parts}};
    };
    Json undercuts = Json::array();
    for (const sit::Undercut& u : way.undercuts)
        undercuts.push_back(
            {{"by_mm", number(u.by_mm)}, {"part", u.part}, {"at", place(u.at)}, {"area_mm2", number(u.area_mm2)}});
    j["way_in"] = {{"from_behind", lift(way.from_behind)},
                   {"from_front", lift(way.from_front)},
                   {"tilt_deg", number(way.tilt_rad * 180 / std::numbers::pi)},
                   {"tilted", lift(way.tilted)},
                   {"tilted_from", way.behind_is_less ? "behind" : "front"},
                   {"undercuts", undercuts},
                   {"down", wayDownJson(both->down)},
                   {"words", both->words},
                   {"caution", "Nobody under a hung body. Lower it on blocks, never on hands."}};
    const auto map = analysis::cutMapOf(o, b, 0, {}, for_way ? analysis::cutsForWay(o, b) : std::vector<sit::CutAgainst>{});
    if (!map) return fail(map.error());
    if (keep) {
        const auto edit = analysis::keepCuts(b, results, *map);
        if (!edit) return fail(edit.error());
        if (const auto kept = (*store)->keep(*edit, author()); !kept) return fail(kept.error());
        j["kept"] = edit->sentence;
    }
    return say(*map, std::move(j), out, b, results);
}

} // namespace gorvet::cli
