#include "desk/view3d/scribed_picture.hpp"

#include <QElapsedTimer>
#include <array>

#include <malloc.h>

namespace gorvet::desk {

namespace {

// ---- first: what stands where, and how it faces

const char* face_vertex = R"(#version 330 core
layout(location = 0) in vec3 place;
layout(location = 1) in vec3 normal;
layout(location = 2) in float distance_mm;
uniform mat4 view;
uniform mat4 pose;
uniform mat3 turn;
uniform vec4 section;
uniform float depth_mm;
out vec3 facing;
out float clearance;
out float towards;
void main() {
    vec4 at = pose * vec4(place, 1.0);
    gl_Position = view * at;
    gl_ClipDistance[0] = dot(section, at);
    towards = -gl_Position.z * depth_mm;
    facing = turn * normal;
    clearance = distance_mm;
    gl_PointSize = 2.0;
}
)";

const char* face_fragment = R"(#version 330 core
in vec3 facing;
in float clearance;
in float towards;
uniform int dress;
uniform int banded;
uniform float fouls;
uniform float tight;
out vec2 face; // how far towards the eye; normal and code, packed as the bits of a float that is neither denormal nor infinite
void main() {
    float size = length(facing);
    vec3 n = size > 0.1 ? facing / size : vec3(0.0, 0.0, 1.0);
    if (n.z < 0.0) n = -n; // a sheet has two sides
    int band = banded == 0 || clearance >= tight ? 0 : clearance < fouls ? 2 : 1;
    uvec2 way = uvec2((n.xy * 0.5 + 0.5) * vec2(2047.0, 4095.0) + 0.5);
    face = vec2(towards, uintBitsToFloat(1u << 28 | uint(dress + 8 * band) << 23 | way.y << 11 | way.x));
}
)";

// ---- then: the picture, from that

const char* line_vertex = R"(#version 330 core
void main() {
    vec2 corner = vec2(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0);
    gl_Position = vec4(corner, 0.0, 1.0);
}
)";

// made twice: a renderer in software works out both sides of every question, for each pixel
const char* fine_version = "#version 330 core\n#define FINE 1\n";
const char* quick_version = "#version 330 core\n#define FINE 0\n";
const char* line_fragment = R"(
uniform sampler2D stands, body;
uniform ivec2 size;
uniform float mm_per_px;
uniform vec2 far_near;
uniform int dark;
uniform int wide; // pixels of a line
uniform vec3 ground;
uniform vec3 inks[7]; // by dress; 5 tight, 6 foul
out vec4 colour;

const float nothing = -1e8;

vec2 faceAt(sampler2D t, ivec2 p) { return texelFetch(t, clamp(p, ivec2(0), size - 1), 0).rg; }
float near(sampler2D t, ivec2 p) { return faceAt(t, p).x; }
vec3 normalOf(vec2 f) {
    uint u = floatBitsToUint(f.y);
    vec2 n = vec2(float(u & 2047u) / 2047.0, float(u >> 11 & 4095u) / 4095.0) * 2.0 - 1.0;
    return vec3(n, sqrt(max(0.0, 1.0 - dot(n, n))));
}
int codeOf(vec2 f) { return int(floatBitsToUint(f.y) >> 23 & 31u); }

// a step of depth that no slanted face makes
float limit(float slope) { return max(1.0, 1.25 * mm_per_px * float(wide)) + 0.6 * slope; }

