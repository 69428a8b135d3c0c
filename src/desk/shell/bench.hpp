#pragma once

#include "analysis/bench.hpp"
#include "analysis/lead.hpp"
#include "desk/shell/desk.hpp"

#include <memory>
#include <optional>
#include <vector>

namespace gorvet::desk {

struct Drag;

/// What the window knows beyond the document: which subject is shown where a sheet has one, what is picked, which proposal is
/// shown.
struct ViewState {
    build::SubjectId subject = build::the_chassis;
    std::string selected;
    int skip = 0;          ///< how many proposed readings were passed over
    std::size_t view = 0;  ///< which of the bench's sheets, by its place
    std::string grip = {}; ///< the handle that is dragged
    double grip_value = 0;
};

/// A button that begins a line, gives a whole one (`line` without a blank at its end), or does an act.
struct Starter {
    QString label;
    QString line;
    const char* act = nullptr;
};

/// A proposal for the entry line: a figure and Enter complete it.
struct Proposal {
    QString pair;                              ///< as shown before the cursor: "Dl Fr"
    QString prefix;                            ///< what goes before the typed figure
    QString hint;                              ///< what to expect, what it is good for
    std::optional<std::pair<int, int>> points; ///< to draw it on the sheet
    std::optional<std::pair<int, int>> ends;   ///< its points in the survey, for the call-out's sketch
    QString whole;                             ///< of the call-out alone: what Enter without a figure gives; empty: one is needed
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
    const std::vector<analysis::BenchView>& views() const { return info_->views; }
    /// The sheet that is shown; nullptr for a bench that has none.
    const analysis::BenchView* view(const ViewState& state) const {
        return state.view < views().size() ? &views()[state.view] : nullptr;
    }
    /// What is to be drawn on a sheet besides what is picked.
    virtual analysis::ViewOptions options(const Document&, const ViewState& state) const {
        return {state.selected, {}, 0, state.grip, state.grip_value};
    }
    sheet::Drawing draw(const Document&, const ViewState&, double width, double height, const sheet::Format&) const;
    virtual std::vector<Starter> starters(const Document&, const ViewState&) const { return {}; }
    virtual std::optional<Proposal> proposal(const Document&, const ViewState&) const { return std::nullopt; }
    /// The same as the call-out shows it, which may take what the line does not.
    virtual std::optional<Proposal> calledOut(const Document& d, const ViewState& state) const { return proposal(d, state); }
    virtual QString placeholder() const { return {}; }
    virtual std::vector<Act> acts() const { return {}; }
    /// A build was opened.
    virtual void opened(Desk&) const {}
    /// Takes what was picked on its sheet; false: it has a card, or nothing.
    virtual bool picked(Desk&, const QString& /*tag*/) const { return false; }
    /// Takes something that is dragged, or was let go; false: it is not this bench's.
    virtual bool dragged(Desk&, const Drag&, bool /*let_go*/) const { return false; }

private:
    const analysis::BenchInfo* info_;
};

/// The desk's side of every bench in `analysis::benches`, in their order. One that has none of its own shows its view.
std::vector<std::unique_ptr<Bench>> makeBenches();

} // namespace gorvet::desk
