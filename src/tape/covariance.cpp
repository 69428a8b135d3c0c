#include "tape/covariance.hpp"

#include <mutex>
#include <optional>
#include <utility>

namespace gorvet::tape {

struct Covariance::Columns {
    std::shared_ptr<const Source> source;
    std::mutex mutex;
    std::vector<std::unique_ptr<const std::vector<double>>> found;
    std::vector<double> zeros;
};

namespace {
class Square final : public Covariance::Source {
public:
    Square(size_t n, std::vector<double> all) : n_(n), all_(std::move(all)) {}
    std::vector<double> column(size_t k) const override {
        return {all_.begin() + static_cast<std::ptrdiff_t>(k * n_), all_.begin() + static_cast<std::ptrdiff_t>((k + 1) * n_)};
    }

private:
    size_t n_;
    std::vector<double> all_;
};
class Diagonal final : public Covariance::Source {
public:
    explicit Diagonal(std::vector<double> variances) : variances_(std::move(variances)) {}
    std::vector<double> column(size_t k) const override {
        std::vector<double> c(variances_.size(), 0.0);
        c[k] = variances_[k];
        return c;
    }

private:
    std::vector<double> variances_;
};
} // namespace

Covariance::Covariance(size_t coordinates, std::shared_ptr<const Source> source)
    : size_(coordinates), columns_(std::make_shared<Columns>()) {
    columns_->source = std::move(source);
    columns_->found.resize(coordinates);
    columns_->zeros.assign(coordinates, 0.0);
}

Covariance Covariance::of(size_t coordinates, std::vector<double> all) {
    return {coordinates, std::make_shared<Square>(coordinates, std::move(all))};
}

Covariance Covariance::diagonal(std::vector<double> variances) {
    const size_t n = variances.size();
    return {n, std::make_shared<Diagonal>(std::move(variances))};
}

const std::vector<double>& Covariance::column(size_t k) const {
    static const std::vector<double> nothing;
    if (!columns_) return nothing;
    Columns& c = *columns_;
    if (!c.source) return c.zeros;
    const std::lock_guard lock(c.mutex);
    if (!c.found[k]) c.found[k] = std::make_unique<const std::vector<double>>(c.source->column(k));
    return *c.found[k];
}

double Covariance::quadratic(const std::vector<size_t>& coordinates, const std::vector<double>& gradient) const {
    double sum = 0;
    for (const size_t k : coordinates) {
        if (gradient[k] == 0) continue;
        const std::vector<double>& q = column(k);
        for (const size_t l : coordinates) sum += gradient[k] * q[l] * gradient[l];
    }
    return sum;
}

} // namespace gorvet::tape
