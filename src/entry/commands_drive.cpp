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
             {"output|input|bearing|pinion|through NEW at NAME [line NAME NAME] [slope angle] [swing angle] [on CARRIER] [note text], "
              "output|input|bearing|pinion|through NEW at station length [right length] up length [line NAME NAME] [slope angle] [swing angle] [on "
              "CARRIER] [note text]",
              "output gearbox at station 1420 right 12 up 310 slope 3.1deg",
              "an end of a shaft: its joint's centre, marked or taped, and the line of its unit by two points or by its slope (down at the back is "
              "positive) and its swing in plan (to the right at the back is positive)"},
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
