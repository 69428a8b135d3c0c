#pragma once

#include "sheet/drawing.hpp"

#include <QColor>
#include <QFont>
#include <QString>
#include <cmath>

/// Day and Dye: every colour of the application, in one place. look.md, Tokens.
namespace gorvet::desk {

enum class Ground { Day, Dye };

class Theme {
public:
    Theme(Ground ground, double text_scale) : ground_(ground), scale_(text_scale) {}
    Ground ground() const { return ground_; }
    double textScale() const { return scale_; }
    /// Sizes of drawings in the window, in pixels.
    sheet::Format format() const { return {scale_}; }
    int px(double at_100) const { return static_cast<int>(std::lround(at_100 * scale_)); }
    QColor color(sheet::Ink) const;
    /// The style of all plain widgets.
    QString styleSheet() const;
    QFont font(double size_px, sheet::Face = sheet::Face::Sans) const;

private:
    Ground ground_;
    double scale_;
};

/// Registers the embedded typefaces. Call once after QApplication exists; false when a face could not be loaded.
bool registerTypefaces();

} // namespace gorvet::desk
