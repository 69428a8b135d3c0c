#include "files/jpeg.hpp"
#include "files/out_file.hpp"
#include "sheet/fonts.hpp"
#include "sheet/write.hpp"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <memory>

#include <cairo-ft.h>
#include <cairo-pdf.h>
#include <cairo-svg.h>
#include <cairo.h>

#include <fmt/format.h>

namespace gorvet::sheet {
namespace {

constexpr double points_per_mm = 72.0 / 25.4;

/// The three faces, loaded from the embedded bytes for as long as a document is written.
class Typefaces {
public:
    Typefaces() {
        FT_Init_FreeType(&library_);
        for (const Face face : {Face::Sans, Face::Bold, Face::Mono}) {
            const auto bytes = fontBytes(face);
            FT_Face loaded = nullptr;
            if (FT_New_Memory_Face(library_, bytes.data(), static_cast<FT_Long>(bytes.size()), 0, &loaded) != 0) continue;
            const auto index = static_cast<size_t>(face);
            faces_[index] = loaded;
            cairo_[index] = cairo_ft_font_face_create_for_ft_face(loaded, FT_LOAD_NO_HINTING);
        }
    }
    ~Typefaces() {
        for (auto* face : cairo_)
            if (face) cairo_font_face_destroy(face);
        for (auto* face : faces_)
            if (face) FT_Done_Face(face);
        FT_Done_FreeType(library_);
    }
    Typefaces(const Typefaces&) = delete;
    Typefaces& operator=(const Typefaces&) = delete;
    cairo_font_face_t* operator[](Face face) const { return cairo_[static_cast<size_t>(face)]; }

private:
    FT_Library library_ = nullptr;
    FT_Face faces_[3] = {};
    cairo_font_face_t* cairo_[3] = {};
};

struct Grey {
    double value;
};
Grey printed(Ink ink) {
    switch (ink) {
    case Ink::Second: return {0.3};
    case Ink::Faint: return {0.72};
    case Ink::Sheet: return {1.0};
    case Ink::Panel: return {0.93};
    default: return {0.0};
    }
}

cairo_surface_t* pngSurface(const std::string& png) {
    struct Reading {
        const std::string& bytes;
        size_t at;
    } reading{png, 0};
    const auto next = [](void* from, unsigned char* to, unsigned int length) {
        auto& r = *static_cast<Reading*>(from);
        if (r.at + length > r.bytes.size()) return CAIRO_STATUS_READ_ERROR;
        std::copy_n(r.bytes.begin() + static_cast<std::ptrdiff_t>(r.at), length, to);
        r.at += length;
        return CAIRO_STATUS_SUCCESS;
    };
    return cairo_image_surface_create_from_png_stream(next, &reading);
}

/// The pixels, and the JPEG itself beside them: a PDF takes that one as it is.
cairo_surface_t* jpegSurface(const std::string& jpeg, const files::Pixels& p) {
    cairo_surface_t* image = cairo_image_surface_create(CAIRO_FORMAT_RGB24, p.width, p.height);
    if (cairo_surface_status(image) != CAIRO_STATUS_SUCCESS) return image;
    unsigned char* rows = cairo_image_surface_get_data(image);
    const int stride = cairo_image_surface_get_stride(image);
    const unsigned char* from = p.rgb.data();
    for (int y = 0; y < p.height; ++y)
        for (int x = 0; x < p.width; ++x, from += 3) {
            const std::uint32_t pixel =
                static_cast<std::uint32_t>(from[0]) << 16 | static_cast<std::uint32_t>(from[1]) << 8 | from[2];
            std::memcpy(rows + std::ptrdiff_t{y} * stride + std::ptrdiff_t{4} * x, &pixel, sizeof pixel);
        }
    cairo_surface_mark_dirty(image);
    auto* copy = new std::string(jpeg);
    cairo_surface_set_mime_data(
        image, CAIRO_MIME_TYPE_JPEG, reinterpret_cast<const unsigned char*>(copy->data()), copy->size(),
        [](void* data) { delete static_cast<std::string*>(data); }, copy);
    return image;
}

cairo_surface_t* surfaceOf(const std::string& bytes) {
    const std::span<const unsigned char> raw(reinterpret_cast<const unsigned char*>(bytes.data()), bytes.size());
    if (!files::looksLikeJpeg(raw)) return pngSurface(bytes);
    constexpr int as_it_is = 1 << 16;
    const auto pixels = files::readJpeg(raw, as_it_is);
    return pixels ? jpegSurface(bytes, *pixels) : cairo_image_surface_create(CAIRO_FORMAT_RGB24, 0, 0);
}

class Painter {
public:
    Painter(cairo_t* cr, const Typefaces& faces) : cr_(cr), faces_(faces) {}

