#include "desk/view3d/mesh_buffers.hpp"

namespace gorvet::desk {

void MeshBuffers::Set::fill(Gl& gl, DrawnMesh& m) {
    corners = static_cast<int>(m.triangles.size());
    lone = static_cast<int>(m.lone.size());
    m.triangles.insert(m.triangles.end(), m.lone.begin(), m.lone.end());
    if (!arrays.isCreated()) {
        arrays.create();
        places.create();
        distances.create();
        index.create();
    }
    const auto bytes = [](const auto& list) { return static_cast<int>(list.size() * sizeof(list[0])); };
    arrays.bind();
    places.bind();
    places.allocate(m.places.data(), bytes(m.places));
    gl.glEnableVertexAttribArray(0);
    gl.glVertexAttribPointer(0, 3, GL_FLOAT, GL_FALSE, 24, nullptr);
    gl.glEnableVertexAttribArray(1);
    gl.glVertexAttribPointer(1, 3, GL_FLOAT, GL_FALSE, 24, reinterpret_cast<const void*>(12));
    distances.bind();
    const std::vector<float> far(m.from.size(), 1e9F);
    distances.allocate(far.data(), bytes(far));
    gl.glEnableVertexAttribArray(2);
    gl.glVertexAttribPointer(2, 1, GL_FLOAT, GL_FALSE, 4, nullptr);
    index.bind();
    index.allocate(m.triangles.data(), bytes(m.triangles));
    arrays.release();
    from = std::move(m.from);
    m = {};
}

void MeshBuffers::Set::setDistances(const std::vector<float>& of_points) {
    if (from.empty()) return;
    std::vector<float> of_corners;
    of_corners.reserve(from.size());
    for (const std::uint32_t p : from) of_corners.push_back(of_points[p]);
    distances.bind();
    distances.write(0, of_corners.data(), static_cast<int>(of_corners.size() * sizeof(float)));
}

void MeshBuffers::Set::draw(Gl& gl) {
    arrays.bind();
    if (corners > 0) gl.glDrawElements(GL_TRIANGLES, corners, GL_UNSIGNED_INT, nullptr);
    if (lone > 0)
        gl.glDrawElements(GL_POINTS, lone, GL_UNSIGNED_INT, reinterpret_cast<const void*>(static_cast<size_t>(corners) * 4));
    arrays.release();
}

void MeshBuffers::fill(Gl& gl, SceneMesh& m) {
    if (m.full.empty()) m.makeDrawn();
    full_.fill(gl, m.full);
    if (m.thin.empty())
        thin_.corners = thin_.lone = 0;
    else
        thin_.fill(gl, m.thin);
}

void MeshBuffers::setDistances(const std::vector<float>& distances, size_t points) {
    if (distances.size() != points) return;
    full_.setDistances(distances);
    if (thin_.corners > 0) thin_.setDistances(distances);
}

void MeshBuffers::draw(Gl& gl, bool moving) {
    Set& set = moving && thin_.corners > 0 ? thin_ : full_;
    if (set.corners + set.lone > 0) set.draw(gl);
}

} // namespace gorvet::desk
