// An outrigger: sides and bottom bent from one sheet, a top and an end plate welded on.
#include "make/part_maker.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;

namespace {

constexpr double quarter = std::numbers::pi / 2, drain_mm = 8, drain_in_mm = 35;

/// On axes of its own: x along the bottom, y across, z up from the bottom's lower side.
class OnAxes {
public:
    explicit OnAxes(const shape::Frame& frame) : frame_(frame), z_(cross(frame.x, frame.y)) {}
    Vec3 place(const Vec3& p) const { return direction(minus(p, frame_.origin)); }
    Vec3 direction(const Vec3& d) const { return {dot(d, frame_.x), dot(d, frame_.y), dot(d, z_)}; }

private:
    shape::Frame frame_;
    Vec3 z_;
};
/// A plane on those axes: where along x it is, over a place of the section.
struct Limit3 {
    Vec3 point, normal;
    double x(double y, double z) const { return (dot(normal, point) - normal.y_mm * y - normal.z_mm * z) / normal.x_mm; }
    /// The height at which it stands over (x, y).
    double z(double x, double y) const { return (dot(normal, point) - normal.x_mm * x - normal.y_mm * y) / normal.z_mm; }
};

class OutriggerMaker : PartMaker {
public:
    using PartMaker::PartMaker;

    PartPlan plan() {
        t_ = f("sheet");
        inside_ = f("inside");
        wide_ = f("wide");
        deep_ = f("deep");
        end_ = or_("deep-end", deep_);
        out_ = unit(minus(at(1), at(0)));
        p_.size_mm = between(0, 1);
        p_.size_of = "from the rail to its end";
        long_ = p_.size_mm.value;
        if (!possible()) return done();
        up_ = unit(minus({0, 0, 1}, times(out_, out_.z_mm)));
        across_ = cross(up_, out_);
        const Face face = faceAt(at(0), times(out_, -1));
        root_ = face.normal;
        if (!face.of_rail) skip("the face that it stands on: no rail is there, and it is cut square");
        if (const double slant = std::acos(std::clamp(-dot(root_, out_), 0.0, 1.0)); slant > most_saw_rad) {
            add("part-saw", PlanVerdict::Fails,
                fmt::format("It leaves the rail at {:.0f}° off square.", slant * 180 / std::numbers::pi),
                "Its end further across from where it begins.");
            return done();
        }
        trough();
        plates();
        seams();
        strength();
        return done();
    }

private:
    bool possible() {
        const auto refuse = [&](std::string sentence, std::string remedy) {
            add("part-outline", PlanVerdict::Fails, std::move(sentence), std::move(remedy));
            return false;
        };
        if (long_ < 2 * t_ + 20) return refuse("Its two places are one.", "From the rail's face to the sill.");
        if (std::abs(out_.z_mm) > 0.7)
            return refuse("It goes up or down rather than out.", "Its two places are on its top, from the rail outwards.");
        if (wide_ < 2 * (inside_ + t_) + 2 * t_)
            return refuse(fmt::format("A width of {:g} has no room for two bends of {:g} inside.", wide_, inside_),
                          "Wider, or bent tighter.");
        if (inside_ < least_bend_radii * t_)
            add("part-bend", PlanVerdict::Marginal, fmt::format("Bent over {:g} inside, a sheet of {:g} may crack.", inside_, t_),
                "A bar with a larger nose; the bend across the direction in which the sheet was rolled.")
                .of(fmt::format("{:g} mm", inside_), fmt::format("≥ {:g} mm", least_bend_radii * t_));
        if (const double flange = std::min(deep_, end_) - t_, least = inside_ + least_flange_thick * t_; flange < least) {
            add("part-flange", PlanVerdict::Fails,
                fmt::format("Its sides are {:.0f} mm high at the lowest: a press holds no less than {:.0f}.", flange, least),
                "Deeper, of thinner sheet, or welded of flat pieces.")
                .of(fmt::format("{:.0f} mm", flange), fmt::format("≥ {:.0f} mm", least));
            return false;
        }
        return true;
    }

