#include "build/assumed.hpp"

#include "build/check.hpp"

namespace gorvet::build {

std::vector<std::string> assumedIn(std::size_t place, const void* row) {
    std::vector<std::string> names;
    for (const Slot& m : documentParts()[place].members()) {
        const bool maybe = m.type->is == SlotType::Is::Maybe;
        if (m.is_chosen || !(maybe ? m.type->inner : m.type)->is_dimension) continue;
        const void* value = maybe ? m.type->content(m.in(row)) : m.in(row);
        if (value && static_cast<const Dimension*>(value)->provenance == Provenance::Assumed) names.push_back(labelOf(m.name));
    }
    return names;
}

} // namespace gorvet::build
