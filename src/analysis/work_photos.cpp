// Photos: the sheet, its small pictures, cards and pages.
#include "analysis/listing_cells.hpp"
#include "analysis/pages.hpp"
#include "analysis/photos.hpp"
#include "analysis/scans.hpp"
#include "analysis/work_facts.hpp"
#include "analysis/work_plan.hpp"
#include "formats/picture.hpp"
#include "work/photo_sheet.hpp"

#include <set>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

namespace {

constexpr std::size_t most_pairs = 6, most_newest = 24;
constexpr int longest_px = 640;

/// Photos of what a change order is photosAsked for: of the job that was found, at most two.
std::vector<PhotoId> photosOfChange(const Build& b, const Decision& d) {
    std::vector<PhotoId> list;
    const Job* found = jobNamed(b, d.because);
    if (!found) return list;
    for (const auto& [id, p] : b.photos)
        if (!p.struck && p.kind == RecordKind::Picture && p.step == "job-" + found->name && list.size() < 2) list.push_back(id);
    return list;
}

/// The small ones that sheets and pages show.
PhotosAsked photosAsked(const Build& b) {
    PhotosAsked a;
    a.longest_px = longest_px;
    const auto add = [&](PhotoId id) {
        const Photo& p = b.photos.at(id);
        if (p.kind == RecordKind::Picture) a.turned.emplace(p.content, static_cast<int>(p.turned));
    };
    std::size_t pairs = 0;
    for (const BeforeAfter& two : beforeAndAfter(b)) {
        if (pairs++ == most_pairs) break;
        add(two.before);
        add(two.after);
    }
    for (const PhotoId id : newestPictures(b, most_newest)) add(id);
    for (const auto& [id, d] : b.decisions)
        if (d.change && !d.struck)
            for (const PhotoId photo : photosOfChange(b, d)) add(photo);
    return a;
}

bool photosPossible(const Build& b, const Results&) { return !photosAsked(b).turned.empty(); }
bool photosCurrent(const Build& b, const Results& r) { return r.scans->photos.madeFrom(photosAsked(b)); }

bool makePhotos(const Build& b, Results& r, const ReadBlob& blobs, const Progress& progress) {
    auto scans = std::make_shared<Scans>(*r.scans);
    const SmallPhotos& before = *r.scans->photos;
    bool stopped = false;
    scans->photos =
        decltype(scans->photos)::of(photosAsked(b), &r.scans->photos, [&](const PhotosAsked& a) -> std::optional<SmallPhotos> {
            SmallPhotos made;
            double done = 0;
            for (const auto& [hash, turned] : a.turned) {
                if (stopped = !progress(done / static_cast<double>(a.turned.size())); stopped) return std::nullopt;
                done += 1;
                if (const auto old = before.find(hash); old != before.end() && old->second) {
                    made.emplace(*old);
                    continue;
                }
                std::vector<unsigned char> bytes;
                const auto got = blobs(
                    hash, [&](std::span<const unsigned char> part) { bytes.insert(bytes.end(), part.begin(), part.end()); });
                const auto small = got ? formats::smallPicture(bytes, turned, a.longest_px) : Result<std::string>(got.error());
                made.emplace(hash, small ? std::make_shared<const std::string>(*small) : nullptr);
            }
            return made;
        });
    if (stopped) return false;
    r.scans = std::move(scans);
    return progress(1);
}

std::string about(const Build&, const Results& r, const Photo& p) {
    std::string text = p.note;
    const auto add = [&](const std::string& more) {
        if (!more.empty()) text += (text.empty() ? "" : ", ") + more;
    };
    add(p.part);
    add(p.area);
    if (const work::Step* s = p.step.empty() ? nullptr : r.work->find(p.step))
        add(s->title);
    else
        add(p.step);
    return text;
}

work::PhotoShown photoShown(const Build& b, const Results& r, PhotoId id) {
    const Photo& p = b.photos.at(id);
    work::PhotoShown s;
    s.name = p.name;
    s.when = whenTaken(p).substr(0, 16);
    s.what = about(b, r, p);
    s.voice = p.kind == RecordKind::Voice;
    const SmallPhotos& small = *r.scans->photos;
    if (const auto found = small.find(p.content); found != small.end()) {
        s.bytes = found->second;
        s.unread = !found->second;
    }
    return s;
}

work::PhotosView photosViewOf(const Build& b, const Results& r) {
    work::PhotosView v;
    for (const BeforeAfter& two : beforeAndAfter(b)) {
        if (v.pairs.size() == most_pairs) break;
        work::PhotoPair pair{two.place, photoShown(b, r, two.before), photoShown(b, r, two.after)};
        pair.before.what = b.photos.at(two.before).note; // the place stands above both
        pair.after.what = b.photos.at(two.after).note;
        v.pairs.push_back(std::move(pair));
    }
    for (const PhotoId id : newestPictures(b, most_newest)) v.newest.push_back(photoShown(b, r, id));
    for (const auto& [id, p] : b.photos) v.all += !p.struck;
    return v;
}

} // namespace

std::vector<work::PhotoShown> changePhotos(const Build& b, const Results& r, const Decision& d) {
    std::vector<work::PhotoShown> list;
    for (const PhotoId id : photosOfChange(b, d)) list.push_back(photoShown(b, r, id));
    return list;
}

extern const std::vector<SlowNode> photo_nodes{
    {slow::photos, "the photos, small", {}, photosPossible, photosCurrent, makePhotos, true}};

