// gorvet-sim: plays measuring instruments that read a practice frame, over a local socket or a pseudo-terminal.
#include "files/between.hpp"
#include "files/streams.hpp"
#include "formats/instrument_line.hpp"
#include "sim/instruments.hpp"
#include "sim/scan_commands.hpp"

#include <cerrno>
#include <csignal>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <iostream>
#include <map>
#include <optional>
#include <poll.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/un.h>
#include <termios.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <fmt/format.h>

namespace gorvet::sim {
namespace {

struct Options {
    std::uint32_t seed = 1;
    int difficulty = 1;
    std::string socket;
    bool pty = false;
    std::vector<std::string> already; ///< "tape Al Br": readings that were taken before, one each
    double every_s = 0;
    std::string fault; ///< "", rubbish, no-unit, inches, silent
};

int fail(const std::string& what) {
    std::cerr << "gorvet-sim: " << what << "\n";
    return 1;
}

class Bench {
public:
    explicit Bench(const Options& o) : options_(o), frame_(crookedFrame(o.seed, o.difficulty)) {
        for (const std::string& line : o.already)
            if (auto asked = formats::readAskedLine("at " + line)) count(*asked);
    }

    std::string hello() const {
        std::string text;
        for (const Played& p : played()) text += fmt::format("hello {} {}\n", build::word(p.kind), p.name);
        return text;
    }

    /// What is answered to a line; empty for nothing.
    std::string answer(const std::string& line) {
        auto asked = formats::readAskedLine(line);
        if (!asked) return "";
        if (!asked->take) {
            asked_ = *asked;
            return "";
        }
        return reading();
    }

    std::string reading() {
        if (!asked_) return "";
        if (options_.fault == "silent") return "";
        if (options_.fault == "rubbish") return "\x01\xfe~~\x7f 21\n";
        const Played* instrument = playedFor(asked_->kind);
        if (!instrument) return fmt::format("trouble practice-tape nothing here reads {}\n", asked_->kind);
        const std::string key = keyOf(*asked_);
        auto taken = take(frame_, {asked_->kind, asked_->from, asked_->to, counts_[key], taped_, taken_});
        if (!taken) return fmt::format("trouble {} {}\n", instrument->name, taken.error().message);
        count(*asked_);
        std::string figure = taken->figure;
        if (options_.fault == "no-unit") figure = figure.substr(0, figure.find(' '));
        if (options_.fault == "inches" && asked_->kind == "tape") figure = fmt::format("{:.2f} in", taken->value / 25.4);
        return fmt::format("reads {} {}\n", instrument->name, figure);
    }

private:
    static std::string keyOf(const formats::Asked& a) {
        const bool back = (a.kind == "tape" || a.kind == "plan") && a.to < a.from;
        return fmt::format("{} {} {}", a.kind, back ? a.to : a.from, back ? a.from : a.to);
    }
    void count(const formats::Asked& a) {
        ++counts_[keyOf(a)];
        ++taken_;
        if (a.kind == "tape") ++taped_;
    }

    Options options_;
    CrookedFrame frame_;
    std::optional<formats::Asked> asked_;
    std::map<std::string, int> counts_;
    int taped_ = 0;
    int taken_ = 0;
};

bool sendAll(int to, const std::string& text) {
    for (size_t sent = 0; sent < text.size();) {
        const ssize_t n = write(to, text.data() + sent, text.size() - sent);
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) return false;
        sent += static_cast<size_t>(n);
    }
    return true;
}

/// Talks until the other end goes.
void talk(Bench& bench, int with, const Options& o) {
    if (!sendAll(with, bench.hello())) return;
    formats::LineCutter cutter;
    for (;;) {
        pollfd waits{with, POLLIN, 0};
        const int ready = poll(&waits, 1, o.every_s > 0 ? static_cast<int>(o.every_s * 1000) : -1);
        if (ready < 0 && errno == EINTR) continue;
        if (ready < 0) return;
        if (ready == 0) {
            if (!sendAll(with, bench.reading())) return;
            continue;
        }
        char piece[512];
        const ssize_t n = read(with, piece, sizeof piece);
        if (n <= 0) return;
        for (const std::string& line : cutter.feed({piece, static_cast<size_t>(n)}))
            if (!sendAll(with, bench.answer(line))) return;
    }
}

int playOnSocket(Bench& bench, const Options& o) {
    sockaddr_un address{};
    address.sun_family = AF_UNIX;
    if (o.socket.size() >= sizeof address.sun_path) return fail("--socket " + o.socket + ": the path is too long (107 at most).");
    std::strcpy(address.sun_path, o.socket.c_str());
    const int listener = ::socket(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0);
    if (listener < 0) return fail(std::strerror(errno));
    struct stat there {};
    if (::lstat(o.socket.c_str(), &there) == 0) {
        if (!S_ISSOCK(there.st_mode))
            return fail("--socket " + o.socket + ": there is a file of that name, and it is no socket. Choose another name.");
        ::unlink(o.socket.c_str()); // of an earlier run that was killed
    }
    if (bind(listener, reinterpret_cast<const sockaddr*>(&address), sizeof address) != 0 || listen(listener, 1) != 0)
        return fail("--socket " + o.socket + ": " + std::strerror(errno) + ".");
    std::cout << "ready " << o.socket << std::endl;
    for (;;) {
        const int client = accept(listener, nullptr, nullptr);
        if (client < 0 && errno == EINTR) continue;
        if (client < 0) return fail(std::strerror(errno));
        talk(bench, client, o);
        close(client);
    }
}

int playOnTerminal(Bench& bench, const Options& o) {
    const int master = posix_openpt(O_RDWR | O_NOCTTY);
    if (master < 0 || grantpt(master) != 0 || unlockpt(master) != 0) return fail(std::strerror(errno));
    const char* name = ptsname(master);
    // raw, so that nothing is echoed; held open here, so that the line stays up while nobody listens
    const int slave = open(name, O_RDWR | O_NOCTTY);
    termios settings{};
    if (slave < 0 || tcgetattr(slave, &settings) != 0) return fail(std::strerror(errno));
    cfmakeraw(&settings);
    tcsetattr(slave, TCSANOW, &settings);
    std::cout << "ready " << name << std::endl;
    talk(bench, master, o);
    return 0;
}

} // namespace
} // namespace gorvet::sim

