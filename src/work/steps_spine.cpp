// The cut of a spine platform as steps: spine and pans in steps of their own, what runs inside reached through windows.
#include "work/catalogue.hpp"

#include <fmt/format.h>

namespace gorvet::work {

void Catalogue::openSpine() {
    Step& clear = add("clear-rails", "Take away or move what runs along the cut, seats and carpets with it; cap open lines",
                      {"disconnect", "tank-out", "battery-out"});
    for (const CrossingJob& c : f_.crossings) clear.why += (clear.why.empty() ? "It crosses the cut: " : ", ") + c.said();
    if (!clear.why.empty()) clear.why += ".";
    if (!f_.spine_windows.empty()) {
        Step& windows = add("spine-windows", "Cut the windows into the spine's top: " + f_.spine_windows,
                            {"clear-rails", "support-frame", "tank-out", "battery-out"});
        bodyOff(windows);
        windows.cautions = {discs};
        windows.why = "Depth of the saw: the sheet and no more. What is inside lies close below.";
        Step& apart = add("inside-apart", "Through the windows: take apart what runs inside, and draw it clear of the cut",
                          {"spine-windows"});
        bodyOff(apart);
        apart.why = f_.spine_inside + ".";
    }
    Step& scribe = add("scribe",
                       fmt::format("Scribe the spine's cut {}, {}, and the slits between them; punch marks 100 ahead and behind",
                                   f_.cut_words, f_.pan_words),
                       {"survey-agrees", "support-frame"});
    bodyOff(scribe);
    Step& tie = add(
        "tie-rails",
        "Tie the halves: a straight tube along each sill, fast on one half and in a slotted clamp on the other, and one across each half",
        {"scribe", "tank-out", "battery-out", "clear-rails"});
    bodyOff(tie);
    tie.cautions = {hot_work};
    tie.why = "Sheet has no stiffness of its own once the spine is open: the tubes carry it." +
              (f_.part_words.empty() ? "" : " " + f_.part_words);
}

void Catalogue::closeSpine() {
    std::vector<std::string> open_ends{"prepare-ends"};
    if (nuts_through_ends_) open_ends.emplace_back("captive-nuts");
    Step& try_on =
        add("try-sleeves", fmt::format("Try the saddle ({}) on both ends to its full depth", f_.saddle_words), open_ends);
    bodyOff(try_on);
    Step& close = add("close-up", "Close spine and pans up to the root gap over their strips, the saddle clamped on",
                      plus(open_ends, {"try-sleeves"}));
    bodyOff(close);
    Step& tack = add("tack-rails", "Tack spine, then pans: a spot every 50, by turns left and right", {"close-up"});
    bodyOff(tack);
    tack.cautions = {hot_work, fumes};
    Step& before_weld =
        add("before-welding", "Tape the corners' diagonals and take the levels before full welding", {"tack-rails"});
    bodyOff(before_weld);
    before_weld.hold = true;
    shape(before_weld, true);
    Step& weld =
        add("weld-rails", "Plug the saddle, then the pans: one here, one there, never two beside each other while they are warm",
            {"before-welding"});
    bodyOff(weld);
    weld.no_return = true;
    weld.before_return = {"The spine's inside is coated as far as the heat reaches, and nothing is left in it.",
                          "What runs inside stands back from the joint by an arm's length.", "Drain and vent holes are open."};
    weld.cautions = {licensed_welds, hot_work, fumes};
    fromBelowAndCold("Weld the strip below and the pans' strips from below", "sills");
    if (f_.spine_windows.empty()) return;
    // nothing burns or throws sparks beside open lines: all of that comes before
    std::vector<std::string> cold_again = plus(allThatBurns(), {"after-welding", "untie-rails", "fit-crossmember", "tank-in"});
    for (const TemporarySteel& t : f_.temporary)
        if (!isAtTheEnd(t.out_after)) cold_again.push_back(outCode(t));
    Step& together =
        add("inside-joined", "Through the windows: put together again what runs inside, at its new length", cold_again);
    together.why = f_.spine_inside + ". Move everything once by hand before a cover goes on.";
    Step& covers = add("spine-covers", "Screw the covers on the windows, with sealer: no heat beside what runs inside",
                       {"inside-joined", "coat-frame"});
    covers.no_return = true;
    covers.before_return = {"What runs inside moves freely over its whole way.",
                            "The inside is waxed as far as the windows let."};
}

} // namespace gorvet::work
