#pragma once

#include "build/client.hpp"
#include "sheet/page.hpp"
#include "work/photo_sheet.hpp"
#include "work/schedule.hpp"

/// Where the work stands, for whom the car belongs to: what was done, what comes, what must be decided, what was agreed.
namespace gorvet::work {

struct DecisionAsked {
    build::Decision decision;
    std::vector<build::Choice> choices;
    std::string step;               ///< title of the step that waits for it; may be empty
    std::string because;            ///< why a change is asked for
    std::vector<PhotoShown> photos; ///< of what it is asked for
    const build::Choice* chosen() const;
};
struct ClientInput {
    const Order* order = nullptr;
    std::string finish; ///< in words; why nothing can be said otherwise
    std::vector<DecisionAsked> decisions;
    std::vector<std::pair<std::string, double>> days; ///< hours worked of the last days on which anybody did, newest first
    double hours = 0;                                 ///< worked in all
    std::vector<std::string> waits;                   ///< for what from whom
};

/// A change order: its number, from 1, in the order in which they were asked; 0: it is none.
int changeNumber(const std::vector<DecisionAsked>&, const DecisionAsked&);
/// The sum as it was agreed before any change, and what changes brought.
struct Changed {
    double before = 0;
    double by = 0;
    double open = 0; ///< of changes that are not agreed to yet, the first choice of each
};
Changed changesOf(const std::vector<DecisionAsked>&);

/// What was agreed to costs, sooner or later: price, hours and days of all that is not struck out.
struct Agreed {
    double price = 0;
    double hours = 0;
    double days = 0;
};
Agreed agreedOf(const std::vector<DecisionAsked>&);

sheet::Drawing clientSheet(const ClientInput&, double width, double height, const sheet::Format&);
/// The same on pages, with a line to sign for each decision that is open and each that was agreed to.
std::vector<sheet::Drawing> clientPages(const ClientInput&, const sheet::PageTitle&, const std::vector<std::string>& cautions);

} // namespace gorvet::work
