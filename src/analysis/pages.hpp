#pragma once

#include "analysis/listing.hpp"
#include "analysis/results.hpp"
#include "sheet/page.hpp"

#include <functional>

/// What printed pages share: cautions, titles, tables, a bench's view with its sentence. Internal to this room.
namespace gorvet::analysis {

extern const char* const local_rules;
extern const char* const stands;
extern const char* const hot_work;
extern const char* const no_certificate;

/// What the build is printed on.
sheet::PaperSize paperOf(const build::Build&);
/// `subject`: on whose axes the page's stations are; those of the chassis are said with what they count from.
sheet::PageTitle titled(const build::Build&, const Results&, const std::string& title,
                        build::SubjectId subject = build::the_chassis);
/// As many pages as the rows need.
void addTablePages(std::vector<sheet::Drawing>& pages, const sheet::PageTitle&, const std::vector<std::string>& cautions,
                   const std::vector<sheet::Column>&, const std::vector<std::vector<std::string>>& rows);
/// A list on as many pages as it needs, its columns so wide, mm; nothing where it has no row.
void addListingPages(std::vector<sheet::Drawing>& pages, const sheet::PageTitle&, const std::vector<std::string>& cautions,
                     const Listing&, const std::vector<double>& widths);
/// A sheet of many things on as many pages as it takes: `draw` gets the first of them and the one after the last, and says by its
/// height what they want.
using DrawRange =
    std::function<sheet::Drawing(std::size_t first, std::size_t until, double width, double height, const sheet::Format&)>;
std::vector<sheet::Drawing> longPages(const sheet::PageTitle&, const std::vector<std::string>& cautions, std::size_t count,
                                      const DrawRange& draw);
/// A bench's sentence at the top of the area, which gets smaller by it.
void addHeadline(sheet::Drawing& page, sheet::Area& area, const Headline&);
/// A bench's sentence and its view.
sheet::Drawing benchPage(const build::Build&, const Results&, const std::string& title, std::string_view bench, build::SubjectId,
                         const std::vector<std::string>& cautions);
/// What wants more height than the page has is drawn smaller, down to two thirds.
void placeFitted(sheet::Drawing& page, const sheet::Area&,
                 const std::function<sheet::Drawing(double, double, const sheet::Format&)>& draw);
/// What to see to, with boxes; `wanted` picks.
void addFindings(
    std::vector<sheet::Drawing>& pages, const build::Build&, const Results&,
    const std::function<bool(const Finding&)>& wanted = [](const Finding&) { return true; });

} // namespace gorvet::analysis
