#include "desk/make/make_bench.hpp"

#include <algorithm>

namespace gorvet::desk {

std::vector<Starter> MakeBench::starters(const Document& d, const ViewState& state) const {
    if (const auto* shown = view(state); shown && std::string_view(shown->key) == "issues") {
        std::vector<Starter> list = {{tr("hand out what is drawn now"), "issue"}, {tr("with a note"), "issue note "}};
        const auto& issues = d.build().issues;
        if (std::any_of(issues.begin(), issues.end(), [](const auto& row) { return !row.second.taken_back; }))
            list.push_back({tr("take one back"), "remove issue "});
        return list;
    }
    std::vector<Starter> list = {{tr("mount all"), "mount all"},
                                 {tr("a part"), "part "},
                                 d.build().fixtures.empty() ? Starter{tr("a fixture"), "fixture table1 pitch "}
                                                            : Starter{tr("a tower"), "tower "},
                                 {tr("biscuit"), "biscuit "},
                                 {tr("washer"), "washer "},
                                 {tr("mount bolt"), "mount-bolt "}};
    if (!d.build().crossmember) {
        list.push_back({tr("crossmember"), "crossmember"});
    } else {
        list.push_back(d.build().crossmember->form == build::CrossmemberForm::Dropped
                           ? Starter{tr("straight"), "crossmember form straight"}
                           : Starter{tr("drop its middle"), "crossmember form dropped"});
        list.push_back({tr("isolator"), "isolator "});
        list.push_back({tr("box"), "box "});
        list.push_back({tr("flange"), "flange "});
        list.push_back({tr("flange bolt"), "flange-bolt "});
        list.push_back({tr("pad"), "pad "});
    }
    return list;
}

} // namespace gorvet::desk
