#include "desk/scan/scan_room.hpp"

#include "analysis/export.hpp"
#include "analysis/lay_scan.hpp"
#include "analysis/overlay.hpp"
#include "analysis/scene_layers.hpp"
#include "analysis/seatings_clearance.hpp"
#include "analysis/way_in.hpp"
#include "formats/mesh_file.hpp"
#include "scan/align.hpp"
#include "scan/fit.hpp"

namespace gorvet::desk {

/// What the worker takes along and brings back.
struct ScanRoom::Job {
    build::Build build;
    analysis::Results results;
    std::string path;
    std::int64_t revision = -1;
    std::string key;
    std::string clearance_key;
    std::map<build::ScanId, std::pair<std::string, std::shared_ptr<const shape::Mesh>>> meshes;
    std::shared_ptr<analysis::Overlay> overlay; ///< none: to be made
    bool fresh = false;
    std::shared_ptr<const analysis::OverlayClearance> clearance;
    std::shared_ptr<SceneMesh> scenes[SceneView::layers];
    QStringList troubles;
};

namespace {

std::string sourceOf(const build::Scan& s) { return s.blob + std::string(build::word(s.unit)); }

} // namespace

ScanRoom::ScanRoom(Document& document) : document_(document) {}
ScanRoom::~ScanRoom() { worker_.stop(); }

bool ScanRoom::ready() const { return overlay_ && overlay_->complete(); }

void ScanRoom::follow() {
    if (!document_.isOpen()) {
        overlay_.reset();
        clearance_.reset();
        way_.reset();
        for (auto& s : scenes_) s.reset();
        meshes_.clear();
        key_.clear();
        revision_ = -1;
        return;
    }
    const std::string path = document_.store()->path().string();
    if (path != path_) {
        meshes_.clear();
        overlay_.reset();
        clearance_.reset();
        way_.reset();
        for (auto& s : scenes_) s.reset();
        key_.clear();
        revision_ = -1;
        path_ = path;
        emit meshesChanged();
    }
    if (document_.build().scans.empty() && !overlay_) return;
    again_ = false;
    if (document_.stale() || document_.results().revision == revision_) return;
    if (worker_.running()) {
        again_ = true;
        return;
    }
    start();
}

void ScanRoom::start() {
    auto job = std::make_shared<Job>();
    job->build = document_.build();
    job->results = document_.results();
    job->path = path_;
    job->revision = job->results.revision;
    job->meshes = meshes_;
    job->key = analysis::overlayKey(job->build, job->results);
    job->clearance_key = analysis::clearanceKey(job->build, job->results);
    // nothing changed that they depend on: what was found stands
    if (clearance_ && job->key == key_ && job->clearance_key == clearance_key_) job->clearance = clearance_;
    if (overlay_ && job->key == key_) {
        // the same meshes stand elsewhere: a copy that shares them
        job->overlay = std::make_shared<analysis::Overlay>(*overlay_);
        analysis::reseat(*job->overlay, job->build, job->results);
    }
    again_ = false;
    stopped_ = false;
    worker_.start(
        tr("what fouls"),
        [job](const Worker::Progress& progress) {
            if (!job->overlay) {
                // a reader of its own: the window goes on writing
                std::map<build::ScanId, std::pair<std::string, std::shared_ptr<const shape::Mesh>>> kept;
                std::unique_ptr<store::Store> store;
                double done = 0;
                const double share = 0.6 / static_cast<double>(std::max<size_t>(1, job->build.scans.size()));
                for (const auto& [id, s] : job->build.scans) {
                    const auto old = job->meshes.find(id);
                    if (old != job->meshes.end() && old->second.first == sourceOf(s)) {
                        kept.insert(*old);
                        continue;
                    }
                    if (!store) {
                        auto opened = store::Store::open(job->path, store::Access::Read);
                        if (!opened) {
                            job->troubles << QString::fromStdString(opened.error().text());
                            break;
                        }
                        store = std::move(*opened);
                    }
                    const auto read = formats::readMeshFrom(
                        [&, hash = s.blob](const auto& take) { return store->readBlob(hash, take); }, s.file,
                        analysis::unitOf(s.unit), [&](double part) { return progress(done + share * part); });
                    done += share;
                    if (read)
                        kept[id] = {sourceOf(s), std::make_shared<const shape::Mesh>(read->mesh)};
                    else
                        job->troubles << QString::fromStdString(s.name + ": " + read.error().text());
                }
                job->meshes = std::move(kept);
                if (!progress(0.65)) return;
                analysis::ScanMeshes meshes;
                for (const auto& [id, m] : job->meshes) meshes[id] = m.second;
                job->overlay = std::make_shared<analysis::Overlay>(analysis::overlayOf(job->build, job->results, meshes));
                job->fresh = true;
                const auto scene = [](const std::shared_ptr<const sit::Ready>& r) {
                    return sceneMeshOf(r->mesh, std::shared_ptr<const shape::DistanceTree>(r, r->tree.get()));
                };
                if (job->overlay->hasBody()) job->scenes[SceneView::Body] = scene(job->overlay->body);
                if (job->overlay->hasChassis()) job->scenes[SceneView::Chassis] = scene(job->overlay->chassis);
            }
            const auto layer = [](shape::Mesh m) -> std::shared_ptr<SceneMesh> {
                if (m.triangles.empty()) return nullptr;
                const auto mesh = std::make_shared<const shape::Mesh>(std::move(m));
                return sceneMeshOf(mesh, std::make_shared<const shape::DistanceTree>(mesh));
            };
            job->scenes[SceneView::NewSteel] = layer(analysis::newSteelMesh(job->results));
            job->scenes[SceneView::ToRemove] = layer(analysis::toRemoveMesh(job->build, *job->overlay));
            if (!progress(0.8) || !job->overlay->complete() || job->clearance) return;
            auto c = analysis::clearanceOf(*job->overlay, job->build, 0, [&] { return !progress(0.9); });
            if (c) job->clearance = std::make_shared<const analysis::OverlayClearance>(std::move(*c));
        },
        [this, job](bool finished) {
            if (finished && document_.isOpen() && job->path == path_) {
                meshes_ = job->meshes;
                overlay_ = job->overlay;
                if (key_ != job->key || clearance_key_ != job->clearance_key || way_cuts_ != job->build.planned_cuts)
                    way_.reset();
                key_ = job->key;
                clearance_key_ = job->clearance_key;
                revision_ = job->revision;
                clearance_ = job->clearance;
                for (const auto l : {SceneView::NewSteel, SceneView::ToRemove}) scenes_[l] = job->scenes[l];
                if (job->fresh) {
                    for (const auto l : {SceneView::Body, SceneView::Chassis}) scenes_[l] = job->scenes[l];
                    troubles_ = job->troubles;
                    emit meshesChanged();
                }
                emit changed();
            } else {
                // stopped: not begun again by itself, and what was found before does not pass for what is so now
                revision_ = job->revision;
                clearance_.reset();
                stopped_ = true;
                emit changed();
            }
            if (again_) follow();
        });
}

analysis::Headline ScanRoom::headline() const {
    auto h = analysis::overlayHeadline(document_.build(), overlay_ ? *overlay_ : analysis::Overlay{}, clearance_.get());
    if (stopped_ && !clearance_)
        h = {tr("The search for what fouls was stopped.").toStdString(),
             tr("Any change of the build begins it again.").toStdString()};
    else if (clearance_ && !current())
        h.below = tr("Being worked out anew: this is how it was before.").toStdString() + " " + h.below;
    return h;
}

std::vector<analysis::Finding> ScanRoom::findings() const {
    if (!current()) return {};
    return analysis::clearanceFindings(document_.build(), *overlay_, *clearance_);
}

sheet::Drawing ScanRoom::pairs(double width, double height, const sheet::Format& f) const {
    if (!overlay_ || !clearance_) return {};
    return analysis::pairsView(document_.build(), *overlay_, *clearance_, width, height, f);
}

analysis::ScanSheets ScanRoom::sheets() const {
    analysis::ScanSheets s;
    const build::Build& b = document_.build();
    if (document_.store() && !b.settings.scan_picture.empty()) {
        auto bytes = std::make_shared<std::string>();
        if (document_.store()->readBlob(b.settings.scan_picture,
                                        [&](std::span<const unsigned char> part) { bytes->append(part.begin(), part.end()); }))
            s.picture = bytes;
    }
    if (!current()) return s;
    s.findings = findings();
    s.pairs = [b, overlay = overlay_, clearance = clearance_](double w, double h, const sheet::Format& f) {
        return analysis::pairsView(b, *overlay, *clearance, w, h, f);
    };
    s.way = analysis::wayDrawing(b, overlay_, way_);
    if (seatings()) s.seatings = seatings_;
    return s;
}

sit::LiveClearance ScanRoom::tried(const Point3& by) const {
    shape::Motion seat = overlay_->seat;
    seat.shift = shape::plus(seat.shift, by);
    return analysis::liveOf(*overlay_, document_.build(), seat);
}

void ScanRoom::lay(build::ScanId id, const std::vector<std::array<Point3, 2>>& picks, bool surfaces,
                   std::function<void(Result<build::Edit>)> done) {
    if (worker_.running())
        return done(
            Error{Error::Code::Conflict, "scan", "Something else is still being worked out.", "Do it again in a moment.", -1});
    const build::Build b = document_.build();
    const auto moving = meshes_.find(id);
    if (moving == meshes_.end()) return done(Error{Error::Code::NotFound, "scan", "This scan is not there.", "", -1});
    // onto everything else on the same subject, or on the other one where it stands now
    const build::SubjectId subject = b.scans.at(id).subject;
    const bool on_body = subject == build::the_body;
    // only body and chassis stand on each other: what is on axes of its own has nothing else to be laid on
    const auto seated = [](build::SubjectId s) { return s == build::the_body || s == build::the_chassis; };
    const shape::Motion seat = overlay_ ? overlay_->seat : shape::Motion{};
    std::vector<Point3> fixed;
    for (const bool same : {true, false}) {
        if (!fixed.empty() || (!same && !seated(subject))) break;
        for (const auto& [other, m] : meshes_)
            if (const auto theirs = b.scans.at(other).subject;
                other != id && (theirs == subject) == same && (same || seated(theirs))) {
                shape::Motion pose = analysis::poseOf(b.scans.at(other));
                // on the axes of the scan that is laid
                if (!same) pose = chained(on_body ? inverse(seat) : seat, pose);
                for (const Point3& p : m.second->points) fixed.push_back(pose.moved(p));
            }
    }
    std::vector<Point3> from, to;
    // picked as they are seen, in the chassis frame
    const shape::Motion own = on_body ? inverse(seat) : shape::Motion{};
    for (const auto& pick : picks) {
        from.push_back(own.moved(pick[0]));
        to.push_back(own.moved(pick[1]));
    }
    auto result = std::make_shared<std::optional<Result<build::Edit>>>();
    const shape::Motion now = analysis::poseOf(b.scans.at(id));
    worker_.start(
        tr("laying the scan"),
        [=, mesh = moving->second.second](const Worker::Progress& progress) {
            shape::Motion start = now;
            std::string how;
            if (!from.empty()) {
                // picked where it stands now
                const auto laid = scan::layOn(from, to);
                if (!laid) {
                    result->emplace(laid.error());
                    return;
                }
                start = chained(laid->motion, now);
                how = "picked at " + std::to_string(from.size()) + " places, RMS " + std::to_string(laid->rms_mm).substr(0, 4) +
                      " mm";
            }
            if (surfaces && !fixed.empty()) {
                const auto one = scan::preparedFor(mesh->points), two = scan::preparedFor(fixed);
                if (!one || !two) {
                    result->emplace(!one ? one.error() : two.error());
                    return;
                }
                if (!progress(0.4)) return;
                const scan::Aligned a = alignScans(**one, **two, start);
                if (!a.settled) {
                    result->emplace(Error{Error::Code::Degenerate, "scan", a.words,
                                          "Pick three places or more that both show, far apart.", -1});
                    return;
                }
                start = a.motion;
                how = (how.empty() ? "" : how + "; ") + a.words;
            }
            result->emplace(analysis::standScan(b, id, start, how));
        },
        [this, result, done](bool finished) {
            if (finished && *result) done(std::move(**result));
            if (again_) follow();
        });
}

std::shared_ptr<const shape::Mesh> ScanRoom::meshOf(build::ScanId id) const {
    const auto found = meshes_.find(id);
    return found == meshes_.end() ? nullptr : found->second.second;
}

void ScanRoom::layBy(build::ScanId id,
                     std::function<Laid(const build::Build&, const shape::Mesh&, const std::vector<Point3>&)> how,
                     std::function<void(Laid)> done) {
    if (worker_.running())
        return done(
            Error{Error::Code::Conflict, "scan", "Something else is still being worked out.", "Do it again in a moment.", -1});
    const auto mesh = meshOf(id);
    if (!mesh) return done(Error{Error::Code::NotFound, "scan", "This scan is not there.", "", -1});
    const build::Build b = document_.build();
    std::vector<Point3> others;
    for (const auto& [other, m] : meshes_)
        if (other != id && b.scans.at(other).subject == b.scans.at(id).subject) {
            const shape::Motion pose = analysis::poseOf(b.scans.at(other));
            for (const Point3& p : m.second->points) others.push_back(pose.moved(p));
        }
    auto result = std::make_shared<std::optional<Laid>>();
    worker_.start(
        tr("laying the scan"), [=](const Worker::Progress&) { result->emplace(how(b, *mesh, others)); },
        [this, result, done](bool finished) {
            if (finished && *result) done(std::move(**result));
            if (again_) follow();
        });
}

void ScanRoom::findWayIn(std::function<void(const analysis::WayFound&)> done) {
    if (!ready() || worker_.running()) return;
    auto way = std::make_shared<std::optional<analysis::WayFound>>();
    const auto overlay = overlay_;
    const build::Build b = document_.build();
    worker_.start(
        tr("the way in"),
        [=](const Worker::Progress& progress) { *way = analysis::wayOf(*overlay, b, 0, [&] { return !progress(0.5); }); },
        [this, way, overlay, done, cuts = b.planned_cuts](bool finished) {
            if (finished && *way && overlay == overlay_) {
                way_ = std::make_shared<const analysis::WayFound>(std::move(**way));
                way_cuts_ = cuts;
                done(*way_);
            }
            if (again_) follow();
        });
}

analysis::Headline ScanRoom::wayHeadline() const {
    if (!way_) return headline();
    auto h = analysis::wayHeadline(document_.build(), *way_);
    if (!current()) h.below = tr("Being worked out anew: this is how it was before.").toStdString() + " " + h.below;
    return h;
}

sheet::Drawing ScanRoom::waySheet(double width, double height, const sheet::Format& f) const {
    if (!overlay_ || !way_) return {};
    return analysis::wayView(document_.build(), *overlay_, *way_, width, height, f);
}

const std::vector<analysis::SeatingClearance>* ScanRoom::seatings() const {
    if (!seatings_ || seatings_key_ != analysis::seatingsKey(document_.build(), document_.results())) return nullptr;
    return seatings_.get();
}

void ScanRoom::findSeatings(std::function<void()> done) {
    if (!ready() || !current() || worker_.running() || seatings()) return;
    struct Found {
        std::optional<std::vector<analysis::SeatingClearance>> list;
        std::string key;
    };
    auto found = std::make_shared<Found>();
    const build::Build b = document_.build();
    const analysis::Results r = document_.results();
    analysis::ScanMeshes meshes;
    for (const auto& [id, m] : meshes_) meshes[id] = m.second;
    worker_.start(
        tr("each seating's clearances"),
        [=, overlay = overlay_, clearance = clearance_](const Worker::Progress& progress) {
            found->key = analysis::seatingsKey(b, r);
            found->list = analysis::clearancesOfSeatings(b, r, *overlay, *clearance, meshes, 0, [&] { return !progress(0.5); });
        },
        [this, found, done](bool finished) {
            if (finished && found->list) {
                seatings_ = std::make_shared<const std::vector<analysis::SeatingClearance>>(std::move(*found->list));
                seatings_key_ = found->key;
                done();
            }
            if (again_) follow();
        });
}

void ScanRoom::makeCutMap(bool for_way, std::function<void(Result<sit::CutMap>)> done) {
    if (!ready())
        return done(Error{Error::Code::Conflict, "cut map", "A scan of the body and one of the chassis are needed.",
                          "Add them first.", -1});
    if (worker_.running())
        return done(
            Error{Error::Code::Conflict, "cut map", "Something else is still being worked out.", "Do it again in a moment.", -1});
    auto result = std::make_shared<std::optional<Result<sit::CutMap>>>();
    const auto overlay = overlay_;
    const build::Build b = document_.build();
    worker_.start(
        tr("cut map"),
        [=](const Worker::Progress& progress) {
            const auto stop = [&] { return !progress(0.5); };
            const auto besides = for_way ? analysis::cutsForWay(*overlay, b, 0, stop) : std::vector<sit::CutAgainst>{};
            result->emplace(analysis::cutMapOf(*overlay, b, 0, stop, besides));
        },
        [this, result, done](bool finished) {
            if (finished && *result) done(std::move(**result));
            if (again_) follow();
        });
}

} // namespace gorvet::desk
