#include "files/streams.hpp"

#include <fcntl.h>
#include <unistd.h>

namespace gorvet::files {

void openStandardStreams() {
    for (int fd = 0; fd <= 2; ++fd) {
        if (fcntl(fd, F_GETFD) != -1) continue;
        const int opened = open("/dev/null", fd == STDERR_FILENO ? O_WRONLY : O_RDONLY); // the lowest free one: fd itself
        if (opened != fd) _exit(2);
    }
}

} // namespace gorvet::files
