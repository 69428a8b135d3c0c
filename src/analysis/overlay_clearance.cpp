#include "analysis/overlay_clearance.hpp"

#include "analysis/overlay_parts.hpp"
#include "analysis/wording.hpp"

#include "sit/pairs_sheet.hpp"
#include "units/quantity.hpp"

#include <algorithm>
#include <charconv>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using geometry::RigidTransform;
using shape::Mesh;

namespace {

const char* word(sit::Band b) { return b == sit::Band::Fouls ? "Fouls" : b == sit::Band::Tight ? "Tight" : "Clear"; }

std::string side(double offset, units::LengthStep step) {
    if (std::abs(offset) < 25) return "in the middle";
    return fmt::format("{} {}", sit::wholeLength(std::abs(offset), step), offset < 0 ? "left" : "right");
}

} // namespace

sit::Need needOf(const Overlay& o, ScanPart one, ScanPart other, bool moves) {
    const PairNeed p = pairNeed(o.placing, one, other);
    sit::Need need = o.need;
    need.least_mm = p.least_mm;
    need.finish_mm = p.finish_mm;
    if (!moves) need.u95_mm = 0;
    need.cap_mm = std::max(100.0, 2 * need.tightBelow());
    return need;
}

CutRules cutRulesOf(const Build& b) { return {b.clearances, b.zones}; }

sit::CutOptions cutOptionsOf(const CutRules& b, const sit::Need& need) {
    sit::CutOptions o;
    o.need = need;
    o.margin_mm = b.clearances.margin.value;
    o.flange_mm = b.clearances.flange.value;
    o.thickness_mm = b.clearances.sheet.value;
    for (const auto& [id, z] : b.zones) {
        const auto kind = z.rule == ZoneRule::Never   ? sit::ZoneKind::Never
                          : z.rule == ZoneRule::Brace ? sit::ZoneKind::Brace
                                                      : sit::ZoneKind::Named;
        o.zones.push_back({z.name, kind, {pointOf(z.from), pointOf(z.to)}});
    }
    return o;
}

bool unlikeNeeds(const Overlay& o) {
    for (const auto& m : o.body_parts)
        for (const auto& f : o.on_chassis) {
            const sit::Need need = needOf(o, m.kind, f.kind, true);
            if (need.least_mm != o.need.least_mm || need.finish_mm != o.need.finish_mm) return true;
        }
    return false;
}

sit::LiveClearance liveOf(const Overlay& o, const RigidTransform& seat, int threads, const std::function<bool()>& stop) {
    // all parts need the same and stand still: the whole in one
    const auto sweeps = [](const Overlay::Part& p) { return p.part.sweep.has_value(); };
    if (!unlikeNeeds(o) && std::none_of(o.body_parts.begin(), o.body_parts.end(), sweeps) &&
        std::none_of(o.on_chassis.begin(), o.on_chassis.end(), sweeps))
        return sit::liveClearance(*o.body, *o.chassis, seat, o.need, threads, stop);
    sit::LiveClearance all;
    all.least_mm = o.need.cap_mm;
    for (const auto& m : o.body_parts) {
        // as all stands, then each at the ends of its own travel
        std::vector<sit::MapAgainst> fixed;
        const auto words = [](const Overlay::Part& p, const sit::SweepEnd& end) {
            return end.words + (p.sweep_assumed && !end.words.empty() ? " (assumed)" : "");
        };
        const auto swings = m.part.sweep ? sit::endsOf(*m.part.sweep) : std::vector<sit::SweepEnd>{};
        for (const auto& f : o.on_chassis) {
            const sit::Need need = needOf(o, m.kind, f.kind, true);
            fixed.push_back({f.part.ready.get(), need, {}, {}, {}});
            for (const sit::SweepEnd& end : swings) fixed.push_back({f.part.ready.get(), need, end.pose, {}, words(m, end)});
            if (!f.part.sweep) continue;
            for (const sit::SweepEnd& end : sit::endsOf(*f.part.sweep))
                fixed.push_back({f.part.ready.get(), need, {}, end.pose, words(f, end)});
        }
        auto live = sit::worstOf(*m.part.ready, fixed, seat, o.need, threads, stop);
        auto& to = all.map.distance_mm;
        to.insert(to.end(), live.map.distance_mm.begin(), live.map.distance_mm.end());
        all.map.has_inside = all.map.has_inside || live.map.has_inside;
        all.clear += live.clear;
        all.tight += live.tight;
        all.fouls += live.fouls;
        if (live.least_mm < all.least_mm || &m == &o.body_parts.front()) {
            all.least_mm = live.least_mm;
            all.at = live.at;
            all.pose = live.pose;
        }
    }
    return all;
}

