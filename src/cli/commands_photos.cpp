// Commands about photos and spoken notes.
#include "analysis/json.hpp"
#include "analysis/photos.hpp"
#include "cli/commands.hpp"
#include "cli/keep_commands.hpp"
#include "cli/open_build.hpp"
#include "cli/tape_commands.hpp"
#include "formats/picture.hpp"

#include <iostream>

#include <fmt/format.h>

namespace gorvet::cli {

namespace {

struct AskedPhotos {
    std::string path;
    std::vector<std::string> files;
    std::string stage = "unsaid";
    analysis::PhotoAbout about;
    bool voice = false;
};

/// Looks at a file, keeps it in the build, and says what it is; a file that can't be kept is said, and the others go on.
std::optional<analysis::NewPhoto> takenIn(store::Store& store, const std::string& file, bool voice) {
    analysis::NewPhoto photo;
    if (voice) {
        photo.kind = build::RecordKind::Voice;
        if (const auto sound = formats::isSound(file); !sound) return fail(sound.error()), std::nullopt;
    } else {
        const auto facts = formats::readPicture(file);
        if (!facts) return fail(facts.error()), std::nullopt;
        photo.taken = facts->taken;
        photo.width_px = facts->width_px;
        photo.height_px = facts->height_px;
        photo.turned = facts->turned;
    }
    const auto blob = store.keepBlob(file);
    if (!blob) return fail(blob.error()), std::nullopt;
    photo.hash = blob->hash;
    return photo;
}

int addPhotosTo(AskedPhotos a) {
    auto store = openToWrite(a.path);
    if (!store) return fail(store.error());
    const auto stage = build::fromWord<build::Stage>(a.stage);
    if (!stage)
        return fail(Error{Error::Code::BadInput, a.stage, fmt::format("\"{}\" is not known here.", a.stage),
                          "Say before, during or after.", -1});
    a.about.stage = *stage;
    const build::Build& b = (*store)->build();
    if (build::jobNamed(b, a.about.step)) a.about.step = "job-" + a.about.step;
    if (!a.about.step.empty() && !analysed(**store).work->find(a.about.step))
        return fail(Error{Error::Code::BadInput, a.about.step, fmt::format("There is no step or job {}.", a.about.step),
                          "gorvet-cli work FILE lists the codes of all. Nothing was kept.", -1});
    if (!a.about.part.empty() && !build::releaseNamed(b, a.about.part) && !build::surfaceNamed(b, a.about.part))
        return fail(Error{Error::Code::BadInput, a.about.part,
                          fmt::format("There is neither a row of the register nor a surface {}.", a.about.part),
                          "Tag it first, or say the area. Nothing was kept.", -1});
    std::vector<analysis::NewPhoto> photos;
    for (const std::string& file : a.files)
        if (auto photo = takenIn(**store, file, a.voice)) photos.push_back(std::move(*photo));
    if (photos.empty()) return exit_open; // each was said
    const store::Author by = author();
    auto edit = analysis::keepPhotos((*store)->build(), photos, a.about, {by.who, store::nowUtc()});
    if (!edit) return fail(edit.error());
    if (auto kept = (*store)->keep(*edit, by); !kept) return fail(kept.error());
    std::cerr << edit->sentence << "\n";
    return photos.size() == a.files.size() && edit->changes.size() == photos.size() ? 0 : exit_open;
}

int printPhotos(const std::string& path) {
    const auto store = openToRead(path);
    if (!store) return fail(store.error());
    std::cout << photosJson((*store)->build(), analysed(**store));
    return 0;
}

} // namespace

void addPhotoCommands(Commands& commands) {
    CLI::App& app = commands.app();
    {
        auto [c, a] = commands.add(app, "photo", "tick a step with a photo, or add one to its tick");
        fileArgument(c, a.path);
        c.add_option("STEP", a.text, "code of the step")->required();
        c.add_option("PICTURE", a.other, "the picture's file")->required();
        c.add_option("--note", a.why, "a note to the tick");
        commands.runs(c, [&a = a] { return keepPhoto(a.path, a.text, a.other, a.why); });
    }
    {
        auto [c, a] = commands.add(app, "photo-found", "add a photo to something that was found");
        fileArgument(c, a.path);
        c.add_option("KIND", a.text, "rust, thin, crack, seized, play, repair or layers")->required();
        c.add_option("WHERE", a.from, "the point or part")->required();
        c.add_option("PICTURE", a.other, "the picture's file")->required();
        subjectOption(c, a.subject);
        commands.runs(c, [&a = a] { return keepPhotoFound(a.path, a.subject, a.text, a.from, a.other); });
    }
    {
        auto [c, a] = commands.add(app, "photo-out", "write a kept photo into a file");
        fileArgument(c, a.path);
        c.add_option("HASH", a.text, "the photo's hash, as work shows it")->required();
        c.add_option("OUT", a.other, "the file to write")->required();
        commands.runs(c, [&a = a] { return takePhotoOut(a.path, a.text, a.other); });
    }
    {
        auto [c, a] =
            commands.add<AskedPhotos>(app, "photo-add", "keep photos inside the build's file: JPEG or PNG, each by its content");
        fileArgument(c, a.path);
        c.add_option("FILES", a.files, "pictures, or spoken notes")->required();
        c.add_option("--area", a.about.area, "of the car; of the step or part unless said");
        c.add_option("--step", a.about.step, "code of a step, or name of a job");
        c.add_option("--of", a.about.part, "a row of the register, or a surface");
        c.add_option("--when", a.stage, "before, during or after the work");
        c.add_option("--note", a.about.note, "a note to all of them");
        c.add_flag("--voice", a.voice, "they are spoken notes: WAV, OGG, FLAC, MP3 or M4A");
        commands.runs(c, [&a = a] { return addPhotosTo(a); });
    }
    {
        auto [c, a] = commands.add(app, "photos", "all photos and spoken notes, and places that have one before and one after");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return printPhotos(a.path); });
    }
}

} // namespace gorvet::cli
