// What can be typed for Scan.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable scan_commands; // of the tables
const CommandTable scan_commands{
    "Scan",
    {
        {{"scan"},
         &Reader::scan,
         &Reader::removeScan,
         {
             {"scan SCAN pose x y z [angle angle angle], scan SCAN move x y z", "scan shell move 0 0 -20",
              "where a scan stands on its subject's axes, with yaw, pitch and roll; rearward, right and up"},
             {"scan SCAN part PART, scan SCAN on SUBJECT, scan SCAN unit UNIT, scan SCAN note text", "scan shell part body",
              "body, chassis, engine, axle, wheel, exhaust, fuel-tank, prop-shaft, bonnet, door, radiator, steering-shaft, lines, other; on body or chassis; mm, cm, m, in"},
             {"remove scan SCAN, remove zone ZONE", "remove scan shell", "takes it out of the build"},
         }},
        {{"zone"},
         &Reader::zone,
         &Reader::removeZone,
         {
             {"zone NEW never|brace|named x x y y z z", "zone plate never 300 420 -80 80 900 960",
              "a box of the body that is never cut, is braced before, or is only named: stations, offsets, heights between"},
         }},
        {{"clearance"},
         &Reader::clearance,
         &Reader::removePairRule,
         {
             {"clearance least|finish|margin|flange|sheet length", "clearance least 12",
              "what must be clear; what finish takes up; how far beyond to cut; what to leave for re-joining; thickness of the sheet"},
             {"clearance between PART PART length [finish length], remove clearance PART PART",
              "clearance between exhaust body 40", "what two kinds of part must clear each other by, where it is not the usual"},
         }},
        {{"swing"},
         &Reader::swing,
         &Reader::removeSwing,
         {
             {"swing SCAN angle [back angle] about x y z x y z, remove swing SCAN",
              "swing bonnet 60° about 500 -400 900 500 400 900",
              "a scanned bonnet, door or other part that turns about an axis, right-handed from the first place to the second"},
         }},
        {{"cutline"},
         &Reader::cutLine,
         &Reader::removeCutLine,
         {
             {"cutline CUT move|add n x y z, cutline CUT drop n, remove cutline CUT", "cutline cut-1 move 3 812 -410 305",
              "draws a kept cut over by hand, along the body's axes"},
             {"cutline CUT as-cut x y z, cutline CUT as-cut none", "cutline cut-1 as-cut 812 -410 305",
              "where the edge came out: compared with the plan"},
         }},
    }};

} // namespace gorvet::entry
