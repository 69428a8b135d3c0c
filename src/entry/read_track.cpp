// An axle that is made narrower or wider.
#include "entry/reader.hpp"

#include <algorithm>

namespace gorvet::entry {
namespace {

/// What can be said of it: a word, then a length. `wanted`: "none" takes it back.
struct Said {
    std::string_view word;
    const char* missing;
    bool wanted;
    void (*keep)(AxleJob&, const std::optional<Dimension>&);
};
template <auto Member> void keep(AxleJob& a, const std::optional<Dimension>& d) {
    if constexpr (std::is_same_v<std::remove_reference_t<decltype(a.*Member)>, Dimension>)
        a.*Member = *d;
    else
        a.*Member = d;
}
constexpr const char* example = "Like: track rear faces 1420 wanted 1300 pinion 25.";
constexpr Said said[] = {
    {"faces", "from wheel face to wheel face", false, keep<&AxleJob::faces>},
    {"wanted", "from wheel face to wheel face, as wanted", true, keep<&AxleJob::faces_wanted>},
    {"pinion", "how far right of the middle the pinion stands", false, keep<&AxleJob::pinion>},
    {"pinion-wanted", "where the pinion shall stand", true, keep<&AxleJob::pinion_wanted>},
    {"within", "the width over the tyres", true, keep<&AxleJob::over_tyres_wanted>},
    {"offset", "the wheels' offset", false, keep<&AxleJob::wheel_offset>},
    {"offset-wanted", "the offset of the new wheels", true, keep<&AxleJob::offset_wanted>},
    {"tyre", "the tyres' width", false, keep<&AxleJob::tyre>},
    {"tube", "the tubes' diameter", false, keep<&AxleJob::tube>},
    {"wall", "the tubes' wall", false, keep<&AxleJob::tube_wall>},
    {"yield", "what the tubes yield at, MPa", false, keep<&AxleJob::yield_MPa>},
    {"flange", "from the wheel face in to the end flange", false, keep<&AxleJob::flange_in>},
    {"perches", "between the middles of the spring perches", false, keep<&AxleJob::perches>},
    {"perches-wanted", "the same as wanted", true, keep<&AxleJob::perches_wanted>},
    {"perch", "how wide a perch is", false, keep<&AxleJob::perch>},
    {"brake", "from the wheel face in to the innermost of the brake", false, keep<&AxleJob::brake_in>},
    {"shaft-left", "the left shaft, from the wheel face", false, keep<&AxleJob::shaft_left>},
    {"shaft-right", "the right shaft, from the wheel face", false, keep<&AxleJob::shaft_right>},
    {"splined", "how far the splines reach", false, keep<&AxleJob::splined>},
    {"engaged", "how much of the splines the gear holds", false, keep<&AxleJob::engaged>},
};
const Said* saidBy(std::string_view word) {
    const auto found = std::find_if(std::begin(said), std::end(said), [&](const Said& s) { return s.word == word; });
    return found == std::end(said) ? nullptr : found;
}

} // namespace

void Reader::track() {
    const auto end = oneOf<AxleEnd>("which axle");
    const AxleJob* old = axleJobOf(b_, end);
    AxleJob a = old ? *old : AxleJob{};
    if (!old) {
        a.id = fresh<AxleJob>();
        a.end = end;
    }
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", example};
    while (!line_.atEnd()) {
        const Said* s = saidBy(line_.peek().text);
        if (!s) notKnownHere(example);
        line_.next("what is said of it");
        if (s->wanted && line_.take("none")) {
            s->keep(a, std::nullopt);
            continue;
        }
        if (s->word == "yield") {
            s->keep(a, Dimension{plainNumber(s->missing), "", Provenance::Measured});
            continue;
        }
        s->keep(a,
                figure(line_.upTo([&] { return !line_.atEnd() && saidBy(line_.peek().text); }), units::Kind::Length, s->missing));
    }
    if (a.faces.value <= 0) throw Failure{line_.endColumn(), "How far it is from wheel face to wheel face is missing.", example};
    put(Put<AxleJob>{a});
    say(fmt::format("the {} axle: {:g} from face to face{}", word(end), a.faces.value,
                    a.faces_wanted ? fmt::format(", wanted {:g}", a.faces_wanted->value) : ""));
}

void Reader::removeTrack(const Word&) {
    const auto end = oneOf<AxleEnd>("which axle");
    const AxleJob* a = axleJobOf(b_, end);
    if (!a) throw Failure{line_.endColumn(), fmt::format("Nothing is planned of the {} axle.", word(end)), example};
    put(Drop<AxleJob>{a->id});
    say(fmt::format("nothing is planned of the {} axle any more", word(end)));
}

} // namespace gorvet::entry
