#if defined(__x86_64__)
#define ENTRY code8
#include "shape/distance_kernel_body.hpp"
#endif