std::optional<OverlayClearance> clearanceOf(const Overlay& o, int threads, const std::function<bool()>& stop) {
    OverlayClearance c;
    const auto stopped = [&] { return stop && stop(); };
    c.live = liveOf(o, o.seat, threads, stop);
    if (stopped()) return std::nullopt;
    c.crossings = shape::crossings(*o.body->tree, *o.chassis->tree, o.seat, threads, stop);
    if (stopped()) return std::nullopt;
    const auto one = [&](SubjectId s, size_t i, SubjectId t, size_t j) {
        const Overlay::Part& m = o.of(s)[i];
        const Overlay::Part& f = o.of(t)[j];
        OverlayPair p;
        p.moving = s;
        p.fixed = t;
        p.assumed = pairNeed(o.placing, m.kind, f.kind).assumed;
        auto found = sit::pairClearance(m.part, f.part, s == t ? RigidTransform{} : o.seat, needOf(o, m.kind, f.kind, s != t),
                                        threads, stop);
        if (!found) return false;
        p.pair = std::move(*found);
        p.pair.moving = i;
        p.pair.fixed = j;
        if (!p.pair.pose.empty() && ((m.part.sweep && m.sweep_assumed) || (f.part.sweep && f.sweep_assumed)))
            p.pair.pose += " (assumed)";
        if (s == t && s == the_body) {
            p.pair.at = o.seat.transformed(p.pair.at);
            for (sit::Contact& k : p.pair.contacts) k.at = o.seat.transformed(k.at);
        }
        c.pairs.push_back(std::move(p));
        return true;
    };
    for (size_t i = 0; i < o.body_parts.size(); ++i)
        for (size_t j = 0; j < o.on_chassis.size(); ++j)
            if (!one(the_body, i, the_chassis, j)) return std::nullopt;
    for (const SubjectId s : {the_body, the_chassis})
        for (size_t i = 0; i < o.of(s).size(); ++i)
            for (size_t j = i + 1; j < o.of(s).size(); ++j)
                if (watchedOnOneSubject(o.placing, o.of(s)[i].kind, o.of(s)[j].kind) && !one(s, i, s, j)) return std::nullopt;
    const auto shortOf = [](const sit::Pair& p, double distance) { return p.need.foulsBelow() - distance; };
    std::stable_sort(c.pairs.begin(), c.pairs.end(), [&](const OverlayPair& x, const OverlayPair& y) {
        if (x.pair.band != y.pair.band) return x.pair.band > y.pair.band;
        return shortOf(x.pair, x.pair.least_mm) > shortOf(y.pair, y.pair.least_mm);
    });
    c.least_mm = o.need.cap_mm;
    for (size_t k = 0; k < c.pairs.size(); ++k) {
        const sit::Pair& p = c.pairs[k].pair;
        if (c.pairs[k].moving != c.pairs[k].fixed) c.least_mm = std::min(c.least_mm, p.least_mm);
        for (const sit::Contact& contact : p.contacts) c.places.push_back({k, contact, shortOf(p, contact.distance_mm)});
    }
    std::stable_sort(c.places.begin(), c.places.end(), [](const auto& x, const auto& y) {
        if (x.contact.band != y.contact.band) return x.contact.band > y.contact.band;
        return x.short_mm != y.short_mm ? x.short_mm > y.short_mm : x.contact.area_mm2 > y.contact.area_mm2;
    });
    return c;
}

