#pragma once

#include <algorithm>
#include <charconv>
#include <cmath>
#include <string>

#include <CLI/CLI.hpp>
#include <fmt/format.h>

/// Only for the .cpp files of programs with a command line.
namespace gorvet::files {

/// A check of an option: a plain decimal number between two others, both included. Neither "nan" nor "inf" nor "0x10" is one.
inline CLI::Validator between(double least, double most) {
    const auto check = [least, most](std::string& text) -> std::string {
        double value = 0;
        const auto [end, ec] = std::from_chars(text.data(), text.data() + text.size(), value);
        const bool plain = std::all_of(text.begin(), text.end(), [](char c) {
            return (c >= '0' && c <= '9') || c == '.' || c == '-' || c == 'e' || c == 'E' || c == '+';
        });
        if (ec == std::errc() && end == text.data() + text.size() && plain && std::isfinite(value) && value >= least &&
            value <= most)
            return {};
        return fmt::format("\"{}\" must be a number between {:g} and {:g}", text.substr(0, 40), least, most);
    };
    return {check, fmt::format("{:g} to {:g}", least, most)};
}

} // namespace gorvet::files
