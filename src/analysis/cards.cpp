#include "analysis/cards.hpp"

#include "analysis/cards_survey.hpp"
#include "analysis/findings.hpp"
#include "analysis/sit_input.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

namespace {

Mark markOf(const Dimension& d) {
    return d.provenance == Provenance::Assumed ? Mark::Assumed : d.provenance == Provenance::Derived ? Mark::Derived : Mark::None;
}
class Maker {
public:
    Maker(const Build& b, const Results& r, Subject subject)
        : b_(b), r_(r), s_(r.of(subject)), subject_(subject), step_(b.settings.length_step) {}

    std::optional<Card> make(const std::string& tag) {
        const auto colon = tag.find(':');
        const std::string kind = tag.substr(0, colon);
        const std::string rest = colon == std::string::npos ? "" : tag.substr(colon + 1);
        std::uint32_t id = 0;
        std::from_chars(rest.data(), rest.data() + rest.size(), id);
        if (kind == "reading") return reading(ReadingId{id});
        if (kind == "point") return point(PointId{id});
        if (kind == "pin") return pin(PinId{id});
        if (kind == "mount") return mount(MountId{id});
        if (kind == "figure") return figure(rest);
        if (kind == "finding") return finding(id);
        if (kind == "change" || kind == "wheelbase") return change();
        if (kind == "cut") return cut();
        if (kind == "sleeve") return sleeve();
        if (kind == "rail") return rail();
        if (kind == "crossmember") return crossmember();
        if (kind == "findings") return findings();
        if (kind == "step") return step(rest);
        if (kind == "station") return station(rest);
        if (kind == "crossings") return crossings();
        for (size_t i = 0; i < s_.setup_ids.size() && i < s_.solution.setups.size(); ++i)
            if (kind == "setup" && s_.setup_ids[i].value == id) return setupCard(b_, s_, i);
        if (kind == "since" && s_.since.comparison.possible) return sinceCard(b_, s_);
        if (kind == "gaps") return gapsCard(b_);
        if (kind == "flaw") return flawCard(b_, r_, FlawId{id});
        if (kind == "repair") return repairCard(b_, r_);
        if (kind == "drawing" && s_.drawing.comparison.possible) return drawingCard(b_, s_);
        if (kind == "practice" && b_.practice.on) return practiceCard(b_, r_);
        if (kind == "obstacle") return obstacleCard(b_, ObstacleId{id});
        if (kind == "alignment") return alignmentCard(b_);
        return std::nullopt;
    }

private:
    std::string len(double mm) const { return units::formatLength(mm, step_, true); }
    std::string small(double mm) const { return units::formatSmall(mm, step_, true); }
    std::string provenance(const Dimension& d) const { return std::string(word(d.provenance)); }
    /// As typed, or the value when it never was.
    std::string current(const Dimension& d) const { return d.typed.empty() ? units::formatLength(d.value, step_) : d.typed; }

