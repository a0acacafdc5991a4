// SPDX-License-Identifier: GPL-3.0-or-later
// Edits, says, sends, takes in, exports, backs up and opens a library without end until it is killed:
// library_storm LIBRARY FILM LOG SEED. What lies on the disk is told in LOG, one line each, after the call
// that put it there returned.
#include "base/clock.h"
#include "coaching/playbook_reader.h"
#include "desk/intake/intake.h"
#include "desk/keeping/places.h"
#include "desk/sending/outgoing.h"
#include "desk/session/recorder.h"
#include "desk/session/review_session.h"
#include "letter/calendar.h"
#include "letter/fonts.h"
#include "letter/week_sheet.h"
#include "library/backup.h"

#include <QCoreApplication>
#include <QElapsedTimer>
#include <QGuiApplication>

#include <fcntl.h>
#include <random>
#include <unistd.h>
#include <utility>

namespace {

using namespace jg;

class Storm {
public:
    Storm(const char* folder, const char* film, const char* log, unsigned seed)
        : folder_(folder)
        , film_(film)
        , log_(::open(log, O_WRONLY | O_APPEND | O_CREAT, 0644))
        , engine_(seed)
        , next_(seed % 5) {}

    int run() {
        auto book = loadPlaybook(dataFolder() / "playbook");
        if (!book) return 3;
        book_ = std::move(*book);
        for (;;) {
            auto library =
                Library::open(folder_, false, std::make_shared<FileStore>()); // migrates when it must
            if (!library) continue;                                           // the other one is at it
            for (int i = 0; i < 6; ++i) {
                const auto what = std::exchange(next_, engine_() % 11);
                if (what == 0)
                    takeInOne(**library);
                else if (what == 1)
                    sendOne(**library);
                else if (what == 2)
                    sayOne(**library);
                else if (what == 3)
                    exportOne(**library);
                else if (what == 4)
                    backUpOne(**library);
                else
                    editOne(**library);
            }
        }
    }

private:
    void tell(const std::string& line) {
        const std::string whole = line + "\n";
        if (::write(log_, whole.data(), whole.size()) < 0) std::_Exit(4);
    }

    std::unique_ptr<ReviewSession> anyOpen(Library& library) {
        const auto all = library.submissions();
        if (!all || all->empty()) return nullptr;
        auto session = ReviewSession::open(library, book_, clock_, ids_, (*all)[engine_() % all->size()].id);
        return session ? std::move(*session) : nullptr;
    }

    void editOne(Library& library) {
        const auto session = anyOpen(library);
        if (!session) return;
        if (session->review().sent) {
            const Status begun = session->beginAnother();
            if (!begun) return;
        }
        for (int i = 0; i < 3; ++i) {
            Plan plan = session->review().plan;
            plan.opening = std::to_string(::getpid()) + "-" + std::to_string(++serial_);
            if (!session->perform(asIs("Write"), {SetPlan{plan}})) return;
            if (session->keepState() == KeepState::Kept)
                tell("edit " + session->review().id.value + " " + std::to_string(session->review().revision) +
                     " " + plan.opening);
        }
    }

    /// A stop said into the stand-in microphone and kept with its review.
    void sayOne(Library& library) {
        const auto session = anyOpen(library);
        if (!session || session->review().sent) return;
        const auto microphone = makeStandInMicrophone(demoVoices(), 20);
        Recorder recorder(library, *microphone);
        const Stop stop{{"storm-" + std::to_string(::getpid())}, StopKind::Recap, "", "Storm", 0};
        if (!recorder.start(session->review().id, stop, session->clock().nowUnix() + ++serial_)) return;
        QElapsedTimer since;
        for (since.start(); since.elapsed() < 60;) QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
        const auto take = recorder.finish();
        if (!take || !*take) return;
        std::vector<Stop> stops = session->review().stops;
        std::erase_if(stops, [&](const Stop& s) { return s.id == stop.id; });
        stops.push_back(stop);
        if (!session->perform(asIs("Say"), {SetStops{stops}, SetTake{stop.id, **take}})) return;
        if (session->keepState() == KeepState::Kept)
            tell("said " + session->review().id.value + " " + std::to_string(session->review().revision) +
                 " " + (*take)->file);
    }

    /// The week's sheet and its calendar, written beside the library over those of other rounds.
    void exportOne(Library& library) {
        const auto session = anyOpen(library);
        if (!session) return;
        Plan plan = session->review().plan;
        plan.nextLook = addDays(session->review().date, 28);
        if (!session->review().sent && !session->perform(asIs("Plan"), {SetPlan{plan}})) return;
        const LetterModel letter = session->letter();
        const auto path = folder_.parent_path() / "exports" / std::to_string(engine_() % 3);
        if (writeWeekSheet(letter, "Storm", Paper::A4, english(), path.string() + ".pdf", library.files()))
            tell("exported " + path.string() + ".pdf");
        const std::string calendar =
            writeCalendar({letter, "Storm", session->review().id.value, clock_.nowUnix()}, english());
        if (!calendar.empty() && library.files().write(path.string() + ".ics", calendar))
            tell("exported " + path.string() + ".ics");
    }

    /// Into one of two folders, so that a backup goes on where a killed one stopped, also another program's.
    void backUpOne(Library& library) {
        const auto folder = folder_.parent_path() / "backups" / std::to_string(engine_() % 2);
        if (const auto state = backUp(library, folder, clock_.nowUnix()))
            tell("backed " + state->at + " " + folder.string());
    }

    /// The post's part of sending, without a server: the mail in the outbox, then the review marked.
    void sendOne(Library& library) {
        const auto session = anyOpen(library);
        if (!session || session->review().sent) return;
        const OutboxItem item{ids_.next<ReviewTag>("mail").value,
                              session->review().id,
                              "a@example.org",
                              "Hello",
                              "storm-" + std::to_string(::getpid()) + ".eml",
                              MailState::Ready,
                              {},
                              clock_.nowUnix()};
        // As the post does: a row of the outbox never stands before its file.
        if (!library.files().write(library.sentPath(item.file), "Subject: Hello\r\n\r\n")) return;
        if (!library.add(item)) return;
        if (settleMail(library, item, previewRecipe(*session).film, Done{}, clock_))
            tell("sent " + item.review.value);
    }

    void takeInOne(Library& library) {
        if (serialIn_ > 3) return;
        const auto looked = lookAtFilm(film_, {});
        if (!looked) return;
        IntakeForm form;
        Athlete fresh;
        fresh.id = ids_.next<AthleteTag>("ath");
        fresh.firstName = "Storm " + std::to_string(::getpid()) + "-" + std::to_string(++serialIn_);
        fresh.born = *parseIsoDate("2010-05-05");
        form.athlete = fresh.id;
        form.newAthlete = fresh;
        form.films = {{film_, View::Open, 60}};
        const auto taken = takeIn(library, form, {*looked}, clock_, ids_);
        if (taken) tell("taken " + taken->id.value + " " + fresh.id.value);
    }

    std::filesystem::path folder_, film_;
    int log_;
    std::mt19937 engine_;
    std::mt19937::result_type next_; ///< what it does next; the seed says what it begins with
    Playbook book_;
    SystemClock clock_;
    IdSource ids_;
    int serial_ = 0, serialIn_ = 0;
};

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication app(argc, argv);
    if (argc < 5 || !loadFonts(dataFolder() / "fonts")) return 2;
    return Storm(argv[1], argv[2], argv[3], static_cast<unsigned>(std::stoul(argv[4]))).run();
}
