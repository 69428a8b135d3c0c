// What must be bought, and what lies on the shelf for it.
#include "analysis/work_buy.hpp"

#include "analysis/listing_cells.hpp"
#include "analysis/pages.hpp"
#include "analysis/parts.hpp"
#include "analysis/work_facts.hpp"
#include "analysis/work_plan.hpp"
#include "make/part_sheet.hpp"

#include <algorithm>
#include <charconv>
#include <map>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

class Gather {
public:
    Gather(const Build& b, const Results& r) : b_(b), r_(r) {}

    Purchases all() {
        parts();
        lines();
        fasteners();
        paint();
        steel();
        std::stable_partition(p_.rows.begin(), p_.rows.end(), [](const Purchase& row) { return row.open; });
        for (const Purchase& row : p_.rows) {
            if (!row.open) continue;
            p_.priced += row.price.value_or(0);
            p_.unpriced += !row.price;
        }
        return std::move(p_);
    }

private:
    std::string title(const std::string& step) const {
        const work::Step* s = step.empty() ? nullptr : r_.work->find(step);
        if (!s && !step.empty()) s = r_.work->find("job-" + step);
        return s ? s->title : step;
    }

    void parts() {
        for (const auto& [id, a] : b_.awaited)
            if (a.arrived.empty())
                p_.rows.push_back({"part", a.name, "1", title(a.step), a.supplier,
                                   a.ordered.empty() ? "not ordered" : "ordered " + a.ordered, a.cost, "", a.ordered.empty()});
    }
    /// Lines over the cut that are made anew, until theirs is done.
    void lines() {
        for (const auto& [id, c] : b_.crossings) {
            if (c.presence == Presence::Absent || c.answer != RunAnswer::NewLength) continue;
            const work::CrossingJob job{c.kind, "", "", c.name, false, 0};
            if (tickOf(b_, job.code())) continue;
            std::string what = job.said();
            if (c.new_length) what += ", " + units::formatLength(c.new_length->value, b_.settings.length_step, true);
            if (!c.fittings.empty()) what += ", " + c.fittings;
            p_.rows.push_back(
                {"line", std::move(what), "1", title(job.code()), c.supplier, "to buy", c.price, "crossings", true});
        }
    }
    void fasteners() {
        for (const auto& [id, row] : b_.releases) {
            if (row.refitted) continue;
            const std::string where = row.name + (row.area.empty() ? "" : ", " + row.area);
            if (row.renew)
                p_.rows.push_back(
                    {"fastener", "fastener of " + where, "1", row.joins, "", "to buy", {}, "tag:" + row.name, true});
            if (row.fate == Fate::Renew)
                p_.rows.push_back({"part", where, "1", row.joins, "", "to buy", {}, "tag:" + row.name, true});
        }
    }
    /// By product, or by kind where none is said.
    void paint() {
        struct Sum {
            double litres = 0;
            bool assumed = false;
            std::string on;
            std::string tag;
        };
        std::map<std::string, Sum> by_product;
        for (const work::SurfaceShown& s : surfacesOf(b_))
            for (std::size_t k = 0; k < s.plan.coats.size(); ++k) {
                const work::CoatPlan& c = s.plan.coats[k];
                if (c.done || c.litres <= 0) continue;
                const std::string& product = s.coats[k].product;
                Sum& sum = by_product[product.empty() ? std::string(word(c.kind)) : product];
                sum.litres += c.litres;
                sum.assumed = sum.assumed || s.coats[k].covers_m2 <= 0; // what a litre covers is usual
                if (sum.on.find(s.surface.name) == std::string::npos) sum.on += (sum.on.empty() ? "" : ", ") + s.surface.name;
                sum.tag = "surface:" + s.surface.name;
            }
        for (const auto& [product, sum] : by_product)
            p_.rows.push_back(
                {"paint",
                 product,
                 (sum.litres < 0.1 ? fmt::format("{:.0f} ml", 1000 * sum.litres) : fmt::format("{:.1f} l", sum.litres)) +
                     (sum.assumed ? " ?" : ""),
                 sum.on,
                 "",
                 "to buy",
                 {},
                 sum.tag,
                 true});
    }
    void steel() {
        std::vector<work::SteelNeed> needs = steelNeeds(b_, r_);
        nested();
        std::erase_if(needs, [&](const work::SteelNeed& n) { return canBeHad(b_, n); });
        std::vector<Stock> shelf;
        for (const auto& [id, s] : b_.stock)
            if (!s.any) shelf.push_back(s);
        p_.steel = work::placeSteel(needs, shelf, b_.stretch.kerf.value);
        for (const work::ToBuy& buy : p_.steel.buy) {
            std::string lengths;
            for (const double length : buy.lengths_mm) lengths += (lengths.empty() ? "" : " + ") + fmt::format("{:.0f}", length);
            p_.rows.push_back({"steel",
                               buy.section,
                               fmt::format("{:.0f} mm", buy.total_mm),
                               "pieces of " + lengths + " mm, with a kerf each",
                               "",
                               "to buy",
                               {},
                               "",
                               true});
        }
        std::map<std::pair<std::size_t, std::string>, int> taken;
        for (const work::PlacedPiece& piece : p_.steel.pieces)
            if (!piece.from.empty()) ++taken[{piece.need, piece.from}];
        for (const auto& [piece, count] : taken) {
            const work::SteelNeed& n = needs[piece.first];
            p_.rows.push_back({"steel",
                               work::sectionWords(n.form, n.height_mm, n.width_mm, n.wall_mm),
                               fmt::format("{} × {:.0f} mm", count, n.length_mm),
                               n.what,
                               piece.second,
                               "on the shelf",
                               {},
                               "stock:" + piece.second,
                               false});
        }
        plates(needs, shelf);
    }
    /// Whole lengths that are bought, and what of the shelf is begun, as the pieces are laid into them.
    void nested() {
        for (const auto& node : r_.nests) {
            const make::NestInput& in = node.input();
            std::map<std::size_t, int> begun;
            for (const make::NestLayout& l : node->layouts) begun[l.bar] += l.times;
            for (const auto& [bar, count] : begun) {
                const make::NestBar& of = in.bars[bar];
                std::optional<double> price;
                if (!of.count && of.price) price = count * *of.price;
                p_.rows.push_back({"steel", in.section, fmt::format("{} × {:.0f} mm", count, of.length_mm),
                                   "pieces as Make lays them into bars", of.name, of.count ? "on the shelf" : "to buy", price,
                                   "stock:" + of.name, !of.count});
            }
            for (const std::size_t piece : node->too_long)
                p_.rows.push_back({"steel",
                                   in.section,
                                   fmt::format("{:.0f} mm", in.pieces[piece].length_mm),
                                   in.pieces[piece].name + ": no length is long enough",
                                   "",
                                   "to buy",
                                   {},
                                   "",
                                   true});
        }
    }
    /// Plates that are begun or bought, as pieces are laid into them; of a thickness that is not laid out, or not yet, only
    /// whether one of it is there.
    void plates(const std::vector<work::SteelNeed>& needs, const std::vector<Stock>& shelf) {
        const std::vector<LaidThickness> laid = laidPlates(b_, r_);
        for (const LaidThickness& one : laid) {
            const make::PlatesInput& in = *one.input;
            std::map<std::size_t, int> begun;
            for (const make::PlateLayout& l : one.plan->layouts) ++begun[l.plate];
            for (const auto& [plate, count] : begun) {
                const make::PlateSize& of = in.plates[plate];
                std::optional<double> price;
                if (!of.count && of.price) price = count * *of.price;
                p_.rows.push_back({"steel", fmt::format("plate {:g}", in.thickness_mm),
                                   fmt::format("{} × {:.0f} × {:.0f} mm", count, of.length_mm, of.width_mm),
                                   "pieces as Make lays them into plates", of.name, of.count ? "on the shelf" : "to buy", price,
                                   "stock:" + of.name, !of.count});
            }
            for (const std::size_t piece : one.plan->too_large)
                p_.rows.push_back({"steel",
                                   fmt::format("plate {:g}", in.thickness_mm),
                                   "one",
                                   in.pieces[piece].name + ": no plate takes it",
                                   "",
                                   "to buy",
                                   {},
                                   "",
                                   true});
        }
        for (const work::SteelNeed& n : needs) {
            if (n.form != StockForm::Plate || std::any_of(laid.begin(), laid.end(), [&](const LaidThickness& one) {
                    return samePlate(one.input->thickness_mm, n.wall_mm);
                }))
                continue;
            const auto there = std::find_if(shelf.begin(), shelf.end(), [&](const Stock& s) {
                return s.form == StockForm::Plate && s.count >= 1 && std::abs(s.wall_mm - n.wall_mm) < 0.3 &&
                       std::min(s.height_mm, s.length_mm) >= std::min(n.height_mm, n.length_mm) &&
                       std::max(s.height_mm, s.length_mm) >= std::max(n.height_mm, n.length_mm);
            });
            const bool on_shelf = there != shelf.end();
            p_.rows.push_back({"steel",
                               fmt::format("plate {:g}", n.wall_mm),
                               fmt::format("{:.0f} × {:.0f} mm", n.length_mm, n.height_mm),
                               n.what,
                               on_shelf ? there->name : "",
                               on_shelf ? "one that thick is on the shelf" : "to buy",
                               {},
                               on_shelf ? "stock:" + there->name : "",
                               !on_shelf});
        }
    }

