#include "work/coats.hpp"

#include "units/dates.hpp"
#include "work/table_pages.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include <fmt/format.h>

namespace gorvet::work {

using namespace build;
using units::PlanVerdict;

const UsualCoat& usualOf(CoatKind kind) {
    static constexpr UsualCoat usual[] = {
        {8, 0.5, 0, false},   // etch primer
        {7, 12, 240, false},  // epoxy primer
        {6, 2, 0, false},     // zinc primer
        {10, 4, 0, false},    // seam sealer: by the metre
        {0.8, 0.5, 6, false}, // filler
        {6, 3, 60, true},     // surfacer
        {9, 0.5, 0, false},   // base
        {9, 12, 120, true},   // clear
        {2, 6, 0, false},     // stone guard
        {5, 24, 0, false},    // cavity wax
    };
    return usual[static_cast<std::size_t>(kind)];
}

double bareHours(Metal metal, Preparation preparation) {
    if (metal == Metal::Stainless) return 0;
    if (metal == Metal::Aluminium || metal == Metal::Galvanised) return 4; // its oxide is back
    return preparation == Preparation::Blast ? 4 : 24;
}

namespace {

constexpr double sealer_litres_per_mm = 0.016 / 1000;
constexpr double usual_c = 20;
constexpr double cures_from_c = 10;
constexpr double cures_well_from_c = 15;
constexpr double hot_c = 30;

bool isPrimer(CoatKind k) { return k == CoatKind::EtchPrimer || k == CoatKind::EpoxyPrimer || k == CoatKind::ZincPrimer; }

class Planner {
public:
    Planner(const Surface& s, const std::vector<Coat>& coats, long long now_s) : s_(s), coats_(coats), now_s_(now_s) {}

    SurfacePlan plan() {
        const double c = s_.at_c.value_or(usual_c), slower = std::pow(2, (usual_c - c) / 10);
        for (const Coat& coat : coats_) {
            const UsualCoat& usual = usualOf(coat.kind);
            CoatPlan p;
            p.name = coat.name;
            p.kind = coat.kind;
            p.assumed = coat.dries_h <= 0 || (coat.covers_m2 <= 0 && coat.kind != CoatKind::SeamSealer);
            p.dries_h = (coat.dries_h > 0 ? coat.dries_h : usual.dries_h) * slower;
            p.pot_min = (coat.pot_min > 0 ? coat.pot_min : usual.pot_min) * slower;
            p.done = coat.done.has_value();
            const double lost = coat.by == ByHand::Brush ? 1.15 : 1.5; // engineering.md, Work
            p.litres = coat.kind == CoatKind::SeamSealer
                           ? s_.seams_mm * sealer_litres_per_mm
                           : s_.size_m2 * coat.coats / (coat.covers_m2 > 0 ? coat.covers_m2 : usual.covers_m2) * lost;
            p_.litres += p.litres;
            if (!p.done) p_.dries_h += p.dries_h * coat.coats;
            p_.coats.push_back(std::move(p));
        }
        if (s_.preparation == Preparation::Skip) return std::move(p_);
        order();
        wet();
        metal();
        cold(c);
        bare();
        size();
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const CoatRemark& a, const CoatRemark& b) { return a.verdict > b.verdict; });
        return std::move(p_);
    }

private:
    void say(PlanVerdict v, const char* what, std::string sentence, std::string remedy) {
        p_.remarks.push_back({v, what, std::move(sentence), std::move(remedy)});
    }
    bool before(std::size_t i, CoatKind kind) const {
        return std::any_of(coats_.begin(), coats_.begin() + static_cast<std::ptrdiff_t>(i),
                           [&](const Coat& c) { return c.kind == kind; });
    }
    bool primerBefore(std::size_t i) const {
        return before(i, CoatKind::EtchPrimer) || before(i, CoatKind::EpoxyPrimer) || before(i, CoatKind::ZincPrimer);
    }

