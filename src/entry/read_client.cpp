// What is decided with whom the car belongs to.
#include "entry/reader.hpp"

namespace gorvet::entry {

const Decision& Reader::decisionNext() {
    const Word w = line_.next("the decision's name");
    const Decision* d = decisionNamed(b_, w.text);
    if (!d)
        throw Failure{w.column, fmt::format("There is no decision {}.", w.text),
                      fmt::format("Ask it first: decide {} asks …", w.text)};
    if (d->struck)
        throw Failure{w.column, fmt::format("The decision {} was struck out by {}.", w.text, d->struck->who),
                      "Ask it anew under another name."};
    return *d;
}

void Reader::decide() {
    const Word w = line_.next("the decision's name");
    const Decision* old = decisionNamed(b_, w.text);
    Decision d = old ? *old : Decision{};
    if (old && (old->agreed || old->struck))
        throw Failure{w.column, fmt::format("{} was {}: it stays as it was.", w.text, old->struck ? "struck out" : "agreed to"),
                      "What changes afterwards is a decision of its own; what is no longer so is struck out: strike " + w.text};
    if (!old) {
        d.id = fresh<Decision>();
        d.name = w.text;
    }
    static constexpr Option options[] = {{"asks"}, {"for", follows::step}, {"wanted", follows::date}, {"note"}};
    while (!line_.atEnd()) {
        if (line_.take("asks"))
            d.asks = textUpTo(options);
        else if (line_.take("for"))
            d.step = stepNext("the step that waits for it");
        else if (line_.take("wanted"))
            d.wanted = dateNext();
        else if (line_.take("note"))
            d.note = line_.rest().text;
        else
            notKnownHere("Like: decide floor asks patch it or a whole new floor for floor-left wanted 2026-12-12.");
    }
    if (d.asks.empty())
        throw Failure{line_.endColumn(), "What is asked is missing.", "Like: decide floor asks patch it or a whole new floor."};
    put(Put<Decision>{d});
    say(fmt::format("{} {}: {}", old ? "change what is asked:" : "ask", d.name, d.asks));
}

void Reader::choice() {
    const Decision& d = decisionNext();
    if (d.agreed)
        throw Failure{0, fmt::format("{} was agreed to: its choices stay as they were.", d.name), "Ask anew under another name."};
    const Word w = line_.next("the choice's name");
    Choice c;
    for (const auto& [id, row] : b_.choices)
        if (row.decision == d.id && row.name == w.text) c = row;
    const bool old = static_cast<bool>(c.id);
    if (!old) {
        c.id = fresh<Choice>();
        c.decision = d.id;
        c.name = w.text;
    }
    static constexpr Option options[] = {
        {"what"}, {"price", follows::figure}, {"hours", follows::figure}, {"days", follows::figure}};
    while (!line_.atEnd()) {
        if (line_.take("what"))
            c.what = textUpTo(options);
        else if (line_.take("price"))
            c.price = signedNumber("the price");
        else if (line_.take("hours"))
            c.hours = signedNumber("the hours");
        else if (line_.take("days"))
            c.days = signedNumber("the days");
        else
            notKnownHere("Like: choice floor patch what a patch of 1.2 sheet price 180 hours 4 days 3.");
    }
    put(Put<Choice>{c});
    say(fmt::format("{} {} of {}{}", old ? "change the choice" : "a choice:", c.name, d.name,
                    c.price != 0 ? fmt::format(", {:+g}", c.price) : ""));
}

/// Below 0: it takes something off.
double Reader::signedNumber(const char* what) {
    const Word n = line_.next(what);
    char* end = nullptr;
    const double v = std::strtod(n.text.c_str(), &end);
    if (n.text.empty() || *end || !std::isfinite(v)) throw Failure{n.column, fmt::format("\"{}\" is no figure.", n.text), ""};
    return v;
}

/// What was agreed before is changed: a question with "yes" and "no", its price, and why.
void Reader::changeOrder() {
    const Word w = line_.next("the change's name");
    if (const Decision* old = decisionNamed(b_, w.text))
        throw Failure{w.column, fmt::format("{} is there already: {}.", w.text, old->asks),
                      "A change that is changed is struck out and asked anew under another name: strike " + w.text};
    Decision d;
    d.id = fresh<Decision>();
    d.name = w.text;
    d.change = true;
    Choice yes;
    yes.id = fresh<Choice>();
    yes.decision = d.id;
    yes.name = "yes";
    static constexpr Option options[] = {{"asks"},
                                         {"because"},
                                         {"for", follows::step},
                                         {"wanted", follows::date},
                                         {"price", follows::figure},
                                         {"hours", follows::figure},
                                         {"days", follows::figure},
                                         {"note"}};
    while (!line_.atEnd()) {
        if (line_.take("asks"))
            d.asks = textUpTo(options);
        else if (line_.take("because"))
            d.because = textUpTo(options);
        else if (line_.take("for"))
            d.step = stepNext("the step that waits for it");
        else if (line_.take("wanted"))
            d.wanted = dateNext();
        else if (line_.take("price"))
            yes.price = signedNumber("the price");
        else if (line_.take("hours"))
            yes.hours = signedNumber("the hours");
        else if (line_.take("days"))
            yes.days = signedNumber("the days");
        else if (line_.take("note"))
            d.note = line_.rest().text;
        else
            notKnownHere(
                "Like: change-order sill asks a new inner sill on the left because it is rusted through price 420 hours 9 days 4.");
    }
    if (d.asks.empty())
        throw Failure{line_.endColumn(), "What is asked is missing.",
                      "Like: change-order sill asks a new inner sill on the left because it is rusted through price 420."};
    if (d.because.empty())
        throw Failure{line_.endColumn(), "Why it changes is missing.", "Say it: because it is rusted through."};
    // the reason may be a job that was found: it waits until the change is agreed to, and its hours stand in it already
    if (const Job* found = jobNamed(b_, d.because); found && d.step.empty()) d.step = found->name;
    put(Put<Decision>{d});
    put(Put<Choice>{yes});
    Choice no;
    no.id = fresh<Choice>();
    no.decision = d.id;
    no.name = "no";
    no.what = "it stays as it was agreed";
    put(Put<Choice>{no});
    say(fmt::format("change order {}: {}{}", d.name, d.asks, yes.price != 0 ? fmt::format(", {:+g}", yes.price) : ""));
}

void Reader::agreed() {
    Decision d = decisionNext();
    if (d.agreed)
        throw Failure{0, fmt::format("{} was agreed to by {} on {}.", d.name, d.agreed->who, d.agreed->at_utc.substr(0, 10)),
                      "What changes afterwards is a decision of its own."};
    const Word w = line_.next("the choice");
    if (std::none_of(b_.choices.begin(), b_.choices.end(),
                     [&](const auto& row) { return row.second.decision == d.id && row.second.name == w.text; })) {
        std::string all;
        for (const auto& [id, c] : b_.choices)
            if (c.decision == d.id) all += (all.empty() ? "" : ", ") + c.name;
        throw Failure{w.column, fmt::format("{} has no choice {}.", d.name, w.text),
                      all.empty() ? "Add it first: choice " + d.name + " " + w.text : "There are " + all + "."};
    }
    if (!line_.take("by"))
        throw Failure{line_.endColumn(), "Who agreed is missing.",
                      "Type their name as they would sign it: agreed " + d.name + " " + w.text + " by …"};
    d.chosen = w.text;
    d.agreed = Signed{line_.rest().text, context_.now_utc};
    if (d.agreed->who.empty())
        throw Failure{line_.endColumn(), "Who agreed is missing.", "Type their name as they would sign it."};
    put(Put<Decision>{d});
    say(fmt::format("{}: {} agrees to {}", d.name, d.agreed->who, d.chosen));
}

void Reader::strike() {
    Decision d = decisionNext();
    d.struck = Signed{context_.who, context_.now_utc};
    put(Put<Decision>{d});
    say(fmt::format("struck out: {} (it stays in the log)", d.name));
}

} // namespace gorvet::entry
