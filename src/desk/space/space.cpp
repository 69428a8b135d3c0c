#include "desk/space/space.hpp"

#include "analysis/fit_picks.hpp"
#include "analysis/kept_cuts.hpp"
#include "analysis/scans.hpp"
#include "desk/view3d/scene_pane.hpp"

#include <algorithm>

namespace gorvet::desk {

Space::Space(Document& document) : document_(document), pane_(new ScenePane) {
    connect(&document_, &Document::changed, this, &Space::follow);
}

Space::~Space() { worker_.stop(); }

SceneView* Space::view() const { return pane_->view(); }

std::array<Space::Source, SceneView::layers> Space::sources() const {
    const analysis::Scans& s = *document_.results().scans;
    std::array<Source, SceneView::layers> from;
    if (s.meshes->hasBody()) from[SceneView::Body] = s.meshes->body;
    if (s.meshes->hasChassis()) from[SceneView::Chassis] = s.meshes->chassis;
    from[SceneView::NewSteel] = s.steel.share();
    from[SceneView::ToRemove] = s.removed.share();
    return from;
}

void Space::follow() {
    if (!view()) return;
    if (sources() != shown_) convert();
    const analysis::Scans& s = *document_.results().scans;
    if (of_ != Of{s.overlay.share(), s.clearance.share(), document_.build().planned_cuts}) show();
}

void Space::putBack() {
    if (view()) show();
}

void Space::convert() {
    if (worker_.running()) return; // it looks again when it is done
    struct Job {
        std::array<Source, SceneView::layers> from;
        std::array<bool, SceneView::layers> anew{};
        std::array<std::shared_ptr<SceneMesh>, SceneView::layers> made;
        std::shared_ptr<const analysis::Scans> scans;
    };
    auto job = std::make_shared<Job>();
    job->from = sources();
    job->scans = document_.results().scans;
    for (size_t l = 0; l < job->from.size(); ++l) job->anew[l] = job->from[l] != shown_[l];
    worker_.start(
        tr("the picture of the scans"),
        [job](const Worker::Progress&) {
            const analysis::Scans& s = *job->scans;
            for (size_t l = 0; l < job->from.size(); ++l) {
                if (!job->anew[l] || !job->from[l]) continue;
                if (l == SceneView::Body || l == SceneView::Chassis) {
                    const auto& ready = l == SceneView::Body ? s.meshes->body : s.meshes->chassis;
                    job->made[l] = sceneMeshOf(ready->mesh, std::shared_ptr<const shape::DistanceTree>(ready, ready->tree.get()));
                } else if (const auto mesh = l == SceneView::NewSteel ? s.steel.share() : s.removed.share();
                           !mesh->triangles.empty()) {
                    job->made[l] = sceneMeshOf(mesh, std::make_shared<const shape::DistanceTree>(mesh));
                }
            }
        },
        [this, job](bool) {
            if (!view()) return;
            for (size_t l = 0; l < job->from.size(); ++l) {
                if (!job->anew[l]) continue;
                if (l == SceneView::Chassis && own_chassis_) // what is cast stays until it ends
                    own_chassis_ = job->made[l];
                else
                    view()->setMesh(static_cast<SceneView::Layer>(l), job->made[l]);
            }
            shown_ = job->from;
            clearance_.reset();
            if (sources() != shown_) convert();
            show();
        });
}

void Space::show() {
    const analysis::Scans& s = *document_.results().scans;
    of_ = {s.overlay.share(), s.clearance.share(), document_.build().planned_cuts};
    pane_->say({}); // a trial, or a cut map of how it sat before
    view()->setLengthStep(document_.build().settings.length_step);
    view()->setSeat(s.overlay->seat);
    std::vector<SceneLine> lines;
    // what was found on another mesh can't be shown on this one; on another seat it stays until it is found anew
    const auto& c = s.clearance;
    const bool fits = c.made() && shown_[SceneView::Body] == c.input()->body;
    if (fits) {
        if (clearance_ != c.share())
            view()->setDistances(c->live.map.distance_mm, c.input()->need, analysis::unlikeNeeds(*c.input()));
        clearance_ = c.share();
        if (c.input() == s.overlay.share())
            for (const shape::Polyline& l : c->crossings.lines) lines.push_back({l.places, l.closed, sheet::Ink::Bad});
    } else {
        view()->setDistances({}, s.overlay->need);
        clearance_.reset();
    }
    for (const auto& [id, cut] : document_.build().planned_cuts)
        lines.push_back({analysis::keptCutPlaces(document_.results(), cut), cut.closed, sheet::Ink::Remove, id.value});
    view()->setLines(std::move(lines));
    std::vector<SceneLabel> labels;
    if (fits && c.input() == s.overlay.share())
        for (const analysis::Finding& f : document_.results().findings)
            if (const auto* place = analysis::placeOf(*c, f.tag))
                labels.push_back({place->contact.at, QString::fromStdString(f.brief), f.severity, f.tag});
    view()->setLabels(std::move(labels));
    pane_->refreshRange();
}

void Space::cast(SceneCast cast) {
    if (!view()) return;
    cast_ = std::move(cast);
    own_chassis_ = view()->mesh(SceneView::Chassis);
    if (cast_.rest) view()->setMesh(SceneView::Chassis, cast_.rest);
    view()->setLoose(cast_.moving);
}

void Space::endCast() {
    if (!view()) return;
    view()->setLoose({});
    for (const auto layer : {SceneView::Body, SceneView::NewSteel, SceneView::ToRemove}) view()->setAway(layer, false);
    if (own_chassis_ && view()->mesh(SceneView::Chassis) != own_chassis_) view()->setMesh(SceneView::Chassis, own_chassis_);
    own_chassis_.reset();
    cast_ = {};
}

void Space::showMoment(const analysis::SceneMoment& m) {
    if (!view()) return;
    const auto& chassis = !m.as_planned && cast_.before ? cast_.before : cast_.rest ? cast_.rest : own_chassis_;
    if (chassis && view()->mesh(SceneView::Chassis) != chassis) view()->setMesh(SceneView::Chassis, chassis);
    view()->setAway(SceneView::Body, !m.body);
    view()->setAway(SceneView::ToRemove, !m.body || !m.uncut);
    view()->setAway(SceneView::NewSteel, !m.steel);
    view()->moveLoose(m.moved);
    view()->setSeat(m.seat);
    view()->setLines({}); // they belong to where it sits
    view()->setDistances({}, document_.results().scans->overlay->need);
    clearance_.reset();
    view()->setLabels(m.brief.empty()
                          ? std::vector<SceneLabel>{}
                          : std::vector<SceneLabel>{{m.where, QString::fromStdString(m.brief), m.severity, "moment"}});
    pane_->say(QString::fromStdString(m.words));
}

void Space::turnTo(const std::string& tag) {
    const auto& labels = view() ? view()->labels() : std::vector<SceneLabel>{};
    const auto label = std::find_if(labels.begin(), labels.end(), [&](const SceneLabel& l) { return l.tag == tag; });
    if (label == labels.end()) return;
    const Point3 place = label->at;
    pane_->cutOpenAt(place[0]);
    view()->lookAt(place);
}

void Space::showLines(const std::vector<SceneLine>& lines) {
    if (view()) view()->setLines(lines);
}

void Space::judgePick(const ScenePick& pick) {
    const analysis::Overlay& o = *document_.results().scans->overlay;
    const bool on_body = pick.layer == SceneView::Body || pick.layer == SceneView::ToRemove;
    if (!view() || (!on_body && pick.layer != SceneView::Chassis) || !(on_body ? o.hasBody() : o.hasChassis())) return;
    const Point3 own = on_body ? inverse(o.seat).transformed(pick.at) : pick.at;
    if (const auto scatter = analysis::scatterAt(on_body ? *o.body : *o.chassis, own))
        view()->setPickU95(std::hypot(*scatter, on_body ? o.need.u95_mm : 0.0));
}

void Space::tryBody(const Point3& by) {
    const analysis::Results& r = document_.results();
    const analysis::Overlay& o = *r.scans->overlay;
    if (!view() || !o.complete()) return;
    // along and up only: sideways the body stays on the centreline
    const Point3 held{by[0], 0, by[2]};
    geometry::RigidTransform seat = o.seat;
    seat.translation = geometry::plus(seat.translation, held);
    view()->setSeat(seat);
    view()->setLines({}); // they belong to where it sat
    view()->setLabels({});
    const sit::LiveClearance live = analysis::triedClearance(r, held);
    view()->setDistances(live.map.distance_mm, o.need, analysis::unlikeNeeds(o));
    clearance_.reset();
    const auto length = [step = document_.build().settings.length_step](double mm) {
        return QString::fromStdString(units::formatLength(std::abs(mm), step, true));
    };
    const QString least = live.least_mm < 0               ? tr("fouls by %1").arg(length(live.least_mm))
                          : live.least_mm < o.need.cap_mm ? tr("least clearance %1").arg(length(live.least_mm))
                                                          : tr("nothing nearer than %1").arg(length(o.need.cap_mm));
    pane_->say(tr("tried: %1 %2, %3 %4: %5, at station %6; %7")
                   .arg(length(held[0]), held[0] < 0 ? tr("forward") : tr("rearward"), length(held[2]),
                        held[2] < 0 ? tr("down") : tr("up"),
                        least + (live.pose.empty() ? QString() : " " + QString::fromStdString(live.pose)),
                        QString::fromStdString(units::formatLength(live.at[0], document_.build().settings.length_step)),
                        QString::fromStdString(units::counted(static_cast<std::size_t>(live.fouls), "a point")) +
                            (live.fouls == 1 ? tr(" fouls") : tr(" foul"))));
}

} // namespace gorvet::desk