Result<sit::CutMap> cutMapOf(const Overlay& o, const CutRules& rules, int threads, const std::function<bool()>& stop,
                             const std::vector<sit::CutAgainst>& besides) {
    std::vector<sit::CutAgainst> against = besides;
    bool guessed = false;
    for (const Overlay::Part& f : o.on_chassis) {
        // the body's own sheet is what is cut, whichever of its scans it is on
        const double extra = needOf(o, ScanPart::Body, f.kind, true).foulsBelow() - o.need.foulsBelow();
        against.push_back({f.part.ready.get(), extra, {}});
        if (!f.part.sweep) continue;
        if (f.sweep_assumed) {
            guessed = true;
            continue;
        }
        for (const sit::SweepEnd& end : sit::endsOf(*f.part.sweep)) against.push_back({f.part.ready.get(), extra, end.pose});
    }
    // an envelope of the body is no sheet: it is not cut
    auto sheet = o.body;
    if (std::any_of(o.body_parts.begin(), o.body_parts.end(), [](const Overlay::Part& p) { return !p.scan; })) {
        Mesh scans;
        for (const Overlay::Part& p : o.body_parts)
            if (p.scan) append(scans, *p.part.ready->mesh);
        sheet = std::make_shared<const sit::Ready>(sit::readyOf(std::make_shared<const Mesh>(std::move(scans)), threads));
    }
    auto map = sit::cutMap(*sheet, against, o.seat, cutOptionsOf(rules, o.need), threads, stop);
    if (map && guessed)
        map->remarks.emplace_back(
            "What moves was taken as it stands: nobody cuts by an assumed travel. Type it, and its ends count: travel front bump 70.");
    return map;
}

std::string partName(const Overlay& o, SubjectId s, size_t part) {
    const auto& parts = o.of(s);
    const Overlay::Part& p = parts[part];
    const auto alike = std::count_if(parts.begin(), parts.end(), [&](const Overlay::Part& q) { return q.kind == p.kind; });
    if (alike > 1 || p.kind == ScanPart::Other) return p.part.name;
    std::string name = "the " + std::string(build::word(p.kind));
    std::replace(name.begin(), name.end(), '-', ' ');
    return name;
}

namespace {
ScanPart kindAt(const Overlay& o, SubjectId s, size_t part) { return o.of(s)[part].kind; }

/// Of the places that are not named one by one, the worst ones being.
Finding furtherPlaces(const OverlayClearance& c, size_t named) {
    const auto foul =
        static_cast<size_t>(std::count_if(c.places.begin() + static_cast<std::ptrdiff_t>(named), c.places.end(),
                                          [](const OverlayClearance::Place& p) { return p.contact.band == sit::Band::Fouls; }));
    const size_t more = c.places.size() - named, tight = more - foul;
    Finding f;
    f.severity = foul ? sheet::Severity::Bad : sheet::Severity::Warn;
    f.code = "scan.more-places";
    f.subject = "clearances";
    f.word = word(foul ? sit::Band::Fouls : sit::Band::Tight);
    f.figure = std::to_string(more);
    const auto that = [](size_t n, const char* one, const char* many) {
        return n ? units::counted(n, "a place") + " " + (n == 1 ? one : many) : std::string();
    };
    f.sentence = fmt::format("Besides these {}{}{}.", that(foul, "fouls", "foul"), foul && tight ? ", and " : "",
                             that(tight, "is tight", "are tight"));
    f.remedy = "See to the worst first: most go with it. All are on the map of bands; gorvet-cli overlay lists every pair.";
    f.brief = fmt::format("{} more", more);
    return f;
}
} // namespace

