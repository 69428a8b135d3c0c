#pragma once

#include <memory>
#include <vector>

namespace gorvet::tape {

/// Covariances of a survey's coordinates (3·point + axis), mm². It keeps the factored equations and finds an entry when it is
/// asked for; columns once found are remembered. Copies share them; asking is safe from several threads.
class Covariance {
public:
    /// How a column is found: all entries beside coordinate `k`.
    class Source {
    public:
        virtual ~Source() = default;
        virtual std::vector<double> column(size_t k) const = 0;
    };
    Covariance() = default; ///< nothing is known: all zero
    Covariance(size_t coordinates, std::shared_ptr<const Source>);
    /// Square, row-major: for figures that come from elsewhere.
    static Covariance of(size_t coordinates, std::vector<double> all);
    /// Coordinates that have nothing to do with each other, by their variances.
    static Covariance diagonal(std::vector<double> variances);

    size_t size() const { return size_; }
    double operator()(size_t k, size_t l) const { return column(k)[l]; }
    /// Entries beside coordinate k; valid as long as this or a copy lives.
    const std::vector<double>& column(size_t k) const;
    /// gᵀQg over some coordinates; the gradient is of all.
    double quadratic(const std::vector<size_t>& coordinates, const std::vector<double>& gradient) const;

private:
    struct Columns;
    size_t size_ = 0;
    std::shared_ptr<Columns> columns_;
};

} // namespace gorvet::tape
