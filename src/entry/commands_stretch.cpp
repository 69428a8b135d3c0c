// What can be typed for Stretch.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable stretch_commands; // of the tables
const CommandTable stretch_commands{
    "Stretch",
    {
        {{"rail"},
         &Reader::rail,
         nullptr,
         {
             {"rail length x length x length SHAPE FACE", "rail 100 x 60 x 4 box top",
              "section of the rail, height x width x wall, and the face its points were marked on"},
         }},
        {{"cut"},
         &Reader::cut,
         nullptr,
         {
             {"cut length", "cut 1480", "where the rails are cut"},
         }},
        {{"change"},
         &Reader::change,
         nullptr,
         {
             {"change length|free", "change -75", "decides the change of wheelbase, or leaves it to the pins"},
         }},
        {{"kerf", "root-gap", "sleeve-fit", "overlap"},
         &Reader::stretchFigure,
         nullptr,
         {
             {"kerf|root-gap|sleeve-fit length, overlap number", "sleeve-fit 1", "how it is cut, fitted and lapped"},
         }},
        {{"sleeve-wall", "plug", "fish-plate", "butt"},
         &Reader::joint,
         nullptr,
         {
             {"sleeve-wall|fish-plate|plug length|free", "fish-plate 5", "what joins the rails; free: as the rules say"},
             {"butt counts|not", "butt counts", "whether the butt weld, fully penetrated and licensed, is counted"},
         }},
        {{"crossing"},
         &Reader::crossing,
         nullptr,
         {
             {"crossing CROSSING [none] [slack length] [from length to length]", "crossing brake-line slack 30 from 400 to 2600",
              "what runs along the frame: prop-shaft, brake-line, fuel-line, park-brake-cable, exhaust, loom, shift-rod, cooling-line"},
         }},
    }};

} // namespace gorvet::entry
