// SPDX-License-Identifier: GPL-3.0-or-later
// Names of people never become paths.
#include "desk/keeping/file_names.h"

#include "desk/sending/dispatch.h"
#include "post/mail.h"
#include "tests/support/walk.h"

namespace jg {
namespace {

TEST(FileNames, AreOnePlainNameWhateverAPersonIsCalled) {
    EXPECT_EQ(asFileName("Odalys"), "Odalys");
    EXPECT_EQ(asFileName("Zo\u00eb M."), "Zo\u00eb-M");
    EXPECT_EQ(asFileName("../../etc/passwd"), "etc-passwd");
    EXPECT_EQ(asFileName(".hidden"), "hidden");
    EXPECT_EQ(asFileName("a\r\nb\tc"), "a-b-c");
    EXPECT_EQ(asFileName("C:\\x"), "C-x");
    EXPECT_EQ(asFileName("///"), "letter");
    EXPECT_EQ(asFileName(""), "letter");
    std::string longName(200, 'a');
    longName += "\u00e9";
    EXPECT_EQ(asFileName(longName).size(), 80U);
    std::string letters;
    for (int i = 0; i < 100; ++i) letters += "\u00e9";
    EXPECT_EQ(asFileName(letters).size() % 2, 0U); // no letter is cut in two
}

TEST(FileNames, ALetterToSomebodyWithAPathForANameStaysInItsFolder) {
    test::Walk walk;
    walk.athlete.firstName = "../../x" + std::string(300, 'y');
    ASSERT_TRUE(test::put(*walk.library, walk.athlete));
    test::leaveUnsaid(walk);
    FileStore files;
    const auto work = walk.folder / "deep/work";
    DispatchRecipe recipe = previewRecipe(*walk.session());
    recipe.toAddress = "odalys.home@example.org";
    const auto parcel = packParcel(recipe, work, files);
    ASSERT_TRUE(parcel) << said(parcel.error().text);
    const auto mail = readMail(parcel->bytes);
    ASSERT_EQ(mail->attachments.size(), 4U); // letter, page for the phone, sheet and calendar
    for (const auto& attached : mail->attachments) {
        EXPECT_EQ(attached.name.find('/'), std::string::npos);
        EXPECT_LT(attached.name.size(), 120U);
    }
    for (const auto& entry : std::filesystem::recursive_directory_iterator(walk.folder / "deep"))
        EXPECT_TRUE(entry.path().string().starts_with(work.string())) << entry.path();
}

} // namespace
} // namespace jg
