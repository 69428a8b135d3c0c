#include "desk/scan/scan_times.hpp"

#include "analysis/scans.hpp"
#include "desk/shell/ask.hpp"
#include "desk/space/times_tool.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

namespace {

QString trScanTimes(const char* text) { return QCoreApplication::translate("ScanTimes", text); }

} // namespace

void watchWay(Desk& desk) {
    watch(desk, {analysis::slow::way}, trScanTimes("the way in"),
          trScanTimes("There is no way to be seen: it needs a scan of the body and one of the chassis."),
          [](const build::Build& b, const analysis::Results& r, const Worker::Progress&) {
              return r.scans->way.made() ? analysis::wayTimes(b, *r.scans->way.input().overlay, *r.scans->way) : std::nullopt;
          });
}

void watchTravel(Desk& desk) {
    watch(desk, {analysis::slow::overlay}, trScanTimes("the wheels' travel"),
          trScanTimes("No wheel moves: it needs scans of body and wheels, and where the hubs are (or type travel)."),
          [](const build::Build& b, const analysis::Results& r, const Worker::Progress& progress) {
              return analysis::travelTimes(b, *r.scans->overlay, progress);
          });
}

void watchChange(Desk& desk) {
    watch(desk, {analysis::slow::layers}, trScanTimes("before and after"),
          trScanTimes("No change of wheelbase is planned, or no chassis is scanned."),
          [](const build::Build& b, const analysis::Results& r, const Worker::Progress&) {
              return analysis::changeTimes(b, r, *r.scans->overlay);
          });
}

void watchSomething(Desk& desk) {
    const int which = ask::choice(desk.over(), trScanTimes("What is watched?"),
                                  trScanTimes("On a slider, moment by moment. Nothing is changed by it."),
                                  {trScanTimes("the body coming down"), trScanTimes("wheels and axles through bump and lock"),
                                   trScanTimes("the chassis before its change and after")});
    if (which == 0) watchWay(desk);
    if (which == 1) watchTravel(desk);
    if (which == 2) watchChange(desk);
}

} // namespace gorvet::desk
