#include "formats/csv.hpp"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

namespace formats_csv_test {

using namespace gorvet;

TEST_CASE("records, quotes and line numbers", "[formats]") {
    const auto records = formats::splitCsv("a,\"b,1\",\"c \"\"q\"\"\"\r\n\r\n# left out\nd,,\n\"two\nlines\",x\nlast", ',');
    REQUIRE(records.size() == 4);
    CHECK(records[0].fields == std::vector<std::string>{"a", "b,1", "c \"q\""});
    CHECK(records[1].line == 4);
    CHECK(records[1].fields == std::vector<std::string>{"d", "", ""});
    CHECK(records[2].line == 5);
    CHECK(records[2].fields[0] == "two\nlines");
    CHECK(records[3].line == 7); // the quoted line break counted
    CHECK(records[3].fields == std::vector<std::string>{"last"});
    CHECK(formats::splitCsv("", ',').empty());
    CHECK(formats::splitCsv("\n\n  \n", ',').empty());
    CHECK(formats::splitCsv("\"open", ',')[0].unterminated);
    CHECK(formats::splitCsv("4 1/4\",x", ',')[0].fields[0] == "4 1/4\""); // an inch mark inside a field is no quote
}

TEST_CASE("a field survives being written and split", "[formats][property]") {
    CHECK(rc::check("any text", [] {
        auto fields = *rc::gen::container<std::vector<std::string>>(
            3, rc::gen::container<std::string>(rc::gen::elementOf(std::string("ab ,;\"#'\n1=@+-"))));
        fields.insert(fields.begin(), "first"); // a record is not blank and no remark
        std::string line;
        for (size_t i = 0; i < fields.size(); ++i) line += (i ? "," : "") + formats::csvField(fields[i]);
        auto records = formats::splitCsv(line + "\n", ',');
        RC_ASSERT(records.size() == 1u);
        for (std::string& field : records[0].fields) {
            RC_ASSERT(field.empty() || (field[0] != '=' && field[0] != '@')); // no spreadsheet runs it
            field = formats::csvText(field);
        }
        RC_ASSERT(records[0].fields == fields);
    }));
}

} // namespace formats_csv_test
