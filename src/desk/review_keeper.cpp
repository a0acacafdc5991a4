#include "desk/review_keeper.h"

#include <chrono>
#include <utility>

namespace jg {

namespace {
constexpr std::chrono::seconds kTryAgain{3};
}

void ReviewKeeper::begin() {
    if (state_ == KeepState::Elsewhere || state_ == KeepState::Keeping) return;
    state_ = KeepState::Keeping;
    Q_EMIT changed();
}

void ReviewKeeper::settle(const Result<std::int64_t>& result, bool more) {
    if (result) {
        revision_ = *result;
        error_ = {};
        state_ = more ? KeepState::Keeping : KeepState::Kept;
    } else {
        error_ = result.error();
        state_ = error_.code == ErrorCode::Stale ? KeepState::Elsewhere : KeepState::NotKept;
    }
    Q_EMIT changed();
}

void ReviewKeeper::rebase(std::int64_t revision) {
    revision_ = revision;
    error_ = {};
    state_ = KeepState::Kept;
    Q_EMIT changed();
}

void DirectKeeper::keep(Review review, Assessment told) {
    if (state() == KeepState::Elsewhere) return;
    review.revision = revision();
    settle(store_.save(review, &told), false);
}

WriterKeeper::WriterKeeper(std::unique_ptr<Store> store, std::int64_t revision)
    : ReviewKeeper(revision)
    , store_(std::move(store))
    , next_(revision)
    , thread_([this](std::stop_token stop) { run(stop); }) {}

WriterKeeper::~WriterKeeper() {
    thread_.request_stop();
    thread_.join();
}

void WriterKeeper::keep(Review review, Assessment told) {
    if (state() == KeepState::Elsewhere) return;
    {
        const std::lock_guard lock(mutex_);
        wish_ = Wish{std::move(review), std::move(told)};
        stuck_ = false;
    }
    wake_.notify_one();
    begin();
}

void WriterKeeper::flush() {
    {
        std::unique_lock lock(mutex_);
        idle_.wait(lock, [&] { return (!wish_ && !writing_) || stuck_ || over_; });
    }
    inbox_.drain();
}

void WriterKeeper::rebase(std::int64_t revision) {
    {
        const std::lock_guard lock(mutex_);
        next_ = revision;
        over_ = stuck_ = false;
        wish_.reset();
    }
    ReviewKeeper::rebase(revision);
}

void WriterKeeper::run(std::stop_token stop) {
    std::unique_lock lock(mutex_);
    for (;;) {
        if (stuck_)
            wake_.wait_for(lock, stop, kTryAgain, [&] { return !stuck_; });
        else
            wake_.wait(lock, stop, [&] { return wish_.has_value(); });
        stuck_ = false;
        if (wish_ && !over_) keepOne(lock);
        if (stop.stop_requested() && (!wish_ || stuck_ || over_)) return;
    }
}

void WriterKeeper::keepOne(std::unique_lock<std::mutex>& lock) {
    Wish wish = *std::exchange(wish_, std::nullopt);
    wish.review.revision = next_;
    writing_ = true;
    lock.unlock();
    const auto result = store_->save(wish.review, &wish.told);
    lock.lock();
    writing_ = false;
    over_ = !result && result.error().code == ErrorCode::Stale;
    stuck_ = !result && !over_;
    if (result) next_ = *result;
    // A newer state that came meanwhile stands for this one.
    if (stuck_ && !wish_) wish_ = std::move(wish);
    const bool more = result && wish_.has_value();
    inbox_.put([this, result, more] { settle(result, more); });
    idle_.notify_all();
}

} // namespace jg