    std::optional<Card> reading(ReadingId id) {
        const auto found = std::find(s_.reading_ids.begin(), s_.reading_ids.end(), id);
        if (found == s_.reading_ids.end()) return std::nullopt;
        auto i = static_cast<int>(found - s_.reading_ids.begin());
        // of coordinates, the part that agrees least
        for (size_t k = 0; k < s_.reading_ids.size(); ++k)
            if (s_.reading_ids[k] == id && std::abs(s_.solution.readings[k].w) > std::abs(s_.solution.readings[i].w))
                i = static_cast<int>(k);
        const Reading& r = b_.readings.at(id);
        const auto& a = s_.solution.readings[i];
        const bool angle = isAngle(r.kind);
        const auto show = [&](double v) {
            return !std::isfinite(v) ? std::string("–") : angle ? units::formatAngle(v) : small(v);
        };
        Card c;
        c.title = readingName(s_.survey, i);
        c.word = tape::verdictWord(a.verdict);
        c.severity = a.verdict == tape::Verdict::Agrees     ? Severity::Good
                     : a.verdict == tape::Verdict::Doubtful ? Severity::Warn
                                                            : Severity::Bad;
        const std::string shown = angle ? units::formatAngle(r.value.value) : units::formatLength(r.value.value, step_, true);
        c.rows.push_back({"as read", r.value.typed, Mark::None, true});
        if (shown != r.value.typed && shown != r.value.typed + " mm") c.rows.push_back({"that is", shown, Mark::None, false});
        if (a.redundancy > 0 || a.set_aside) {
            c.rows.push_back({"the rest say", show(a.rest_says) + " ± " + show(a.rest_half_width), Mark::Derived, false});
            c.rows.push_back(
                {"off by", show(std::abs(r.value.value - a.rest_says)), Mark::Derived, a.verdict == tape::Verdict::Retape});
        }
        c.rows.push_back(
            {"checked", a.check == tape::Check::Checked ? units::fixed(100 * a.redundancy, 0) + " %" : tape::checkWords(a.check),
             Mark::Derived, false});
        if (std::isfinite(a.hides)) c.rows.push_back({"could hide", show(a.hides), Mark::Derived, false});
        if (!angle && a.verdict == tape::Verdict::Retape)
            if (auto slip = tape::likelySlip(r.value.value, a.rest_says, a.rest_half_width); !slip.empty())
                c.sentences.push_back(slip);
        if (a.verdict == tape::Verdict::Retape)
            for (const std::string& pair : tape::likelyPairs(s_.survey, s_.solution, i))
                c.sentences.push_back(pair + " The wrong point?");
        if (a.set_aside) c.sentences.emplace_back("Set aside until it is taped again: the points rest on the others.");
        if (!r.note.empty()) c.sentences.push_back(r.note);
        const auto session = b_.sessions.find(r.session);
        if (session != b_.sessions.end())
            c.rows.push_back(
                {"measured", session->second.name + ", on " + std::string(word(session->second.support)), Mark::None, false});
        if (const auto with = b_.instruments.find(r.instrument); with != b_.instruments.end())
            c.rows.push_back(
                {"with",
                 with->second.name + (with->second.checked.empty() ? ", not checked" : ", checked " + with->second.checked),
                 with->second.checked.empty() ? Mark::Assumed : Mark::None, false});
        const std::string pair = nameOf(b_, r.from) + (r.to ? " " + nameOf(b_, r.to) : "");
        const std::string kind(word(r.kind));
        if (r.kind == ReadingKind::Tape)
            c.actions.push_back({"taped again", "retape " + pair + " ", "", true});
        else
            c.actions.push_back({"read again", kind + " " + pair + " ", "", true});
        c.actions.push_back({"remove", "remove " + kind + " " + pair, "", false});
        c.journal_table = "reading";
        c.journal_id = id.value;
        return c;
    }

