#if defined(__x86_64__)
#define ENTRY code16
#include "shape/distance_kernel_body.hpp"
#endif
