// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/bundle.h"

#include "base/document.h"
#include "base/unfit.h"
#include "library/contents.h"
#include "library/sha256.h"
#include "library/work_folder.h"
#include "library/zip.h"
#include "review/record/allowed.h"
#include "review/record/consent.h"
#include "review/record/derived_json.h"
#include "review/record/people_check.h"
#include "review/record/review_json.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <map>
#include <set>

namespace jg {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

constexpr const char* kBundleFormat = "juxtagraph-bundle-1";
constexpr const char* kDocument = "bundle.json";
constexpr std::uint64_t kMostDocument = std::uint64_t{64} << 20; // own choice
constexpr std::uint64_t kMostFile = std::uint64_t{64} << 30;     // own choice

struct BundledFile {
    std::string path, sha256;
    std::uint64_t bytes = 0;
};

struct BundledReview {
    Review review;
    std::optional<Assessment> results;
};

struct Bundle {
    Athlete athlete;
    std::vector<Submission> submissions;
    std::vector<BundledReview> reviews;
    std::map<std::string, std::string> playbooks;
    std::vector<BundledFile> files;
};

Error hostile(const Message& why) {
    return fail(ErrorCode::BadInput, msg("bundle.refused", {{"why", why}}));
}

/// "media/NAME", "takes/NAME" or "sent/NAME", and a name that is one on every system.
bool isPlainPath(const std::string& path) {
    const auto slash = path.find('/');
    if (slash == path.npos || !isPlainName(path.substr(slash + 1))) return false;
    return std::any_of(std::begin(kLibraryFolders), std::end(kLibraryFolders),
                       [&](const FolderFacts& f) { return f.kept && path.substr(0, slash) == f.name; });
}

/// A film's place in this library; the path of a bundle may have an ending, as older versions wrote it.
std::string placeHere(const BundledFile& f) {
    const bool film = f.path.starts_with("media/") && !f.path.ends_with(".still.png");
    return film ? filmFile(f.sha256) : f.path;
}

json asJson(const Bundle& b) {
    json d = {{"format", kBundleFormat},      {"athlete", json::parse(toJson(b.athlete))},
              {"submissions", json::array()}, {"reviews", json::array()},
              {"playbooks", b.playbooks},     {"files", json::array()}};
    for (const Submission& s : b.submissions) {
        json surveys = json::object();
        for (const Clip& c : s.clips) surveys[c.id.value] = json::parse(surveyToJson(c));
        d["submissions"].push_back({{"document", json::parse(toJson(s))}, {"surveys", surveys}});
    }
    for (const BundledReview& r : b.reviews) {
        json derived = json::object();
        for (const DeliveryMarks& m : r.review.deliveries)
            if (const std::string text = derivedToJson(m); !text.empty())
                derived[std::to_string(m.number)] = json::parse(text);
        d["reviews"].push_back({{"document", json::parse(toJson(r.review))},
                                {"derived", derived},
                                {"results", r.results ? json::parse(toJson(*r.results)) : json(nullptr)}});
    }
    for (const BundledFile& f : b.files)
        d["files"].push_back({{"path", f.path}, {"sha256", f.sha256}, {"bytes", f.bytes}});
    return d;
}

template <typename T>
T orUnfit(Result<T> result) {
    if (!result) throw Unfit(result.error().text);
    return std::move(*result);
}

Submission submissionIn(const json& row) {
    Submission s = orUnfit(submissionFromJson(row.at("document").dump()));
    s.mail.clear(); // a mail of another house
    for (Clip& c : s.clips)
        if (row.at("surveys").contains(c.id.value))
            if (const Status read = readSurvey(row["surveys"][c.id.value].dump(), c); !read)
                throw Unfit(read.error().text);
    return s;
}

BundledReview reviewIn(const json& row) {
    BundledReview r{orUnfit(reviewFromJson(row.at("document").dump())), {}};
    for (DeliveryMarks& m : r.review.deliveries)
        if (const std::string key = std::to_string(m.number); row.at("derived").contains(key))
            if (const Status read = readDerived(row["derived"][key].dump(), m); !read)
                throw Unfit(read.error().text);
    if (!row.at("results").is_null()) r.results = orUnfit(assessmentFromJson(row["results"].dump()));
    r.review.revision = 0;
    return r;
}

Result<Bundle> bundleFrom(const std::string& text) {
    try {
        const json d = parseDocument(text);
        if (d.at("format") != kBundleFormat) throw Unfit(msg("bundle.other-format"));
        Bundle b;
        b.athlete = orUnfit(athleteFromJson(d.at("athlete").dump()));
        for (const json& row : d.at("submissions")) b.submissions.push_back(submissionIn(row));
        for (const json& row : d.at("reviews")) b.reviews.push_back(reviewIn(row));
        b.playbooks = d.at("playbooks").get<std::map<std::string, std::string>>();
        for (const json& f : d.at("files")) b.files.push_back({f.at("path"), f.at("sha256"), f.at("bytes")});
        return b;
    } catch (const std::exception& e) {
        return hostile(whyUnfit(e));
    }
}

/// What is in a bundle must hold together by itself: names, ids, owners, films, playbooks.
class Soundness {
public:
    Soundness(const Bundle& bundle, const ZipReader& zip)
        : b_(bundle)
        , zip_(zip) {}

