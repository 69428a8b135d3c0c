#include "analysis/scan_edits.hpp"

#include <algorithm>
#include <cctype>
#include <filesystem>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using geometry::RigidTransform;

std::string scanNameFor(const Build& b, const std::string& file) {
    std::string base;
    for (const char c : std::filesystem::path(file).stem().string())
        base +=
            std::isalnum(static_cast<unsigned char>(c)) ? static_cast<char>(std::tolower(static_cast<unsigned char>(c))) : '-';
    while (!base.empty() && base.front() == '-') base.erase(0, 1);
    if (base.empty()) base = "scan";
    base = base.substr(0, 24);
    const auto taken = [&](const std::string& name) {
        return std::any_of(b.scans.begin(), b.scans.end(), [&](const auto& row) { return row.second.name == name; });
    };
    std::string name = base;
    for (int i = 2; taken(name); ++i) name = fmt::format("{}-{}", base, i);
    return name;
}

Edit keepScan(const Build& b, const std::string& name, SubjectId subject, ScanPart part, ScanUnit unit, const std::string& hash,
              const std::string& file) {
    Scan s;
    s.id = ScanId{b.next_id};
    s.subject = subject;
    s.part = part;
    s.name = name;
    s.blob = hash;
    s.file = file;
    s.unit = unit;
    return {fmt::format("scan {} of the {}", name, build::word(part)), {Put<Scan>{s}}};
}

Edit standScan(const Build& b, ScanId id, const RigidTransform& m, const std::string& how) {
    Scan s = b.scans.at(id);
    const auto a = geometry::yawPitchRoll(m);
    s.shift = {m.translation[0], m.translation[1], m.translation[2]};
    s.yaw_rad = a[0];
    s.pitch_rad = a[1];
    s.roll_rad = a[2];
    s.note = how;
    return {fmt::format("lay the scan {}: {}", s.name, how), {Put<Scan>{s}}};
}

} // namespace gorvet::analysis
