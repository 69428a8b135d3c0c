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
        {{"sleeve-wall", "plug", "fish-plate", "butt", "sleeve-step", "sleeve-tube", "tube-strip", "stagger"},
         &Reader::joint,
         nullptr,
         {
             {"sleeve-step yes|not", "sleeve-step yes",
              "whether the sleeve is made with the step, or the kink, of rails that run aside in plan"},
             {"sleeve-tube length length [wall length], sleeve-tube free", "sleeve-tube 90 50 wall 4",
              "the tube in hand as measured outside, high and wide, and its wall: how it fits is said; free: one is made to fit"},
             {"sleeve-wall|fish-plate|plug length|free", "fish-plate 5", "what joins the rails; free: as the rules say"},
             {"stagger length|free", "stagger 150",
              "of a spine platform: how far ahead of the spine's cut, and behind it, its pans are cut"},
             {"tube-strip length|free", "tube-strip 2", "flat on the sides where that tube is loose"},
             {"butt counts|not", "butt counts", "whether the butt weld, fully penetrated and licensed, is counted"},
         }},
        {{"crossing"},
         &Reader::crossing,
         &Reader::removeCrossing,
         {
             {"crossing CROSSING [none] [slack length] [from length to length]", "crossing brake-line slack 30 from 400 to 2600",
              "what runs along the frame: prop-shaft, brake-line, fuel-line, park-brake-cable, exhaust, loom, shift-rod, cooling-line"},
             {"crossing CROSSING [NEW] [clips n] [fittings text] [answer RUN-ANSWER] [long length] [supplier text] [price number] [hours "
              "number] [out|stays] [inside|beside] [note text]",
              "crossing brake-line left answer new-length long 2610 hours 1.5 out",
              "one of several by a name of its own; what is done about it, what it is made of and costs, and whether it must be out before "
              "anything hot; inside the rail or spine, or beside it"},
         }},
        {{"member"},
         &Reader::member,
         &Reader::removeMember,
         {
             {"member NEW crossmember at length SECTION length length [length] [length] [below length] [JOINT] [MEMBER-STATE] [yield number] "
              "[note text]",
              "member front crossmember at 300 box 60 40 3 below 10 riveted",
              "what joins the rails: where, its section (outside, then wall), and how far under the rails' middle"},
             {"member NEW MEMBER-KIND through NAME… SECTION length length [length] [length] [below length] [JOINT] [MEMBER-STATE]",
              "member leg-left leg through Bl Dr channel 80 40 3",
              "a leg, spine or outrigger through marked points of the chassis"},
             {"member NEW spine|pan|rail from length to length SECTION length length [length] [length] [side RAIL-SIDE] [MEMBER-STATE]",
              "member deep rail from 900 to 1700 box 120 60 4",
              "a spine or pan along the middle, or a length of rail with another section"},
             {"member NEW plate from length to length length [windows length length pitch length] [side RAIL-SIDE] [MEMBER-STATE]",
              "member shut plate from 900 to 1400 3 windows 60 50 pitch 100 planned",
              "a plate that closes an open rail from one station to another, how thick it is, and its windows: long, high, one every so far"},
             {"member NEW rib from length to length length pitch length [side RAIL-SIDE] [MEMBER-STATE]",
              "member ribs rib from 400 to 1600 4 pitch 300 planned",
              "flat ribs across an open rail, or tubes upright in it: rib from 400 to 1600 box 30 30 2 pitch 300"},
         }},
        {{"load"},
         &Reader::load,
         &Reader::removeLoad,
         {
             {"load NEW mass at x y z [over length] [stays|moves] [with-body|on-frame] [source text]",
              "load engine 180 kg at -50 0 350 over 400 source scales",
              "what the frame carries: its mass, the station, offset and height of its middle, and the length over which it hangs; with-body goes when the body is taken off"},
         }},
        {{"case"},
         &Reader::loadCase,
         &Reader::removeCase,
         {
             {"case NEW [up number] [braking number] [cornering number] [lifted LIFTED], case NEW off",
              "case pothole up 4 braking 0.5",
              "how the frame is loaded, in multiples of its weight; rest, bump, lifted, braking and cornering are asked for unless off"},
         }},
        {{"yield", "mount-rate", "body-twist", "wheel-rate", "twist-wanted"},
         &Reader::frameFact,
         nullptr,
         {
             {"yield|mount-rate number, body-twist number|none", "yield 235",
              "of the frame's steel, MPa; of a body mount, N/mm; the body's own stiffness in twist, N·m a degree"},
             {"wheel-rate front|rear number", "wheel-rate front 28", "the spring at a wheel, N/mm"},
             {"twist-wanted number|none", "twist-wanted 4000",
              "how stiff the frame is to be in twist, N·m a degree: the least steel that reaches it is looked for"},
         }},
        {{"springs"},
         &Reader::springs,
         nullptr,
         {
             {"springs front|rear leaf|other|unsaid", "springs rear leaf",
              "how an axle's springs bear on the frame: leaf springs at a hanger ahead of the axle and one behind it; others at the "
              "suspension point nearest to it"},
         }},
        {{"track"},
         &Reader::track,
         &Reader::removeTrack,
         {
             {"track front|rear [faces length] [wanted length|none] [pinion length] [pinion-wanted length|none] [within length|none] "
              "[offset length] [offset-wanted length|none] [tyre length]",
              "track rear faces 1420 wanted 1300 pinion 25 offset 20 tyre 205",
              "a live axle made narrower or wider: from wheel face to wheel face as it is and as wanted, the pinion right of the middle, "
              "the width over the tyres to be kept within, the wheels' offset"},
             {"track front|rear [faces length] [tube length] [wall length] [yield number] [flange length] [perches length] [perches-wanted length|none] [perch length] "
              "[brake length]",
              "track rear faces 1420 tube 76 wall 6 flange 62 perches 980 perch 60 brake 95",
              "its housing: the tubes, from the wheel face in to their end flange and to the innermost of the brake, the spring perches"},
             {"track front|rear [faces length] [shaft-left length] [shaft-right length] [splined length] [engaged length]",
              "track rear faces 1420 shaft-left 705 shaft-right 655 splined 95 engaged 38",
              "its half-shafts: from the wheel face to the inner end, how far the splines reach and how much of them the gear holds"},
         }},
        {{"graft"},
         &Reader::graft,
         &Reader::removeGraft,
         {
             {"graft NEW front-clip|rear-frame of SUBJECT at length [rails length length length box|channel [top|bottom]] "
              "[transition length|free] [plate length|free] [note text]",
              "graft nose front-clip of clip at 640 rails 90 50 4 box",
              "a piece of another frame, surveyed as a subject of its own: at which station the chassis is cut for it, its rails' outside "
              "and wall, how long a made piece between both is"},
             {"graft GRAFT pin station|offset|height PIECE-POINT… length [tol length], graft GRAFT pin centred PIECE-POINT PIECE-POINT",
              "graft nose pin station FL FR 0",
              "what sets it: points of it at a station, an offset or a height of the chassis, or a pair in its middle"},
         }},
        {{"narrow"},
         &Reader::narrow,
         &Reader::removeNarrow,
         {
             {"narrow by length at length [lap length|free], narrow lap length|free", "narrow by 120 at 420",
              "the chassis made narrower: in all, and how far from the middle the strip begins that comes out of each side; a lap of 0 is a "
              "butt"},
         }},
        {{"floor-edge"},
         &Reader::floorEdge,
         &Reader::removeFloorEdge,
         {
             {"floor-edge NEW from NAME… to ANY-POINT… [sheet length] [lap length] [upstand length] [note text]",
              "floor-edge left from Al Bl to Sfl Srl",
              "a floor or rail that reaches out to a sill: marks along its edge, then marks of the body along the sill; the new strip's sheet, "
              "its lap on the old floor and its flange up the sill"},
             {"floor-edge EDGE [sheet length] [lap length] [upstand length] [outriggers length length length] [pitch length|none] "
              "[carries number]",
              "floor-edge left outriggers 50 30 2 pitch 400",
              "what it is made of: outriggers by height, width and wall, one every so far at the most, and what each bears at its end, kg"},
         }},
        {{"let-in"},
         &Reader::letIn,
         &Reader::removeLetIn,
         {
             {"let-in NEW from ANY-POINT to ANY-POINT section length length length [front-leg length length length] "
              "[rear-leg length length length] [note text]",
              "let-in floor-left from Al to Bl section 80 50 3",
              "a rail let into a shell: from the middle of the front leg's open end to that of the rear leg's; outside, then wall"},
             {"let-in LET-IN [front-leg length length length] [rear-leg length length length] [front-along ANY-POINT] "
              "[rear-along ANY-POINT] [driven front|rear] [engage length|free] [floor length] [yield number]",
              "let-in floor-left driven rear engage 160mm",
              "its legs' sections, a mark further along each leg, which inner piece is a driven fit, how far they stand in, the floor's sheet"},
         }},
        {{"rail-hole"},
         &Reader::railHole,
         &Reader::removeRailHole,
         {
             {"rail-hole NEW at length across length [along length] [up length] [hole|initiator] [left|right|both] [top|bottom|outer|inner] "
              "[note text]",
              "rail-hole bush at 1240 across 30 outer",
              "a hole that the maker left in a rail, or an initiator: a dent that starts its folding in a crash; how far across its wall and "
              "along the rail it reaches, and its middle over the lower edge"},
             {"rail-hole HOLE keep|restore|ask|open|move length", "rail-hole bush restore",
              "what is done about it: it stays, it is made again there, an engineer is asked, it is made anew at another station"},
         }},
    }};

} // namespace gorvet::entry
