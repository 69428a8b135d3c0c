// Which bench has a side of its own on the desk.
#include "desk/drive/drive_bench.hpp"
#include "desk/make/make_bench.hpp"
#include "desk/scan/scan_bench.hpp"
#include "desk/sit/sit_bench.hpp"
#include "desk/stretch/stretch_bench.hpp"
#include "desk/tape/tape_bench.hpp"
#include "desk/work/work_bench.hpp"

namespace gorvet::desk {

sheet::Drawing Bench::draw(const Document& d, const ViewState& state, double width, double height, const sheet::Format& f) const {
    const analysis::BenchView* shown = view(state);
    if (!shown || !shown->draw) return {};
    return shown->draw(d.build(), d.results(), state.subject, options(d, state), width, height, f);
}

namespace {

template <class T> std::unique_ptr<Bench> make(std::string_view) { return std::make_unique<T>(); }

struct Side {
    std::string_view key;
    std::unique_ptr<Bench> (*make)(std::string_view);
};
constexpr Side sides[] = {{"tape", make<TapeBench>},       {"scan", make<ScanBench>},   {"sit", make<SitBench>},
                          {"stretch", make<StretchBench>}, {"drive", make<DriveBench>}, {"make", make<MakeBench>},
                          {"work", make<WorkBench>}};

} // namespace

std::vector<std::unique_ptr<Bench>> makeBenches() {
    std::vector<std::unique_ptr<Bench>> list;
    for (const analysis::BenchInfo* info : analysis::benches()) {
        std::unique_ptr<Bench> bench;
        for (const Side& side : sides)
            if (side.key == info->key) bench = side.make(side.key);
        if (!bench) bench = std::make_unique<Bench>(info->key);
        list.push_back(std::move(bench));
    }
    return list;
}

} // namespace gorvet::desk
