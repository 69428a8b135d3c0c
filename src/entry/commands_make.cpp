// What can be typed for Make.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable make_commands; // of the tables
const CommandTable make_commands{
    "Make",
    {
        {{"mount"},
         &Reader::mount,
         &Reader::removeMount,
         {
             {"mount all, mount NAME… [at length]", "mount all", "body mounts, at points of role body-mount"},
         }},
        {{"part"},
         &Reader::steelPart,
         &Reader::removeSteelPart,
         partForms({
             {"part STEEL-PART follows", "part brace-1 follows", "its places follow the survey again"},
             {"part STEEL-PART made NEW length", "part brace-1 made across 42.4",
              "how it came out, by the same words; long: its main length"},
             {"part STEEL-PART upon BASE-METAL [thick length] [coated|bare]", "part brace-1 upon mild thick 3",
              "what it is joined to, how thick that is there, whether its coat is still on"},
         })},
        {{"frame-metal"},
         &Reader::frameMetal,
         nullptr,
         {
             {"frame-metal BASE-METAL|unsaid", "frame-metal mild", "what the rails are made of: how steel is joined to them"},
         }},
        {{"fixture"},
         &Reader::fixture,
         &Reader::removeFixture,
         {
             {"fixture NEW [pitch length] [holes n n] [hole length] [high length|free] [towers length length length] [packer length] "
              "[reach length] [foot length] [right-way-up|inverted|on-its-side] [note text]",
              "fixture table1 pitch 50 holes 60 30",
              "a table with a grid of holes: towers by the shortest, the step, the tallest; high: the datum over it"},
         }},
        {{"tower"},
         &Reader::tower,
         &Reader::removeTower,
         {
             {"tower ANY-POINT [on FIXTURE] [TOWER-DOES] [by length length length] [below length|free] [note text]",
              "tower Al clamp", "what holds a point on the fixture; by: drawn so far rearwards, to the right, up"},
         }},
        {{"issue"},
         &Reader::issue,
         &Reader::removeIssue,
         {
             {"issue [note text]", "issue note to the saw",
              "drawings are handed out as they are now: what changes afterwards is said piece by piece"},
             {"issue ISSUE note text", "issue A note to the cutter", "to whom one went"},
         }},
        {{"biscuit"},
         &Reader::biscuit,
         nullptr,
         {
             {"biscuit length [squash n]", "biscuit 25 squash 15%", "the mounting rubber"},
         }},
        {{"grip"},
         &Reader::grip,
         nullptr,
         {
             {"grip wall|through", "grip through", "whether mount bolts go through the whole rail"},
         }},
        {{"crossmember"},
         &Reader::crossmember,
         &Reader::removeCrossmember,
         {
             {"crossmember [NAME]", "crossmember", "a bridge under the gearbox mount"},
             {"crossmember form straight|dropped", "crossmember form dropped",
              "a straight bridge, or one that dips under the pan"},
             {"crossmember load number", "crossmember load 3000", "what stands on it at the most, one bump too, in newtons"},
             {"crossmember fixing through|captive", "crossmember fixing captive",
              "bolts through the rail, or into nuts inside it"},
         }},
        {{"pan-clearance"},
         &Reader::panClearance,
         nullptr,
         {
             {"pan-clearance length", "pan-clearance 12",
              "least between gearbox pan and steel; mark the pan by points of role gearbox-pan"},
         }},
        {{"box"},
         &Reader::box,
         nullptr,
         {
             {"box length x length x length", "box 60 x 40 x 3", "its section: width, height, wall"},
         }},
        {{"washer", "floor", "standoff-step", "mount-bolt"},
         &Reader::mountFigure,
         nullptr,
         {
             {"washer|floor|standoff-step|mount-bolt length", "washer 3", "what stands in a body mount"},
         }},
        {{"isolator", "pad", "flange", "end-clearance", "flange-bolt"},
         &Reader::crossmemberFigure,
         nullptr,
         {
             {"isolator|pad|flange|end-clearance|flange-bolt length", "isolator 40", "what the crossmember is made to"},
         }},
        {{"pad-holes"},
         &Reader::padHoles,
         nullptr,
         {
             {"pad-holes length [length]", "pad-holes 60 12", "how far they stand apart, and how wide they are"},
         }},
    }};

} // namespace gorvet::entry
