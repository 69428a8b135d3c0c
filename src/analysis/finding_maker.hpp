#pragma once

#include "analysis/results.hpp"
#include "units/quantity.hpp"

/// What the makers of findings share, one of them for each bench. Internal to this room.
namespace gorvet::analysis {

class FindingMaker {
public:
    FindingMaker(const build::Build& b, const Results& r, std::vector<Finding>& out)
        : b_(b), r_(r), step_(b.settings.length_step), out_(out) {}

protected:
    std::string len(double mm) const { return units::formatLength(mm, step_, true); }
    std::string small(double mm) const { return units::formatSmall(mm, step_, true); }

    /// `code` begins with the key of the bench and a dot.
    Finding& add(sheet::Severity severity, std::string code, std::string subject, std::string word, std::string sentence,
                 std::string remedy) {
        Finding f;
        f.severity = severity;
        f.code = std::move(code);
        f.subject = std::move(subject);
        f.word = std::move(word);
        f.sentence = std::move(sentence);
        f.remedy = std::move(remedy);
        f.brief = f.subject;
        out_.push_back(std::move(f));
        return out_.back();
    }

    /// What a plan says of itself: codes after `prefix`, a card of that tag.
    void addRemarks(const std::vector<build::Remark>& remarks, const std::string& prefix, const std::string& subject,
                    const std::string& tag) {
        for (const build::Remark& remark : remarks) {
            Finding& f = add(sheet::severityOf(remark.verdict), prefix + remark.code, subject, build::verdictWord(remark.verdict),
                             remark.sentence, remark.remedy);
            f.figure = remark.figure;
            f.need = remark.need;
            f.tag = tag;
            f.brief = subject + " " + remark.code.substr(remark.code.find('-') + 1);
        }
    }

    const build::Build& b_;
    const Results& r_;
    units::LengthStep step_;
    std::vector<Finding>& out_;
};

} // namespace gorvet::analysis
