#pragma once

#include <optional>
#include <string>
#include <utility>
#include <variant>

namespace gorvet {

/// What went wrong, for the person who caused it: which thing, what about it, and what to do.
struct Error {
    enum class Code { BadInput, NotFound, Conflict, Degenerate, File, Locked, TooNew, Damaged };
    Code code = Code::BadInput;
    std::string subject; ///< what it is about: a text as typed, a file, a point's name
    std::string message; ///< one sentence
    std::string remedy;  ///< what to do; may be empty
    int column = -1;     ///< 0-based character (in code points) of `subject` at which it went wrong, -1 when no such place

    /// Message and remedy in one line.
    std::string text() const { return remedy.empty() ? message : message + " " + remedy; }
};

/// What was given can't be used.
inline Error badInput(std::string subject, std::string message, std::string remedy) {
    return {Error::Code::BadInput, std::move(subject), std::move(message), std::move(remedy), -1};
}

/// A value or an Error. Exceptions stay inside a module; this crosses its border.
template <class T> class [[nodiscard]] Result {
public:
    Result(T value) : content_(std::move(value)) {}
    Result(Error error) : content_(std::move(error)) {}
    explicit operator bool() const { return std::holds_alternative<T>(content_); }
    /// Precondition: holds a value.
    T& operator*() { return std::get<T>(content_); }
    const T& operator*() const { return std::get<T>(content_); }
    T* operator->() { return &std::get<T>(content_); }
    const T* operator->() const { return &std::get<T>(content_); }
    /// Precondition: holds an error.
    const Error& error() const { return std::get<Error>(content_); }

private:
    std::variant<T, Error> content_;
};

/// Success without a value, or an Error.
template <> class [[nodiscard]] Result<void> {
public:
    Result() = default;
    Result(Error error) : error_(std::move(error)) {}
    explicit operator bool() const { return !error_; }
    const Error& error() const { return *error_; }

private:
    std::optional<Error> error_;
};

} // namespace gorvet
