#include "make/nest.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include <glpk.h>

namespace gorvet::make {

namespace {

constexpr double close_mm = 1e-6;
/// What is begun on the shelf costs so much of what would have to be bought: enough to tell two ways apart, never enough to buy.
constexpr double shelf_share = 1e-4;

/// A way of filling a bar: how many of each kind of piece.
struct Pattern {
    std::size_t bar = 0;
    std::vector<int> of;
};

/// Pieces of the same length are one kind: who is who is told at the end.
struct Kind {
    double length = 0;
    int wanted = 0;
    std::vector<std::size_t> pieces; ///< each as often as it is wanted
};

class Nest {
public:
    Nest(const NestInput& in, int most, int milliseconds) : in_(in), most_(most), milliseconds_(milliseconds) {}

    NestPlan plan() {
        kinds();
        if (kinds_.empty()) {
            p_.exact = true;
            return std::move(p_);
        }
        bool all = true;
        for (std::size_t b = 0; b < in_.bars.size() && all; ++b) all = enumerate(b);
        if (!all) {
            patterns_.clear();
            simple();
            generate();
        }
        p_.patterns = static_cast<int>(patterns_.size());
        solve(all);
        return std::move(p_);
    }

private:
    double room(std::size_t bar) const { return in_.bars[bar].length_mm + in_.kerf_mm + close_mm; }
    double takes(std::size_t kind) const { return kinds_[kind].length + in_.kerf_mm; }
    double price(std::size_t bar) const {
        const NestBar& b = in_.bars[bar];
        if (b.count) return shelf_share * b.length_mm / 1000;
        return b.price.value_or(b.length_mm / 1000) + shelf_share * b.length_mm / 1000;
    }

    void kinds() {
        double longest = 0;
        for (const NestBar& b : in_.bars)
            if (!b.count || *b.count > 0) longest = std::max(longest, b.length_mm);
        std::map<double, Kind, std::greater<>> by_length;
        for (std::size_t k = 0; k < in_.pieces.size(); ++k) {
            const NestPiece& piece = in_.pieces[k];
            if (piece.count <= 0) continue;
            if (!(piece.length_mm > 0) || piece.length_mm > longest + close_mm) {
                p_.too_long.insert(p_.too_long.end(), static_cast<std::size_t>(piece.count), k);
                continue;
            }
            Kind& kind = by_length[std::round(piece.length_mm * 1e4) / 1e4];
            kind.length = std::round(piece.length_mm * 1e4) / 1e4;
            kind.wanted += piece.count;
            kind.pieces.insert(kind.pieces.end(), static_cast<std::size_t>(piece.count), k);
        }
        for (auto& [length, kind] : by_length) kinds_.push_back(std::move(kind));
    }

    /// All ways of filling a bar to which no piece can be added; false when there are too many.
    bool enumerate(std::size_t bar) {
        std::vector<int> of(kinds_.size(), 0);
        return fill(bar, 0, room(bar), of);
    }
    bool fill(std::size_t bar, std::size_t kind, double left, std::vector<int>& of) {
        if (kind == kinds_.size()) {
            if (std::all_of(of.begin(), of.end(), [](int n) { return n == 0; })) return true;
            for (std::size_t k = 0; k < of.size(); ++k)
                if (of[k] < kinds_[k].wanted && takes(k) <= left) return true; // one more would go in
            if (static_cast<int>(patterns_.size()) >= most_) return false;
            patterns_.push_back({bar, of});
            return true;
        }
        const int most = std::min(kinds_[kind].wanted, static_cast<int>(left / takes(kind)));
        for (int n = most; n >= 0; --n) {
            of[kind] = n;
            if (!fill(bar, kind + 1, left - n * takes(kind), of)) return false;
        }
        of[kind] = 0;
        return true;
    }

    /// One kind a bar, and the longest first: something to begin with.
    void simple() {
        for (std::size_t b = 0; b < in_.bars.size(); ++b) {
            for (std::size_t k = 0; k < kinds_.size(); ++k) {
                Pattern p{b, std::vector<int>(kinds_.size(), 0)};
                p.of[k] = std::min(kinds_[k].wanted, static_cast<int>(room(b) / takes(k)));
                if (p.of[k] > 0) patterns_.push_back(std::move(p));
            }
            std::vector<int> left;
            for (const Kind& k : kinds_) left.push_back(k.wanted);
            for (;;) { // best fit, decreasing
                Pattern p{b, std::vector<int>(kinds_.size(), 0)};
                double space = room(b);
                for (std::size_t k = 0; k < kinds_.size(); ++k) {
                    const int n = std::min(left[k], static_cast<int>(space / takes(k)));
                    p.of[k] = n;
                    left[k] -= n;
                    space -= n * takes(k);
                }
                if (std::all_of(p.of.begin(), p.of.end(), [](int n) { return n == 0; })) break;
                patterns_.push_back(std::move(p));
            }
        }
    }

