#include "build/members.hpp"

#include <array>
#include <vector>

namespace gorvet::build {

namespace {

template <class T> Slots listOf();

template <class M> constexpr SlotType maybeOrList(SlotType::Is is, const SlotType& inner) {
    SlotType t{is};
    t.inner = &inner;
    t.clear = [](void* p) {
        if constexpr (IsOptional<M>::value)
            static_cast<M*>(p)->reset();
        else
            static_cast<M*>(p)->clear();
    };
    if constexpr (IsOptional<M>::value) {
        t.content = [](const void* p) -> const void* {
            const M& m = *static_cast<const M*>(p);
            return m ? &*m : nullptr;
        };
        t.add = [](void* p) -> void* { return &static_cast<M*>(p)->emplace(); };
    } else {
        t.size = [](const void* p) { return static_cast<const M*>(p)->size(); };
        t.at = [](const void* p, std::size_t k) -> const void* { return &(*static_cast<const M*>(p))[k]; };
        t.add = [](void* p) -> void* { return &static_cast<M*>(p)->emplace_back(); };
    }
    return t;
}

template <class M> constexpr SlotType made();
template <class M> constexpr SlotType type_of = made<M>();

template <class M> constexpr SlotType made() {
    if constexpr (std::is_same_v<M, double>) {
        return {SlotType::Is::Figure};
    } else if constexpr (std::is_same_v<M, bool>) {
        return {SlotType::Is::Flag};
    } else if constexpr (std::is_same_v<M, std::string>) {
        return {SlotType::Is::Text};
    } else if constexpr (std::is_same_v<M, units::LengthStep>) {
        return {SlotType::Is::Step};
    } else if constexpr (IsId<M>::value) {
        static_assert(sizeof(M) == sizeof(std::uint32_t));
        SlotType t{SlotType::Is::Reference};
        t.table = placeInDocument<typename M::To>();
        return t;
    } else if constexpr (IsOptional<M>::value) {
        return maybeOrList<M>(SlotType::Is::Maybe, type_of<typename M::value_type>);
    } else if constexpr (IsList<M>::value) {
        return maybeOrList<M>(SlotType::Is::List, type_of<typename M::value_type>);
    } else if constexpr (std::is_enum_v<M>) {
        SlotType t{SlotType::Is::Word};
        t.said = [](const void* p) { return word(*static_cast<const M*>(p)); };
        t.say = [](void* p, std::string_view text) {
            const auto found = fromWord<M>(text);
            if (found) *static_cast<M*>(p) = *found;
            return found.has_value();
        };
        return t;
    } else {
        SlotType t{SlotType::Is::Struct};
        t.is_dimension = std::is_same_v<M, Dimension>;
        t.members = &listOf<M>;
        return t;
    }
}

template <class T, class M> constexpr bool isOwnId(const Field<T, M>& f) {
    return std::is_same_v<M, Id<T>> && std::string_view(f.name) == "id";
}

[[gnu::noinline]] void add(std::vector<Slot>& list, const FieldSays& says, std::ptrdiff_t offset, const SlotType& type,
                           bool own_id) {
    list.push_back({says, static_cast<std::size_t>(offset), &type, own_id});
}

template <class T> Slots listOf() {
    static const std::vector<Slot> all = [] {
        std::vector<Slot> list;
        static const T like{};
        static constexpr auto fields = Schema<T>::template fields<T>();
        const auto visit = [&](const auto& f) {
            using M = typename std::remove_cvref_t<decltype(f)>::Value;
            const std::ptrdiff_t offset =
                reinterpret_cast<const char*>(&(like.*(f.member))) - reinterpret_cast<const char*>(&like);
            add(list, f, offset, type_of<M>, isOwnId(f));
        };
        fields.each(visit);
        return list;
    }();
    return all;
}

template <class T> DocumentPart partOf() {
    DocumentPart part{&Schema<T>::table, is_row<T>, &listOf<T>};
    if constexpr (is_row<T>) {
        part.find = [](const Build& b, std::uint32_t id) -> const void* {
            const auto row = table<T>(b).find({id});
            return row == table<T>(b).end() ? nullptr : &row->second;
        };
        part.each = [](const Build& b, const std::function<bool(std::uint32_t, const void*)>& use) {
            for (const auto& [id, row] : table<T>(b))
                if (!use(id.value, &row)) return;
        };
        part.clear = [](Build& b) { table<T>(b).clear(); };
        part.own = [](Build& b, std::uint32_t id) -> void* { return &table<T>(b)[{id}]; };
        part.made = [](const std::function<void(void*)>& fill) -> Change {
            Put<T> put{};
            fill(&put.value);
            return put;
        };
        part.drop = [](std::uint32_t id) -> Change { return Drop<T>{Id<T>{id}}; };
    } else {
        part.each = [](const Build& b, const std::function<bool(std::uint32_t, const void*)>& use) {
            if constexpr (!IsOptional<Held<T>>::value)
                use(0, &Schema<T>::in(b));
            else if (const auto& held = Schema<T>::in(b))
                use(0, &*held);
        };
        part.own = [](Build& b, std::uint32_t) -> void* {
            if constexpr (!IsOptional<Held<T>>::value)
                return &Schema<T>::in(b);
            else
                return &Schema<T>::in(b).emplace();
        };
        part.made = [](const std::function<void(void*)>& fill) -> Change {
            Set<Held<T>> set{};
            if constexpr (!IsOptional<Held<T>>::value)
                fill(&set.value);
            else
                fill(&set.value.emplace());
            return set;
        };
        if constexpr (IsOptional<Held<T>>::value) part.none = []() -> Change { return Set<Held<T>>{}; };
    }
    return part;
}

void gatherReferences(Slots slots, std::vector<char>& tables);
void gatherReferences(const SlotType& type, std::vector<char>& tables) {
    if (type.is == SlotType::Is::Reference) tables[type.table] = 1;
    if (type.inner) gatherReferences(*type.inner, tables);
    if (type.members) gatherReferences(type.members(), tables);
}
void gatherReferences(Slots slots, std::vector<char>& tables) {
    for (const Slot& s : slots)
        if (!s.own_id && !s.is_loose) gatherReferences(*s.type, tables);
}

bool isValue(const Reference& to, const SlotType& type, const void* value) {
    switch (type.is) {
    case SlotType::Is::Reference: return type.table == to.table && *static_cast<const std::uint32_t*>(value) == to.id;
    case SlotType::Is::Maybe: {
        const void* content = type.content(value);
        return content && isValue(to, *type.inner, content);
    }
    case SlotType::Is::List:
        for (std::size_t k = 0; k < type.size(value); ++k)
            if (isValue(to, *type.inner, type.at(value, k))) return true;
        return false;
    case SlotType::Is::Struct: return to.isIn(type.members(), value);
    default: return false;
    }
}

} // namespace

bool Reference::isIn(Slots members, const void* row) const {
    for (const Slot& m : members)
        if (!m.own_id && !m.is_loose && isValue(*this, *m.type, m.in(row))) return true;
    return false;
}

std::span<const DocumentPart> documentParts() {
    static const auto parts = []<class... T>(Types<T...>) { return std::array{partOf<T>()...}; }(Document{});
    return parts;
}

bool canReferTo(std::size_t part, std::size_t table) {
    static const auto all = [] {
        std::vector<std::vector<char>> of_part;
        for (const DocumentPart& p : documentParts())
            gatherReferences(p.members(), of_part.emplace_back(documentParts().size(), char{0}));
        return of_part;
    }();
    return all[part][table] != 0;
}

namespace {
template <class T> struct PartOf { using Type = T; };
template <class T> struct PartOf<std::optional<T>> { using Type = T; };

struct Onlooker {
    template <class T> Seen operator()(const Put<T>& c) const { return {Seen::Kind::Put, placeInDocument<T>(), &c.value, 0}; }
    template <class T> Seen operator()(const Drop<T>& c) const {
        return {Seen::Kind::Drop, placeInDocument<T>(), nullptr, c.id.value};
    }
    template <class T> Seen operator()(const Set<T>& c) const {
        const void* row = &c.value;
        if constexpr (IsOptional<T>::value) row = c.value ? &*c.value : nullptr;
        return {Seen::Kind::Set, placeInDocument<typename PartOf<T>::Type>(), row, 0};
    }
};
} // namespace

Seen seen(const Change& change) { return visit(Onlooker{}, change); }

} // namespace gorvet::build
