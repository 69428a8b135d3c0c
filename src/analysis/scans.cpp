#include "analysis/scans.hpp"

#include "formats/mesh_file.hpp"

namespace gorvet::analysis {

using namespace build;

std::shared_ptr<const Scans> Results::noScans() {
    static const auto none = std::make_shared<const Scans>();
    return none;
}

namespace {

/// What is made goes into a copy: those who hold the results of before keep them.
template <class Change> void into(Results& r, const Change& change) {
    auto scans = std::make_shared<Scans>(*r.scans);
    change(*scans);
    r.scans = std::move(scans);
}

/// Makes one node of a Scans; false when it was stopped.
template <class NodeOf, class Input, class Compute>
bool makeNode(Results& r, NodeOf Scans::*node, Input input, const Compute& compute) {
    auto made = NodeOf::of(std::move(input), &((*r.scans).*node), compute);
    if (!made.made()) return false;
    into(r, [&](Scans& s) { s.*node = std::move(made); });
    return true;
}

std::function<bool()> stopAt(const Progress& progress, double share) {
    return [&progress, share] { return !progress(share); };
}

bool scanned(const Build& b, const Results&) { return !b.scans.empty(); }
bool pictured(const Build& b, const Results&) { return !b.settings.scan_picture.empty(); }
bool complete(const Build&, const Results& r) { return r.scans->overlay->complete(); }

// ---- read and laid on each other

std::map<ScanId, Scans::Source> sourcesOf(const Build& b) {
    std::map<ScanId, Scans::Source> sources;
    for (const auto& [id, s] : b.scans) sources[id] = {s.blob, s.file, s.unit};
    return sources;
}

/// Those that were read before from the same file are taken over.
std::optional<Scans::Read> readScans(const std::map<ScanId, Scans::Source>& sources, const Scans& before, const ReadBlob& blobs,
                                     const Progress& progress) {
    Scans::Read read;
    ScanMeshes meshes;
    double done = 0;
    const double share = 1.0 / static_cast<double>(std::max<size_t>(1, sources.size()));
    for (const auto& [id, source] : sources) {
        const auto old = before.read->meshes->find(id);
        const auto& from = before.read.input();
        if (old != before.read->meshes->end() && from.contains(id) && from.at(id) == source) {
            meshes.insert(*old);
            continue;
        }
        const auto got =
            formats::readMeshFrom([&, &hash = source.blob](const auto& take) { return blobs(hash, take); }, source.file,
                                  unitOf(source.unit), [&](double part) { return progress(done + share * part); });
        if (!progress(done += share)) return std::nullopt;
        if (got) // its shape alone: nothing here asks for colours, and normals come from the triangles
            meshes[id] = std::make_shared<const shape::Mesh>(shape::Mesh{got->mesh.points, got->mesh.triangles, {}, {}});
        else
            read.troubles[id] = got.error().text();
    }
    read.meshes = std::make_shared<const ScanMeshes>(std::move(meshes));
    return read;
}

bool readCurrent(const Build& b, const Results& r) { return r.scans->read.madeFrom(sourcesOf(b)); }

bool makeRead(const Build& b, Results& r, const ReadBlob& blobs, const Progress& progress) {
    return makeNode(r, &Scans::read, sourcesOf(b),
                    [&](const auto& sources) { return readScans(sources, *r.scans, blobs, progress); });
}

bool overlayCurrent(const Build& b, const Results& r) {
    const Scans& s = *r.scans;
    return s.meshes.madeFrom(overlayInput(b, r, s.read->meshes)) && s.overlay.madeFrom({s.meshes.share(), placingOf(b, r)});
}

bool makeOverlay(const Build& b, Results& r, const ReadBlob&, const Progress& progress) {
    makeNode(r, &Scans::meshes, overlayInput(b, r, r.scans->read->meshes), [](const OverlayInput& in) { return overlayOf(in); });
    return progress(0.9) && makeNode(r, &Scans::overlay, std::pair{r.scans->meshes.share(), placingOf(b, r)},
                                     [](const auto& in) { return placed(*in.first, in.second); });
}

// ---- what stands beside them

bool layersCurrent(const Build& b, const Results& r) {
    const Scans& s = *r.scans;
    return s.steel.madeFrom(steelInput(r)) && s.removed.madeFrom({s.meshes.share(), b.planned_cuts});
}

bool makeLayers(const Build& b, Results& r, const ReadBlob&, const Progress& progress) {
    into(r, [&](Scans& s) {
        s.steel = decltype(s.steel)::of(steelInput(r), &s.steel, newSteelMesh);
        s.removed = decltype(s.removed)::of({s.meshes.share(), b.planned_cuts}, &s.removed,
                                            [](const Scans::Removed& in) { return toRemoveMesh(in.cuts, *in.meshes); });
    });
    return progress(1);
}

ScribedAsked scribedAsked(const Results& r) {
    return {r.scans->overlay.share(), r.scans->steel.share(), r.scans->removed.share()};
}

bool scribedCurrent(const Build&, const Results& r) { return r.scans->scribed.madeFrom(scribedAsked(r)); }

bool makeScribed(const Build&, Results& r, const ReadBlob&, const Progress& progress) {
    return makeNode(r, &Scans::scribed, scribedAsked(r),
                    [&](const ScribedAsked& in) { return scribedOf(in, stopAt(progress, 0.5)); });
}

bool pictureCurrent(const Build& b, const Results& r) { return r.scans->picture.madeFrom(b.settings.scan_picture); }

bool makePicture(const Build& b, Results& r, const ReadBlob& blobs, const Progress& progress) {
    into(r, [&](Scans& s) {
        s.picture = decltype(s.picture)::of(b.settings.scan_picture, &s.picture, [&](const std::string& hash) {
            std::string bytes;
            const auto got = blobs(hash, [&](std::span<const unsigned char> part) { bytes.append(part.begin(), part.end()); });
            return got ? bytes : std::string();
        });
    });
    return progress(1);
}

// ---- what they come to

bool clearanceCurrent(const Build&, const Results& r) { return r.scans->clearance.madeFrom(r.scans->overlay.share()); }

bool makeClearance(const Build&, Results& r, const ReadBlob&, const Progress& progress) {
    return makeNode(r, &Scans::clearance, r.scans->overlay.share(),
                    [&](const auto& overlay) { return clearanceOf(*overlay, 0, stopAt(progress, 0.5)); });
}

Scans::WayAsked wayAsked(const Build& b, const Results& r) {
    return {r.scans->overlay.share(), b.planned_cuts, b.settings.length_step};
}

bool wayCurrent(const Build& b, const Results& r) { return r.scans->way.madeFrom(wayAsked(b, r)); }

bool makeWay(const Build& b, Results& r, const ReadBlob&, const Progress& progress) {
    return makeNode(r, &Scans::way, wayAsked(b, r), [&](const Scans::WayAsked& in) {
        return wayOf(*in.overlay, in.cuts, 0, stopAt(progress, 0.5), in.words_in);
    });
}

bool compared(const Build&, const Results& r) { return !r.seatings.columns.empty(); }

bool seatingsCurrent(const Build&, const Results& r) { return r.scans->seatings.madeFrom(seatingsAsked(r)); }

bool makeSeatings(const Build& b, Results& r, const ReadBlob&, const Progress& progress) {
    return makeNode(r, &Scans::seatings, seatingsAsked(r),
                    [&](const SeatingsAsked&) { return clearancesOfSeatings(b, r, 0, stopAt(progress, 0.5)); });
}

Scans::CutsAsked cutsAsked(const Build& b, const Results& r) { return {r.scans->overlay.share(), cutRulesOf(b)}; }

std::optional<Scans::CutsMade> makeCutMap(const Scans::CutsAsked& in, bool for_way, const Progress& progress) {
    const auto stop = stopAt(progress, 0.5);
    const auto besides = for_way ? cutsForWay(*in.overlay, 0, stop) : std::vector<sit::CutAgainst>{};
    auto map = cutMapOf(*in.overlay, in.rules, 0, stop, besides);
    if (stop()) return std::nullopt;
    if (!map) return Scans::CutsMade{{}, map.error()};
    return Scans::CutsMade{std::move(*map), {}};
}

bool cutsCurrent(const Build& b, const Results& r) { return r.scans->cuts.madeFrom(cutsAsked(b, r)); }
bool cutsForWayCurrent(const Build& b, const Results& r) { return r.scans->cuts_for_way.madeFrom(cutsAsked(b, r)); }
bool makeCuts(const Build& b, Results& r, const ReadBlob&, const Progress& progress) {
    return makeNode(r, &Scans::cuts, cutsAsked(b, r), [&](const auto& in) { return makeCutMap(in, false, progress); });
}
bool makeCutsForWay(const Build& b, Results& r, const ReadBlob&, const Progress& progress) {
    return makeNode(r, &Scans::cuts_for_way, cutsAsked(b, r), [&](const auto& in) { return makeCutMap(in, true, progress); });
}

} // namespace

const std::vector<SlowNode> scan_nodes{
    {slow::picture, "the picture", {}, pictured, pictureCurrent, makePicture, true},
    {slow::read, "what the scans show", {}, scanned, readCurrent, makeRead},
    {slow::overlay, "the scans on each other", {slow::read}, scanned, overlayCurrent, makeOverlay},
    {slow::layers, "new steel and what is cut", {slow::overlay}, scanned, layersCurrent, makeLayers, false, false, true},
    {slow::scribed, "the scans as lines", {slow::layers}, scanned, scribedCurrent, makeScribed, true},
    {slow::clearance, "what fouls", {slow::overlay}, complete, clearanceCurrent, makeClearance, true, true},
    {slow::way, "the way in", {slow::overlay}, complete, wayCurrent, makeWay, true},
    {slow::seatings, "each seating's clearances", {slow::clearance}, compared, seatingsCurrent, makeSeatings, true},
    {slow::cuts, "the cut map", {slow::overlay}, complete, cutsCurrent, makeCuts},
    {slow::cuts_for_way, "the cut map for the way in", {slow::overlay}, complete, cutsForWayCurrent, makeCutsForWay},
};

bool clearanceKnown(const Build& b, const Results& r) { return currentSlow(b, r, slow::clearance); }

sit::LiveClearance triedClearance(const Results& r, const shape::Point3& by) {
    const Overlay& o = *r.scans->overlay;
    geometry::RigidTransform seat = o.seat;
    seat.translation = geometry::plus(seat.translation, by);
    return liveOf(o, seat);
}

} // namespace gorvet::analysis
