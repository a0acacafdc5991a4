// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/stop_on_signal.h"

#include <csignal>
#include <thread>
#include <unistd.h>

namespace jg {

std::stop_token stopOnSignals() {
    sigset_t signals;
    sigemptyset(&signals);
    for (const int signal : {SIGINT, SIGTERM}) sigaddset(&signals, signal);
    ::pthread_sigmask(SIG_BLOCK, &signals, nullptr); // threads that begin later take this over
    std::stop_source source;
    std::thread([signals, source]() mutable {
        constexpr int kBySignal = 128; // a shell's own way of saying it
        int signal = 0;
        if (::sigwait(&signals, &signal) != 0) return;
        source.request_stop();
        if (::sigwait(&signals, &signal) == 0) ::_exit(kBySignal + signal);
    }).detach(); // it waits as long as the program runs
    return source.get_token();
}

} // namespace jg