    Status check(Date today) {
        if (const Status athlete = checkAthlete(b_.athlete, today); !athlete) return athlete;
        if (b_.athlete.id.empty()) return hostile(msg("bundle.other-athlete"));
        for (const auto step :
             {&Soundness::files, &Soundness::submissions, &Soundness::reviews, &Soundness::playbooks})
            if (const Status sound = (this->*step)(); !sound) return sound;
        return Done{};
    }

private:
    Status files() {
        listed_ = {kDocument};
        for (const BundledFile& f : b_.files) {
            if (!isPlainPath(f.path)) return hostile(msg("bundle.bad-name"));
            if (f.bytes > kMostFile) return hostile(msg("bundle.too-large"));
            if (!listed_.insert(f.path).second) return hostile(msg("bundle.twice"));
            if (!f.path.starts_with("media/")) continue;
            const auto hash = hashOfFile(f.path);
            const bool still = f.path.ends_with(".still.png");
            if (!hash || (!still && *hash != f.sha256)) return hostile(msg("bundle.bad-name"));
            (still ? stills_ : films_).insert(*hash);
        }
        for (const ZipReader::Entry& e : zip_.entries())
            if (!e.isFile || !listed_.contains(e.name)) return hostile(msg("bundle.not-listed"));
        return Done{};
    }

    Status submissions() {
        std::set<std::string> clips, used;
        for (const Submission& s : b_.submissions) {
            if (s.athlete != b_.athlete.id || s.id.empty()) return hostile(msg("bundle.other-athlete"));
            if (!clipsOf_.try_emplace(s.id.value).second) return hostile(msg("bundle.id-twice"));
            for (const Clip& c : s.clips) {
                if (c.athlete != b_.athlete.id || !films_.contains(c.mediaHash))
                    return hostile(msg("bundle.film-missing"));
                if (c.id.empty() || !clips.insert(c.id.value).second) return hostile(msg("bundle.id-twice"));
                clipsOf_[s.id.value].insert(c.id.value);
                used.insert(c.mediaHash);
            }
        }
        // A film that no clip is of would lie here for nobody.
        if (used != films_ || !std::includes(used.begin(), used.end(), stills_.begin(), stills_.end()))
            return hostile(msg("bundle.not-listed"));
        return Done{};
    }

    Status reviews() {
        std::set<std::string> ids;
        for (const BundledReview& r : b_.reviews) {
            const auto clips = clipsOf_.find(r.review.submission.value);
            if (r.review.athlete != b_.athlete.id || r.review.id.empty() || clips == clipsOf_.end())
                return hostile(msg("bundle.other-athlete"));
            if (!ids.insert(r.review.id.value).second) return hostile(msg("bundle.id-twice"));
            for (const DeliveryMarks& m : r.review.deliveries)
                if (!m.clip.empty() && !clips->second.contains(m.clip.value))
                    return hostile(msg("bundle.film-missing"));
            for (const std::string& take : r.review.takeFiles())
                if (!listed_.contains(takeFile(take))) return hostile(msg("bundle.film-missing"));
            for (const Judging& j : r.review.judgings)
                if (!j.playbook.empty() && !b_.playbooks.contains(j.playbook))
                    return hostile(msg("bundle.no-playbook"));
        }
        return Done{};
    }