// How strongly a line is scribed here. A silhouette by the nearer side alone, a crease by one side alone: lines are one pixel wide.
float scribed(sampler2D face, ivec2 p, float d, vec3 n) {
    ivec2 x = ivec2(wide, 0), y = ivec2(0, wide);
    vec2 right = faceAt(face, p + x), above = faceAt(face, p + y);
    float l = near(face, p - x), r = right.x, b = near(face, p - y), t = above.x;
    float slope_x = min(abs(d - l), abs(r - d)), slope_y = min(abs(d - b), abs(t - d));
    bool outline = (2.0 * d - l - r > limit(slope_x) && d > min(l, r)) || (2.0 * d - b - t > limit(slope_y) && d > min(b, t));
    float strength = 0.0;
    if (outline) {
        strength = 1.0;
    } else {
        bool joined_x = r > nothing && abs(r - d) < limit(abs(d - l)), joined_y = t > nothing && abs(t - d) < limit(abs(d - b));
        if ((joined_x && dot(n, normalOf(right)) < 0.86) || (joined_y && dot(n, normalOf(above)) < 0.86))
            strength = 0.85;
    }
    // what is nearer is stronger
    return strength * mix(0.6, 1.0, clamp((d - far_near.x) / (far_near.y - far_near.x), 0.0, 1.0));
}

// the second of two lines along the edge of sheet
float doubled(sampler2D depth, ivec2 p, float d) {
    for (int k = 0; k < 4; ++k) {
        ivec2 way = k == 0 ? ivec2(1, 0) : k == 1 ? ivec2(-1, 0) : k == 2 ? ivec2(0, 1) : ivec2(0, -1);
        float back = near(depth, p - way), at = near(depth, p + 3 * wide * way), beyond = near(depth, p + 4 * wide * way);
        float slope = abs(d - back);
        if (back < nothing || at < nothing || abs(at - d) > 3.0 * slope + 3.0 * limit(0.0)) continue;
        if (beyond < nothing || at - beyond > 4.0 * limit(slope)) return 0.45;
    }
    return 0.0;
}

float stripe(float along, float pitch, float half_width) {
    float off = abs(mod(along, pitch) - 0.5 * pitch);
    return 1.0 - smoothstep(half_width - 0.5, half_width + 0.5, off);
}

// short strokes inward from the outline of new steel, as it has them on every sheet
float ticks(sampler2D face, ivec2 p, float d) {
    for (int k = 0; k < 4; ++k) {
        ivec2 way = k == 0 ? ivec2(1, 0) : k == 1 ? ivec2(-1, 0) : k == 2 ? ivec2(0, 1) : ivec2(0, -1);
        if (d - near(face, p + 5 * wide * way) > 4.0 * limit(0.0)) return stripe(float(p.x + p.y), 13.0 * float(wide), 0.8 * float(wide));
    }
    return 0.0;
}

vec3 toned(int dress, vec3 n, vec2 at) {
    vec3 ink = inks[dress];
    float lit = clamp(dot(n, normalize(vec3(-0.35, 0.6, 0.72))), 0.0, 1.0);
    bool solid = dress == 1 || dress == 2;
    vec3 c = mix(ground, ink, solid ? mix(0.36, 0.12, lit) : mix(0.24, 0.05, lit));
    float hatched = dark == 1 ? smoothstep(0.72, 0.95, lit) : smoothstep(0.62, 0.3, lit);
    float way = solid ? at.x + at.y : at.x - at.y;
    if (dress == 4) return mix(c, ink, 0.75 * max(stripe(at.x + at.y, 9.0, 0.8), stripe(at.x - at.y, 9.0, 0.8)));
    return mix(c, ink, (dark == 1 ? 0.22 : 0.30) * hatched * stripe(way, solid ? 6.0 : 8.0, 0.7));
}

