#pragma once

#include "analysis/bench.hpp"
#include "desk/shell/document.hpp"

#include <functional>
#include <memory>
#include <optional>
#include <vector>

namespace gorvet::desk {

/// What the window knows beyond the document: which subject Tape shows, what is picked, which proposal is shown.
struct ViewState {
    build::SubjectId subject = build::the_chassis;
    std::string selected;
    int skip = 0;         ///< how many proposed readings were passed over
    bool compare = false; ///< Sit shows what costs what, Scan its clearances pair by pair
    bool way = false;     ///< Scan shows the way in
    std::function<sheet::Drawing(double width, double height, const sheet::Format&)> pairs;  ///< of the scans
    std::function<sheet::Drawing(double width, double height, const sheet::Format&)> way_in; ///< of the scans, too
    std::function<const std::vector<analysis::SeatingClearance>*()> seatings; ///< how near they come in each seating
};

/// A button that begins a line, or gives a whole one (`line` without a blank at its end).
struct Starter {
    QString label;
    QString line;
};

/// A proposal for the entry line: a figure and Enter complete it.
struct Proposal {
    QString pair;                              ///< as shown before the cursor: "Dl Fr"
    QString prefix;                            ///< what goes before the typed figure
    QString hint;                              ///< what to expect, what it is good for
    std::optional<std::pair<int, int>> points; ///< to draw it on the sheet
    std::optional<std::pair<int, int>> ends;   ///< its points in the survey, for the call-out's sketch
};

/// One bench of the desk: how its sheet is drawn and how its work begins. It computes nothing.
class Bench {
public:
    /// `key` is that of a bench in `analysis::benches`.
    explicit Bench(std::string_view key) : info_(analysis::benchOf(key)) {}
    virtual ~Bench() = default;
    const analysis::BenchInfo& info() const { return *info_; }
    std::string_view key() const { return info_->key; }
    QString name() const { return QString::fromUtf8(info_->name); }
    /// Unless it says otherwise, the bench's view.
    virtual sheet::Drawing draw(const Document&, const ViewState&, double width, double height, const sheet::Format&) const;
    virtual std::vector<Starter> starters(const Document&, const ViewState&) const { return {}; }
    virtual std::optional<Proposal> proposal(const Document&, const ViewState&) const { return std::nullopt; }
    virtual QString placeholder() const { return {}; }

private:
    const analysis::BenchInfo* info_;
};

/// The desk's side of every bench in `analysis::benches`, in their order. One that has none of its own shows its view.
std::vector<std::unique_ptr<Bench>> makeBenches();

} // namespace gorvet::desk
