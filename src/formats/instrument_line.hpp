#pragma once

#include "build/build.hpp"

#include <string>
#include <string_view>
#include <vector>

/// The line protocol between Gorvet and a measuring instrument: one sentence a line. docs/instruments.md.
namespace gorvet::formats {

/// The longest line that is listened to, in bytes.
inline constexpr size_t longest_instrument_line = 200;

/// What an instrument says.
struct InstrumentSays {
    enum class What {
        Hello,   ///< "hello tape long-tape": it is there, and what it is
        Reads,   ///< "reads long-tape 2164.2 mm": a reading
        Trouble, ///< "trouble long-tape battery low"
        Bye      ///< "bye long-tape": it is going
    };
    What what = What::Hello;
    std::string name;                                         ///< one word
    build::InstrumentKind kind = build::InstrumentKind::Tape; ///< of a hello
    build::Dimension value;                                   ///< of a reading: mm, rad or kg; `typed` as it came, unit and all
    units::Kind quantity = units::Kind::Length;               ///< of a reading
    std::string text;                                         ///< of trouble
};

/// Understands one line, without its end. A reading must carry its unit: a bare number is refused, never guessed. Fails with
/// BadInput; the message quotes what came, control characters shown as ?.
Result<InstrumentSays> readInstrumentLine(std::string_view line);

/// What Gorvet says: which reading is asked for ("at tape A3 B7", "at scales front-left"), and "take" when the key is pressed.
std::string atLine(std::string_view kind, std::string_view from, std::string_view to);
struct Asked {
    bool take = false;
    std::string kind; ///< a reading's, or scales or dial
    std::string from;
    std::string to; ///< may be empty
};
/// The other end's reader. Fails with BadInput.
Result<Asked> readAskedLine(std::string_view line);

/// Makes lines of what arrives in pieces. LF ends a line, CR before it is left out. A line that grows too long is given up to its
/// end and counted.
class LineCutter {
public:
    /// The lines that are now complete.
    std::vector<std::string> feed(std::string_view piece);
    int tooLong() const { return too_long_; }

private:
    std::string rest_;
    bool skipping_ = false;
    int too_long_ = 0;
};

} // namespace gorvet::formats
