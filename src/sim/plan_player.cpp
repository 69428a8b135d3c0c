#include "sim/plan_player.hpp"

#include "sim/workshop.hpp"

namespace gorvet::sim {

PlayedPlan playPlan(const work::Facts& f, const work::Order& o) {
    PlayedPlan played;
    if (o.stuck) {
        played.why = "the steps wait for each other in a circle";
        return played;
    }
    shop::Workshop workshop(f);
    for (const work::Step& s : o.steps) {
        try {
            workshop.play(s);
        } catch (const shop::Refusal& r) {
            played.refused = s.code;
            played.title = s.title;
            played.why = r.why;
            return played;
        }
        ++played.steps;
    }
    played.to_the_end = true;
    return played;
}

} // namespace gorvet::sim
