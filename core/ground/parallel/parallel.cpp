// SPDX-License-Identifier: GPL-3.0-or-later
#include "parallel/parallel.hpp"

#include <atomic>
#include <condition_variable>
#include <exception>
#include <memory>
#include <mutex>
#include <thread>
#include <vector>

namespace tectonis {
namespace {

struct Job {
    Job(const std::function<void(std::size_t)>& each, std::size_t n) : work(each), count(n) {}
    const std::function<void(std::size_t)>& work;
    std::size_t count;
    std::atomic<std::size_t> next{0}, done{0};
    std::vector<std::exception_ptr> errors;

    /// Takes indices until none are left.
    void run()
    {
        for (std::size_t i; (i = next.fetch_add(1)) < count;) {
            try {
                work(i);
            } catch (...) {
                errors[i] = std::current_exception();
            }
            if (done.fetch_add(1) + 1 == count)
                done.notify_all();
        }
    }
};

class Pool {
public:
    Pool()
    {
        const unsigned cores = std::thread::hardware_concurrency();
        for (unsigned i = 1; i < std::min(cores, 8U); ++i)
            m_threads.emplace_back([this](const std::stop_token& stop) { serve(stop); });
    }

    void offer(const std::shared_ptr<Job>& job)
    {
        {
            const std::lock_guard lock(m_mutex);
            m_job = job;
            ++m_turn;
        }
        m_wake.notify_all();
    }

    bool alone() const { return m_threads.empty(); }

private:
    void serve(const std::stop_token& stop)
    {
        std::size_t seen = 0;
        std::unique_lock lock(m_mutex);
        while (m_wake.wait(lock, stop, [&] { return m_turn != seen; })) {
            seen = m_turn;
            const std::shared_ptr<Job> job = m_job;
            lock.unlock();
            job->run();
            lock.lock();
        }
    }

    std::mutex m_mutex;
    std::condition_variable_any m_wake;
    std::shared_ptr<Job> m_job;
    std::size_t m_turn = 0;
    std::vector<std::jthread> m_threads; // last: its threads use the rest
};

} // namespace

void forEachIndex(std::size_t count, const std::function<void(std::size_t)>& work)
{
    static Pool pool;
    if (count < 2 || pool.alone()) {
        for (std::size_t i = 0; i < count; ++i)
            work(i);
        return;
    }
    const auto job = std::make_shared<Job>(work, count);
    job->errors.resize(count);
    pool.offer(job);
    job->run();
    for (std::size_t done; (done = job->done.load()) < count;)
        job->done.wait(done);
    for (const auto& error : job->errors)
        if (error)
            std::rethrow_exception(error);
}

} // namespace tectonis
