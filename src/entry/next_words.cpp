#include "entry/next_words.hpp"

#include "build/job_lists.hpp"

#include "entry/commands.hpp"
#include "entry/form_pattern.hpp"
#include "entry/word_lists.hpp"
#include "units/dates.hpp"

#include <algorithm>
#include <map>
#include <set>

namespace gorvet::entry {

using namespace build;

namespace {

struct Read {
    std::string_view bench;
    bool reading = false; ///< of no command: it begins with a kind or a point
    FormPattern form;
};

const std::vector<Read>& patterns() {
    static const std::vector<Read> list = [] {
        std::vector<Read> all;
        for (const CommandTable* table : commandTables())
            for (const Command& command : table->commands)
                for (const Shape& shape : command.forms)
                    for (FormPattern& form : readPattern(shape.pattern)) {
                        // what may follow a command's own forms stands in them
                        if (form.suffix && !command.words.empty()) continue;
                        all.push_back({table->bench, command.words.empty(), std::move(form)});
                    }
        return all;
    }();
    return list;
}

bool looksLikeFigure(const std::string& word) {
    std::string_view w = word;
    for (const std::string_view sign : {"-", "+", "−"})
        if (w.starts_with(sign)) {
            w.remove_prefix(sign.size());
            break;
        }
    if (w.empty()) return true; // "-": not said
    return (w.front() >= '0' && w.front() <= '9') || w.front() == '.' || w.starts_with("½") || w.starts_with("¼") ||
           w.starts_with("¾");
}

bool isUnit(const std::string& word) {
    static const std::set<std::string> units{"mm", "cm", "m", "in",  "inch", "inches", "ft",
                                             "kg", "lb", "t", "deg", "°",    "?",      "%"};
    return units.contains(word);
}

/// Words that a slot is filled with, by its name in the forms.
class Slots {
public:
    Slots(const Build& b, const Context& c) : b_(b), c_(c) {}
    /// The words; empty for what is not in a list.
    std::vector<std::string> of(std::string_view slot) const {
        static const std::map<std::string_view, std::vector<std::string> (*)()> lists{
            {"ROLE", wordsOf<Role>},
            {"READING", wordsOf<ReadingKind>},
            {"FLAW", wordsOf<FlawKind>},
            {"CROSSING", wordsOf<CrossingKind>},
            {"FRAME", wordsOf<FrameKind>},
            {"PAPER", wordsOf<Paper>},
            {"PIN-KIND", wordsOf<PinKind>},
            {"INSTRUMENT-KIND", wordsOf<InstrumentKind>},
            {"ATTITUDE", wordsOf<Attitude>},
            {"SUPPORT", wordsOf<Support>},
            {"HAZARD", wordsOf<Hazard>},
            {"WHEEL", wordsOf<Wheel>},
            {"PART", wordsOf<ScanPart>},
            {"UNIT", wordsOf<ScanUnit>},
            {"SHAPE", wordsOf<RailShape>},
            {"FACE", wordsOf<RailFace>},
            {"JOB-KIND", wordsOf<JobKind>},
            {"TIE-KIND", wordsOf<ReleaseKind>},
            {"FATE", wordsOf<Fate>},
            {"LIFT-WAY", wordsOf<LiftWay>},
            {"METAL", wordsOf<Metal>},
            {"BASE-METAL", wordsOf<BaseMetal>},
            {"TOWER-DOES", wordsOf<TowerDoes>},
            {"PREPARATION", wordsOf<Preparation>},
            {"COAT-KIND", wordsOf<CoatKind>},
            {"STAGE", wordsOf<Stage>},
            {"STOCK-FORM", wordsOf<StockForm>},
            {"MEMBER-KIND", wordsOf<MemberKind>},
            {"SECTION", wordsOf<SectionForm>},
            {"JOINT", wordsOf<Joint>},
            {"MEMBER-STATE", wordsOf<MemberState>},
            {"RAIL-SIDE", wordsOf<RailSide>},
            {"LIFTED", wordsOf<Lifted>},
            {"RUN-ANSWER", wordsOf<RunAnswer>},
            {"CARRIER", wordsOf<Carrier>},
            {"JOINT-KIND", wordsOf<JointKind>},
            {"HUNG", wordsOf<Hung>},
            {"LINK-KIND", wordsOf<LinkKind>},
            {"LIST",
             [] {
                 std::vector<std::string> keys;
                 for (const JobList& l : jobLists()) keys.emplace_back(l.key);
                 return keys;
             }},
            {"CROOKED", [] { return std::vector<std::string>(crooked_figures.begin(), crooked_figures.end()); }},
            {"RATE", [] {
                 std::vector<std::string> rates{"hour", "other-frame"};
                 for (const NamedRate& r : plain_rates) rates.emplace_back(r.name);
                 return rates;
             }}};
        if (const auto list = lists.find(slot); list != lists.end()) return list->second();
        if (slot == "SCAN") return names(b_.scans);
        if (slot == "ZONE") return names(b_.zones);
        if (slot == "SETUP") return names(b_.setups);
        if (slot == "INSTRUMENT") return names(b_.instruments);
        if (slot == "SEATING") return names(b_.seatings);
        if (slot == "SUBJECT") return names(b_.subjects);
        if (slot == "GRAFT") return names(b_.grafts);
        if (slot == "EDGE") return names(b_.floor_edges);
        if (slot == "HOLE") return names(b_.rail_holes);
        if (slot == "LET-IN") return names(b_.let_in);
        if (slot == "END") return names(b_.drive_ends);
        if (slot == "SHAFT") return names(b_.shafts);
        if (slot == "STEEL-PART") return names(b_.steel_parts);
        if (slot == "FIXTURE") return names(b_.fixtures);
        if (slot == "ISSUE") return names(b_.issues, [](const Issue& i) { return !i.taken_back; });
        if (slot == "LINK") return names(b_.links);
        if (slot == "SESSION") return names(b_.sessions);
        if (slot == "BRACE") return names(b_.temporary_steel);
        if (slot == "BOX") return names(b_.obstacles);
        if (slot == "CUT") return names(b_.planned_cuts);
        if (slot == "JOB") return names(b_.jobs);
        if (slot == "ROW") return names(b_.releases);
        if (slot == "LIFT") return names(b_.lifts);
        if (slot == "SURFACE") return names(b_.surfaces);
        if (slot == "COAT") return names(b_.coats);
        if (slot == "PHOTO") return names(b_.photos);
        if (slot == "STOCK") return names(b_.stock);
        if (slot == "DECISION") return names(b_.decisions);
        if (slot == "CHOICE") return names(b_.choices);
        std::vector<std::string> words = pointsOf(slot);
        if (slot == "END-OR-SHAFT") {
            words = names(b_.drive_ends);
            for (const std::string& name : names(b_.shafts)) words.push_back(name);
        }
        if (slot == "STEP" || slot == "DONE-STEP")
            for (const StepState& s : c_.steps)
                if (s.done == (slot == "DONE-STEP")) words.push_back(s.code);
        if (slot == "DATE") words = datesAhead();
        if (slot == "PLACE")
            for (const auto& [id, g] : b_.gaps)
                if (std::find(words.begin(), words.end(), g.place) == words.end()) words.push_back(g.place);
        return words;
    }
    /// Of a slot that is filled with a point.
    std::vector<std::string> pointsOf(std::string_view slot) const {
        std::vector<std::string> words;
        if (slot == "NAME")
            for (const auto& [id, p] : b_.points)
                if (p.subject == c_.subject) words.push_back(p.name);
        if (slot == "ANY-POINT")
            for (const auto& [id, p] : b_.points)
                if (p.subject == the_body || p.subject == the_chassis) words.push_back(p.name);
        if (slot == "PIECE-POINT")
            for (const auto& [graft, g] : b_.grafts)
                for (const auto& [id, p] : b_.points)
                    if (p.subject == g.piece) words.push_back(p.name);
        return words;
    }
    /// Whether only a word of its list will do.
    static bool closed(std::string_view slot) {
        static const std::set<std::string_view> open{"NAME", "NEW", "STEP", "DONE-STEP", "PLACE", "DATE", "text"};
        return !open.contains(slot) && !isFigureSlot(slot);
    }

private:
    /// Today, and some weeks ahead.
    std::vector<std::string> datesAhead() const {
        std::vector<std::string> dates;
        if (const auto today = units::dayOf(c_.now_utc.substr(0, 10)))
            for (const int ahead : {0, 7, 14, 28, 56}) dates.push_back(units::isoDate(*today + ahead));
        return dates;
    }
    template <class E> static std::vector<std::string> wordsOf() { return {Words<E>::text.begin(), Words<E>::text.end()}; }
    template <class T, class Counts = bool (*)(const T&)>
    static std::vector<std::string> names(
        const Rows<T>& rows, Counts counts = [](const T&) { return true; }) {
        std::vector<std::string> words;
        for (const auto& [id, row] : rows)
            if (counts(row)) words.push_back(row.name);
        return words;
    }
    const Build& b_;
    const Context& c_;
};

/// Follows the forms as far as the typed words go, and gathers what may stand next.
class Follower {
public:
    Follower(const Slots& slots, std::vector<std::string> typed, NextWords& out)
        : slots_(slots), typed_(std::move(typed)), out_(out) {}

