#include "analysis/work_findings.hpp"

#include "analysis/work_facts.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

Finding& addFinding(std::vector<Finding>& out, Severity severity, const char* code, std::string subject, const char* word,
                    std::string sentence, std::string remedy, std::string brief, std::string tag) {
    Finding f;
    f.severity = severity;
    f.code = code;
    f.subject = std::move(subject);
    f.word = word;
    f.sentence = std::move(sentence);
    f.remedy = std::move(remedy);
    f.brief = std::move(brief);
    f.tag = std::move(tag);
    out.push_back(std::move(f));
    return out.back();
}

void addWorkFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    const work::Order& o = *r.work;
    if (!workBegun(b, r)) return;
    const auto small = [&](double mm) { return units::formatSmall(mm, b.settings.length_step, true); };
    const auto add = [&out](auto&&... said) -> Finding& { return addFinding(out, std::forward<decltype(said)>(said)...); };
    if (o.stuck)
        add(Severity::Bad, "work.stuck", "order of work", "Waiting",
            "Some steps wait for each other in a circle and can never be reached.",
            "Look at what braces come out after: brace NAME until STEP.", "order stuck");
    for (const work::Step& s : o.steps) {
        const std::string tag = "step:" + s.code;
        if (s.status == work::Status::HoldPoint)
            for (const work::ShapeFault& fault : work::twistAndBow(s.checks)) {
                Finding& f = add(Severity::Bad, "work.hold-refuses", s.title, "Hold point",
                                 fmt::format("By the levels {}: the hold point stays shut.", fault.sentence),
                                 "Look at the stands first, then turn or lift the joint straight, and take all levels again.",
                                 fault.left ? "bowed" : "twisted", tag);
                if (r.stretch.input().cut_station_mm) f.station_mm = r.stretch.input().cut_station_mm;
            }
        if (s.status == work::Status::HoldPoint)
            for (const work::CheckItem& c : s.checks) {
                if (!c.read_mm || c.level || c.agrees()) continue;
                const double off = *c.read_mm - c.plan_mm;
                Finding& f = add(Severity::Bad, "work.hold-refuses", s.title, "Hold point",
                                 fmt::format("{} is {} too {}: the hold point stays shut.", c.name, small(std::abs(off)),
                                             off > 0 ? "long" : "short"),
                                 c.gap_of ? "Bring the gap back before the brace comes out, and measure it again."
                                          : "Pull the frame square or loosen the tacks, then tape all of them again.",
                                 c.name + " out", tag);
                f.figure = small(std::abs(off));
                f.need = small(c.tolerance_mm);
                if (r.stretch.input().cut_station_mm && !c.gap_of) f.station_mm = r.stretch.input().cut_station_mm;
            }
        if (s.status == work::Status::Done && !s.skipped.empty())
            add(Severity::Warn, "work.out-of-order", s.title, "Done",
                fmt::format("\"{}\" is ticked, but \"{}\" before it is not.", s.title, s.skipped.front()),
                "Do it now if it can still be done, or take the tick back: undone " + s.code, "out of order", tag);
        if (s.status == work::Status::Done && s.hold)
            for (const work::CheckItem& c : s.checks)
                if (c.read_mm && !c.agrees())
                    add(Severity::Bad, "work.hold-overtaken", s.title, "Hold point",
                        fmt::format("{} agreed when the hold point was passed, and does not agree with the plan of today.",
                                    c.name),
                        "The plan was changed after it was passed: look whether the work so far still fits it.",
                        c.name + " overtaken", tag);
    }
    std::string unknown;
    int count = 0;
    for (size_t i = 0; i < Words<Hazard>::text.size(); ++i) {
        const auto hazard = static_cast<Hazard>(i);
        if (presenceOf(b.work, hazard) != Presence::Unknown) continue;
        unknown += (unknown.empty() ? "" : ", ") + std::string(word(hazard));
        ++count;
    }
    if (count)
        add(Severity::Warn, "work.hazards-not-told", "hazards", "Waiting",
            fmt::format("Nothing is said about {}: the order takes {} as there.", unknown, count == 1 ? "it" : "them"),
            "Look, and say it: present fuel-tank, or absent refrigerant.", "hazards open");
    if (o.find("brace-body"))
        add(Severity::Warn, "work.no-brace", "body", "Waiting",
            "No brace of the body is listed, and its gaps will not be re-checked.",
            "List each one before the body comes off: brace door-left gap 4.5", "no brace", "step:brace-body");
    for (const work::SteelEntry& e : o.steel) {
        if (!e.out_after_known)
            add(Severity::Warn, "work.brace-step-unknown", e.steel.name, "Waiting",
                fmt::format("The brace {} is to come out after \"{}\", and this build has no such step.", e.steel.name,
                            e.steel.out_after),
                "Name another step: brace " + e.steel.name + " until bolt-body", e.steel.name);
        if (e.state == work::SteelState::In && !e.steel.gap)
            add(Severity::Warn, "work.brace-gap-unknown", e.steel.name, "Waiting",
                fmt::format("The brace {} is in, and the gap it keeps was not measured.", e.steel.name),
                "Measure it while it can still be trusted: brace " + e.steel.name + " gap 4.5", e.steel.name);
    }
}

} // namespace gorvet::analysis
