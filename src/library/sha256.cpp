// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/sha256.h"

#include <openssl/evp.h>

#include <array>
#include <new>

namespace jg {

void Sha256::Free::operator()(evp_md_ctx_st* state) const {
    EVP_MD_CTX_free(state);
}

Sha256::Sha256()
    : state_(EVP_MD_CTX_new()) {
    if (!state_ || EVP_DigestInit_ex(state_.get(), EVP_sha256(), nullptr) != 1) throw std::bad_alloc();
}

void Sha256::add(std::span<const char> piece) {
    if (EVP_DigestUpdate(state_.get(), piece.data(), piece.size()) != 1) throw std::bad_alloc();
}

std::string Sha256::hex() {
    std::array<unsigned char, EVP_MAX_MD_SIZE> sum{};
    unsigned length = 0;
    if (EVP_DigestFinal_ex(state_.get(), sum.data(), &length) != 1) throw std::bad_alloc();
    constexpr std::string_view kDigits = "0123456789abcdef";
    std::string text;
    for (unsigned i = 0; i < length; ++i) {
        text += kDigits[sum[i] >> 4];
        text += kDigits[sum[i] & 15];
    }
    return text;
}

std::string sha256(std::string_view text) {
    Sha256 hash;
    hash.add(text);
    return hash.hex();
}

} // namespace jg
