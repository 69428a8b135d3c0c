#include "files/jpeg.hpp"

#include <algorithm>
#include <csetjmp>
#include <cstdio>
#include <cstdlib>

#include <jpeglib.h>
// after it
#include <jerror.h>

namespace gorvet::files {

namespace {

/// What libjpeg does in place of ending the program.
struct Trouble {
    jpeg_error_mgr manager;
    std::jmp_buf back;
    bool cut_off = false;
    char words[JMSG_LENGTH_MAX] = {};
};
Trouble& troubleOf(j_common_ptr c) { return *reinterpret_cast<Trouble*>(c->err); }

void fail(j_common_ptr c) {
    c->err->format_message(c, troubleOf(c).words);
    std::longjmp(troubleOf(c).back, 1);
}
/// A warning: the data ends early, or breaks off.
void warn(j_common_ptr c, int level) {
    const int code = c->err->msg_code;
    if (level >= 0 || (code != JWRN_JPEG_EOF && code != JWRN_HIT_MARKER)) return; // others do not harm what is seen
    troubleOf(c).cut_off = true;
    c->err->format_message(c, troubleOf(c).words);
}

constexpr std::int64_t most_pixels = 200'000'000;

/// Everything between begin and end, so that nothing with a destructor is jumped over.
bool decode(jpeg_decompress_struct& in, Trouble& trouble, std::span<const unsigned char> bytes, int longest_px, Pixels& out) {
    if (setjmp(trouble.back)) return false;
    jpeg_create_decompress(&in);
    jpeg_mem_src(&in, bytes.data(), bytes.size());
    jpeg_read_header(&in, TRUE);
    if (static_cast<std::int64_t>(in.image_width) * in.image_height > most_pixels) {
        std::snprintf(trouble.words, sizeof trouble.words, "it has more than 200 million pixels");
        return false;
    }
    const int longest = static_cast<int>(std::max(in.image_width, in.image_height));
    in.scale_denom = 8;
    in.scale_num = static_cast<unsigned>(std::clamp((8 * longest_px + longest - 1) / std::max(longest, 1), 1, 8));
    in.out_color_space = JCS_RGB;
    jpeg_start_decompress(&in);
    out.width = static_cast<int>(in.output_width);
    out.height = static_cast<int>(in.output_height);
    const std::size_t row_bytes = std::size_t{3} * in.output_width;
    out.rgb.resize(row_bytes * in.output_height);
    while (in.output_scanline < in.output_height) {
        JSAMPROW row = out.rgb.data() + row_bytes * in.output_scanline;
        jpeg_read_scanlines(&in, &row, 1);
    }
    jpeg_finish_decompress(&in);
    return !trouble.cut_off;
}

} // namespace

bool looksLikeJpeg(std::span<const unsigned char> b) { return b.size() > 3 && b[0] == 0xFF && b[1] == 0xD8 && b[2] == 0xFF; }

Result<Pixels> readJpeg(std::span<const unsigned char> bytes, int longest_px) {
    Pixels out;
    Trouble trouble;
    jpeg_decompress_struct in{};
    in.err = jpeg_std_error(&trouble.manager);
    trouble.manager.error_exit = fail;
    trouble.manager.emit_message = warn;
    const bool read = looksLikeJpeg(bytes) && decode(in, trouble, bytes, longest_px, out);
    jpeg_destroy_decompress(&in);
    if (read) return out;
    return Error{Error::Code::BadInput, "picture",
                 trouble.words[0] ? std::string("The picture can't be read: ") + trouble.words : "That is no JPEG picture.",
                 "Copy it from the camera once more.", -1};
}

std::string writeJpeg(const Pixels& p) {
    if (p.width <= 0 || p.height <= 0) return {};
    Trouble trouble;
    jpeg_compress_struct out{};
    out.err = jpeg_std_error(&trouble.manager);
    trouble.manager.error_exit = fail;
    trouble.manager.emit_message = warn;
    unsigned char* bytes = nullptr;
    unsigned long size = 0;
    if (!setjmp(trouble.back)) {
        constexpr int quality = 85;
        jpeg_create_compress(&out);
        jpeg_mem_dest(&out, &bytes, &size);
        out.image_width = static_cast<JDIMENSION>(p.width);
        out.image_height = static_cast<JDIMENSION>(p.height);
        out.input_components = 3;
        out.in_color_space = JCS_RGB;
        jpeg_set_defaults(&out);
        jpeg_set_quality(&out, quality, TRUE);
        jpeg_start_compress(&out, TRUE);
        while (out.next_scanline < out.image_height) {
            // libjpeg does not write into what it is given
            JSAMPROW row = const_cast<unsigned char*>(p.rgb.data()) + std::size_t{3} * out.image_width * out.next_scanline;
            jpeg_write_scanlines(&out, &row, 1);
        }
        jpeg_finish_compress(&out);
    }
    jpeg_destroy_compress(&out);
    std::string text(reinterpret_cast<const char*>(bytes), bytes ? size : 0);
    std::free(bytes);
    return text;
}

} // namespace gorvet::files
