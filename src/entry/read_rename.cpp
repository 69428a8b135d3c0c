// Names that are changed, with all that goes by them.
#include "entry/reader.hpp"

namespace gorvet::entry {

namespace {

/// "a,b" with one of its names changed.
std::string listWith(const std::string& list, const std::string& from, const std::string& to) {
    std::string changed;
    for (std::size_t at = 0; at <= list.size();) {
        const std::size_t end = std::min(list.find(',', at), list.size());
        std::string one = list.substr(at, end - at);
        const std::string blanks =
            one.substr(0, one.find_first_not_of(' ') == std::string::npos ? 0 : one.find_first_not_of(' '));
        if (one.substr(blanks.size()) == from) one = blanks + to;
        changed += (at ? "," : "") + one;
        at = end + 1;
    }
    return changed;
}

} // namespace

/// What goes by a job's name follows: what waits for it, its tick, what is awaited for it.
void Reader::renameJob() {
    const Word old = line_.next("its name");
    const Job* j = jobNamed(b_, old.text);
    if (!j) throw Failure{old.column, fmt::format("There is no job {}.", old.text), ""};
    const Word name = line_.next("its new name");
    const auto follow = [&](std::string& code) {
        if (code == old.text) code = name.text;
        if (code == "job-" + old.text) code = "job-" + name.text;
    };
    const auto changed = [&](const auto& rows, auto change) {
        for (const auto& [id, one] : rows) {
            auto other = one;
            change(other);
            if (!(other == one)) put(Put<std::decay_t<decltype(one)>>{other});
        }
    };
    changed(b_.jobs, [&](Job& k) {
        if (k.id == j->id) k.name = name.text;
        for (auto* list : {&k.after, &k.before})
            for (std::string& code : *list) follow(code);
        follow(k.found_at);
    });
    changed(b_.awaited, [&](Awaited& a) { follow(a.step); });
    changed(b_.attempts, [&](Attempt& a) { follow(a.step); });
    changed(b_.permits, [&](Permit& p) { follow(p.step); });
    changed(b_.worked, [&](Worked& w) { follow(w.step); });
    changed(b_.lifts, [&](Lift& l) { follow(l.step); });
    changed(b_.decisions, [&](Decision& d) {
        follow(d.step);
        follow(d.because);
    });
    changed(b_.releases, [&](Release& r) { follow(r.frees); });
    changed(b_.ticks, [&](Tick& t) { follow(t.step); });
    changed(b_.photos, [&](Photo& p) { follow(p.step); });
    changed(b_.temporary_steel, [&](TemporarySteel& t) { follow(t.out_after); });
    say(fmt::format("the job {} is now {}", old.text, name.text));
}

/// Photos of a part that is called otherwise now.
void Reader::photosFollow(const std::pair<std::string, std::string>& from_to) {
    for (const auto& [id, photo] : b_.photos) {
        if (photo.part != from_to.first) continue;
        Photo p = photo;
        p.part = from_to.second;
        put(Put<Photo>{p});
    }
}

void Reader::rename() {
    const Word what = line_.next("what is renamed");
    const auto row = [&](const auto& rows, const char* kind, auto counts) {
        using T = std::decay_t<decltype(rows.begin()->second)>;
        const Word old = line_.next("its name");
        const Word name = line_.next("its new name");
        for (const auto& [id, one] : rows)
            if (one.name == old.text && counts(one)) {
                T renamed = one;
                renamed.name = name.text;
                put(Put<T>{renamed});
                say(fmt::format("the {} {} is now {}", kind, old.text, name.text));
                return std::pair{old.text, name.text};
            }
        throw Failure{old.column, fmt::format("There is no {} {}.", kind, old.text), ""};
    };
    const auto here = [this](const auto& one) { return one.subject == context_.subject; };
    const auto any = [](const auto&) { return true; };
    if (!what.quoted && line_.left() >= 2) {
        if (what.text == "session") return (void)row(b_.sessions, "session", here);
        if (what.text == "setup") return (void)row(b_.setups, "set-up", here);
        if (what.text == "blocked") return (void)row(b_.obstacles, "box", here);
        if (what.text == "instrument") return (void)row(b_.instruments, "instrument", any);
        if (what.text == "scan") return (void)row(b_.scans, "scan", any);
        if (what.text == "seating") return (void)row(b_.seatings, "seating", any);
        if (what.text == "subject")
            return (void)row(b_.subjects, "subject", [](const Subject& s) { return s.id != the_body && s.id != the_chassis; });
        if (what.text == "tag") return photosFollow(row(b_.releases, "tag", any));
        if (what.text == "awaited") return (void)row(b_.awaited, "awaited part", any);
        if (what.text == "lift") return (void)row(b_.lifts, "lift", any);
        if (what.text == "surface") return photosFollow(row(b_.surfaces, "surface", any));
        if (what.text == "stock") return (void)row(b_.stock, "stock", any);
        if (what.text == "member") return (void)row(b_.members, "member", any);
        if (what.text == "stand") return (void)row(b_.stands, "pair of stands", any);
        if (what.text == "load") return (void)row(b_.carried, "load", any);
        if (what.text == "job") return renameJob();
        if (what.text == "zone") {
            const auto [from, to] = row(b_.zones, "zone", any);
            if (b_.lowering.floor == from) {
                Lowering l = b_.lowering;
                l.floor = to;
                put(Set<Lowering>{l});
            }
            for (const auto& [id, cut] : b_.planned_cuts) {
                PlannedCut named = cut;
                named.crosses = listWith(cut.crosses, from, to);
                named.brace = listWith(cut.brace, from, to);
                if (!(named == cut)) put(Put<PlannedCut>{named});
            }
            return;
        }
    }
    Point p = known(context_.subject, what);
    const std::string old = p.name;
    p.name = line_.next("its new name").text;
    put(Put<Point>{p});
    if (b_.settings.want == "point " + old) {
        Settings s = b_.settings;
        s.want = "point " + p.name;
        put(Set<Settings>{s});
    }
    say(fmt::format("the point {} is now {}", old, p.name));
    // left and right of the same thing go by their names
    const std::string twin = twinName(old);
    if (!twin.empty() && pointNamed(b_, context_.subject, twin) && twinName(p.name) != twin)
        out_.remark = twinName(p.name).empty()
                          ? fmt::format("it is no longer the other side of {}", twin)
                          : fmt::format("it is the other side of {} now, no longer of {}", twinName(p.name), twin);
}

} // namespace gorvet::entry
