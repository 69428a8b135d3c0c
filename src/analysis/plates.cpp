// Flat pieces of all new steel laid into plates: what is asked, the sheet, pages, files, JSON.
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/parts.hpp"
#include "analysis/scans.hpp"
#include "make/crossmember.hpp"
#include "sheet/plan_words.hpp"
#include "sheet/write.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;
using make::PlatesInput;
using make::PlatesPlan;

namespace {

/// As it is usually done: between pieces for a torch or a thin disc, and to a plate's edge. Taken, not measured.
constexpr double usual_gap_mm = 5, usual_edge_mm = 10;

std::vector<PlatesInput> plateJobs(const Build& b, const Results& r) {
    std::vector<PlatesInput> all;
    for (const FlatNeed& need : flatNeeds(b, r)) {
        const double thick = need.flat.thickness_mm;
        auto job = std::find_if(all.begin(), all.end(), [&](const PlatesInput& in) { return samePlate(in.thickness_mm, thick); });
        if (job == all.end()) {
            PlatesInput in;
            in.thickness_mm = thick;
            in.gap_mm = usual_gap_mm;
            in.edge_mm = usual_edge_mm;
            for (const auto& [id, s] : b.stock)
                if (s.form == StockForm::Plate && samePlate(s.wall_mm, thick) && (s.any || s.count >= 1)) {
                    if (in.plates.empty()) in.thickness_mm = s.wall_mm; // as the steel is called, not the first piece
                    in.plates.push_back({s.name, std::max(s.length_mm, s.height_mm), std::min(s.length_mm, s.height_mm),
                                         s.any ? std::nullopt : std::optional(static_cast<int>(s.count)),
                                         s.any ? s.price : std::nullopt});
                }
            if (in.plates.empty()) continue;
            all.push_back(std::move(in));
            job = all.end() - 1;
        }
        job->pieces.push_back({need.name, need.flat.outline, need.flat.count});
    }
    return all;
}

bool platesPossible(const Build& b, const Results& r) { return !plateJobs(b, r).empty(); }
bool platesCurrent(const Build& b, const Results& r) { return r.scans->plates.madeFrom(plateJobs(b, r)); }
bool makePlates(const Build& b, Results& r, const ReadBlob&, const Progress& progress) {
    using Made = decltype(Scans::plates);
    Made made = Made::of(plateJobs(b, r), &r.scans->plates, [&](const std::vector<PlatesInput>& jobs) {
        std::optional<std::vector<PlatesPlan>> all(std::in_place);
        for (const PlatesInput& in : jobs) {
            if (!progress(static_cast<double>(all->size()) / static_cast<double>(jobs.size())))
                return std::optional<std::vector<PlatesPlan>>();
            all->push_back(make::layPlates(in));
        }
        return all;
    });
    if (!made.made()) return false;
    auto scans = std::make_shared<Scans>(*r.scans);
    scans->plates = std::move(made);
    r.scans = std::move(scans);
    return true;
}

/// Holes of a piece by its name, turned and shifted with it.
std::vector<make::FlatHole> laidHoles(const std::vector<FlatNeed>& needs, const PlatesInput& in, const make::LaidPiece& p) {
    std::vector<make::FlatHole> all;
    for (const FlatNeed& need : needs)
        if (need.name == in.pieces[p.piece].name && need.flat.outline == in.pieces[p.piece].outline)
            for (make::FlatHole h : need.flat.holes) {
                h.at = make::laid(p, h.at);
                all.push_back(h);
            }
    return all;
}
/// The same of its openings.
std::vector<geometry::Outline> laidWindows(const std::vector<FlatNeed>& needs, const PlatesInput& in, const make::LaidPiece& p) {
    std::vector<geometry::Outline> all;
    for (const FlatNeed& need : needs)
        if (need.name == in.pieces[p.piece].name && need.flat.outline == in.pieces[p.piece].outline)
            for (geometry::Outline window : need.flat.windows) {
                for (geometry::Flat& corner : window) corner = make::laid(p, corner);
                all.push_back(std::move(window));
            }
    return all;
}
std::pair<double, double> middleOf(const geometry::Outline& o) {
    double low[2] = {1e18, 1e18}, high[2] = {-1e18, -1e18};
    for (const auto& [x, y] : o) {
        low[0] = std::min(low[0], x);
        low[1] = std::min(low[1], y);
        high[0] = std::max(high[0], x);
        high[1] = std::max(high[1], y);
    }
    return {(low[0] + high[0]) / 2, (low[1] + high[1]) / 2};
}

class PlatesDraft {
public:
    PlatesDraft(Drawing& d, const Format& f, const Build& b, const Results& r)
        : d_(d), f_(f), step_(b.settings.length_step), needs_(flatNeeds(b, r)) {}