void main() {
    // the uppermost row of what is seen is the first of the picture
    ivec2 p = ivec2(int(gl_FragCoord.x), size.y - 1 - int(gl_FragCoord.y));
    vec2 standing = faceAt(stands, p), over = faceAt(body, p);
    float s = standing.x, b = over.x;
    vec3 c = ground;
    vec3 stands_ink = ground;
    float stands_line = 0.0;
    if (s > nothing) {
        vec3 n = normalOf(standing);
        int dress = codeOf(standing) % 8;
        stands_ink = inks[dress];
        stands_line = scribed(stands, p, s, n);
        c = toned(dress, n, vec2(p));
#if FINE
        if (dress == 2 && stands_line == 0.0) c = mix(c, stands_ink, 0.85 * ticks(stands, p, s));
#endif
        if (b < s) c = mix(c, stands_ink, stands_line);
    }
    if (b > nothing && b >= s) {
        vec3 n = normalOf(over);
        int code = codeOf(over), dress = code % 8, band = code / 8;
        vec3 own = toned(dress, n, vec2(p));
        c = s > nothing ? mix(c, own, 0.6) : own;
        c = mix(c, stands_ink, 0.45 * stands_line);
        if (band > 0) { // crossed lines foul, single ones are tight
            vec3 ink = inks[4 + band];
            vec2 at = vec2(p);
            float lines = stripe(at.x + at.y, 9.0, 1.0);
            if (band == 2) lines = max(lines, stripe(at.x - at.y, 9.0, 1.0));
            c = mix(mix(c, ink, 0.25), ink, lines);
        }
        float line = scribed(body, p, b, n);
#if FINE
        if (line == 0.0) line = doubled(body, p, b);
#endif
        c = mix(c, inks[dress], line);
    }
    colour = vec4(c, 1.0);
}
)";

// ---- at last: a single picture's steps are smoothed along its lines, until others are laid over it
const char* smooth_fragment = R"(#version 330 core
uniform sampler2D picture;
uniform ivec2 size;
out vec4 colour;
float light(vec3 c) { return dot(c, vec3(0.3, 0.59, 0.11)); }
vec3 at(ivec2 p) { return texelFetch(picture, clamp(p, ivec2(0), size - 1), 0).rgb; }
vec3 between(vec2 p) { return texture(picture, p / vec2(textureSize(picture, 0))).rgb; }
void main() {
    ivec2 p = ivec2(gl_FragCoord.xy);
    vec3 own = at(p);
    float a = light(at(p + ivec2(-1, 1))), b = light(at(p + ivec2(1, 1))), c = light(at(p + ivec2(-1, -1))), d = light(at(p + ivec2(1, -1)));
    float most = max(max(a, b), max(max(c, d), light(own))), least = min(min(a, b), min(min(c, d), light(own)));
    colour = vec4(own, 1.0);
    if (most - least < 0.08) return;
    // along the line: across it the light changes most
    vec2 way = vec2((c + d) - (a + b), (b + d) - (a + c));
    float longer = max(abs(way.x), abs(way.y));
    if (longer < 0.01) return;
    way = clamp(way / max(min(abs(way.x), abs(way.y)), 0.15 * longer), -6.0, 6.0);
    vec2 here = vec2(p) + 0.5;
    vec3 near = 0.5 * (between(here - way / 6.0) + between(here + way / 6.0));
    vec3 far = 0.5 * near + 0.25 * (between(here - 0.5 * way) + between(here + 0.5 * way));
    float l = light(far);
    colour = vec4(l < least || l > most ? near : far, 1.0);
}
)";

std::unique_ptr<QOpenGLShaderProgram> program(const char* vertex, const QByteArray& fragment) {
    auto p = std::make_unique<QOpenGLShaderProgram>();
    p->addShaderFromSourceCode(QOpenGLShader::Vertex, vertex);
    p->addShaderFromSourceCode(QOpenGLShader::Fragment, fragment);
    p->link();
    return p;
}

bool isBody(Dress d) { return d == Dress::Body || d == Dress::ToRemove; }

/// Where in its pixel the k-th picture looks, −0.5 … 0.5 each way: no two in one row or column.
std::array<double, 2> besideBy(int k) {
    constexpr std::array<int, ScribedPicture::laid_over> rows = {2, 5, 0, 3, 1, 4};
    const double n = ScribedPicture::laid_over;
    return {(k + 0.5) / n - 0.5, (rows[static_cast<size_t>(k)] + 0.5) / n - 0.5};
}

} // namespace