    /// A program over the patterns that are known: a row for each kind, one for each bar that the shelf has so many of.
    glp_prob* program(bool integers) const {
        glp_prob* lp = glp_create_prob();
        glp_set_obj_dir(lp, GLP_MIN);
        const int rows = static_cast<int>(kinds_.size() + in_.bars.size());
        glp_add_rows(lp, rows);
        for (std::size_t k = 0; k < kinds_.size(); ++k)
            glp_set_row_bnds(lp, static_cast<int>(k) + 1, GLP_LO, kinds_[k].wanted, 0);
        for (std::size_t b = 0; b < in_.bars.size(); ++b) {
            const int row = static_cast<int>(kinds_.size() + b) + 1;
            if (in_.bars[b].count)
                glp_set_row_bnds(lp, row, GLP_UP, 0, std::max(0, *in_.bars[b].count));
            else
                glp_set_row_bnds(lp, row, GLP_FR, 0, 0);
        }
        // what can't be had costs more than anything that can
        glp_add_cols(lp, static_cast<int>(patterns_.size() + kinds_.size()));
        for (std::size_t c = 0; c < patterns_.size(); ++c) column(lp, static_cast<int>(c) + 1, patterns_[c], integers);
        for (std::size_t k = 0; k < kinds_.size(); ++k) {
            const int c = static_cast<int>(patterns_.size() + k) + 1, index[] = {0, static_cast<int>(k) + 1};
            const double one[] = {0, 1};
            glp_set_col_bnds(lp, c, GLP_LO, 0, 0);
            glp_set_obj_coef(lp, c, missing_cost());
            if (integers) glp_set_col_kind(lp, c, GLP_IV);
            glp_set_mat_col(lp, c, 1, index, one);
        }
        return lp;
    }
    double missing_cost() const {
        double most = 1;
        for (std::size_t b = 0; b < in_.bars.size(); ++b) most = std::max(most, price(b));
        return 1000 * most;
    }
    void column(glp_prob* lp, int c, const Pattern& p, bool integers) const {
        std::vector<int> index{0};
        std::vector<double> value{0};
        for (std::size_t k = 0; k < p.of.size(); ++k)
            if (p.of[k] > 0) {
                index.push_back(static_cast<int>(k) + 1);
                value.push_back(p.of[k]);
            }
        index.push_back(static_cast<int>(kinds_.size() + p.bar) + 1);
        value.push_back(1);
        glp_set_col_bnds(lp, c, GLP_LO, 0, 0);
        glp_set_obj_coef(lp, c, price(p.bar));
        if (integers) glp_set_col_kind(lp, c, GLP_IV);
        glp_set_mat_col(lp, c, static_cast<int>(index.size()) - 1, index.data(), value.data());
    }

    /// The pattern of a bar whose pieces are worth most, by dynamic programming on half millimetres. Lengths are rounded up, so
    /// that what is found always fits; `relaxed`, down: nothing that fits is worth more.
    Pattern worth(std::size_t bar, const std::vector<double>& value, double& sum, bool relaxed = false) const {
        constexpr double per_mm = 2;
        const auto rounded = [&](std::size_t k) {
            const double exactly = takes(k) * per_mm;
            return static_cast<std::size_t>(relaxed ? std::floor(exactly + 1e-6) : std::ceil(exactly - 1e-6));
        };
        const auto size = static_cast<std::size_t>(std::floor(room(bar) * per_mm));
        std::vector<double> best(size + 1, 0);
        std::vector<std::vector<int>> took(kinds_.size(), std::vector<int>(size + 1, 0));
        for (std::size_t k = 0; k < kinds_.size(); ++k) {
            const std::size_t need = rounded(k);
            const std::vector<double> before = best;
            for (std::size_t s = need; s <= size; ++s)
                for (int n = 1; n <= kinds_[k].wanted && n * need <= s; ++n)
                    if (const double v = before[s - static_cast<std::size_t>(n) * need] + n * value[k]; v > best[s] + 1e-12) {
                        best[s] = v;
                        took[k][s] = n;
                    }
        }
        Pattern p{bar, std::vector<int>(kinds_.size(), 0)};
        std::size_t at = size;
        for (std::size_t k = kinds_.size(); k-- > 0;) {
            p.of[k] = took[k][at];
            at -= static_cast<std::size_t>(p.of[k]) * rounded(k);
        }
        sum = best[size];
        return p;
    }
    /// New patterns as long as one would make it cheaper, by the prices that the program puts on the pieces.
    void generate() {
        glp_smcp quiet;
        glp_init_smcp(&quiet);
        quiet.msg_lev = GLP_MSG_OFF;
        overpriced_ = std::numeric_limits<double>::infinity(); // without an end no bound
        constexpr int most_rounds = 400;
        for (int round = 0; round < most_rounds; ++round) {
            glp_prob* lp = program(false);
            glp_simplex(lp, &quiet);
            std::vector<double> value, bar_price;
            for (std::size_t k = 0; k < kinds_.size(); ++k) value.push_back(glp_get_row_dual(lp, static_cast<int>(k) + 1));
            for (std::size_t b = 0; b < in_.bars.size(); ++b)
                bar_price.push_back(glp_get_row_dual(lp, static_cast<int>(kinds_.size() + b) + 1));
            glp_delete_prob(lp);
            bool better = false;
            for (std::size_t b = 0; b < in_.bars.size(); ++b) {
                double sum = 0;
                auto p = worth(b, value, sum);
                if (sum + bar_price[b] > price(b) + 1e-7) {
                    patterns_.push_back(std::move(p));
                    better = true;
                }
            }
            if (better) continue;
            // by how much the prices of the pieces must come down so that no way at all would be worth more than its bar: then
            // they prove a bound (Farley, 1990)
            overpriced_ = 1;
            for (std::size_t b = 0; b < in_.bars.size(); ++b) {
                double sum = 0;
                worth(b, value, sum, true);
                overpriced_ = std::max(overpriced_, (sum + bar_price[b]) / price(b));
            }
            return;
        }
    }