    const Build& b_;
    const Results& r_;
    Purchases p_;
};

} // namespace

Purchases purchasesOf(const Build& b, const Results& r) { return Gather(b, r).all(); }

Headline purchaseHeadline(const Build& b, const Results& r, SubjectId) {
    const Purchases p = purchasesOf(b, r);
    const auto open =
        static_cast<std::size_t>(std::count_if(p.rows.begin(), p.rows.end(), [](const Purchase& row) { return row.open; }));
    Headline h;
    h.sentence = open ? fmt::format("{} to be bought.", units::counted(open, "a thing"))
                      : std::string(p.rows.empty() ? "Nothing is to be bought yet." : "Nothing more is to be bought.");
    h.below =
        open ? fmt::format("Priced {:.0f}{}. ", p.priced, p.unpriced ? fmt::format(", {} without a price", p.unpriced) : "") : "";
    h.below += b.stock.empty()
                   ? "Say what steel lies on the shelf, and pieces are cut from that first: stock b60 box 60 40 3 long 2000."
               : p.steel.exact ? "No other way of cutting from the shelf leaves less to buy."
                               : "Another way of cutting from the shelf may leave less to buy: not all were looked at.";
    return h;
}

Listing purchaseList(const Build& b, const Results& r, SubjectId) {
    Listing list{{"what", "kind", "how much", "stands", "for", "from", "price"}, -1, "thing", {}};
    const Purchases p = purchasesOf(b, r);
    for (const Purchase& row : p.rows) {
        ListRow line;
        line.cells = {words(row.what),
                      words(row.kind),
                      words(row.amount),
                      words(row.state),
                      words(row.why),
                      words(row.from),
                      row.price ? number(fmt::format("{:g}", *row.price), *row.price) : words("")};
        line.tag = row.tag;
        list.rows.push_back(std::move(line));
    }
    for (const auto& [id, s] : b.stock) {
        ListRow line;
        line.cells = {
            words(s.name),
            words(s.from.empty() ? "shelf" : "offcut"),
            words(fmt::format("{:g} × {:.0f} mm", s.count, s.length_mm)),
            words(s.count > 0 ? "on the shelf" : "used up"),
            words(work::sectionWords(s.form, s.height_mm, s.width_mm, s.wall_mm) + (s.grade.empty() ? "" : ", " + s.grade)),
            words(s.at),
            s.price ? number(fmt::format("{:g}", *s.price), *s.price) : words("")};
        line.tag = "stock:" + s.name;
        list.rows.push_back(std::move(line));
    }
    return list;
}

