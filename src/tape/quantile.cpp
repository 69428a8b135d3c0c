#include "tape/quantile.hpp"

#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/normal.hpp>

namespace gorvet::tape {

double chiSquaredBeyond(int count, double share) {
    return count <= 0 ? 0.0 : boost::math::quantile(boost::math::complement(boost::math::chi_squared(count), share));
}

double normalBeyond(double share) { return boost::math::quantile(boost::math::complement(boost::math::normal(), share)); }

} // namespace gorvet::tape
