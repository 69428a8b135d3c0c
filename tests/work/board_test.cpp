// The wall: what is next in each place, and that it stands on its paper.
#include "work/board_sheet.hpp"

#include <catch2/catch.hpp>

namespace work_board_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

Job job(std::uint32_t id, const std::string& name, const std::string& area, std::vector<std::string> after = {}) {
    Job j;
    j.id = JobId{id};
    j.name = name;
    j.title = "Do " + name;
    j.area = area;
    j.after = std::move(after);
    return j;
}

std::string texts(const sheet::Drawing& d) {
    std::string all;
    for (const auto& item : d.items)
        if (const auto* t = std::get_if<sheet::Text>(&item.shape)) all += t->text + "\n";
    return all;
}

} // namespace

TEST_CASE("the wall has the next step of each place, what can be begun first, and how many are left", "[work][wall]") {
    work::Facts f;
    f.has_body = true;
    f.jobs = {job(1, "a1", "cabin", {"survey-agrees"}), job(2, "a2", "cabin"), job(3, "a3", "cabin"),
              job(4, "b1", "tail", {"a1"}), job(5, "c1", "bonnet")};
    f.survey_open = "The chassis is not surveyed yet";
    const auto o = work::order(f, {});
    const auto list = work::nextByArea(o);
    REQUIRE(list.size() == 4); // the whole car, cabin, tail, bonnet
    const auto of = [&](const char* area) {
        for (const auto& n : list)
            if (n.area == area) return n;
        FAIL("no place " << area);
        return list.front();
    };
    CHECK(of("cabin").step->code == "job-a2"); // a1 waits
    CHECK(of("cabin").left == 3);
    CHECK(of("tail").step->code == "job-b1");
    CHECK(list.back().area == "tail"); // nothing can be begun there
    CHECK(of("bonnet").step->open());
    // ticked: the next one there
    work::Record r;
    r.ticks = {{TickId{1}, "job-a2", "M.", "2026-03-01T08:00:00Z", "", ""}};
    const auto later = work::order(f, r);
    for (const auto& n : work::nextByArea(later))
        if (n.area == "cabin") CHECK(n.step->code == "job-a3");
    // on its page: every text inside, awaited and done ones there
    std::vector<Awaited> awaited(1);
    awaited[0].name = "door-seals";
    awaited[0].supplier = "the seal maker";
    const auto pages = work::boardPage({&later, &awaited, "Demo"}, {"The wall", "Demo", "", sheet::a3}, {"caution"});
    REQUIRE(pages.size() == 1);
    CHECK(pages[0].width == sheet::a3.width);
    const std::string said = texts(pages[0]);
    for (const char* text : {"cabin", "Do a3", "door-seals from the seal maker", "not ordered yet", "M.: Do a2", "Held"}) {
        INFO(text);
        CHECK(said.find(text) != std::string::npos);
    }
    for (const auto& item : pages[0].items)
        if (const auto* t = std::get_if<sheet::Text>(&item.shape); t && t->anchor == sheet::Anchor::Left && t->turn_deg == 0) {
            INFO(t->text);
            CHECK(t->at.x + sheet::textWidth(t->text, t->size, t->face) <= pages[0].width);
            CHECK(t->at.y <= pages[0].height);
        }
    // three hundred places: those without room are counted
    work::Facts many;
    for (std::uint32_t k = 1; k <= 300; ++k) many.jobs.push_back(job(k, "j" + std::to_string(k), "place " + std::to_string(k)));
    const auto big = work::order(many, {});
    CHECK(texts(work::boardSheet({&big, nullptr, "Demo"}, 1200, 500, {})).find("and 29") != std::string::npos);
    // done, and nothing at all
    work::Order none;
    CHECK(texts(work::boardSheet({&none, nullptr, "Demo"}, 1200, 500, {})).find("All is done") != std::string::npos);
}

} // namespace work_board_test
