// SPDX-License-Identifier: GPL-3.0-or-later
// Playbooks that are broken, each in one way: refused with a sentence that names the place.
#include "base/file_store.h"
#include "coaching/playbook.h"
#include "coaching/playbook_reader.h"
#include "tests/support/core.h"

#include <fstream>
#include <random>

namespace jg {
namespace {

namespace fs = std::filesystem;

/// Replaces one piece of a file; an empty piece replaces all of it.
struct Break {
    const char *file, *piece, *by, *says;
};

const Break kBreaks[] = {
    {"measures.json", "", "", "measures"},
    {"measures.json", "", "[]", "measures"},
    {"measures.json", "", "{\"measures\": 3}", "measures"},
    {"measures.json", "\"jointAngle\"", "\"bendAngle\"", "bendAngle"},
    {"measures.json", "\"landmark\": \"back-hip\"", "\"landmark\": \"tail\"", "tail"},
    {"measures.json", "\"positions\": [\"load\"]", "\"positions\": [\"lunch\"]", "lunch"},
    {"measures.json", "\"positions\": [\"load\"]", "\"positions\": []", "position"},
    {"measures.json", "\"views\": [\"open\", \"closed\"]", "\"views\": [\"above\"]", "above"},
    {"measures.json", "\"id\": \"leg-spread\"", "\"id\": \"back-knee\"", "back-knee"},
    {"measures.json", "\"formula\":", "\"formulae\":", "formula"},
    {"measures.json", "\"unit\": \"deg\"", "\"unit\": 7", "back-knee"},
    {"depths.json", "", "{}", ""},
    {"items.json", "", "{\"items\": 5}", "items.json"},
    {"items.json", "\"position\": \"load\"", "\"position\": \"noon\"", "noon"},
    {"items.json", "\"views\": [\"open\", \"closed\"]", "\"views\": [\"moon\"]", "moon"},
    {"items.json", "\"coach\":", "\"trainer\":", "items.json, at row 1"},
    {"items.json", "\"measure\": \"pelvis-slope-load:below\"", "\"measure\": \"nothing\"", "nothing"},
    {"items.json", "{\n", "{{\n", "items.json"},
    {"causes.json", "\"from\": \"load-shared\"", "\"from\": \"nowhere\"", "nowhere"},
    {"causes.json", "\"why\":", "\"because\":", "causes.json"},
    {"causes.json", "", "null", "causes.json"},
    {"drills.json", "\"body\": \"lower\"", "\"body\": \"middle\"", "lower or upper"},
    {"drills.json", "\"serves\": [\"hip-lead:below\"", "\"serves\": [\"ghosts\"", "ghosts"},
    {"drills.json", "\"ball\": true", "\"ball\": true, \"throwing\": false", "throw"},
    {"drills.json", "\"dose\": {", "\"dose\": 3, \"x\": {", "drills.json"},
    {"focuses.json", "\"front-knee-plant\"", "\"kneecap\"", "kneecap"},
    {"focuses.json", "\"rows\"", "\"lines\"", "focuses.json"},
    {"load-and-drive.json", "\"measure\": \"back-knee\"", "\"measure\": \"front-tooth\"", "front-tooth"},
    {"load-and-drive.json", "\"position\": \"load\"", "\"position\": \"finish\"", "Finish"},
    {"load-and-drive.json", "\"type\": \"atMost\"", "\"type\": \"nearby\"", "nearby"},
    {"load-and-drive.json", "\"type\": \"atMost\"", "\"type\": \"options\", \"wanted\": [\"yes\"]",
     "back-knee"},
    {"load-and-drive.json", "\"x\": 135, \"y\": 172", "\"x\": 135, \"y\": 120", "band"},
    {"load-and-drive.json", "[\"along the rubber\"]", "[\"on the moon\"]", "on the moon"},
    {"load-and-drive.json", "\"wanted\": [\"along the rubber\"]", "\"wanted\": []", "back-foot-set"},
    {"load-and-drive.json", "\"soft\": 6", "\"soft\": -6", "soft"},
    {"load-and-drive.json", "\"ages\": [11, 99]", "\"ages\": [99, 11]", "ages"},
    {"load-and-drive.json", "\"ages\": [11, 99]", "\"ages\": \"all\"", "load-and-drive.json"},
    {"load-and-drive.json", "\"load-shared\"", "\"load-hidden\"", "load-hidden"},
    {"load-and-drive.json", "\"id\": \"load-and-drive\"", "\"id\": \"\"", "name"},
    {"load-and-drive.json", "\"version\": ", "\"version\": \"two\", \"was\": ", "load-and-drive.json"},
    {"load-and-drive.json", "}\n", "}", ""},
};

std::string bytesOf(const fs::path& path) {
    return *readFile(path);
}

void write(const fs::path& path, const std::string& text) {
    std::ofstream(path, std::ios::binary) << text;
}

class BadPlaybooks : public testing::Test {
protected:
    BadPlaybooks() {
        fs::copy(fs::path(JG_SOURCE_DIR) / "data/playbook", folder_.path(), fs::copy_options::recursive);
    }
    test::TempFolder folder_;
};

TEST_F(BadPlaybooks, EachIsRefusedWithItsPlace) {
    ASSERT_TRUE(loadPlaybook(folder_.path()));
    int broken = 0;
    for (const Break& b : kBreaks) {
        if (!*b.says && *b.piece) continue; // the last line: harmless white space
        const fs::path file = folder_ / b.file;
        const std::string good = bytesOf(file);
        std::string bad = good;
        if (!*b.piece) {
            bad = b.by;
        } else {
            const auto at = bad.find(b.piece);
            ASSERT_NE(at, std::string::npos) << b.file << " " << b.piece;
            bad.replace(at, std::string(b.piece).size(), b.by);
        }
        write(file, bad);
        const auto loaded = loadPlaybook(folder_.path());
        EXPECT_FALSE(loaded) << b.file << ": " << b.piece << " -> " << b.by;
        if (!loaded) {
            const std::string why = said(loaded.error().text);
            EXPECT_NE(why.find(b.says), std::string::npos) << b.file << ": " << why;
            EXPECT_EQ(why.find("[json"), std::string::npos) << why; // a library's own words
            EXPECT_EQ(why.find("\u2039"), std::string::npos) << why;
        }
        write(file, good);
        ++broken;
    }
    EXPECT_GE(broken, 40);
}

TEST_F(BadPlaybooks, ACharacterChangedAnywhereIsRefusedOrHarmlessNeverACrash) {
    std::mt19937 engine(7);
    const char* files[] = {"items.json", "causes.json", "drills.json", "focuses.json", "load-and-drive.json"};
    int refused = 0;
    for (int i = 0; i < 120; ++i) {
        const fs::path file = folder_ / files[engine() % std::size(files)];
        const std::string good = bytesOf(file);
        std::string bad = good;
        bad[engine() % bad.size()] = static_cast<char>(engine() % 256);
        write(file, bad);
        const auto loaded = loadPlaybook(folder_.path());
        if (!loaded) {
            ++refused;
            EXPECT_FALSE(said(loaded.error().text).empty());
        }
        write(file, good);
    }
    EXPECT_GT(refused, 10);
}

} // namespace
} // namespace jg