    Status playbooks() {
        for (const auto& [hash, text] : b_.playbooks)
            if (sha256(text) != hash) return hostile(msg("bundle.wrong-hash"));
        return Done{};
    }

    const Bundle& b_;
    const ZipReader& zip_;
    std::set<std::string> listed_, films_, stills_; ///< paths; hashes
    std::map<std::string, std::set<std::string>> clipsOf_;
};

class Export {
public:
    Export(Library& library, const BundleWish& wish)
        : library_(library)
        , wish_(wish) {}

    Result<Bundle> collect() {
        auto athlete = library_.athlete(wish_.athlete);
        if (!athlete) return athlete.error();
        bundle_.athlete = std::move(*athlete);
        auto reviews = library_.reviewsOf(wish_.athlete);
        if (!reviews) return reviews.error();
        for (const ReviewOfAthlete& r : *reviews)
            if (!wish_.review || r.summary.id == *wish_.review)
                if (auto added = addReview(r.summary.id); !added) return added.error();
        if (wish_.review && bundle_.reviews.empty())
            return fail(ErrorCode::NotFound, msg("bundle.no-review"));
        auto submissions = library_.submissions();
        if (!submissions) return submissions.error();
        for (Submission& s : *submissions)
            if (s.athlete == wish_.athlete &&
                (!wish_.review || s.id == bundle_.reviews.front().review.submission))
                if (auto added = addSubmission(std::move(s)); !added) return added.error();
        return std::move(bundle_);
    }

private:
    Status addReview(const ReviewId& id) {
        auto review = library_.review(id);
        if (!review) return review.error();
        auto results = library_.results(id);
        if (!results) return results.error();
        for (const Judging& j : review->judgings) {
            if (j.playbook.empty() || bundle_.playbooks.contains(j.playbook)) continue;
            auto text = library_.playbookText(j.playbook);
            if (!text) return text.error();
            bundle_.playbooks[j.playbook] = std::move(*text);
        }
        for (const std::string& take : review->takeFiles())
            if (auto added = addFile(takeFile(take)); !added) return added;
        bundle_.reviews.push_back({std::move(*review), std::move(*results)});
        return Done{};
    }

    Status addSubmission(Submission s) {
        for (const Clip& c : s.clips) {
            if (auto added = addFile(filmFile(c.mediaHash)); !added) return added;
            std::error_code ec;
            if (fs::exists(library_.stillPath(c), ec))
                if (auto added = addFile(stillFile(c.mediaHash)); !added) return added;
        }
        bundle_.submissions.push_back(std::move(s));
        return Done{};
    }

    Status addFile(const std::string& path) {
        if (std::any_of(bundle_.files.begin(), bundle_.files.end(),
                        [&](const auto& f) { return f.path == path; }))
            return Done{};
        const fs::path file = library_.folder() / path;
        std::error_code link;
        auto hash = fs::is_symlink(fs::symlink_status(file, link)) || path.empty()
                        ? Result<std::string>(fail(ErrorCode::Unreadable, {}))
                        : contentHash(file);
        if (!hash) return fail(ErrorCode::Damaged, msg("bundle.file-gone", {{"file", path}}));
        std::error_code ec;
        bundle_.files.push_back({path, *hash, fs::file_size(file, ec)});
        return Done{};
    }

    Library& library_;
    const BundleWish& wish_;
    Bundle bundle_;
};

class Import {
public:
    Import(Library& library, const Bundle& bundle, fs::path work)
        : library_(library)
        , bundle_(bundle)
        , work_(std::move(work)) {}

