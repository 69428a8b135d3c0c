#include "desk/space/times_tool.hpp"

#include "analysis/bench.hpp"
#include "analysis/scans.hpp"
#include "desk/view3d/scene_pane.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

namespace {

QString trTimes(const char* text) { return QCoreApplication::translate("TimesTool", text); }
constexpr int play_ms = 9000;    ///< so long all of it takes
constexpr int slowest_ms = 1200; ///< but no moment longer
constexpr int quickest_ms = 90;

/// The sheet that is the view of the scans, whichever bench has it.
void turnToSpace(Desk& desk) {
    for (const analysis::BenchInfo* bench : analysis::benches())
        for (const analysis::BenchView& view : bench->views)
            if (view.isSpace()) return desk.turn(bench->key, view.key);
}

/// The meshes that are shown besides those that always are.
SceneCast castOf(const analysis::SceneTimes& t, const analysis::Scans& s) {
    const auto ready = [](shape::Mesh m) -> std::shared_ptr<SceneMesh> {
        if (m.points.empty()) return nullptr;
        return sceneMeshOf(std::make_shared<const shape::Mesh>(std::move(m)), nullptr);
    };
    SceneCast cast;
    if (std::any_of(t.moments.begin(), t.moments.end(), [](const auto& m) { return !m.as_planned; }))
        cast.before = ready(chassisAsItStands(s.meshes.input()));
    if (t.moving.empty()) return cast;
    cast.rest = ready(chassisWithout(*s.overlay, t.moving));
    for (const size_t i : t.moving) cast.moving.push_back(sceneMeshOf(s.overlay->on_chassis[i].part.ready->mesh, nullptr));
    return cast;
}

} // namespace

void watch(Desk& desk, std::vector<std::string_view> needs, const QString& what, const QString& none, FindTimes find) {
    if (!desk.document().isOpen()) return;
    turnToSpace(desk);
    if (!desk.space().view()) return desk.say(trTimes("This system shows no 3-D pictures."), "warn");
    desk.say(what + trTimes(" …"), "");
    desk.slow().make(std::move(needs), [&desk, what, none, find = std::move(find)](bool made) {
        if (!made) return desk.say(none, "warn");
        if (desk.worker().running())
            return desk.say(trTimes("Something else is still being worked out. Do it again in a moment."), "warn");
        struct Job {
            build::Build build;
            analysis::Results results;
            std::optional<analysis::SceneTimes> times;
            SceneCast cast;
        };
        auto job = std::make_shared<Job>(Job{desk.document().build(), desk.document().results(), {}, {}});
        desk.worker().start(
            what,
            [job, find](const Worker::Progress& progress) {
                job->times = find(job->build, job->results, progress);
                if (job->times) job->cast = castOf(*job->times, *job->results.scans);
            },
            [&desk, job, none](bool finished) {
                if (!finished) return;
                if (!job->times) return desk.say(none, "warn");
                if (!desk.document().isOpen() || desk.document().results().revision != job->results.revision)
                    return desk.say(trTimes("The build was changed meanwhile. Do it again."), "warn");
                desk.say({}, "");
                desk.take(std::make_unique<TimesTool>(desk, std::move(*job->times), std::move(job->cast)));
            });
    });
}

TimesTool::TimesTool(Desk& d, analysis::SceneTimes times, SceneCast cast)
    : Tool(d), times_(std::move(times)), revision_(d.document().store()->revision()) {
    ScenePane* pane = desk().space().pane();
    desk().space().cast(std::move(cast));
    const int count = static_cast<int>(times_.moments.size());
    pane->setTimes(count);
    slider_ = QObject::connect(pane, &ScenePane::timeMoved, pane, [this](int at) {
        playing_.stop();
        show(static_cast<std::size_t>(at));
    });
    playing_.setInterval(std::clamp(play_ms / std::max(1, count), quickest_ms, slowest_ms));
    QObject::connect(&playing_, &QTimer::timeout, pane, [this] {
        if (at_ + 1 >= times_.moments.size()) return playing_.stop();
        show(at_ + 1);
        desk().space().pane()->setTimes(static_cast<int>(times_.moments.size()), static_cast<int>(at_));
    });
    show(0);
}

TimesTool::~TimesTool() { QObject::disconnect(slider_); }

QString TimesTool::asks() const { return QString::fromStdString(times_.words); }

QStringList TimesTool::answers() const {
    QStringList list{trTimes("Play")};
    for (const auto& [words, at] : times_.ways) list << QString::fromStdString(words);
    return list;
}

void TimesTool::answered(int answer) {
    if (answer == 0) {
        show(0);
        playing_.start();
    } else {
        playing_.stop();
        show(times_.ways[static_cast<size_t>(answer) - 1].second);
    }
    desk().space().pane()->setTimes(static_cast<int>(times_.moments.size()), static_cast<int>(at_));
}

bool TimesTool::possible() const { return desk().document().isOpen() && desk().document().store()->revision() == revision_; }

void TimesTool::left() {
    playing_.stop();
    desk().space().pane()->setTimes(0);
    desk().space().endCast();
    desk().space().putBack();
}

void TimesTool::show(std::size_t at) {
    at_ = std::min(at, times_.moments.size() - 1);
    desk().space().showMoment(times_.moments[at_]);
}

} // namespace gorvet::desk
