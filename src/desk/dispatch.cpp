#include "desk/dispatch.h"

#include "desk/file_names.h"
#include "desk/film_owner.h"
#include "desk/promises.h"
#include "film/open_films.h"
#include "letter/calendar.h"
#include "letter/letter_pages.h"
#include "letter/still.h"
#include "post/mail.h"
#include "review/send_check.h"

#include <set>

namespace jg {

namespace fs = std::filesystem;

namespace {

/// The measure a correction's picture is about: its own, or the first it bears on that has a number.
std::string pictured(const FilmRecipe& recipe, const ToldDelivery& told, const std::string& finding) {
    const auto hasNumber = [&](const std::string& id) {
        const MeasureRow* row = told.assessment.measure(id);
        return row && row->value.value;
    };
    if (hasNumber(finding)) return finding;
    for (const Cause& cause : recipe.playbook.causes)
        if (cause.from == finding && hasNumber(cause.to)) return cause.to;
    return finding;
}

/// Under a picture with a ghost stands what the dashed lines are.
void sayGhosts(FilmRecipe& recipe) {
    for (LetterCorrection& c : recipe.letter.corrections) {
        const ToldDelivery& told = toldIn(recipe, c.delivery);
        if (const MeasureGhost* ghost = ghostIn(told, pictured(recipe, told, c.finding));
            ghost && ghost->frame == c.frame)
            c.caption =
                joined(ListStyle::Sentences,
                       {c.caption, msg("letter.ghost", {{"goal", ghost->label}, {"change", ghost->least}})});
    }
}

void fillGhosts(ToldDelivery& told, const Playbook& playbook, const Clip& clip, Hand hand) {
    for (const MeasureRow& row : told.assessment.measures)
        if (auto ghost = ghostOf(told.marks, playbook, row, clip, hand))
            told.ghosts[row.id] = *std::move(ghost);
}

/// The deliveries beside the lead that a stop or a correction shows.
std::set<int> othersShown(const Review& review, int lead, const LetterModel& letter) {
    std::set<int> numbers;
    for (const Stop& s : review.stops) numbers.insert(s.delivery);
    for (const LetterCorrection& c : letter.corrections) numbers.insert(c.delivery);
    std::erase_if(numbers, [&](int n) { return n == lead || !review.delivery(n); });
    return numbers;
}

ToldDelivery tell(const ReviewSession& session, const Library& library, int number) {
    ToldDelivery told{session.review().deliveryOr(number), {}, {}, {}};
    const auto& clips = session.submission().clips;
    told.assessment = assess(session.review(), session.playbook(), clips, session.athlete().hand, number);
    const Clip& clip = filmOf(told.marks, clips);
    fillGhosts(told, session.playbook(), clip, session.athlete().hand);
    told.clip = library.mediaPath(clip);
    return told;
}

} // namespace

DispatchRecipe previewRecipe(const ReviewSession& session) {
    const Library& library = session.library();
    const auto& clips = session.submission().clips;
    DispatchRecipe r;
    r.film.review = session.review();
    r.film.playbook = session.playbook();
    r.film.assessment = session.told();
    r.film.letter = session.letter();
    r.film.marks = r.film.review.deliveryOr(r.film.assessment.delivery);
    const Clip& clip = filmOf(r.film.marks, clips);
    fillGhosts(r.film, r.film.playbook, clip, session.athlete().hand);
    for (const int number : othersShown(r.film.review, r.film.marks.number, r.film.letter))
        r.film.others.push_back(tell(session, library, number));
    sayGhosts(r.film);
    r.film.clip = library.mediaPath(clip);
    r.film.takesFolder = library.takePath("");
    r.house = session.house();
    r.athleteFirstName = session.athlete().firstName;
    r.dateUnix = session.clock().nowUnix();
    return r;
}

namespace {

/// A film that an older version took in for two athletes goes to neither.
Status filmsAreTheAthletes(const ReviewSession& session) {
    for (const DeliveryMarks& d : session.review().deliveries) {
        const std::string& film = filmOf(d, session.submission().clips).mediaHash;
        auto other = otherOwner(session.library(), film, session.athlete().id);
        if (!other) return other.error();
        if (*other)
            return fail(ErrorCode::Refused, msg("dispatch.shared-film", {{"name", (*other)->fullName()}}));
    }
    return Done{};
}

} // namespace

Result<DispatchRecipe> dispatchRecipe(const ReviewSession& session) {
    const Date today = session.clock().today();
    const auto problems = checkBeforeSending(session.review(), session.playbook(), session.told(),
                                             session.athlete(), session.submission(), today, session.pain());
    for (const SendProblem& p : problems)
        if (p.stop) return fail(ErrorCode::Refused, p.text);
    if (auto own = filmsAreTheAthletes(session); !own) return own.error();
    auto to = recipientFor(session.athlete(), today);
    if (!to) return to.error();
    DispatchRecipe r = previewRecipe(session);
    r.toName = to->name;
    r.toAddress = to->email;
    r.messageId = session.review().id.value + "." + std::to_string(r.dateUnix) + "@juxtagraph.invalid";
    return r;
}

namespace {

/// A review sent before keeps its day and its promise.
Status recordSent(Store& store, const ReviewId& id, const std::string& to, const Clock& clock) {
    const Status marked = store.markSent(id, SentRecord{clock.today(), to});
    if (!marked) return marked.error().code == ErrorCode::Refused ? Status(Done{}) : marked;
    auto review = store.review(id);
    if (!review) return review.error();
    auto athlete = store.athlete(review->athlete);
    if (!athlete) return athlete.error();
    for (const Promise& promise : promisesOfLetter(*review, *athlete, clock.today()))
        if (auto saved = store.save(promise); !saved) return saved;
    return Done{};
}

} // namespace

Result<std::map<std::string, QImage>> correctionStills(const FilmRecipe& recipe) {
    std::map<std::string, QImage> stills;
    if (recipe.letter.corrections.empty()) return stills;
    OpenFilms films;
    for (const LetterCorrection& c : recipe.letter.corrections) {
        const ToldDelivery& told = toldIn(recipe, c.delivery);
        auto reader = films.of(told.clip);
        if (!reader) return reader.error();
        auto picture = (*reader)->picture(FrameNumber{c.frame});
        if (!picture) return picture.error();
        const std::string about = pictured(recipe, told, c.finding);
        stills[c.finding] = renderStill(
            *picture,
            sceneFor(told.marks, recipe.playbook, told.assessment, c.frame, about, ghostIn(told, about)),
            recipe.words, 960, true);
    }
    return stills;
}

Status exportLetter(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    auto stills = correctionStills(recipe.film);
    if (!stills) return stills.error();
    const LetterPages pages(recipe.film.letter, std::move(*stills), recipe.film.words);
    return writePdf(pages, recipe.film.words(recipe.film.letter.greeting), path, files);
}

namespace {

std::string calendarOf(const DispatchRecipe& recipe) {
    return writeCalendar(
        {recipe.film.letter, recipe.athleteFirstName, recipe.film.review.id.value, recipe.dateUnix},
        recipe.film.words);
}

} // namespace

Status exportCalendar(const DispatchRecipe& recipe, const fs::path& path, FileStore& files) {
    const std::string calendar = calendarOf(recipe);
    if (calendar.empty()) return fail(ErrorCode::Refused, msg("dispatch.no-calendar"));
    return files.write(path, calendar);
}

Status exportWeekSheet(const DispatchRecipe& recipe, Paper paper, const fs::path& path, FileStore& files) {
    return writeWeekSheet(recipe.film.letter, recipe.athleteFirstName, paper, recipe.film.words, path, files);
}

namespace {

std::string mailText(const DispatchRecipe& r) {
    const LetterModel& letter = r.film.letter;
    const char* about = r.film.review.takes.empty() ? "mail.letter" : "mail.letter-and-film";
    std::string text;
    for (const Message& caution : letter.cautions) text += r.film.words(caution) + "\n\n";
    return text + r.film.words(msg(about, {{"name", r.athleteFirstName},
                                           {"week", letter.week.empty() ? Message{} : msg("mail.week")},
                                           {"closing", letter.closing},
                                           {"coach", r.house.coach},
                                           {"place", r.house.place}}));
}

} // namespace

namespace {

/// Reads a film that is about to leave: no place, device or person may be in it.
Status holdsNothingPrivate(const fs::path& film) {
    auto reader = Reader::open(film);
    if (!reader) return reader.error();
    if (!(*reader)->info().locationData && (*reader)->info().privateTags.empty()) return Done{};
    return fail(ErrorCode::Refused, msg("dispatch.the-film-to-be-sent-would"));
}

/// Films lie under the hash of what was taken in: one that was altered or swapped under its name does not
/// leave.
Status filmsAreWhatCameIn(const DispatchRecipe& recipe, std::stop_token stop) {
    std::set<fs::path> films = {recipe.film.clip};
    for (const ToldDelivery& told : recipe.film.others) films.insert(told.clip);
    for (const fs::path& film : films) {
        auto hash = contentHash(film, stop);
        if (!hash) return hash.error();
        if (*hash != film.stem().string())
            return fail(ErrorCode::Refused, msg("dispatch.a-film-of-this-review-is"));
    }
    return Done{};
}

} // namespace

namespace {

/// The sheet to hang up and the calendar, when there are drills.
Status attachWeek(const DispatchRecipe& recipe, const fs::path& workFolder, const std::string& stem,
                  FileStore& files, Mail& mail) {
    if (recipe.film.letter.week.empty()) return Done{};
    const fs::path sheet = workFolder / (stem + "-week.pdf");
    if (auto made = exportWeekSheet(recipe, Paper::A4, sheet, files); !made) return made;
    auto bytes = readFile(sheet);
    if (!bytes) return bytes.error();
    mail.attachments.push_back({stem + "-week.pdf", "application/pdf", std::move(*bytes)});
    mail.attachments.push_back({stem + "-week.ics", "text/calendar", calendarOf(recipe)});
    return Done{};
}

} // namespace

Result<Parcel> packParcel(const DispatchRecipe& recipe, const fs::path& workFolder, FileStore& files,
                          std::stop_token stop, const std::function<void(double)>& progress) {
    if (auto own = filmsAreWhatCameIn(recipe, stop); !own) return own.error();
    const std::string stem = asFileName(recipe.athleteFirstName) + "-" + isoDate(recipe.film.review.date);
    const fs::path pdf = workFolder / (stem + ".pdf");
    if (auto made = exportLetter(recipe, pdf, files); !made) return made.error();
    auto letterBytes = readFile(pdf);
    if (!letterBytes) return letterBytes.error();
    Mail m{recipe.house.coach,
           recipe.house.coachEmail,
           recipe.toName,
           recipe.toAddress,
           recipe.film.words(recipe.film.letter.greeting),
           mailText(recipe),
           {},
           recipe.messageId,
           recipe.dateUnix};
    m.attachments.push_back({stem + ".pdf", "application/pdf", std::move(*letterBytes)});
    if (auto week = attachWeek(recipe, workFolder, stem, files, m); !week) return week.error();
    if (!recipe.film.review.takes.empty()) {
        const fs::path film = workFolder / (stem + ".mp4");
        if (auto made = renderNarratedFilm(recipe.film, film, files, stop, progress); !made)
            return made.error();
        if (auto clean = holdsNothingPrivate(film); !clean) return clean.error();
        auto filmBytes = readFile(film);
        if (!filmBytes) return filmBytes.error();
        m.attachments.push_back({stem + ".mp4", "video/mp4", std::move(*filmBytes)});
    }
    auto bytes = toBytes(m);
    if (!bytes) return bytes.error();
    return Parcel{std::move(*bytes), m.subject};
}

Result<OutboxItem> putInOutbox(Library& library, const ReviewId& review, const DispatchRecipe& recipe,
                               const Parcel& parcel, const Clock& clock, IdSource& ids) {
    OutboxItem item;
    item.id = ids.next<struct MailTag>("mail").value;
    item.review = review;
    item.recipient = recipe.toAddress;
    item.subject = parcel.subject;
    item.file = item.id + ".eml";
    item.at = clock.nowUnix();
    if (auto written = library.files().write(library.sentPath(item.file), parcel.bytes); !written)
        return written.error();
    if (auto stored = library.save(item); !stored) return stored.error();
    return item;
}

Status settleMail(Store& store, OutboxItem item, const Status& result, const Clock& clock) {
    item.at = clock.nowUnix();
    item.reason = result ? Message{} : result.error().text;
    item.state = result                                     ? MailState::Sent
                 : result.error().code == ErrorCode::Unsure ? MailState::Unsure
                                                            : MailState::Refused;
    // The review first: killed between the two, the mail reads as unsure and the review as sent, so nothing
    // goes out twice.
    if (result)
        if (auto recorded = recordSent(store, item.review, item.recipient, clock); !recorded) return recorded;
    return store.save(item);
}

} // namespace jg