    void solve(bool all) {
        glp_prob* lp = program(true);
        glp_smcp simplex;
        glp_init_smcp(&simplex);
        simplex.msg_lev = GLP_MSG_OFF;
        glp_simplex(lp, &simplex);
        const double bound = glp_get_obj_val(lp) / overpriced_;
        glp_iocp options;
        glp_init_iocp(&options);
        options.msg_lev = GLP_MSG_OFF;
        options.tm_lim = milliseconds_;
        options.mir_cuts = options.gmi_cuts = GLP_ON;
        const int failed = glp_intopt(lp, &options);
        const int status = glp_mip_status(lp);
        const bool solved = status == GLP_OPT || status == GLP_FEAS;
        std::vector<int> times(patterns_.size(), 0);
        for (std::size_t c = 0; c < patterns_.size(); ++c) {
            const double x = solved ? glp_mip_col_val(lp, static_cast<int>(c) + 1)
                                    : std::ceil(glp_get_col_prim(lp, static_cast<int>(c) + 1) - 1e-7);
            times[c] = static_cast<int>(std::lround(x));
        }
        const double found = solved ? glp_mip_obj_val(lp) : std::numeric_limits<double>::infinity();
        glp_delete_prob(lp);
        laid(times);
        p_.least = bound;
        // all ways were there and the program was solved; or nothing lies between the bound and what was found
        p_.exact =
            (all && failed == 0 && status == GLP_OPT) || (solved && found <= bound + 1e-6 * std::max(1.0, std::abs(bound)));
        if (!p_.exact && solved && whole_steps() > 0) { // costs come in steps: the next one above the bound
            const double step = whole_steps();
            p_.exact = p_.cost <= std::ceil((bound - slack(bound)) / step - 1e-6) * step + 1e-6;
        }
    }
    /// Where one kind of bar is bought and the shelf gives none, every cost is a whole number of them.
    double whole_steps() const {
        return in_.bars.size() == 1 && !in_.bars[0].count ? in_.bars[0].price.value_or(in_.bars[0].length_mm / 1000) : 0;
    }
    /// What the shelf's small share adds to a bound.
    double slack(double bound) const {
        const double step = whole_steps();
        return bound * (1 - step / price(0));
    }

    /// Who is cut from which bar; what a pattern has over is left out.
    void laid(const std::vector<int>& times) {
        std::vector<std::size_t> next(kinds_.size(), 0);
        for (std::size_t c = 0; c < patterns_.size(); ++c) {
            const Pattern& p = patterns_[c];
            for (int n = 0; n < times[c]; ++n) {
                NestLayout one;
                one.bar = p.bar;
                double used = 0;
                for (std::size_t k = 0; k < p.of.size(); ++k)
                    for (int m = 0; m < p.of[k] && next[k] < kinds_[k].pieces.size(); ++m) {
                        one.pieces.push_back(kinds_[k].pieces[next[k]++]);
                        used += takes(k);
                    }
                if (one.pieces.empty()) continue;
                const NestBar& bar = in_.bars[p.bar];
                one.left_mm = std::max(0.0, bar.length_mm - used);
                p_.used_mm += bar.length_mm;
                if (!bar.count) {
                    p_.bought_mm += bar.length_mm;
                    p_.cost += bar.price.value_or(bar.length_mm / 1000);
                }
                const auto same = std::find_if(p_.layouts.begin(), p_.layouts.end(), [&](const NestLayout& other) {
                    return other.bar == one.bar && other.pieces == one.pieces;
                });
                if (same != p_.layouts.end())
                    ++same->times;
                else
                    p_.layouts.push_back(std::move(one));
            }
        }
        for (std::size_t k = 0; k < kinds_.size(); ++k)
            p_.too_long.insert(p_.too_long.end(), kinds_[k].pieces.begin() + static_cast<std::ptrdiff_t>(next[k]),
                               kinds_[k].pieces.end());
    }

    const NestInput& in_;
    int most_, milliseconds_;
    std::vector<Kind> kinds_;
    std::vector<Pattern> patterns_;
    double overpriced_ = 1;
    NestPlan p_;
};

} // namespace

NestPlan nestBars(const NestInput& in, int most_patterns, int milliseconds) {
    return Nest(in, most_patterns, milliseconds).plan();
}

} // namespace gorvet::make
