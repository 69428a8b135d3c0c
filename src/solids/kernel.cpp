// The table by which a program finds what is here.
#include "solids/content.hpp"

extern "C" [[gnu::visibility("default")]] const gorvet::shape::SolidKernel gorvet_solid_kernel;

const gorvet::shape::SolidKernel gorvet_solid_kernel{
    .stamp = GORVET_SOLID_STAMP,
    .tube = gorvet::shape::tube,
    .bentTube = gorvet::shape::bentTube,
    .plate = gorvet::shape::plate,
    .prism = gorvet::shape::prism,
    .cylinder = gorvet::shape::cylinder,
    .placed = gorvet::shape::placed,
    .sawn = gorvet::shape::sawn,
    .coped = gorvet::shape::coped,
    .unite = gorvet::shape::unite,
    .cut = gorvet::shape::cut,
    .sharedVolume = gorvet::shape::sharedVolume,
    .leastDistance = gorvet::shape::leastDistance,
    .volume = gorvet::shape::volume,
    .centreOfMass = gorvet::shape::centreOfMass,
    .surfaceArea = gorvet::shape::surfaceArea,
    .bounds = gorvet::shape::bounds,
    .isSound = gorvet::shape::isSound,
    .mesh = gorvet::shape::mesh,
    .writeStep = gorvet::shape::writeStep,
};