    /// `first` to `until` of all plates, thickness by thickness.
    double draw(const std::vector<LaidThickness>& all, std::size_t first = 0, std::size_t until = static_cast<std::size_t>(-1)) {
        double longest = 1;
        for (const LaidThickness& one : all)
            for (const make::PlateSize& p : one.input->plates) longest = std::max(longest, p.length_mm);
        scale_ = (d_.width - f_.px(words_px) - f_.px(10)) / longest;
        std::size_t n = 0;
        for (const LaidThickness& one : all) {
            const PlatesInput& in = *one.input;
            const std::size_t begins = n;
            n += std::max<std::size_t>(1, one.plan->layouts.size()); // what finds no plate at all is said, too
            if (n <= first || begins >= until) continue;
            y_ += f_.lead() + f_.px(6);
            d_.add(Text{{0, y_},
                        fmt::format("plate {}", make::trimmed(in.thickness_mm)),
                        f_.lead(),
                        Ink::Ink,
                        Anchor::Left,
                        Level::Base,
                        Face::Bold});
            SheetWords words(d_, f_, y_ + f_.px(6) + f_.small(), d_.width, "");
            words.lines(platesSearched(in, *one.plan));
            for (const std::size_t piece : one.plan->too_large)
                words.judged(Severity::Bad, fmt::format("No plate takes {}, or none is left.", in.pieces[piece].name));
            y_ = words.end() - f_.px(6);
            for (std::size_t k = 0; k < one.plan->layouts.size(); ++k)
                if (begins + k >= first && begins + k < until) plate(in, one.plan->layouts[k]);
        }
        return y_ + f_.px(8);
    }
    static std::size_t countOf(const std::vector<LaidThickness>& all) {
        std::size_t n = 0;
        for (const LaidThickness& one : all) n += std::max<std::size_t>(1, one.plan->layouts.size());
        return n;
    }
    static std::string platesSearched(const PlatesInput& in, const PlatesPlan& p) {
        const std::string looked =
            fmt::format("{} of laying were tried, turned by quarters; {:g} between pieces and {:g} to an edge, as usual.",
                        units::counted(static_cast<std::size_t>(p.tried), "a way"), in.gap_mm, in.edge_mm);
        if (p.cost <= p.least + 1e-9) return "None costs less: by area alone so many are needed. " + looked;
        return fmt::format("By area alone {:.0f} % less might do: not every way was looked at. {}", 100 * (1 - p.least / p.cost),
                           looked);
    }

private:
    static constexpr double words_px = 236;
    /// A, B, … Z, AA, …
    static std::string letterOf(std::size_t k) {
        std::string text(1, static_cast<char>('A' + k % 26));
        return k < 26 ? text : letterOf(k / 26 - 1) + text;
    }

