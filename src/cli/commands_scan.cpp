// Commands about scans: one file, two scans, and a scan in a build.
#include "build/build.hpp"
#include "cli/align_commands.hpp"
#include "cli/commands.hpp"
#include "cli/cut_commands.hpp"
#include "cli/lay_command.hpp"
#include "cli/open_build.hpp"
#include "cli/scan_commands.hpp"
#include "files/between.hpp"

namespace gorvet::cli {
namespace {

void addOneFile(Commands& commands, CLI::App& scan) {
    {
        auto [c, a] = commands.add(scan, "info", "what a file holds, and what is wrong with it");
        scanArgument(c, a.path);
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanInfo(a.path, a.unit); });
    }
    {
        auto [c, a] = commands.add(scan, "fit", "a plane, line, circle, ball or tube through all points of a file");
        scanArgument(c, a.path);
        c.add_option("--shape", a.text, "plane, line, circle, ball or tube")
            ->required()
            ->check(CLI::IsMember({"plane", "line", "circle", "ball", "tube"}));
        c.add_flag("--outliers", a.flag, "leave out what stands off");
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanFit(a.path, a.unit, a.text, a.flag); });
    }
    {
        auto [c, a] = commands.add(scan, "convert", "write it as PLY or STL, in mm");
        scanArgument(c, a.path);
        c.add_option("OUT", a.other, "OUT.ply or OUT.stl")->required();
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanConvert(a.path, a.unit, a.other); });
    }
    {
        auto [c, a] = commands.add(scan, "thin", "leave out stray points, and thin with a bound on the error");
        scanArgument(c, a.path);
        c.add_option("OUT", a.other, "OUT.ply or OUT.stl")->required();
        c.add_option("--bound", a.number, "no point that goes is farther from one that stays, mm")
            ->check(files::between(0.0, 10000.0));
        c.add_flag("--strays", a.flag, "leave out stray points first");
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanThin(a.path, a.unit, a.number, a.flag, a.other); });
    }
    {
        auto [c, a] = commands.add(scan, "check", "is the unit right? a distance in the scan against one that was taped");
        scanArgument(c, a.path);
        c.add_option("--from", a.from, "a place: x,y,z")->required();
        c.add_option("--to", a.to, "the other place")->required();
        c.add_option("--known", a.number, "what was taped, mm")->check(files::between(0.001, 1e6))->required();
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanCheck(a.path, a.unit, a.from, a.to, a.number); });
    }
}

void addAxes(Commands& commands, CLI::App& scan) {
    {
        auto [c, a] = commands.add<AlignRequest>(scan, "align", "lay one scan on another by what both see");
        c.add_option("MOVING", a.moving, "the scan that is moved")->required();
        c.add_option("FIXED", a.fixed, "the scan that stays")->required();
        c.add_option("--start", a.start, "rough pose: dx,dy,dz,yaw,pitch,roll in mm and degrees");
        c.add_option("--pick", a.picks, "the same place in both: x,y,z=x,y,z; three or more, in place of --start");
        c.add_option("--markers", a.marker_radius_mm, "start by marker balls of this radius, mm")
            ->check(files::between(1.0, 1000.0));
        c.add_option("--reach", a.reach_mm, "how far the start may be off, mm")->check(files::between(1.0, 10000.0));
        c.add_flag("--only-picks", a.only_picks, "leave it as picks or markers lay it");
        c.add_option("--out", a.out, "write the moved scan: OUT.ply or OUT.stl");
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanAlign(a); });
    }
    {
        auto [c, a] = commands.add(scan, "markers", "find marker balls, and match them with another scan's");
        scanArgument(c, a.path);
        c.add_option("OTHER", a.other, "another scan");
        c.add_option("--radius", a.number, "of the balls, mm")->required()->check(files::between(1.0, 1000.0));
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanMarkers(a.path, a.other, a.unit, a.number); });
    }
    {
        auto [c, a] = commands.add(scan, "midplane", "the mid-plane by symmetry, and where left and right are unlike");
        scanArgument(c, a.path);
        a.number = 2;
        c.add_option("--across", a.text, "roughly which way is across: x,y,z");
        c.add_option("--limit", a.number, "what is worth telling, mm")->check(files::between(0.0, 1000.0));
        c.add_option("--map", a.other, "write the scan as PLY with how far each point is off its like");
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanMidPlane(a.path, a.unit, a.text, a.number, a.other); });
    }
    {
        auto [c, a] =
            commands.add<DatumRequest>(scan, "datum", "3-2-1: a plane, a centreline and a station give the scan its axes");
        scanArgument(c, a.path);
        c.add_option("--plane", a.plane, "three places or more of height 0: x,y,z each")->required();
        c.add_option("--line", a.line, "two places of the centreline, the front one first")->required();
        c.add_option("--station", a.station, "a place of station 0")->required();
        c.add_option("--out", a.out, "write the moved scan: OUT.ply or OUT.stl");
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanDatum(a); });
    }
}

void addToBuild(Commands& commands, CLI::App& scan) {
    {
        auto [c, a] = commands.add(scan, "keep", "keep a scan's file in a build");
        fileArgument(c, a.path);
        c.add_option("SCAN", a.other, "PLY, STL, OBJ, XYZ or CSV")->required();
        c.add_option("--on", a.to, "body, chassis, or another subject of the build: on whose axes it stands")->required();
        c.add_option("--part", a.from, "what it shows: " + build::wordList<build::ScanPart>())
            ->check(CLI::IsMember(std::vector<std::string>(build::Words<build::ScanPart>::text.begin(),
                                                           build::Words<build::ScanPart>::text.end())));
        c.add_option("--name", a.text, "what to call it");
        unitOption(c, a.unit)->required();
        commands.runs(c, [&a = a] { return scanKeep(a.path, a.other, a.unit, a.to, a.from, a.text); });
    }
    {
        auto [c, a] = commands.add<LayRequest>(
            scan, "lay", "stand a kept scan on its subject's axes: by marker balls, its mid-plane, 3-2-1, or surveyed points");
        fileArgument(c, a.build);
        c.add_option("SCAN", a.scan, "name of the scan")->required();
        c.add_option("--markers", a.ball_radius_mm, "radius of the marker balls, mm")->check(files::between(1.0, 1000.0));
        c.add_flag("--symmetry", a.symmetry, "its own mid-plane becomes the centreline");
        c.add_option("--datum", a.datum,
                     "six places x,y,z as it stands now: three on the datum plane, two on the centreline, one at station 0");
        c.add_option("--survey", a.surveyed, "NAME=x,y,z: a surveyed point and where the scan shows it now; three or more");
        commands.runs(c, [&a = a] { return scanLay(a); });
    }
}

} // namespace

void addScanCommands(Commands& commands) {
    CLI::App& scan = commands.group("scan", "meshes and clouds");
    addOneFile(commands, scan);
    addAxes(commands, scan);
    addToBuild(commands, scan);
}

} // namespace gorvet::cli
