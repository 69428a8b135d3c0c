#define ENTRY codePlain
#include "shape/distance_kernel_body.hpp"
