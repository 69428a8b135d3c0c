#pragma once

#include "build/figure.hpp"
#include "sheet/drawing.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace gorvet::analysis {

using sheet::severityOf;

/// The unit of judgement: what is wrong or open, how much, how much is needed, what to do, and where.
struct Finding {
    sheet::Severity severity = sheet::Severity::Warn;
    std::string code;     ///< stable, "tape.retape": the key of its bench, a dot, and what it is
    std::string subject;  ///< "chassis", "Bl–Dr", "mount Ml"
    std::string word;     ///< verdict word
    std::string figure;   ///< as shown; may be empty
    std::string need;     ///< the figure needed; may be empty
    std::string sentence; ///< the reason
    std::string remedy;
    std::optional<double> station_mm; ///< where it hangs on The Rule, chassis frame
    std::string brief;                ///< two or three words for the tag
    std::string tag;                  ///< the drawn item it belongs to

    /// Key of the bench that it stands on; "file" of what concerns the whole.
    std::string_view bench() const { return std::string_view(code).substr(0, code.find('.')); }
};

} // namespace gorvet::analysis
