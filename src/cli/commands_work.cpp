// Commands about the work as a whole: one step, the register, what hangs on slings.
#include "analysis/export.hpp"
#include "analysis/json.hpp"
#include "analysis/scans.hpp"
#include "analysis/week.hpp"
#include "cli/commands.hpp"
#include "cli/open_build.hpp"
#include "cli/read_scan.hpp"
#include "cli/tape_commands.hpp"
#include "cli/wait.hpp"
#include "units/dates.hpp"
#include "work/lift.hpp"
#include "work/register_sheet.hpp"

#include <charconv>
#include <cmath>
#include <iostream>
#include <sstream>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;

namespace {

struct AskedRegister {
    std::string path;
    std::string labels; ///< file to write
    std::string stock = "70x37";
    int from = 1;
};
struct AskedLift {
    std::string path;
    bool spreader = false;
    std::vector<std::string> legs; ///< "NAME:x,y,z:length[:rated[:sound]]"
    double mass_kg = 0;
    double mass_u95_kg = 0;
    std::string centre;
    std::string centre_u95;
};

std::string stockNames() {
    std::string all;
    for (const work::LabelStock& s : work::labelStocks()) all += (all.empty() ? "" : ", ") + std::string(s.key);
    return all;
}

int printJob(const std::string& path, const std::string& code) {
    const auto store = openToRead(path);
    if (!store) return fail(store.error());
    const std::string json = jobJson((*store)->build(), analysed(**store), code);
    if (json.empty())
        return fail(Error{Error::Code::BadInput, code, fmt::format("There is no step or job {}.", code),
                          "gorvet-cli work FILE lists the codes of all.", -1});
    std::cout << json;
    return 0;
}

int printRegister(const AskedRegister& a) {
    const auto store = openToRead(a.path);
    if (!store) return fail(store.error());
    if (a.labels.empty()) {
        std::cout << releaseJson((*store)->build(), analysed(**store));
        return 0;
    }
    if (const auto written = writeLabels((*store)->build(), a.stock, a.from - 1, a.labels); !written)
        return fail(written.error());
    std::cout << a.labels << "\n";
    return 0;
}

Result<double> figureFrom(const std::string& text, const std::string& leg, const char* what) {
    double v = 0;
    const auto [end, wrong] = std::from_chars(text.data(), text.data() + text.size(), v);
    if (wrong != std::errc() || end != text.data() + text.size() || !(v > 0))
        return Error{Error::Code::BadInput, leg, fmt::format("\"{}\" is no {}.", text, what),
                     "Like: front-left:200,-500,600:1800:1000:sound", -1};
    return v;
}

Result<work::SlingLeg> legFrom(const std::string& text) {
    std::vector<std::string> parts;
    std::istringstream in(text);
    for (std::string part; std::getline(in, part, ':');) parts.push_back(part);
    if (parts.size() < 3 || parts.size() > 5)
        return Error{Error::Code::BadInput, text, "A leg is a name, its point, its length in mm and what it may carry in kg.",
                     "Like: front-left:200,-500,600:1800:1000:sound", -1};
    work::SlingLeg leg;
    leg.name = parts[0];
    const auto point = placeFrom(parts[1]);
    if (!point) return point.error();
    leg.point = {(*point)[0], (*point)[1], (*point)[2]};
    const auto length = figureFrom(parts[2], text, "length");
    if (!length) return length.error();
    leg.length_mm = *length;
    if (parts.size() > 3) {
        const auto rated = figureFrom(parts[3], text, "mass");
        if (!rated) return rated.error();
        leg.rated_kg = *rated;
    }
    if (parts.size() == 5 && parts[4] != "sound")
        return Error{Error::Code::BadInput, text, fmt::format("\"{}\" is not known here.", parts[4]),
                     "Say sound once it was looked at.", -1};
    leg.sound = parts.size() == 5;
    return leg;
}

/// One of the benches' JSON of a build.
int printOf(const std::string& path, std::string (*json)(const build::Build&, const Results&)) {
    const auto store = openToRead(path);
    if (!store) return fail(store.error());
    std::cout << json((*store)->build(), analysed(**store));
    return 0;
}

/// What the last days did to the date; a build that is younger is compared with its first day.
int printSince(const std::string& path, int days) {
    const auto store = openToRead(path);
    if (!store) return fail(store.error());
    const auto since = (*store)->since(units::today() - days);
    if (!since) return fail(since.error());
    std::cout << weekJson((*store)->build(), weekDid(since->then, since->day, (*store)->build(), analysed(**store)));
    return 0;
}

int printLift(const AskedLift& a) {
    if (a.legs.empty()) {
        if (a.path.empty())
            return fail(Error{Error::Code::BadInput, "lift", "What is lifted is missing.",
                              "Name a build, or say --mass, --centre and two to four --leg.", -1});
        return printOf(a.path, liftsJson);
    }
    if (a.mass_kg <= 0 || a.centre.empty())
        return fail(
            Error{Error::Code::BadInput, "lift", "Its mass and centre of gravity are missing.", "Say --mass and --centre.", -1});
    work::LiftInput in;
    in.spreader = a.spreader;
    in.mass_kg = a.mass_kg;
    in.mass_u95_kg = a.mass_u95_kg;
    const auto centre = placeFrom(a.centre);
    if (!centre) return fail(centre.error());
    in.centre = {(*centre)[0], (*centre)[1], (*centre)[2]};
    if (!a.centre_u95.empty()) {
        const auto u95 = placeFrom(a.centre_u95);
        if (!u95) return fail(u95.error());
        in.centre_u95 = {std::abs((*u95)[0]), std::abs((*u95)[1]), std::abs((*u95)[2])};
    }
    for (const std::string& text : a.legs) {
        auto leg = legFrom(text);
        if (!leg) return fail(leg.error());
        in.legs.push_back(std::move(*leg));
    }
    const work::LiftPlan plan = work::hang(in);
    std::cout << liftJson(in, plan);
    return plan.verdict == work::LiftVerdict::Fails ? exit_open : 0;
}

} // namespace

