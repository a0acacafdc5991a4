// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/library_reader.h"

#include "base/caught.h"

#include <cassert>

namespace jg {

LibraryReader::LibraryReader(std::unique_ptr<Store> store)
    : store_(std::move(store))
    , thread_([this](std::stop_token stop) { run(stop); }) {}

LibraryReader::~LibraryReader() {
    thread_.request_stop();
    thread_.join();
}

void LibraryReader::put(const std::string& kind, Question question) {
    {
        const Holding lock(mutex_);
        if (questions_.insert_or_assign(kind, std::move(question)).second) {
            order_.push_back(kind);
            ++waiting_;
        }
    }
    wake_.notify_one();
}

void LibraryReader::run(std::stop_token stop) {
    for (;;) {
        Question question;
        {
            const Holding lock(mutex_);
            if (!wake_.wait(mutex_, stop, [&]() JG_NEEDS(mutex_) { return !order_.empty(); })) return;
            assert(order_.size() == questions_.size());
            question = std::move(questions_.extract(order_.front()).mapped());
            order_.pop_front();
        }
        Then then;
        try {
            then = question(*store_);
        } catch (const std::exception& e) {
            then = [this, why = whyBroken(e)] { Q_EMIT broke(why); };
        }
        inbox_.put([this, then = std::move(then)] {
            then();
            --waiting_;
        });
    }
}

} // namespace jg