bool ScribedPicture::make(Gl& gl) {
    faces_ = program(face_vertex, face_fragment);
    fine_lines_ = program(line_vertex, QByteArray(fine_version) + line_fragment);
    quick_lines_ = program(line_vertex, QByteArray(quick_version) + line_fragment);
    smooth_ = program(line_vertex, smooth_fragment);
    nothing_.create();
    gl.glGenRenderbuffers(1, &depth_);
    for (Layer& l : layers_) {
        gl.glGenFramebuffers(1, &l.framebuffer);
        gl.glGenTextures(1, &l.face);
    }
    size_ = {};
    laid_ = 0;
    return faces_->isLinked() && fine_lines_->isLinked() && quick_lines_->isLinked() && smooth_->isLinked();
}

void ScribedPicture::destroy() {
    faces_.reset();
    fine_lines_.reset();
    quick_lines_.reset();
    smooth_.reset();
    smoothed_picture_.reset();
    laid_picture_.reset();
    nothing_.destroy(); // the textures go with the context
}

void ScribedPicture::resize(Gl& gl, QSize size) {
    if (size == size_) return;
    size_ = size;
    laid_ = 0;
    gl.glBindRenderbuffer(GL_RENDERBUFFER, depth_);
    gl.glRenderbufferStorage(GL_RENDERBUFFER, GL_DEPTH_COMPONENT24, size.width(), size.height());
    for (const Layer& l : layers_) {
        gl.glBindTexture(GL_TEXTURE_2D, l.face);
        gl.glTexImage2D(GL_TEXTURE_2D, 0, GL_RG32F, size.width(), size.height(), 0, GL_RG, GL_FLOAT, nullptr);
        gl.glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, GL_NEAREST);
        gl.glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAG_FILTER, GL_NEAREST);
        gl.glBindFramebuffer(GL_FRAMEBUFFER, l.framebuffer);
        gl.glFramebufferTexture2D(GL_FRAMEBUFFER, GL_COLOR_ATTACHMENT0, GL_TEXTURE_2D, l.face, 0);
        gl.glFramebufferRenderbuffer(GL_FRAMEBUFFER, GL_DEPTH_ATTACHMENT, GL_RENDERBUFFER, depth_);
    }
    laid_picture_ =
        std::make_unique<QOpenGLFramebufferObject>(size, QOpenGLFramebufferObject::NoAttachment, GL_TEXTURE_2D, GL_RGBA16F);
    gl.glBindTexture(GL_TEXTURE_2D, laid_picture_->texture());
    gl.glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, GL_LINEAR);
    gl.glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAG_FILTER, GL_LINEAR);
    smoothed_picture_ =
        std::make_unique<QOpenGLFramebufferObject>(size, QOpenGLFramebufferObject::NoAttachment, GL_TEXTURE_2D, GL_RGBA8);
}