    /// Nothing that is here is anybody else's: each id that is known must be of the same athlete, submission
    /// and film. Fills what is here already.
    Status mayComeIn(Date today) {
        if (auto may = library_.mayWrite(); !may) return may;
        if (auto own = isTheAthlete(today); !own) return own;
        for (const Submission& s : bundle_.submissions)
            if (auto own = isTheirs(s); !own) return own;
        for (const BundledReview& r : bundle_.reviews)
            if (auto own = isTheirs(r.review); !own) return own;
        for (const BundledFile& f : bundle_.files)
            if (auto same = isTheSame(f); !same) return same;
        return Done{};
    }

private:
    /// The one of that id, were it here, and what they allow by what is known here.
    Status isTheAthlete(Date today) {
        const auto here = library_.athlete(bundle_.athlete.id);
        if (!here && here.error().code != ErrorCode::NotFound) return here.error();
        const Athlete& known = here ? *here : bundle_.athlete;
        if (known.born != bundle_.athlete.born && known.fullName() != bundle_.athlete.fullName())
            return fail(ErrorCode::Refused,
                        msg("bundle.other-person", {{"name", bundle_.athlete.fullName()}}));
        const Allowed filming = allowedOn(known, Use::Filming, today);
        if (filming != Allowed::Yes && filming != Allowed::Silent)
            return fail(ErrorCode::Refused, whyNotAllowed(known, Use::Filming, today));
        const auto gone = library_.row(ListOf::Forgotten, forgottenKey(bundle_.athlete.id));
        if (gone && *gone && !here)
            report_.differs.push_back(msg("backup.brings-back", {{"name", bundle_.athlete.fullName()}}));
        return Done{};
    }

    /// A film that another athlete has here would belong to two; a clip's id that is here must be this very
    /// one.
    Status isTheirs(const Submission& s) {
        for (const Clip& c : s.clips) {
            auto owners = library_.athletesOfMedia(c.mediaHash);
            if (!owners) return owners.error();
            for (const AthleteId& owner : *owners)
                if (owner != bundle_.athlete.id)
                    return fail(ErrorCode::Refused, msg("bundle.film-of-another", {{"file", c.fileName}}));
        }
        for (const Clip& c : s.clips) {
            auto owner = library_.submissionOfClip(c.id);
            if (!owner) return owner.error();
            if (*owner && **owner != s.id) return idOfAnother();
        }
        const auto here = library_.submission(s.id);
        if (!here && here.error().code == ErrorCode::NotFound) return Done{};
        if (!here) return here.error();
        here_.insert(s.id.value);
        const auto same = [](const Clip& a, const Clip& b) {
            return a.id == b.id && a.mediaHash == b.mediaHash;
        };
        if (here->athlete != s.athlete ||
            !std::equal(here->clips.begin(), here->clips.end(), s.clips.begin(), s.clips.end(), same))
            return idOfAnother();
        return Done{};
    }

    Status isTheirs(const Review& r) {
        const auto here = library_.review(r.id);
        if (!here && here.error().code == ErrorCode::NotFound) return Done{};
        if (!here) return here.error();
        return here->athlete == r.athlete && here->submission == r.submission ? Status(Done{})
                                                                              : idOfAnother();
    }

    Status isTheSame(const BundledFile& f) {
        std::error_code ec;
        const fs::path here = library_.folder() / placeHere(f);
        const auto there = fs::symlink_status(here, ec);
        if (!fs::exists(there) || f.path.ends_with(".still.png")) return Done{};
        const auto hash = fs::is_regular_file(there) ? contentHash(here) : Result<std::string>(std::string());
        return hash && *hash == f.sha256
                   ? Status(Done{})
                   : Status(fail(ErrorCode::Refused, msg("bundle.file-differs", {{"file", f.path}})));
    }

    static Error idOfAnother() { return fail(ErrorCode::Refused, msg("bundle.id-of-another")); }

public:
    Result<BundleReport> write() {
        report_.athlete = bundle_.athlete.id;
        for (const auto& [hash, text] : bundle_.playbooks) {
            auto kept = library_.keepPlaybook(text);
            if (!kept) return kept.error();
        }
        if (auto done = writeFiles(); !done) return done.error();
        if (auto done = writeAthlete(); !done) return done.error();
        for (const Submission& s : bundle_.submissions)
            if (auto done = writeSubmission(s); !done) return done.error();
        for (const BundledReview& r : bundle_.reviews)
            if (auto done = writeReview(r); !done) return done.error();
        return report_;
    }

private:
    Status writeFiles() {
        for (const BundledFile& f : bundle_.files) {
            const fs::path from = work_ / f.path, to = library_.folder() / placeHere(f);
            std::error_code ec;
            if (f.path.starts_with("media/") && !f.path.ends_with(".still.png")) { // with its row
                if (auto added = library_.addMedia(from); !added) return added.error();
            } else if (!fs::exists(fs::symlink_status(to, ec))) {
                if (auto copied = library_.files().copy(from, to); !copied) return copied;
            }
        }
        return Done{};
    }