std::vector<Finding> clearanceFindings(const Build& b, const Overlay& o, const OverlayClearance& c, size_t most) {
    std::vector<Finding> list;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    const auto whole = [&](double mm) { return sit::wholeLength(mm, b.settings.length_step); };
    for (const OverlayClearance::Place& place : c.places) {
        if (list.size() == most) break;
        const sit::Contact& k = place.contact;
        const OverlayPair& pair = c.pairs[place.pair];
        const sit::Need& need = pair.pair.need;
        const std::string one = capital(partName(o, pair.moving, pair.pair.moving)),
                          other = partName(o, pair.fixed, pair.pair.fixed);
        Finding f;
        f.severity = k.band == sit::Band::Fouls ? sheet::Severity::Bad : sheet::Severity::Warn;
        f.code = k.band == sit::Band::Fouls ? "scan.fouls" : "scan.tight";
        f.subject = fmt::format("{} and {}", partName(o, pair.moving, pair.pair.moving), other);
        f.word = word(k.band);
        f.need = len(need.least_mm) + (pair.assumed ? " ?" : "");
        const std::string where =
            fmt::format("at station {}, {}, height {}{}", whole(k.at[0]), side(k.at[1], b.settings.length_step), whole(k.at[2]),
                        pair.pair.pose.empty() ? "" : ", " + pair.pair.pose);
        const std::string needs = fmt::format(
            "Needs {} clear{}{}.", len(need.least_mm), pair.assumed ? " (assumed)" : "",
            need.finish_mm + need.u95_mm > 0 ? fmt::format(", with {} for finish and ±", len(need.finish_mm + need.u95_mm)) : "");
        f.figure = len(std::abs(k.distance_mm));
        if (k.distance_mm < 0)
            f.sentence = fmt::format("{} fouls {} by {} {}. {}", one, other, len(-k.distance_mm), where, needs);
        else if (k.meets && pair.pair.depth_known)
            f.sentence = fmt::format("{} touches {} {}. {}", one, other, where, needs);
        else if (k.meets)
            f.sentence = fmt::format("{} and {} run through each other {}; neither is closed there, so how deep is not known.",
                                     one, other, where);
        else
            f.sentence = fmt::format("{} comes within {} of {} {}. {}", one, len(k.distance_mm), other, where, needs);
        if (k.band == sit::Band::Fouls && pair.moving != pair.fixed)
            f.remedy = fmt::format("Raise or move the body by {} there, or cut it: the cut map says where.", len(place.short_mm));
        else if (k.band == sit::Band::Fouls)
            f.remedy = fmt::format("Move one of them by {}, or shield it and say what it then needs.", len(place.short_mm));
        else
            f.remedy = "Measure it again once the body sits, before anything is welded.";
        f.station_mm = k.at[0];
        // what it is about: the part that is not simply body or chassis, and by how much
        const bool by_moving = kindAt(o, pair.fixed, pair.pair.fixed) == ScanPart::Chassis &&
                               kindAt(o, pair.moving, pair.pair.moving) != ScanPart::Body;
        std::string about = by_moving ? partName(o, pair.moving, pair.pair.moving) : other;
        if (about.starts_with("the ")) about.erase(0, 4);
        std::replace(about.begin(), about.end(), '-', ' ');
        f.brief = fmt::format("{} {}{}", about, k.distance_mm < 0 ? "−" : "",
                              units::formatSmall(std::abs(k.distance_mm), b.settings.length_step));
        f.tag = fmt::format("contact:{}", list.size() + 1);
        list.push_back(std::move(f));
    }
    if (c.places.size() > list.size()) list.push_back(furtherPlaces(c, list.size()));
    return list;
}

const OverlayClearance::Place* placeOf(const OverlayClearance& c, std::string_view tag) {
    constexpr std::string_view begins = "contact:";
    size_t number = 0;
    if (!tag.starts_with(begins) ||
        std::from_chars(tag.data() + begins.size(), tag.data() + tag.size(), number).ec != std::errc{})
        return nullptr;
    return number >= 1 && number <= c.places.size() ? &c.places[number - 1] : nullptr;
}

Headline overlayHeadline(const Build& b, const Overlay& o, const OverlayClearance* c) {
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    if (b.scans.empty())
        return {"Nothing was scanned yet.",
                "Add a scan of the body and one of the chassis: then you see where they foul before the first cut."};
    std::string remarks = fmt::format("{}", fmt::join(o.remarks, " "));
    if (!o.complete()) {
        if (!o.hasBody() && !o.hasChassis()) return {"The scans are being read.", remarks};
        return {o.hasBody() ? "The body is scanned, the chassis is not." : "The chassis is scanned, the body is not.", remarks};
    }
    if (!c) return {"Looking for what fouls…", remarks};
    const auto fouls =
        std::count_if(c->places.begin(), c->places.end(), [](const auto& k) { return k.contact.band == sit::Band::Fouls; });
    Headline h;
    if (!c->places.empty()) {
        const auto& w = c->places.front();
        const OverlayPair& pair = c->pairs[w.pair];
        const std::string one = capital(partName(o, pair.moving, pair.pair.moving)),
                          other = partName(o, pair.fixed, pair.pair.fixed);
        const double by = -w.contact.distance_mm;
        if (fouls > 0)
            h.sentence = fmt::format("{} fouls {}{} at station {}{}.", one, other, by > 0 ? " by " + len(by) : "",
                                     sit::wholeLength(w.contact.at[0], b.settings.length_step),
                                     fouls > 1 ? fmt::format(": the worst of {} places", fouls) : "");
        else
            h.sentence = fmt::format("The body clears the chassis, but {} is tight to {}: {} at station {}.",
                                     partName(o, pair.moving, pair.pair.moving), other, len(w.contact.distance_mm),
                                     sit::wholeLength(w.contact.at[0], b.settings.length_step));
    } else {
        h.sentence = c->least_mm < o.need.cap_mm
                         ? fmt::format("The body clears the chassis by {}.", len(c->least_mm))
                         : fmt::format("The body clears the chassis by more than {}.", len(o.need.cap_mm));
    }
    const auto guessed = std::count_if(c->pairs.begin(), c->pairs.end(), [](const OverlayPair& p) { return p.assumed; });
    h.below = fmt::format(
        "{} pairs of parts{}; {}.", c->pairs.size(),
        guessed == 0 ? ""
                     : fmt::format(", {} by assumed clearances",
                                   guessed == static_cast<long>(c->pairs.size()) ? "all" : std::to_string(guessed)),
        o.need.u95_mm > 0 ? fmt::format("the seat's ± {} is taken off", len(o.need.u95_mm)) : "the ± of the scans is not known");
    if (!remarks.empty()) h.below += " " + remarks;
    return h;
}

