// SPDX-License-Identifier: GPL-3.0-or-later
// SHA-256 by which contents are named and checked.
#pragma once

#include <memory>
#include <span>
#include <string>
#include <string_view>

struct evp_md_ctx_st;

namespace jg {

/// The hash of what is added, piece by piece. Source: FIPS 180-4, as OpenSSL computes it, which takes what
/// the processor has for it. One thread at a time.
class Sha256 {
public:
    Sha256();
    void add(std::span<const char> piece);
    /// 64 small hexadecimal digits. Once; nothing is added after it.
    std::string hex();

private:
    struct Free {
        void operator()(evp_md_ctx_st* state) const;
    };
    std::unique_ptr<evp_md_ctx_st, Free> state_;
};

/// Of one text. Any thread.
std::string sha256(std::string_view text);

} // namespace jg
