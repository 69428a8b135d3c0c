#include "analysis/photos.hpp"

#include <algorithm>
#include <tuple>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// The area of what a photo is of, where none is said.
std::string areaOf(const Build& b, const PhotoAbout& about) {
    if (!about.area.empty()) return about.area;
    if (const Release* r = releaseNamed(b, about.part)) return r->area;
    if (const Surface* s = surfaceNamed(b, about.part)) return s->area;
    const std::string job = about.step.starts_with("job-") ? about.step.substr(4) : about.step;
    if (const Job* j = jobNamed(b, job)) return j->area;
    return {};
}

/// The next of the names p0001, p0002, …
int nextNumber(const Build& b) {
    int most = 0;
    for (const auto& [id, p] : b.photos)
        if (p.name.size() > 1 && p.name[0] == 'p' && p.name.find_first_not_of("0123456789", 1) == std::string::npos &&
            p.name.size() < 9)
            most = std::max(most, std::stoi(p.name.substr(1)));
    return most + 1;
}

/// Later ones are greater: when it was taken, then how it came.
auto later(const Photo& p) { return std::tuple{whenTaken(p), p.id.value}; }

} // namespace

std::string whenTaken(const Photo& p) {
    if (!p.taken.empty()) return p.taken;
    std::string kept = p.kept.at_utc.substr(0, 19);
    if (kept.size() == 19) kept[10] = ' ';
    return kept;
}

Result<Edit> keepPhotos(const Build& b, const std::vector<NewPhoto>& files, const PhotoAbout& about, const Signed& kept) {
    std::map<std::string, std::string> there; ///< by content
    for (const auto& [id, p] : b.photos)
        if (!p.struck) there.emplace(p.content, p.name);
    Edit edit;
    int number = nextNumber(b);
    std::uint32_t id = b.next_id;
    std::string first, last;
    for (const NewPhoto& file : files) {
        Photo p;
        p.name = fmt::format("p{:04}", number);
        if (!there.emplace(file.hash, p.name).second) continue;
        ++number;
        p.id = PhotoId{id++};
        p.kind = file.kind;
        p.content = file.hash;
        p.taken = file.taken;
        p.width_px = file.width_px;
        p.height_px = file.height_px;
        p.turned = file.turned;
        p.area = areaOf(b, about);
        p.step = about.step;
        p.part = about.part;
        p.stage = about.stage;
        p.note = about.note;
        p.kept = kept;
        if (first.empty()) first = p.name;
        last = p.name;
        edit.changes.emplace_back(Put<Photo>{std::move(p)});
    }
    if (edit.changes.empty())
        return Error{Error::Code::Conflict, files.empty() ? "" : there.at(files.front().hash),
                     files.empty() ? std::string("No picture was given.")
                                   : fmt::format("That very picture is kept already, as {}.", there.at(files.front().hash)),
                     "Nothing was changed.", -1};
    edit.sentence = first == last ? "photo " + first : fmt::format("photos {} to {}", first, last);
    return edit;
}

std::vector<BeforeAfter> beforeAndAfter(const Build& b) {
    struct Two {
        const Photo* before = nullptr;
        const Photo* after = nullptr;
    };
    std::map<std::string, Two> places;
    for (const auto& [id, p] : b.photos) {
        if (p.struck || p.kind != RecordKind::Picture) continue;
        const std::string& place = p.part.empty() ? p.area : p.part;
        if (place.empty() || (p.stage != Stage::Before && p.stage != Stage::After)) continue;
        const Photo*& held = p.stage == Stage::Before ? places[place].before : places[place].after;
        if (!held || later(*held) < later(p)) held = &p;
    }
    std::vector<std::pair<std::string, Two>> both;
    for (const auto& place : places)
        if (place.second.before && place.second.after) both.push_back(place);
    std::stable_sort(both.begin(), both.end(),
                     [](const auto& x, const auto& y) { return later(*x.second.after) > later(*y.second.after); });
    std::vector<BeforeAfter> list;
    for (const auto& [place, two] : both) list.push_back({place, two.before->id, two.after->id});
    return list;
}

std::vector<PhotoId> newestPictures(const Build& b, std::size_t most) {
    std::vector<std::tuple<std::string, std::uint32_t>> all;
    for (const auto& [id, p] : b.photos)
        if (!p.struck) all.push_back(later(p));
    const std::size_t count = std::min(most, all.size());
    std::partial_sort(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(count), all.end(), std::greater<>());
    std::vector<PhotoId> list;
    for (std::size_t k = 0; k < count; ++k) list.push_back(PhotoId{std::get<1>(all[k])});
    return list;
}

} // namespace gorvet::analysis
