// Why a step stands where it stands, what waits for it, and what can be done beside it.
#include "work/needs.hpp"
#include "work/work_sheet.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::work {

using namespace build;

void explainPlaces(std::vector<Step>& steps) {
    std::map<std::string, size_t> place;
    for (size_t i = 0; i < steps.size(); ++i) place.emplace(steps[i].code, i);
    std::vector<size_t> latest(steps.size(), steps.size());
    for (size_t i = 0; i < steps.size(); ++i) {
        Step& s = steps[i];
        std::optional<size_t> last; // of what must come before it
        for (const std::string& code : s.after)
            if (const auto k = place.find(code); k != place.end() && k->second < i) {
                last = std::max(last.value_or(0), k->second);
                latest[k->second] = std::min(latest[k->second], i);
            }
        // as it stands now the car has stood since the last move
        std::optional<size_t> move;
        for (size_t k = 0; k < i; ++k)
            if (steps[k].moves_to || steps[k].sets_support) move = k;
        const bool needs_stance = s.body || s.attitude || s.support;
        std::optional<size_t> binding = last;
        if (needs_stance && move) binding = std::max(binding.value_or(0), *move);
        s.earliest = binding ? *binding + 2 : 1;
        if (s.status == Status::Done)
            s.because = "It is done.";
        else if (s.moves_to)
            s.because =
                last ? fmt::format("The body or frame is moved once all is done that can be done before: \"{}\" was the last.",
                                   steps[*last].title)
                     : "What comes next needs it so.";
        else if (needs_stance && move && (!last || *move > *last))
            s.because = fmt::format("It needs the car as it stands after step {}, \"{}\".", *move + 1, steps[*move].title);
        else if (last)
            s.because = fmt::format("It waits for step {}, \"{}\".", *last + 1, steps[*last].title);
        else
            s.because = "Nothing must come before it.";
    }
    // the last place: before what waits for it, and before the car is moved from how it needs it
    for (size_t i = 0; i < steps.size(); ++i) {
        Step& s = steps[i];
        size_t end = latest[i];
        if (s.body || s.attitude || s.support)
            for (size_t k = i + 1; k < end; ++k)
                if (steps[k].moves_to || steps[k].sets_support) end = k;
        s.latest = std::max(i + 1, end);
        if (s.status == Status::Done || s.moves_to) continue;
        if (s.latest > i + 1)
            s.because += fmt::format(" It can wait until step {}.", s.latest);
        else if (end < steps.size())
            s.because += fmt::format(" \"{}\" waits for it.", steps[end].title);
    }
}

std::string jobWords(const Step& s) {
    if (!s.job) return {};
    std::string text;
    const auto add = [&](const std::string& what) {
        if (!what.empty()) text += (text.empty() ? "" : " · ") + what;
    };
    add(s.area);
    if (s.likely_h > 0)
        add(s.least_h > 0 ? fmt::format("{:g} to {:g} h, likely {:g}", s.least_h, s.most_h, s.likely_h)
                          : fmt::format("{:g} h", s.likely_h));
    if (s.people > 1) add(fmt::format("{:g} people", s.people));
    if (!s.closes.empty()) add("closes " + s.closes);
    if (!s.inside.empty()) add("inside " + s.inside);
    if (!s.wanted.empty()) add("wanted " + s.wanted);
    return text;
}

std::vector<std::string> heldUpBy(const std::vector<Step>& steps, const std::string& code) {
    const Needs needs(steps);
    std::vector<std::string> codes;
    if (const auto at = needs.find(code))
        for (const size_t k : needs.heldUpBy(*at)) codes.push_back(steps[k].code);
    return codes;
}

std::vector<const Step*> besides(const Order& o, const Step& beside) {
    const auto fuel = [](const Step& s) {
        return s.kind == JobKind::Fuel || s.code == "tank-out" || s.code == "tank-in" || s.code == "leak-test";
    };
    const auto lifts = [](const Step& s) { return s.moves_to || s.kind == JobKind::Lift; };
    const auto dusty = [](const Step& s) { return s.hot || s.kind == JobKind::Blast || s.kind == JobKind::Clean; };
    const auto wet = [](const Step& s) { return s.kind == JobKind::Paint || s.kind == JobKind::Seal || s.code == "coat-frame"; };
    std::vector<const Step*> list;
    for (const Step& s : o.steps) {
        if (&s == &beside || s.code == beside.code || s.status != Status::Ready) continue;
        if (lifts(s) || lifts(beside)) continue;                              // nobody near what hangs
        if ((s.hot && fuel(beside)) || (beside.hot && fuel(s))) continue;     // no sparks beside fuel
        if ((dusty(s) && wet(beside)) || (dusty(beside) && wet(s))) continue; // no dust and sparks on fresh paint
        if (!s.area.empty() && s.area == beside.area) continue;               // nor two in one place
        if (!s.inside.empty() && (s.inside == beside.inside || s.inside == beside.closes)) continue;
        if (s.no_return || s.hold) continue; // what can't be taken back is not done by the way
        list.push_back(&s);
    }
    return list;
}

} // namespace gorvet::work
