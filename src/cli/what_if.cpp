#include "cli/what_if.hpp"

#include "analysis/json.hpp"
#include "build/edit.hpp"
#include "cli/open_build.hpp"
#include "cli/tape_commands.hpp"
#include "cli/wait.hpp"
#include "entry/entry.hpp"
#include "prompt/context.hpp"

#include <iostream>

namespace gorvet::cli {

int whatIf(const std::string& path, const std::string& subject_name, const std::vector<std::string>& lines, bool scans) {
    auto store = openToRead(path);
    if (!store) return fail(store.error());
    const build::Build& b = (*store)->build();
    const auto named = subjectIn(b, subject_name, path);
    if (!named) return fail(named.error());
    analysis::Results now = analysed(**store);
    if (scans) waitFor(**store, b, now, analysis::slowForFindings());
    build::Build changed = b;
    build::SubjectId subject = *named;
    for (const std::string& line : lines) {
        const auto results = analysis::variantOf(changed, now).results;
        entry::Context context = prompt::contextFor(results, subject, author().who, store::nowUtc());
        prompt::letIssue(context, changed, results);
        const auto read = entry::understand(changed, context, line);
        if (!read) return fail(read.error());
        if (const auto done = build::enact(changed, read->edit); !done) return fail(done.error());
        if (read->subject) subject = *read->subject;
        std::cerr << read->echo << "\n";
    }
    analysis::Variant v = analysis::variantOf(std::move(changed), now);
    if (scans) waitFor(**store, v.build, v.results, analysis::slowForFindings());
    std::cout << analysis::whatIfJson(b, now, v);
    return 0;
}

} // namespace gorvet::cli
