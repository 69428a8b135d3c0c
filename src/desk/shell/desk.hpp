#pragma once

#include "desk/shell/document.hpp"
#include "desk/shell/slow_work.hpp"

#include <QKeySequence>
#include <functional>
#include <memory>

class QWidget;

namespace gorvet::desk {

class InstrumentLink;
class Space;
class Tool;

/// What a bench's acts and tools may use of the window.
class Desk {
public:
    virtual ~Desk() = default;
    virtual Document& document() = 0;
    virtual SlowWork& slow() = 0;
    /// For work that is no node of the graph: exports, imports, laying a scan.
    virtual Worker& worker() = 0;
    virtual Space& space() = 0;
    virtual InstrumentLink& instruments() = 0;
    /// What dialogs stand over.
    virtual QWidget* over() = 0;
    /// What is shown: the subject of a bench that has one sheet a subject, and the sheet's key.
    virtual build::SubjectId subject() const = 0;
    virtual std::string_view shownView() const = 0;
    virtual void turn(std::string_view bench, std::string_view view) = 0;
    /// Begins a line in the entry field with the caret at a place of it; it is kept as if it had been typed.
    virtual void beginLine(const QString& line, int caret) = 0;
    /// Says something on the line; `role`: "", "good", "warn" or "bad".
    virtual void say(const QString&, const char* role = "good") = 0;
    /// Keeps it and says so, or says why not.
    virtual bool keep(const Result<build::Edit>&) = 0;
    /// Begins a tool; one that was on is left.
    virtual void take(std::unique_ptr<Tool>) = 0;
    /// Ends the tool that is on.
    virtual void putDown() = 0;
    /// A file of that name where builds are, that is not there yet.
    virtual QString freePath(const QString& name) const = 0;
    virtual bool makeFile(const QString& path, const build::Settings& = {}) = 0;
};

/// Something that can be done, with its name and keys: in the Build menu, beside a bench's line, and where everything is found.
struct Act {
    const char* name; ///< of its action: never changes
    QString text;
    QKeySequence keys;
    std::function<void(Desk&)> run;
    bool at_start = false; ///< offered while no build is open, too
};

} // namespace gorvet::desk