    std::optional<Card> point(PointId id) {
        const auto found = b_.points.find(id);
        if (found == b_.points.end()) return std::nullopt;
        const Point& p = found->second;
        const SurveyOf& s = r_.of(p.subject);
        const int i = s.indexOf(id);
        Card c;
        c.title = p.name + (p.role == Role::None ? "" : ", " + std::string(word(p.role)));
        if (i >= 0) {
            const auto& a = s.solution.points[i];
            static constexpr const char* labels[3] = {"station", "offset", "height"};
            const double xyz[3] = {a.position.x_mm, a.position.y_mm, a.position.z_mm};
            for (int axis = 0; axis < 3; ++axis) {
                const std::string value = !a.placed ? "–" : small(xyz[axis]);
                const std::string pm = a.assumed ? " ± " + small(tape::halfWidth(a.sd_mm[axis])) + ", assumed"
                                       : !std::isfinite(a.sd_mm[axis]) ? ", not fixed"
                                       : a.sd_mm[axis] == 0            ? ", held"
                                                                       : " ± " + small(tape::halfWidth(a.sd_mm[axis]));
                c.rows.push_back({labels[axis], value + pm,
                                  std::isfinite(a.sd_mm[axis]) && !a.assumed ? (a.sd_mm[axis] == 0 ? Mark::None : Mark::Derived)
                                                                             : Mark::Assumed,
                                  false});
            }
            if (!a.fixed) {
                c.word = "Doubtful";
                c.severity = Severity::Warn;
            }
            if (const auto at = r_.bodyInChassis(id); at && p.subject == Subject::Body)
                c.rows.push_back(
                    {"on the chassis",
                     fmt::format("{} · {} · {}", units::fixed(at->x_mm, 1), units::fixed(at->y_mm, 1), units::fixed(at->z_mm, 1)),
                     Mark::Derived, false});
        }
        if (!p.note.empty()) c.sentences.push_back(p.note);
        for (size_t k = 0; k < r_.flaw_ids.size(); ++k)
            if (b_.flaws.at(r_.flaw_ids[k]).point == id)
                c.sentences.push_back(r_.repair.flaws[k].sentence + " " + r_.repair.flaws[k].remedy);
        if (p.subject == subject_) c.actions.push_back({"found there", "found ", "crack " + p.name + " ", true});
        if (p.subject == subject_)
            c.actions.push_back({"role", "role " + p.name + " ", p.role == Role::None ? "" : std::string(word(p.role)), true});
        c.journal_table = "point";
        c.journal_id = id.value;
        return c;
    }