    void paint(const Drawing& drawing) {
        for (const Item& item : flatten(drawing)) std::visit(*this, item.shape);
    }

    void operator()(const Stroke& s) {
        if (s.path.size() < 2) return;
        trace(s.path, s.closed);
        stroke(s.pen);
    }
    void operator()(const Circle& c) {
        cairo_new_path(cr_);
        cairo_arc(cr_, c.centre.x, c.centre.y, c.radius, 0, 2 * M_PI);
        if (c.filled || c.ground) {
            setInk(c.filled ? c.pen.ink : Ink::Sheet);
            cairo_fill_preserve(cr_);
        }
        stroke(c.pen);
    }
    void operator()(const Fill& fill) {
        trace(fill.polygon, true);
        setInk(fill.ink);
        cairo_fill(cr_);
    }
    void operator()(const Picture& p) {
        if (!p.bytes || p.bytes->empty()) return;
        cairo_surface_t* image = surfaceOf(*p.bytes);
        const double w = cairo_image_surface_get_width(image), h = cairo_image_surface_get_height(image);
        if (cairo_surface_status(image) == CAIRO_STATUS_SUCCESS && w > 0 && h > 0) {
            const double scale = std::min(p.width / w, p.height / h);
            cairo_save(cr_);
            cairo_translate(cr_, p.at.x + (p.width - w * scale) / 2, p.at.y + (p.height - h * scale) / 2);
            cairo_scale(cr_, scale, scale);
            cairo_set_source_surface(cr_, image, 0, 0);
            cairo_paint(cr_);
            cairo_restore(cr_);
        }
        cairo_surface_destroy(image);
    }
    void operator()(const Hatch&) {}     // flattened
    void operator()(const Dimension&) {} // flattened
    void operator()(const Text& t) {
        if (t.text.empty()) return;
        const std::string text = t.mark == Mark::Assumed ? t.text + " ?" : t.text;
        cairo_save(cr_);
        cairo_set_font_face(cr_, faces_[t.face]);
        cairo_set_font_size(cr_, t.size);
        cairo_text_extents_t extents;
        cairo_text_extents(cr_, text.c_str(), &extents);
        cairo_translate(cr_, t.at.x, t.at.y);
        cairo_rotate(cr_, -t.turn_deg * M_PI / 180);
        const double left = t.anchor == Anchor::Left     ? 0
                            : t.anchor == Anchor::Centre ? -extents.x_advance / 2
                                                         : -extents.x_advance;
        const double base = t.level == Level::Base ? 0 : t.level == Level::Middle ? t.size * 0.36 : t.size * 0.78;
        if (t.backed) {
            setInk(Ink::Sheet);
            cairo_rectangle(cr_, left - t.size * 0.2, base - t.size * 0.82, extents.x_advance + t.size * 0.4, t.size * 1.05);
            cairo_fill(cr_);
        }
        setInk(t.ink);
        cairo_move_to(cr_, left, base);
        cairo_show_text(cr_, text.c_str());
        if (t.mark != Mark::None) {
            cairo_new_path(cr_);
            cairo_move_to(cr_, left, base + t.size * 0.16);
            cairo_line_to(cr_, left + extents.x_advance, base + t.size * 0.16);
            stroke({t.ink, t.size * 0.05, t.mark == Mark::Assumed ? Dash::Dotted : Dash::Solid});
        }
        cairo_restore(cr_);
    }

private:
    void setInk(Ink ink) {
        const double v = printed(ink).value;
        cairo_set_source_rgb(cr_, v, v, v);
    }
    void trace(const std::vector<P>& path, bool closed) {
        cairo_new_path(cr_);
        for (const P& p : path) cairo_line_to(cr_, p.x, p.y);
        if (closed) cairo_close_path(cr_);
    }
    void stroke(const Pen& pen) {
        setInk(pen.ink);
        cairo_set_line_width(cr_, std::max(pen.weight, 0.05));
        cairo_set_line_cap(cr_, pen.dash == Dash::Dotted ? CAIRO_LINE_CAP_ROUND : CAIRO_LINE_CAP_BUTT);
        cairo_set_line_join(cr_, CAIRO_LINE_JOIN_ROUND);
        const double w = std::max(pen.weight, 0.2);
        switch (pen.dash) {
        case Dash::Solid: cairo_set_dash(cr_, nullptr, 0, 0); break;
        case Dash::Dashed: {
            const double d[] = {5 * w, 3 * w};
            cairo_set_dash(cr_, d, 2, 0);
            break;
        }
        case Dash::DashDot: {
            const double d[] = {9 * w, 3 * w, 1.5 * w, 3 * w};
            cairo_set_dash(cr_, d, 4, 0);
            break;
        }
        case Dash::Dotted: {
            const double d[] = {0.01 * w, 2.5 * w};
            cairo_set_dash(cr_, d, 2, 0);
            break;
        }
        }
        cairo_stroke(cr_);
    }