sheet::Drawing pairsView(const Build& b, const Overlay& o, const OverlayClearance& c, double width, double height,
                         const sheet::Format& f) {
    sit::PairsView v;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    for (const OverlayPair& p : c.pairs) {
        sit::PairRow row;
        row.name = capital(partName(o, p.moving, p.pair.moving)) + " to " + partName(o, p.fixed, p.pair.fixed);
        const sit::Need& need = p.pair.need;
        row.need = len(need.least_mm);
        const double taken = need.finish_mm + need.u95_mm;
        if (taken > 0) row.need_more = fmt::format("+ {} finish and ±", units::formatSmall(taken, b.settings.length_step));
        row.assumed = p.assumed;
        row.fouls_below = need.foulsBelow();
        row.tight_below = need.tightBelow();
        row.far = p.pair.least_mm >= need.cap_mm;
        row.distance = p.pair.least_mm;
        row.text = row.far                               ? "over " + len(need.cap_mm)
                   : p.pair.meets && !p.pair.depth_known ? "through"
                   : p.pair.least_mm < 0                 ? "−" + len(-p.pair.least_mm)
                                                         : len(p.pair.least_mm);
        row.severity = p.pair.band == sit::Band::Fouls   ? sheet::Severity::Bad
                       : p.pair.band == sit::Band::Tight ? sheet::Severity::Warn
                                                         : sheet::Severity::Good;
        // an assumed figure never makes a green verdict; what is far off would be clear by any
        if (p.assumed && row.severity == sheet::Severity::Good && !row.far) row.severity = sheet::Severity::Warn;
        row.word = row.far || p.pair.band != sit::Band::Clear || !p.assumed ? word(p.pair.band) : "Clear, if that is enough";
        if (!row.far) {
            row.where =
                fmt::format("station {}, {}, height {}", sit::wholeLength(p.pair.at[0], b.settings.length_step),
                            side(p.pair.at[1], b.settings.length_step), sit::wholeLength(p.pair.at[2], b.settings.length_step));
            row.pose = p.pair.pose;
        }
        if (p.pair.poses > 1 && row.pose.empty()) row.pose = fmt::format("{} poses", p.pair.poses);
        if (p.pair.between_mm > 0.5 && !row.far)
            row.pose += fmt::format(", at most {} nearer between poses",
                                    sit::wholeLength(std::ceil(p.pair.between_mm), b.settings.length_step));
        v.rows.push_back(std::move(row));
    }
    v.remarks.emplace_back("Clearances with ? are usual practice and not yours: type clearance between PART PART length.");
    v.remarks.emplace_back(
        "What moves is taken through the travel that is typed (travel front bump 70, swing bonnet …); tyres grow and mounts sag beyond it.");
    v.remarks.emplace_back(
        "A wheel is steered about an upright through its middle: a pivot that leans or stands inboard takes more room.");
    return sit::pairsSheet(v, width, std::max(height, sit::pairsHeight(v, f)), f);
}

} // namespace gorvet::analysis
