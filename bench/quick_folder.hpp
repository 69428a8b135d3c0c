#pragma once

#include <cstdlib>
#include <filesystem>
#include <string>
#include <unistd.h>

/// In memory where the system has a folder there: the disk's own time is not what is measured.
inline std::filesystem::path folder() {
    static const std::filesystem::path made = [] {
        std::string name = (access("/dev/shm", W_OK) == 0 ? "/dev/shm" : "/tmp") + std::string("/gorvet-bench-XXXXXX");
        if (!mkdtemp(name.data())) std::abort();
        return std::filesystem::path(name);
    }();
    return made;
}
