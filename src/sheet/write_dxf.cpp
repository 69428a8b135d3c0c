#include "files/out_file.hpp"
#include "sheet/write.hpp"

#include <dl_dxf.h>

#include <array>
#include <filesystem>
#include <memory>
#include <set>

#include <fmt/format.h>

namespace gorvet::sheet {
namespace {

const char* layerOf(Ink ink) {
    switch (ink) {
    case Ink::Body: return "BODY";
    case Ink::Chassis: return "CHASSIS";
    case Ink::NewSteel: return "CUT";
    case Ink::Remove: return "REMOVE";
    default: return "NOTES";
    }
}

/// Text as Windows code page 1252, which $DWGCODEPAGE names; what has no place there becomes `?`.
std::string cp1252(const std::string& utf8) {
    std::string out;
    for (size_t i = 0; i < utf8.size();) {
        const auto c = static_cast<unsigned char>(utf8[i]);
        const int extra = c < 0x80 ? 0 : c >= 0xF0 ? 3 : c >= 0xE0 ? 2 : 1;
        unsigned point = extra == 0 ? c : c & (0x3F >> extra);
        for (int k = 1; k <= extra && i + k < utf8.size(); ++k)
            point = (point << 6) | (static_cast<unsigned char>(utf8[i + k]) & 0x3F);
        i += extra + 1;
        if (point < 0x80 || (point >= 0xA0 && point <= 0xFF))
            out += static_cast<char>(point);
        else if (point == 0x2013)
            out += '\x96';
        else if (point == 0x2014)
            out += '\x97';
        else if (point == 0x2212)
            out += '-';
        else
            out += '?';
    }
    return out;
}

class Writer {
public:
    Writer(DL_Dxf& dxf, DL_WriterA& dw, double page_height) : dxf_(dxf), dw_(dw), height_(page_height) {}

    void operator()(const Stroke& s) {
        if (s.path.size() < 2) return;
        dxf_.writePolyline(dw_, DL_PolylineData(static_cast<int>(s.path.size()), 0, 0, s.closed ? 1 : 0), attributes(s.pen));
        for (const P& p : s.path) dxf_.writeVertex(dw_, DL_VertexData(p.x, y(p), 0));
        dxf_.writePolylineEnd(dw_);
    }
    void operator()(const Circle& c) {
        dxf_.writeCircle(dw_, DL_CircleData(c.centre.x, y(c.centre), 0, c.radius), attributes(c.pen));
    }
    void operator()(const Fill&) {}
    void operator()(const Picture&) {}
    void operator()(const Hatch&) {}
    void operator()(const Dimension&) {}
    void operator()(const Text& t) {
        const int h = t.anchor == Anchor::Left ? 0 : t.anchor == Anchor::Centre ? 1 : 2;
        const int v = t.level == Level::Base ? 0 : t.level == Level::Middle ? 2 : 3;
        const double turn = t.turn_deg * 3.14159265358979323846 / 180;
        dxf_.writeText(
            dw_,
            DL_TextData(t.at.x, y(t.at), 0, t.at.x, y(t.at), 0, t.size * 0.72, 1.0, 0, h, v, cp1252(t.text), "Standard", turn),
            attributes({t.ink, 0, Dash::Solid}));
    }

private:
    double y(const P& p) const { return height_ - p.y; }
    static DL_Attributes attributes(const Pen& pen) {
        const char* line = pen.dash == Dash::Solid ? "BYLAYER" : pen.dash == Dash::DashDot ? "DASHDOT" : "DASHED";
        return {layerOf(pen.ink), 256, -1, line, 1.0};
    }
    DL_Dxf& dxf_;
    DL_WriterA& dw_;
    double height_;
};

void writeTables(DL_Dxf& dxf, DL_WriterA& dw) {
    dw.sectionTables();
    dxf.writeVPort(dw);
    constexpr std::array<const char*, 5> line_types = {"BYBLOCK", "BYLAYER", "CONTINUOUS", "DASHED", "DASHDOT"};
    dw.tableLinetypes(line_types.size());
    for (const char* name : line_types) dxf.writeLinetype(dw, DL_LinetypeData(name, name, 0, 0, 0.0));
    dw.tableEnd();
    struct Layer {
        const char* name;
        int color;
    };
    constexpr std::array<Layer, 6> layers = {{{"0", 7}, {"CUT", 3}, {"BODY", 5}, {"CHASSIS", 30}, {"REMOVE", 1}, {"NOTES", 8}}};
    dw.tableLayers(layers.size());
    for (const Layer& layer : layers)
        dxf.writeLayer(dw, DL_LayerData(layer.name, 0), DL_Attributes(layer.name, layer.color, 100, "CONTINUOUS", 1.0));
    dw.tableEnd();
    dw.tableStyle(1);
    dxf.writeStyle(dw, DL_StyleData("Standard", 0, 2.5, 1.0, 0.0, 0, 2.5, "txt", ""));
    dw.tableEnd();
    dxf.writeView(dw);
    dxf.writeUcs(dw);
    dw.tableAppid(1);
    dxf.writeAppid(dw, "ACAD");
    dw.tableEnd();
    dxf.writeDimStyle(dw, 2.5, 1.25, 0.625, 0.625, 2.5);
    dxf.writeBlockRecord(dw);
    dw.tableEnd();
    dw.sectionEnd();
    dw.sectionBlocks();
    for (const char* name : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
        dxf.writeBlock(dw, DL_BlockData(name, 0, 0.0, 0.0, 0.0));
        dxf.writeEndBlock(dw, name);
    }
    dw.sectionEnd();
}

/// dxflib does not say when a write fails: a file that does not end as it should is not whole.
bool endsAsItShould(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary | std::ios::ate);
    const auto size = in.tellg();
    if (size < 16) return false;
    in.seekg(-16, std::ios::end);
    std::string tail(16, ' ');
    in.read(tail.data(), 16);
    return tail.find("EOF") != std::string::npos;
}

Result<void> paintDxf(const Drawing& drawing, const std::filesystem::path& path) {
    DL_Dxf dxf;
    const std::unique_ptr<DL_WriterA> dw(dxf.out(path.c_str(), DL_VERSION_2000));
    if (!dw || dw->openFailed())
        return Error{Error::Code::File, path.string(), fmt::format("{} can't be written.", path.string()),
                     "Choose another place.", -1};
    dxf.writeHeader(*dw);
    dw->dxfString(9, "$INSUNITS");
    dw->dxfInt(70, 4); // mm
    dw->dxfString(9, "$DWGCODEPAGE");
    dw->dxfString(3, "ANSI_1252");
    dw->sectionEnd();
    writeTables(dxf, *dw);
    dw->sectionEntities();
    Writer writer(dxf, *dw, drawing.height);
    for (const Item& item : flatten(drawing)) std::visit(writer, item.shape);
    dw->sectionEnd();
    dxf.writeObjects(*dw);
    dxf.writeObjectsEnd(*dw);
    dw->dxfEOF();
    dw->close();
    if (!endsAsItShould(path))
        return Error{Error::Code::File, path.string(), fmt::format("{} can't be written.", path.string()),
                     "Check the space on the disk.", -1};
    return {};
}

} // namespace

Result<void> writeDxf(const Drawing& drawing, const std::filesystem::path& to) {
    return files::put(to, files::Kind::Dxf, [&](const std::filesystem::path& path) { return paintDxf(drawing, path); });
}

} // namespace gorvet::sheet
