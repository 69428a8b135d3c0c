// Whole sessions at the entry line, and the results after them: nothing that can be typed breaks what is worked out.
#include "analysis/results.hpp"
#include "build/gate.hpp"
#include "prompt/context.hpp"

#include <cstdint>
#include <cstdlib>

using namespace gorvet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const build::Build base = [] {
        build::Build b;
        entry::Context c;
        for (const char* line : {"point Al rail 0 -400 300",
                                 "point Ar rail 0 400 300",
                                 "point Bl rail 2000 -400 300",
                                 "point Br rail 2000 400 300",
                                 "hold Al x 0",
                                 "hold Al y -400",
                                 "hold Bl y -400",
                                 "hold Al z 300",
                                 "hold Ar z 300",
                                 "hold Bl z 300",
                                 "Al Ar 800",
                                 "Bl Br 800",
                                 "Al Bl 2000",
                                 "Ar Br 2000",
                                 "Al Br 2154",
                                 "Ar Bl 2154.2",
                                 "height Br 300",
                                 "rail 100 x 60 x 4 box top",
                                 "point FHl front-hub 400 -600 330",
                                 "point FHr front-hub 400 600 330"})
            if (auto u = entry::understand(b, c, line))
                if (auto kept = build::enact(b, u->edit); !kept) std::abort();
        return b;
    }();
    std::string_view text(reinterpret_cast<const char*>(data), size);
    build::Build b = base;
    entry::Context context;
    int kept = 0;
    for (int lines = 0; !text.empty() && lines < 40; ++lines) {
        const auto line = text.substr(0, text.find('\n'));
        text.remove_prefix(std::min(text.size(), line.size() + 1));
        if (entry::isAboutWork(line))
            context = prompt::contextFor(analysis::analyse(b, 1), context.subject, "fuzz", "2026-01-01T00:00:00Z");
        auto understood = entry::understand(b, context, line);
        if (!understood) {
            if (understood.error().message.empty()) std::abort();
            continue;
        }
        if (understood->subject) context.subject = *understood->subject;
        if (understood->edit.changes.empty()) continue;
        if (!build::acceptable(understood->edit)) std::abort(); // what is understood can be kept
        if (!build::enact(b, understood->edit)) std::abort();
        ++kept;
    }
    if (kept == 0) return 0;
    if (!build::consistent(b)) std::abort();
    const auto written = build::buildToJson(b);
    if (!written || !(*build::buildFromJson(*written) == b)) std::abort();
    (void)analysis::analyse(b, 1);
    return 0;
}
