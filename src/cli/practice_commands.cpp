#include "analysis/json.hpp"
#include "analysis/practice.hpp"
#include "cli/open_build.hpp"
#include "cli/tape_commands.hpp"
#include "prompt/context.hpp"
#include "sim/instruments.hpp"

#include <iostream>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;
int practiceNew(const std::string& path, double seed, int difficulty) {
    auto store = store::Store::create(path);
    if (!store) return fail(store.error());
    const auto changes = analysis::beginPractice(static_cast<std::uint32_t>(seed), difficulty);
    if (auto kept = (*store)->keep({fmt::format("begin the practice frame {}", seed), changes}, author()); !kept)
        return fail(kept.error());
    std::cerr << "made " << path << "\n";
    return 0;
}

int practiceTake(const std::string& path, const std::string& kind, const std::string& from, const std::string& to, bool keep) {
    auto store = keep ? openToWrite(path) : openToRead(path);
    if (!store) return fail(store.error());
    const build::Build& b = (*store)->build();
    if (!b.practice.on)
        return fail({Error::Code::BadInput, path, path + " is no practice frame.", "Make one: gorvet-cli practice new FILE", -1});
    const auto frame = sim::crookedFrame(static_cast<std::uint32_t>(b.practice.seed), static_cast<int>(b.practice.difficulty));
    auto taken = sim::take(frame, analysis::practiceTask(b, kind, from, to));
    if (!taken) return fail(taken.error());
    std::cout << fmt::format("{{\"kind\": \"{}\", \"from\": \"{}\", \"to\": \"{}\", \"reads\": \"{}\"}}\n", kind, from, to,
                             taken->figure);
    if (!keep) return 0;
    const auto context = prompt::contextFor(analysed(**store), build::the_chassis, author().who, store::nowUtc());
    auto understood = entry::understand(b, context, fmt::format("{} {} {} {}", kind, from, to, taken->figure));
    if (!understood) return fail(understood.error());
    if (auto kept = (*store)->keep(understood->edit, author()); !kept) return fail(kept.error());
    return 0;
}

int practiceMark(const std::string& path) {
    auto store = openToRead(path);
    if (!store) return fail(store.error());
    const build::Build& b = (*store)->build();
    if (!b.practice.on)
        return fail({Error::Code::BadInput, path, path + " is no practice frame.", "Make one: gorvet-cli practice new FILE", -1});
    std::cout << practiceJson(b, analysed(**store));
    if (!b.practice.marked) std::cerr << "gorvet-cli: the answers are not handed in yet: enter hand-in\n";
    return b.practice.marked ? 0 : exit_open;
}

} // namespace gorvet::cli
