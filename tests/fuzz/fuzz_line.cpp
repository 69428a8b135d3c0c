// Lines of the entry line: understood or refused, never worse.
#include "entry/entry.hpp"

#include <cstdint>
#include <cstdlib>

using namespace gorvet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const build::Build base = [] {
        build::Build b;
        entry::Context c;
        for (const char* line : {"point Al rail 0 -400 300", "point Ar rail 0 400 300", "point Bl rail 2000 -400 300",
                                 "point G gearbox-mount 1000 0 320", "Al Bl 2000", "crossmember", "brace door gap 4"})
            if (auto u = entry::understand(b, c, line))
                if (auto kept = build::enact(b, u->edit); !kept) std::abort();
        c.subject = build::the_body;
        for (const char* line : {"point Hl hinge-pillar 0 -1 0", "point Ml body-mount 1 -1 1"})
            if (auto u = entry::understand(b, c, line))
                if (auto kept = build::enact(b, u->edit); !kept) std::abort();
        return b;
    }();
    entry::Context context;
    context.knows_work = true;
    context.steps = {{"battery-out", "Take the battery out", "", false, {}}};
    context.next_step = "battery-out";
    auto understood = entry::understand(base, context, {reinterpret_cast<const char*>(data), size});
    if (!understood) {
        if (understood.error().message.empty()) std::abort();
        return 0;
    }
    build::Build b = base;
    auto kept = build::enact(b, understood->edit);
    if (!kept) std::abort();                                     // what is understood can be kept …
    if (auto back = build::enact(b, *kept); !back) std::abort(); // … and undone
    b.next_id = base.next_id;
    if (!(b == base)) std::abort();
    // and it survives the journal
    auto journal = build::changesFromJson(*build::changesToJson(understood->edit.changes));
    if (!journal) std::abort();
    return 0;
}