std::vector<sheet::Drawing> purchaseSheets(const Build& b, const Results& r) {
    if (!workBegun(b, r)) return {};
    const Purchases p = purchasesOf(b, r);
    std::vector<std::vector<std::string>> rows;
    for (const Purchase& row : p.rows)
        rows.push_back({row.open ? "[  ]" : "", row.what, row.amount, row.why, row.from, row.state,
                        row.price ? fmt::format("{:g}", *row.price) : ""});
    if (rows.empty()) return {};
    std::vector<sheet::Drawing> pages;
    using enum sheet::Anchor;
    const std::vector<sheet::Column> columns{{"", 10},
                                             {"what", 62, Left, sheet::Face::Bold, true},
                                             {"how much", 36, Left, sheet::Face::Sans, true},
                                             {"for", 70, Left, sheet::Face::Sans, true},
                                             {"from", 36, Left, sheet::Face::Sans, true},
                                             {"stands", 34, Left, sheet::Face::Sans, true},
                                             {"price", 20, Right}};
    addTablePages(pages, titled(b, r, "To be bought"),
                  {local_rules, "Bolts, belts and brake parts only new, of the grade that they had."}, columns, rows);
    return pages;
}

namespace {
/// The line that takes off a bar, or off a plate, what is laid into the first of its kind; empty: nothing is.
std::string cutAsLaid(const Build& b, const Results& r, const std::string& name) {
    for (const auto& node : r.nests)
        for (const make::NestLayout& l : node->layouts) {
            if (node.input().bars[l.bar].name != name || l.pieces.empty()) continue;
            std::string line;
            for (const std::size_t k : l.pieces)
                line += fmt::format("{}{:.1f}mm", line.empty() ? "" : " + ", node.input().pieces[k].length_mm);
            return fmt::format("cut-off {} {}", name, line);
        }
    for (const LaidThickness& t : laidPlates(b, r))
        for (const make::PlateLayout& l : t.plan->layouts)
            if (const auto& plate = t.input->plates[l.plate]; plate.name == name && !l.pieces.empty() && l.rest_mm > 0)
                return fmt::format("cut-off {} {:.1f}mm", name, plate.length_mm - l.rest_mm);
    return {};
}
} // namespace

