// Solids by way of the library that makes them, opened with the first.
#include "files/out_file.hpp"
#include "shape/solid_kernel.hpp"

#include <dlfcn.h>
#include <sys/stat.h>

namespace gorvet::shape {
namespace {

Error unopened(const std::string& subject, const std::string& why, const std::string& remedy) {
    return {Error::Code::File, subject, "What makes solids of steel can't be opened: " + why + ".", remedy, -1};
}

constexpr const char* this_program = "/proc/self/exe";

/// Whether it belongs to root or to whoever owns the program: what others put beside a copy in a folder that all may write to is
/// not run.
bool trusted(const std::filesystem::path& library) {
    struct stat its {};
    struct stat program {};
    return stat(library.c_str(), &its) == 0 &&
           (its.st_uid == 0 || (stat(this_program, &program) == 0 && its.st_uid == program.st_uid));
}

const Result<const SolidKernel*>& kernel() {
    static const Result<const SolidKernel*> opened = [] {
        std::error_code unread;
        const std::filesystem::path program = std::filesystem::read_symlink(this_program, unread);
        return openSolidKernel(unread ? std::vector<std::filesystem::path>{} : solidKernelPlaces(program));
    }();
    return opened;
}

/// Made by the library's function; fails when it can't be opened, too.
template <auto What, class... Arguments> auto made(const Arguments&... arguments) {
    using Made = decltype(((*kernel())->*What)(arguments...));
    return kernel() ? ((*kernel())->*What)(arguments...) : Made(kernel().error());
}

/// Told by the library of a solid that there is: it is open.
template <auto What, class... Arguments> auto told(const Arguments&... arguments) { return ((*kernel())->*What)(arguments...); }

} // namespace

std::vector<std::filesystem::path> solidKernelPlaces(const std::filesystem::path& program) {
    std::vector<std::filesystem::path> places;
    std::filesystem::path folder = program.parent_path();
    for (int up = 0; up < 3; ++up, folder = folder.parent_path())
        places.push_back(folder / "lib/gorvet/modules/libgorvet_solids.so");
    return places;
}

Result<const SolidKernel*> openSolidKernel(const std::vector<std::filesystem::path>& places) {
    const std::string again = "Close Gorvet and start it again; if it says so again, install it anew.";
    for (const std::filesystem::path& place : places) {
        std::error_code unread;
        if (!std::filesystem::exists(place, unread)) continue;
        if (!trusted(place))
            return unopened(place.string(), place.string() + " belongs neither to root nor to who owns the program", again);
        void* library = dlopen(place.c_str(), RTLD_NOW | RTLD_LOCAL); // stays open: solids are of its making
        if (!library) return unopened(place.string(), dlerror(), again);
        const auto* table = static_cast<const SolidKernel*>(dlsym(library, solid_kernel_symbol));
        if (!table || std::string(table->stamp) != GORVET_SOLID_STAMP)
            return unopened(place.string(), place.string() + " is of another version of Gorvet", again);
        return table;
    }
    return unopened("libgorvet_solids.so", places.empty() ? "nobody said where it is" : "there is no " + places.front().string(),
                    again);
}

Result<Solid> tube(const Section& s, double length_mm) { return made<&SolidKernel::tube>(s, length_mm); }

Result<Solid> bentTube(const Section& s, double before_mm, double radius_mm, double angle_rad, double after_mm) {
    return made<&SolidKernel::bentTube>(s, before_mm, radius_mm, angle_rad, after_mm);
}

Result<Solid> plate(double width_mm, double height_mm, double thickness_mm, const std::vector<RoundHole>& holes) {
    return made<&SolidKernel::plate>(width_mm, height_mm, thickness_mm, holes);
}

Result<Solid> prism(const std::vector<std::pair<double, double>>& outline, double thickness_mm) {
    return made<&SolidKernel::prism>(outline, thickness_mm);
}

Result<Solid> cylinder(double radius_mm, double length_mm) { return made<&SolidKernel::cylinder>(radius_mm, length_mm); }

Solid placed(const Solid& s, const Frame& f) { return told<&SolidKernel::placed>(s, f); }

Result<Solid> sawn(const Solid& s, const Vec3& point, const Vec3& normal) { return made<&SolidKernel::sawn>(s, point, normal); }

Result<Solid> coped(const Solid& branch, double main_outside_radius_mm, const Vec3& point, const Vec3& axis) {
    return made<&SolidKernel::coped>(branch, main_outside_radius_mm, point, axis);
}

Result<Solid> unite(const std::vector<Solid>& solids) { return made<&SolidKernel::unite>(solids); }

Result<Solid> cut(const Solid& from, const Solid& tool) { return made<&SolidKernel::cut>(from, tool); }

Result<double> sharedVolume(const Solid& a, const Solid& b) { return made<&SolidKernel::sharedVolume>(a, b); }

Result<double> leastDistance(const Solid& a, const Solid& b) { return made<&SolidKernel::leastDistance>(a, b); }

double volume(const Solid& s) { return told<&SolidKernel::volume>(s); }

Vec3 centreOfMass(const Solid& s) { return told<&SolidKernel::centreOfMass>(s); }

double surfaceArea(const Solid& s) { return told<&SolidKernel::surfaceArea>(s); }

double steelMass(const Solid& s) { return volume(s) * 7850e-9; }

geometry::Box3 bounds(const Solid& s) { return told<&SolidKernel::bounds>(s); }

bool isSound(const Solid& s) { return told<&SolidKernel::isSound>(s); }

Mesh mesh(const Solid& s, double chord_mm) { return told<&SolidKernel::mesh>(s, chord_mm); }

Result<void> writeStep(const std::vector<NamedSolid>& solids, const std::filesystem::path& to, const std::string& name) {
    if (solids.empty())
        return Error{Error::Code::BadInput, to.string(), "There is nothing to write: no solid is planned yet.", "", -1};
    return files::put(to, files::Kind::Step,
                      [&](const std::filesystem::path& path) { return made<&SolidKernel::writeStep>(solids, path, name); });
}

} // namespace gorvet::shape