    std::optional<Card> figure(const std::string& key) {
        for (const auto& f : s_.condition.figures) {
            if (key != f.key) continue;
            Card c;
            c.title = f.name;
            c.rows.push_back({"figure", small(f.judged ? std::abs(f.value_mm) : f.value_mm) + " ± " + small(f.half_width_mm),
                              Mark::Derived, true});
            if (tape::isAngle(f.kind))
                c.rows.push_back({"as an angle",
                                  units::formatAngle(std::abs(f.angle_rad)) + " ± " + units::formatAngle(f.angle_half_width_rad),
                                  Mark::Derived, false});
            if (f.judged) {
                c.word = verdictWord(f.verdict);
                c.severity = severityOf(f.verdict);
                c.rows.push_back({"may be out by",
                                  f.kind == tape::FigureKind::Thrust ? units::formatAngle(f.limit) : small(f.limit), Mark::None,
                                  false});
                c.rows.push_back({"proven", f.proven ? "yes, " + f.words : "not proven", Mark::Derived, false});
                c.actions.push_back(
                    {"may be out by", "tolerance ", units::formatLength(b_.settings.frame_tolerance_mm, step_), true});
            }
            return c;
        }
        return std::nullopt;
    }

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
                points += (p.kind >= PinKind::Along ? " " + std::string(word(b_.points.at(point).subject)) + ":" : " ") +
                          nameOf(b_, point);
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
                              p.target.typed.empty() ? show(p.target.value) : p.target.typed, markOf(p.target), true});
        if (!worth.empty()) c.rows.push_back({"worth", worth.substr(1), Mark::None, false});
        const auto index = std::find(r_.pin_ids.begin(), r_.pin_ids.end(), id);
        if (index != r_.pin_ids.end()) {
            const auto& w = r_.seat.wishes[static_cast<size_t>(index - r_.pin_ids.begin())];
            if (w.usable) {
                c.word = verdictWord(w.verdict);
                c.severity = severityOf(w.verdict);
                c.rows.push_back({"comes to", show(w.achieved) + " ± " + show(w.half_width), Mark::Derived, false});
                c.rows.push_back({"misses by", show(std::abs(w.miss)), Mark::Derived, false});
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
        if (!r_.seat.wheelbase_now_mm) return std::nullopt;
        Card c;
        c.title = "wheelbase";
        c.rows.push_back({"now", len(*r_.seat.wheelbase_now_mm), Mark::Derived, false});
        if (r_.seat.change_mm) {
            c.rows.push_back({"planned", len(*r_.seat.wheelbase_now_mm + *r_.seat.change_mm), Mark::Derived, true});
            c.rows.push_back(
                {"change",
                 len(*r_.seat.change_mm) + (r_.seat.change_decided ? ", decided" : " ± " + small(r_.seat.change_half_width_mm)),
                 r_.seat.change_decided ? Mark::None : Mark::Derived, false});
        }
        if (r_.seat.change_both_centred_mm)
            c.rows.push_back({"centres both wheels",
                              len(*r_.seat.change_both_centred_mm) + " ± " + small(r_.seat.change_both_half_width_mm),
                              Mark::Derived, false});
        if (r_.seat.change_mm && !r_.seat.change_decided)
            c.actions.push_back({"pin this", fmt::format("change {}", len(*r_.seat.change_mm)), "", false});
        if (r_.seat.change_decided) c.actions.push_back({"let the pins decide", "change free", "", false});
        c.actions.push_back({"change by", "change ", "", true});
        return c;
    }

    std::optional<Card> cut() {
        Card c;
        c.title = "cut";
        if (b_.stretch.cut_station)
            c.rows.push_back({"station", len(b_.stretch.cut_station->value), markOf(*b_.stretch.cut_station), true});
        const auto& p = r_.stretch;
        if (p.status == stretch::Status::Planned) {
            c.word = verdictWord(p.verdict);
            c.severity = severityOf(p.verdict);
            const auto& cut = p.left.known ? p.left : p.right;
            c.rows.push_back({p.shortens ? "take out" : "let in", len(cut.length_mm), Mark::Derived, true});
            if (p.shortens) c.rows.push_back({"second cut at", len(cut.last_station_mm), Mark::Derived, false});
            if (!p.near.empty())
                c.rows.push_back(
                    {"nearest", p.near.front().obstacle.name + " at " + len(p.near.front().distance_mm), Mark::Derived, false});
            c.rows.push_back({"keep clear by", len(p.clearance_need_mm), Mark::Derived, false});
        }
        c.rows.push_back({"kerf", len(b_.stretch.kerf.value), markOf(b_.stretch.kerf), false});
        c.rows.push_back({"root gap", len(b_.stretch.root_gap.value), markOf(b_.stretch.root_gap), false});
        c.actions.push_back({"cut at", "cut ", b_.stretch.cut_station ? current(*b_.stretch.cut_station) : "", true});
        c.actions.push_back({"kerf", "kerf ", current(b_.stretch.kerf), true});
        c.actions.push_back({"root gap", "root-gap ", current(b_.stretch.root_gap), true});
        return c;
    }

    std::optional<Card> sleeve() {
        if (!r_.stretch.sleeve) return std::nullopt;
        const auto& s = *r_.stretch.sleeve;
        Card c;
        c.title = "inner sleeve";
        c.rows.push_back(
            {"section",
             fmt::format("{} × {} × {}", units::fixed(s.height_mm, 1), units::fixed(s.width_mm, 1), units::fixed(s.wall_mm, 1)),
             Mark::Derived, true});
        c.rows.push_back({"length", len(s.length_mm), Mark::Derived, false});
        c.rows.push_back({"overlap", len(s.overlap_mm) + " each side", Mark::Derived, false});
        c.rows.push_back({"fit", len(b_.stretch.sleeve_fit.value) + " a side", markOf(b_.stretch.sleeve_fit), false});
        c.sentences.emplace_back(
            "Plug welds are sized for the rail's modulus at 210/1.5 MPa, filler 480, by half as much again. Structural welds are made or approved by licensed people.");
        if (r_.stretch.splice) {
            const auto& splice = *r_.stretch.splice;
            c.rows.push_back(
                {"beside the rail", units::fixed(100 * splice.share(), 0) + " % of its modulus", Mark::Derived, true});
            c.rows.push_back(
                {"plug welds",
                 fmt::format("{} of {} mm a flange, each side", splice.plugs.needed, units::fixed(splice.plugs.hole_mm, 0)),
                 Mark::Derived, false});
            c.rows.push_back({"fit there", std::to_string(splice.plugs.fit()), Mark::Derived, false});
            c.rows.push_back({"pitch", len(splice.plugs.pitch_mm), Mark::Derived, false});
        }
        c.actions.push_back({"wall", "sleeve-wall ", b_.stretch.sleeve_wall ? current(*b_.stretch.sleeve_wall) : "", true});
        c.actions.push_back({"fish plates", "fish-plate ", b_.stretch.fish_plate ? current(*b_.stretch.fish_plate) : "", true});
        c.actions.push_back({"fit", "sleeve-fit ", current(b_.stretch.sleeve_fit), true});
        c.actions.push_back({"rail heights", "overlap ", units::fixed(b_.stretch.sleeve_overlap_heights.value, 1), true});
        return c;
    }

    std::optional<Card> rail() {
        Card c;
        c.title = "rail section";
        c.rows.push_back({"height", len(b_.rail.height.value), markOf(b_.rail.height), false});
        c.rows.push_back({"width", len(b_.rail.width.value), markOf(b_.rail.width), false});
        c.rows.push_back({"wall", len(b_.rail.thickness.value), markOf(b_.rail.thickness), false});
        c.rows.push_back({"shape", std::string(word(b_.rail.shape)), Mark::None, false});
        c.rows.push_back({"points on its", std::string(word(b_.rail.datum_face)) + " face", Mark::None, false});
        c.actions.push_back({"section", "rail ",
                             fmt::format("{:g} x {:g} x {:g} {} {}", b_.rail.height.value, b_.rail.width.value,
                                         b_.rail.thickness.value, word(b_.rail.shape), word(b_.rail.datum_face)),
                             true});
        return c;
    }

    std::optional<Card> mount(MountId id) {
        const auto found = b_.mounts.find(id);
        if (found == b_.mounts.end()) return std::nullopt;
        Card c;
        const std::string name = nameOf(b_, found->second.body_point);
        c.title = "mount " + name;
        const auto index = std::find(r_.mount_ids.begin(), r_.mount_ids.end(), id);
        if (index != r_.mount_ids.end()) {
            const auto& m = r_.mounts[static_cast<size_t>(index - r_.mount_ids.begin())];
            c.word = verdictWord(m.verdict);
            c.severity = severityOf(m.verdict);
            if (m.on_rail) {
                c.rows.push_back({"gap", small(m.gap_mm) + " ± " + small(m.half_width_mm), Mark::Derived, true});
                c.rows.push_back({"washer", small(m.washer_mm), markOf(b_.mount_design.washer), false});
                c.rows.push_back({"biscuit, squashed", small(m.biscuit_mm), markOf(b_.mount_design.biscuit_free), false});
                c.rows.push_back({"standoff", small(m.standoff_mm), Mark::Derived, false});
                std::string shims;
                for (const double s : m.shims_mm) shims += fmt::format("{}{:g}", shims.empty() ? "" : " + ", s);
                c.rows.push_back({"shims", shims.empty() ? "none" : shims + " mm", Mark::Derived, false});
                c.rows.push_back({"bolt",
                                  m.bolt_length_mm ? fmt::format("M{:g} × {:g}", m.bolt_mm, *m.bolt_length_mm) : "none fits",
                                  Mark::Derived, false});
                c.rows.push_back({"into", m.nut, Mark::Derived, true});
            }
            if (!m.sentence.empty()) c.sentences.push_back(m.sentence + " " + m.remedy);
        } else {
            c.word = "Marginal";
            c.severity = Severity::Warn;
            c.sentences.emplace_back("It waits until the body has a place.");
        }
        c.actions.push_back({"biscuit", "biscuit ", current(b_.mount_design.biscuit_free), true});
        c.actions.push_back({"rail station", "mount " + name + " at ",
                             found->second.rail_station ? current(*found->second.rail_station) : "", true});
        c.actions.push_back({"remove", "remove mount " + name, "", false});
        c.journal_table = "mount";
        c.journal_id = id.value;
        return c;
    }

    std::optional<Card> crossmember() {
        if (!b_.crossmember) return std::nullopt;
        const auto& d = *b_.crossmember;
        const auto& p = r_.crossmember;
        Card c;
        c.title = "crossmember";
        c.word = verdictWord(p.verdict);
        c.severity = severityOf(p.verdict);
        if (p.possible) {
            if (p.dropped) {
                c.rows.push_back({"middle", len(p.dropped->middle_mm) + " long", Mark::Derived, true});
                c.rows.push_back({"dropped by", len(p.dropped->drop_mm), Mark::Derived, false});
                c.rows.push_back({"legs",
                                  units::formatAngle(p.dropped->left.angle_rad, 1) + " and " +
                                      units::formatAngle(p.dropped->right.angle_rad, 1),
                                  Mark::Derived, false});
            } else {
                c.rows.push_back({"bridge", len(p.box_length_mm) + " long", Mark::Derived, true});
            }
            if (p.pan_over) c.rows.push_back({"clear of the pan", small(p.pan_gap_mm), Mark::Derived, false});
            c.rows.push_back({"free for the bolts", len(p.bolt_free_mm), Mark::Derived, false});
            c.rows.push_back({"between rails", len(p.between_rails_mm), Mark::Derived, false});
            c.rows.push_back({"bolts",
                              p.bolt_length_mm ? fmt::format("{} × M{:g} × {:g}", p.left.holes.size() + p.right.holes.size(),
                                                             p.bolt_mm, *p.bolt_length_mm)
                                               : "none fits",
                              Mark::Derived, false});
            c.rows.push_back({"mass", units::formatMass(p.mass_kg), Mark::Derived, false});
        } else {
            c.sentences.push_back("It waits for " + p.waiting_for + ".");
        }
        c.rows.push_back({"isolator", len(d.isolator.value), markOf(d.isolator), false});
        c.rows.push_back({"box", fmt::format("{:g} × {:g} × {:g}", d.box_width.value, d.box_height.value, d.box_wall.value),
                          markOf(d.box_height), false});
        c.actions.push_back(d.form == CrossmemberForm::Dropped
                                ? CardAction{"straight form", "crossmember form straight", "", false}
                                : CardAction{"dropped form", "crossmember form dropped", "", false});
        c.actions.push_back(d.fixing == Fixing::Captive ? CardAction{"bolts through", "crossmember fixing through", "", false}
                                                        : CardAction{"captive nuts", "crossmember fixing captive", "", false});
        c.actions.push_back({"isolator", "isolator ", current(d.isolator), true});
        c.actions.push_back(
            {"box", "box ", fmt::format("{:g} x {:g} x {:g}", d.box_width.value, d.box_height.value, d.box_wall.value), true});
        c.actions.push_back({"flange", "flange ", current(d.flange), true});
        return c;
    }

    std::optional<Card> step(const std::string& code) {
        const work::Step* s = r_.work.find(code);
        if (!s) return std::nullopt;
        Card c;
        c.title = s->title;
        c.word = work::statusWord(s->status);
        c.severity = s->status == work::Status::Done                      ? Severity::Good
                     : s->status == work::Status::HoldPoint && !s->open() ? Severity::Bad
                     : s->status == work::Status::Waiting                 ? Severity::Warn
                                                                          : Severity::Good;
        if (s->body) c.rows.push_back({"body", *s->body == BodyPlace::On ? "on" : "off", Mark::None, false});
        if (s->attitude)
            c.rows.push_back({"frame", *s->attitude == Attitude::Inverted ? "upside down" : "right way up", Mark::None, false});
        for (const work::CheckItem& check : s->checks)
            c.rows.push_back({check.name,
                              fmt::format("{} ± {}{}", len(check.plan_mm), small(check.tolerance_mm),
                                          check.read_mm ? ", read " + small(*check.read_mm) : ", not read"),
                              Mark::Derived, check.read_mm && !check.agrees()});
        if (s->tick) {
            c.rows.push_back({"ticked by", s->tick->who, Mark::None, false});
            c.rows.push_back({"on", s->tick->at_utc.substr(0, 10), Mark::None, false});
            if (!s->tick->photo.empty()) c.rows.push_back({"photo", "kept, " + s->tick->photo.substr(0, 8), Mark::None, false});
            if (!s->tick->note.empty()) c.sentences.push_back(s->tick->note);
            c.journal_table = "tick";
            c.journal_id = s->tick->id.value;
        }
        if (!s->why.empty()) c.sentences.push_back(s->why);
        if (!s->waits_for.empty()) c.sentences.push_back((s->hold ? "It stays shut: " : "It waits: ") + s->waits_for + ".");
        if (s->no_return) c.sentences.emplace_back("There is no way back from here.");
        for (const std::string& b : s->before_return) c.sentences.push_back("– " + b);
        for (const std::string& caution : s->cautions) c.sentences.push_back("Caution: " + caution);
        if (s->status == work::Status::Done) {
            c.actions.push_back({"note", "done " + code + " note ", s->tick->note, true});
            c.actions.push_back(
                {s->tick->photo.empty() ? "add a photo" : "another photo", "done " + code + " photo ", "", false, true});
            c.actions.push_back({"not done after all", "undone " + code, "", false});
        } else if (s->open()) {
            c.actions.push_back({"done", "done " + code, "", false});
            c.actions.push_back({"done, with a note", "done " + code + " note ", "", true});
            c.actions.push_back({"done, with a photo", "done " + code + " photo ", "", false, true});
        }
        return c;
    }

    std::optional<Card> station(const std::string& name) {
        for (const auto& c : r_.stretch.candidates) {
            if (units::fixed(c.station_mm, 0) != name) continue;
            Card card;
            card.title = "a cut at " + len(c.station_mm);
            card.rows.push_back({"scores", units::fixed(c.score, 1) + " of 10", Mark::Derived, true});
            for (const std::string& reason : c.reasons) card.sentences.push_back("– " + reason);
            card.sentences.emplace_back("Bending and shear are assumed from an even load between the axles.");
            card.actions.push_back({"cut here", "cut " + units::formatLength(c.station_mm, step_, true), "", false});
            return card;
        }
        return std::nullopt;
    }

    std::optional<Card> crossings() {
        Card card;
        card.title = "what crosses the cut";
        for (const auto& c : r_.stretch.crossings) {
            card.rows.push_back({std::string(word(c.kind)), c.slack_mm ? "slack " + len(*c.slack_mm) : "slack not measured",
                                 c.slack_mm ? Mark::None : Mark::Assumed, !c.follows});
            card.sentences.push_back(c.answer + (c.caution.empty() ? "" : " " + c.caution));
        }
        card.actions.push_back({"say of one", "crossing ", "", true});
        return card;
    }

    std::optional<Card> findings() {
        Card c;
        c.title = fmt::format("{} findings", r_.findings.size());
        for (const Finding& f : r_.findings) c.rows.push_back({f.brief, f.word, Mark::None, f.severity == Severity::Bad});
        return c;
    }

    std::optional<Card> finding(std::uint32_t index) {
        if (index >= r_.findings.size()) return std::nullopt;
        const Finding& f = r_.findings[index];
        Card c;
        c.title = f.subject;
        c.word = f.word;
        c.severity = f.severity;
        if (!f.figure.empty()) c.rows.push_back({"figure", f.figure, Mark::Derived, true});
        if (!f.need.empty()) c.rows.push_back({"allowed or needed", f.need, Mark::None, false});
        c.sentences.push_back(f.sentence);
        if (!f.remedy.empty()) c.sentences.push_back(f.remedy);
        return c;
    }

    const Build& b_;
    const Results& r_;
    const SurveyOf& s_;
    Subject subject_;
    units::LengthStep step_;
};

} // namespace

std::optional<Card> cardFor(const Build& b, const Results& r, Subject subject, const std::string& tag) {
    return Maker(b, r, subject).make(tag);
}

} // namespace gorvet::analysis
