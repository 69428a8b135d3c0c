// Commands about what fouls, and what to cut.
#include "cli/clearance_commands.hpp"
#include "cli/commands.hpp"
#include "cli/cut_commands.hpp"
#include "cli/open_build.hpp"
#include "files/between.hpp"

namespace gorvet::cli {
namespace {

struct OverlayAsked : Asked {
    bool for_way_in = false;
};

/// What both commands ask of two meshes and their distances.
void meshesAndNeeds(CLI::App& c, ClearanceRequest& a) {
    c.add_option("BODY", a.body, "the mesh that moves: PLY, STL, OBJ, XYZ or CSV")->required();
    c.add_option("CHASSIS", a.chassis, "the mesh that stays")->required();
    c.add_option("--pose", a.pose, "dx,dy,dz,yaw,pitch,roll: mm and degrees about BODY's own origin");
    c.add_option("--cap", a.cap_mm, "how far to look, mm")->check(files::between(0.001, 1e6));
    c.add_option("--least", a.least_mm, "the least clearance that is wanted, mm")->check(files::between(0.0, 1e5));
    c.add_option("--finish", a.finish_mm, "what finish takes up, mm")->check(files::between(0.0, 1e5));
    c.add_option("--pm", a.u95_mm, "± of the distances, mm")->check(files::between(0.0, 1e5));
    unitOption(c, a.unit)->capture_default_str();
}

} // namespace

void addClearanceCommands(Commands& commands) {
    CLI::App& app = commands.app();
    {
        auto [c, a] =
            commands.add<ClearanceRequest>(app, "clearance", "one mesh against another: what fouls, by how much, where");
        meshesAndNeeds(c, a);
        c.add_option("--threads", a.threads, "0: as many as the machine has")->check(files::between(0, 256));
        c.add_option("--map", a.map, "write BODY as PLY with the distance of every point");
        commands.runs(c, [&a = a] { return clearanceOf(a); });
    }
    {
        auto [c, a] =
            commands.add<CutRequest>(app, "cutmap", "what to cut from BODY so that it clears CHASSIS, as lines a person can cut");
        meshesAndNeeds(c, a.clearance);
        c.add_option("--margin", a.margin_mm, "cut so far beyond what is too near, along the sheet, mm")
            ->check(files::between(0.0, 1e4));
        c.add_option("--flange", a.flange_mm, "sheet left standing for re-joining, at most the margin, mm")
            ->check(files::between(0.0, 1e4));
        c.add_option("--thickness", a.thickness_mm, "of the sheet, mm")->check(files::between(0.0, 100.0));
        c.add_option("--fineness", a.fineness_mm, "triangles near a cut are divided down to this, mm")
            ->check(files::between(0.01, 1000.0));
        c.add_option("--zone", a.zones, "never|brace|named:NAME:x,y,z:x,y,z on BODY's own axes; may be given often");
        c.add_option("--out", a.out, "a folder for each cut as DXF, the places as CSV, and all as PDF");
        commands.runs(c, [&a = a] { return cutMapOf(a); });
    }
    {
        auto [c, a] =
            commands.add<OverlayAsked>(app, "overlay", "a build's scans on each other as they sit: what fouls, and what to cut");
        fileArgument(c, a.path);
        c.add_option("--out", a.from, "a folder for each cut as DXF, the places as CSV, all as PDF, and flat cuts 1:1");
        c.add_option("--seating", a.text, "as a kept seating has it, instead of as it is now");
        c.add_flag("--for-way-in", a.for_way_in, "cut for the way straight down, too, past what does not come off");
        c.add_flag("--keep-cuts", a.flag, "keep the cuts in the build: they become steps of the work");
        commands.runs(c, [&a = a] { return overlayOfBuild(a.path, a.from, a.flag, a.text, a.for_way_in); });
    }
}

} // namespace gorvet::cli
