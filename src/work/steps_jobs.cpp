// Jobs of one's own among the steps of the plan, and what the register and the suppliers hold up.
#include "work/catalogue.hpp"
#include "work/needs.hpp"

namespace gorvet::work {

const KindOfWork& kindOfWork(JobKind kind) {
    static const std::vector<KindOfWork> kinds = {
        {},                                            // general
        {false, {springs_loaded}},                     // take apart
        {},                                            // fit
        {},                                            // measure
        {false, {dirt}},                               // clean
        {true, {discs, hot_work, plates_and_numbers}}, // cut
        {true, {discs, hot_work}},                     // grind
        {true, {licensed_welds, hot_work, fumes}},     // weld
        {false, {blasting, second_person}},            // blast
        {false, {nobody_under, lift_check, jack}},     // lift
        {false, {fuel_open}},                          // fuel
        {false, {battery_order, high_voltage}},        // electrical
        {false, {brakes, dirt}},                       // brakes
        {false, {springs_loaded, jack}},               // springs
        {false, {refrigerant}},                        // refrigerant
        {false, {restraints}},                         // restraints
        {false, {glass_work, second_person}},          // glass
        {false, {sealers}},                            // seal
        {false, {coating}},                            // paint
        {false, {running, second_person}},             // test
    };
    return kinds.at(static_cast<size_t>(kind));
}

void Catalogue::ownJobs() {
    for (const Job& j : f_.jobs) ownJob(j);
    for (const Job& j : f_.jobs) ownNeeds(j);
    hotBeforeFuel();
    bodyDownLast();
    spaces();
    coatsLast();
}

void Catalogue::ownJob(const Job& j) {
    const KindOfWork& kind = kindOfWork(j.kind);
    Step& s = add("job-" + j.name, j.title.empty() ? j.name : j.title);
    s.job = j.id;
    s.kind = j.kind;
    s.area = j.area;
    s.closes = j.closes;
    s.inside = j.inside;
    s.wanted = j.wanted;
    s.least_h = j.least_h;
    s.likely_h = j.likely_h;
    s.most_h = j.most_h;
    s.rest_h = j.rest_h;
    s.people = j.people;
    s.why = j.note;
    s.hot = kind.hot;
    s.support = j.support;
    s.cautions.assign(kind.cautions.begin(), kind.cautions.end());
    if (j.people > 1 && std::find(s.cautions.begin(), s.cautions.end(), second_person) == s.cautions.end() &&
        j.kind == JobKind::Lift)
        s.cautions.emplace_back(second_person);
    if (j.body && separable_) {
        s.body = j.body;
        s.attitude = Attitude::RightWayUp;
    } else if (j.body == BodyPlace::Off && f_.has_body) {
        s.conditions.push_back({"The body is its own frame: it does not come off", false});
    } else if (j.body == BodyPlace::On && !f_.has_body) {
        s.conditions.push_back({"There is no body in this build: mark points of it on Tape", false});
    }
    if (j.attitude && turnable_) {
        s.attitude = j.attitude;
        if (*j.attitude != Attitude::RightWayUp && separable_) s.body = BodyPlace::Off;
    } else if (j.attitude && *j.attitude != Attitude::RightWayUp) {
        if (j.support != Support::Rotisserie)
            s.conditions.push_back({"A body that is its own frame is turned in a rotisserie only: say on rotisserie", false});
    }
    if (!j.closes.empty()) {
        s.no_return = true;
        s.before_return = {j.closes + ": nothing is left in it, it is blown clean, coated as far as it can be, and looked at.",
                           "What must come out of it later can come out."};
    }
}

/// What a job waits for, what waits for it, and what its kind of work asks for.
void Catalogue::ownNeeds(const Job& j) {
    const std::string code = "job-" + j.name;
    Step& s = *step(code);
    for (const std::string& typed : j.after) {
        if (std::find(s.after.begin(), s.after.end(), codeOf(typed)) != s.after.end()) continue;
        s.after.push_back(codeOf(typed));
        asked_.emplace_back(code, s.after.back());
    }
    if (kindOfWork(j.kind).hot) s.after = plus(s.after, cold());
    if (opens(j.kind)) s.after = plus(s.after, {"record", "battery-out"});
    if (j.kind == JobKind::Cut) s.after.emplace_back("rules");
    for (const std::string& typed : j.before)
        if (Step* later = step(codeOf(typed));
            later && std::find(later->after.begin(), later->after.end(), code) == later->after.end()) {
            later->after.push_back(code);
            asked_.emplace_back(later->code, code);
        }
    if (s.attitude && *s.attitude != Attitude::RightWayUp) {
        s.after.emplace_back("strip-frame");
        if (Step* refit = step("refit-frame")) refit->after.push_back(code);
    }
    // what is live stays dead until it is done; what was opened is closed before it is tested
    if (Step* live = opens(j.kind) ? step("battery-in") : nullptr) live->after.push_back(code);
    const bool tested = j.kind == JobKind::Brakes || j.kind == JobKind::Fuel || j.kind == JobKind::Refrigerant;
    if (Step* test = tested ? step("leak-test") : nullptr; test && !waitsFor(code, "leak-test")) test->after.push_back(code);
    if (j.kind == JobKind::Test) s.after = plus(s.after, {"connect", "leak-test", "battery-in"});
}

void Catalogue::hotBeforeFuel() {
    for (const Job& j : f_.jobs)
        if (kindOfWork(j.kind).hot)
            for (const char* back : {"tank-in", "battery-in", "inside-joined"})
                if (Step* s = step(back)) s->after.push_back("job-" + j.name);
}

void Catalogue::bodyDownLast() {
    Step* bolt = step("bolt-body");
    if (!bolt) return;
    if (lifts_) bolt->after.emplace_back("unbolt-body");
    for (const Step& s : steps_)
        if (s.job && (s.body == BodyPlace::Off || (s.attitude && *s.attitude != Attitude::RightWayUp)))
            bolt->after.push_back(s.code);
}

void Catalogue::spaces() {
    for (const Job& closing : f_.jobs) {
        if (closing.closes.empty()) continue;
        Step& s = *step("job-" + closing.name);
        for (const Job& j : f_.jobs)
            if (j.inside == closing.closes) {
                s.after.push_back("job-" + j.name);
                s.before_return.push_back((j.title.empty() ? j.name : j.title) + ".");
            }
    }
}

void Catalogue::coatsLast() {
    const auto turn = [](JobKind k) {
        switch (k) {
        case JobKind::Clean:
        case JobKind::Blast: return 1;
        case JobKind::Cut:
        case JobKind::Grind:
        case JobKind::Weld: return 2;
        case JobKind::Seal: return 3;
        case JobKind::Paint: return 4;
        default: return 0;
        }
    };
    Needs needs(steps_);
    for (const Job& later : f_.jobs)
        for (const Job& j : f_.jobs) {
            if (later.area.empty() || j.area != later.area || !turn(j.kind) || turn(j.kind) >= turn(later.kind)) continue;
            // where a job asks for it the other way round it is so: a seam that is blasted again after it was welded
            const size_t code = *needs.find("job-" + later.name), first = *needs.find("job-" + j.name);
            if (needs.waits(first, code)) continue;
            steps_[code].after.push_back(steps_[first].code);
            needs.add(code, first);
        }
}

bool Catalogue::waitsFor(const std::string& code, const std::string& other) const {
    const Needs needs(steps_);
    const auto step = needs.find(code), first = needs.find(other);
    return step && first && needs.waits(*step, *first);
}

void Catalogue::openCircles() {
    while (true) {
        const std::vector<size_t> circle = Needs(steps_).circle();
        if (circle.empty()) return;
        std::string words;
        for (const size_t i : circle) words += fmt::format("\"{}\" waits for ", steps_[i].title);
        words += fmt::format("\"{}\"", steps_[circle.front()].title);
        bool opened = false;
        for (size_t k = 0; k < circle.size() && !opened; ++k) {
            Step& s = steps_[circle[k]];
            const std::string& first = steps_[circle[(k + 1) % circle.size()]].code;
            // what safety asks for, too, stands there twice, and stays
            if (std::find(asked_.begin(), asked_.end(), std::pair(s.code, first)) == asked_.end() ||
                std::count(s.after.begin(), s.after.end(), first) > 1)
                continue;
            std::erase(s.after, first);
            apart_.push_back(fmt::format("\"{}\" can't wait for \"{}\", and does not: {}.", s.title,
                                         steps_[circle[(k + 1) % circle.size()]].title, words));
            opened = true;
        }
        if (opened) continue;
        apart_.push_back("They wait for each other, and none can be begun: " + words + ".");
        return;
    }
}

void Catalogue::standsWhile() {
    if (!stands_) return;
    for (const char* code : {"strip-frame", "scribe", "tie-rails", "before-cutting", "cut-rails", "prepare-ends", "captive-nuts",
                             "try-sleeves", "close-up", "tack-rails", "before-welding", "weld-rails", "weld-below",
                             "after-welding", "untie-rails", "drill-rails", "mount-nuts", "refit-frame"})
        if (Step* s = step(code)) s->support = Support::Stands;
}

void Catalogue::register_() {
    for (const Tied& t : f_.tied) {
        if (!t.step.empty())
            if (Step* s = step(codeOf(t.step))) addTied(t, s->conditions);
        const auto open = [&](Step* s, int count, const char* what, const std::string& first) {
            if (s && count)
                s->conditions.push_back(
                    {fmt::format("{} of the register {} {}, {} first", units::counted(static_cast<size_t>(count), "a row"),
                                 count == 1 ? "is" : "are", what, first),
                     false});
        };
        open(t.step.empty() ? step("connect") : step("approval"), t.off, "not on again", t.first_off);
        open(step("approval"), t.loose, "not tightened for good", t.first_loose);
    }
}

void addTied(const Tied& t, std::vector<Condition>& to) {
    const auto open = [&](int count, const char* one, const char* many, const std::string& first) {
        if (count)
            to.push_back({fmt::format("{} of {} {} {}: {} first", count, units::counted(static_cast<size_t>(t.rows), "a row"),
                                      "of the register", count == 1 ? one : many, first),
                          false});
    };
    open(t.tied, "is still tied", "are still tied", t.first_tied);
    if (t.soaking)
        to.push_back({fmt::format("{} {}: {} first", units::counted(static_cast<size_t>(t.soaking), "a seized row"),
                                  t.soaking == 1 ? "soaks" : "soak", t.first_soaking),
                      false});
    if (!t.tied)
        open(t.unproved, "was not seen free on a second walk-round", "were not seen free on a second walk-round",
             t.first_unproved);
}

void Catalogue::awaited() {
    for (const Awaited& a : f_.awaited) {
        Step* s = step(codeOf(a.step));
        if (!s || !a.arrived.empty()) continue;
        s->conditions.push_back({fmt::format("{} is here{}{}", a.name, a.supplier.empty() ? "" : " from " + a.supplier,
                                             a.ordered.empty() ? " (not ordered yet)" : " (ordered " + a.ordered + ")"),
                                 false});
    }
}

void Catalogue::undecided() {
    for (const Decision& d : f_.decisions)
        if (Step* s = d.step.empty() ? nullptr : step(codeOf(d.step)))
            s->conditions.push_back({fmt::format("{} is agreed: {}", d.name, d.asks), false});
}

void Catalogue::failed() {
    for (const Attempt& a : f_.attempts)
        if (Step* s = step(a.step)) {
            ++s->failed;
            s->why =
                fmt::format("It was done and did not come off{}{}.{}{}", a.at_utc.empty() ? "" : ", " + a.at_utc.substr(0, 10),
                            a.why.empty() ? "" : ": " + a.why, s->why.empty() ? "" : " ", s->why);
        }
}

} // namespace gorvet::work
