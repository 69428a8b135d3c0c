#include "cli/open_build.hpp"

#include "analysis/findings.hpp"
#include "cli/tape_commands.hpp"
#include "files/out_file.hpp"

#include <cstdlib>
#include <iostream>
#include <vector>

#include <fmt/format.h>

namespace gorvet::cli {
namespace {

struct Met {
    double patience_s = 10;
    std::vector<std::string> damage; ///< of all files that were opened
};
Met& met() {
    static Met m;
    return m;
}

void sayOpened(const std::string& path, const store::Store& store) {
    for (const std::string& d : store.damage()) {
        std::cerr << fmt::format("gorvet-cli: {} is damaged: {}.\n", path, d);
        met().damage.push_back(d);
    }
    if (!store.notice().empty()) std::cerr << fmt::format("gorvet-cli: {}: {}.\n", path, store.notice());
    if (!store.keptCopy().empty())
        std::cerr << fmt::format("gorvet-cli: brought up from an older file version; a copy is {}\n", store.keptCopy().string());
}

} // namespace

void setPatience(double seconds) { met().patience_s = seconds; }

Result<StorePtr> openToRead(const std::string& path) {
    auto store = store::Store::open(path, store::Access::Read);
    if (!store) return store;
    files::protect(path);
    sayOpened(path, **store);
    return store;
}

Result<StorePtr> openToWrite(const std::string& path) {
    const auto patience = std::chrono::milliseconds(static_cast<long long>(met().patience_s * 1000));
    auto store = store::Store::open(path, store::Access::Write, patience);
    if (!store) return store;
    files::protect(path);
    sayOpened(path, **store);
    if ((*store)->waitsForWriter())
        return Error{Error::Code::Locked, path,
                     fmt::format("{} is open for writing in another window or program, and was not let go within {:g} s.", path,
                                 met().patience_s),
                     "Nothing was changed. Close the other, or wait longer: --wait SECONDS.", -1};
    if ((*store)->readOnly())
        return Error{Error::Code::Locked, path, fmt::format("{} can't be changed, because {}.", path, (*store)->readOnlyReason()),
                     (*store)->damage().empty() ? "Copy it to where it can be written." : "Open a copy you kept.", -1};
    return store;
}

store::Author author(const std::string& why) {
    const char* user = std::getenv("GORVET_USER");
    if (!user) user = std::getenv("USER");
    return {user ? user : "builder", why};
}

Result<build::SubjectId> subjectIn(const build::Build& b, const std::string& name, const std::string& file) {
    if (const build::Subject* s = build::subjectNamed(b, name)) return s->id;
    std::string all;
    for (const auto& [id, s] : b.subjects) all += (all.empty() ? "" : ", ") + s.name;
    return Error{
        Error::Code::NotFound, name, file + " has no subject " + name + ".",
        "It has " + all + ". A new one is made on the entry line: subject " + name + " candidate, component or as-built.", -1};
}

analysis::Results analysed(const build::Build& b, std::int64_t revision) {
    analysis::Results r = analysis::analyse(b, revision);
    analysis::sayDamage(r, met().damage);
    return r;
}

analysis::Results analysed(const store::Store& s) { return analysed(s.build(), s.revision()); }

int finished(int code) {
    std::cout.flush();
    if (!std::cout) {
        std::cerr << "gorvet-cli: the answer can't be written to standard output. Is there room, and is it open?\n";
        return exit_wrong;
    }
    return code == 0 && !met().damage.empty() ? exit_open : code;
}

} // namespace gorvet::cli
