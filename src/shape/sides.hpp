#pragma once

#include "shape/distance_tree.hpp"

/// Which side of a surface a point is on. Only a closed piece has an inside; where pieces overlap, what is inside any is inside.
namespace gorvet::shape {

/// Triangles that hang together by their edges.
struct Piece {
    size_t triangles = 0;
    bool closed = false;   ///< every edge has two triangles that face alike
    bool turned = false;   ///< closed, but wound inside out: counted the other way round
    bool hollow = false;   ///< closed and wound inwards inside another: a cavity
    double volume_mm3 = 0; ///< of a closed piece, > 0
    geometry::Box3 box;
};

/// Pieces that are open by the file's own points are looked at again with points that lie exactly on each other taken as one:
/// files that repeat the corners of each triangle have an inside too.
class Sides {
public:
    explicit Sides(const DistanceTree&);
    const std::vector<Piece>& pieces() const { return pieces_; }
    std::uint32_t pieceOf(std::uint32_t triangle) const { return piece_of_[triangle]; }
    /// Whether anything has an inside at all; without one every distance is unsigned.
    bool any() const { return any_closed_; }
    /// Whether a ball about the point may reach into a closed piece, by their boxes. Never false when it does.
    bool mayReachInside(const Point3&, double radius_mm) const;
    /// Whether every piece is closed.
    bool all() const { return all_closed_; }
    size_t bytes() const;

    /// Whether a point is inside, from the nearest place of the surface to it. By the angle-weighted normal there (Bærentzen and
    /// Aanæs 2005); by the winding number where the nearest place lies in another piece, cuts one, or is of an open piece.
    bool inside(const Point3&, const Nearest&) const;
    /// The same where it is known which way along the triangle's normal the point lies off the nearest place.
    bool inside(const Point3&, const Nearest&, double along_normal) const;
    /// The same without knowing what is nearest.
    bool inside(const Point3&) const;
    /// How many closed pieces wind round the point, cavities taken off. By rays; one that grazes an edge is sent another way.
    int winding(const Point3&, std::uint32_t without_piece = kernel::nothing) const;

    /// The triangle at side k (from corner k to the next) of a triangle; `nothing` at a rim or where more than two meet.
    std::uint32_t neighbour(std::uint32_t triangle, size_t k) const { return neighbours_[triangle][k]; }

private:
    void joinPoints();
    void findNeighbours();
    void findPieces();
    void findCavities();
    void weighNormals();
    void markTriangles();
    Point3 faceNormal(std::uint32_t triangle) const;
    const DistanceTree* tree_;
    std::vector<std::uint32_t> same_; ///< for each point the first that lies where it does; empty: no two do
    std::uint32_t pointOf(std::uint32_t p) const { return same_.empty() ? p : same_[p]; }
    std::vector<std::array<std::uint32_t, 3>> neighbours_;
    std::vector<std::uint32_t> piece_of_;
    std::vector<Piece> pieces_;
    std::vector<std::uint32_t> closed_;                ///< of them
    std::vector<std::array<float, 3>> corner_normals_; ///< one a point, of closed pieces
    std::vector<bool> crowded_; ///< by triangle: at an edge of more than two, or of two that face unlike ways
    /// By triangle: its piece is turned; only the winding number tells; at side k the two faces look less than a right angle
    /// apart, so that either tells the side; or they are sharper and stand out, so that what is nearest to the edge is outside.
    enum Mark : std::uint8_t { Turned = 1, Doubtful = 2, Blunt0 = 4, StandsOut0 = 32 };
    std::vector<std::uint8_t> marks_;
    bool any_closed_ = false;
    bool all_closed_ = false;
    geometry::Box3 closed_box_; ///< round all closed pieces
};

} // namespace gorvet::shape
