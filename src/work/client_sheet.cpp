#include "work/client_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::work {

using namespace sheet;
using build::Choice;
using build::Decision;

namespace {

std::string choiceWords(const Choice& c) {
    std::string text = c.name + (c.what.empty() ? "" : ": " + c.what);
    if (c.price != 0) text += fmt::format(", {:+g}", c.price);
    if (c.hours != 0) text += fmt::format(", {:+g} h", c.hours);
    if (c.days != 0) text += fmt::format(", {:+g} days", c.days);
    return text;
}

std::string agreedWords(const Agreed& sum) {
    std::string text = fmt::format("All that is agreed: {:+g}", sum.price);
    if (sum.hours != 0) text += fmt::format(", {:+g} h", sum.hours);
    if (sum.days != 0) text += fmt::format(", {:+g} days", sum.days);
    return text + ".";
}

std::string changedWords(const Changed& c) {
    std::string text = fmt::format("Before any change {:+g}, by changes {:+g}", c.before, c.by);
    if (c.open != 0) text += fmt::format(", {:+g} more is asked for", c.open);
    return text + ".";
}

class Client {
public:
    Client(const ClientInput& in, double width, double height, const Format& f) : in_(in), o_(*in.order), f_(f) {
        d_.width = width;
        d_.height = height;
    }

