// Build files from anywhere: opened, looked at, never changed when they are not sound.
#include "store/store.hpp"

#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <fstream>

#include <unistd.h>

using namespace gorvet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const std::string folder = [] {
        std::string name = (access("/dev/shm", W_OK) == 0 ? "/dev/shm" : "/tmp") + std::string("/gorvet-fuzz-XXXXXX");
        if (!mkdtemp(name.data())) std::abort();
        return name;
    }();
    const std::filesystem::path path = folder + "/fuzzed.gorvet";
    std::ofstream(path, std::ios::binary).write(reinterpret_cast<const char*>(data), static_cast<std::streamsize>(size));
    {
        auto store = store::Store::open(path);
        if (!store) {
            if (store.error().message.empty()) std::abort();
        } else {
            store::Store& s = **store;
            (void)s.log(50);
            (void)s.lastChange("point", 1);
            (void)s.readBlob(std::string(64, 'a'), [](auto) {});
            (void)build::buildToJson(s.build());
            if (!s.readOnly()) {
                (void)s.undo({"fuzz", ""});
                (void)s.keep({"tick", {build::Set<build::WorkFacts>{s.build().work}}}, {"fuzz", ""});
            } else if (s.damage().empty()) {
                std::abort(); // nobody else has it open
            }
        }
    }
    for (const auto& entry : std::filesystem::directory_iterator(folder)) std::filesystem::remove(entry.path());
    return 0;
}