    void order() {
        for (std::size_t i = 0; i < coats_.size(); ++i) {
            const Coat& c = coats_[i];
            const auto wrong = [&](PlanVerdict v, const char* why, const char* remedy) {
                say(v, "coat-order", fmt::format("{} on {}: {}", word(c.kind), s_.name, why), remedy);
            };
            const bool primed = primerBefore(i);
            if (!isPrimer(c.kind) && !primed && c.kind != CoatKind::CavityWax && s_.preparation != Preparation::Abrade) {
                if (c.kind == CoatKind::Filler)
                    wrong(PlanVerdict::Marginal,
                          "on bare metal some builders let it bite, others prime with epoxy first: damp creeps under it.",
                          "Epoxy first keeps the metal sealed.");
                else
                    wrong(PlanVerdict::Fails, "nothing holds it on bare metal, and rust goes on beneath.",
                          "A primer for that metal first.");
            }
            if (c.kind == CoatKind::EpoxyPrimer && before(i, CoatKind::EtchPrimer))
                wrong(PlanVerdict::Fails, "the acid of an etch primer beneath it keeps epoxy from curing.",
                      "One or the other on bare metal.");
            if (c.kind == CoatKind::EtchPrimer && before(i, CoatKind::Filler))
                wrong(PlanVerdict::Fails, "its acid stays in filler and lifts it later.", "Epoxy or surfacer over filler.");
            if (c.kind == CoatKind::Filler && (before(i, CoatKind::Base) || before(i, CoatKind::Clear)))
                wrong(PlanVerdict::Fails, "filler does not hold on colour.", "Filler before surfacer and colour.");
            if (c.kind == CoatKind::SeamSealer && (before(i, CoatKind::Base) || before(i, CoatKind::Clear)))
                wrong(PlanVerdict::Marginal, "sealer over colour shows, and colour beneath it has taken no paint.",
                      "Seal on primer.");
            if (c.kind == CoatKind::Clear && !before(i, CoatKind::Base))
                wrong(PlanVerdict::Marginal, "there is no colour beneath it.", "Colour first, unless bare metal is to be seen.");
            if (c.kind == CoatKind::CavityWax && s_.space.empty())
                wrong(PlanVerdict::Marginal, "wax is for the inside of a space.", "Say of which: surface NAME within left sill.");
            if (before(i, CoatKind::CavityWax))
                wrong(PlanVerdict::Fails, "nothing holds on wax.", "Wax goes in last, after all heat and paint.");
        }
    }

    /// A coat that went on before the one beneath was dry.
    void wet() {
        for (std::size_t i = 1; i < coats_.size(); ++i) {
            const auto doneAt = [](const Coat& c) { return c.done ? units::secondsOf(c.done->at_utc).value_or(0) : 0; };
            const long long beneath = doneAt(coats_[i - 1]), on = doneAt(coats_[i]); // 0: it is not on
            const double hours = static_cast<double>(on - beneath) / 3600, needs = p_.coats[i - 1].dries_h;
            if (beneath == 0 || on == 0 || hours < 0 || hours >= needs) continue;
            say(PlanVerdict::Fails, "coat-wet",
                fmt::format("{} went onto {} of {} after {:.1f} h, which takes {:.0f} to dry: what is shut in does not get out.",
                            coats_[i].name, coats_[i - 1].name, s_.name, hours, needs),
                "Wait, then look for wrinkles and press a nail into it: what is soft after a week comes off again.");
        }
    }

    void metal() {
        for (const Coat& c : coats_) {
            if (c.kind == CoatKind::ZincPrimer && s_.metal != Metal::Steel && s_.metal != Metal::Cast)
                say(PlanVerdict::Fails, "coat-metal",
                    fmt::format("A zinc primer does nothing on {} ({}).", word(s_.metal), s_.name),
                    "Epoxy, or an etch primer where the metal takes it.");
            if (c.kind == CoatKind::EtchPrimer && s_.metal == Metal::Galvanised)
                say(PlanVerdict::Marginal, "coat-metal", fmt::format("An acid primer eats the zinc that protects {}.", s_.name),
                    "Epoxy on abraded zinc.");
        }
    }

    void cold(double c) {
        const bool two_pack =
            std::any_of(p_.coats.begin(), p_.coats.end(), [](const CoatPlan& p) { return p.pot_min > 0 && !p.done; });
        if (!two_pack) return;
        if (c < cures_from_c)
            say(PlanVerdict::Fails, "coat-cold", fmt::format("{:g} °C at {}: two-pack coats do not cure below 10.", c, s_.name),
                "Warm part and shop first, with no flame and no fumes of a stove.");
        else if (c < cures_well_from_c)
            say(PlanVerdict::Marginal, "coat-cold",
                fmt::format("{:g} °C at {}: two-pack coats cure slowly below 15.", c, s_.name), "Warm it, or leave it longer.");
        else if (c > hot_c)
            say(PlanVerdict::Marginal, "coat-cold",
                fmt::format("{:g} °C at {}: what is mixed is hard in a third of its time.", c, s_.name),
                "Mix little, work early in the day.");
    }

    void bare() {
        const auto since = s_.bared ? units::secondsOf(s_.bared->at_utc) : std::nullopt;
        const double limit = bareHours(s_.metal, s_.preparation);
        if (!since) return;
        const auto hours = [&](long long until) { return static_cast<double>(until - *since) / 3600; };
        std::optional<long long> coated; // when its first coat went on
        for (const Coat& c : coats_)
            if (c.done)
                if (const auto at = units::secondsOf(c.done->at_utc)) coated = std::min(coated.value_or(*at), *at);
        if (coated) {
            if (limit > 0 && hours(*coated) > limit)
                say(PlanVerdict::Marginal, "coat-bare",
                    fmt::format(
                        "{} was bare for {:.0f} h before its first coat, {:g} are the most that is usual: rust may be under it.",
                        s_.name, hours(*coated), limit),
                    "Look for it; what blisters is stripped again, as a surface of its own.");
            return;
        }
        p_.bare_h = hours(now_s_);
        if (limit <= 0) return;
        p_.bare_left_h = limit - *p_.bare_h;
        if (*p_.bare_left_h < 0)
            say(PlanVerdict::Fails, "coat-bare",
                fmt::format("{} is bare for {:.0f} h: {:g} are the most that is usual before it is coated.", s_.name, *p_.bare_h,
                            limit),
                "Make it bright again right before the first coat; wipe it with a lint-free cloth and solvent, no bare hands.");
        else
            say(PlanVerdict::Marginal, "coat-bare",
                fmt::format("{} is bare metal: {:.0f} h are left until its first coat.", s_.name, *p_.bare_left_h),
                "Coat it, and say so: coated " + s_.name + " NAME.");
    }

