// What is changed of the frame's own steel as steps: members out and in, ribs, and the plates that close its rails.
#include "work/catalogue.hpp"

#include <fmt/format.h>

namespace gorvet::work {

void Catalogue::frameSteel() {
    const FrameSteel& steel = f_.steel;
    if (!steel.out_words.empty()) {
        Step& out = add("members-out", "Take out of the frame: " + steel.out_words,
                        plus({"survey-agrees", "support-frame", f_.cut_planned ? "tie-rails" : "support-frame"}, cold()));
        bodyOff(out);
        out.why = "First a straight tube clamped across the rails beside each: what it held apart or together must stay so.";
        out.cautions = {discs, jack};
        out.no_return = true;
        out.before_return = {"Where it stood is scribed on both rails, and its height is written down.",
                             "Nothing hangs on it any more, and nothing runs through it."};
        for (Step& s : steps_)
            if (s.code == "before-cutting") s.after.emplace_back("members-out");
    }
    std::vector<std::string> joined{"survey-agrees", "support-frame", "after-welding", "members-out"};
    if (!steel.in_words.empty()) {
        Step& in = add("members-in", "Fit and weld in: " + steel.in_words, plus(joined, cold()));
        bodyOff(in);
        in.why = "Tacked all round first, then the diagonals; welded by turns left and right.";
        in.cautions = {licensed_welds, hot_work, fumes};
        for (Step& s : steps_)
            if (s.code == "untie-rails") s.after.emplace_back("members-in");
    }
    if (!steel.rib_words.empty()) {
        Step& ribs = add("ribs-in", "Weld the ribs in: " + steel.rib_words, plus(plus(joined, {"members-in"}), cold()));
        bodyOff(ribs);
        ribs.why = "By turns left and right, never two beside each other while they are warm.";
        ribs.cautions = {licensed_welds, hot_work, fumes};
    }
    if (steel.plate_words.empty()) return;
    // what is inside must be inside: nuts, ribs, crush tubes
    Step& shut = add("shut-rails", "Close the rails with plates: " + steel.plate_words,
                     plus(plus(joined, {"members-in", "ribs-in", "captive-nuts", "mount-nuts", "drill-rails"}), cold()));
    bodyOff(shut);
    shut.no_return = true;
    shut.before_return = {"Nuts, sleeves, crush tubes and brackets that belong inside are inside.",
                          "Loom and lines that ran in the open rail have another way, or are drawn through.",
                          "The inside is blown clean and coated as far as the heat reaches.",
                          "Drain holes are at the lowest places."};
    if (steel.windows) shut.why = "Windows are cut before the plate goes on, their corners round, their edges smooth.";
    shut.why += std::string(shut.why.empty() ? "" : " ") +
                "A hand's breadth here, then one on the other rail, from the middle outwards: a seam in one go bends the rail.";
    shut.cautions = {licensed_welds, hot_work, fumes};
}

} // namespace gorvet::work
