#pragma once

#include "work/work.hpp"

/// The moves of body and frame as steps. Internal to this room.
namespace gorvet::work {

/// The move from one stance to another that differs in one thing; it is counted.
Step moveTo(const Stance& from, const Stance& to, MovesDone&);
/// The move that such a code names, made from there; nothing where it is no move's.
std::optional<Step> moveOfCode(const std::string& code, const Stance& from, MovesDone&);

} // namespace gorvet::work