    void follow(const Read& pattern) {
        // a command wins over a point of its name
        if (pattern.reading && !typed_.empty() && commandOf(typed_.front())) return;
        seen_.clear();
        walk(pattern.form.items, 0, 0, [&](size_t k) {
            if (pattern.reading) followed(k);
        });
    }

private:
    using Then = std::function<void(size_t)>;

    /// After a reading: how well, with what, from where.
    void followed(size_t k) {
        for (const Read& suffix : patterns())
            if (suffix.reading && suffix.form.suffix && (k < typed_.size() || depth_ == 0)) {
                ++depth_;
                walk(suffix.form.items, 0, k, [&](size_t further) {
                    if (further > k) followed(further);
                });
                --depth_;
            }
    }

    void walk(const std::vector<FormItem>& items, size_t i, size_t k, const Then& then) {
        if (i == items.size()) return then(k);
        if (!seen_.insert({&items, i, k}).second) return;
        const FormItem& item = items[i];
        if (!item.group.empty()) {
            walk(item.group, 0, k, [&](size_t further) { walk(items, i + 1, further, then); });
            return walk(items, i + 1, k, then);
        }
        if (k == typed_.size()) return offer(item);
        for (const size_t n : taken(item, k)) {
            if (item.repeat) {
                walk(items, i + 1, k + n, then);
                repeat(items, i, k + n, then);
            } else {
                walk(items, i + 1, k + n, then);
            }
        }
    }

