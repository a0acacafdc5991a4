// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/review_keeper.h"

#include "base/caught.h"

#include <cassert>
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
    if (state_ == KeepState::Elsewhere) return; // what came after is beside theirs as a version, too
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

Status ReviewKeeper::rebase(std::int64_t revision) {
    if (state_ == KeepState::NotKept || state_ == KeepState::Keeping) return error_;
    revision_ = revision;
    error_ = {};
    state_ = KeepState::Kept;
    Q_EMIT changed();
    return Done{};
}

void DirectKeeper::keep(Review review, Assessment told) {
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
    {
        const Holding lock(mutex_);
        wish_ = Wish{std::move(review), std::move(told)};
        stuck_ = false;
    }
    wake_.notify_one();
    begin();
}

void WriterKeeper::flush() {
    {
        const Holding lock(mutex_);
        idle_.wait(mutex_, [&]() JG_NEEDS(mutex_) { return !writing_ && !mayWrite(); });
    }
    inbox_.drain();
}

Status WriterKeeper::rebase(std::int64_t revision) {
    {
        const Holding lock(mutex_);
        if (wish_ || writing_) return ReviewKeeper::error();
        next_ = revision;
    }
    return ReviewKeeper::rebase(revision);
}

void WriterKeeper::run(std::stop_token stop) {
    const Holding lock(mutex_);
    const auto something = [&]() JG_NEEDS(mutex_) { return mayWrite(); };
    for (;;) {
        if (stuck_) // try again by itself, or when the next state comes
            wake_.wait_for(mutex_, stop, kTryAgain, something);
        else
            wake_.wait(mutex_, stop, something);
        const bool ends = stop.stop_requested();
        if (wish_) keepOne();
        if (ends && (!wish_ || stuck_)) return;
    }
}

void WriterKeeper::keepOne() {
    Wish wish = *std::exchange(wish_, std::nullopt);
    wish.review.revision = next_;
    writing_ = true;
    stuck_ = false;
    mutex_.unlock();
    const auto result = caught([&] { return store_->save(wish.review, &wish.told); });
    mutex_.lock();
    writing_ = false;
    // Somebody else was quicker: this state lies beside theirs, and so will a newer one that came meanwhile.
    const bool over = !result && result.error().code == ErrorCode::Stale;
    stuck_ = !result && !over && !wish_;
    if (result) next_ = *result;
    if (stuck_) wish_ = std::move(wish);
    assert(!stuck_ || wish_);
    const bool more = result && wish_.has_value();
    inbox_.put([this, result, more] { settle(result, more); });
    idle_.notify_all();
}

} // namespace jg