    cairo_t* cr_;
    const Typefaces& faces_;
};

Result<void> finished(cairo_surface_t* surface, const std::filesystem::path& path) {
    cairo_surface_finish(surface);
    const cairo_status_t status = cairo_surface_status(surface);
    cairo_surface_destroy(surface);
    if (status != CAIRO_STATUS_SUCCESS)
        return Error{Error::Code::File, path.string(),
                     fmt::format("{} can't be written: {}.", path.string(), cairo_status_to_string(status)),
                     "Choose another place.", -1};
    return {};
}

void paintPage(cairo_surface_t* surface, const Drawing& page, const Typefaces& faces) {
    cairo_t* cr = cairo_create(surface);
    cairo_scale(cr, points_per_mm, points_per_mm);
    Painter(cr, faces).paint(page);
    cairo_show_page(cr);
    cairo_destroy(cr);
}

Result<void> paintPdf(const std::vector<Drawing>& pages, const DocumentInfo& info, const std::filesystem::path& path) {
    const Typefaces faces;
    cairo_surface_t* surface =
        cairo_pdf_surface_create(path.c_str(), pages.front().width * points_per_mm, pages.front().height * points_per_mm);
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_TITLE, info.title.c_str());
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_SUBJECT, info.subject.c_str());
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_CREATOR, "Gorvet");
    for (const Drawing& page : pages) {
        cairo_pdf_surface_set_size(surface, page.width * points_per_mm, page.height * points_per_mm);
        paintPage(surface, page, faces);
    }
    return finished(surface, path);
}

Result<void> paintSvg(const Drawing& drawing, const std::filesystem::path& path) {
    const Typefaces faces;
    cairo_surface_t* surface =
        cairo_svg_surface_create(path.c_str(), drawing.width * points_per_mm, drawing.height * points_per_mm);
    cairo_svg_surface_set_document_unit(surface, CAIRO_SVG_UNIT_PT);
    paintPage(surface, drawing, faces);
    return finished(surface, path);
}

} // namespace

Result<void> writePdf(const std::vector<Drawing>& pages, const DocumentInfo& info, const std::filesystem::path& to) {
    if (pages.empty()) return Error{Error::Code::BadInput, to.string(), "There is nothing to print.", "", -1};
    return files::put(to, files::Kind::Pdf, [&](const std::filesystem::path& path) { return paintPdf(pages, info, path); });
}

Result<void> writeSvg(const Drawing& drawing, const std::filesystem::path& to) {
    return files::put(to, files::Kind::Svg, [&](const std::filesystem::path& path) { return paintSvg(drawing, path); });
}

} // namespace gorvet::sheet