    Status writeAthlete() {
        const auto here = library_.athlete(bundle_.athlete.id);
        if (!here && here.error().code != ErrorCode::NotFound) return here.error();
        if (!here) {
            ++report_.added;
            return library_.add(bundle_.athlete);
        }
        if (*here == bundle_.athlete)
            ++report_.same;
        else
            report_.differs.push_back(msg("bundle.athlete-differs", {{"name", here->fullName()}}));
        return Done{};
    }

    Status writeSubmission(const Submission& s) {
        const auto here = library_.submission(s.id);
        if (!here && here.error().code != ErrorCode::NotFound) return here.error();
        if (!here) {
            ++report_.added;
            return library_.add(s);
        }
        if (*here == s)
            ++report_.same;
        else
            report_.differs.push_back(msg("bundle.submission-differs", {{"date", s.received}}));
        return Done{};
    }

    Status writeReview(const BundledReview& r) {
        auto here = library_.review(r.review.id);
        if (!here && here.error().code != ErrorCode::NotFound) return here.error();
        if (here) {
            if (toJson(*here) == toJson(r.review)) {
                ++report_.same;
                return Done{};
            }
            report_.differs.push_back(msg("bundle.review-differs", {{"date", r.review.date}}));
        } else {
            ++report_.added;
        }
        // On an older revision it becomes a version beside the one that is here.
        const auto saved = library_.bring(r.review, r.results ? &*r.results : nullptr,
                                          here_.contains(r.review.submission.value));
        if (!saved && saved.error().code != ErrorCode::Stale) return saved.error();
        return Done{};
    }

    Library& library_;
    const Bundle& bundle_;
    fs::path work_;
    std::set<std::string> here_; ///< submissions that were here before
    BundleReport report_;
};

/// Unpacks every listed file and holds it against its hash.
Status unpackAll(const Bundle& b, const ZipReader& zip, const fs::path& work, std::stop_token stop,
                 const std::function<void(double)>& progress) {
    std::error_code ec;
    for (const FolderFacts& f : kLibraryFolders)
        if (f.kept) fs::create_directories(work / f.name, ec);
    if (ec) return writeError(work, ec.value());
    for (std::size_t i = 0; i < b.files.size(); ++i) {
        const BundledFile& f = b.files[i];
        if (auto unpacked = zip.unpack(f.path, f.bytes, work / f.path, stop); !unpacked) return unpacked;
        const auto hash = contentHash(work / f.path, stop);
        if (!hash) return hash.error();
        if (*hash != f.sha256) return hostile(msg("bundle.wrong-hash"));
        if (progress) progress(static_cast<double>(i + 1) / static_cast<double>(b.files.size()));
    }
    return Done{};
}

} // namespace

Status exportBundle(Library& library, const BundleWish& wish, const fs::path& to, std::stop_token stop,
                    const std::function<void(double)>& progress) {
    auto bundle = Export(library, wish).collect();
    if (!bundle) return bundle.error();
    return library.files().publish(to, [&](const fs::path& temporary) -> Status {
        auto zip = ZipWriter::create(temporary);
        if (!zip) return zip.error();
        if (auto added = zip->addText(kDocument, asJson(*bundle).dump(1)); !added) return added;
        for (const BundledFile& f : bundle->files)
            if (auto added = zip->addFile(f.path, library.folder() / f.path); !added) return added;
        return zip->finish(stop, progress);
    });
}

Result<BundleReport> importBundle(Library& library, const fs::path& from, Date today, std::stop_token stop,
                                  const std::function<void(double)>& progress) {
    auto zip = ZipReader::open(from);
    if (!zip) return zip.error();
    auto text = zip->text(kDocument, kMostDocument);
    if (!text) return text.error();
    auto bundle = bundleFrom(*text);
    if (!bundle) return bundle.error();
    if (auto sound = Soundness(*bundle, *zip).check(today); !sound) return sound.error();
    if (auto may = library.mayWrite(); !may) return may.error();
    auto work = library.workFolder();
    if (!work) return work.error();
    Import import(library, *bundle, (*work)->path());
    if (auto may = import.mayComeIn(today); !may) return may.error();
    if (auto whole = unpackAll(*bundle, *zip, (*work)->path(), stop, progress); !whole) return whole.error();
    return import.write();
}

} // namespace jg