    void plate(const PlatesInput& in, const make::PlateLayout& l) {
        const make::PlateSize& p = in.plates[l.plate];
        const std::string tag = "stock:" + p.name;
        const double left = f_.px(words_px), top = y_ + f_.px(4);
        const Projection to{scale_, {left, top + scale_ * p.width_mm}, true};
        const auto words = [&](int line, const std::string& text, Ink ink) {
            d_.add(Text{{0, top + f_.body() + f_.px(20 * line)},
                        text,
                        line ? f_.small() : f_.body(),
                        ink,
                        Anchor::Left,
                        Level::Base,
                        line ? Face::Sans : Face::Bold},
                   tag);
        };
        words(0, p.name, Ink::Ink);
        words(1, fmt::format("{} × {}", units::formatLength(p.length_mm, step_), units::formatLength(p.width_mm, step_)),
              Ink::Ink);
        words(2, p.count ? "from the shelf" : "bought", Ink::Second);
        words(3, fmt::format("{:.0f} % becomes pieces", 100 * l.share), Ink::Second);
        d_.add(Stroke{{to(0, 0), to(p.length_mm, 0), to(p.length_mm, p.width_mm), to(0, p.width_mm)},
                      true,
                      {Ink::Chassis, f_.medium(), Dash::Solid}},
               tag);
        std::vector<std::size_t> letters; // of the pieces in it, in their order
        for (const make::LaidPiece& one : l.pieces) {
            const geometry::Outline o = make::laid(in, one);
            Stroke s{{}, true, {Ink::NewSteel, f_.medium(), Dash::Solid}};
            for (const auto& [x, y] : o) s.path.push_back(to(x, y));
            d_.add(std::move(s), tag);
            for (const make::FlatHole& h : laidHoles(needs_, in, one))
                d_.add(Circle{to(h.at.first, h.at.second), scale_ * h.diameter_mm / 2, {Ink::NewSteel, f_.thin(), Dash::Solid}},
                       tag);
            for (const geometry::Outline& window : laidWindows(needs_, in, one)) {
                Stroke opening{{}, true, {Ink::NewSteel, f_.thin(), Dash::Solid}};
                for (const auto& [x, y] : window) opening.path.push_back(to(x, y));
                d_.add(std::move(opening), tag);
            }
            const auto known = std::find(letters.begin(), letters.end(), one.piece);
            const auto letter = static_cast<std::size_t>(known - letters.begin());
            if (known == letters.end()) {
                words(4 + static_cast<int>(letter), letterOf(letter) + "  " + in.pieces[one.piece].name, Ink::Ink);
                letters.push_back(one.piece);
            }
            const auto [x, y] = middleOf(o);
            d_.add(Text{to(x, y), letterOf(letter), f_.body(), Ink::Ink, Anchor::Centre, Level::Middle, Face::Bold}, tag);
        }
        if (l.rest_mm > 0) {
            const double from = p.length_mm - l.rest_mm;
            d_.add(Hatch{{to(from, 0), to(p.length_mm, 0), to(p.length_mm, p.width_mm), to(from, p.width_mm)},
                         {Ink::Faint, f_.thin(), Dash::Solid},
                         f_.px(7),
                         false},
                   tag);
            d_.add(Text{to(from + l.rest_mm / 2, p.width_mm / 2),
                        fmt::format("{} stays whole", units::formatLength(l.rest_mm, step_)), f_.small(), Ink::Second,
                        Anchor::Centre, Level::Middle, Face::Sans, Mark::Derived, 0, true},
                   tag);
        }
        y_ = std::max(top + scale_ * p.width_mm, top + f_.px(82 + 20 * static_cast<double>(letters.size()))) + f_.px(16);
    }

    Drawing& d_;
    const Format& f_;
    units::LengthStep step_;
    std::vector<FlatNeed> needs_;
    double scale_ = 1, y_ = 0;
};

} // namespace

SlowNode platesNode() {
    return {slow::plates, "how flat pieces are laid into plates", {}, platesPossible, platesCurrent, makePlates, true, false};
}

bool samePlate(double mm, double other_mm) { return std::abs(mm - other_mm) < 0.3; }

std::vector<LaidThickness> laidPlates(const Build& b, const Results& r) {
    std::vector<LaidThickness> all;
    if (platesKnown(b, r))
        for (std::size_t k = 0; k < r.scans->plates->size(); ++k)
            all.push_back({&r.scans->plates.input()[k], &(*r.scans->plates)[k]});
    return all;
}

bool platesKnown(const Build& b, const Results& r) { return platesPossible(b, r) && platesCurrent(b, r); }

Drawing platesDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                      const Format& f) {
    Drawing d{width, height, {}, {}};
    d.height = std::max(height, PlatesDraft(d, f, b, r).draw(laidPlates(b, r)));
    return d;
}

Headline platesHeadline(const Build& b, const Results& r, SubjectId) {
    const auto jobs = plateJobs(b, r);
    if (jobs.empty())
        return {
            "No plate can be had yet.",
            flatNeeds(b, r).empty()
                ? "Nothing flat is cut yet."
                : "Say which plates can be had, and pieces are laid into them: stock mill-p4 plate 1000 4 long 2000 any price 96."};
    if (!platesKnown(b, r)) return {"The pieces are being laid into plates.", "Several ways of it are tried."};
    std::size_t plates = 0, left_out = 0, bought = 0;
    for (std::size_t k = 0; k < jobs.size(); ++k) {
        const PlatesPlan& p = (*r.scans->plates)[k];
        plates += p.layouts.size();
        left_out += p.too_large.size();
        for (const make::PlateLayout& l : p.layouts) bought += !jobs[k].plates[l.plate].count;
    }
    Headline h;
    h.sentence = left_out ? fmt::format("{} on no plate.",
                                        left_out == 1 ? "One piece finds room" : fmt::format("{} pieces find room", left_out))
                          : fmt::format("{}, {} of them to buy.", units::counted(plates, "a plate"), bought);
    std::vector<std::string> missing;
    for (const FlatNeed& need : flatNeeds(b, r)) {
        const std::string thick = make::trimmed(need.flat.thickness_mm);
        const bool there = std::any_of(jobs.begin(), jobs.end(),
                                       [&](const PlatesInput& in) { return samePlate(in.thickness_mm, need.flat.thickness_mm); });
        if (!there && std::find(missing.begin(), missing.end(), thick) == missing.end()) missing.push_back(thick);
    }
    h.below = missing.empty() ? "Every flat piece of the plan is in it."
                              : fmt::format("Of {} mm no plate is said: pieces of that stand on the cut list only.",
                                            fmt::join(missing, ", "));
    return h;
}

