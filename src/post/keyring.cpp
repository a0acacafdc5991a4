// SPDX-License-Identifier: GPL-3.0-or-later
#include "post/keyring.h"

#include "base/mutex.h"

#include <libsecret/secret.h>

#include <map>

namespace jg {

namespace {

const SecretSchema& schema() {
    static const SecretSchema own = {
        "org.juxtagraph.MailServer",
        SECRET_SCHEMA_NONE,
        {{"server", SECRET_SCHEMA_ATTRIBUTE_STRING}, {"user", SECRET_SCHEMA_ATTRIBUTE_STRING}},
        0,
        nullptr,
        nullptr,
        nullptr,
        nullptr,
        nullptr,
        nullptr,
        nullptr};
    return own;
}

Error unanswered(GError* error) {
    const Error told{ErrorCode::Network, msg("keyring.no-answer", {{"why", error->message}})};
    g_error_free(error);
    return told;
}

class SecretService final : public Keyring {
public:
    Result<std::optional<std::string>> find(const std::string& server, const std::string& user) override {
        GError* error = nullptr;
        gchar* found = secret_password_lookup_sync(&schema(), nullptr, &error, "server", server.c_str(),
                                                   "user", user.c_str(), nullptr);
        if (error) return unanswered(error);
        if (!found) return std::optional<std::string>();
        std::optional<std::string> password = found;
        secret_password_free(found);
        return password;
    }

    Status keep(const std::string& server, const std::string& user, const std::string& password) override {
        GError* error = nullptr;
        const std::string label = "Juxtagraph: " + user + ", " + server;
        secret_password_store_sync(&schema(), SECRET_COLLECTION_DEFAULT, label.c_str(), password.c_str(),
                                   nullptr, &error, "server", server.c_str(), "user", user.c_str(), nullptr);
        return error ? Status(unanswered(error)) : Status(Done{});
    }

    Status forget(const std::string& server, const std::string& user) override {
        GError* error = nullptr;
        secret_password_clear_sync(&schema(), nullptr, &error, "server", server.c_str(), "user", user.c_str(),
                                   nullptr);
        return error ? Status(unanswered(error)) : Status(Done{});
    }
};

class Passing final : public Keyring {
public:
    Result<std::optional<std::string>> find(const std::string& server, const std::string& user) override {
        const Holding lock(mutex_);
        const auto it = kept_.find({server, user});
        return it == kept_.end() ? std::nullopt : std::optional(it->second);
    }
    Status keep(const std::string& server, const std::string& user, const std::string& password) override {
        const Holding lock(mutex_);
        kept_[{server, user}] = password;
        return Done{};
    }
    Status forget(const std::string& server, const std::string& user) override {
        const Holding lock(mutex_);
        kept_.erase({server, user});
        return Done{};
    }

private:
    Mutex mutex_; ///< it is asked in threads of their own
    std::map<std::pair<std::string, std::string>, std::string> kept_ JG_GUARDED_BY(mutex_);
};

} // namespace

std::unique_ptr<Keyring> desktopKeyring() {
    return std::make_unique<SecretService>();
}

std::unique_ptr<Keyring> passingKeyring() {
    return std::make_unique<Passing>();
}

} // namespace jg
