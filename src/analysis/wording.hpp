#pragma once

#include <cctype>
#include <string>

/// Small turns of wording that sentences share. Internal to this room.
namespace gorvet::analysis {

/// With its first letter large; letters beyond ASCII stay as they are.
inline std::string capital(std::string text) {
    if (!text.empty()) text.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(text.front())));
    return text;
}

} // namespace gorvet::analysis
