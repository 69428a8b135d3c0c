// Solids to STEP.
#include "solids/content.hpp"

#include <BRepBuilderAPI_Transform.hxx>
#include <BRep_Builder.hxx>
#include <Interface_InterfaceModel.hxx>
#include <Interface_Static.hxx>
#include <Message.hxx>
#include <Message_Messenger.hxx>
#include <Message_PrinterOStream.hxx>
#include <STEPConstruct.hxx>
#include <STEPConstruct_Styles.hxx>
#include <STEPControl_Writer.hxx>
#include <StepBasic_Product.hxx>
#include <StepBasic_ProductDefinition.hxx>
#include <StepBasic_ProductDefinitionFormation.hxx>
#include <StepRepr_CharacterizedDefinition.hxx>
#include <StepRepr_PropertyDefinition.hxx>
#include <StepRepr_RepresentedDefinition.hxx>
#include <StepShape_ShapeDefinitionRepresentation.hxx>
#include <StepVisual_ColourRgb.hxx>
#include <StepVisual_MechanicalDesignGeometricPresentationRepresentation.hxx>
#include <StepVisual_PresentationStyleAssignment.hxx>
#include <StepVisual_StyledItem.hxx>
#include <TCollection_HAsciiString.hxx>
#include <TopoDS_Compound.hxx>
#include <TransferBRep.hxx>
#include <TransferBRep_ShapeMapper.hxx>
#include <Transfer_FinderProcess.hxx>
#include <XSControl_TransferWriter.hxx>
#include <XSControl_WorkSession.hxx>

#include <array>
#include <map>
#include <tuple>

namespace gorvet::shape {

namespace {

/// Hues that are told apart beside each other, none of them loud.
constexpr std::array<std::array<double, 3>, 6> part_colours{
    {{0.35, 0.47, 0.60}, {0.62, 0.45, 0.33}, {0.40, 0.55, 0.42}, {0.58, 0.53, 0.30}, {0.50, 0.40, 0.55}, {0.30, 0.52, 0.55}}};

/// With its place in itself: what is moved shares its form with others, and would share its name with them too.
TopoDS_Shape byItself(const TopoDS_Shape& shape) {
    if (shape.Location().IsIdentity()) return shape;
    const gp_Trsf by = shape.Location().Transformation();
    return BRepBuilderAPI_Transform(shape.Located(TopLoc_Location()), by, Standard_True).Shape();
}

TopoDS_Compound emptyCompound() {
    TopoDS_Compound c;
    BRep_Builder().MakeCompound(c);
    return c;
}

/// One assembly, in it one for each part, in these the solids.
struct Assembly {
    TopoDS_Compound whole = emptyCompound();
    std::vector<std::pair<TopoDS_Shape, std::string>> named;  ///< every product
    std::vector<std::pair<TopoDS_Shape, std::size_t>> of_hue; ///< every solid
    explicit Assembly(const std::vector<NamedSolid>& solids, const std::string& name) {
        const BRep_Builder build;
        std::map<std::string, std::pair<TopoDS_Compound, std::size_t>> parts;
        for (const NamedSolid& s : solids) {
            const TopoDS_Shape own = byItself(shapeOf(s.solid));
            std::size_t hue = 0;
            if (s.of.empty()) {
                build.Add(whole, own);
            } else {
                const auto at = parts.emplace(s.of, std::pair{emptyCompound(), parts.size()}).first;
                build.Add(at->second.first, own);
                hue = at->second.second;
            }
            named.emplace_back(own, s.name);
            of_hue.emplace_back(own, hue % part_colours.size());
        }
        for (const auto& [of, part] : parts) {
            build.Add(whole, part.first);
            named.emplace_back(part.first, of);
        }
        named.emplace_back(whole, name);
    }
};

void nameProducts(const Handle(Transfer_FinderProcess) & found, const Assembly& assembly) {
    for (const auto& [shape, name] : assembly.named) {
        const Handle(TransferBRep_ShapeMapper) mapper = TransferBRep::ShapeMapper(found, shape);
        Handle(StepShape_ShapeDefinitionRepresentation) represented;
        if (!found->FindTypedTransient(mapper, STANDARD_TYPE(StepShape_ShapeDefinitionRepresentation), represented)) continue;
        const Handle(StepBasic_ProductDefinition) definition =
            represented->Definition().PropertyDefinition()->Definition().ProductDefinition();
        if (definition.IsNull()) continue;
        const Handle(TCollection_HAsciiString) text = new TCollection_HAsciiString(name.c_str());
        const Handle(StepBasic_Product) product = definition->Formation()->OfProduct();
        product->SetId(text);
        product->SetName(text);
    }
}

void colourSolids(const Handle(XSControl_WorkSession) & session, const Handle(Transfer_FinderProcess) & found,
                  const Assembly& assembly) {
    // one presentation for each context: every solid has its own
    for (const auto& [shape, hue] : assembly.of_hue) {
        STEPConstruct_Styles styles(session);
        const Handle(StepRepr_RepresentationItem) item = STEPConstruct::FindEntity(found, shape);
        if (item.IsNull()) continue;
        const auto& [r, g, b] = part_colours[hue];
        const Handle(StepVisual_ColourRgb) colour = new StepVisual_ColourRgb;
        colour->Init(new TCollection_HAsciiString(""), r, g, b);
        styles.AddStyle(item, styles.MakeColorPSA(item, colour, colour, nullptr, 0), nullptr);
        const Handle(StepRepr_RepresentationContext) context = styles.FindContext(shape);
        Handle(StepVisual_MechanicalDesignGeometricPresentationRepresentation) shown;
        if (!context.IsNull() && styles.CreateMDGPR(context, shown)) session->Model()->AddWithRefs(shown);
    }
}

} // namespace

// straight into that file: who calls has put it in its place
Result<void> writeStep(const std::vector<NamedSolid>& solids, const std::filesystem::path& path, const std::string& name) {
    const Error failed{Error::Code::File, path.string(), path.string() + " can't be written.",
                       "Choose another folder, or free some space.", -1};
    try {
        // it would tell its statistics on standard output, where answers belong
        Message::DefaultMessenger()->RemovePrinters(STANDARD_TYPE(Message_PrinterOStream));
        STEPControl_Writer writer;
        Interface_Static::SetCVal("write.step.schema", "AP214IS");
        Interface_Static::SetCVal("write.step.unit", "MM");
        Interface_Static::SetIVal("write.step.assembly", 1);
        const Assembly assembly(solids, name);
        if (writer.Transfer(assembly.whole, STEPControl_AsIs) != IFSelect_RetDone) return failed;
        const Handle(XSControl_WorkSession) session = writer.WS();
        const Handle(Transfer_FinderProcess) found = session->TransferWriter()->FinderProcess();
        nameProducts(found, assembly);
        colourSolids(session, found, assembly);
        if (writer.Write(path.c_str()) != IFSelect_RetDone) return failed;
    } catch (const Standard_Failure&) {
        return failed;
    }
    return {};
}

} // namespace gorvet::shape
