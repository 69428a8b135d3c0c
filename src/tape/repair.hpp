#pragma once

#include "build/build.hpp"
#include "build/figure.hpp"

/// What was found at points and parts, judged; and whether to repair, renew a length, or look for another frame.
namespace gorvet::tape {

using build::FlawKind;
using build::PlanVerdict;

struct FoundFlaw {
    std::string where; ///< name of the point or part
    FlawKind kind = FlawKind::Rust;
    std::optional<double> amount_mm;  ///< least thickness, length of a crack, play
    std::optional<double> nominal_mm; ///< thickness when new
    double layers = 0;
    std::optional<double> station_mm; ///< of the point; none when it has no place
    build::Side side = build::Side::None;
    bool on_rail = false;
    bool of_body = false;   ///< not of the frame: counted for itself
    bool elsewhere = false; ///< on another thing than frame and body: judged, and counted nowhere
    bool is_part = false;   ///< `where` is a part, not a point
    std::string direction;
    bool operator==(const FoundFlaw&) const = default;
};

struct JudgedFlaw {
    PlanVerdict verdict = PlanVerdict::Marginal;
    std::string figure; ///< "1.9 of 4.0 mm left"
    std::string need;   ///< "3.0 mm at least"
    std::string sentence;
    std::string remedy;
    bool steel = false; ///< it takes steel out of the frame: rust, thin, crack, earlier repair
};

/// Share of the thickness that may be gone: up to `sound` it holds, above `gone` it fails. Workshop practice, not a rule of law.
inline constexpr double sound_loss = 0.10;
inline constexpr double gone_loss = 0.25;
/// Play that is let pass, and that fails, mm.
inline constexpr double little_play_mm = 0.3;
inline constexpr double much_play_mm = 1.0;

JudgedFlaw judgeFlaw(const FoundFlaw&);

/// One way out.
struct Way {
    const char* key = "";  ///< "repair", "part-replace", "other-frame"
    const char* name = ""; ///< as shown
    bool possible = true;
    std::string why; ///< one sentence: what it takes, or why it can't be
    double hours = 0;
    std::optional<double> cost; ///< none while a price is missing
    std::string missing;        ///< which
};

struct RepairView {
    std::vector<JudgedFlaw> flaws; ///< as given
    std::vector<Way> ways;         ///< empty when nothing was found that takes work
    int advised = -1;              ///< of the ways
    std::string sentence;          ///< the view of the frame, with its reason, and what the body takes for itself
    int body_places = 0;           ///< of the body, that take more than cleaning
    double body_hours = 0;
};

/// Steel flaws that fail or are doubtful on one side of a frame within this length are renewed together.
inline constexpr double renewed_length_mm = 600;

/// The frame's ways; what the body takes is counted for itself and says nothing of the frame. A rail that is rusted through or
/// too thin is no patch: a length of it is let in. Hours by the rates; cost where prices are known. `heat_treated`: no welding,
/// another frame. `crooked`: faults of the frame that are proven to fail; they are named, and cost extra that no rate covers.
RepairView repairView(const std::vector<FoundFlaw>&, const build::Rates&, bool heat_treated, int crooked);

} // namespace gorvet::tape
