// Findings of fasteners: one for those that are alike and stand alike.
#include "analysis/finding_maker.hpp"
#include "analysis/service.hpp"
#include "make/service_sheet.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

namespace {

class ServiceFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void all() {
        for (const make::Foul& f : *r_.fouls) {
            Finding& found = add(sheet::Severity::Bad, "make.part-fouls", f.one, "Fouls", make::foulWords(f, step_),
                                 "Move one of them, or cut it to the other.");
            found.station_mm = f.at.x_mm;
            found.brief = f.one;
            for (const std::string& name : {f.one, f.other}) // what has a card
                if (name.starts_with("part ")) found.tag = "part:" + name.substr(5);
        }
        for (const make::FastenerGroup& g : make::groupsOf(serviceShown(b_, r_)))
            for (const build::Remark& remark : g.row->remarks) {
                const std::string who =
                    g.names.size() == 1 ? g.row->name : fmt::format("{}, {} bolts, the tightest", g.row->group, g.names.size());
                Finding& f = add(sheet::severityOf(remark.verdict), "make." + remark.code, who,
                                 build::verdictWord(remark.verdict), fmt::format("{}: {}", who, remark.sentence), remark.remedy);
                f.figure = remark.figure;
                f.need = remark.need;
                f.station_mm = g.row->at.x_mm;
                f.brief = g.names.size() == 1 ? g.row->name : g.row->group;
                f.tag = g.row->tag;
            }
    }
};

} // namespace

void addServiceFindings(const build::Build& b, const Results& r, std::vector<Finding>& out) { ServiceFinder(b, r, out).all(); }

} // namespace gorvet::analysis
