#pragma once

#include "frame/structure.hpp"

#include <map>

/// A frame's lines as beams that meet. Internal to this room.
namespace gorvet::frame {

/// A beam's place on its line, and its section with what its stresses are read from.
struct Part {
    std::size_t line = 0;
    double from_mm = 0; ///< along it
    double to_mm = 0;
    std::size_t section = 0; ///< of Assembly::sections
};
/// A stop of a line: a node with its place beside it.
struct Stop {
    double along_mm = 0;
    Vec3 at;
    std::size_t node = 0;
    bool joint = false; ///< another line is joined there
};

struct Assembly {
    Model model;
    std::vector<Part> parts; ///< one for each of the model's first beams
    std::vector<std::shared_ptr<const Worth>> sections;
    std::vector<std::vector<Stop>> stops; ///< of each line; empty: it is left out
    std::vector<std::string> loose;
    std::array<std::size_t, wheels> seats{}; ///< nodes
    bool open = false;
    std::vector<std::size_t> body; ///< beams of body and mounts, after the parts
};
/// `held`: no joint warps and no bolt turns. `body`: with the body, where its stiffness is said.
Result<Assembly> assemble(const Structure&, SectionBook&, bool held, bool body);

} // namespace gorvet::frame
