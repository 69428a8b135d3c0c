#include "entry/nearest.hpp"

#include <algorithm>

namespace gorvet::entry {

namespace {

char lower(char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; }

} // namespace

int slipsBetween(std::string_view a, std::string_view b) {
    std::vector<std::vector<int>> slips(a.size() + 1, std::vector<int>(b.size() + 1));
    for (size_t i = 0; i <= a.size(); ++i) slips[i][0] = static_cast<int>(i);
    for (size_t j = 0; j <= b.size(); ++j) slips[0][j] = static_cast<int>(j);
    for (size_t i = 1; i <= a.size(); ++i)
        for (size_t j = 1; j <= b.size(); ++j) {
            const bool same = lower(a[i - 1]) == lower(b[j - 1]);
            slips[i][j] = std::min({slips[i - 1][j] + 1, slips[i][j - 1] + 1, slips[i - 1][j - 1] + (same ? 0 : 1)});
            if (i > 1 && j > 1 && lower(a[i - 1]) == lower(b[j - 2]) && lower(a[i - 2]) == lower(b[j - 1]))
                slips[i][j] = std::min(slips[i][j], slips[i - 2][j - 2] + 1);
        }
    return slips[a.size()][b.size()];
}

std::vector<std::string> nearest(std::string_view word, const std::vector<std::string>& candidates) {
    constexpr std::size_t longest = 40, shown = 3;
    if (word.size() > longest) return {};
    std::vector<std::pair<int, std::string>> found;
    for (const std::string& c : candidates) {
        if (c.size() > longest) continue;
        const int slips = slipsBetween(word, c);
        const auto begins = [](std::string_view whole, std::string_view part) {
            return part.size() >= 3 && slipsBetween(whole.substr(0, part.size()), part) == 0;
        };
        const int most = std::max(1, static_cast<int>(std::max(word.size(), c.size()) / 3));
        const bool one_letter = word.size() < 2 || c.size() < 2;
        if ((slips <= most && !one_letter) || begins(c, word) || begins(word, c)) found.emplace_back(slips, c);
    }
    std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<std::string> list;
    for (auto& [slips, c] : found)
        if (list.size() < shown && std::find(list.begin(), list.end(), c) == list.end()) list.push_back(std::move(c));
    return list;
}

} // namespace gorvet::entry
