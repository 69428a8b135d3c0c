// What can be typed for Work about time, lifts and whom the car belongs to.
#include "entry/commands.hpp"

namespace gorvet::entry {

extern const CommandTable plan_commands; // of the tables
const CommandTable plan_commands{
    "Work",
    {
        {{"hours"},
         &Reader::hours,
         &Reader::removeHours,
         {
             {"hours STEP number [number number]", "hours battery-out 0.5 1 2",
              "what a step should take, all people together: one figure, or least, likely, most"},
         }},
        {{"worked"},
         &Reader::worked,
         &Reader::removeWorked,
         {
             {"worked [STEP] number [on DATE] [by text] [note text], worked [DONE-STEP] number [on DATE] [by text] [note text]",
              "worked battery-out 1.5",
              "hours that somebody worked on a step: today unless said, on the next step unless named. What things take is learned from them"},
         }},
        {{"shop"},
         &Reader::shop,
         nullptr,
         {
             {"shop [weekday number] [saturday number] [sunday number] [people n] [wanted DATE] [hour-costs number]",
              "shop weekday 2.5 saturday 6 people 2",
              "the hours that the shop has for this build, of each person; when it is wanted"},
         }},
        {{"off"},
         &Reader::off,
         &Reader::removeOff,
         {
             {"off DATE [DATE] [text]", "off 2026-12-24 2027-01-02 holidays", "days on which nobody works on it"},
         }},
        {{"lift"},
         &Reader::lift,
         &Reader::removeLift,
         {
             {"lift NEW [way LIFT-WAY] [for STEP] [weighs mass [pm mass]] [centre x y z [pm x y z]] [spreader|no-spreader] [note text]",
              "lift cab way slings weighs 380 pm 20 centre 900 0 500",
              "a load that is lifted or carried, its mass and centre of gravity with their ±, along its own axes: rearward, right, up"},
         }},
        {{"leg"},
         &Reader::leg,
         &Reader::removeLeg,
         {
             {"leg LIFT NEW x y z [long length] [rated mass] [sound|not-looked-at]",
              "leg cab front-left 200 -500 900 long 1800 rated 1000 sound",
              "a leg of slings to the hook, or a point that the load rests on; sound once it was looked at"},
         }},
        {{"surface"},
         &Reader::surface,
         &Reader::removeSurface,
         {
             {"surface NEW [METAL] [PREPARATION] [m2 number] [area text] [seams length] [within text] [at number] [why text] [note text]",
              "surface sill-in steel blast m2 1.4 within left sill",
              "what is made good and coated: metal, how it is made ready (skip says why), square metres, seams, °C"},
         }},
        {{"coat"},
         &Reader::coat,
         &Reader::removeCoat,
         {
             {"coat SURFACE NEW COAT-KIND [of text] [coats n] [covers number] [brush|spray] [dries number] [pot number]",
              "coat sill-in primer epoxy-primer coats 2 brush",
              "a coat, in the order in which they go on: square metres by a litre, hours it dries, minutes it can be used, at 20 °C"},
         }},
        {{"bared"},
         &Reader::bared,
         nullptr,
         {
             {"bared SURFACE…", "bared sill-in", "it is bare metal from now on: what is bare rusts again"},
         }},
        {{"coated"},
         &Reader::coated,
         nullptr,
         {
             {"coated SURFACE COAT", "coated sill-in primer", "a coat is on"},
         }},
        {{"coat-jobs"},
         &Reader::coatJobs,
         nullptr,
         {
             {"coat-jobs SURFACE", "coat-jobs sill-in",
              "a surface's coats as jobs in the order of work, each left alone while it dries"},
         }},
        {{"permit"},
         &Reader::permit,
         nullptr,
         {
             {"permit STEP watch text", "permit weld-rails watch Kim",
              "leave to do something hot: who watches, and does nothing else"},
         }},
        {{"sparks-out"},
         &Reader::sparksOut,
         nullptr,
         {
             {"sparks-out STEP, sparks-out DONE-STEP", "sparks-out weld-rails",
              "the last spark: the fire watch goes on for an hour"},
         }},
        {{"watched"},
         &Reader::watched,
         nullptr,
         {
             {"watched STEP, watched DONE-STEP", "watched weld-rails", "the hour is over and nothing smoulders"},
         }},
        {{"decide"},
         &Reader::decide,
         nullptr,
         {
             {"decide NEW asks text [for STEP] [wanted DATE] [note text]", "decide floor asks patch it or a whole new floor",
              "a question to whom the car belongs to; a step waits until it is agreed"},
         }},
        {{"choice"},
         &Reader::choice,
         nullptr,
         {
             {"choice DECISION NEW [what text] [price number] [hours number] [days number]",
              "choice floor patch what a patch of 1.2 sheet price 180 hours 4", "one way to decide, and what it adds"},
         }},
        {{"agreed"},
         &Reader::agreed,
         nullptr,
         {
             {"agreed DECISION CHOICE by text", "agreed floor patch by A. Owner",
              "who agreed to what: it stays as it is then, on a sheet to be signed"},
         }},
        {{"strike"},
         &Reader::strike,
         nullptr,
         {
             {"strike DECISION", "strike floor", "strikes a decision out: nothing is deleted"},
         }},
    }};

} // namespace gorvet::entry