    Drawing draw() {
        const double gap = f_.px(36), left = d_.width * 0.5 - gap / 2, right = d_.width - left - gap;
        double y = stands({0, 0}, left);
        y = comes({0, y}, left);
        lately({0, y}, left);
        double r = asked({left + gap, 0}, right);
        r = agreed({left + gap, r}, right);
        d_.height = std::max({d_.height, y + f_.px(80), r + f_.px(8)});
        return std::move(d_);
    }

private:
    double head(P at, const std::string& text, double width) {
        d_.add(Text{{at.x, at.y + f_.lead()}, text, f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        const double y = at.y + f_.lead() + f_.px(8);
        d_.add(Stroke{{{at.x, y}, {at.x + width, y}}, false, {Ink::Ink, f_.medium(), Dash::Solid}});
        return y + f_.px(4);
    }
    double line(P at, double width, const std::string& text, Ink ink = Ink::Ink, Face face = Face::Sans,
                const std::string& tag = {}) {
        for (const std::string& part : wrapped(text, width, f_.body(), face)) {
            at.y += f_.body() * 1.35;
            d_.add(Text{{at.x, at.y}, part, f_.body(), ink, Anchor::Left, Level::Base, face}, tag);
        }
        return at.y;
    }

    /// "Change order 2, ", or nothing.
    std::string changeWords(const DecisionAsked& q) const {
        const int number = changeNumber(in_.decisions, q);
        return number ? fmt::format("Change order {}, ", number) : std::string();
    }

    double stands(P at, double width) {
        double y = head(at, "Where it stands", width);
        y = line({at.x, y}, width,
                 fmt::format("{} of {} steps are done, {:g} hours worked.", o_.done, o_.steps.size(), in_.hours));
        y = line({at.x, y}, width, in_.finish);
        for (const std::string& wait : in_.waits) y = line({at.x, y}, width, wait, Ink::Second);
        return y + f_.px(20);
    }
    double comes(P at, double width) {
        double y = head(at, "What comes", width);
        int shown = 0;
        for (const Step& s : o_.steps) {
            if (s.status == Status::Done || s.moves_to || shown == 5) continue;
            ++shown;
            y = line({at.x, y}, width, s.title, Ink::Ink, Face::Sans, "step:" + s.code);
        }
        if (!shown) y = line({at.x, y}, width, "Nothing: all is done.", Ink::Second);
        return y + f_.px(20);
    }
    void lately(P at, double width) {
        double y = head(at, "What was done", width);
        std::vector<const Step*> done;
        for (const Step& s : o_.steps)
            if (s.tick) done.push_back(&s);
        std::stable_sort(done.begin(), done.end(),
                         [](const Step* a, const Step* b) { return a->tick->at_utc > b->tick->at_utc; });
        for (std::size_t k = 0; k < done.size() && k < 5; ++k)
            y = line({at.x, y}, width, fmt::format("{}  {}", done[k]->tick->at_utc.substr(0, 10), done[k]->title), Ink::Ink,
                     Face::Sans, "step:" + done[k]->code);
        for (std::size_t k = 0; k < in_.days.size() && k < 5; ++k)
            y = line({at.x, y}, width, fmt::format("{}  {:g} h", in_.days[k].first, in_.days[k].second), Ink::Second);
        if (done.empty() && in_.days.empty()) line({at.x, y}, width, "Nothing yet.", Ink::Second);
    }
    double asked(P at, double width) {
        double y = head(at, "To be decided", width);
        bool any = false;
        for (const DecisionAsked& q : in_.decisions) {
            const Decision& d = q.decision;
            if (d.agreed || d.struck) continue;
            any = true;
            const std::string tag = "decision:" + d.name;
            y = line({at.x, y + f_.px(4)}, width,
                     fmt::format("{}{}: {}{}", changeWords(q), d.name, d.asks, d.wanted.empty() ? "" : ", by " + d.wanted),
                     Ink::Ink, Face::Bold, tag);
            if (!q.because.empty())
                y = line({at.x + f_.px(14), y}, width - f_.px(14), "Because: " + q.because, Ink::Ink, Face::Sans, tag);
            for (const Choice& c : q.choices)
                y = line({at.x + f_.px(14), y}, width - f_.px(14), choiceWords(c), Ink::Ink, Face::Sans, tag);
            if (!q.step.empty())
                y = line({at.x + f_.px(14), y}, width - f_.px(14), "\"" + q.step + "\" waits for it.", Ink::Second, Face::Sans,
                         tag);
        }
        if (!any) y = line({at.x, y}, width, "Nothing.", Ink::Second);
        return y + f_.px(20);
    }
    double agreed(P at, double width) {
        double y = head(at, "Agreed", width);
        bool any = false;
        for (const DecisionAsked& q : in_.decisions) {
            const Decision& d = q.decision;
            const std::string tag = "decision:" + d.name;
            if (d.struck) {
                any = true;
                const double before = y;
                y = line(
                    {at.x, y}, width,
                    fmt::format("{}: {} (struck out by {}, {})", d.name, d.asks, d.struck->who, d.struck->at_utc.substr(0, 10)),
                    Ink::Second, Face::Sans, tag);
                d_.add(Stroke{{{at.x, before + f_.body()}, {at.x + width * 0.9, before + f_.body()}},
                              false,
                              {Ink::Second, f_.thin(), Dash::Solid}},
                       tag);
            } else if (d.agreed) {
                any = true;
                const Choice* c = q.chosen();
                y = line({at.x, y}, width,
                         fmt::format("{}{}: {}. {}, {}", changeWords(q), d.name, c ? choiceWords(*c) : d.chosen, d.agreed->who,
                                     d.agreed->at_utc.substr(0, 10)),
                         Ink::Ink, Face::Sans, tag);
            }
        }
        if (!any) return line({at.x, y}, width, "Nothing yet.", Ink::Second) + f_.px(20);
        const Agreed sum = agreedOf(in_.decisions);
        y = line({at.x, y + f_.px(4)}, width, agreedWords(sum), Ink::Ink, Face::Bold);
        if (const Changed c = changesOf(in_.decisions); c.by != 0 || c.open != 0)
            y = line({at.x, y}, width, changedWords(c), Ink::Second);
        return y + f_.px(20);
    }

    const ClientInput& in_;
    const Order& o_;
    Format f_;
    Drawing d_;
};

/// A line to sign on.
double signature(Drawing& page, P at, double width) {
    const double y = at.y + on_paper.px(46);
    for (const auto& [from, to, what] : {std::tuple{0.0, 0.55, "name and signature"}, std::tuple{0.62, 1.0, "date"}}) {
        page.add(Stroke{{{at.x + from * width, y}, {at.x + to * width, y}}, false, {Ink::Ink, on_paper.thin(), Dash::Solid}});
        page.add(Text{{at.x + from * width, y + on_paper.small() * 1.2}, what, on_paper.small(), Ink::Second});
    }
    return y + on_paper.px(34);
}

} // namespace

const Choice* DecisionAsked::chosen() const {
    const auto c = std::find_if(choices.begin(), choices.end(), [&](const Choice& one) { return one.name == decision.chosen; });
    return c == choices.end() ? nullptr : &*c;
}

int changeNumber(const std::vector<DecisionAsked>& all, const DecisionAsked& one) {
    int number = 0;
    for (const DecisionAsked& q : all) {
        number += q.decision.change;
        if (q.decision.id == one.decision.id) return q.decision.change ? number : 0;
    }
    return 0;
}

Changed changesOf(const std::vector<DecisionAsked>& decisions) {
    Changed sum;
    for (const DecisionAsked& q : decisions) {
        if (q.decision.struck) continue;
        const Choice* c = q.chosen();
        if (q.decision.agreed)
            (q.decision.change ? sum.by : sum.before) += c ? c->price : 0;
        else if (q.decision.change && !q.choices.empty())
            sum.open += q.choices.front().price;
    }
    return sum;
}

Agreed agreedOf(const std::vector<DecisionAsked>& decisions) {
    Agreed sum;
    for (const DecisionAsked& q : decisions)
        if (const Choice* c = q.chosen(); c && q.decision.agreed && !q.decision.struck) {
            sum.price += c->price;
            sum.hours += c->hours;
            sum.days += c->days;
        }
    return sum;
}

Drawing clientSheet(const ClientInput& in, double width, double height, const Format& f) {
    return Client(in, width, height, f).draw();
}

std::vector<Drawing> clientPages(const ClientInput& in, const PageTitle& title, const std::vector<std::string>& cautions) {
    std::vector<Drawing> pages;
    Area area;
    Drawing page = blankPage(title, cautions, area);
    Drawing all = clientSheet(in, area.width, area.height, on_paper);
    if (all.height > area.height) { // long lists are drawn smaller, so that nothing is lost
        const double smaller = area.height / all.height;
        all = clientSheet(in, area.width, area.height, Format{on_paper.unit * smaller});
    }
    page.place(all, {area.x, area.y});
    pages.push_back(std::move(page));
    // what is signed: two to a page
    int on_page = 0;
    double y = 0;
    for (const DecisionAsked& q : in.decisions) {
        const Decision& d = q.decision;
        if (d.struck) continue;
        if (!q.photos.empty()) on_page = 0; // with pictures it needs a page of its own
        if (on_page == 0) {
            pages.push_back(blankPage(title, cautions, area));
            y = area.y;
        }
        Drawing& to = pages.back();
        to.add(Text{
            {area.x, y + on_paper.lead()},
            (d.change ? fmt::format("Change order {}, {}: ", changeNumber(in.decisions, q), d.agreed ? "agreed" : "to be agreed")
             : d.agreed ? std::string("Agreed: ")
                        : std::string("To be decided: ")) +
                d.name,
            on_paper.lead(),
            Ink::Ink,
            Anchor::Left,
            Level::Base,
            Face::Bold});
        y += on_paper.lead() + on_paper.px(6);
        const auto text = [&](const std::string& words, double in_by, Face face = Face::Sans) {
            for (const std::string& part : wrapped(words, area.width - in_by, on_paper.body(), face)) {
                y += on_paper.body() * 1.35;
                to.add(Text{{area.x + in_by, y}, part, on_paper.body(), Ink::Ink, Anchor::Left, Level::Base, face});
            }
        };
        text(d.asks + (d.note.empty() ? "" : " " + d.note), 0);
        if (!q.because.empty()) text("Because: " + q.because, 0);
        if (!q.photos.empty()) {
            const double high = on_paper.px(190), wide = on_paper.px(290);
            double x = area.x, tallest = 0;
            y += on_paper.px(10);
            for (const PhotoShown& photo : q.photos) {
                tallest = std::max(tallest, addPhoto(to, photo, {x, y}, wide, high, on_paper));
                x += wide + on_paper.px(16);
            }
            y += tallest;
        }
        for (const Choice& c : q.choices)
            text((d.agreed && c.name == d.chosen ? "[x]  " : "[  ]  ") + choiceWords(c), on_paper.px(14),
                 d.agreed && c.name == d.chosen ? Face::Bold : Face::Sans);
        if (d.agreed) text(fmt::format("As told by {}, entered {}.", d.agreed->who, d.agreed->at_utc.substr(0, 10)), 0);
        if (d.change) {
            const Changed c = changesOf(in.decisions);
            text(changedWords(c) + " What is agreed here changes what was agreed before, and nothing else.", 0);
        }
        y = signature(to, {area.x, y}, area.width * 0.7);
        const double left = area.y + area.height - y;
        on_page = left > area.height * 0.4 ? on_page + 1 : 0;
    }
    return pages;
}

} // namespace gorvet::work
