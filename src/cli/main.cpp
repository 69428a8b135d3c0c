#include "analysis/bench.hpp"
#include "analysis/export.hpp"
#include "analysis/findings.hpp"
#include "analysis/json.hpp"
#include "cli/align_commands.hpp"
#include "cli/clearance_commands.hpp"
#include "cli/cut_commands.hpp"
#include "cli/keep_commands.hpp"
#include "cli/lay_command.hpp"
#include "cli/open_build.hpp"
#include "cli/scan_commands.hpp"
#include "cli/tape_commands.hpp"
#include "cli/wait.hpp"
#include "cli/what_if.hpp"
#include "files/between.hpp"
#include "files/streams.hpp"

#include <iostream>

#include <CLI/CLI.hpp>
#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;
namespace {

struct Opened {
    StorePtr store;
    analysis::Results results;
};

Result<Opened> openAndAnalyse(const std::string& path) {
    auto store = openToRead(path);
    if (!store) return store.error();
    Opened opened{std::move(*store), {}};
    opened.results = analysed(*opened.store);
    return opened;
}

template <class F> int withResults(const std::string& path, F&& print) {
    auto opened = openAndAnalyse(path);
    if (!opened) return fail(opened.error());
    print(*opened);
    return 0;
}

int exportAll(const std::string& path, const std::string& directory) {
    auto opened = openAndAnalyse(path);
    if (!opened) return fail(opened.error());
    const build::Build& b = opened->store->build();
    waitFor(*opened->store, b, opened->results, analysis::slowOnPaper());
    auto written = analysis::exportAll(b, opened->results, directory);
    if (!written) return fail(written.error());
    for (const auto& file : *written) std::cout << file.string() << "\n";
    return 0;
}

int printFindings(const std::string& path, bool without_scans) {
    auto opened = openAndAnalyse(path);
    if (!opened) return fail(opened.error());
    if (!without_scans) waitFor(*opened->store, opened->store->build(), opened->results, analysis::slowForFindings());
    std::cout << findingsJson(opened->results.findings);
    return 0;
}

int run(int argc, char** argv) {
    CLI::App app{
        "Gorvet without a window: body on chassis, measured, planned and drawn. JSON on standard output, messages on standard error."};
    app.require_subcommand(1);
    double patience = 10;
    app.add_option("--wait", patience, "how many seconds to wait for another program that writes the build")
        ->check(files::between(0.0, 3600.0))
        ->capture_default_str();
    std::string path;
    std::string other;
    std::string text;
    std::string why;
    std::string subject_word = "chassis";
    std::vector<std::string> lines;
    bool keep_all = false;
    CompareAsked compare_asked;
    int count = 20;
    const auto subjectOption = [&](CLI::App* c) {
        c->add_option("--subject", subject_word, "chassis, body, or another subject of the build");
    };
    const auto fileArgument = [&](CLI::App* c) { c->add_option("FILE", path, "a build, FILE.gorvet")->required(); };

    auto* fresh = app.add_subcommand("new", "make an empty build");
    fileArgument(fresh);
    fresh->add_option("--name", text, "the build's name");
    auto* import = app.add_subcommand("import", "add the readings of a CSV file");
    fileArgument(import);
    import->add_option("READINGS", other, "readings as CSV")->required();
    subjectOption(import);
    import->add_option("--session", text, "name of the measuring session that takes them");
    import->add_option("--why", why, "goes into the log");
    auto* enter = app.add_subcommand("enter", "type lines as on the entry line; without lines, from standard input");
    fileArgument(enter);
    enter->add_option("LINES", lines, "lines to enter");
    subjectOption(enter);
    enter->add_option("--why", why, "goes into the log");
    auto* tape = app.add_subcommand("tape", "the survey");
    tape->require_subcommand(1);
    auto* solve = tape->add_subcommand("solve", "adjust the readings of a CSV file or a build");
    solve->add_option("FILE", path, "READINGS.csv or FILE.gorvet")->required();
    subjectOption(solve);
    solve->add_flag("--keep-all", keep_all, "set no reading aside: every reading counts");
    auto* next = tape->add_subcommand("next", "what to measure next, and a round of readings in walking order");
    next->add_option("FILE", path, "FILE.gorvet")->required();
    subjectOption(next);
    next->add_option("--count", count, "readings in the round")->check(files::between(1, 200));
    next->add_option("--want", text, "everything, figures, diamond, twist, sidesway, rails, wheelbase, tracks or \"point NAME\"");
    next->add_option("--sheet", other, "write the round as a measuring sheet, PDF");
    auto* compare = tape->add_subcommand("compare", "what moved between two surveys");
    compare->add_option("BEFORE", path, "READINGS.csv, FILE.gorvet or FILE.gorvet:SESSION")->required();
    compare->add_option("AFTER", other, "the same")->required();
    subjectOption(compare);
    compare->add_flag("--as-measured", compare_asked.as_measured, "both stand on the same datum: do not lay one on the other");
    compare->add_flag("--planned", compare_asked.planned, "take off the change of wheelbase that BEFORE plans");
    compare->add_option("--lay", compare_asked.lay, "lay them on each other by these points alone")->delimiter(',');
    auto* condition = tape->add_subcommand("condition", "the frame's figures alone");
    condition->add_option("FILE", path, "READINGS.csv or FILE.gorvet")->required();
    subjectOption(condition);
    auto* drawing = tape->add_subcommand("drawing", "how far the points stand off the drawing's figures");
    drawing->add_option("FILE", path, "FILE.gorvet")->required();
    subjectOption(drawing);
    auto* report = tape->add_subcommand("report", "the report \"as found\" as PDF");
    report->add_option("FILE", path, "READINGS.csv or FILE.gorvet")->required();
    report->add_option("OUT", other, "the PDF to write")->required();
    subjectOption(report);
    auto* points = tape->add_subcommand("points", "the points with their σ as CSV");
    points->add_option("FILE", path, "READINGS.csv or FILE.gorvet")->required();
    points->add_option("--out", other, "the file to write; without, standard output");
    subjectOption(points);
    auto* found = app.add_subcommand("found", "what was found at points and parts: repair, renew, or another frame");
    fileArgument(found);
    auto* import_points = app.add_subcommand("import-points", "add the points of a CSV file");
    fileArgument(import_points);
    import_points->add_option("POINTS", other, "points as CSV")->required();
    import_points->add_option("--as", text, "rough, drawing or coordinates")
        ->required()
        ->check(CLI::IsMember({"rough", "drawing", "coordinates"}));
    std::string source;
    import_points->add_option("--source", source, "where they come from: the drawing's or the session's name");
    subjectOption(import_points);
    auto* practice = app.add_subcommand("practice", "a crooked frame with a hidden truth, to be measured and diagnosed");
    practice->require_subcommand(1);
    double seed = 1;
    int difficulty = 1;
    bool keep_it = false;
    std::string from;
    std::string to;
    auto* practice_new = practice->add_subcommand("new", "make a practice frame");
    fileArgument(practice_new);
    practice_new->add_option("--seed", seed, "which frame")->check(files::between(0.0, 2147483647.0));
    practice_new->add_option("--difficulty", difficulty, "1, 2 or 3")->check(files::between(1, 3));
    auto* practice_take = practice->add_subcommand("take", "read it with a simulated instrument");
    fileArgument(practice_take);
    practice_take->add_option("KIND", text, "tape, height, slope, …")->required();
    practice_take->add_option("FROM", from, "a point")->required();
    practice_take->add_option("TO", to, "the other point");
    practice_take->add_flag("--keep", keep_it, "and keep the reading");
    auto* practice_mark = practice->add_subcommand("mark", "what was said, and the marks once it was handed in");
    fileArgument(practice_mark);
    auto* photo_found = app.add_subcommand("photo-found", "add a photo to something that was found");
    fileArgument(photo_found);
    photo_found->add_option("KIND", text, "rust, thin, crack, seized, play, repair or layers")->required();
    photo_found->add_option("WHERE", from, "the point or part")->required();
    photo_found->add_option("PICTURE", other, "the picture's file")->required();
    subjectOption(photo_found);
    auto* scan = app.add_subcommand("scan", "meshes and clouds");
    scan->require_subcommand(1);
    std::string unit;
    const auto unitOption = [&](CLI::App* c) {
        c->add_option("--unit", unit, "what one unit of the file is: mm, cm, m or in")
            ->required()
            ->check(CLI::IsMember({"mm", "cm", "m", "in"}));
    };
    auto* scan_info = scan->add_subcommand("info", "what a file holds, and what is wrong with it");
    scan_info->add_option("FILE", path, "PLY, STL, OBJ, XYZ or CSV")->required();
    unitOption(scan_info);
    auto* scan_fit = scan->add_subcommand("fit", "a plane, line, circle, ball or tube through all points of a file");
    scan_fit->add_option("FILE", path, "PLY, STL, OBJ, XYZ or CSV")->required();
    scan_fit->add_option("--shape", text, "plane, line, circle, ball or tube")
        ->required()
        ->check(CLI::IsMember({"plane", "line", "circle", "ball", "tube"}));
    scan_fit->add_flag("--outliers", keep_all, "leave out what stands off");
    unitOption(scan_fit);
    auto* scan_convert = scan->add_subcommand("convert", "write it as PLY or STL, in mm");
    scan_convert->add_option("FILE", path, "PLY, STL, OBJ, XYZ or CSV")->required();
    scan_convert->add_option("OUT", other, "OUT.ply or OUT.stl")->required();
    unitOption(scan_convert);
    AlignRequest aligned;
    auto* scan_align = scan->add_subcommand("align", "lay one scan on another by what both see");
    scan_align->add_option("MOVING", aligned.moving, "the scan that is moved")->required();
    scan_align->add_option("FIXED", aligned.fixed, "the scan that stays")->required();
    scan_align->add_option("--start", aligned.start, "rough pose: dx,dy,dz,yaw,pitch,roll in mm and degrees");
    scan_align->add_option("--pick", aligned.picks, "the same place in both: x,y,z=x,y,z; three or more, in place of --start");
    scan_align->add_option("--markers", aligned.marker_radius_mm, "start by marker balls of this radius, mm")
        ->check(files::between(1.0, 1000.0));
    scan_align->add_option("--reach", aligned.reach_mm, "how far the start may be off, mm")->check(files::between(1.0, 10000.0));
    scan_align->add_flag("--only-picks", aligned.only_picks, "leave it as picks or markers lay it");
    scan_align->add_option("--out", aligned.out, "write the moved scan: OUT.ply or OUT.stl");
    unitOption(scan_align);
    auto* scan_markers = scan->add_subcommand("markers", "find marker balls, and match them with another scan's");
    double radius = 0, known = 0, bound = 0, limit = 2;
    bool strays = false;
    scan_markers->add_option("FILE", path, "the scan")->required();
    scan_markers->add_option("OTHER", other, "another scan");
    scan_markers->add_option("--radius", radius, "of the balls, mm")->required()->check(files::between(1.0, 1000.0));
    unitOption(scan_markers);
    auto* scan_midplane = scan->add_subcommand("midplane", "the mid-plane by symmetry, and where left and right are unlike");
    std::string across, map;
    scan_midplane->add_option("FILE", path, "the scan")->required();
    scan_midplane->add_option("--across", across, "roughly which way is across: x,y,z");
    scan_midplane->add_option("--limit", limit, "what is worth telling, mm")->check(files::between(0.0, 1000.0));
    scan_midplane->add_option("--map", map, "write the scan as PLY with how far each point is off its like");
    unitOption(scan_midplane);
    DatumRequest datum;
    auto* scan_datum = scan->add_subcommand("datum", "3-2-1: a plane, a centreline and a station give the scan its axes");
    scan_datum->add_option("FILE", datum.path, "the scan")->required();
    scan_datum->add_option("--plane", datum.plane, "three places or more of height 0: x,y,z each")->required();
    scan_datum->add_option("--line", datum.line, "two places of the centreline, the front one first")->required();
    scan_datum->add_option("--station", datum.station, "a place of station 0")->required();
    scan_datum->add_option("--out", datum.out, "write the moved scan: OUT.ply or OUT.stl");
    unitOption(scan_datum);
    auto* scan_thin = scan->add_subcommand("thin", "leave out stray points, and thin with a bound on the error");
    scan_thin->add_option("FILE", path, "the scan")->required();
    scan_thin->add_option("OUT", other, "OUT.ply or OUT.stl")->required();
    scan_thin->add_option("--bound", bound, "no point that goes is farther from one that stays, mm")
        ->check(files::between(0.0, 10000.0));
    scan_thin->add_flag("--strays", strays, "leave out stray points first");
    unitOption(scan_thin);
    auto* scan_check = scan->add_subcommand("check", "is the unit right? a distance in the scan against one that was taped");
    scan_check->add_option("FILE", path, "the scan")->required();
    scan_check->add_option("--from", from, "a place: x,y,z")->required();
    scan_check->add_option("--to", to, "the other place")->required();
    scan_check->add_option("--known", known, "what was taped, mm")->check(files::between(0.001, 1e6))->required();
    unitOption(scan_check);
    ClearanceRequest clear;
    auto* clearance = app.add_subcommand("clearance", "one mesh against another: what fouls, by how much, where");
    clearance->add_option("BODY", clear.body, "the mesh that moves: PLY, STL, OBJ, XYZ or CSV")->required();
    clearance->add_option("CHASSIS", clear.chassis, "the mesh that stays")->required();
    clearance->add_option("--pose", clear.pose, "dx,dy,dz,yaw,pitch,roll: mm and degrees about BODY's own origin");
    clearance->add_option("--cap", clear.cap_mm, "how far to look, mm")->check(files::between(0.001, 1e6));
    clearance->add_option("--least", clear.least_mm, "the least clearance that is wanted, mm")->check(files::between(0.0, 1e5));
    clearance->add_option("--finish", clear.finish_mm, "what finish takes up, mm")->check(files::between(0.0, 1e5));
    clearance->add_option("--pm", clear.half_width_mm, "± of the distances, mm")->check(files::between(0.0, 1e5));
    clearance->add_option("--unit", clear.unit, "what one unit of both files is: mm (unless said), cm, m or in")
        ->check(CLI::IsMember({"mm", "cm", "m", "in"}));
    clearance->add_option("--threads", clear.threads, "0: as many as the machine has")->check(files::between(0, 256));
    clearance->add_option("--map", clear.map, "write BODY as PLY with the distance of every point");
    CutRequest cuts;
    auto* cutmap = app.add_subcommand("cutmap", "what to cut from BODY so that it clears CHASSIS, as lines a person can cut");
    cutmap->add_option("BODY", cuts.clearance.body, "a mesh of the body")->required();
    cutmap->add_option("CHASSIS", cuts.clearance.chassis, "the mesh that stays")->required();
    cutmap->add_option("--pose", cuts.clearance.pose, "dx,dy,dz,yaw,pitch,roll: mm and degrees about BODY's own origin");
    cutmap->add_option("--cap", cuts.clearance.cap_mm, "how far to look, mm")->check(files::between(0.001, 1e6));
    cutmap->add_option("--least", cuts.clearance.least_mm, "the least clearance that is wanted, mm")
        ->check(files::between(0.0, 1e5));
    cutmap->add_option("--finish", cuts.clearance.finish_mm, "what finish takes up, mm")->check(files::between(0.0, 1e5));
    cutmap->add_option("--pm", cuts.clearance.half_width_mm, "± of the distances, mm")->check(files::between(0.0, 1e5));
    cutmap->add_option("--unit", cuts.clearance.unit, "what one unit of both files is: mm (unless said), cm, m or in")
        ->check(CLI::IsMember({"mm", "cm", "m", "in"}));
    cutmap->add_option("--margin", cuts.margin_mm, "cut so far beyond what is too near, along the sheet, mm")
        ->check(files::between(0.0, 1e4));
    cutmap->add_option("--flange", cuts.flange_mm, "sheet left standing for re-joining, at most the margin, mm")
        ->check(files::between(0.0, 1e4));
    cutmap->add_option("--thickness", cuts.thickness_mm, "of the sheet, mm")->check(files::between(0.0, 100.0));
    cutmap->add_option("--fineness", cuts.fineness_mm, "triangles near a cut are divided down to this, mm")
        ->check(files::between(0.01, 1000.0));
    cutmap->add_option("--zone", cuts.zones, "never|brace|named:NAME:x,y,z:x,y,z on BODY's own axes; may be given often");
    cutmap->add_option("--out", cuts.out, "a folder for each cut as DXF, the places as CSV, and all as PDF");
    auto* scan_keep = scan->add_subcommand("keep", "keep a scan's file in a build");
    std::string on_subject, shows, called;
    fileArgument(scan_keep);
    scan_keep->add_option("SCAN", other, "PLY, STL, OBJ, XYZ or CSV")->required();
    scan_keep->add_option("--on", on_subject, "body, chassis, or another subject of the build: on whose axes it stands")
        ->required();
    scan_keep->add_option("--part", shows, "what it shows: " + build::wordList<build::ScanPart>())
        ->check(CLI::IsMember(
            std::vector<std::string>(build::Words<build::ScanPart>::text.begin(), build::Words<build::ScanPart>::text.end())));
    scan_keep->add_option("--name", called, "what to call it");
    unitOption(scan_keep);
    LayRequest lay;
    auto* scan_lay = scan->add_subcommand(
        "lay", "stand a kept scan on its subject's axes: by marker balls, its mid-plane, 3-2-1, or surveyed points");
    scan_lay->add_option("FILE", lay.build, "the build")->required();
    scan_lay->add_option("SCAN", lay.scan, "name of the scan")->required();
    scan_lay->add_option("--markers", lay.ball_radius_mm, "radius of the marker balls, mm")->check(files::between(1.0, 1000.0));
    scan_lay->add_flag("--symmetry", lay.symmetry, "its own mid-plane becomes the centreline");
    scan_lay->add_option("--datum", lay.datum,
                         "six places x,y,z as it stands now: three on the datum plane, two on the centreline, one at station 0");
    scan_lay->add_option("--survey", lay.surveyed, "NAME=x,y,z: a surveyed point and where the scan shows it now; three or more");
    auto* overlay = app.add_subcommand("overlay", "a build's scans on each other as they sit: what fouls, and what to cut");
    fileArgument(overlay);
    overlay->add_option("--out", from, "a folder for each cut as DXF, the places as CSV, all as PDF, and flat cuts 1:1");
    bool keep_cuts = false, for_way = false;
    std::string seating;
    overlay->add_option("--seating", seating, "as a kept seating has it, instead of as it is now");
    overlay->add_flag("--for-way-in", for_way, "cut for the way straight down, too, past what does not come off");
    overlay->add_flag("--keep-cuts", keep_cuts, "keep the cuts in the build: they become steps of the work");
    auto* axle = app.add_subcommand("axle", "axles and wheels");
    axle->require_subcommand(1);
    auto* align = axle->add_subcommand("align", "how axles and wheels stand");
    fileArgument(align);
    auto* gaps = app.add_subcommand("gaps", "door and panel gaps over the events of the work");
    fileArgument(gaps);
    std::map<const analysis::BenchInfo*, CLI::App*> of_bench;
    for (const analysis::BenchInfo* bench : analysis::benches())
        if (bench->json) {
            of_bench[bench] = app.add_subcommand(std::string(bench->key), bench->command);
            fileArgument(of_bench[bench]);
        }
    auto* work = app.get_subcommand("work");
    bool play = false;
    work->add_flag("--play", play, "play it step by step in a simulated workshop that refuses what hands can't do or what hurts");
    auto* photo = app.add_subcommand("photo", "tick a step with a photo, or add one to its tick");
    fileArgument(photo);
    photo->add_option("STEP", text, "code of the step")->required();
    photo->add_option("PICTURE", other, "the picture's file")->required();
    photo->add_option("--note", why, "a note to the tick");
    auto* take_out = app.add_subcommand("photo-out", "write a kept photo into a file");
    fileArgument(take_out);
    take_out->add_option("HASH", text, "the photo's hash, as work shows it")->required();
    take_out->add_option("OUT", other, "the file to write")->required();
    auto* findings = app.add_subcommand("findings", "all findings");
    bool without_scans = false;
    findings->add_flag("--without-scans", without_scans, "leave out the clearances of the scans, which take some seconds");
    auto* what_if = app.add_subcommand("what-if", "what lines would change, typed on a copy: nothing is kept");
    bool with_scans = false;
    fileArgument(what_if);
    what_if->add_option("LINE", lines, "as they are typed in the window")->required();
    what_if->add_option("--subject", subject_word, "body, chassis, or another subject of the build")->capture_default_str();
    what_if->add_flag("--with-scans", with_scans, "with the clearances of the scans, which take some seconds");
    auto* log = app.add_subcommand("log", "the logbook");
    auto* undo = app.add_subcommand("undo", "take the last step back");
    auto* redo = app.add_subcommand("redo", "do it again");
    for (auto* c : {findings, log, undo, redo}) fileArgument(c);
    auto* exports = app.add_subcommand("export", "write drawings, cut list, readings and the build sheet");
    fileArgument(exports);
    exports->add_option("--all", other, "folder to write into")->required();
    for (auto* command : app.get_subcommands({})) {
        command->fallthrough();
        for (auto* inner : command->get_subcommands({})) inner->fallthrough();
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        const int code = app.exit(e, std::cout, std::cerr);
        return code == 0 ? 0 : exit_wrong;
    }
    setPatience(patience);
    if (*fresh) return newBuild(path, text);
    if (*import) return importReadings(path, other, subject_word, text, why);
    if (*enter) return enterLines(path, subject_word, lines, why);
    if (*solve) return tapeSolve(path, subject_word, keep_all);
    if (*next) return tapeNext(path, subject_word, text, count, other);
    if (*compare) return tapeCompare(path, other, subject_word, compare_asked);
    if (*condition) return tapeCondition(path, subject_word);
    if (*drawing) return tapeDrawing(path, subject_word);
    if (*report) return tapeReport(path, subject_word, other);
    if (*points) return tapePoints(path, subject_word, other);
    if (*found) return printFound(path);
    if (*import_points) return importPoints(path, other, subject_word, text, source);
    if (*practice_new) return practiceNew(path, seed, difficulty);
    if (*practice_take) return practiceTake(path, text, from, to, keep_it);
    if (*practice_mark) return practiceMark(path);
    if (*photo_found) return keepPhotoFound(path, subject_word, text, from, other);
    if (*scan_info) return scanInfo(path, unit);
    if (*scan_fit) return scanFit(path, unit, text, keep_all);
    if (*scan_convert) return scanConvert(path, unit, other);
    if (*scan_align) {
        aligned.unit = unit;
        return scanAlign(aligned);
    }
    if (*scan_markers) return scanMarkers(path, other, unit, radius);
    if (*scan_midplane) return scanMidPlane(path, unit, across, limit, map);
    if (*scan_datum) {
        datum.unit = unit;
        return scanDatum(datum);
    }
    if (*scan_thin) return scanThin(path, unit, bound, strays, other);
    if (*scan_check) return scanCheck(path, unit, from, to, known);
    if (*cutmap) return cutMapOf(cuts);
    if (*scan_keep) return scanKeep(path, other, unit, on_subject, shows, called);
    if (*overlay) return overlayOfBuild(path, from, keep_cuts, seating, for_way);
    if (*scan_lay) return scanLay(lay);
    if (*clearance) return clearanceOf(clear);
    if (*align) return axleAlign(path);
    if (*gaps) return printGaps(path);
    if (*work && play) {
        bool to_the_end = false;
        const int code = withResults(path, [&](const Opened& o) { std::cout << playedJson(o.results, to_the_end); });
        return code ? code : to_the_end ? 0 : exit_open;
    }
    for (const auto& [bench, command] : of_bench)
        if (*command)
            return withResults(path, [json = bench->json](const Opened& o) { std::cout << json(o.store->build(), o.results); });
    if (*photo) return keepPhoto(path, text, other, why);
    if (*take_out) return takePhotoOut(path, text, other);
    if (*findings) return printFindings(path, without_scans);
    if (*what_if) return whatIf(path, subject_word, lines, with_scans);
    if (*log) return printLog(path);
    if (*undo || *redo) return undoRedo(path, static_cast<bool>(*undo));
    if (*exports) return exportAll(path, other);
    return exit_wrong;
}

} // namespace
} // namespace gorvet::cli

int main(int argc, char** argv) {
    gorvet::files::openStandardStreams();
    try {
        return gorvet::cli::finished(gorvet::cli::run(argc, argv));
    } catch (const std::exception& e) {
        std::cerr << "gorvet-cli: " << e.what() << "\n";
        return 2;
    }
}