Headline photoHeadline(const Build& b, const Results&, SubjectId) {
    std::size_t all = 0, before = 0;
    for (const auto& [id, p] : b.photos) {
        all += !p.struck;
        before += !p.struck && p.stage == Stage::Before;
    }
    Headline h;
    if (all == 0) {
        h.sentence = "No photos yet.";
        h.below =
            "Keep some: from the card of a step or a row, or a phone's folder that is watched. JPEG and PNG are kept as they "
            "are, inside the build's file.";
        return h;
    }
    const std::size_t pairs = beforeAndAfter(b).size();
    h.sentence = fmt::format("{}, {} before and after.", units::counted(all, "a photo"),
                             pairs ? units::counted(pairs, "a place") : "no place");
    h.below = pairs || !before
                  ? "Each is kept by its content, turned the right way up where it is shown, and only ever struck out."
                  : "What was taken before wants its like after: same place, same light, same side.";
    return h;
}

sheet::Drawing photoDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                            const sheet::Format& f) {
    work::PhotosView v = photosViewOf(b, r);
    v.selected = o.selected;
    return work::photoSheet(v, width, height, f);
}

std::vector<sheet::Drawing> photoSheets(const Build& b, const Results& r) {
    if (b.photos.empty() || !currentSlow(b, r, slow::photos)) return {};
    work::PhotosView v = photosViewOf(b, r);
    constexpr std::size_t on_paper = 12;
    v.newest.resize(std::min(v.newest.size(), on_paper));
    std::erase_if(v.newest, [](const work::PhotoShown& p) { return p.voice; });
    return work::photoPages(v, titled(b, r, "Photos"), {local_rules});
}

Listing photoList(const Build& b, const Results& r, SubjectId) {
    Listing list{{"photo", "taken", "when", "area", "step", "of", "note", "size", "kept by"}, 6, "photo", {}};
    for (auto row = b.photos.rbegin(); row != b.photos.rend(); ++row) {
        const Photo& p = row->second;
        const work::Step* s = p.step.empty() ? nullptr : r.work->find(p.step);
        ListRow line;
        line.cells = {words(p.name),
                      words(whenTaken(p).substr(0, 16)),
                      words(p.struck                      ? "struck out"
                            : p.kind == RecordKind::Voice ? "spoken"
                            : p.stage == Stage::Unsaid    ? ""
                                                          : std::string(word(p.stage))),
                      words(p.area),
                      words(s ? s->title : p.step),
                      words(p.part),
                      words(p.note),
                      p.width_px > 0 ? number(fmt::format("{:g} × {:g}", p.width_px, p.height_px), p.width_px * p.height_px)
                                     : words(""),
                      words(p.kept.who + ", " + p.kept.at_utc.substr(0, 10))};
        line.tag = "photo:" + p.name;
        if (!p.struck) line.line = "photo " + p.name + " note ";
        list.rows.push_back(std::move(line));
    }
    // pictures that a tick, a row of the register or something found has for itself
    std::set<std::string> shown_already;
    for (const auto& [id, p] : b.photos) shown_already.insert(p.content);
    const auto other = [&](const std::string& hash, const std::string& of, const std::string& when, const std::string& area,
                           const std::string& note, const std::string& who, const std::string& tag) {
        if (hash.empty() || !shown_already.insert(hash).second) return;
        ListRow line;
        line.cells = {words(hash.substr(0, 8)),
                      words(when.substr(0, 16)),
                      words(""),
                      words(area),
                      words(""),
                      words(of),
                      words(note),
                      words(""),
                      words(who)};
        line.tag = tag;
        list.rows.push_back(std::move(line));
    };
    for (const auto& [id, t] : b.ticks) {
        const work::Step* s = r.work->find(t.step);
        other(t.photo, s ? s->title : t.step, t.at_utc, s ? s->area : "", t.note, t.who, "step:" + t.step);
    }
    for (const auto& [id, row] : b.releases) other(row.photo, row.name, "", row.area, row.note, "", "tag:" + row.name);
    for (const auto& [id, f] : b.flaws)
        other(f.photo, std::string(word(f.kind)), f.at_utc, f.point ? nameOf(b, f.point) : f.part, f.note, f.who,
              fmt::format("flaw:{}", id.value));
    return list;
}

std::optional<Card> photoCard(const Build& b, const std::string& name) {
    const Photo* p = photoNamed(b, name);
    if (!p) return std::nullopt;
    Card c;
    c.title = name;
    c.word = p->struck ? "struck out" : p->stage == Stage::Unsaid ? "" : std::string(word(p->stage));
    const auto row = [&](const char* label, const std::string& text) {
        if (!text.empty()) c.rows.push_back({label, text, Mark::None, false});
    };
    row("kind", p->kind == RecordKind::Voice ? "a spoken note" : "");
    row("taken", p->taken.empty() ? "" : p->taken + ", by the camera's clock");
    row("kept", p->kept.who + ", " + p->kept.at_utc.substr(0, 10));
    row("area", p->area);
    row("step", p->step);
    row("of", p->part);
    if (p->width_px > 0)
        row("size", fmt::format("{:g} × {:g}{}", p->width_px, p->height_px, p->turned > 1 ? ", shown turned" : ""));
    if (p->struck) row("struck out by", p->struck->who);
    if (!p->note.empty()) c.sentences.push_back(p->note);
    if (!p->struck) {
        for (const Stage stage : {Stage::Before, Stage::During, Stage::After})
            if (stage != p->stage && p->kind == RecordKind::Picture)
                c.actions.push_back({std::string(word(stage)), "photo " + name + " " + std::string(word(stage)), "", false});
        c.actions.push_back({"note", "photo " + name + " note ", p->note, true});
        c.actions.push_back({"area", "photo " + name + " area ", p->area, true});
        c.actions.push_back({"strike out", "strike-photo " + name, "", false});
    }
    c.journal_table = "photo";
    c.journal_id = p->id.value;
    return c;
}

} // namespace gorvet::analysis
