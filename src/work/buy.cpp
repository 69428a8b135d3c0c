#include "work/buy.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

#include <fmt/format.h>

namespace gorvet::work {

using build::Stock;
using build::StockForm;

namespace {

constexpr double same_mm = 0.6; // rolled tolerance, and how it is said
bool near(double a, double b) { return std::abs(a - b) <= same_mm; }
bool isLength(StockForm f) { return f != StockForm::Plate; }

/// A length on the shelf that pieces are laid into.
struct Bin {
    std::string name;
    double left_mm = 0; ///< of it nothing is taken for a piece's last kerf where it just ends
    bool begun = false;
};
struct Piece {
    std::size_t need = 0;
    double length_mm = 0;
};

/// Which bin each piece goes into, −1: bought; the longest pieces first.
class BuySearch {
public:
    BuySearch(std::vector<Piece> pieces, std::vector<Bin> bins, double kerf, int most)
        : pieces_(std::move(pieces)), bins_(std::move(bins)), kerf_(kerf), most_(most) {
        rest_.assign(pieces_.size() + 1, 0);
        for (std::size_t i = pieces_.size(); i-- > 0;) rest_[i] = rest_[i + 1] + pieces_[i].length_mm;
    }
    std::vector<int> best() {
        bestFit();
        at_.assign(pieces_.size(), -1);
        go(0, 0, 0);
        return best_;
    }
    bool exact() const { return looked_ < most_; }

private:
    /// A kerf is lost with each cut; the piece that ends where the length ends needs none.
    bool takes(const Bin& b, double length) const { return length <= b.left_mm + 1e-9; }
    double lost(const Bin& b, double length) const { return std::min(b.left_mm, length + kerf_); }

    void bestFit() {
        std::vector<Bin> bins = bins_;
        best_.assign(pieces_.size(), -1);
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            for (std::size_t k = 0; k < bins.size(); ++k)
                if (takes(bins[k], pieces_[i].length_mm) &&
                    (best_[i] < 0 || bins[k].left_mm < bins[static_cast<std::size_t>(best_[i])].left_mm))
                    best_[i] = static_cast<int>(k);
            if (best_[i] < 0) continue;
            Bin& b = bins[static_cast<std::size_t>(best_[i])];
            b.left_mm -= lost(b, pieces_[i].length_mm);
            best_placed_ += pieces_[i].length_mm;
            best_begun_ += !b.begun;
            b.begun = true;
        }
    }
    void go(std::size_t i, double placed, int begun) {
        if (looked_ >= most_) return;
        ++looked_;
        const double could = placed + rest_[i];
        if (could < best_placed_ - 1e-9 || (could <= best_placed_ + 1e-9 && begun >= best_begun_)) return;
        if (i == pieces_.size()) {
            best_ = at_;
            best_placed_ = placed;
            best_begun_ = begun;
            return;
        }
        const double length = pieces_[i].length_mm;
        std::vector<double> tried; // lengths of the same rest are alike
        for (std::size_t k = 0; k < bins_.size(); ++k) {
            Bin& b = bins_[k];
            const double key = b.left_mm + (b.begun ? 0.25 : 0);
            if (!takes(b, length) || std::find(tried.begin(), tried.end(), key) != tried.end()) continue;
            tried.push_back(key);
            const Bin before = b;
            b.left_mm -= lost(b, length);
            b.begun = true;
            at_[i] = static_cast<int>(k);
            go(i + 1, placed + length, begun + !before.begun);
            b = before;
        }
        at_[i] = -1;
        go(i + 1, placed, begun);
    }

    std::vector<Piece> pieces_;
    std::vector<Bin> bins_;
    double kerf_;
    int most_;
    int looked_ = 0;
    std::vector<double> rest_; ///< length of this piece and all behind it
    std::vector<int> at_, best_;
    double best_placed_ = 0;
    int best_begun_ = 0;
};

} // namespace

bool sameSection(const SteelNeed& n, const Stock& s) {
    if (n.form != s.form || !near(n.wall_mm, s.wall_mm)) return false;
    const bool as_it_lies = near(n.height_mm, s.height_mm) && near(n.width_mm, s.width_mm);
    const bool turns = n.form == StockForm::Box || n.form == StockForm::Angle; // a channel's web stays its web
    return as_it_lies || (turns && near(n.height_mm, s.width_mm) && near(n.width_mm, s.height_mm));
}

std::string sectionWords(StockForm f, double height, double width, double wall) {
    std::string text(build::word(f));
    text += fmt::format(" {:g}", height);
    if (width > 0) text += fmt::format(" × {:g}", width);
    if (wall > 0) text += fmt::format(" × {:g}", wall);
    return text;
}

SteelPlan placeSteel(const std::vector<SteelNeed>& needs, const std::vector<Stock>& shelf, double kerf, int most_looked_at) {
    SteelPlan plan;
    std::vector<bool> seen(needs.size(), false);
    for (std::size_t first = 0; first < needs.size(); ++first) {
        if (seen[first] || !isLength(needs[first].form)) continue;
        // all needs of the same section
        std::vector<Piece> pieces;
        for (std::size_t k = first; k < needs.size(); ++k) {
            Stock like;
            like.form = needs[first].form;
            like.height_mm = needs[first].height_mm;
            like.width_mm = needs[first].width_mm;
            like.wall_mm = needs[first].wall_mm;
            if (seen[k] || !sameSection(needs[k], like)) continue;
            seen[k] = true;
            for (int n = 0; n < needs[k].count; ++n) pieces.push_back({k, needs[k].length_mm});
        }
        std::stable_sort(pieces.begin(), pieces.end(), [](const Piece& a, const Piece& b) { return a.length_mm > b.length_mm; });
        std::vector<Bin> bins;
        for (const Stock& s : shelf)
            if (sameSection(needs[first], s))
                for (int n = 0; n < static_cast<int>(s.count) && bins.size() < 500; ++n)
                    bins.push_back({s.name, s.length_mm, false});
        // short ones first: of equal ways the offcuts go
        std::stable_sort(bins.begin(), bins.end(), [](const Bin& a, const Bin& b) { return a.left_mm < b.left_mm; });
        BuySearch search(pieces, bins, kerf, most_looked_at);
        const std::vector<int> at = search.best();
        plan.exact = plan.exact && search.exact();
        ToBuy buy{sectionWords(needs[first].form, needs[first].height_mm, needs[first].width_mm, needs[first].wall_mm), {}, 0};
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            plan.pieces.push_back({pieces[i].need, at[i] < 0 ? std::string() : bins[static_cast<std::size_t>(at[i])].name});
            if (at[i] >= 0) continue;
            buy.lengths_mm.push_back(pieces[i].length_mm);
            buy.total_mm += pieces[i].length_mm + kerf;
            plan.bought_mm += pieces[i].length_mm;
        }
        if (!buy.lengths_mm.empty()) plan.buy.push_back(std::move(buy));
    }
    return plan;
}

} // namespace gorvet::work
