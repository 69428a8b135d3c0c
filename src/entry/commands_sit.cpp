// What can be typed for Sit.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable sit_commands; // of the tables
const CommandTable sit_commands{
    "Sit",
    {
        {{"tyre", "axle"},
         &Reader::axleHeight,
         nullptr,
         {
             {"tyre|axle front|rear length", "tyre front 340", "loaded radius of the tyre; axle front 338 for a typed height"},
         }},
        {{"hinge"},
         &Reader::hinge,
         nullptr,
         {
             {"hinge length [tol length]", "hinge 1210 tol 1", "the hinge pillar stands at this station"},
         }},
        {{"centred"},
         &Reader::centred,
         nullptr,
         {
             {"centred [tol length]", "centred", "the body stands on the centreline"},
         }},
        {{"sill"},
         &Reader::sill,
         nullptr,
         {
             {"sill front|rear length, sill level, sill rake angle", "sill front 310",
              "height of the sill over the ground; level; or how far it rises rearward"},
         }},
        {{"arch"},
         &Reader::arch,
         nullptr,
         {
             {"arch front|rear [tol length]", "arch rear", "the wheel stands in the middle of its arch"},
         }},
        {{"pin"},
         &Reader::pin,
         &Reader::removePin,
         {
             {"pin PIN-KIND NAME… [least|most] figure [tol length] [must|want|like]", "pin height Sfl Sfr 310 tol 2",
              "any pin, by points"},
             {"pin along|across|up|straight NAME… to NAME… [least|most] length [tol length] [must|want|like]",
              "pin up Floor to chassis:Al 40",
              "any dimension between two features, of body or chassis; a bare name is looked for on the body first"},
             {"pin line NAME… to NAME NAME length, pin under NAME… to NAME NAME NAME length",
              "pin under chassis:Pan to B1l B1r B2l least 20",
              "distance from a line (steering column, shaft); how far points lie under a plane (engine under the bonnet)"},
             {"pin tyre|bump NAME… least length, pin clear NAME… to BOX least length", "pin bump Aul Aur least 20",
              "gap to the tyre at rest or at full bump; to a box marked by blocked: booster, pedals, climate unit, loom"},
             {"… least|most figure [tol length] [must|want|like]", "pin height Sfl Sfr least 220 must",
              "a bound; a must is kept whatever it costs the others, a like counts a quarter"},
         }},
        {{"travel"},
         &Reader::travel,
         nullptr,
         {
             {"travel front|rear bump|droop|radius length, travel width length, travel lock|rock angle", "travel front bump 70",
              "how far the wheels go, how big the tyres are, how far the engine rocks"},
         }},
        {{"seating"},
         &Reader::seating,
         &Reader::removeSeating,
         {
             {"seating keep NEW [note text], seating use SEATING, remove seating SEATING", "seating keep low",
              "keeps this way to seat the body, to be compared with others"},
         }},
        {{"leads"},
         &Reader::school,
         nullptr,
         {
             {"leads driveline|body|neither", "leads driveline",
              "what counts more when body and driveline ask for different places"},
         }},
        {{"lower"},
         &Reader::lower,
         nullptr,
         {
             {"lower channel|raise-floor length, lower kick length from length to length, lower floor ZONE, lower none",
              "lower channel 40",
              "the floor channelled over the rails or set up, or the rails let down; which zone is the floor"},
         }},
    }};

} // namespace gorvet::entry
