#pragma once

#include "desk/shell/desk.hpp"

namespace gorvet::desk {

/// Begins a build of its own with a crooked frame. `difficulty`: 1 to 3.
void practise(Desk&, int difficulty);
/// Plays the instruments of the practice frame that is open; nothing happens with another build.
void playPractice(Desk&);

} // namespace gorvet::desk
