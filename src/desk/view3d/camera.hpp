#pragma once

#include "shape/transform.hpp"

#include <vector>

/// Where one looks from: to scale, without perspective. No Qt.
namespace gorvet::desk {

using shape::Point3;

struct Camera {
    Point3 at{1300, 0, 600}; ///< in the middle of the picture
    double azimuth_rad = 0;  ///< 0 from the left, a right angle from behind
    double rise_rad = 0;     ///< a right angle from above
    double px_per_mm = 0.25;

    Point3 towards() const; ///< from the thing to the eye
    Point3 right() const;
    Point3 up() const;
    /// Pixels from the middle of the picture, y down; third: how near the eye, mm.
    Point3 onScreen(const Point3&) const;
    /// The ray through a pixel: from far in front of the thing, away from the eye.
    void ray(double x_px, double y_px, Point3& from, Point3& way) const;
    void orbit(double dx_px, double dy_px);
    void pan(double dx_px, double dy_px);
    /// Zooms so that what lies under a pixel stays there.
    void zoom(double factor, double x_px, double y_px);
    /// What a drag in the picture's plane is in the car's axes.
    Point3 dragged(double dx_px, double dy_px) const;
    /// All of the places in a picture of so many pixels, as large as it goes. Nothing happens without a place.
    void showAll(const std::vector<Point3>&, double width_px, double height_px);
};

enum class ViewFrom { Left, Above, Behind, Underneath, Corner };
void lookFrom(Camera&, ViewFrom);

} // namespace gorvet::desk