void addWorkCommands(Commands& commands) {
    CLI::App& app = commands.app();
    {
        auto [c, a] = commands.add(app, "job", "one step of the work: why it stands where it stands, what waits for it");
        fileArgument(c, a.path);
        c.add_option("STEP", a.text, "code of a step, or name of a job")->required();
        commands.runs(c, [&a = a] { return printJob(a.path, a.text); });
    }
    {
        auto [c, a] = commands.add<AskedRegister>(app, "release",
                                                  "the register of what is taken apart, and whether the body may be lifted");
        fileArgument(c, a.path);
        c.add_option("--labels", a.labels, "write a PDF of labels with codes for tags and bags");
        c.add_option("--stock", a.stock, "what the labels are: " + stockNames() + "; 70x37 unless said");
        c.add_option("--from", a.from, "the first label of the sheet that is left, from 1")->check(CLI::Range(1, 100));
        commands.runs(c, [&a = a] { return printRegister(a); });
    }
    {
        auto [c, a] = commands.add<AskedLift>(
            app, "lift",
            "what is lifted or carried: loads, slopes, tilt. The lifts of a build, or one by slings that is said here");
        c.add_option("FILE", a.path, "a .gorvet build");
        c.add_option("--mass", a.mass_kg, "of the load, kg")->check(CLI::Range(0.1, 100'000.0));
        c.add_option("--mass-pm", a.mass_u95_kg, "its ±; 0: not weighed");
        c.add_option("--centre", a.centre, "centre of gravity, x,y,z in mm");
        c.add_option("--centre-pm", a.centre_u95, "its ±, x,y,z");
        c.add_flag("--spreader", a.spreader, "the points are held apart");
        c.add_option("--leg", a.legs, "NAME:x,y,z:length[:rated[:sound]], two to four of them");
        commands.runs(c, [&a = a] { return printLift(a); });
    }
    {
        auto [c, a] = commands.add(app, "plan",
                                   "when what is left may be done, what holds the end up, what to order by when, what it costs");
        fileArgument(c, a.path);
        c.add_option("--since", a.number, "so many days ago: what the days since did to the date")->check(CLI::Range(1, 3650));
        commands.runs(
            c, [&a = a] { return a.number > 0 ? printSince(a.path, static_cast<int>(a.number)) : printOf(a.path, planJson); });
    }
    {
        auto [c, a] = commands.add(app, "buy", "what must be bought, and what of it is cut from the shelf");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { // flat pieces are laid into plates first
            const auto store = openToRead(a.path);
            if (!store) return fail(store.error());
            Results r = analysed(**store);
            waitFor(**store, (*store)->build(), r, {slow::plates});
            std::cout << purchasesJson((*store)->build(), r);
            return 0;
        });
    }
    {
        auto [c, a] = commands.add(app, "client", "where the work stands, what is to be decided and what was agreed to");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return printOf(a.path, clientJson); });
    }
    {
        auto [c, a] = commands.add(
            app, "coats", "surfaces and their coats: litres, drying, pot life, what may go on what; permits for hot work");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return printOf(a.path, coatsJson); });
    }
}

} // namespace gorvet::cli
