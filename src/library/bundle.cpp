#include "library/bundle.h"

#include "base/unfit.h"
#include "library/left_over.h"
#include "library/zip.h"
#include "review/people_check.h"
#include "review/review_json.h"

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
constexpr std::uint64_t kMostDocument = std::uint64_t{256} << 20; // own choice
constexpr std::uint64_t kMostFile = std::uint64_t{64} << 30;      // own choice
constexpr std::size_t kLongestName = 200;

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
    if (slash == path.npos) return false;
    const std::string folder = path.substr(0, slash), name = path.substr(slash + 1);
    if (std::find(std::begin(kKeptFolders), std::end(kKeptFolders), folder) == std::end(kKeptFolders))
        return false;
    if (name.empty() || name.size() > kLongestName || name.front() == '.') return false;
    return std::all_of(name.begin(), name.end(),
                       [](unsigned char c) { return std::isalnum(c) || c == '.' || c == '-' || c == '_'; });
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
        const json d = json::parse(text);
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

/// What a document of the bundle says must hold together: ids, owners, files.
Status checkBundle(const Bundle& b, const ZipReader& zip, Date today) {
    if (const Status athlete = checkAthlete(b.athlete, today); !athlete) return athlete;
    std::set<std::string> listed = {kDocument};
    for (const BundledFile& f : b.files) {
        if (!isPlainPath(f.path)) return hostile(msg("bundle.bad-name"));
        if (f.bytes > kMostFile) return hostile(msg("bundle.too-large"));
        if (!listed.insert(f.path).second) return hostile(msg("bundle.twice"));
        if (f.path.starts_with("media/") && fs::path(f.path).stem() != f.sha256 &&
            !f.path.ends_with(".still.png"))
            return hostile(msg("bundle.bad-name"));
    }
    for (const ZipReader::Entry& e : zip.entries())
        if (!e.isFile || !listed.contains(e.name)) return hostile(msg("bundle.not-listed"));
    std::set<std::string> submissions;
    for (const Submission& s : b.submissions) {
        if (s.athlete != b.athlete.id || s.id.empty()) return hostile(msg("bundle.other-athlete"));
        submissions.insert(s.id.value);
        for (const Clip& c : s.clips)
            if (c.athlete != b.athlete.id || !listed.contains("media/" + c.mediaHash + c.extension))
                return hostile(msg("bundle.film-missing"));
    }
    for (const BundledReview& r : b.reviews) {
        if (r.review.athlete != b.athlete.id || r.review.id.empty() ||
            !submissions.contains(r.review.submission.value))
            return hostile(msg("bundle.other-athlete"));
        for (const std::string& take : r.review.takeFiles())
            if (!listed.contains("takes/" + take)) return hostile(msg("bundle.film-missing"));
    }
    return Done{};
}

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
            if (auto added = addFile("takes/" + take); !added) return added;
        bundle_.reviews.push_back({std::move(*review), std::move(*results)});
        return Done{};
    }

    Status addSubmission(Submission s) {
        for (const Clip& c : s.clips) {
            if (auto added = addFile("media/" + c.mediaHash + c.extension); !added) return added;
            std::error_code ec;
            if (fs::exists(library_.stillPath(c), ec))
                if (auto added = addFile("media/" + c.mediaHash + ".still.png"); !added) return added;
        }
        bundle_.submissions.push_back(std::move(s));
        return Done{};
    }

    Status addFile(const std::string& path) {
        if (std::any_of(bundle_.files.begin(), bundle_.files.end(),
                        [&](const auto& f) { return f.path == path; }))
            return Done{};
        const fs::path file = library_.folder() / path;
        auto hash = contentHash(file);
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

    /// A film that another athlete has here would belong to two.
    Status mayComeIn() {
        if (library_.readOnly()) return fail(ErrorCode::Refused, msg("bundle.read-only"));
        for (const Submission& s : bundle_.submissions)
            for (const Clip& c : s.clips) {
                auto owners = library_.athletesOfMedia(c.mediaHash);
                if (!owners) return owners.error();
                for (const AthleteId& owner : *owners)
                    if (owner != bundle_.athlete.id)
                        return fail(ErrorCode::Refused,
                                    msg("bundle.film-of-another", {{"file", c.fileName}}));
            }
        for (const BundledFile& f : bundle_.files) {
            std::error_code ec;
            const fs::path here = library_.folder() / f.path;
            if (!fs::exists(here, ec) || f.path.ends_with(".still.png")) continue;
            const auto hash = contentHash(here);
            if (!hash || *hash != f.sha256)
                return fail(ErrorCode::Refused, msg("bundle.file-differs", {{"file", f.path}}));
        }
        return Done{};
    }

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
        std::set<std::string> films;
        for (const Submission& s : bundle_.submissions)
            for (const Clip& c : s.clips) films.insert("media/" + c.mediaHash + c.extension);
        for (const BundledFile& f : bundle_.files) {
            const fs::path from = work_ / f.path, to = library_.folder() / f.path;
            std::error_code ec;
            if (films.contains(f.path)) { // with its row
                if (auto added = library_.addMedia(from); !added) return added.error();
            } else if (!fs::exists(to, ec)) {
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
            return library_.save(bundle_.athlete);
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
            return library_.save(s);
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
        const auto saved = library_.save(r.review, r.results ? &*r.results : nullptr);
        if (!saved && saved.error().code != ErrorCode::Stale) return saved.error();
        return Done{};
    }

    Library& library_;
    const Bundle& bundle_;
    fs::path work_;
    BundleReport report_;
};

/// Unpacks every listed file and holds it against its hash.
Status unpackAll(const Bundle& b, const ZipReader& zip, const fs::path& work, std::stop_token stop,
                 const std::function<void(double)>& progress) {
    std::error_code ec;
    for (const char* sub : kKeptFolders) fs::create_directories(work / sub, ec);
    if (ec) return writeError(work, ec.value());
    fs::permissions(work, fs::perms::owner_all, ec);
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
    if (auto sound = checkBundle(*bundle, *zip, today); !sound) return sound.error();
    const fs::path work = library.folder() / ".bundle.part";
    std::error_code ec;
    fs::remove_all(work, ec);
    Import import(library, *bundle, work);
    auto report = [&]() -> Result<BundleReport> {
        if (auto may = import.mayComeIn(); !may) return may.error();
        if (auto whole = unpackAll(*bundle, *zip, work, stop, progress); !whole) return whole.error();
        return import.write();
    }();
    fs::remove_all(work, ec);
    return report;
}

} // namespace jg