    void size() {
        const bool area = std::any_of(coats_.begin(), coats_.end(), [](const Coat& c) { return c.kind != CoatKind::SeamSealer; });
        if (area && s_.size_m2 <= 0)
            say(PlanVerdict::Marginal, "coat-size", fmt::format("How large {} is is not said: litres are not known.", s_.name),
                "surface " + s_.name + " m2 1.4");
        const bool sealed =
            std::any_of(coats_.begin(), coats_.end(), [](const Coat& c) { return c.kind == CoatKind::SeamSealer; });
        if (sealed && s_.seams_mm <= 0)
            say(PlanVerdict::Marginal, "coat-size", fmt::format("How long the seams of {} are is not said.", s_.name),
                "surface " + s_.name + " seams 3 m");
    }

    const Surface& s_;
    const std::vector<Coat>& coats_;
    long long now_s_;
    SurfacePlan p_;
};

} // namespace

const CoatPlan* SurfacePlan::next() const {
    const auto open = std::find_if(coats.begin(), coats.end(), [](const CoatPlan& c) { return !c.done; });
    return open == coats.end() ? nullptr : &*open;
}

SurfacePlan planOf(const Surface& s, const std::vector<Coat>& coats, long long now_s) { return Planner(s, coats, now_s).plan(); }

std::vector<sheet::Drawing> coatPages(const std::vector<SurfaceShown>& all, const sheet::PageTitle& title,
                                      const std::vector<std::string>& cautions) {
    using namespace sheet;
    std::vector<std::vector<std::string>> rows, buy;
    std::map<std::string, double> litres;
    for (const SurfaceShown& s : all) {
        std::string ready =
            std::string(word(s.surface.preparation)) + (s.surface.skip_why.empty() ? "" : ": " + s.surface.skip_why);
        if (s.surface.bared) ready += ", bare " + s.surface.bared->at_utc.substr(0, 10);
        if (s.coats.empty())
            rows.push_back({s.surface.name, s.surface.area, std::string(word(s.surface.metal)), ready, "", "", "", "", "[    ]"});
        for (std::size_t k = 0; k < s.coats.size(); ++k) {
            const Coat& c = s.coats[k];
            const CoatPlan& p = s.plan.coats[k];
            rows.push_back(
                {k ? "" : s.surface.name, k ? "" : s.surface.area, k ? "" : std::string(word(s.surface.metal)), k ? "" : ready,
                 fmt::format("{}{}, {:g} ×, by {}", word(c.kind), c.product.empty() ? "" : " " + c.product, c.coats, word(c.by)),
                 p.litres > 0 ? fmt::format("{:.2f} l{}", p.litres, p.assumed ? " ?" : "") : "not known",
                 fmt::format("{:.1f} h{}", p.dries_h, p.assumed ? " ?" : ""),
                 p.pot_min > 0 ? fmt::format("{:.0f} min", p.pot_min) : "",
                 c.done ? c.done->at_utc.substr(0, 10) + " " + c.done->who : "[    ]"});
            if (!p.done) litres[fmt::format("{}{}", word(c.kind), c.product.empty() ? "" : " " + c.product)] += p.litres;
        }
    }
    std::vector<Drawing> pages;
    addTableUnder(pages, title, cautions, "Surfaces and their coats, as they go on",
                  {{"surface", 32, Anchor::Left, Face::Bold, true},
                   {"where", 30, Anchor::Left, Face::Sans, true},
                   {"metal", 24},
                   {"made ready", 40, Anchor::Left, Face::Sans, true},
                   {"coat", 60, Anchor::Left, Face::Sans, true},
                   {"of it", 22},
                   {"dries", 20},
                   {"pot life", 22},
                   {"done", 32, Anchor::Left, Face::Sans, true}},
                  rows);
    for (const auto& [what, l] : litres) buy.push_back({what, l > 0 ? fmt::format("{:.2f} l", l) : "not known"});
    addTableUnder(pages, title, cautions, "What is still needed", {{"coat", 90, Anchor::Left, Face::Bold, true}, {"litres", 40}},
                  buy);
    return pages;
}

} // namespace gorvet::work
