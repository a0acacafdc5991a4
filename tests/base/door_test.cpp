// SPDX-License-Identifier: GPL-3.0-or-later
// What comes in from outside: ids, names, documents, files.
#include "base/document.h"
#include "base/file_store.h"
#include "base/ids.h"
#include "base/unfit.h"
#include "tests/support/core.h"

#include <fstream>
#include <thread>

namespace jg {
namespace {

namespace fs = std::filesystem;

TEST(Ids, NothingThatCouldBeAPathIsOne) {
    IdSource ids;
    for (int i = 0; i < 100; ++i) EXPECT_TRUE(isId(ids.next<ReviewTag>("rev").value));
    for (const char* own : {"ath-1", "rev-earlier", "A_b-9", "x"}) EXPECT_TRUE(isId(own)) << own;
    for (const std::string& wrong :
         {std::string(), std::string("x/../../../precious"), std::string(".."), std::string("."),
          std::string("-x"), std::string("a b"), std::string("a\0b", 3), std::string("a.b"),
          std::string("\xc3\xa9"), std::string("a\n"), std::string(81, 'x'), std::string("/etc"),
          std::string("a\\b"), std::string("a%2f")})
        EXPECT_FALSE(isId(wrong)) << wrong;
    for (const char* wrong : {"", ".hidden", "..", "a/b", "a\\b", "a b", "take:1"})
        EXPECT_FALSE(isPlainName(wrong)) << wrong;
    EXPECT_TRUE(isPlainName("rev-1-stop-2.wav"));
}

TEST(Document, BracketsAndNumbersHaveBounds) {
    EXPECT_EQ(parseDocument("[[1]]").dump(), "[[1]]");
    EXPECT_EQ(parseDocument(R"({"a": "[[[[", "b": "\"]"})")["a"], "[[[["); // those in words are words
    for (const std::string& deep :
         {std::string(100000, '['), std::string(100000, '{'), std::string(65, '[') + std::string(65, ']')})
        EXPECT_THROW(parseDocument(deep), Unfit);
    EXPECT_NO_THROW(parseDocument(std::string(64, '[') + std::string(64, ']')));
    for (const char* absurd : {"1e300", "[-1e16]", R"({"a": 18446744073709551615})", "-9223372036854775808"})
        EXPECT_THROW(parseDocument(absurd), Unfit) << absurd;
    EXPECT_TRUE(parseDocumentOrNone("{").is_discarded());
    EXPECT_TRUE(parseDocumentOrNone("1e300").is_discarded());
}

TEST(FileStore, TwoThreadsMayWriteOnePath) {
    const test::TempFolder folder;
    const fs::path path = folder / "one.txt";
    FileStore files;
    const auto write = [&](char with) {
        for (int i = 0; i < 60; ++i) EXPECT_TRUE(files.write(path, std::string(5000, with)));
    };
    {
        const std::jthread a([&] { write('a'); }), b([&] { write('b'); }), c([&] { write('c'); });
    }
    const auto text = readFile(path);
    ASSERT_TRUE(text);
    EXPECT_EQ(text->size(), 5000U);
    EXPECT_EQ(text->find_first_not_of(text->front()), text->npos); // one of them, whole
    EXPECT_EQ(std::distance(fs::directory_iterator(folder.path()), fs::directory_iterator()),
              1); // and no part is left
}

TEST(FileStore, AFinishedFileGetsItsNameAndALinkIsNotReplaced) {
    const test::TempFolder folder;
    FileStore files;
    std::ofstream(folder / "part") << "sound";
    EXPECT_TRUE(files.settle(folder / "part", folder / "take.wav"));
    EXPECT_EQ(*readFile(folder / "take.wav"), "sound");
    std::ofstream(folder / "part") << "other";
    std::ofstream(folder / "elsewhere") << "precious";
    fs::create_symlink(folder / "elsewhere", folder / "link.wav");
    EXPECT_EQ(files.settle(folder / "part", folder / "link.wav").error().code, ErrorCode::Refused);
    EXPECT_EQ(*readFile(folder / "elsewhere"), "precious");
    EXPECT_FALSE(files.settle(folder / "part", folder / "no" / "such" / "folder.wav"));
}

} // namespace
} // namespace jg
