// A table against the map that it stands for, copies and all.
#include "build/build.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <map>
#include <rapidcheck.h>
#include <rapidcheck/catch.h>

namespace build_rows_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

using Plain = std::map<PointId, Point>;

Point named(std::uint32_t id, int version) {
    Point p;
    p.id = PointId{id};
    p.name = "P" + std::to_string(id) + "." + std::to_string(version);
    return p;
}

bool same(const Rows<Point>& rows, const Plain& plain) {
    if (rows.size() != plain.size() || rows.empty() != plain.empty()) return false;
    auto row = rows.begin();
    for (const auto& [id, p] : plain) {
        if (row == rows.end() || row->first != id || !(row->second == p) || !rows.contains(id) || !(rows.at(id) == p))
            return false;
        ++row;
    }
    if (row != rows.end()) return false;
    auto back = rows.rbegin();
    for (auto p = plain.rbegin(); p != plain.rend(); ++p, ++back)
        if (back == rows.rend() || back->first != p->first) return false;
    return back == rows.rend();
}

} // namespace

TEST_CASE("a table is a map, whatever is put in and taken out of it and its copies", "[build][property]") {
    CHECK(rc::check("rows behave as a map", [] {
        Rows<Point> rows;
        Plain plain;
        std::vector<std::pair<Rows<Point>, Plain>> kept; // copies that nothing may change any more
        const int steps = *rc::gen::inRange(0, 600);
        const auto most = *rc::gen::inRange(1, 400);
        for (int i = 0; i < steps; ++i) {
            const auto id = static_cast<std::uint32_t>(*rc::gen::inRange(1, most + 1));
            switch (*rc::gen::inRange(0, 7)) {
            case 0: RC_ASSERT(rows.erase(PointId{id}) == plain.erase(PointId{id})); break;
            case 1: RC_ASSERT(rows.emplace(PointId{id}, named(id, i)) == plain.emplace(PointId{id}, named(id, i)).second); break;
            case 2:
                if (kept.size() < 6) kept.emplace_back(rows, plain);
                break;
            case 3: RC_ASSERT((rows.find(PointId{id}) == rows.end()) == (plain.find(PointId{id}) == plain.end())); break;
            default: rows[PointId{id}] = plain[PointId{id}] = named(id, i);
            }
        }
        RC_ASSERT(same(rows, plain));
        for (const auto& [r, p] : kept) RC_ASSERT(same(r, p));
        for (const auto& [r, p] : kept) RC_ASSERT((r == rows) == (p == plain));
    }));
}

TEST_CASE("rows in any order, and a long table", "[build]") {
    Rows<Point> rows;
    Plain plain;
    for (std::uint32_t id = 5000; id > 0; --id) rows[PointId{id}] = plain[PointId{id}] = named(id, 0); // from the end
    CHECK(same(rows, plain));
    const Rows<Point> before = rows;
    for (std::uint32_t id = 2; id <= 5000; id += 3) {
        rows.erase(PointId{id});
        plain.erase(PointId{id});
    }
    CHECK(same(rows, plain));
    CHECK(before.size() == 5000);
    CHECK(erase_if(rows, [](const auto& row) { return row.first.value > 100; }) == plain.size() - 67);
    CHECK(rows.size() == 67);
    CHECK_THROWS_AS(rows.at(PointId{4999}), std::out_of_range);
    rows.clear();
    CHECK(rows == Rows<Point>{});
    CHECK(rows.begin() == rows.end());
}

} // namespace build_rows_test