std::vector<Drawing> platePages(const Build& b, const Results& r) {
    const auto laid = laidPlates(b, r);
    return longPages(titled(b, r, "Make: how plates are cut"), {local_rules}, PlatesDraft::countOf(laid),
                     [&](std::size_t first, std::size_t until, double width, double height, const Format& f) {
                         Drawing d{width, height, {}, {}};
                         d.height = std::max(height, PlatesDraft(d, f, b, r).draw(laid, first, until));
                         return d;
                     });
}

void keepPlateFiles(const Build& b, const Results& r, FileKeeper& out) {
    if (!platesKnown(b, r)) return;
    const auto needs = flatNeeds(b, r);
    const auto& jobs = r.scans->plates.input();
    for (std::size_t k = 0; k < jobs.size(); ++k)
        for (std::size_t n = 0; n < (*r.scans->plates)[k].layouts.size(); ++n) {
            const make::PlateLayout& l = (*r.scans->plates)[k].layouts[n];
            out.keep(fmt::format("plate-{:g}-{}.dxf", jobs[k].thickness_mm, n + 1), [&](const auto& to) {
                // y up on the machine's table: the sheet's grows down
                Drawing d{jobs[k].plates[l.plate].length_mm, jobs[k].plates[l.plate].width_mm, {}, {}};
                const Projection at{1, {0, d.height}, true};
                for (const make::LaidPiece& one : l.pieces) {
                    Stroke s{{}, true, {Ink::NewSteel, 0.35, Dash::Solid}};
                    for (const auto& [x, y] : make::laid(jobs[k], one)) s.path.push_back(at(x, y));
                    d.add(std::move(s));
                    for (const make::FlatHole& h : laidHoles(needs, jobs[k], one))
                        d.add(Circle{at(h.at.first, h.at.second), h.diameter_mm / 2, {Ink::NewSteel, 0.35, Dash::Solid}});
                    for (const geometry::Outline& window : laidWindows(needs, jobs[k], one)) {
                        Stroke opening{{}, true, {Ink::NewSteel, 0.35, Dash::Solid}};
                        for (const auto& [x, y] : window) opening.path.push_back(at(x, y));
                        d.add(std::move(opening));
                    }
                }
                return writeDxf(d, to);
            });
        }
}

std::string makePlatesJson(const Build& b, const Results& r) {
    Json j = {{"thicknesses", Json::array()}};
    if (!platesKnown(b, r)) return text(j);
    const auto& jobs = r.scans->plates.input();
    for (std::size_t k = 0; k < jobs.size(); ++k) {
        const PlatesInput& in = jobs[k];
        const PlatesPlan& p = (*r.scans->plates)[k];
        Json one = {{"thickness_mm", number(in.thickness_mm)},
                    {"gap_mm", number(in.gap_mm)},
                    {"edge_mm", number(in.edge_mm)},
                    {"gap_and_edge", "assumed"},
                    {"cost", number(p.cost)},
                    {"least_cost", number(p.least)},
                    {"ways_tried", p.tried},
                    {"plates", Json::array()},
                    {"too_large", Json::array()}};
        for (const make::PlateLayout& l : p.layouts) {
            const make::PlateSize& plate = in.plates[l.plate];
            Json of = {{"from", plate.name},
                       {"length_mm", number(plate.length_mm)},
                       {"width_mm", number(plate.width_mm)},
                       {"on_shelf", plate.count.has_value()},
                       {"share", number(l.share)},
                       {"rest_mm", number(l.rest_mm)},
                       {"pieces", Json::array()}};
            for (const make::LaidPiece& piece : l.pieces)
                of["pieces"].push_back({{"piece", in.pieces[piece.piece].name},
                                        {"turned_deg", 90 * piece.quarters},
                                        {"x_mm", number(piece.at.first)},
                                        {"y_mm", number(piece.at.second)}});
            one["plates"].push_back(std::move(of));
        }
        for (const std::size_t piece : p.too_large) one["too_large"].push_back(in.pieces[piece].name);
        j["thicknesses"].push_back(std::move(one));
    }
    return text(j);
}

} // namespace gorvet::analysis