void ScribedPicture::drawGroup(Gl& gl, Group group, const ScribedView& v, const QMatrix4x4& view,
                               const std::vector<ScribedPart>& parts, bool moving) {
    gl.glBindFramebuffer(GL_FRAMEBUFFER, layers_[static_cast<size_t>(group)].framebuffer);
    gl.glViewport(0, 0, part_.width(), part_.height());
    const float nothing[4] = {-2e8F, 0, 0, 0};
    gl.glClearBufferfv(GL_COLOR, 0, nothing);
    gl.glClear(GL_DEPTH_BUFFER_BIT);
    gl.glEnable(GL_DEPTH_TEST);
    gl.glDisable(GL_BLEND);
    gl.glEnable(GL_PROGRAM_POINT_SIZE);
    const bool cut = v.section != QVector4D(0, 0, 0, 1);
    cut ? gl.glEnable(GL_CLIP_DISTANCE0) : gl.glDisable(GL_CLIP_DISTANCE0);
    faces_->bind();
    faces_->setUniformValue("view", view);
    faces_->setUniformValue("section", v.section);
    faces_->setUniformValue("depth_mm", static_cast<float>(depth_mm));
    faces_->setUniformValue("fouls", v.fouls_mm);
    faces_->setUniformValue("tight", v.tight_mm);
    for (const ScribedPart& part : parts) {
        if (isBody(part.dress) != (group == Group::Body)) continue;
        // the picture's own right, up and towards the eye
        const QMatrix4x4 both = view * part.pose;
        QMatrix3x3 turn;
        for (int row = 0; row < 3; ++row) {
            const QVector3D r(both(row, 0), both(row, 1), both(row, 2));
            const float size = (row == 2 ? -1.0F : 1.0F) * r.length();
            for (int column = 0; column < 3; ++column) turn(row, column) = both(row, column) / size;
        }
        faces_->setUniformValue("turn", turn);
        faces_->setUniformValue("pose", part.pose);
        faces_->setUniformValue("dress", static_cast<int>(part.dress));
        faces_->setUniformValue("banded", part.banded ? 1 : 0);
        part.buffers->draw(gl, moving);
    }
    faces_->release();
    gl.glDisable(GL_CLIP_DISTANCE0);
}

void ScribedPicture::scribe(Gl& gl, const ScribedView& v, bool moving) {
    gl.glDisable(GL_DEPTH_TEST);
    QOpenGLShaderProgram& lines = moving ? *quick_lines_ : *fine_lines_;
    lines.bind();
    int unit = 0;
    const auto bind = [&](const char* name, GLuint texture) {
        gl.glActiveTexture(static_cast<GLenum>(GL_TEXTURE0 + unit));
        gl.glBindTexture(GL_TEXTURE_2D, texture);
        lines.setUniformValue(name, unit++);
    };
    bind("stands", layers_[0].face);
    bind("body", layers_[1].face);
    gl.glActiveTexture(GL_TEXTURE0);
    gl.glUniform2i(lines.uniformLocation("size"), part_.width(), part_.height());
    lines.setUniformValue("mm_per_px", static_cast<float>(v.mm_per_px));
    lines.setUniformValue("far_near",
                          QVector2D(static_cast<float>(v.far_mm), static_cast<float>(std::max(v.near_mm, v.far_mm + 1))));
    lines.setUniformValue("dark", v.dark ? 1 : 0);
    lines.setUniformValue("wide", v.line_px);
    lines.setUniformValue("ground", v.ground);
    const std::array<QVector3D, 7> inks = {v.ground, v.chassis, v.new_steel, v.body, v.remove, v.tight, v.foul};
    lines.setUniformValueArray("inks", inks.data(), static_cast<int>(inks.size()));
    nothing_.bind();
    gl.glDrawArrays(GL_TRIANGLES, 0, 3);
    nothing_.release();
    lines.release();
}

QImage ScribedPicture::paint(Gl& gl, const ScribedView& v, const std::vector<ScribedPart>& parts, QSize size, bool moving) {
    resize(gl, size);
    return moving ? paintMoving(gl, v, parts) : layOver(gl, v, parts);
}

QImage ScribedPicture::paintMoving(Gl& gl, const ScribedView& v, const std::vector<ScribedPart>& parts) {
    QElapsedTimer took;
    took.start();
    laid_ = 0;
    part_ = size_ / coarse_;
    ScribedView coarse = v;
    coarse.mm_per_px *= coarse_;
    for (const Group g : {Group::Stands, Group::Body}) drawGroup(gl, g, coarse, v.view, parts, true);
    gl.glFinish();
    const auto since = [&took] { return static_cast<double>(took.nsecsElapsed()) / 1e6; };
    const double faces_ms = since();
    gl.glBindFramebuffer(GL_FRAMEBUFFER, laid_picture_->handle());
    gl.glViewport(0, 0, part_.width(), part_.height());
    scribe(gl, coarse, true);
    const QImage picture = read(gl);
    // software that draws keeps up with fewer and larger pixels
    constexpr double too_long_ms = 44, well_ms = 40;
    const double pixels_ms = since() - faces_ms, finer = coarse_ / (coarse_ - 0.999); // faces cost the same at any size
    if (faces_ms + pixels_ms > too_long_ms && coarse_ < most_coarse)
        ++coarse_;
    else if (coarse_ > 1 && faces_ms + pixels_ms * finer * finer < well_ms)
        --coarse_;
    return picture;
}

