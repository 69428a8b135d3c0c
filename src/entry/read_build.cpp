#include "entry/reader.hpp"

#include <algorithm>
#include <map>

namespace gorvet::entry {

void Reader::settings(const std::function<void(Settings&)>& change, std::string sentence) {
    Settings s = b_.settings;
    change(s);
    put(Set<Settings>{s});
    say(std::move(sentence));
}

void Reader::name() {
    Word which = line_.next("the name");
    if ((which.text == "body" || which.text == "chassis") && !line_.atEnd()) {
        const std::string text = line_.upTo({}).text;
        return settings([&](Settings& s) { (which.text == "body" ? s.body_name : s.chassis_name) = text; },
                        fmt::format("the {} is the {}", which.text, text));
    }
    const std::string rest = line_.upTo({}).text;
    const std::string text = which.text + (rest.empty() ? "" : " " + rest);
    settings([&](Settings& s) { s.name = text; }, fmt::format("name the build {}", text));
}

void Reader::frame() {
    const FrameKind kind = oneOf<FrameKind>("the kind of frame");
    settings([&](Settings& s) { s.frame_kind = kind; }, fmt::format("the frame is a {}", word(kind)));
}

void Reader::tolerance() {
    const Dimension d = lengthUpTo({}, "the tolerance");
    settings([&](Settings& s) { s.frame_tolerance_mm = d.value; }, fmt::format("frame tolerance {}", show(d)));
}

void Reader::show() {
    const Word unit = line_.next("mm or inch");
    const Word step = line_.atEnd() ? Word{unit.text == "mm" ? "0.1" : "1/16", unit.column, false} : line_.next("the step");
    static const std::map<std::pair<std::string, std::string>, units::LengthStep> steps = {
        {{"mm", "1"}, units::LengthStep::Mm1},         {{"mm", "0.5"}, units::LengthStep::Mm05},
        {{"mm", "0.1"}, units::LengthStep::Mm01},      {{"inch", "1/16"}, units::LengthStep::Inch16},
        {{"inch", "1/32"}, units::LengthStep::Inch32}, {{"inch", "0.001"}, units::LengthStep::InchThousandth}};
    const auto found = steps.find({unit.text, step.text});
    if (found == steps.end())
        throw Failure{unit.column, "Lengths are shown in mm to 1, 0.5 or 0.1, or in inch to 1/16, 1/32 or 0.001.",
                      "Like: show inch 1/32"};
    settings([&](Settings& s) { s.length_step = found->second; }, fmt::format("show lengths in {} to {}", unit.text, step.text));
}

void Reader::paper() {
    const Paper on = oneOf<Paper>("the paper");
    settings([&](Settings& s) { s.paper = on; }, fmt::format("sheets are printed on {}", word(on)));
}

void Reader::subject() {
    if (line_.left() <= 1) {
        out_.subject = subjectNext();
        out_.echo = fmt::format("turn to the {}", nameOf(b_, *out_.subject));
        return;
    }
    Subject s;
    s.name = line_.next("the subject's name").text;
    if (const Subject* old = subjectNamed(b_, s.name)) s = *old;
    s.kind = oneOf<SubjectKind>("what it is");
    if (line_.take("note")) s.note = line_.rest().text;
    if (!s.id) s.id = fresh<Subject>();
    put(Put<Subject>{s});
    out_.subject = s.id;
    say(fmt::format("measure the {}, a {}, on axes of its own", s.name, word(s.kind)));
}

} // namespace gorvet::entry
