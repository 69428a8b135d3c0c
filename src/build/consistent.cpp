#include "build/check.hpp"
#include "build/edit.hpp"
#include "build/gate.hpp"

#include <set>

namespace gorvet::build {
namespace {

template <class T> Checked consistentTable(const Build& b) {
    [[maybe_unused]] auto keys = [] {
        if constexpr (requires { Schema<T>::key; })
            return std::set<decltype(keyOf(std::declval<const T&>()))>();
        else
            return 0;
    }();
    for (const auto& [id, row] : table<T>(b)) {
        if (!id || id.value >= b.next_id || id.value > most_id) return bad("id", "A row has an id that was never given.");
        if (auto ok = checkFields(b, row); !ok) return ok;
        if constexpr (requires { Schema<T>::key; }) // all at once: the rows may be many
            if (!keys.insert(keyOf(row)).second) return sameKey(b, row);
        if (auto ok = rules(b, row); !ok) return ok;
    }
    return {};
}

} // namespace

Result<void> consistent(const Build& given) {
    Build b = given;
    b.practice.on = true; // what was answered stays when the practice is over
    b.practice.marked = false;
    Checked ok;
    eachOfDocument([&]<class T>() {
        if (!ok) return;
        if constexpr (is_row<T>)
            ok = consistentTable<T>(b);
        else
            ok = check(b, Schema<T>::in(b));
    });
    if (!ok) return Error{Error::Code::Damaged, ok.error().subject, ok.error().message, "", -1};
    return {};
}

} // namespace gorvet::build
