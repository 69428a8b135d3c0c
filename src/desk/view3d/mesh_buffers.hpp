#pragma once

#include "desk/view3d/scene_mesh.hpp"

#include <QOpenGLBuffer>
#include <QOpenGLFunctions_3_3_Core>
#include <QOpenGLVertexArrayObject>

namespace gorvet::desk {

using Gl = QOpenGLFunctions_3_3_Core;

/// One mesh in the card's memory: all of it, and what is drawn while the view moves. Made, filled and destroyed while the
/// context is current.
class MeshBuffers {
public:
    /// What the mesh holds for drawing is given away: it is made anew when it is wanted again.
    void fill(Gl&, SceneMesh&);
    void clear() { full_.corners = full_.lone = thin_.corners = thin_.lone = 0; }
    /// Of the mesh's points, in their order. Nothing happens where there are not as many.
    void setDistances(const std::vector<float>&, size_t points);
    void draw(Gl&, bool moving);

private:
    struct Set {
        QOpenGLVertexArrayObject arrays;
        QOpenGLBuffer places{QOpenGLBuffer::VertexBuffer};
        QOpenGLBuffer distances{QOpenGLBuffer::VertexBuffer};
        QOpenGLBuffer index{QOpenGLBuffer::IndexBuffer};
        std::vector<std::uint32_t> from;
        int corners = 0;
        int lone = 0; ///< after the corners
        void fill(Gl&, DrawnMesh&);
        void setDistances(const std::vector<float>&);
        void draw(Gl&);
    };
    Set full_, thin_;
};

} // namespace gorvet::desk
