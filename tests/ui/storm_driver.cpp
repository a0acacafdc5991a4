// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/ui/storm_driver.h"

#include "base/clock.h"
#include "coaching/playbook_reader.h"
#include "desk/keeping/places.h"
#include "ui/kit/theme.h"
#include "ui/window/main_window.h"

#include <QTest>

namespace jg::test {

int storm(const char* folder) {
    ui::dress(*qApp);
    auto book = loadPlaybook(dataFolder() / "playbook");
    auto library = Library::open(folder, false, std::make_shared<FileStore>());
    if (!book || !library) return 3;
    const auto submissions = (*library)->submissions();
    if (!submissions || submissions->empty()) return 4;
    ui::MainWindow window({std::move(*library), std::move(*book), std::make_shared<SystemClock>(),
                           makeStandInMicrophone(demoVoices()), makeStandInLoudspeaker()});
    window.show();
    window.openReview(submissions->front().id);
    ReviewSession& session = window.reviewPlace()->session();
    for (long n = 0;; ++n) {
        Plan plan = session.review().plan;
        plan.opening = std::to_string(n) + " of " + std::to_string(QCoreApplication::applicationPid());
        if (!session.perform(asIs("Write"), {SetPlan{plan}})) return 5;
        (void)session.setMoment(Moment::Finish, session.clip().frames - 1 - n % 5);
        (void)session.grade("load-shared", Grade{GradeState::Graded, static_cast<int>(n % 5) + 1, "", {}},
                            std::nullopt);
        QTest::keyClick(&window, Qt::Key_Z);
        QTest::keyClick(&window, Qt::Key_Right);
        QCoreApplication::processEvents();
    }
}

} // namespace jg::test
