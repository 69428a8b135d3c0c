#pragma once

#include "sheet/drawing.hpp"

#include <QByteArray>
#include <QString>

/// A short sound for each verdict, so that a person under the car need not look: one high tone agrees, two middle ones are
/// doubtful, three falling ones ask for the tape again.
namespace gorvet::desk {

/// The sound as a WAV file, 16 bit mono, 22050 Hz, at most half a second.
QByteArray verdictSound(sheet::Severity);
/// Plays it with the system's own player (pw-play, paplay or aplay); does nothing where there is none. Does not wait.
void playVerdict(sheet::Severity);

} // namespace gorvet::desk
