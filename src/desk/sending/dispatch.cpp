// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/dispatch.h"

#include "base/clock.h"
#include "desk/intake/film_owner.h"
#include "desk/intake/guardian_check.h"
#include "desk/sending/letter_choice.h"
#include "desk/sending/letter_files.h"
#include "desk/sending/mail_words.h"
#include "desk/sending/promises.h"
#include "desk/session/beside.h"
#include "film/reader.h"
#include "letter/letter_html.h"
#include "library/sha256.h"
#include "post/mail.h"
#include "review/record/deliveries.h"
#include "review/record/read_by.h"
#include "review/tell/letter_sentences.h"
#include "review/tell/send_check.h"

#include <iterator>
#include <set>

namespace jg {

namespace fs = std::filesystem;

namespace {

/// A way that a family can picture: a length, not a share of the height or of the picture.
bool isPictured(const Message& way) {
    for (const MessageArg& arg : way.args)
        if (const auto* length = std::get_if<Message>(&arg.value))
            if (length->id == "ghost.percent-of-height" || length->id == "ghost.pixels") return false;
    return true;
}

/// Under a picture with a ghost stands what the dashed lines are.
void sayGhosts(FilmRecipe& recipe) {
    for (LetterCorrection& c : recipe.letter.corrections) {
        const ToldDelivery& told = toldIn(recipe, c.delivery);
        const MeasureGhost* ghost = ghostIn(told, picturedMeasure(recipe, told, c.finding));
        if (!ghost || ghost->frame != c.frame) continue;
        const Message dashed = ghost->byHand ? msg("letter.ghost-by-hand")
                               : isPictured(ghost->least)
                                   ? msg("letter.ghost", {{"goal", ghost->label}, {"change", ghost->least}})
                                   : msg("letter.ghost-goal", {{"goal", ghost->label}});
        c.caption = joined(ListStyle::Sentences, {c.caption, dashed});
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
    ToldDelivery told;
    told.marks = session.review().deliveryOr(number);
    told.marks.veils = session.hiddenOn(told.marks);
    const auto& clips = session.submission().clips;
    told.assessment = assess(session.review(), session.playbook(), clips, session.athlete().hand, number);
    const Clip& clip = filmOf(told.marks, clips);
    fillGhosts(told, session.playbook(), clip, session.athlete().hand);
    told.clip = library.mediaPath(clip);
    told.captureFps = clip.captureFps;
    return told;
}

} // namespace

Prompt promptOf(const ReviewSession& session, const Stop& stop) {
    Prompt prompt = promptFor(session.review(), session.playbook(), session.told(), stop,
                              readBy(session.review(), session.athlete()));
    if (const auto both = session.beside(stop); both && *both) {
        const auto changes = besideChanges(stop, **both, session.playbook(), overruledOf(session.athlete()));
        prompt.change =
            joined(ListStyle::Sentences, toldChanges(stop, **both, changes, session.playbook(), 1));
    }
    return prompt;
}

DispatchRecipe previewRecipe(const ReviewSession& session) {
    const Library& library = session.library();
    const auto& clips = session.submission().clips;
    DispatchRecipe r;
    r.film.words = session.readersWords();
    r.film.review = session.review();
    r.film.playbook = session.playbook();
    r.film.assessment = session.told();
    r.film.letter = session.letter();
    r.film.marks = r.film.review.deliveryOr(r.film.assessment.delivery);
    r.film.marks.veils = session.hiddenOn(r.film.marks);
    const Clip& clip = filmOf(r.film.marks, clips);
    fillGhosts(r.film, r.film.playbook, clip, session.athlete().hand);
    for (const int number : othersShown(r.film.review, r.film.marks.number, r.film.letter))
        r.film.others.push_back(tell(session, library, number));
    sayGhosts(r.film);
    r.film.clip = library.mediaPath(clip);
    r.film.captureFps = clip.captureFps;
    for (const Stop& s : r.film.review.stops) {
        if (const auto both = session.beside(s); both && *both)
            r.film.beside[s.id] =
                toldBeside(library, r.film.playbook, s, **both, overruledOf(session.athlete()));
        r.film.prompts[s.id] = promptOf(session, s);
    }
    const LetterChoice choice = letterChoiceOf(session.library());
    r.paper = choice.paper;
    r.phonePage = choice.phonePage;
    applyChoice(choice, r.film);
    r.film.takesFolder = library.takesFolder();
    r.house = session.house();
    r.athleteFirstName = session.athlete().firstName;
    r.dateUnix = session.clock().nowUnix();
    return r;
}

namespace {

/// A film that an older version took in for two athletes goes to neither.
Status filmsAreTheAthletes(const ReviewSession& session) {
    std::set<std::string> films;
    for (const DeliveryMarks& d : session.review().deliveries)
        films.insert(filmOf(d, session.submission().clips).mediaHash);
    for (const Stop& stop : session.review().stops)
        if (const auto both = session.beside(stop); both && *both) films.insert((*both)->then.clip.mediaHash);
    for (const std::string& film : films) {
        auto other = otherOwner(session.library(), film, session.athlete().id);
        if (!other) return other.error();
        if (*other)
            return fail(ErrorCode::Refused, msg("dispatch.shared-film", {{"name", (*other)->fullName()}}));
    }
    return Done{};
}

} // namespace

std::vector<SendProblem> problemsOf(const ReviewSession& session) {
    auto problems = staleSentences(session.letter());
    if (auto other = inOtherLanguage(session.review().plan, session.athlete().language))
        problems.push_back(*other);
    auto others = checkBeforeSending(session.review(), session.playbook(), session.told(), session.athlete(),
                                     session.submission(), session.clock().today(), session.pain());
    problems.insert(problems.end(), std::make_move_iterator(others.begin()),
                    std::make_move_iterator(others.end()));
    for (const Stop& stop : session.review().stops)
        if (const auto both = session.beside(stop); !both)
            problems.push_back(
                {true, msg("beside.gone", {{"stop", stop.title}, {"why", both.error().text}})});
    return problems;
}

Result<DispatchRecipe> dispatchRecipe(const ReviewSession& session) {
    const Date today = session.clock().today();
    for (const SendProblem& p : problemsOf(session))
        if (p.stop) return fail(ErrorCode::Refused, p.text);
    if (auto own = filmsAreTheAthletes(session); !own) return own.error();
    if (session.athlete().isMinorOn(today))
        if (auto fine = checkGuardian(session.library(), session.athlete(), today); !fine)
            return fail(ErrorCode::Refused, fine.error().text);
    auto to = recipientFor(session.athlete(), today);
    if (!to) return to.error();
    DispatchRecipe r = previewRecipe(session);
    r.toName = to->name;
    r.toGuardian = to->guardian;
    r.toAddress = to->email;
    auto ground = groundOf(session);
    if (!ground) return ground.error();
    r.ground = *std::move(ground);
    r.messageId = session.review().id.value + "." + std::to_string(r.dateUnix) + "@juxtagraph.invalid";
    return r;
}

namespace {

/// A review sent before keeps its day and its promise.
Status recordSent(Store& store, const FilmRecipe& sent, const std::string& to, const Clock& clock) {
    const Status marked = store.markSent(sent.review, &sent.assessment, SentRecord{clock.today(), to});
    if (!marked) return marked.error().code == ErrorCode::Refused ? Status(Done{}) : marked;
    auto athlete = store.athlete(sent.review.athlete);
    if (!athlete) return athlete.error();
    return store.add(promisesOfLetter(sent.review, *athlete, clock.today()));
}

} // namespace

namespace {

/// Reads a film that is about to leave: no place, device or person may be in it.
Status holdsNothingPrivate(const fs::path& film) {
    auto reader = Reader::open(film);
    if (!reader) return reader.error();
    if (!(*reader)->info().locationData && (*reader)->info().privateTags.empty()) return Done{};
    return fail(ErrorCode::Refused, msg("dispatch.film-tells-place"));
}

} // namespace

Status filmsAreWhatCameIn(const DispatchRecipe& recipe, std::stop_token stop) {
    std::set<fs::path> films = {recipe.film.clip};
    for (const ToldDelivery& told : recipe.film.others) films.insert(told.clip);
    for (const auto& [stop, told] : recipe.film.beside) films.insert(told.clip);
    for (const fs::path& film : films) {
        auto hash = contentHash(film, stop);
        if (!hash) return hash.error();
        if (*hash != film.filename().string()) return fail(ErrorCode::Refused, msg("dispatch.film-altered"));
    }
    return Done{};
}

Result<Parcel> packParcel(const DispatchRecipe& recipe, const fs::path& workFolder, FileStore& files,
                          std::stop_token stop, const std::function<void(double)>& progress) {
    if (auto own = filmsAreWhatCameIn(recipe, stop); !own) return own.error();
    auto all = letterFiles(recipe, files, stop, progress);
    if (!all) return all.error();
    Mail m;
    std::vector<Enclosure> enclosures;
    for (const LetterFile& file : *all) {
        if (file.what.empty() || (file.type == "text/html" && !recipe.phonePage)) continue;
        const std::string name = stemOf(recipe) + file.ending;
        if (auto made = file.write(workFolder / name); !made) return made.error();
        if (file.type.starts_with("video/"))
            if (auto clean = holdsNothingPrivate(workFolder / name); !clean) return clean.error();
        auto bytes = readFile(workFolder / name);
        if (!bytes) return bytes.error();
        m.attachments.push_back({name, file.type, std::move(*bytes)});
        enclosures.push_back({name, file.what});
    }
    if (auto still = filmsAreWhatCameIn(recipe, stop); !still) return still.error();
    m.fromName = recipe.house.coach;
    m.fromAddress = recipe.house.coachEmail;
    m.toName = recipe.toName;
    m.toAddress = recipe.toAddress;
    m.subject = recipe.film.words(recipe.film.letter.greeting);
    m.text = mailText(recipe, enclosures);
    m.html = mailAsHtml(m.text, recipe.film.words.tag());
    m.messageId = recipe.messageId;
    m.dateUnix = recipe.dateUnix;
    auto bytes = toBytes(m);
    if (!bytes) return bytes.error();
    return Parcel{std::move(*bytes), m.subject};
}

Result<std::string> layMail(Library& library, const std::string& item, const std::string& bytes) {
    constexpr std::size_t kEnough = 16; // letters of the hash: two makings of one letter never share a file
    std::string file = item + "-" + sha256(bytes).substr(0, kEnough) + ".eml";
    if (auto written = library.files().write(library.sentPath(file), bytes); !written) return written.error();
    return file;
}

Result<OutboxItem> putInOutbox(Library& library, const ReviewId& review, const DispatchRecipe& recipe,
                               const Parcel& parcel, const Clock& clock, IdSource& ids) {
    OutboxItem item;
    item.id = ids.next<struct MailTag>("mail").value;
    item.review = review;
    item.recipient = recipe.toAddress;
    item.subject = parcel.subject;
    item.at = clock.nowUnix();
    auto file = layMail(library, item.id, parcel.bytes);
    if (!file) return file.error();
    item.file = *std::move(file);
    if (auto stored = library.add(item); !stored) return stored.error();
    return item;
}

Status settleMail(Store& store, const OutboxItem& item, const FilmRecipe& sent, const Status& result,
                  const Clock& clock) {
    const MailState state = result                                     ? MailState::Sent
                            : result.error().code == ErrorCode::Unsure ? MailState::Unsure
                                                                       : MailState::Refused;
    // The review first: killed between the two, the mail reads as unsure and the review as sent, so nothing
    // goes out twice.
    if (result)
        if (auto recorded = recordSent(store, sent, item.recipient, clock); !recorded) return recorded;
    const auto settled = store.changeMail(item.id, [&](OutboxItem& now) -> Status {
        if (now.state == MailState::Sent || now.file != item.file) return Done{}; // another's by now
        now.at = clock.nowUnix();
        now.reason = result ? Message{} : result.error().text;
        now.state = state;
        return Done{};
    });
    return settled ? Status(Done{}) : Status(settled.error());
}

} // namespace jg
