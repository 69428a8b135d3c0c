// A piece of another frame joined to this one, as steps.
#include "work/catalogue.hpp"

#include <fmt/format.h>

namespace gorvet::work {

void Catalogue::grafts() {
    for (const GraftJob& g : f_.grafts) {
        const std::string& n = g.name;
        Step& before =
            add("graft-before-" + n,
                fmt::format("Scribe the joint of {} {} on both rails, punch marks 100 and 300 behind it", n, g.cut_words),
                {"survey-agrees", "support-frame", "after-welding", "untie-rails", "members-in"});
        bodyOff(before);
        before.hold = true;
        before.conditions.push_back({g.open.empty() ? fmt::format("The plan of {} stands", n) : g.open, g.open.empty()});
        Step& off =
            add("graft-off-" + n, fmt::format("Tie the rails across behind the joint, then cut the old end off {}", g.cut_words),
                plus({"graft-before-" + n, "rules", "disconnect"}, cold()));
        bodyOff(off);
        off.no_return = true;
        off.before_return = {fmt::format("What comes off carries nothing any more: {}.",
                                         g.front ? "engine, steering and brakes of the front are out"
                                                 : "axle, tank and brakes of the rear are out"),
                             "Lines, loom and cables over the joint are drawn back and capped.",
                             "What stays stands by itself, and so does what comes off."};
        off.cautions = {stands_each_side, discs, plates_and_numbers};
        Step& set =
            add("graft-set-" + n,
                fmt::format("Cut {}'s rails to length, clean all ends bright, set it up on stands: {}", n, g.joined_words),
                {"graft-off-" + n});
        bodyOff(set);
        set.why = g.trim_words;
        set.cautions = {jack, discs};
        Step& tack =
            add("graft-tack-" + n, fmt::format("Tack {} to the rails: four short tacks each, by turns left and right", n),
                plus({"graft-set-" + n}, cold()));
        bodyOff(tack);
        tack.cautions = {hot_work, fumes};
        Step& weld = add("graft-weld-" + n, fmt::format("Weld {} all round, by turns left and right, letting it cool", n),
                         {"graft-tack-" + n});
        bodyOff(weld);
        weld.no_return = true;
        for (const std::string& m : g.measures) weld.before_return.push_back(m + ".");
        weld.before_return.emplace_back("The inside is blown clean and coated as far as the heat reaches.");
        weld.cautions = {licensed_welds, hot_work, fumes};
        Step& cold_again =
            add("graft-cold-" + n, fmt::format("Tape {}'s measures again when it is cold", n), {"graft-weld-" + n});
        bodyOff(cold_again);
        for (const std::string& m : g.measures) cold_again.why += (cold_again.why.empty() ? "" : "; ") + m;
        if (!cold_again.why.empty()) cold_again.why += ".";
    }
}

} // namespace gorvet::work
