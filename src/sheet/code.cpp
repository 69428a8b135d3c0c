#include "sheet/code.hpp"

#include <fmt/format.h>
#include <zint.h>

namespace gorvet::sheet {

Result<void> addCode(Drawing& to, P at, double size, const std::string& text) {
    const std::unique_ptr<zint_symbol, void (*)(zint_symbol*)> code(ZBarcode_Create(), ZBarcode_Delete);
    if (!code) return Error{Error::Code::BadInput, text, "No code can be made: memory is short.", "", -1};
    code->symbology = BARCODE_QRCODE;
    code->option_1 = 2; // medium: 15 % may be dirt
    code->input_mode = UNICODE_MODE;
    code->show_hrt = 0;
    code->scale = 1;
    const int trouble = ZBarcode_Encode_and_Buffer_Vector(code.get(), reinterpret_cast<const unsigned char*>(text.data()),
                                                          static_cast<int>(text.size()), 0);
    if (trouble >= ZINT_ERROR || !code->vector)
        return Error{Error::Code::BadInput, text, fmt::format("No code can be made of it: {}.", code->errtxt),
                     "Make the name shorter.", -1};
    // four modules of white each side belong to the code
    const double modules = static_cast<double>(code->width) + 8;
    const double of_module = code->vector->width / code->width; // what the library draws one with
    const double unit = size / modules;
    for (const zint_vector_rect* r = code->vector->rectangles; r; r = r->next) {
        const double x = at.x + (r->x / of_module + 4) * unit, y = at.y + (r->y / of_module + 4) * unit;
        const double w = r->width / of_module * unit, h = r->height / of_module * unit;
        to.add(Fill{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, Ink::Ink});
    }
    return {};
}

} // namespace gorvet::sheet
