// What can be typed for Build.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable build_commands; // of the tables
const CommandTable build_commands{
    "Build",
    {
        {{"name"},
         &Reader::name,
         nullptr,
         {
             {"name text, name body|chassis text", "name Petrel on Tern", "names the build, or what its body and chassis are"},
         }},
        {{"frame"},
         &Reader::frame,
         nullptr,
         {
             {"frame FRAME", "frame ladder", "ladder, perimeter, spine-platform, bolted-subframe, monocoque or space-frame"},
         }},
        {{"show"},
         [](Reader& r) { r.show(); },
         nullptr,
         {
             {"show mm 0.1|0.5|1, show inch 1/16|1/32|0.001", "show inch 1/16",
              "how lengths are shown, and what a bare number means"},
         }},
        {{"paper"},
         [](Reader& r) { r.paper(); },
         nullptr,
         {
             {"paper PAPER", "paper letter", "what sheets are printed on: a4, letter or a3"},
         }},
        {{"tolerance"},
         [](Reader& r) { r.tolerance(); },
         nullptr,
         {
             {"tolerance length", "tolerance 3", "what the frame may be out by"},
         }},
    }};

} // namespace gorvet::entry
