#include "desk/outgoing.h"

namespace jg {

namespace fs = std::filesystem;

namespace {

/// The folder in which letter and film are made; gone when it is.
class WorkFolder {
public:
    explicit WorkFolder(fs::path path)
        : path_(std::move(path)) {}
    ~WorkFolder() {
        std::error_code ec;
        fs::remove_all(path_, ec);
    }
    WorkFolder(const WorkFolder&) = delete;
    WorkFolder& operator=(const WorkFolder&) = delete;
    const fs::path& path() const { return path_; }

private:
    fs::path path_;
};

/// Hands the bytes over and keeps how it ended; the sentence of a failure comes back.
Status handOver(Library& library, const OutboxItem& item, const std::string& bytes, const SendOrder& order,
                const Clock& clock, std::stop_token stop, const SendProgress& progress) {
    const Status sent = sendMail(order.server, order.from, item.recipient, bytes, stop, [&](double part) {
        if (progress) progress(SendStep::HandingOver, part);
    });
    const Status stored = settleMail(library, item, sent, clock);
    return stored ? sent : stored;
}

} // namespace

SendOrder sendOrderOf(Library& library, const std::string& password) {
    return {mailServerOf(library, password), library.setting("mail.from")};
}

Result<OutboxItem> sendLetter(Library& library, const DispatchRecipe& recipe, const SendOrder& order,
                              const Clock& clock, IdSource& ids, std::stop_token stop,
                              const SendProgress& progress) {
    const ReviewId& review = recipe.film.review.id;
    const WorkFolder work(library.sentPath("work-" + review.value));
    auto parcel = packParcel(recipe, work.path(), library.files(), stop, [&](double part) {
        if (progress) progress(SendStep::Making, part);
    });
    if (!parcel) return parcel.error();
    auto item = putInOutbox(library, review, recipe, *parcel, clock, ids);
    if (!item) return item.error();
    if (progress) progress(SendStep::HandingOver, 0);
    if (auto sent = handOver(library, *item, parcel->bytes, order, clock, stop, progress); !sent)
        return Error{sent.error().code, sent.error().text + " The letter waits in the outbox."};
    return item;
}

Status sendAgain(Library& library, const OutboxItem& item, const SendOrder& order, const Clock& clock,
                 std::stop_token stop, const SendProgress& progress) {
    auto bytes = readFile(library.sentPath(item.file));
    if (!bytes) return bytes.error();
    return handOver(library, item, *bytes, order, clock, stop, progress);
}

} // namespace jg
