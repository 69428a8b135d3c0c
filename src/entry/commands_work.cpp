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
        {{"job"},
         &Reader::job,
         &Reader::removeJob,
         {
             {"job NEW [does text] [area text] [kind JOB-KIND] [hours number [number number]] [rests number] [people n] [body-on|body-off|body-either] "
              "[way ATTITUDE] [support SUPPORT] [after STEP…] [before STEP…] [closes text] [within text] [wanted DATE] [note text]",
              "job floor-left does weld the floor patch area cabin kind weld hours 2 3 6 body-off",
              "a job of one's own, or what changes of it: hours are one figure or three, least, likely, most; a space that is closed waits "
              "for what is done inside it"},
         }},
        {{"discovered"},
         &Reader::job,
         nullptr,
         {
             {"discovered NEW [during STEP] [does text] [area text] [kind JOB-KIND] [hours number [number number]] [body-on|body-off|body-either] [after STEP…] "
              "[before STEP…] [wanted DATE] [note text]",
              "discovered sill-inner during battery-out does a new inner sill area left sill kind weld hours 4 9 16",
              "a job that nobody had planned, found at a step: how much is usually found is learned from these"},
         }},
        {{"jobs"},
         &Reader::readyList,
         nullptr,
         {
             {"jobs LIST", "jobs cab-off", "a ready-made list: cab-off, engine-out, frame-drop, rotisserie, front-clip, repaint"},
         }},
        {{"split"},
         &Reader::splitJob,
         nullptr,
         {
             {"split JOB NEW", "split seats-out seats-out-2", "a job in two: half the hours each, the second after the first"},
         }},
        {{"repeat"},
         &Reader::repeatJob,
         nullptr,
         {
             {"repeat JOB NEW", "repeat seats-out seats-out-again", "the same job once more, after the first"},
         }},
        {{"failed"},
         &Reader::failed,
         nullptr,
         {
             {"failed STEP [text]", "failed battery-out the clamp broke", "a step that did not come off: it is to be done again"},
         }},
        {{"await"},
         &Reader::await,
         &Reader::removeAwaited,
         {
             {"await NEW for STEP [from text] [ordered DATE] [arrived DATE] [days number [number number]] [cost number] [note text]",
              "await door-seals for weld-rails from the seal maker ordered 2026-11-02 days 10 20 45",
              "a part that a step waits for, until it has arrived"},
         }},
        {{"tag"},
         &Reader::tag,
         &Reader::removeTag,
         {
             {"tag NEW [TIE-KIND] [area text] [joins text] [how text] [cap text] [bag text] [frees STEP] [torque number] [soaks number] [seized] [captive] "
              "[on-wheels] [renew-bolt] [fate FATE] [note text]",
              "tag earth-left cable area engine bay joins engine to bulkhead torque 20",
              "a row of the register: what must be undone before the body is lifted, or before a step; the area stays that of the row "
              "before"},
         }},
        {{"row"},
         &Reader::openRow,
         nullptr,
         {
             {"row ROW", "row earth-strap", "opens the card of a row of the register: what the code on its label says"},
         }},
        {{"untied", "tied", "proved", "soaked", "refit", "torqued"},
         &Reader::tagState,
         nullptr,
         {
             {"untied|tied|soaked|refit ROW…, untied|tied|soaked|refit area text", "untied earth-strap",
              "undone; not undone after all; soaked, as it is seized; on again"},
             {"proved ROW…, proved area text", "proved loom-tail", "seen to be free on another walk-round"},
             {"torqued ROW…, torqued area text", "torqued gear-lever", "tightened for good"},
         }},
    }};

} // namespace gorvet::entry
