#pragma once

#include "build/build.hpp"
#include "tape/survey.hpp"

#include <filesystem>
#include <optional>
#include <random>
#include <string>

namespace gorvet::test {

/// A fresh, empty folder for one test.
std::filesystem::path freshFolder(const std::string& name);
/// A fresh folder in memory where the system has one, for tests of thousands of small writes; removed at the end.
struct QuickFolder {
    std::filesystem::path path;
    explicit QuickFolder(const std::string& name);
    ~QuickFolder();
    QuickFolder(const QuickFolder&) = delete;
    QuickFolder& operator=(const QuickFolder&) = delete;
};
/// Runs a command with a shell; returns its exit code and what it printed.
struct Ran {
    int code = -1;
    std::string out;
};
Ran run(const std::string& command);
/// A copy of the demo build, as the demo's script makes it (once for all tests); returns its path.
std::filesystem::path demoBuild(const std::filesystem::path& folder, const std::string& script = "petrel_on_tern");
std::string fileText(const std::filesystem::path&);
/// Volumes of the solids in a STEP file, mm³, as gmsh reads them.
std::vector<double> stepVolumes(const std::filesystem::path&);

/// A survey that grows by calls, for tests.
struct SurveyMaker {
    tape::Survey survey;
    int point(const std::string& name, double x, double y, double z);
    void hold(int point, tape::Axis, double value_mm);
    /// Adds the reading that the rough positions give, plus an error.
    void read(tape::ReadingKind, int from, int to = -1, double error = 0, double sigma = 1.0);
    /// Exactly true readings are taken from these positions, not the rough ones.
    std::vector<build::Vec3> truth;
};

/// A box-like frame of `pairs` pairs, datum held at the first and last left points, roughly known, truth in `truth`.
SurveyMaker frameSurvey(int pairs, std::mt19937& rng, double rough_error_mm = 30);
double normal(std::mt19937&, double sigma);
/// What a true instrument reads from one place, or between two: tape, plan, height, level, offset or station.
double trueReading(build::ReadingKind, const build::Vec3& from, const std::optional<build::Vec3>& to);

} // namespace gorvet::test
