// Solids to STEP.
#include "files/out_file.hpp"
#include "shape/content.hpp"

#include <Interface_Static.hxx>
#include <Message.hxx>
#include <Message_Messenger.hxx>
#include <Message_PrinterOStream.hxx>
#include <STEPControl_Writer.hxx>

namespace gorvet::shape {

namespace {

Result<void> writeSolids(const std::vector<NamedSolid>& solids, const std::filesystem::path& path) {
    const Error failed{Error::Code::File, path.string(), path.string() + " can't be written.",
                       "Choose another folder, or free some space.", -1};
    try {
        // it would tell its statistics on standard output, where answers belong
        Message::DefaultMessenger()->RemovePrinters(STANDARD_TYPE(Message_PrinterOStream));
        STEPControl_Writer writer;
        Interface_Static::SetCVal("write.step.schema", "AP214IS");
        Interface_Static::SetCVal("write.step.unit", "MM");
        for (const NamedSolid& s : solids) {
            Interface_Static::SetCVal("write.step.product.name", s.name.c_str());
            if (writer.Transfer(shapeOf(s.solid), STEPControl_AsIs) != IFSelect_RetDone) return failed;
        }
        if (writer.Write(path.c_str()) != IFSelect_RetDone) return failed;
    } catch (const Standard_Failure&) {
        return failed;
    }
    return {};
}

} // namespace

Result<void> writeStep(const std::vector<NamedSolid>& solids, const std::filesystem::path& to) {
    if (solids.empty())
        return Error{Error::Code::BadInput, to.string(), "There is nothing to write: no solid is planned yet.", "", -1};
    return files::put(to, files::Kind::Step, [&](const std::filesystem::path& path) { return writeSolids(solids, path); });
}

} // namespace gorvet::shape