int main(int argc, char** argv) {
    using namespace gorvet::sim;
    gorvet::files::openStandardStreams();
    CLI::App app{
        "gorvet-sim: plays a tape, a height gauge, a digital level, a rule, a dial and corner scales that read a practice frame, and a "
        "scanner that walks round a made-up car"};
    Options o;
    app.add_option("--seed", o.seed, "which frame")->capture_default_str();
    app.add_option("--difficulty", o.difficulty, "1, 2 or 3")->check(gorvet::files::between(1, 3))->capture_default_str();
    auto* socket = app.add_option("--socket", o.socket, "play on this local socket");
    auto* pty = app.add_flag("--pty", o.pty, "play on a pseudo-terminal, as if on a serial line");
    socket->excludes(pty);
    app.add_option("--already", o.already, "a reading that was taken before, like \"tape Al Br\"; may be given often")
        ->take_all();
    app.add_option("--every", o.every_s, "read unasked, every so many seconds")->check(gorvet::files::between(0.0, 3600.0));
    app.add_option("--fault", o.fault, "what goes wrong: rubbish, no-unit, inches or silent")
        ->check(CLI::IsMember({"rubbish", "no-unit", "inches", "silent"}));
    ScanRequest r;
    auto* mesh = app.add_subcommand("mesh", "write a part of the made-up car as a mesh");
    auto* scan = app.add_subcommand("scan", "write what a scanner sees of it: a noisy, partial cloud");
    std::string folder;
    auto* meshes = app.add_subcommand("demo-meshes", "body, chassis, engine, axle and wheel into a folder");
    meshes->add_option("FOLDER", folder, "where to")->required();
    for (auto* c : {mesh, scan}) {
        c->add_option("OUT", r.out, "the PLY to write")->required();
        c->add_option("--of", r.part, "body, chassis, engine, axle, wheel or car")->capture_default_str();
        c->add_option("--mesh-step", r.mesh_step_mm, "size of its triangles, mm")
            ->check(gorvet::files::between(2.0, 500.0))
            ->capture_default_str();
    }
    scan->add_option("--from", r.eye, "where the scanner stands: x,y,z in mm")->capture_default_str();
    scan->add_option("--step", r.step_mrad, "between rays, mrad")
        ->check(gorvet::files::between(0.3, 100.0))
        ->capture_default_str();
    scan->add_option("--noise", r.noise_mm, "1 sigma along the ray, mm")
        ->check(gorvet::files::between(0.0, 100.0))
        ->capture_default_str();
    scan->add_option("--strays", r.stray_share, "share of points from somewhere else")
        ->check(gorvet::files::between(0.0, 0.5))
        ->capture_default_str();
    scan->add_option("--markers", r.markers, "so many marker balls of 38 mm radius about the car")
        ->check(gorvet::files::between(0, 30));
    scan->add_option("--scan-seed", r.seed, "of noise and strays")->capture_default_str();
    scan->add_flag("--own-frame", r.own_frame, "in the scanner's own axes");
    app.require_subcommand(0, 1);
    CLI11_PARSE(app, argc, argv);
    if (*mesh) return writeMesh(r);
    if (*scan) return writeScan(r);
    if (*meshes) return writeDemoMeshes(folder);
    if (o.socket.empty() && !o.pty) return fail("Say where to play: --socket PATH or --pty.");
    std::signal(SIGPIPE, SIG_IGN);
    Bench bench(o);
    return o.pty ? playOnTerminal(bench, o) : playOnSocket(bench, o);
}