QImage ScribedPicture::layOver(Gl& gl, const ScribedView& v, const std::vector<ScribedPart>& parts) {
    if (isDone()) return {};
    part_ = size_;
    QMatrix4x4 view = v.view;
    const auto beside = besideBy(laid_);
    view(0, 3) += static_cast<float>(2 * beside[0] / size_.width());
    view(1, 3) += static_cast<float>(2 * beside[1] / size_.height());
    for (const Group g : {Group::Stands, Group::Body}) drawGroup(gl, g, v, view, parts, false);
    gl.glBindFramebuffer(GL_FRAMEBUFFER, laid_picture_->handle());
    gl.glViewport(0, 0, size_.width(), size_.height());
    if (laid_ > 0) {
        gl.glEnable(GL_BLEND);
        gl.glBlendColor(0, 0, 0, 1.0F / static_cast<float>(laid_ + 1));
        gl.glBlendFunc(GL_CONSTANT_ALPHA, GL_ONE_MINUS_CONSTANT_ALPHA);
    }
    scribe(gl, v, false);
    gl.glDisable(GL_BLEND);
    ++laid_;
    if (laid_ > 1 && !isDone()) return {};
    const QImage picture = isDone() ? read(gl) : readSmoothed(gl);
    if (isDone()) letGo(gl);
    return picture;
}

/// The first of the pictures that are laid over each other, its steps smoothed: those that follow take a second.
QImage ScribedPicture::readSmoothed(Gl& gl) {
    gl.glBindFramebuffer(GL_FRAMEBUFFER, smoothed_picture_->handle());
    gl.glViewport(0, 0, size_.width(), size_.height());
    smooth_->bind();
    gl.glActiveTexture(GL_TEXTURE0);
    gl.glBindTexture(GL_TEXTURE_2D, laid_picture_->texture());
    smooth_->setUniformValue("picture", 0);
    gl.glUniform2i(smooth_->uniformLocation("size"), size_.width(), size_.height());
    nothing_.bind();
    gl.glDrawArrays(GL_TRIANGLES, 0, 3);
    nothing_.release();
    smooth_->release();
    QImage picture(size_, QImage::Format_RGB32);
    gl.glBindFramebuffer(GL_READ_FRAMEBUFFER, smoothed_picture_->handle());
    gl.glReadPixels(0, 0, size_.width(), size_.height(), GL_BGRA, GL_UNSIGNED_BYTE, picture.bits());
    return picture;
}

/// What was made.
QImage ScribedPicture::read(Gl& gl) {
    QImage picture(part_, QImage::Format_RGB32);
    gl.glBindFramebuffer(GL_READ_FRAMEBUFFER, laid_picture_->handle());
    gl.glReadPixels(0, 0, part_.width(), part_.height(), GL_BGRA, GL_UNSIGNED_BYTE, picture.bits());
    return picture;
}

/// A renderer in software keeps all triangles of its last pictures until others take their place: empty ones do, made at once,
/// so that each takes another place.
void ScribedPicture::letGo(Gl& gl) {
    constexpr int most_kept = 8;
    gl.glBindFramebuffer(GL_FRAMEBUFFER, layers_[0].framebuffer);
    for (int k = 0; k < most_kept; ++k) {
        gl.glClear(GL_COLOR_BUFFER_BIT | GL_DEPTH_BUFFER_BIT);
        gl.glFlush();
    }
    gl.glFinish();
    malloc_trim(0);
}

} // namespace gorvet::desk
