// SPDX-License-Identifier: GPL-3.0-or-later
// Work handed to the thread that made the inbox.
#include "desk/jobs/inbox.h"

#include <gtest/gtest.h>

#include <QCoreApplication>

#include <thread>

namespace jg {
namespace {

TEST(Inbox, DoesTheWorkOfManyThreadsInItsOwnAndKeepsEachOnesOrder) {
    Inbox inbox;
    const auto here = std::this_thread::get_id();
    std::vector<std::vector<int>> done(3);
    {
        std::vector<std::jthread> threads;
        for (std::size_t t = 0; t < done.size(); ++t)
            threads.emplace_back([&, t] {
                for (int i = 0; i < 200; ++i)
                    inbox.put([&, t, i] {
                        EXPECT_EQ(std::this_thread::get_id(), here);
                        done[t].push_back(i);
                    });
            });
    }
    QCoreApplication::processEvents();
    for (const auto& one : done) {
        ASSERT_EQ(one.size(), 200U);
        EXPECT_TRUE(std::is_sorted(one.begin(), one.end()));
    }
}

TEST(Inbox, WhatWaitsWhenItEndsIsDroppedAndItMayEndByItsOwnWork) {
    int done = 0;
    auto inbox = std::make_unique<Inbox>();
    inbox->put([&] {
        ++done;
        inbox.reset();
    });
    inbox->put([&] { ++done; });
    QCoreApplication::processEvents();
    EXPECT_EQ(done, 1);
    EXPECT_FALSE(inbox);
}

} // namespace
} // namespace jg
