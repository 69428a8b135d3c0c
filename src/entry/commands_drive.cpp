// What can be typed for Drive.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable drive_commands; // of the tables
const CommandTable drive_commands{
    "Drive",
    {
        {{"output", "input", "bearing", "pinion", "through"},
         &Reader::driveEnd,
         &Reader::removeDriveEnd,
         {
             {"output|input|bearing|pinion|through NEW at NAME [line NAME NAME] [slope angle] [swing angle] [on CARRIER] [in NEW] [note text], "
              "output|input|bearing|pinion|through NEW at station length [right length] up length [line NAME NAME] [slope angle] [swing angle] [on "
              "CARRIER] [in NEW] [note text]",
              "output gearbox at station 1420 right 12 up 310 slope 3.1deg",
              "an end of a shaft: its joint's centre, marked or taped, and the line of its unit by two points or by its slope (down at the back is "
              "positive) and its swing in plan (to the right at the back is positive); ends in one housing, as of a transfer box, move together"},
             {"output|input|bearing|pinion|through END [slope angle] [swing angle] [turn angle] [raise length] [aside length] [back length]",
              "pinion rear turn -1.5deg", "what is planned of it: turned down at the back, higher, further right, further back"},
         }},
        {{"shaft"},
         &Reader::shaft,
         &Reader::removeShaft,
         {
             {"shaft NEW from END to END [joints JOINT-KIND JOINT-KIND] [slip none|front|rear] [note text]",
              "shaft main from gearbox to rear", "a shaft from end to end; its front and rear joint, and where it slides"},
             {"shaft SHAFT [phase angle] [in length] [out length] [tube length length] [limit angle] [loops]",
              "shaft main phase 0deg in 30 out 45 tube 76 2.5 limit 22deg",
              "how its yokes stand to each other, how far its slip joint still goes in and out, its tube, the most that its joints bend, safety "
              "loops"},
         }},
        {{"level-on"},
         &Reader::levelOn,
         &Reader::removeLevels,
         {
             {"level-on frame angle [within angle] [note text], level-on END-OR-SHAFT angle [within angle] [note text]",
              "level-on frame -0.6deg",
              "what a digital level shows, against plumb, down at the back positive: on the frame, on the line of a unit, on a shaft; the frame's own "
              "slope is taken off"},
         }},
        {{"turns"},
         &Reader::turns,
         &Reader::removeTurns,
         {
             {"turns front-axle|rear-axle shaft number wheel number [one-held] [within number] [note text]",
              "turns rear-axle shaft 3.55 wheel 1 one-held",
              "turns that were counted at an axle: of the shaft, and of a wheel; one-held: the other wheel was held"},
         }},
        {{"link"},
         &Reader::link,
         &Reader::removeLink,
         {
             {"link NEW HUNG LINK-KIND NAME…", "link upper-left rear-axle rod Al Bl",
              "what carries an axle or a wheel, between marked points as they stand at rest; a rod: on the frame, then on the axle"},
         }},
        {{"rim"},
         &Reader::rim,
         &Reader::removeRim,
         {
             {"rim front|rear fitted|wanted [width length] [diameter length] [backspace length] [offset length] [tyre length] [aspect number] [note text]",
              "rim rear fitted width 6in diameter 15in backspace 110 tyre 195 aspect 65",
              "a wheel with its tyre: width and diameter between the bead seats, from the mounting face to the inner lip (or the offset that is "
              "stamped: face outside of the middle is positive), the tyre's width and the height of its side in hundredths; what is wanted begins as what is fitted"},
             {"rim front|rear fitted|wanted [over-lips length] [outside length] [section length] [inside length] [spokes length] [carries number] [speed number]",
              "rim rear fitted over-lips 178 outside 634 section 201 inside 345 spokes 35 carries 615 speed 190",
              "what can be measured of it: over the lips; the tyre's diameter and width; the diameter inside the rim where the brake turns, and how far "
              "the spokes stand out of the face there; kg and km/h that the tyre's marks stand for"},
             {"rim front|rear fitted|wanted [studs number] [circle length] [chord length] [next-but-one] [bore length]",
              "rim rear fitted studs 5 chord 67.2 bore 70",
              "its stud holes: from the middle of a hole to the middle of the next (or the next but one), or the circle as it is said; its bore"},
         }},
        {{"hub"},
         &Reader::hub,
         &Reader::removeHub,
         {
             {"hub front|rear [studs number] [circle length] [chord length] [next-but-one] [spigot length] [stud length] [out length]",
              "hub rear studs 5 chord 67.2 spigot 70 stud 12 out 32",
              "what the wheels are bolted to: studs, from stud to stud or their circle, the spigot, a stud's diameter and how far it stands out"},
             {"hub front|rear [brake-radius length] [brake-out length] [axle number] [note text]",
              "hub rear brake-radius 160 brake-out 22 axle 1100",
              "how far drum or caliper reach from the hub's middle and out of the face; kg that the axle may carry"},
         }},
        {{"room"},
         &Reader::wheelRoom,
         &Reader::removeWheelRoom,
         {
             {"room NEW front|rear out length up length [ahead length] [from face|tyre|rim] [side both|left|right] [on body|frame|hub] [least length]",
              "room arch rear out 92 up 310",
              "a place beside a wheel, taped at rest from the face that the fitted wheel is bolted to, or from its tyre or rim: outwards is positive, and up over "
              "the wheel's centre; on the hub: it goes with the wheel"},
             {"room NEW front|rear at ANY-POINT [side both|left|right] [on body|frame|hub] [least length] [note text]",
              "room lip rear at Al", "the same at a marked point of body or chassis"},
         }},
        {{"dial"},
         &Reader::dialTurn,
         &Reader::removeDialTurn,
         {
             {"dial WHEEL radial|lateral length… [within length]", "dial rear-left lateral 0 0.2 0.5 0.4 0.1 -0.2 -0.3 -0.1",
              "what a dial showed as a wheel was turned once, in equal steps from the valve, forwards"},
         }},
        {{"widen"},
         &Reader::widen,
         &Reader::removeWidening,
         {
             {"widen front|rear by length [inside|outside] barrel length sheet length",
              "widen rear by 50 inside barrel 380 sheet 3",
              "a band let into the fitted rims, inside or outside of the wheel's disc; the barrel's outside diameter there, and the sheet"},
         }},
        {{"adaptor"},
         &Reader::adaptor,
         &Reader::removeAdaptor,
         {
             {"adaptor front|rear thick length across length hub-hole length wheel-hole length [nut-across length] [nut-deep length]",
              "adaptor rear thick 30 across 170 hub-hole 13 wheel-hole 14",
              "a plate between hubs and wanted wheels: its holes for the hub's and for the wheel's studs, and how far the nuts are sunk"},
         }},
        {{"seat"},
         &Reader::axleSeat,
         &Reader::removeAxleSeat,
         {
             {"seat front|rear [faces length] [tube length] [springs length length] [width length] [pads angle] [pinion angle] [note text]",
              "seat rear faces 1420 tube 76 springs 430 430 width 60 pads 0deg pinion 3deg",
              "an axle on the bench: from wheel face to wheel face, its tube, how far out its springs' middles are left and right, their width, the "
              "slope of their seats as the car stands, the slope that the pinion shall have"},
             {"seat front|rear [kingpin angle] [caster angle] [u-bolt length] [stack length] [plate length]",
              "seat front kingpin 2deg caster 4deg u-bolt 14 stack 62 plate 10",
              "of a front beam by how much the kingpins lean back against the seats' square, and the caster that is wanted; the U-bolts' thread, what they hold beside the "
              "tube, the plates under them"},
         }},
        {{"bracket"},
         &Reader::axleBracket,
         &Reader::removeAxleBracket,
         {
             {"bracket NEW front|rear other|damper|stop|panhard right length [ahead length] up length [frame NAME] [closed length] [open length]",
              "bracket damper-left rear damper right -480 ahead -70 up -60",
              "a bracket on an axle, from the car's middle and the axle's line as it stands at rest; the frame's end of a damper, or the face that a stop meets; a damper's "
              "lengths pushed together and drawn out, or a stop's height (closed)"},
             {"bracket NEW front|rear other|damper|stop|panhard at NAME [frame NAME] [closed length] [open length] [note text]",
              "bracket damper-right rear damper at Al", "the same at a marked point"},
         }},
        {{"tacked"},
         &Reader::tacked,
         &Reader::removeTacked,
         {
             {"tacked NEW front|rear is length [wanted length] [welded length] [within length] [note text]",
              "tacked perch-left rear is 279.5 wanted 280 welded 279.1",
              "a distance on an axle while it is tacked, what is wanted, and what it is once it is welded and cold"},
         }},
        {{"gears"},
         &Reader::gears,
         &Reader::removeGears,
         {
             {"gears front-axle|rear-axle|second-rear-axle backlash|pinion-preload|whole-preload|run-out number… [least number] [most number] [spread number] [note text]",
              "gears rear-axle backlash 0.14 0.16 0.15 0.13 least 0.10 most 0.20",
              "play between the teeth at several of them, what turns the pinion alone or with all, how the crown wheel runs; with its maker's limits: mm, N·m"},
         }},
        {{"column"},
         &Reader::steeringColumn,
         &Reader::removeSteeringColumn,
         {
             {"column NEW through ANY-POINT… [across length] [bearings ANY-POINT…] [bulkhead ANY-POINT ANY-POINT ANY-POINT] [note text]",
              "column steering through Sfl A3 B7 Bl across 19",
              "the steering column from above: the hand wheel's hub, each joint, a place on the gear's own shaft; its thickest shaft, bearings that are marked on it, "
              "three places of the sheet that it passes"},
             {"column NEW [forks angle…] [gives length] [limit angle] [note text]",
              "column steering forks 0deg gives 80 limit 32deg",
              "of each shaft between two joints its lower fork against its upper one, clockwise as it is seen from the hand wheel; by how much the column goes together in a "
              "crash; the most that its joints bend, as their maker says"},
         }},
        {{"steer-gear"},
         &Reader::steeringGear,
         &Reader::removeSteeringGear,
         {
             {"steer-gear NEW rack|box [holes NAME…] [bolt length] [plate length] [closed] [note text]",
              "steer-gear rack-1 rack holes Al Ar Bl bolt 10 plate 6",
              "the rack or box: the holes that it is bolted through, their bolts, the plate under it; closed: the bolts go through a closed rail"},
             {"steer-gear NEW rack|box [each-way length] [arm NAME NAME] [swing angle] [turns number]",
              "steer-gear rack-1 rack each-way 72 turns 3.2",
              "with the wheels straight ahead: how far a rack goes to its nearer stop; of a box a place on its arm's shaft and the ball at the arm's end, and how far the arm "
              "swings to its nearer stop; turns of the hand wheel from stop to stop"},
         }},
        {{"run"},
         &Reader::pipeRun,
         &Reader::removePipeRun,
         {
             {"run NEW CROSSING through ANY-POINT… across length [shielded|open] [note text]",
              "run downpipe exhaust through Al Bl across 50",
              "a pipe, line, cable or shaft through the car by marked points, and its diameter; shielded: a heat shield stands beside it"},
             {"run NEW CROSSING through ANY-POINT… across length [long length] [ends-on CARRIER]",
              "run hose brake-line through Al Bl across 10 long 420 ends-on rear-axle",
              "how long a cable, hose or pipe is that is there already, and what its last point moves with: whether it still reaches, through the travel, too"},
         }},
        {{"spring"},
         &Reader::spring,
         &Reader::removeSpring,
         {
             {"spring front|rear coil|leaf|air [rate number] [foot NAME] [top NAME] [on LINK] [free length] [higher length] [note text]",
              "spring rear coil rate 32 foot Al top Ar free 380",
              "an axle's springs, of one: its rate, N/mm, where its foot and its top are, the link that its foot stands on, its length without load; how much higher the car "
              "shall stand"},
             {"spring front|rear coil|leaf|air|torsion [stop length] [stop-rate number]",
              "spring rear coil stop 45 stop-rate 120",
              "how far the wheel goes up until its bump stop touches, and the stop's rate at the wheel, N/mm"},
             {"spring front|rear torsion [bar length] [inside length] [long length] [arm length] [higher length]",
              "spring front torsion bar 22 long 900 arm 310",
              "of a torsion bar its diameter, the inside where it is a tube, the length that twists, and from the bar to the wheel's centre, level"},
         }},
        {{"lifted"},
         &Reader::axleLifted,
         &Reader::removeAxleLifted,
         {
             {"lifted front length rear mass [within mass] [note text], lifted rear length front mass [within mass] [note text]",
              "lifted front 600 rear 798kg",
              "one axle lifted, its wheels' centres so much up, and what both wheels of the other carry then: how high the weight stands"},
         }},
        {{"link-holes"},
         &Reader::linkHoles,
         &Reader::removeLinkHoles,
         {
             {"link-holes LINK frame|axle [pitch length] [above number] [below number] [lean angle] [hole length] [note text]",
              "link-holes lower frame pitch 25 above 1 below 2 hole 14",
              "a row of holes for a link's end: from hole to hole, how many over and under the one that is used, its top rearward of plumb, their diameter; the link on the "
              "other side goes with it"},
         }},
        {{"brake"},
         &Reader::brake,
         &Reader::removeBrake,
         {
             {"brake front|rear disc [piston length] [pistons number] [radius length] [grip number] [stroke length] [note text]",
              "brake front disc piston 48 pistons 2 radius 112 grip 0.38 stroke 0.5",
              "what is checked of brakes, never designed: pistons on one side of the disc, the radius at which the pads press, how they grip, how far a piston moves until "
              "it presses"},
             {"brake front|rear drum [piston length] [pistons number] [radius length] [factor number] [stroke length] [note text]",
              "brake rear drum piston 20.6 pistons 1 radius 127 factor 2.2 stroke 1.2",
              "of a drum its wheel cylinders, half its inside, and what its shoes rub for each push, as its maker gives it"},
         }},
        {{"pedal"},
         &Reader::pedal,
         &Reader::removePedal,
         {
             {"pedal brake|clutch [lever length] [arm length] [room length] [bore length] [bore-rear length] [stroke length] [help number] [leg number] [note text]",
              "pedal brake lever 290 arm 52 room 140 bore 22.2",
              "from a pedal's pivot to its pad and to its push rod, its way to the floor; the cylinder's bore (the rear circuit's, where it has one of its own) and stroke; how "
              "often a servo makes the push more, and what the leg presses, N"},
         }},
        {{"drive"},
         &Reader::driveFacts,
         nullptr,
         {
             {"drive [redline number] [torque number] [first number] [top number] [low number] [cruise number] [tyre length] [cg length]",
              "drive redline 5200 torque 320 first 3.6 top 0.78",
              "the engine's highest rpm and most torque, N·m; ratios of first and top gear, and of a low range; cruise, km/h; the driven tyre; how "
              "high the whole car's centre of gravity is"},
             {"drive [ratio-front number] [ratio-rear number] [layout parallel|mirrored|level|preset] [wind-up angle]",
              "drive ratio-rear 3.73 layout parallel",
              "ratios of the axles as they are said or stamped; how engine and pinion are to lie; by how much the pinion's nose goes up under drive"},
         }},
    }};

} // namespace gorvet::entry
