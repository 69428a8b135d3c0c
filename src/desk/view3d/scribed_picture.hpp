#pragma once

#include "desk/view3d/mesh_buffers.hpp"

#include <QImage>
#include <QMatrix4x4>
#include <QOpenGLFramebufferObject>
#include <QOpenGLShaderProgram>
#include <QVector3D>
#include <QVector4D>
#include <memory>
#include <vector>

/// A picture of meshes as a draughtsman would scribe them: outlines, creases and open edges as lines, quiet tone, hatch in the
/// shade; the body is seen through where something stands behind it. Lines are found in the picture itself, from depth and
/// normal (view3d.md).
namespace gorvet::desk {

/// What is drawn apart, one seen through the other.
enum class Group { Stands, Body };
/// How a part is inked. The numbers are those of the shader.
enum class Dress { Chassis = 1, NewSteel = 2, Body = 3, ToRemove = 4 };

struct ScribedPart {
    MeshBuffers* buffers = nullptr;
    Dress dress = Dress::Chassis;
    QMatrix4x4 pose;
    bool banded = false; ///< by its distances
};
struct ScribedView {
    QMatrix4x4 view;   ///< millimetres to the picture, parallel; a unit of depth is `depth_mm`
    QVector4D section; ///< what has a negative product with it is not drawn
    double mm_per_px = 4;
    int line_px = 1;       ///< how wide a line is
    double near_mm = 1000; ///< of what is drawn, towards the eye from the middle of the picture
    double far_mm = -1000;
    float fouls_mm = 0;
    float tight_mm = 0;
    bool dark = false;
    QVector3D ground, chassis, new_steel, body, remove, tight, foul;
};

class ScribedPicture {
public:
    static constexpr double depth_mm = 20'000;
    /// Pictures that are laid over each other, each a fraction of a pixel beside the others, until edges are smooth.
    static constexpr int laid_over = 6;

    /// Call while the context is current, as all that follows. False where the card can't do it.
    bool make(Gl&);
    void destroy();
    /// A picture `size` pixels large. `moving`: of the thinned meshes, once, and no finer than the machine keeps up with: it may
    /// be smaller, to be shown as large. Else each call lays one more picture over those before it, until it is done; it gives
    /// back the first and the last, between them nothing.
    QImage paint(Gl&, const ScribedView&, const std::vector<ScribedPart>&, QSize size, bool moving);
    /// Something changed: begin again.
    void restart() { laid_ = 0; }
    bool isDone() const { return laid_ >= laid_over; }

private:
    struct Layer {
        GLuint framebuffer = 0;
        GLuint face = 0; ///< how far towards the eye, and which way it faces
    };
    void resize(Gl&, QSize);
    void drawGroup(Gl&, Group, const ScribedView&, const QMatrix4x4& view, const std::vector<ScribedPart>&, bool moving);
    void scribe(Gl&, const ScribedView&, bool moving);
    QImage paintMoving(Gl&, const ScribedView&, const std::vector<ScribedPart>&);
    QImage layOver(Gl&, const ScribedView&, const std::vector<ScribedPart>&);
    QImage read(Gl&);
    QImage readSmoothed(Gl&);
    void letGo(Gl&);

    std::unique_ptr<QOpenGLShaderProgram> faces_, fine_lines_, quick_lines_, smooth_;
    QOpenGLVertexArrayObject nothing_; ///< the whole picture is one triangle that needs no data
    Layer layers_[2];
    GLuint depth_ = 0; ///< for the one that is drawn
    std::unique_ptr<QOpenGLFramebufferObject> laid_picture_, smoothed_picture_;
    static constexpr int most_coarse = 4;
    QSize size_;
    QSize part_;     ///< as much of the layers as is used now
    int coarse_ = 1; ///< pixels of the view to one that is drawn while the view moves
    int laid_ = 0;
};

} // namespace gorvet::desk
