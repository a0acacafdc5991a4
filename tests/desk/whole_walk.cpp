// SPDX-License-Identifier: GPL-3.0-or-later
// A whole walk without a window, for a machine that fails: whole_walk LIBRARY FILM. Says of each step "done
// WHAT" or "failed WHAT: sentence", and goes on with what can still be done. Ends with 0 when every step is
// done, else 1.
#include "base/clock.h"
#include "coaching/playbook_reader.h"
#include "demo/library/demo_review.h"
#include "desk/intake/intake.h"
#include "desk/keeping/places.h"
#include "desk/sending/outgoing.h"
#include "desk/session/review_session.h"
#include "letter/fonts.h"
#include "voice/audio_file.h"
#include "words/words.h"

#include <QGuiApplication>

#include <iostream>

namespace {

using namespace jg;
namespace fs = std::filesystem;

int failed = 0;

/// Tells of a step; true when it is done.
bool told(const char* what, const Status& done) {
    if (done)
        std::cout << "done " << what << std::endl;
    else
        std::cout << "failed " << what << ": " << english()(done.error().text) << std::endl;
    if (!done) ++failed;
    return static_cast<bool>(done);
}

template <typename T>
Status asStatus(const Result<T>& result) {
    return result ? Status(Done{}) : Status(result.error());
}

Athlete someone(IdSource& ids) {
    Athlete a;
    a.id = ids.next<AthleteTag>("ath");
    a.firstName = "Wren";
    a.born = *parseIsoDate("2011-05-05");
    a.guardianName = "Parent of Wren";
    a.guardianEmail = "wren.home@example.org";
    return a;
}

void walk(const fs::path& folder, const fs::path& film) {
    IdSource ids;
    SystemClock clock;
    const auto book = loadPlaybook(dataFolder() / "playbook");
    if (!told("playbook", asStatus(book))) return;
    auto opened = Library::open(folder, true, std::make_shared<FileStore>());
    if (!told("open", asStatus(opened))) return;
    Library& library = **opened;
    const auto looked = lookAtFilm(film, {});
    if (!told("look", asStatus(looked))) return;
    IntakeForm form;
    form.newAthlete = someone(ids);
    form.athlete = form.newAthlete->id;
    form.films = {{film, View::Open, 60}};
    const auto taken = takeIn(library, form, {*looked}, clock, ids);
    if (!told("take-in", asStatus(taken))) return;
    auto session = ReviewSession::open(library, *book, clock, ids, taken->id);
    if (!told("begin", asStatus(session))) return;
    ReviewSession& s = **session;
    told("position", s.setMoment(Moment::Set, 2));
    Plan plan = s.review().plan;
    plan.opening = "Hello Wren.";
    told("write", s.perform(asIs("Write"), {SetPlan{plan}}));
    told("keep", s.keepState() == KeepState::Kept ? Status(Done{}) : Status(s.keepError()));
    auto wav = WavWriter::open(library.takePath("take.wav"));
    if (told("take", asStatus(wav))) {
        const std::vector<std::int16_t> samples(48000, 300);
        const Status written = wav->write(samples);
        told("record", written ? wav->finish() : written);
    }
    told("setting", library.setSetting("house.place", "The Tram Shed"));
    told("csv", library.files().write(folder / "out.csv", "a,b\n"));
    const OutboxItem item{ids.next<ReviewTag>("mail").value,
                          s.review().id,
                          "a@example.org",
                          "Hello",
                          "walk.eml",
                          MailState::Ready,
                          {},
                          clock.nowUnix()};
    if (told("mail", library.files().write(library.sentPath(item.file), "Subject: Hello\r\n\r\n")))
        told("outbox", library.add(item));
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication app(argc, argv);
    if (argc != 3) return 2;
    walk(argv[1], argv[2]);
    return failed == 0 ? 0 : 1;
}
