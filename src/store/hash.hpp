#pragma once

#include <memory>
#include <span>
#include <string>
#include <string_view>

namespace gorvet::store {

/// SHA-256, fed piece by piece (FIPS 180-4, by OpenSSL).
class Hash {
public:
    Hash();
    ~Hash();
    Hash(const Hash&) = delete;
    Hash& operator=(const Hash&) = delete;
    Hash& add(std::span<const unsigned char>);
    Hash& add(std::string_view text);
    /// 64 lower-case hexadecimal signs. Call once.
    std::string hex();

private:
    struct Context;
    std::unique_ptr<Context> context_;
};

} // namespace gorvet::store
