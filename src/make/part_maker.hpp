#pragma once

#include "make/part.hpp"

#include <cmath>
#include <string_view>

/// What the rules of all kinds of parts share. Internal to this room.
namespace gorvet::make {

/// Fillets: allowable 0.30 of an electrode of 70 ksi on the throat, 0.40 of the yield on the leg; margin to yield.
/// engineering.md, Stretch.
inline constexpr double weld_mpa = 0.30 * 482, base_share = 0.40, yield_margin = 1.5, throat_share = 0.707;
/// The largest leg of a fillet that is put on by default, mm.
inline constexpr double most_leg_mm = 6;
/// Bolts of class 8.8 over their shank, pulled and sheared. engineering.md, Stretch.
inline constexpr double bolt_pull_mpa = 0.33 * 800, bolt_shear_mpa = 0.17 * 800;
/// The most that a saw is turned off square.
inline constexpr double most_saw_rad = 1.0471976;

class PartMaker {
public:
    explicit PartMaker(const PartIn& in) : in_(in) {
        p_.name = in.name;
        p_.kind = in.kind;
    }

protected:
    double f(const char* word) const { return in_.figures.at(word).value; }
    bool has(const char* word) const { return in_.figures.contains(word); }
    double or_(const char* word, double other) const { return has(word) ? f(word) : other; }
    const Vec3& at(std::size_t k) const { return in_.places.at[in_.at[k]]; }
    Figure between(std::size_t a, std::size_t b) const {
        const std::size_t i = in_.at[a], j = in_.at[b];
        return build::figureOf(in_.places, {i, j}, [i, j](const std::vector<Vec3>& p) { return geometry::between(p[i], p[j]); });
    }
    build::Remark& add(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    void fact(std::string what, const Figure& length) { p_.facts.push_back({std::move(what), length, ""}); }
    void fact(std::string what, double length) { fact(std::move(what), Figure{length, 0, build::Provenance::Derived}); }
    void fact(std::string what, std::string words) { p_.facts.push_back({std::move(what), std::nullopt, std::move(words)}); }
    void skip(std::string what) { p_.not_looked_at.push_back(std::move(what)); }

    /// The face that a place lies on: of a rail, its side, top or bottom; its normal to the side of `towards`.
    struct Face {
        Vec3 normal;
        bool of_rail = false;
    };
    Face faceAt(const Vec3& place, const Vec3& towards) const;

    /// A stress against what the steel, or a weld, bears. Says so where it is too much or the limit is a guess.
    void bears(const char* code, double mpa, double most_mpa, const std::string& where, const std::string& remedy);
    /// A load on fillets: on their throats, and on the steel beside them.
    void weldBears(double n_per_mm_leg, double leg_mm, const std::string& where);
    /// What of a closed rail is under something that is welded on at a place; none, and it is said, where nothing can be said.
    struct Wall {
        const build::RailLine* rail = nullptr;
        Vec3 run;           ///< along it
        double face_mm = 0; ///< of the face that it stands on
        double deep_mm = 0; ///< behind it
        double off_mm = 0;  ///< of the place from the face's middle
    };
    std::optional<Wall> wallUnder(const Vec3& place, const Vec3& normal, const std::string& name);
    /// The rail's wall under a hollow foot: pushed along what stands there, bent about the rail. Says what is not looked at where
    /// no closed rail is there or the standard says nothing of it. `across`: the foot's size square to the rail.
    struct Foot {
        Vec3 place, normal; ///< on the rail's face, and out of it
        Vec3 along;         ///< of what stands there
        double across_mm = 0, along_mm = 0;
        bool round = false;
        std::string name;   ///< "its foot"
        double wall_mm = 0; ///< of what stands there; 0: not said
    };
    void wallBears(const Foot&, double pushed_N, double bent_Nmm);
    /// The same under one plate on edge or two: pulled off it, bent in their plane, bent over. `edge`: along their feet.
    struct PlateFeet {
        Vec3 place, normal, edge;
        double long_mm = 0, thick_mm = 0;
        int count = 1;
        double apart_mm = 0;
        std::string name;
    };
    /// What one force does to it in each of its directions; none where it can't act so.
    struct PlateLoad {
        double pulled_N = 0, bent_Nmm = 0, over_Nmm = 0;
    };
    void wallBears(const PlateFeet&, const PlateLoad&);
    /// So much of what the wall bears, to its margin, is taken up under it.
    void wallTakes(double share, const Wall&, const Vec3& place, const std::string& name);
    /// Rankine: what crushes a strut of that area and what buckles it over a length hinged at both ends, together.
    void struts(double load_N, double area_mm2, double least_mm4, double hinged_mm, const std::string& remedy);
    /// The rail that a place lies in, or within so much of; nullptr: none.
    const build::RailLine* inRail(const Vec3&, double beside_mm = 2) const;
    /// A bolt through a sheet whose face is there, its head to the side of `out`: through what is behind it too.
    void bolt(const Vec3& face, const Vec3& out, double sheet_mm, double hole_mm);
    bool loaded() const { return has("load"); }
    /// Nobody measured a load that was said, or what makes one.
    bool loadGuessed() const {
        const bool turned = has("torque");
        for (const char* word : {"load", "torque", "spread"})
            if (has(word) && (turned || std::string_view(word) == "load") &&
                in_.figures.at(word).provenance == build::Provenance::Assumed)
                return true;
        return false;
    }
    bool guessed_ = false; ///< a load or a yield is

    /// Its bends in the order in which they are made, and what stands in their way.
    void pressed(FlatPiece&);
    /// Masses of all, what is assumed, the verdict.
    PartPlan done();

    const PartIn& in_;
    PartPlan p_;
};

PartPlan bracePlan(const PartIn&);
PartPlan copedTubePlan(const PartIn&);
PartPlan outriggerPlan(const PartIn&);
PartPlan gussetPlan(const PartIn&);
PartPlan earsPlan(const PartIn&);
PartPlan drilledPlatePlan(const PartIn&);
PartPlan bentTubePlan(const PartIn&);
PartPlan cageTubePlan(const PartIn&);
PartPlan angleBracketPlan(const PartIn&);
PartPlan standoffPlan(const PartIn&);
PartPlan tabPlan(const PartIn&);
PartPlan uBoltPlatePlan(const PartIn&);
PartPlan xMemberPlan(const PartIn&);
PartPlan kBracePlan(const PartIn&);
PartPlan liftingBeamPlan(const PartIn&);
PartPlan skatePlan(const PartIn&);
PartPlan boughtMountPlan(const PartIn&);
PartPlan perchPlan(const PartIn&);
PartPlan axlePerchPlan(const PartIn&);
PartPlan shimStackPlan(const PartIn&);
PartPlan tankPlan(const PartIn&);
PartPlan tankPipePlan(const PartIn&);
PartPlan seatBarPlan(const PartIn&);
PartPlan beltPlatePlan(const PartIn&);

} // namespace gorvet::make
