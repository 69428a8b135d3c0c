#pragma once

#include "sheet/drawing.hpp"
#include "units/result.hpp"

/// Codes that a phone or a hand scanner reads from paper.
namespace gorvet::sheet {

/// A square code (QR, with a fifth of it readable when dirty) of `text` with its quiet zone inside the square. `size`: its side,
/// paper units. Fails with BadInput where the text is empty or too long for one code.
Result<void> addCode(Drawing&, P at, double size, const std::string& text);

} // namespace gorvet::sheet