    /// Once more the same, as often as it fits.
    void repeat(const std::vector<FormItem>& items, size_t i, size_t k, const Then& then) {
        if (k == typed_.size()) return offer(items[i]);
        for (const size_t n : taken(items[i], k)) {
            walk(items, i + 1, k + n, then);
            repeat(items, i, k + n, then);
        }
    }

    /// How many words an item may take here.
    std::vector<size_t> taken(const FormItem& item, size_t k) {
        std::vector<size_t> counts;
        const std::string& word = typed_[k];
        if (std::find(item.words.begin(), item.words.end(), word) != item.words.end()) counts.push_back(1);
        for (const std::string& slot : item.slots) {
            if (slot == "text") {
                for (size_t n = 1; k + n <= typed_.size(); ++n) counts.push_back(n);
                out_.text = true; // it may go on
            } else if (isFigureSlot(slot)) {
                if (!looksLikeFigure(word)) continue;
                size_t n = 1;
                counts.push_back(n);
                while (k + n < typed_.size() && (isUnit(typed_[k + n]) || looksLikeFigure(typed_[k + n]))) {
                    if (isUnit(typed_[k + n]) || typed_[k + n].find('/') != std::string::npos) counts.push_back(n + 1);
                    ++n;
                }
            } else if (const auto list = slots_.of(slot);
                       !Slots::closed(slot) || std::find(list.begin(), list.end(), word) != list.end()) {
                counts.push_back(1);
            }
        }
        return counts;
    }

    void offer(const FormItem& item) {
        for (const std::string& word : item.words) offer(word);
        for (const std::string& slot : item.slots) {
            out_.figure = out_.figure || isFigureSlot(slot) || slot == "DATE";
            out_.text = out_.text || slot == "text";
            out_.name = out_.name || slot == "NEW" || slot == "PLACE";
            out_.point = out_.point || slot == "NAME";
            for (const std::string& word : slots_.of(slot)) offer(word);
        }
    }
    void offer(const std::string& word) {
        if (word.starts_with(out_.begun) && offered_.insert(word).second) out_.words.push_back(word);
    }

    const Slots& slots_;
    std::vector<std::string> typed_;
    NextWords& out_;
    std::set<std::tuple<const void*, size_t, size_t>> seen_;
    std::set<std::string> offered_;
    int depth_ = 0;
};

} // namespace

NextWords nextWords(const Build& b, const Context& context, std::string_view text, std::string_view bench) {
    NextWords out;
    constexpr size_t most = 200; // nobody taps a longer one
    if (text.size() > 4 * most) return out;
    Line line(text);
    std::vector<std::string> typed;
    while (!line.atEnd() && typed.size() < most) typed.push_back(line.next("").text);
    if (!typed.empty() && !text.ends_with(' ')) {
        out.begun = typed.back();
        typed.pop_back();
    }
    out.whole = text.find_first_not_of(' ') != std::string_view::npos && static_cast<bool>(understand(b, context, text));
    const bool beginning = typed.empty();
    const Slots slots(b, context);
    Follower follower(slots, std::move(typed), out);
    // at the beginning those of the bench stand first; before a letter is typed, they alone
    for (const bool own : {true, false})
        for (const Read& pattern : patterns()) {
            if (pattern.form.suffix || (pattern.bench == bench) != own) continue;
            if (beginning && !own && !bench.empty() && out.begun.empty()) continue;
            follower.follow(pattern);
        }
    return out;
}

} // namespace gorvet::entry
