#include "analysis/bench_parts.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/sit_input.hpp"
#include "units/shown.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

namespace {

class SitCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> make(const Tag& tag) {
        if (tag.kind == "pin") return pin(PinId{tag.id});
        if (tag.kind == "change" || tag.kind == "wheelbase") return change();
        return std::nullopt;
    }

private:
    std::optional<Card> pin(PinId id) {
        const auto found = b_.pins.find(id);
        if (found == b_.pins.end()) return std::nullopt;
        const Pin& p = found->second;
        const bool angle = p.kind == PinKind::Rake;
        const auto show = [&](double v) { return angle ? units::formatAngle(v) : small(v); };
        // as they are typed: of a pin between features the subject is said
        std::string points;
        const auto add = [&](const std::vector<PointId>& ids) {
            for (const PointId point : ids)
                points +=
                    (p.kind >= PinKind::Along ? " " + nameOf(b_, b_.points.at(point).subject) + ":" : " ") + nameOf(b_, point);
        };
        add(p.points);
        if (!p.to.empty()) {
            points += " to";
            add(p.to);
        }
        if (const auto box = b_.obstacles.find(p.box); box != b_.obstacles.end()) points += " to " + box->second.name;
        const std::string bound = p.bound == Bound::AtLeast ? "least " : p.bound == Bound::AtMost ? "most " : "";
        const std::string worth = p.importance == Importance::Want ? "" : " " + std::string(word(p.importance));
        Card c;
        c.title = p.kind >= PinKind::Along ? pinName(b_, p) : std::string(word(p.kind)) + points;
        const bool has_target = p.kind == PinKind::Station || p.kind == PinKind::Height || angle || p.kind >= PinKind::Along ||
                                p.bound != Bound::Equal;
        if (has_target)
            c.rows.push_back({bound.empty() ? "wanted" : "wanted, at " + bound.substr(0, bound.size() - 1),
                              p.target.typed.empty() ? show(p.target.value) : p.target.typed, markOf(p.target.provenance), true});
        if (!worth.empty()) c.rows.push_back({"worth", worth.substr(1), Mark::None, false});
        const auto index = std::find(r_.pin_ids.begin(), r_.pin_ids.end(), id);
        if (index != r_.pin_ids.end()) {
            const auto& w = r_.seat->pins[static_cast<size_t>(index - r_.pin_ids.begin())];
            if (w.usable) {
                c.word = verdictWord(w.verdict);
                c.severity = severityOf(w.verdict);
                c.rows.push_back({"comes to", units::shown(w.achieved, show), Mark::Derived, false});
                c.rows.push_back({"misses by", show(std::abs(w.miss.value)), Mark::Derived, false});
                if (w.on_bound) c.sentences.emplace_back("The other pins press against this bound.");
            } else {
                c.word = "Marginal";
                c.severity = Severity::Warn;
                c.sentences.push_back("It " + w.words + ".");
            }
        }
        c.rows.push_back({"may miss by", show(p.tolerance), Mark::None, false});
        const std::string line = "pin " + std::string(word(p.kind)) + points + " ";
        if (has_target)
            c.actions.push_back({"wanted", line + bound,
                                 p.target.typed + " tol " +
                                     (angle ? units::formatAngle(p.tolerance) : units::formatLength(p.tolerance, step_)) + worth,
                                 true});
        else
            c.actions.push_back({"may miss by", line + "tol ", units::formatLength(p.tolerance, step_) + worth, true});
        c.actions.push_back({"take the pin out",
                             p.kind >= PinKind::Along
                                 ? "remove pin " + std::string(word(p.kind)) + points
                                 : "remove pin " + std::string(word(p.kind)) + " " + nameOf(b_, p.points.front()),
                             "", false});
        c.journal_table = "pin";
        c.journal_id = id.value;
        return c;
    }

    std::optional<Card> change() {
        if (!r_.seat->wheelbase_now_mm) return std::nullopt;
        Card c;
        c.title = "wheelbase";
        c.rows.push_back({"now", len(*r_.seat->wheelbase_now_mm), Mark::Derived, false});
        if (r_.seat->change_mm) {
            c.rows.push_back({"planned", len(*r_.seat->wheelbase_now_mm + *r_.seat->change_mm), Mark::Derived, true});
            c.rows.push_back(
                {"change",
                 len(*r_.seat->change_mm) + (r_.seat->change_decided ? ", decided" : " ± " + small(r_.seat->change_u95_mm)),
                 r_.seat->change_decided ? Mark::None : Mark::Derived, false});
        }
        if (r_.seat->change_both_centred_mm)
            c.rows.push_back({"centres both wheels",
                              len(*r_.seat->change_both_centred_mm) + " ± " + small(r_.seat->change_both_u95_mm), Mark::Derived,
                              false});
        if (r_.seat->change_mm && !r_.seat->change_decided)
            c.actions.push_back({"pin this", fmt::format("change {}", len(*r_.seat->change_mm)), "", false});
        if (r_.seat->change_decided) c.actions.push_back({"let the pins decide", "change free", "", false});
        c.actions.push_back({"change by", "change ", "", true});
        return c;
    }
};

} // namespace

std::optional<Card> sitCard(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    return SitCards(b, r, subject).make(tag);
}

} // namespace gorvet::analysis
