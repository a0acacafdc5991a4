// SPDX-License-Identifier: GPL-3.0-or-later
// Queries of a library beside the window.
#pragma once

#include "base/mutex.h"
#include "desk/jobs/inbox.h"
#include "library/library.h"

#include <QObject>

#include <condition_variable>
#include <deque>
#include <functional>
#include <map>
#include <memory>
#include <string>
#include <thread>

namespace jg {

/// One thread with a store of its own. A question of a kind replaces an older one of the same kind that was
/// not begun yet, so that only the newest is answered. Lives in the window's thread and answers there.
class LibraryReader : public QObject {
    Q_OBJECT
public:
    explicit LibraryReader(std::unique_ptr<Store> store);
    ~LibraryReader() override;

    /// Asks `question` in the reader's thread and hands what it returns to `answer` in this one. A question
    /// that throws has no answer; broke() tells why.
    template <typename Answer>
    void ask(const std::string& kind, std::function<Answer(Store&)> question,
             std::function<void(Answer)> answer) {
        put(kind, [question = std::move(question), answer = std::move(answer)](Store& store) {
            auto result = std::make_shared<Answer>(question(store));
            return [answer, result] { answer(std::move(*result)); };
        });
    }
    /// True while a question has no answer.
    bool busy() const { return waiting_ > 0; }

Q_SIGNALS:
    void broke(const jg::Message& why);

private:
    using Then = std::function<void()>;
    using Question = std::function<Then(Store&)>;
    void put(const std::string& kind, Question question);
    void run(std::stop_token stop);

    std::unique_ptr<Store> store_;
    Inbox inbox_;
    int waiting_ = 0; ///< questions without an answer; the window thread's
    Mutex mutex_;
    std::condition_variable_any wake_;
    std::deque<std::string> order_ JG_GUARDED_BY(mutex_);             ///< kinds, the first to be asked first
    std::map<std::string, Question> questions_ JG_GUARDED_BY(mutex_); ///< one of each kind in `order_`
    std::jthread thread_;
};

} // namespace jg