    /// Where a cut edge, its places in order across, is met so far across.
    static geometry::Flat edgeAt(const std::vector<geometry::Flat>& edge, double y) {
        for (std::size_t k = 0; k + 1 < edge.size(); ++k) {
            const auto& [x0, y0] = edge[k];
            const auto& [x1, y1] = edge[k + 1];
            if (y0 <= y && y <= y1 && y1 > y0) return {x0 + (x1 - x0) * (y - y0) / (y1 - y0), y};
        }
        return {edge.front().first, y};
    }
    /// Sides and bottom, as they lie flat.
    void trough() {
        Trough t;
        const Vec3 low = minus(at(0), times(up_, deep_)), low_end = minus(at(1), times(up_, end_));
        t.place = {low, unit(minus(low_end, low)), across_};
        t.wide_mm = wide_;
        t.thickness_mm = t_;
        t.inside_mm = inside_;
        t.deep_mm = 1.5 * std::max(deep_, end_) + wide_;
        t.length_mm = geometry::between(low, low_end);
        t.planes = {{at(0), root_}, {minus(at(1), times(out_, t_)), out_}, {minus(at(0), times(up_, t_)), up_}};
        const OnAxes axes(t.place);
        const auto limit = [&](std::size_t k) {
            return Limit3{axes.place(t.planes[k].first), axes.direction(t.planes[k].second)};
        };
        const Limit3 root = limit(0), end = limit(1), top = limit(2);
        const double allowance = bendAllowance(quarter, inside_, t_), deducted = 2 * (inside_ + t_) - allowance;
        const double half = wide_ / 2, tangent = half - inside_ - t_, rises = inside_ + t_;
        // of a side, from where its bend ends to its upper edge, along one of its ends
        const auto highest = [&](const Limit3& of, double y) {
            double z = top.z(of.x(y, 0), y);
            for (int k = 0; k < 30; ++k) z = top.z(of.x(y, z), y); // both planes at once: the top hardly slopes
            return z;
        };
        const auto flat = [&](const Limit3& of, double side, double z) {
            return geometry::Flat{of.x(side * half, z), side * (half + z - deducted)};
        };
        FlatPiece piece;
        piece.name = "sides and bottom";
        piece.thickness_mm = t_;
        const auto along = [&](const Limit3& of) {
            return std::vector<geometry::Flat>{
                flat(of, -1, highest(of, -half)), flat(of, -1, rises), {of.x(-tangent, 0), -tangent},
                {of.x(tangent, 0), tangent},      flat(of, 1, rises),  flat(of, 1, highest(of, half))};
        };
        const auto far = along(end), near = along(root);
        piece.outline.assign(far.begin(), far.end());
        piece.outline.insert(piece.outline.end(), near.rbegin(), near.rend());
        const double bend = tangent + allowance / 2;
        for (const double side : {-1.0, 1.0})
            piece.bends.push_back({edgeAt(near, side * bend), edgeAt(far, side * bend), quarter, inside_, allowance});
        // water and wax run out where it is lowest
        const double at_x = low_end.z_mm < low.z_mm ? end.x(0, 0) - drain_in_mm : root.x(0, 0) + drain_in_mm;
        piece.holes.push_back({{at_x, 0}, drain_mm, "drain"});
        p_.flats.push_back(std::move(piece));
        p_.trough = std::move(t);
    }

    void plates() {
        const shape::Frame top{minus(at(0), times(up_, t_)), out_, across_};
        const OnAxes axes(top);
        const Limit3 root{axes.place(at(0)), axes.direction(root_)};
        FlatPiece cover;
        cover.name = "top";
        cover.thickness_mm = t_;
        const double half = wide_ / 2, until = long_ - t_;
        // cut square through: the edge that comes first touches the face, which may lean
        const auto from = [&](double y) { return std::max(root.x(y, 0), root.x(y, t_)); };
        cover.outline = {{from(-half), -half}, {until, -half}, {until, half}, {from(half), half}};
        cover.places = {top};
        p_.flats.push_back(std::move(cover));
        FlatPiece plate;
        plate.name = "end plate";
        plate.thickness_mm = t_;
        plate.outline = {{-half, 0}, {half, 0}, {half, end_}, {-half, end_}};
        plate.places = {{minus(minus(at(1), times(out_, t_)), times(up_, end_)), across_, up_}};
        p_.flats.push_back(std::move(plate));
    }

    void seams() {
        p_.seams.push_back({"all round on the rail", 2 * (deep_ + wide_), t_, t_, at(0), true});
        p_.seams.push_back({"its top along both sides", 2 * (long_ - t_), t_, t_, geometry::along(at(0), at(1), 0.5), false});
        p_.seams.push_back({"its end plate, all round", 2 * (end_ + wide_), t_, t_, at(1), false});
        add("part-closed", PlanVerdict::Marginal, "It closes up a hollow that nothing gets into any more.",
            "Blow it out and coat it inside before its end plate goes on; its drain stays open, and wax goes in by it.");
    }

    /// A beam that stands out from the rail.
    void strength() {
        if (!loaded()) {
            skip("the rail's own wall where it is welded on");
            return skip("what it carries: say the most that presses on its end, load 3000");
        }
        const double load = f("load"), arm = std::hypot(at(1).x_mm - at(0).x_mm, at(1).y_mm - at(0).y_mm), moment = load * arm;
        const double w = wide_, h = deep_, t = t_;
        const double modulus = (w * h * h * h - (w - 2 * t) * std::pow(h - 2 * t, 3)) / (6 * h);
        const double sheared = load / (2 * t * (h - 2 * t));
        bears("part-stress", std::sqrt(std::pow(moment / modulus, 2) + 3 * sheared * sheared), in_.yield_mpa / yield_margin,
              "At the rail it stands under", fmt::format("Deeper, wider or thicker: it is a beam of {:.0f} mm.", arm));
        // the weld as a line round the box
        const double line = w * h + h * h / 3;
        weldBears(std::hypot(moment / line, load / (2 * h)), t, "its weld on the rail");
        Foot foot{minus(at(0), times(up_, h / 2)), root_, out_, h, w, false, "its root", t};
        wallBears(foot, 0, moment);
    }

    double t_ = 0, inside_ = 0, wide_ = 0, deep_ = 0, end_ = 0, long_ = 0;
    Vec3 out_, up_, across_, root_;
};

} // namespace

PartPlan outriggerPlan(const PartIn& in) { return OutriggerMaker(in).plan(); }

} // namespace gorvet::make
