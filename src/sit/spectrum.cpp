#include "sit/spectrum.hpp"

#include "dense/dense.hpp"

#include <algorithm>

namespace gorvet::sit {

Spectrum spectrumOf(const Eigen::MatrixXd& j) {
    const dense::Eigenpairs own = dense::eigenpairs(j.transpose() * j);
    return {own.values, own.vectors, 1e-10 * std::max(own.values.maxCoeff(), 1e-30)};
}

} // namespace gorvet::sit
