// The chassis made narrower, rails let into a shell, and floors that reach out to sills, as steps.
#include "work/catalogue.hpp"

#include <fmt/format.h>

namespace gorvet::work {

void Catalogue::widths() {
    for (const WidthJob& w : f_.widths) switch (w.kind) {
        case WidthJob::Kind::Narrower: narrower(w); break;
        case WidthJob::Kind::LetIn: letIn(w); break;
        case WidthJob::Kind::FloorEdge: floorEdge(w); break;
        }
    if (!f_.hole_words.empty()) {
        std::vector<std::string> welded{"survey-agrees", "support-frame", "after-welding", "members-in", "ribs-in", "shut-rails"};
        for (const GraftJob& g : f_.grafts) welded.push_back("graft-cold-" + g.name);
        Step& s = add("holes-anew", "Drill anew: " + f_.hole_words, welded);
        bodyOff(s);
        s.why = "A small hole first, then to size; edges smooth on both sides, bare metal primed at once.";
        s.cautions = {plates_and_numbers};
    }
    // what is placed on the frame stands on the frame as narrow as it will be
    if (has("narrow-cold"))
        for (Step& s : steps_)
            if (!s.code.starts_with("narrow-") && s.code != "untie-rails" &&
                std::find(s.after.begin(), s.after.end(), "after-welding") != s.after.end())
                s.after.emplace_back("narrow-cold");
}

namespace {

std::string sentenceOf(const std::vector<std::string>& list) {
    std::string text;
    for (const std::string& one : list) text += (text.empty() ? "" : "; ") + one;
    return text.empty() ? text : text + ".";
}

} // namespace

/// Scribe, tack, weld and look again when it is cold: what every joint has alike. The steps between are the caller's.
Step& Catalogue::jointBefore(const WidthJob& w, const std::string& code, std::string title, std::vector<std::string> after) {
    Step& before = add(code, std::move(title), std::move(after));
    bodyOff(before);
    before.hold = true;
    before.conditions.push_back({w.open.empty() ? "Its plan stands" : w.open, w.open.empty()});
    return before;
}
void Catalogue::jointWelded(const WidthJob& w, const std::string& stem, const std::string& what, const std::string& after) {
    const auto code = [&](const char* part) { return stem + part + (w.name.empty() ? "" : "-" + w.name); };
    Step& tack = add(code("tack"), fmt::format("Tack {}: short tacks, by turns left and right, ahead and behind", what),
                     plus({after}, cold()));
    bodyOff(tack);
    tack.cautions = {hot_work, fumes};
    Step& weld = add(code("weld"), fmt::format("Weld {}, by turns left and right, letting it cool", what), {code("tack")});
    bodyOff(weld);
    weld.no_return = true;
    for (const std::string& m : w.measures) weld.before_return.push_back(m + ".");
    weld.before_return.emplace_back("The inside is blown clean and coated as far as the heat reaches.");
    weld.cautions = {licensed_welds, hot_work, fumes};
    Step& cold_again = add(code("cold"), fmt::format("Tape {} again when it is cold", what), {code("weld")});
    bodyOff(cold_again);
    cold_again.why = sentenceOf(w.measures);
}

void Catalogue::narrower(const WidthJob& w) {
    jointBefore(w, "narrow-before", "Scribe both slits and a line beside each, punch marks across them at every crossmember",
                {"survey-agrees", "support-frame", "after-welding", "untie-rails"});
    // the ties of the cut come off first: its own hold both sides until what spans them is in
    if (Step* untied = step("untie-rails")) std::erase(untied->after, "members-in");
    Step& tie = add("narrow-tie",
                    "Tie both sides to each other ahead, in the middle and behind, with tubes that can be let in by the change",
                    plus({"narrow-before"}, cold()));
    bodyOff(tie);
    tie.why = "Two clamps on a straight tube: the sides slide towards each other on it, and nowhere else.";
    tie.cautions = {hot_work};
    Step& slit = add("narrow-slit", fmt::format("Slit one side, then the other, and take out {}", w.words),
                     plus({"narrow-tie", "rules", "disconnect"}, cold()));
    bodyOff(slit);
    slit.no_return = true;
    slit.before_return = {"What runs across the slits is off: lines, cables, loom.",
                          "Bars and shafts that span the frame are drawn out.", "Both sides stand by themselves."};
    if (!w.pieces.empty()) slit.why = "Shorter by the same: " + w.pieces + ".";
    slit.cautions = {stands_each_side, discs, plates_and_numbers};
    Step& set = add("narrow-set", "Draw both sides in along the ties until the measures stand, edges bright, and clamp them",
                    {"narrow-slit"});
    bodyOff(set);
    set.why = sentenceOf(w.measures);
    set.cautions = {jack};
    jointWelded(w, "narrow-", "both seams and what spans them", "narrow-set");
    Step& untie = add("narrow-untie", "Take the ties off", {"narrow-cold", "members-in"});
    bodyOff(untie);
    untie.cautions = {discs};
}

void Catalogue::letIn(const WidthJob& w) {
    const std::string& n = w.name;
    jointBefore(w, "let-in-before-" + n,
                fmt::format("Look how deep both legs are free for {}, and whether they are straight and sound inside", n),
                plus({"survey-agrees", "support-frame", "after-welding"}, fits()));
    Step& open = add("let-in-open-" + n, fmt::format("Open the floor for {}: {}", n, w.words),
                     plus({"let-in-before-" + n, "rules", "disconnect"}, cold()));
    bodyOff(open);
    open.no_return = true;
    open.before_return = {"Nothing runs under the carpet or along the floor: loom, lines, belts' ends.",
                          "The door gaps are measured and written down, the shell is braced."};
    open.cautions = {discs, plates_and_numbers};
    Step& set =
        add("let-in-set-" + n, fmt::format("Draw {}'s inner pieces back, offer it up between the legs, drive them out", n),
            {"let-in-open-" + n});
    bodyOff(set);
    set.why = w.pieces;
    set.cautions = {jack};
    jointWelded(w, "let-in-", n, "let-in-set-" + n);
    Step& floor = add("let-in-floor-" + n, fmt::format("Weld the feet and the floor to {}, seal both sides", n),
                      plus({"let-in-cold-" + n}, cold()));
    bodyOff(floor);
    floor.cautions = {hot_work, fumes};
}

void Catalogue::floorEdge(const WidthJob& w) {
    const std::string& n = w.name;
    Step& card = jointBefore(w, "edge-before-" + n, fmt::format("Cut {}'s strip from card first and offer it to the edge", n),
                             {"survey-agrees", "support-frame", "after-welding", "untie-rails"});
    card.why = w.words;
    std::string next = "edge-before-" + n;
    if (!w.pieces.empty()) {
        Step& arms = add("edge-arms-" + n, fmt::format("Weld {}'s outriggers: {}", n, w.pieces), plus({next}, cold()));
        bodyOff(arms);
        arms.why = "Each end 2 mm short of the sill.";
        arms.cautions = {licensed_welds, hot_work, fumes};
        next = "edge-arms-" + n;
    }
    Step& strip = add("edge-strip-" + n,
                      fmt::format("Plug-weld {}'s strip to the floor, bare laps coated with weld-through primer first", n),
                      plus({next}, cold()));
    bodyOff(strip);
    strip.cautions = {hot_work, fumes};
}

} // namespace gorvet::work
