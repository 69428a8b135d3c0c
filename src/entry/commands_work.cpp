// What can be typed for Work.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable work_commands; // of the tables
const CommandTable work_commands{
    "Work",
    {
        {{"done"},
         &Reader::done,
         nullptr,
         {
             {"done [STEP] [by text] [note text]", "done battery-out note earth first", "ticks a step; without one, the next"},
         }},
        {{"undone"},
         &Reader::undone,
         nullptr,
         {
             {"undone DONE-STEP", "undone battery-out", "takes a tick back"},
         }},
        {{"check"},
         &Reader::check,
         nullptr,
         {
             {"check [STEP] [level] NAME NAME length, check [STEP] gap BRACE length", "check Bl Dr 2154",
              "a fresh reading at a hold point, as is the pair alone while one asks for it or one of a brace's gap"},
         }},
        {{"brace"},
         &Reader::brace,
         &Reader::removeBrace,
         {
             {"brace NEW [for text] [blocks text] [until STEP] [gap length]", "brace door-left for door opening gap 4.5",
              "temporary steel: what it is for, what it blocks, when it comes out, the gap it keeps"},
         }},
        {{"present", "absent"},
         &Reader::presence,
         nullptr,
         {
             {"present|absent HAZARD", "absent refrigerant", "fuel-tank, battery, restraints, refrigerant"},
         }},
        {{"standing"},
         &Reader::standing,
         nullptr,
         {
             {"standing body-on|body-off SUPPORT ATTITUDE", "standing body-on wheels right-way-up",
              "how it stands before the work begins"},
         }},
    }};

} // namespace gorvet::entry
