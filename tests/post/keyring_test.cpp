// SPDX-License-Identifier: GPL-3.0-or-later
// The desktop's keyring, kept by gnome-keyring on a session bus of the test's own and read by secret-tool.
#include "post/keyring.h"

#include "tests/support/fixtures.h"

#include <csignal>
#include <fstream>
#include <sstream>

namespace jg {
namespace {

using test::shell;

/// A bus that starts no service by itself: asked too early, it would start a second, locked one in front of
/// the test's own.
constexpr const char* kBusOfItsOwn = R"(<busconfig>
  <type>session</type>
  <listen>unix:tmpdir=/tmp</listen>
  <auth>EXTERNAL</auth>
  <policy context="default">
    <allow send_destination="*"/>
    <allow receive_sender="*"/>
    <allow own="*"/>
  </policy>
</busconfig>)";

/// A session bus and a Secret Service on it, unlocked, with a home of their own. libsecret holds on to the
/// first bus it meets: one a process.
class SecretSession {
public:
    SecretSession() {
        namespace fs = std::filesystem;
        fs::permissions(home_.path(), fs::perms::owner_all);
        for (const char* name : {"HOME", "XDG_RUNTIME_DIR", "XDG_DATA_HOME"})
            setenv(name, home_.path().c_str(), 1);
        const std::string config = home_ / "bus.conf";
        std::ofstream(config) << kBusOfItsOwn;
        std::istringstream bus(shell("dbus-daemon --config-file=" + config +
                                     " --fork --print-address=1 --print-pid=1 2>/dev/null"));
        std::string address;
        bus >> address >> bus_;
        setenv("DBUS_SESSION_BUS_ADDRESS", address.c_str(), 1);
        std::istringstream started(shell("printf unlock | gnome-keyring-daemon --unlock --foreground "
                                         "--components=secrets >/dev/null 2>&1 & echo $!"));
        started >> service_;
    }
    ~SecretSession() {
        for (const pid_t pid : {service_, bus_})
            if (pid > 0) ::kill(pid, SIGTERM);
    }
    SecretSession(const SecretSession&) = delete;
    SecretSession& operator=(const SecretSession&) = delete;

    /// The service has come up and has made and unlocked what it keeps in.
    bool answers() const {
        const auto keyring = desktopKeyring();
        for (int tries = 0; tries < 300; ++tries) {
            if (keyring->keep("nowhere.example.org", "nobody", "-"))
                return keyring->forget("nowhere.example.org", "nobody").ok();
            shell("sleep 0.1");
        }
        return false;
    }

private:
    test::TempFolder home_;
    pid_t bus_ = 0, service_ = 0;
};

/// What another program reads of it; empty = nothing is kept.
std::string lookedUp(const std::string& server, const std::string& user) {
    return shell("secret-tool lookup server " + server + " user " + user + " 2>/dev/null");
}

TEST(DesktopKeyring, KeepsAPasswordWhereOtherProgramsOfTheDesktopFindIt) {
    const SecretSession session;
    ASSERT_TRUE(session.answers());
    const auto keyring = desktopKeyring();
    const std::string server = "smtp.example.org";
    const auto found = [&](const std::string& user) { return *keyring->find(server, user); };
    EXPECT_FALSE(found("ilse"));
    ASSERT_TRUE(keyring->keep(server, "ilse", "a pass word, \"quoted\" ñ"));
    EXPECT_EQ(found("ilse"), "a pass word, \"quoted\" ñ");
    EXPECT_EQ(lookedUp(server, "ilse"), "a pass word, \"quoted\" ñ");
    ASSERT_TRUE(keyring->keep(server, "ilse", "another"));
    EXPECT_EQ(found("ilse"), "another");
    EXPECT_EQ(lookedUp(server, "ilse"), "another");
    EXPECT_FALSE(found("somebody"));
    EXPECT_EQ(lookedUp("other.example.org", "ilse"), "");
    ASSERT_TRUE(keyring->forget(server, "ilse"));
    EXPECT_FALSE(found("ilse"));
    EXPECT_EQ(lookedUp(server, "ilse"), "");
    EXPECT_TRUE(keyring->forget(server, "ilse")) << "also when none is kept";
}

} // namespace
} // namespace jg
