#pragma once

#include "build/edit.hpp"
#include "shape/transform.hpp"

/// The changes that keep a scan and stand it elsewhere.
namespace gorvet::analysis {

/// The change that keeps a scan: `file` and `hash` of its blob. The subject's own scan unless another part is said.
build::Edit keepScan(const build::Build&, const std::string& name, build::SubjectId, build::ScanPart, build::ScanUnit,
                     const std::string& hash, const std::string& file);
/// The change that stands a scan elsewhere on its subject's axes.
build::Edit standScan(const build::Build&, build::ScanId, const geometry::RigidTransform&, const std::string& how);
/// A name for a scan of that file that is not taken yet.
std::string scanNameFor(const build::Build&, const std::string& file);

} // namespace gorvet::analysis
