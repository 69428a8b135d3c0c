// Journals that any program may have written, a list of changes a line: what can be applied can be taken back, analysed and kept.
#include "analysis/results.hpp"
#include "build/edit.hpp"

#include <cstdint>
#include <cstdlib>

using namespace gorvet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    std::string_view text(reinterpret_cast<const char*>(data), size);
    build::Build b;
    b.settings.name = "fuzz";
    int kept = 0;
    while (!text.empty() && kept < 200) {
        const auto line = text.substr(0, text.find('\n'));
        text.remove_prefix(std::min(text.size(), line.size() + 1));
        auto changes = build::changesFromJson(line);
        if (!changes) continue;
        const build::Build before = b;
        const auto inverse = build::enact(b, build::Edit{"a line", std::move(*changes)});
        if (!inverse) {
            b.next_id = before.next_id;
            if (!(b == before)) std::abort(); // all or nothing
            continue;
        }
        build::Build back = b;
        if (!build::enact(back, *inverse)) std::abort();
        back.next_id = before.next_id;
        if (!(back == before)) std::abort();
        ++kept;
    }
    if (kept == 0) return 0;
    if (!build::consistent(b)) std::abort(); // what edits made is a build that edits could have made
    (void)analysis::analyse(b, 1);
    return 0;
}
