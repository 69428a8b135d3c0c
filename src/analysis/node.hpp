#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <type_traits>
#include <utility>

namespace gorvet::analysis {

/// Called with the share done, 0…1; false: stop.
using Progress = std::function<bool(double)>;

/// A node of the graph of results: an output beside the input that it was made from. It is made anew only from another input;
/// copies share both, so that results are cheap to copy. Before it is made its output is that of no input.
template <class Input, class Output> class Node {
public:
    Node() = default;
    /// Not made, for want of something: the output says of what.
    static Node waiting(Output why) { return Node(nullptr, std::make_shared<const Output>(std::move(why))); }
    /// From that input: taken over from `before` when that was made from an equal one. `compute` takes the input and gives an
    /// output, or an optional one: nothing when it was stopped, and the node is not made.
    template <class Compute> static Node of(Input input, const Node* before, const Compute& compute) {
        if (before && before->madeFrom(input)) return *before;
        if constexpr (std::is_convertible_v<std::invoke_result_t<Compute, const Input&>, Output>) {
            auto output = std::make_shared<const Output>(compute(std::as_const(input)));
            return Node(std::make_shared<const Input>(std::move(input)), std::move(output));
        } else {
            auto output = compute(std::as_const(input));
            if (!output) return {};
            return Node(std::make_shared<const Input>(std::move(input)), std::make_shared<const Output>(*std::move(output)));
        }
    }
    bool made() const { return input_ != nullptr; }
    bool madeFrom(const Input& input) const { return input_ && *input_ == input; }
    /// What it was made from; a default one when it was not made.
    const Input& input() const {
        static const Input none{};
        return input_ ? *input_ : none;
    }
    const Output& operator*() const {
        static const Output none{};
        return output_ ? *output_ : none;
    }
    const Output* operator->() const { return &**this; }
    /// Its output, to be kept by nodes that are made from it: the same one tells that nothing before it changed. Null before it
    /// is made.
    std::shared_ptr<const Output> share() const { return output_; }

private:
    Node(std::shared_ptr<const Input> input, std::shared_ptr<const Output> output)
        : input_(std::move(input)), output_(std::move(output)) {}
    std::shared_ptr<const Input> input_;
    std::shared_ptr<const Output> output_;
};

} // namespace gorvet::analysis
