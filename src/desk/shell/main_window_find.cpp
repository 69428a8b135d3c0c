// Everything that can be found by its words.
#include "desk/shell/main_window.hpp"

#include "desk/handbook/handbook.hpp"
#include "desk/handbook/handbook_view.hpp"
#include "desk/shell/entry_line.hpp"
#include "desk/shell/finder.hpp"
#include "desk/widgets/rule_view.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <QAction>
#include <QLineEdit>
#include <algorithm>

namespace gorvet::desk {

namespace {

/// The words that a form begins with, up to what must be filled in.
QString beginningOf(const char* example) {
    const QString line = QString::fromUtf8(example);
    return line.section(' ', 0, 0) + ' ';
}

} // namespace

std::vector<Findable> MainWindow::findings() {
    std::vector<Findable> all;
    for (const analysis::Finding& f : document_.results().findings)
        all.push_back({tr("findings"), QString::fromStdString(f.sentence), QString::fromStdString(f.word),
                       [this, key = std::string(f.bench()), tag = f.tag] {
                           if (bench().key() != key) setBench(key);
                           sheet_->reveal(tag);
                           if (const auto at = sheet_->placeOf(tag)) showCard(QString::fromStdString(tag), at->toPoint(), sheet_);
                       }});
    return all;
}

std::vector<Findable> MainWindow::findables() {
    std::vector<Findable> all;
    const auto act = [&](const QString& section, const QAction* action) {
        all.push_back({section, QString(action->text()).remove('&'), action->shortcut().toString(),
                       [a = const_cast<QAction*>(action)] { a->trigger(); }});
    };
    // the bench that is shown stands first
    std::vector<const Bench*> order{&bench()};
    for (const auto& b : benches_)
        if (b.get() != &bench()) order.push_back(b.get());
    for (const Bench* b : order) {
        const QString section = b->name();
        const std::string key(b->key());
        all.push_back({section, QString::fromUtf8(b->info().question), tr("turn to it"), [this, key] { setBench(key); }});
        if (b->views().size() > 1)
            for (const auto& v : b->views())
                all.push_back({section, QString::fromUtf8(v.name), tr("F5 turns through them"),
                               [this, key, view = std::string(v.key)] { turn(key, view); }});
        for (const Act& a : b->acts()) act(section, acts_.at(a.name));
        for (const auto& form : entry::forms())
            if (section == form.bench)
                all.push_back(
                    {section, QString::fromUtf8(form.what), QString::fromUtf8(form.example), [this, key, example = form.example] {
                         if (bench().key() != key) setBench(key);
                         entry_->beginWith(beginningOf(example));
                     }});
    }
    for (Findable& f : findings()) all.push_back(std::move(f));
    for (const auto& [id, p] : document_.build().points)
        all.push_back({tr("points"), QString::fromStdString(p.name),
                       QString::fromStdString(build::nameOf(document_.build(), p.subject)), [this, id = id, subject = p.subject] {
                           for (const auto& b : benches_)
                               if (b->info().by_subject) setBench(b->key());
                           turnTo(subject);
                           const std::string tag = "point:" + std::to_string(id.value);
                           sheet_->reveal(tag);
                           if (const auto at = sheet_->placeOf(tag)) showCard(QString::fromStdString(tag), at->toPoint(), sheet_);
                       }});
    std::vector<std::string_view> of_benches;
    for (const auto& b : benches_)
        for (const Act& a : b->acts()) of_benches.push_back(a.name);
    for (const auto& [name, action] : acts_)
        if (std::find(of_benches.begin(), of_benches.end(), name) == of_benches.end()) act(tr("Build"), action);
    for (const auto& form : entry::forms())
        if (std::none_of(benches_.begin(), benches_.end(), [&](const auto& b) { return b->name() == form.bench; }))
            all.push_back({tr("Build"), QString::fromUtf8(form.what), QString::fromUtf8(form.example),
                           [this, example = form.example] { entry_->beginWith(beginningOf(example)); }});
    for (const handbook::Page& page : handbook::pages()) {
        all.push_back({tr("handbook"), page.title, page.key == QString::fromUtf8(bench().key().data()) ? tr("F3") : QString(),
                       [this, key = page.key] { openHandbook(key); }});
        for (const QString& line : page.markdown.split('\n'))
            if (line.startsWith("## "))
                all.push_back({tr("handbook"), line.mid(3), page.title.section(':', 0, 0),
                               [this, key = page.key, heading = line.mid(3)] { openHandbook(key, heading); }});
    }
    for (const auto& [keys, what] :
         {std::pair{"F2", "to the entry line"}, std::pair{"F5, Shift+F5", "the sheets of this bench"},
          std::pair{"F6", "chassis, body, and whatever else is measured"}, std::pair{"Tab", "completes the word on the line"},
          std::pair{"Up, Down", "on the line: earlier lines; another pair"},
          std::pair{"Escape", "closes what is open; leaves what is done over a sheet"},
          std::pair{"arrows, Enter", "on the sheet: walk through what is drawn, open its card"},
          std::pair{"Page Down, Page Up", "on the sheet: scroll it, where it is higher than the window"},
          std::pair{"Ctrl+arrow", "on The Rule: slide the body 1 mm, with Shift 10"}})
        all.push_back({tr("keys"), tr(what), QString::fromUtf8(keys), [] {}});
    return all;
}

void MainWindow::findFindings() { finder_->open(findings(), tr("Everything that was found, the worst first")); }

void MainWindow::openHandbook(const QString& key, const QString& heading) {
    reading_ = true;
    refresh();
    handbook_->open(key.isEmpty() ? QString::fromUtf8(bench().key().data(), static_cast<qsizetype>(bench().key().size())) : key,
                    heading);
}

void MainWindow::find() { finder_->open(findables(), tr("Find anything: what can be done, typed, or was found")); }

} // namespace gorvet::desk