std::optional<Card> stockCard(const Build& b, const Results& r, const std::string& name) {
    const Stock* s = stockNamed(b, name);
    if (!s) return std::nullopt;
    Card c;
    c.title = name;
    c.word = s->count > 0 ? "" : "used up";
    const auto row = [&](const char* label, const std::string& text) {
        if (!text.empty()) c.rows.push_back({label, text, Mark::None, false});
    };
    row("section", work::sectionWords(s->form, s->height_mm, s->width_mm, s->wall_mm));
    row("pieces", fmt::format("{:g} of {}", s->count, units::formatLength(s->length_mm, b.settings.length_step, true)));
    row("grade", s->grade);
    row("shelf", s->at);
    row("cut off", s->from);
    row("price", s->price ? fmt::format("{:g}", *s->price) : "");
    if (!s->note.empty()) c.sentences.push_back(s->note);
    if (const std::string line = cutAsLaid(b, r, name); !line.empty() && (s->count > 0 || s->any))
        c.actions.push_back({"cut as laid: the rest to the shelf", line, "", false});
    if (s->count > 0) c.actions.push_back({"cut a piece off", "cut-off " + name + " ", "", true});
    c.actions.push_back({"how many", "stock " + name + " count ", fmt::format("{:g}", s->count), true});
    c.actions.push_back({"shelf", "stock " + name + " shelf ", s->at, true});
    c.actions.push_back({"take it off the list", "remove stock " + name, "", false});
    c.journal_table = "stock";
    c.journal_id = s->id.value;
    return c;
}

} // namespace gorvet::analysis
