#include "store/hash.hpp"

#include <array>
#include <stdexcept>

#include <openssl/evp.h>

namespace gorvet::store {

struct Hash::Context {
    EVP_MD_CTX* handle = EVP_MD_CTX_new();
    ~Context() { EVP_MD_CTX_free(handle); }
};

Hash::Hash() : context_(std::make_unique<Context>()) {
    if (!context_->handle || EVP_DigestInit_ex(context_->handle, EVP_sha256(), nullptr) != 1)
        throw std::runtime_error("SHA-256 is not available");
}

Hash::~Hash() = default;

Hash& Hash::add(std::span<const unsigned char> bytes) {
    if (EVP_DigestUpdate(context_->handle, bytes.data(), bytes.size()) != 1) throw std::runtime_error("SHA-256 failed");
    return *this;
}

Hash& Hash::add(std::string_view text) { return add({reinterpret_cast<const unsigned char*>(text.data()), text.size()}); }

std::string Hash::hex() {
    std::array<unsigned char, EVP_MAX_MD_SIZE> digest{};
    unsigned int size = 0;
    if (EVP_DigestFinal_ex(context_->handle, digest.data(), &size) != 1) throw std::runtime_error("SHA-256 failed");
    constexpr const char* digits = "0123456789abcdef";
    std::string text;
    for (unsigned int i = 0; i < size; ++i) {
        text += digits[digest[i] >> 4];
        text += digits[digest[i] & 15];
    }
    return text;
}

} // namespace gorvet::store
