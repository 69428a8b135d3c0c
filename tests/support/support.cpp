#include "support/support.hpp"

#include "tape/equations.hpp"

#include <array>
#include <cstdio>
#include <fstream>
#include <sstream>

#include <sys/wait.h>
#include <unistd.h>

namespace gorvet::test {

std::filesystem::path freshFolder(const std::string& name) {
    // tests run side by side: each process has its own
    const std::filesystem::path folder = std::filesystem::path(GORVET_TEST_DIR) / (name + "-" + std::to_string(getpid()));
    std::filesystem::remove_all(folder);
    std::filesystem::create_directories(folder);
    return folder;
}

QuickFolder::QuickFolder(const std::string& name) {
    const std::filesystem::path memory = "/dev/shm";
    path = access(memory.c_str(), W_OK) == 0 ? memory / ("gorvet-" + name + "-" + std::to_string(getpid())) : freshFolder(name);
    std::filesystem::remove_all(path);
    std::filesystem::create_directories(path);
}

QuickFolder::~QuickFolder() {
    std::error_code code;
    std::filesystem::remove_all(path, code);
}

Ran run(const std::string& command) {
    Ran ran;
    FILE* pipe = popen((command + " 2>&1").c_str(), "r");
    if (!pipe) return ran;
    std::array<char, 4096> buffer{};
    while (const size_t n = fread(buffer.data(), 1, buffer.size(), pipe)) ran.out.append(buffer.data(), n);
    const int status = pclose(pipe);
    ran.code = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
    return ran;
}

namespace {
/// Whether it was made after the program and the scripts that make it.
bool upToDate(const std::filesystem::path& made) {
    std::error_code none;
    const auto when = std::filesystem::last_write_time(made, none);
    if (none || when <= std::filesystem::last_write_time(GORVET_CLI)) return false;
    for (const auto& source : std::filesystem::recursive_directory_iterator(GORVET_SOURCE_DIR "/demo"))
        if (when <= source.last_write_time()) return false;
    return true;
}
} // namespace

std::filesystem::path demoBuild(const std::filesystem::path& folder, const std::string& script) {
    const std::string name = script.substr(0, script.find(' ')), options = script.substr(name.size()); // "petrel_on_tern --plain"
    const std::filesystem::path kept = std::filesystem::path(GORVET_TEST_DIR) / "demos" / (name + options + ".gorvet");
    if (!upToDate(kept)) {
        const auto fresh = freshFolder("demos-" + std::to_string(getpid())) / (name + ".gorvet"); // another may be at it, too
        const Ran made = run("/usr/bin/python3 " GORVET_SOURCE_DIR "/demo/" + name + ".py" + options + " --cli " + GORVET_CLI +
                             " --out " + fresh.string());
        if (made.code != 0) throw std::runtime_error("the demo script failed: " + made.out);
        std::filesystem::create_directories(kept.parent_path());
        std::filesystem::rename(fresh, kept);
    }
    const auto path = folder / (name + ".gorvet");
    std::filesystem::copy_file(kept, path, std::filesystem::copy_options::overwrite_existing);
    return path;
}

std::string fileText(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    std::ostringstream text;
    text << in.rdbuf();
    return text.str();
}

std::vector<double> stepVolumes(const std::filesystem::path& path) {
    const std::filesystem::path script = path.string() + ".geo";
    std::ofstream(script) << "SetFactory(\"OpenCASCADE\");\nGeometry.OCCTargetUnit = \"MM\";\nv() = ShapeFromFile(\""
                          << path.string()
                          << "\");\nFor i In {0:#v()-1}\n  m() = Mass Volume{v(i)};\n  Printf(\"solid %.9g\", m(0));\nEndFor\n";
    const Ran ran = run("gmsh " + script.string() + " -parse_and_exit");
    std::vector<double> volumes;
    std::istringstream lines(ran.out);
    for (std::string line; std::getline(lines, line);)
        if (line.rfind("solid ", 0) == 0) volumes.push_back(std::stod(line.substr(6)));
    return volumes;
}

double normal(std::mt19937& rng, double sigma) {
    // Box–Muller on raw bits: the standard distributions differ between libraries
    const double u = (static_cast<double>(rng()) + 1) / 4294967297.0;
    const double v = static_cast<double>(rng()) / 4294967296.0;
    return sigma * std::sqrt(-2 * std::log(u)) * std::cos(2 * units::pi * v);
}

int SurveyMaker::point(const std::string& name, double x, double y, double z) {
    survey.points.push_back({name, build::Vec3{x, y, z}});
    truth.push_back({x, y, z});
    return static_cast<int>(survey.points.size()) - 1;
}

void SurveyMaker::hold(int p, tape::Axis axis, double value_mm) { survey.holds.push_back({p, axis, value_mm}); }

void SurveyMaker::read(tape::ReadingKind kind, int from, int to, double error, double sigma) {
    const bool has_to = to >= 0;
    const auto a = truth[static_cast<size_t>(from)];
    const auto b = has_to ? truth[static_cast<size_t>(to)] : build::Vec3{};
    const double value = tape::predict(kind, a, b, has_to, has_to ? tape::senseOf(kind, a, b) : 1.0).value;
    survey.readings.push_back({static_cast<int>(survey.readings.size()) + 1, kind, from, to, value + error, sigma});
}

SurveyMaker frameSurvey(int pairs, std::mt19937& rng, double rough_error_mm) {
    SurveyMaker m;
    for (int i = 0; i < pairs; ++i) {
        const double x = 600.0 * i;
        const double z = 480 + (i % 3) * 45.0;
        m.point(std::string(1, static_cast<char>('A' + i)) + "l", x, -400 - 10 * i, z);
        m.point(std::string(1, static_cast<char>('A' + i)) + "r", x + 2, 400 + 10 * i, z + 3);
    }
    const int last = 2 * (pairs - 1);
    m.hold(0, tape::Axis::X, m.truth[0].x_mm);
    m.hold(0, tape::Axis::Y, m.truth[0].y_mm);
    m.hold(0, tape::Axis::Z, m.truth[0].z_mm);
    m.hold(last, tape::Axis::Y, m.truth[static_cast<size_t>(last)].y_mm);
    m.hold(last, tape::Axis::Z, m.truth[static_cast<size_t>(last)].z_mm);
    m.hold(1, tape::Axis::Z, m.truth[1].z_mm);
    for (auto& p : m.survey.points) {
        p.rough->x_mm += normal(rng, rough_error_mm);
        p.rough->y_mm += normal(rng, rough_error_mm);
        p.rough->z_mm += normal(rng, rough_error_mm / 3);
    }
    return m;
}

double trueReading(build::ReadingKind kind, const build::Vec3& from, const std::optional<build::Vec3>& to) {
    const build::Vec3 d = to ? build::Vec3{to->x_mm - from.x_mm, to->y_mm - from.y_mm, to->z_mm - from.z_mm} : from;
    switch (kind) {
    case build::ReadingKind::Height:
    case build::ReadingKind::Level: return d.z_mm;
    case build::ReadingKind::Offset: return d.y_mm;
    case build::ReadingKind::Station: return d.x_mm;
    case build::ReadingKind::Plan: return std::hypot(d.x_mm, d.y_mm);
    default: return std::hypot(d.x_mm, d.y_mm, d.z_mm);
    }
}

} // namespace gorvet::test
