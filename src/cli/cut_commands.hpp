#pragma once

#include "cli/clearance_commands.hpp"

#include <vector>

/// `gorvet-cli cutmap` of two files, and the commands on scans that a build keeps.
namespace gorvet::cli {

struct CutRequest {
    ClearanceRequest clearance;
    double margin_mm = 10;
    double flange_mm = 0;
    double thickness_mm = 0.9;
    double fineness_mm = 8;
    std::vector<std::string> zones; ///< "never|brace|named:NAME:x,y,z:x,y,z", on BODY's own axes
    std::string out;                ///< a folder: each cut as DXF, 1:1 where it is flat, and its places as CSV
};
/// What to cut from BODY as JSON; returns the exit code, 1 when a cut is not allowed.
int cutMapOf(const CutRequest&);

/// Keeps a scan's file in a build.
int scanKeep(const std::string& build, const std::string& file, const std::string& unit, const std::string& subject,
             const std::string& part, const std::string& name);
/// The build's scans on each other as they sit: clearance, contacts and cut map; with a folder the cuts as files.
int overlayOfBuild(const std::string& build, const std::string& out, bool keep, const std::string& seating, bool for_way);

} // namespace gorvet::cli
